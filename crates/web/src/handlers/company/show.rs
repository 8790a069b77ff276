use actix_web::web;

use super::company_page;
use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::state::App;

/// The people of the company.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn) -> Page {
    page(&company_page(&app, &user, Form::default(), None).await?)
}
