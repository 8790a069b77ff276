use actix_web::web;
use uuid::Uuid;

use super::show::week_page;
use super::{decide, letter_of};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::save_controller;
use crate::handlers::{go, invalid};
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::state::App;

/// Saves a change of the week: a day, a start, a program, a repair, a proposal.
pub(crate) async fn change(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    let mut controller = context.controller().clone();
    let why = decide(&mut form, &mut controller, &context.week_of(today), false);
    if form.is_sound()
        && let Err(error) = controller.check()
    {
        form.fail("mode", cannot_be_set(&error));
    }
    if !form.is_sound() {
        let query = form.clone();
        return invalid(&week_page(&app, &user, &context, &query, context.controller(), form).await?);
    }
    let letter = letter_of(&form).map_or('A', |l| l.get());
    let back = format!("/controllers/{id}/week?program={letter}");
    if controller == *context.controller() {
        return go(&back);
    }
    let post_to = format!("/controllers/{id}/week/change");
    save_controller(&app, &user, &context, form, controller, why, [&post_to, &back]).await
}
