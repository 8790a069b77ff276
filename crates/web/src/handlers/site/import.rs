use actix_web::web;
use upland_formats::site::{FieldDoc, PanelDoc};
use upland_store::{ControllerRecord, FurtherWeather, PlaceRecord, Record, SeriesRecord, Write};
use uuid::Uuid;

use super::choose::refused;
use super::preview::sent;
use crate::error::Page;
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::{action, field_record};
use crate::intake::{TypedNormals, revision_of_normals};
use crate::state::App;
use crate::words::Words;

/// Imports a site file: a new place with everything in it, or nothing.
pub(crate) async fn import(app: web::Data<App>, user: SignedIn, file: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let (name, site) = match sent(&user, *file).await? {
        Ok(found) => found,
        Err(error) => return refused(&app, &user, error).await,
    };
    let place_id = Uuid::new_v4();
    let to = format!("/places/{place_id}");
    let mut action = action(&app, &user, &form, ["why-site", &to], Vec::new());
    let mut series_id = None;
    if let Some((weather, normals)) = &site.weather {
        let revision = revision_of_normals(&Words.t1("site-normals-source", &name), TypedNormals::of(*normals));
        let id = Uuid::new_v4();
        let record = SeriesRecord {
            name: weather.clone(),
            position: site.place.position,
            wind_height_m: 2.0,
            revision_id: revision.id,
        };
        action.writes.push(Write::new(id, Record::Series(Some(record), Some(Box::new(revision)))));
        series_id = Some(id);
    }
    let place = PlaceRecord { place: site.place, series_id, further: FurtherWeather::default(), rules: site.rules };
    action.writes.push(Write::new(place_id, Record::Place(Some(place))));
    let ids: Vec<Uuid> = site.controllers.iter().map(|_| Uuid::new_v4()).collect();
    for (id, controller) in ids.iter().zip(site.controllers) {
        let record = ControllerRecord { place_id, controller };
        action.writes.push(Write::new(*id, Record::Controller(Some(record))));
    }
    for (index, panel) in &site.as_found {
        let Some(id) = ids.get(*index) else { continue };
        let document = FieldDoc::Found(PanelDoc::from(panel));
        let record = field_record(&action, &Form::default(), *id, document);
        action.records.push(record);
    }
    let to = user.account.apply(&action).await?;
    user.account.forget_upload(*file).await?;
    go(&to)
}
