use actix_web::web;
use upland_store::{Record as Stored, SeriesRecord, Write};
use uuid::Uuid;

use super::record::series_page;
use crate::apart::apart;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{made_on, save_over};
use crate::intake::{DailyRecord, revision_of_record};
use crate::loading;
use crate::pages::series::Station;
use crate::pages::weather_file::no_normals;
use crate::state::App;

/// Renames a station, or moves it: its reference ET and its normals are worked out anew for the place where it
/// stands, and written with the move.
pub(crate) async fn update(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let whole = loading::whole_record(&user.account, *id).await?;
    let record = &whole.record;
    let series = record.weather.series.clone();
    let Some(station) = Station::read(&mut form, Some(&series.value), user.units) else {
        return invalid(&series_page(&app, &user, whole.record, form).await?);
    };
    let stays = station.position == series.value.position && station.wind_height_m == series.value.wind_height_m;
    let mut revision_id = series.value.revision_id;
    let mut moved = None;
    if !stays && record.weather.revision.day_count > 0 {
        let days =
            DailyRecord { position: station.position, wind_height_m: station.wind_height_m, ..DailyRecord::of(&whole) };
        match apart(move || revision_of_record(days)).await? {
            Ok(revision) => {
                revision_id = revision.id;
                moved = Some(Box::new(revision));
            }
            Err(error) => {
                form.fail("latitude", no_normals(&error));
                return invalid(&series_page(&app, &user, whole.record, form).await?);
            }
        }
    }
    let after = SeriesRecord {
        name: station.name,
        position: station.position,
        wind_height_m: station.wind_height_m,
        revision_id,
    };
    let why = if stays { "why-weather-name" } else { "why-weather-moved" };
    let write = Write { id: series.id, made_on: made_on(&form), record: Stored::Series(Some(after), moved) };
    let to = format!("/weather/{}", series.id);
    let post_to = format!("{to}/station");
    save_over(&app, &user, form, why, write, [&post_to, &to]).await
}
