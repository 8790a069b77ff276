use actix_web::web;
use upland_store::StoreError;
use uuid::Uuid;

use super::form_page;
use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::conflicts::{Conflict, conflict_page};
use crate::handlers::saving::{action, place_write};
use crate::handlers::{go, invalid};
use crate::pages::place_form::read;
use crate::show::Units;

/// Changes a place. Its weather keeps its own position, so no figure has to be worked out anew.
pub(crate) async fn update(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let id = id.into_inner();
    let place = user.account.place(id).await?;
    let Some(changed) = read(&mut form, user.units, Some(&place.value)) else {
        return invalid(&form_page(&app, &user, form, Some(&place)).await?);
    };
    let made_on = form.get("version").parse().unwrap_or(0);
    let write = place_write(id, made_on, Some(&place.value), Some(changed));
    let mine = write.after.clone();
    match user.account.apply(&action(&app, &user, &form, "why-place", vec![write])).await {
        Ok(()) => {
            user.account.set_units(user.user.id, Units::of_word(form.get("units")).word()).await?;
            go(&format!("/places/{id}"))
        }
        Err(StoreError::Conflict { current, .. }) => {
            let address = format!("/places/{id}");
            conflict_page(&app, &user, Conflict { id, current, form, mine, post_to: &address, back: &address }).await
        }
        Err(other) => Err(other.into()),
    }
}
