use actix_web::web;

use crate::error::Page;
use crate::form::Form;
use crate::handlers::page;
use crate::pages::sign_in::SignInTemplate;

/// The page on which one signs in. Nothing is written for who only opens it.
pub(crate) async fn show(query: web::Query<Vec<(String, String)>>) -> Page {
    page(&SignInTemplate::of(Form::from_pairs(query.into_inner().into_iter().filter(|(k, _)| k == "next"))))
}
