use actix_web::web;

use super::account_page;
use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::state::App;

/// One's own account: who is signed in, with which password, and where else.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, query: web::Query<Vec<(String, String)>>) -> Page {
    let form = Form::from_pairs(query.into_inner().into_iter().filter(|(k, _)| k == "password"));
    page(&account_page(&app, &user, form).await?)
}
