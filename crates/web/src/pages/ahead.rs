//! What comes within a year, each on its date: what is to be set by hand, what sensors and rounds ask for, and the
//! days on which clocks change.

use chrono::{Datelike, NaiveDate, TimeDelta};
use chrono_tz::Tz;
use upland_core::controller::Controller;
use upland_core::dial_in::{Change, DayAhead, changes_ahead};
use upland_core::schedule::{RuleChange, rule_changes};
use upland_formats::site::DatedEvent;

use super::clock_change::clock_change;
use super::dial::Wording;
use super::field::FieldState;
use super::finder::Finder;
use super::sensors::{battery_due, proof_due, sensor_name};
use super::shell::Shell;
use crate::context::{ControllerContext, ControllerHead};
use crate::show::{Units, date_long, day_short, month_long, month_of};
use crate::words::Words;

/// Days that are looked ahead.
const AHEAD_DAYS: i64 = 366;
/// Slots that a line names; the others are counted.
const NAMED: usize = 3;

/// What comes at a controller.
#[derive(Debug, Clone)]
pub(crate) struct Dated {
    pub(crate) on: NaiveDate,
    pub(crate) mark: &'static str,
    /// Names it among those of its controller and its day.
    pub(crate) key: String,
    pub(crate) what: String,
    pub(crate) href: String,
}

/// The days from tomorrow to `days` ahead on which a panel is set by hand.
pub(super) fn by_hand(context: &ControllerContext, today: NaiveDate, days: i64) -> Vec<DayAhead> {
    let c = context.controller();
    if context.budget().is_err() {
        return Vec::new();
    }
    changes_ahead(c, &context.plan(), [today, today + TimeDelta::days(days)])
}

/// The days from tomorrow to `days` ahead from which the rules of another season hold.
pub(super) fn other_rules(context: &ControllerContext, today: NaiveDate, days: i64) -> Vec<RuleChange> {
    rule_changes(&context.situation(today), context.controller(), today + TimeDelta::days(days))
}

/// `Program A, percent from 60 % to 100 %; 2 more`.
pub(super) fn change_words(c: &Controller, day: &DayAhead) -> String {
    let w = Words;
    // No value that changes by date reads otherwise in other units.
    let wording = Wording { controller: c, now: day.on.into(), units: Units::Metric };
    let line = |change: &Change| {
        let slot = wording.slot(&change.slot);
        let then = wording.with_unit(&change.slot.value);
        match &change.before {
            Some(before) => {
                let now = wording.with_unit(before);
                w.with("ahead-from-to", &[("slot", &slot), ("now", &now), ("then", &then)])
            }
            None => w.with("ahead-to", &[("slot", &slot), ("then", &then)]),
        }
    };
    let mut lines: Vec<String> = day.changes.iter().take(NAMED).map(line).collect();
    if day.changes.len() > NAMED {
        lines.push(w.count("ahead-more", day.changes.len() - NAMED));
    }
    lines.join("; ")
}

/// Everything that comes at a controller after today, by date.
pub(crate) fn ahead(context: &ControllerContext, state: &FieldState, today: NaiveDate) -> Vec<Dated> {
    let w = Words;
    let c = context.controller();
    let base = format!("/controllers/{}", context.controller.id);
    let mut out: Vec<Dated> = by_hand(context, today, AHEAD_DAYS)
        .iter()
        .map(|day| Dated {
            on: day.on,
            mark: "todo",
            key: "set".into(),
            what: change_words(c, day),
            href: format!("{base}/dial-in?only=changed"),
        })
        .collect();
    out.extend(other_rules(context, today, AHEAD_DAYS).into_iter().map(|change| Dated {
        on: change.on,
        mark: if change.breaks { "caution" } else { "flag" },
        key: "rules".into(),
        what: w.t(if change.breaks { "ahead-rules-broken" } else { "ahead-rules-kept" }),
        href: format!("/places/{}/rules", context.at.place.id),
    }));
    for sensor in &c.sensors {
        let name = sensor_name(sensor);
        let dated = |on: Option<NaiveDate>, key: &'static str, words: &str| {
            on.map(|on| Dated {
                on,
                mark: "battery",
                key: format!("{key}-{}", sensor.id),
                what: w.t1(words, &name),
                href: format!("{base}/sensors?sensor={}", sensor.id),
            })
        };
        out.extend(dated(battery_due(sensor), "battery", "ahead-battery"));
        out.extend(dated(proof_due(sensor), "proof", "ahead-proof"));
    }
    out.extend(state.look_again().map(|on| Dated {
        on,
        mark: "glass",
        key: "round".into(),
        what: w.t("ahead-round"),
        href: format!("{base}/round"),
    }));
    out.retain(|d| d.on > today && d.on <= today + TimeDelta::days(AHEAD_DAYS));
    out.sort_by_key(|d| d.on);
    out
}

