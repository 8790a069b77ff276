use actix_web::web;

use super::form_page;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::place_form::empty;
use crate::state::App;

/// An empty form.
pub(crate) async fn new(app: web::Data<App>, user: SignedIn) -> Page {
    page(&form_page(&app, &user, empty(user.units), None).await?)
}
