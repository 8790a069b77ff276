use actix_web::web;
use uuid::Uuid;

use super::address;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::save_controller;
use crate::handlers::station_of;
use crate::loading;
use crate::pages::feel::with_soil;
use crate::state::App;

/// Takes the texture that was felt for the station, and for those of the same soil.
pub(crate) async fn save(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, String)>,
    Posted(form): Posted,
) -> Page {
    let (id, number) = path.into_inner();
    let context = loading::controller(&user.account, app.clock, id).await?;
    let number = station_of(&context, &number)?.number;
    let changed = with_soil(context.controller(), number, &form).ok_or(PageError::NotFound)?;
    let to = format!("/controllers/{id}/stations?station={number}");
    save_controller(&app, &user, &context, form, changed, "why-felt", [&address(id, number), &to]).await
}
