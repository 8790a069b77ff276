use actix_web::web;
use chrono::{Datelike, NaiveDate, TimeDelta};
use chrono_tz::Tz;
use upland_store::HeadFilter;

use crate::charts::{DayArc, TWO_WEEKS};
use crate::context::{ControllerContext, ControllerHead, PlaceContext, Role};
use crate::error::{Page, PageError};
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::{page, zones};
use crate::jobs::Jobs;
use crate::loading;
use crate::pages::clock_change::clock_todo;
use crate::pages::field::FieldState;
use crate::pages::finder::{Finder, Search};
use crate::pages::first_steps::first_steps;
use crate::pages::job_list::{Job, JobKind, PutOff, by_place};
use crate::pages::places::place_rows;
use crate::pages::shell::View;
use crate::pages::today::{
    OnRecord, RecentDays, TodayTemplate, dial_rows, kind_links, nearest_first, normal_now, round, to_set,
};
use crate::show::{Measure, month_long, month_of, weekday};
use crate::state::App;
use crate::words::Words;

/// Controllers whose percents stand on a page.
const DIALS: usize = 24;
/// Jobs on a page.
const JOBS: usize = 24;
/// Places that stand beside them; of more there is a link to the list.
const PLACES: usize = 12;

/// The almanac page for the date: the percents of the controllers, and what is to be done.
pub(crate) async fn show(app: web::Data<App>, jobs: web::Data<Jobs>, user: SignedIn, Query(query): Query) -> Page {
    let w = Words;
    let (dials, listed) = (Search::of(&query, "page"), Search::of(&query, "jobs"));
    let kind = JobKind::of_word(query.get("kind"));
    let filter = HeadFilter { text: dials.text.clone(), ..HeadFilter::default() };
    let heads = user.account.heads(&filter).await?.items;
    let home = home(&user, &heads).await?;
    let zone = home.as_ref().map_or(Tz::UTC, |p| p.zone);
    let now = app.clock.local(zone);
    let today = now.date();
    let clock = clock_todo(&zones(&heads), today);
    let of_controllers = jobs.of(&user.account, app.clock, &heads).await?;
    let snoozes = user.account.snoozes().await?;
    let everywhere = clock.iter().map(|todo| Job { head: None, todo, snooze: None });
    let own = heads.iter().zip(&of_controllers);
    let own = own.flat_map(|(head, own)| own.iter().map(|todo| Job::of(head, todo, &snoozes, today)));
    let (put_off, all): (Vec<Job<'_>>, Vec<Job<'_>>) = everywhere.chain(own).partition(|job| job.snooze.is_some());
    let kinds = kind_links(&all.iter().map(|job| job.todo).collect::<Vec<_>>(), kind, &dials.text);
    let shows_put_off = query.is("kind", "snoozed");
    let put_off_count = put_off.len();
    let mut of_kind: Vec<Job<'_>> = match shows_put_off {
        true => put_off,
        false => all.into_iter().filter(|job| kind.is_none_or(|k| job.todo.kind == k)).collect(),
    };
    let yard = user.account.yard().await?;
    if let Some(yard) = yard {
        nearest_first(&mut of_kind, yard);
    }
    let todo_count = of_kind.len();
    let listed_jobs: Vec<Job<'_>> = of_kind.into_iter().skip((listed.page - 1) * JOBS).take(JOBS).collect();
    let mut todo = by_place(&listed_jobs);
    let round = yard.filter(|_| !shows_put_off).and_then(|yard| round(&mut todo, yard, now.time(), user.units));
    let shown: Vec<&ControllerHead> = heads.iter().skip((dials.page - 1) * DIALS).take(DIALS).collect();
    let contexts = loading::contexts(&user.account, app.clock, &shown).await?;
    let ids: Vec<_> = shown.iter().map(|head| head.id).collect();
    let records = user.account.newest_records(&ids).await?;
    let soil = jobs.soil(&user.account, app.clock, &shown, (&contexts, &records)).await?;
    let on_record = |d: &ControllerContext| OnRecord {
        today: app.clock.today(d.at.zone),
        state: FieldState::of(records.iter().filter(|r| r.controller_id == d.controller.id)),
        soil: ids.iter().position(|id| *id == d.controller.id).and_then(|i| soil.get(i)).map_or(&[], |own| &own[..]),
    };
    let (groups, most) = dial_rows(&contexts, on_record, user.units);
    let recent = recent(&user, home.as_ref(), today).await?;
    let places = user.account.places_part("", 0, PLACES as i64).await?;
    let series: Vec<_> = user.account.all_series().await?.into_iter().map(|(s, _)| (s.id, s.value)).collect();
    // A company that has just begun is led to its first card.
    let first = if dials.text.is_empty() && heads.len() < 2 && places.total < 2 {
        first_steps(home.as_ref(), contexts.first())
    } else {
        Vec::new()
    };
    let month = month_of(today);
    let days = if today.leap_year() { 366 } else { 365 };
    let word = if shows_put_off { "snoozed" } else { kind.map_or("", JobKind::word) };
    page(&TodayTemplate {
        shell: shell(&app, &user, View::Today, "today", w.t("nav-today"), "/"),
        day: today.day().to_string(),
        weekday: weekday(today),
        month_year: w.t2("month-year", ("month", month_long(month)), ("year", today.year().to_string())),
        of_year: w.t2("today-day-of", ("day", today.ordinal().to_string()), ("days", days.to_string())),
        arc: home.as_ref().map(|p| {
            let position = &p.place.value.place.position;
            DayArc::draw([position.latitude_deg(), position.longitude_deg()], p.zone, &p.rules, now)
        }),
        normal: home.as_ref().and_then(|p| normal_now(p, today, user.units)),
        month: month_long(month),
        scale: Measure::DepthADay.show(most, user.units),
        finder: Finder::of("/", &dials, [heads.len(), DIALS], "page", &[]),
        first,
        to_set: to_set(&groups),
        has_soil: groups.iter().flat_map(|g| &g.rows).any(|row| row.soil.is_some()),
        groups,
        recent,
        jobs: Finder::of("/", &listed, [todo_count, JOBS], "jobs", &[("kind", word)]),
        todo_count,
        round,
        no_yard: yard.is_none() && user.user.role == Role::Lead && todo.len() > 1,
        put_off: PutOff { count: put_off_count, shown: shows_put_off },
        todo,
        kinds,
        places: place_rows(&places.items, &heads, &series, user.units),
        place_count: places.total,
    })
}

/// The place whose date and sun stand at the head: the first one with weather, else the first one.
async fn home(user: &SignedIn, heads: &[ControllerHead]) -> Result<Option<PlaceContext>, PageError> {
    let id = match heads.iter().find(|head| head.revision_id.is_some()).or(heads.first()) {
        Some(head) => Some(head.place_id),
        None => user.account.places_part("", 0, 1).await?.items.first().map(|place| place.id),
    };
    Ok(match id {
        Some(id) => Some(loading::place(&user.account, id).await?),
        None => None,
    })
}

/// The last days at the place of the head.
async fn recent(
    user: &SignedIn,
    home: Option<&PlaceContext>,
    today: NaiveDate,
) -> Result<Option<RecentDays>, PageError> {
    let Some((home, weather)) = home.and_then(|h| Some((h, h.weather.as_ref()?))) else { return Ok(None) };
    let span = [today - TimeDelta::days(TWO_WEEKS), today];
    let days = loading::days_between(&user.account, weather, span).await?;
    Ok(RecentDays::of(home, &days, today, user.units))
}
