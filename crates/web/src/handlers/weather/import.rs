use actix_web::web;
use uuid::Uuid;

use super::file::{file_page, sent};
use super::new_series_writes;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::action;
use crate::handlers::{go, invalid};
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
    let revision = revision_of_days(&t.position, t.wind_height_m, &sent.name, &sent.bytes, t.days)
        .map_err(|e| PageError::Ours(Box::new(e)))?;
    let (_, writes) = new_series_writes(t.name, t.position, t.wind_height_m, revision, Some(&place));
    user.account.apply(&action(&app, &user, &form, "why-weather-file", writes)).await?;
    user.account.forget_upload(file).await?;
    go(&format!("/places/{}/weather", place.id))
}
