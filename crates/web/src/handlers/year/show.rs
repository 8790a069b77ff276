use actix_web::web;
use upland_core::controller::Controller;
use uuid::Uuid;

use super::asked;
use crate::context::{ControllerContext, Missing};
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame_of;
use crate::handlers::page;
use crate::loading;
use crate::pages::spine::Step;
use crate::pages::year::{YearInput, YearTemplate, YearView, note};
use crate::state::App;

/// The Year; the address says which program, month and figure are open.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    page(&year_page(&app, &user, &context, &query, context.controller(), Form::default()).await?)
}

pub(super) async fn year_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    query: &Form,
    controller: &Controller,
    form: Form,
) -> Result<YearTemplate, PageError> {
    let asked = asked(app, context, query);
    let path = format!("/controllers/{}/year", context.controller.id);
    let frame = frame_of(app, user, context, Step::Year, ["year", "step-year"], &path, asked.letter).await?;
    let year = YearView::of(YearInput {
        context,
        controller,
        letter: asked.letter,
        month: asked.month,
        current: asked.current,
        today: asked.today,
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
        Some(Missing::Weather) => format!("/places/{}/weather", context.at.place.id),
        _ => format!("/controllers/{}/stations", context.controller.id),
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
