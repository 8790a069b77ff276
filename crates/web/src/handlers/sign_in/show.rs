use actix_session::Session;
use actix_web::web;

use super::template;
use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::token;
use crate::handlers::page;

/// The page on which one signs in.
pub(crate) async fn show(session: Session, query: web::Query<Vec<(String, String)>>) -> Page {
    let form = Form::from_pairs(query.into_inner().into_iter().filter(|(k, _)| k == "next"));
    page(&template(token(&session)?, form))
}
