use actix_web::web;
use chrono::TimeDelta;
use upland_core::schedule::{Level, expand};
use upland_formats::site::{NamedRun, runs_calendar};
use uuid::Uuid;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::attachment;
use crate::loading;
use crate::state::App;

/// Days that the calendar reaches ahead.
const DAYS: i64 = 55;

/// The runs of the coming eight weeks as iCalendar.
pub(crate) async fn runs(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    let c = context.controller();
    let plan = context.plan();
    let found = expand(c, &plan, &context.at.zone, [today, today + TimeDelta::days(DAYS)], Level::Calendar);
    let named: Vec<NamedRun<'_>> = found
        .runs
        .iter()
        .map(|run| {
            let station = c.station(run.station).map_or("", |s| s.name.as_str());
            NamedRun { controller: &c.name, station, run }
        })
        .collect();
    let calendar = runs_calendar(&c.name, &named, app.clock.now());
    attachment("text/calendar; charset=utf-8", "runs.ics", calendar)
}
