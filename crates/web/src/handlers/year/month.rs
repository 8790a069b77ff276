use actix_web::web;
use uuid::Uuid;

use super::show::year_page;
use super::{asked, decide};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::state::App;

/// Saves a month's percent and waterings.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let asked = asked(&app, &context, &form);
    let mut controller = context.controller().clone();
    let dragged = form.is("do", "drag");
    decide(&mut form, &mut controller, &asked, dragged);
    if let Err(error) = controller.check() {
        form.fail("waterings", cannot_be_set(&error));
    }
    if !form.is_sound() {
        let query = form.clone();
        return invalid(&year_page(&app, &user, &context, &query, context.controller(), form).await?);
    }
    let post_to = format!("/controllers/{id}/year/month");
    let back = format!("/controllers/{id}/year?program={}&month={}", form.get("program"), asked.month.number());
    save_controller(&app, &user, &context, form, controller, "why-month", [&post_to, &back]).await
}
