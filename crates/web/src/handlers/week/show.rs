use actix_web::web;
use upland_core::controller::Controller;
use uuid::Uuid;

use super::{letter_of, level_of};
use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame_of;
use crate::handlers::page;
use crate::loading;
use crate::pages::spine::Step;
use crate::pages::week::{WeekInput, WeekTemplate, WeekView};
use crate::state::App;

/// The Week; the address says which program is open and at which percent it is drawn.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    page(&week_page(&app, &user, &context, &query, context.controller(), Form::default()).await?)
}

pub(super) async fn week_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    query: &Form,
    controller: &Controller,
    form: Form,
) -> Result<WeekTemplate, PageError> {
    let path = format!("/controllers/{}/week", context.controller.id);
    let letter = letter_of(query);
    let frame = frame_of(app, user, context, Step::Week, ["week", "step-week"], &path, letter).await?;
    let week = WeekView::of(WeekInput {
        context,
        controller,
        now: app.clock.local(context.at.zone),
        open: letter.filter(|l| controller.program(*l).is_some()),
        level: level_of(query),
        with_repairs: true,
        units: user.units,
        form,
    });
    Ok(WeekTemplate { shell: frame.shell, spine: frame.spine, strip: frame.strip, week })
}