/// The days within a year on which the clocks of some zones change.
pub(crate) fn clock_changes(zones: &[Tz], today: NaiveDate) -> Vec<Dated> {
    let mut out: Vec<Dated> = Vec::new();
    let mut day = today;
    while day <= today + TimeDelta::days(AHEAD_DAYS) {
        let next = zones.iter().filter_map(|zone| clock_change(*zone, day)).min();
        let Some((on, minutes)) = next else {
            day += TimeDelta::days(7);
            continue;
        };
        if on > today {
            out.push(Dated {
                on,
                mark: "flag",
                key: "clock".into(),
                what: Words.t(if minutes > 0 { "ahead-clock-forward" } else { "ahead-clock-back" }),
                href: "/rounds".into(),
            });
        }
        day = on + TimeDelta::days(1);
    }
    out
}

/// What comes, with where.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Coming<'a> {
    /// The controller; none for what comes everywhere.
    pub(crate) head: Option<&'a ControllerHead>,
    pub(crate) dated: &'a Dated,
}

impl Coming<'_> {
    /// As an event of a calendar.
    pub(crate) fn event(&self) -> DatedEvent {
        let Dated { on, key, what, .. } = self.dated;
        let (id, summary, location) = match self.head {
            Some(head) => (head.id.to_string(), format!("{}: {what}", head.name), head.place.clone()),
            None => ("all".to_owned(), what.clone(), String::new()),
        };
        DatedEvent { key: format!("{}-{key}-{id}", on.format("%Y%m%d")), on: *on, summary, location }
    }
}

/// A month of the page.
#[derive(Debug, Clone)]
pub(crate) struct AheadMonth {
    pub(crate) name: String,
    pub(crate) rows: Vec<AheadRow>,
}

#[derive(Debug, Clone)]
pub(crate) struct AheadRow {
    pub(crate) day: String,
    pub(crate) weekday: String,
    /// Read aloud, and at hand for a script.
    pub(crate) date: String,
    pub(crate) mark: &'static str,
    pub(crate) what: String,
    pub(crate) href: String,
    pub(crate) at: String,
}

/// What comes by month, in order of date.
pub(crate) fn by_month(coming: &[Coming<'_>]) -> Vec<AheadMonth> {
    let mut months: Vec<AheadMonth> = Vec::new();
    for Coming { head, dated } in coming {
        let on = dated.on;
        let name = Words.t2("month-year", ("month", month_long(month_of(on))), ("year", on.year().to_string()));
        let row = AheadRow {
            day: on.day().to_string(),
            weekday: day_short(on.weekday()),
            date: date_long(on),
            mark: dated.mark,
            what: dated.what.clone(),
            href: dated.href.clone(),
            at: head.map_or_else(|| Words.t("ahead-everywhere"), |h| format!("{}, {}", h.name, h.place)),
        };
        match months.last_mut().filter(|month| month.name == name) {
            Some(month) => month.rows.push(row),
            None => months.push(AheadMonth { name, rows: vec![row] }),
        }
    }
    months
}

/// The page.
#[derive(askama::Template)]
#[template(path = "ahead.html")]
pub(crate) struct AheadTemplate {
    pub(crate) shell: Shell,
    pub(crate) months: Vec<AheadMonth>,
    pub(crate) finder: Finder,
    pub(crate) calendar_href: String,
    pub(crate) count: usize,
}
