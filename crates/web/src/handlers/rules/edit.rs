use actix_web::web;
use uuid::Uuid;

use super::form_page;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::rules_form::filled;
use crate::state::App;

/// The water rules of a place.
pub(crate) async fn edit(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let place = user.account.place(*id).await?;
    let form = filled(&place.value, place.version);
    page(&form_page(&app, &user, &place, form).await?)
}
