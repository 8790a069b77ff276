use actix_web::web;
use chrono::Datelike;
use chrono_tz::Tz;

use crate::charts::DayArc;
use crate::context::ControllerContext;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::loading;
use crate::pages::due::{clock_todo, due};
use crate::pages::field::FieldState;
use crate::pages::places::place_rows;
use crate::pages::shell::View;
use crate::pages::today::{TodayTemplate, Todo, dial_rows, normal_now, todos};
use crate::show::{Measure, month_long, month_of, weekday};
use crate::state::App;
use crate::words::Words;

/// The almanac page for the date.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn) -> Page {
    let w = Words;
    let (place_contexts, contexts) = loading::everything(&user.account).await?;
    let all_series = user.account.all_series().await?;
    let records = user.account.newest_records(None).await?;
    let places: Vec<_> = place_contexts.iter().map(|p| p.place.clone()).collect();
    let controllers: Vec<_> = contexts.iter().map(|d| d.controller.clone()).collect();
    // The date stands at the first place that has weather, else at the first one.
    let home = place_contexts.iter().find(|p| p.weather.is_some()).or(place_contexts.first());
    let zone = home.map_or(Tz::UTC, |p| p.zone);
    let now = app.clock.local(zone);
    let today = now.date();
    let today_at = |d: &ControllerContext| app.clock.today(d.at.zone);
    let (groups, most) = dial_rows(&contexts, today_at);
    let month = month_of(today);
    let arc = home.map(|p| {
        let position = &p.place.value.position;
        DayArc::draw(position.latitude_deg(), position.longitude_deg(), p.zone, now)
    });
    let series: Vec<_> = all_series.into_iter().map(|(s, _)| (s.id, s.value)).collect();
    let days = if today.leap_year() { 366 } else { 365 };
    let mut todo: Vec<Todo> = Vec::new();
    let zones: Vec<Tz> = place_contexts.iter().map(|p| p.zone).collect();
    todo.extend(clock_todo(&zones, today));
    for context in &contexts {
        let own = records.iter().filter(|r| r.controller_id == context.controller.id);
        todo.extend(due(context, &FieldState::of(own), today_at(context)));
    }
    todo.extend(todos(&contexts, today_at));
    let shell = shell(&app, &user, View::Today, "today", w.t("nav-today"), "/");
    page(&TodayTemplate {
        day: today.day().to_string(),
        weekday: weekday(today),
        month_year: w.t2("month-year", month_long(month), today.year().to_string()),
        of_year: w.t2("today-day-of", today.ordinal().to_string(), days.to_string()),
        arc,
        normal: home.and_then(|p| normal_now(p, today, user.units)),
        month: month_long(month),
        scale: Measure::DepthADay.show(most, user.units),
        todo,
        places: place_rows(&places, &controllers, &series, user.units),
        groups,
        shell,
    })
}
