use actix_web::web;
use upland_core::controller::ProgramLetter;
use uuid::Uuid;

use crate::apart::apart;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::spine::Step;
use crate::pages::ways::{WaysInput, WaysTemplate, WaysView};
use crate::state::App;
use crate::words::Words;

/// Ways to water a program; the address says which one. Nothing is saved.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let w = Words;
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let letter = query.get("program").chars().next().and_then(ProgramLetter::new);
    let days = days_on_record(&user, &context).await?;
    let path = format!("/controllers/{id}/ways");
    let frame = frame(&app, &user, &context, Step::Week, ["ways", "ways-title"], &path).await?;
    let missing = match context.normals() {
        Err(_) => ("todo-weather-act", format!("/places/{}/weather", context.at.place.id)),
        Ok(_) => ("todo-stations-act", format!("/controllers/{id}/stations")),
    };
    let (today, units) = (app.clock.today(context.at.zone), user.units);
    let view = apart(move || WaysView::of(&WaysInput { context: &context, days: &days, letter, today, units })).await?;
    page(&WaysTemplate {
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        view,
        missing: [w.t("ways-missing"), w.t(missing.0), missing.1],
    })
}
