use actix_web::web;
use upland_core::found::adopt as adopted;
use uuid::Uuid;

use super::show::{Typed, found_page};
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::pages::field::FieldState;
use crate::pages::found::{TAKE, differing, found_href, taken};
use crate::state::App;
use crate::words::Words;

/// Takes values of the panel as it was found into the plan. What is left differs still, and is to dial.
pub(crate) async fn adopt(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let records = user.account.newest_records(&[*id]).await?;
    let state = FieldState::of(&records);
    // Only the panel as it still stands: what was dialled since is not taken back by an old page.
    let panel = state.still_found_as(form.get("of")).ok_or(PageError::NotFound)?;
    let differ = differing(&context, panel);
    let parts = taken(&form, &differ);
    if parts.is_empty() {
        form.fail(TAKE, Words.t("found-take-none"));
    }
    let changed = adopted(panel, context.controller(), &parts);
    if let Err(error) = changed.check() {
        form.fail(TAKE, cannot_be_set(&error));
    }
    if !form.is_sound() {
        let query = Form::from_pairs(vec![("of".to_owned(), form.get("of").to_owned())]);
        return invalid(&found_page(&app, &user, &context, &query, Typed::Boxes(form)).await?);
    }
    let back = format!("{}?of={}", found_href(*id), form.get("of"));
    let to = if parts.len() < differ.len() { format!("/controllers/{id}/dial-in?only=changed") } else { back };
    let post_to = format!("{}/adopt", found_href(*id));
    save_controller(&app, &user, &context, form, changed, "why-adopted", [&post_to, &to]).await
}
