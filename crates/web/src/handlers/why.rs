use actix_web::web;
use chrono::{NaiveDate, NaiveDateTime, NaiveTime, TimeDelta, TimeZone};
use upland_core::controller::Controller;
use upland_core::schedule::{Stood, on_panel, why_dry};
use uuid::Uuid;

use crate::clock::Clock;
use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::days_form::read_date;
use crate::pages::field::FieldState;
use crate::pages::last_weeks::LastWeeks;
use crate::pages::sensors::held_on;
use crate::pages::soil_view::{SoilLine, SoilView};
use crate::pages::spine::Step;
use crate::pages::why::{ALL, Judged, WhyAnswer, WhyLine, WhyTemplate, WhyView, stations};
use crate::state::App;
use crate::words::Words;

/// Why did it not water? The address says the station and the day; before anything is asked, all of them today.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let href = format!("/controllers/{id}/why");
    let frame = frame(&app, &user, &context, Step::Week, ["why", "dry-title"], &href).await?;
    let c = context.controller();
    let mut form = query;
    if !form.has("station") {
        form.set("station", ALL);
    }
    if form.get("date").is_empty() {
        form.set("date", app.clock.today(context.at.zone).to_string());
    }
    let date = read_date(&mut form, "date");
    let station = form.get("station").parse::<u8>().ok().filter(|n| c.station(*n).is_some());
    if station.is_none() && !form.is("station", ALL) {
        form.fail("station", Words.t("field-choice"));
    }
    let answer = match date {
        Some(date) if form.is_sound() && !c.stations.is_empty() => {
            Some(answer(&user, app.clock, &context, station, date).await?)
        }
        _ => None,
    };
    page(&WhyTemplate {
        stations: stations(c),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        href,
        form,
        answer,
    })
}

/// Days that the account of a station is summed up over.
const SUMMED_DAYS: i64 = 28;

async fn answer(
    user: &SignedIn,
    clock: Clock,
    context: &ControllerContext,
    station: Option<u8>,
    date: NaiveDate,
) -> Result<WhyAnswer, PageError> {
    let past = Past::load(user, clock, context, station, date).await?;
    let days = days_on_record(user, context).await?;
    let known = past.state.known(&past.then, held_on(&past.then, &days, date));
    let c = &past.controller;
    let plan = context.situation(date).plan(c);
    let why = |number| why_dry(c, &plan, &context.at.zone, &known, number, date);
    let weeks = LastWeeks::of(&past.then, c.clone(), &days, date).map(|w| w.off_since(past.state.found_off()));
    let since = weeks.as_ref().map_or(date, |w| w.first_day().max(date - TimeDelta::days(SUMMED_DAYS)));
    let last = weeks.as_ref().map_or(date, LastWeeks::last_day);
    let soil = weeks.as_ref().map_or_else(Vec::new, |w| w.recent(&past.then, since).soil());
    let soil_of = |number| soil.iter().find(|s| s.station == number);
    let one = station.map(|number| {
        let account = soil_of(number).map(|s| SoilView::of(s, since, last, user.units));
        WhyView::of(&why(number), c, number, account, date)
    });
    let line =
        |number| WhyLine::of(&why(number), c, number, soil_of(number).map(|s| SoilLine::of(s, user.units)), date);
    let all = match station {
        Some(_) => Vec::new(),
        None => c.stations.iter().map(|s| line(s.number)).collect(),
    };
    Ok(WhyAnswer::new(one, all, past.judged, date))
}

/// A controller as its panel ran it on a day that may be long gone.
struct Past {
    /// The plan of that day.
    then: ControllerContext,
    /// What was recorded in the field until then.
    state: FieldState,
    controller: Controller,
    judged: Judged,
}

impl Past {
    async fn load(
        user: &SignedIn,
        clock: Clock,
        context: &ControllerContext,
        station: Option<u8>,
        date: NaiveDate,
    ) -> Result<Self, PageError> {
        let (id, zone) = (context.controller.id, context.at.zone);
        let now = context.controller();
        // What was changed after the day's first start did not keep that start from running.
        let letter = station.and_then(|n| now.station(n)).map(|s| s.program);
        let own = now.programs.iter().filter(|p| letter.is_none_or(|l| l == p.letter));
        let start = own.filter_map(|p| p.schedule.starts.first()).min().map_or(NaiveTime::MIN, |s| s.time());
        let instant = |local: NaiveDateTime| {
            // An hour that the clock leaves out has no moment of its own: an hour later or earlier will do.
            let at = zone.from_local_datetime(&local).earliest().map_or_else(|| local.and_utc(), |at| at.to_utc());
            clock.written(at, zone)
        };
        let began = instant(date.and_time(start));
        let document = user.account.controller_as_of(id, began).await?;
        let is_known = document.as_ref().is_some_and(|(_, is_known)| *is_known);
        let mut versioned = document.map_or_else(|| context.controller.clone(), |(document, _)| document);
        // What was written down later about that day counts too: it says what held then.
        let later = now.temporaries.iter().filter(|t| t.since <= date);
        for temporary in later {
            let own = &mut versioned.value.controller.temporaries;
            let same = |t: &&mut upland_core::controller::Temporary| {
                (t.kind, t.since, &t.reason) == (temporary.kind, temporary.since, &temporary.reason)
            };
            match own.iter_mut().find(same) {
                Some(known) => known.until = temporary.until,
                None => own.push(temporary.clone()),
            }
        }
        let then = ControllerContext::of(versioned, context.at.clone(), date);
        // A panel that was found on that day tells of its morning too; what was dialled later does not.
        let over = instant((date + TimeDelta::days(1)).and_time(NaiveTime::MIN));
        let before = FieldState::of(&user.account.records_until(&[id], began).await?);
        let state = FieldState::of(&user.account.records_until(&[id], over).await?);
        let state = FieldState { dialled: before.dialled, ..state };
        let dialled = match &state.dialled {
            Some((_, doc)) => user.account.controller_version(id, doc.version).await?.map(|c| (doc.on, c.controller)),
            None => None,
        };
        let dialled = dialled.as_ref().map(|(on, c)| (*on, c));
        let (controller, stood) = on_panel(then.controller(), dialled, state.panel_still_found());
        let judged = match stood {
            Stood::Planned if !is_known => Judged::OldestPlan,
            stood => Judged::By(stood),
        };
        Ok(Self { then, controller, judged, state })
    }
}
