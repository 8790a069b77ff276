use actix_web::web;
use uuid::Uuid;

use super::form_page;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::place_form::filled;
use crate::state::App;

/// The form of a saved place.
pub(crate) async fn edit(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let place = user.account.place(*id).await?;
    let form = filled(&place.value, place.version, user.units);
    page(&form_page(&app, &user, form, Some(&place)).await?)
}
