use actix_web::web;
use upland_formats::site::{Site, write_site};
use upland_store::HeadFilter;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::attachment;
use crate::loading;
use crate::pages::field::FieldState;

/// The site file of a place: its rules, normals, controllers and the panels as last found.
pub(crate) async fn export(user: SignedIn, id: web::Path<Uuid>) -> Page {
    let at = loading::place(&user.account, *id).await?;
    let mut controllers = Vec::new();
    let mut as_found = Vec::new();
    let heads = user.account.heads(&HeadFilter::of_place(*id)).await?.items;
    let own: Vec<Uuid> = heads.iter().map(|head| head.id).collect();
    for controller in user.account.controllers_of(&own).await? {
        let records = user.account.newest_records(&[controller.id]).await?;
        if let Some((_, panel)) = FieldState::of(&records).found {
            as_found.push((controllers.len(), panel));
        }
        controllers.push(controller.value.controller);
    }
    let place = at.place.value;
    let weather = at.weather.as_ref().and_then(|w| Some((w.series.value.name.clone(), *w.normals()?)));
    let site = Site { place: place.place, rules: place.rules, weather, controllers, as_found };
    attachment("application/json", "site.json", write_site(&site))
}
