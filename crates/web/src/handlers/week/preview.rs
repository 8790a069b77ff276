use actix_web::web;
use uuid::Uuid;

use super::{decide, letter_of, level_of};
use crate::error::Page;
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::week::{WeekInput, WeekLiveTemplate, WeekView};
use crate::state::App;
use crate::words::Words;

/// What a start in hand would run. Nothing is saved.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let now = app.clock.local(context.at.zone);
    let mut controller = context.controller().clone();
    decide(&mut form, &mut controller, &context.week_of(now.date()), true);
    let week = WeekView::of(WeekInput {
        context: &context,
        controller: &controller,
        now,
        open: letter_of(&form),
        level: level_of(&form),
        with_repairs: false,
        units: user.units,
        form: Form::default(),
    });
    page(&WeekLiveTemplate { w: Words, token: user.token, week })
}
