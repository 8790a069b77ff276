use actix_web::http::StatusCode;
use actix_web::web;
use uuid::Uuid;

use super::form_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{place_write, save_over};
use crate::pages::place_form::read;
use crate::show::Units;
use crate::state::App;

/// Changes a place. Its weather keeps its own position, so no figure has to be worked out anew.
pub(crate) async fn update(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let id = id.into_inner();
    let place = user.account.place(id).await?;
    let Some(changed) = read(&mut form, user.units, Some(&place.value)) else {
        return invalid(&form_page(&app, &user, form, Some(&place)).await?);
    };
    let units = Units::of_word(form.get("units"));
    let write = place_write(&place, &form, changed);
    let address = format!("/places/{id}");
    let answer = save_over(&app, &user, form, "why-place", write, [&address, &address]).await?;
    if answer.status() != StatusCode::CONFLICT {
        user.account.set_units(user.user.id, units.word()).await?;
    }
    Ok(answer)
}
