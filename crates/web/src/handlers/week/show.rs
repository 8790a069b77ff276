use actix_web::web;
use upland_core::controller::Controller;
use uuid::Uuid;

use super::{letter_of, level_of};
use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::handlers::strips::strips;
use crate::pages::desk::Desk;
use crate::pages::shell::{Shell, View};
use crate::pages::spine::{Spine, Step};
use crate::pages::week::{WeekInput, WeekTemplate, WeekView};
use crate::words::Words;

/// The Week; the address says which program is open and at which percent it is drawn.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let query = Form::from_pairs(query.into_inner());
    page(&week_page(&app, &user, &desk, &query, desk.controller(), Form::default()).await?)
}

pub(super) async fn week_page(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    query: &Form,
    controller: &Controller,
    form: Form,
) -> Result<WeekTemplate, PageError> {
    let path = format!("/controllers/{}/week", desk.controller.id);
    let mut shell = Shell::of(app, user, View::Places, "week", Words.t("step-week"), &path).await?;
    let letter = letter_of(query);
    let (strip, ephemeris) = strips(app, user, desk, letter).await?;
    shell.ephemeris = Some(ephemeris);
    let week = WeekView::of(WeekInput {
        desk,
        controller,
        now: app.clock.local(desk.at.zone),
        open: letter.filter(|l| controller.program(*l).is_some()),
        level: level_of(query),
        settled: true,
        units: user.units,
        form,
    });
    Ok(WeekTemplate { shell, spine: Spine::of(desk, Step::Week), strip, week })
}
