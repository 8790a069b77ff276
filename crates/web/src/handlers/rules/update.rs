use actix_web::web;
use upland_store::PlaceRecord;
use uuid::Uuid;

use super::form_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{place_write, save_over};
use crate::pages::rules_form::read;
use crate::state::App;

/// Changes the water rules of a place.
pub(crate) async fn update(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let place = user.account.place(*id).await?;
    let Some(rules) = read(&mut form, &place.value.house_number) else {
        return invalid(&form_page(&app, &user, &place, form).await?);
    };
    let changed = PlaceRecord { rules, ..place.value.clone() };
    let write = place_write(&place, &form, changed);
    let address = format!("/places/{id}/rules");
    save_over(&app, &user, form, "why-rules", write, [&address, &address]).await
}
