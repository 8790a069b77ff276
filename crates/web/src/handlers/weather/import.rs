use actix_web::http::StatusCode;
use actix_web::web;
use upland_store::SeriesRecord;
use uuid::Uuid;

use super::file::{file_page, sent};
use super::new_series_writes;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{action, apply_over};
use crate::intake::revision_of_days;
use crate::pages::weather_file::preview;
use crate::state::App;

/// Imports a file: all its days, or nothing while a unit is missing or a line has an error.
pub(crate) async fn import(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    Posted(mut form): Posted,
) -> Page {
    let (place, file) = path.into_inner();
    let place = user.account.place(place).await?;
    let sent = sent(&user, file).await?;
    let (view, importable) = preview(&mut form, &sent.table, user.units);
    let Some(t) = importable else {
        return invalid(&file_page(&app, &user, &place, file, &sent, form, view).await?);
    };
    let revision =
        revision_of_days(&t.position, t.wind_height_m, &sent.name, t.days).map_err(|e| PageError::Ours(Box::new(e)))?;
    let record =
        SeriesRecord { name: t.name, position: t.position, wind_height_m: t.wind_height_m, revision_id: revision.id };
    let writes = new_series_writes(record, revision, &place, &form);
    let to = format!("/places/{}/weather", place.id);
    let post_to = format!("{to}/files/{file}/import");
    let action = action(&app, &user, &form, ["why-weather-file", &to], writes);
    let answer = apply_over(&app, &user, form, &action, [&post_to, &to]).await?;
    if answer.status() != StatusCode::CONFLICT {
        user.account.forget_upload(file).await?;
    }
    Ok(answer)
}
