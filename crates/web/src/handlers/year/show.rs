use actix_web::web;
use upland_core::controller::Controller;
use uuid::Uuid;

use super::asked;
use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame_of;
use crate::handlers::page;
use crate::pages::desk::{Desk, Missing};
use crate::pages::spine::Step;
use crate::pages::year::{YearInput, YearTemplate, YearView, note};

/// The Year; the address says which program, month and figure are open.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let query = Form::from_pairs(query.into_inner());
    page(&year_page(&app, &user, &desk, &query, desk.controller(), Form::default()).await?)
}

pub(super) async fn year_page(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    query: &Form,
    controller: &Controller,
    form: Form,
) -> Result<YearTemplate, PageError> {
    let asked = asked(app, desk, query);
    let path = format!("/controllers/{}/year", desk.controller.id);
    let frame = frame_of(app, user, desk, Step::Year, ["year", "step-year"], &path, asked.letter).await?;
    let year = YearView::of(YearInput {
        desk,
        controller,
        letter: asked.letter,
        month: asked.month,
        current: asked.current,
        figure: asked.figure,
        saved: None,
        units: user.units,
        form,
    });
    let (year, missing) = match year {
        Ok(year) => (Some(year), None),
        Err(missing) => (None, Some(missing)),
    };
    let note_href = match missing {
        Some(Missing::Weather) => format!("/places/{}/weather", desk.at.place.id),
        _ => format!("/controllers/{}/stations", desk.controller.id),
    };
    Ok(YearTemplate {
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        year,
        note: missing.map_or_else(String::new, note),
        note_href,
    })
}
