use actix_web::web;
use upland_core::schedule::why_dry;
use uuid::Uuid;

use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::Choice;
use crate::pages::days_form::read_date;
use crate::pages::field::FieldState;
use crate::pages::sensors::held_on;
use crate::pages::spine::Step;
use crate::pages::why::{WhyTemplate, WhyView};
use crate::state::App;
use crate::words::Words;

/// Why did it not water? The address says the station and the day.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let href = format!("/controllers/{id}/why");
    let frame = frame(&app, &user, &context, Step::Week, ["why", "dry-title"], &href).await?;
    let c = context.controller();
    let mut form = Form::from_pairs(query.into_inner());
    let asked = form.has("station");
    if !asked && let Some(first) = c.stations.first() {
        // Before anything is asked: the first station, today.
        form.set("station", first.number.to_string());
    }
    if form.get("date").is_empty() {
        form.set("date", app.clock.today(context.at.zone).to_string());
    }
    let date = read_date(&mut form, "date");
    let station = form.get("station").parse::<u8>().ok().filter(|n| c.station(*n).is_some());
    if asked && station.is_none() {
        form.fail("station", Words.t("field-choice"));
    }
    let answer = match (date, station) {
        (Some(date), Some(station)) => {
            let days = days_on_record(&user, &context).await?;
            let records = user.account.newest_records(&[context.controller.id]).await?;
            let known = FieldState::of(&records).known(&context, held_on(&context, &days, date));
            let plan = context.situation(date).plan(c);
            let why = why_dry(c, &plan, &context.at.zone, &known, station, date);
            Some(WhyView::of(&why, c, station, date))
        }
        _ => None,
    };
    let stations = c.stations.iter().map(|s| Choice::new(s.number.to_string(), format!("{} {}", s.number, s.name)));
    page(&WhyTemplate {
        stations: stations.collect(),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        href,
        form,
        answer,
    })
}
