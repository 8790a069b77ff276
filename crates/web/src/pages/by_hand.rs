//! A card for a week of runs started by hand: how long each station this week, and in which cycles.

use chrono::{Datelike, NaiveDate, TimeDelta};
use upland_core::budget::Dial;
use upland_core::controller::Station;
use upland_core::replay::{HandRun, ReplayStation};

use crate::context::{ControllerContext, monday};
use crate::show::{Measure, Units, date_long, date_short, day_long, minutes, month_long, month_of};
use crate::words::Words;

/// The card.
#[derive(askama::Template)]
#[template(path = "by_hand.html")]
pub(crate) struct ByHandTemplate {
    pub(crate) w: Words,
    pub(crate) css: String,
    pub(crate) back: String,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) issued: String,
    pub(crate) by: String,
    pub(crate) company: String,
    pub(crate) card: HandCard,
}

/// What the card says.
#[derive(Debug, Clone)]
pub(crate) struct HandCard {
    pub(crate) week: String,
    /// From what the depths follow.
    pub(crate) from: String,
    pub(crate) on_days: String,
    pub(crate) rows: Vec<HandRow>,
    pub(crate) total: String,
}

#[derive(Debug, Clone)]
pub(crate) struct HandRow {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) missing: String,
    pub(crate) minutes: String,
    /// How the run is cut up; empty for one run.
    pub(crate) cycles: String,
    /// Nothing is to be run this week.
    pub(crate) is_idle: bool,
}

/// A run shorter than this, min, does little more than wet the surface: it is left out. Ours.
const NO_RUN_MIN: f64 = 2.0;

impl HandCard {
    /// `used` is what each station has used in the last week, mm by number; where it is empty the month's normals
    /// stand in.
    pub(crate) fn of(context: &ControllerContext, used: &[(u8, f64)], today: NaiveDate, units: Units) -> Self {
        let w = Words;
        let c = context.controller();
        let month = month_of(today);
        let budget = context.budget().ok();
        let plan = context.plan();
        let missing = |station: &Station| -> f64 {
            if c.is_by_hand(station.program) && plan.dial(station.program, month) == Dial::Off {
                return 0.0;
            }
            let week = used.iter().find(|(number, _)| *number == station.number).map(|(_, mm)| *mm);
            let normal =
                || budget.and_then(|b| b.weekly_need_mm(station.program, station.number, month)).unwrap_or(0.0);
            week.unwrap_or_else(normal)
        };
        // Where nobody is asked to water by hand, the card shows what it would say of every station.
        let any = c.programs_with_stations().any(|p| p.by_hand);
        let stations: Vec<&Station> = c.stations.iter().filter(|s| !any || c.is_by_hand(s.program)).collect();
        let runs: Vec<HandRun> =
            stations.iter().map(|s| HandRun::of(&c.capability, &ReplayStation::of(s), missing(s))).collect();
        let first = monday(today);
        let allowed: Vec<String> = (0..7)
            .map(|n| first + TimeDelta::days(n))
            .filter(|day| *day >= today && context.at.rules.allows_day(*day))
            .map(|day| day_long(day.weekday()))
            .collect();
        let total: f64 = runs.iter().filter(|r| !is_idle(r)).map(|r| r.run.minutes()).sum();
        Self {
            week: w.t2("hand-week", ("first", date_short(first)), ("last", date_short(first + TimeDelta::days(6)))),
            from: if used.is_empty() {
                w.t1("hand-from-normals", month_long(month))
            } else {
                w.t1("hand-from-balance", date_long(today))
            },
            on_days: if allowed.is_empty() { w.t("hand-no-day") } else { w.t1("hand-days", allowed.join(", ")) },
            rows: stations
                .iter()
                .zip(&runs)
                .map(|(station, run)| HandRow {
                    number: station.number,
                    name: station.name.clone(),
                    missing: Measure::Depth.show(run.missing_mm, units),
                    minutes: if is_idle(run) { "0".into() } else { minutes(run.run) },
                    cycles: cycles_words(run),
                    is_idle: is_idle(run),
                })
                .collect(),
            total: Measure::Plain.typed(total, units),
        }
    }
}

fn is_idle(run: &HandRun) -> bool {
    run.run.minutes() < NO_RUN_MIN
}

/// `3 × 9 min, at least 41 min of rest between`.
fn cycles_words(run: &HandRun) -> String {
    let Some(soak) = run.soak.filter(|_| !is_idle(run)) else { return String::new() };
    let lengths: Vec<String> = run.cycles.iter().map(|c| minutes(*c)).collect();
    let alike = lengths.windows(2).all(|pair| pair[0] == pair[1]);
    let cut = if alike { format!("{} × {}", lengths.len(), lengths[0]) } else { lengths.join(" + ") };
    Words.t2("hand-cycles", ("cut", cut), ("minutes", minutes(soak)))
}
