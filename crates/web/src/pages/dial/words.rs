//! The words of the slots of a panel.

use chrono::{Datelike, NaiveDateTime};
use upland_core::controller::{Controller, DayMode, Days, StartTime};
use upland_core::dial_in::{Section, Slot, Value};
use upland_core::quantity::RunTime;
use upland_formats::site::{DialledValueDoc, NextDoc, days_of};

use crate::pages::findings::mode_words;
use crate::show::{clock, date_long, date_short, day_short, minutes, month_long, month_short, weekday};
use crate::words::Words;

/// What a slot was set to, from its record.
pub(crate) fn dialled(value: &DialledValueDoc) -> String {
    let w = Words;
    match value {
        DialledValueDoc::RunS(seconds) => minutes(RunTime::from_seconds(*seconds)),
        DialledValueDoc::Days { mode, never } => mode_words(mode.into(), days_of(never)),
        DialledValueDoc::Start(start) => start.clone(),
        DialledValueDoc::Percent(percent) => percent.to_string(),
        DialledValueDoc::Off => w.t("off"),
        DialledValueDoc::SensorActive => w.t("dial-active"),
        DialledValueDoc::SensorBypassed => w.t("dial-bypass"),
    }
}

/// A watering to come: `Mon 15 June, 04:30, program A`.
pub(crate) fn next_words(next: Option<&NextDoc>) -> String {
    let Some(next) = next else { return Words.t("dial-next-none") };
    Words.with(
        "dial-next",
        &[
            ("day", &format!("{} {}", day_short(next.at.weekday()), date_short(next.at.date()))),
            ("time", &clock(next.at)),
            ("program", &next.program.to_string()),
        ],
    )
}

/// What a slot must read.
pub(crate) fn value(value: &Value, now: NaiveDateTime) -> String {
    let w = Words;
    match value {
        Value::Date => date_long(now.date()),
        Value::Time => clock(now),
        Value::Minutes(run) | Value::Cycle(run) | Value::Soak(run) => minutes(*run),
        Value::NoMinutes => "0".into(),
        Value::Days(mode, never) => mode_words(*mode, *never),
        Value::Start(start) => start.to_string(),
        Value::StartOff | Value::PercentOff => w.t("off"),
        Value::Percent(p) => p.get().to_string(),
        Value::SensorActive => w.t("dial-active"),
        Value::SensorBypassed => w.t("dial-bypass"),
    }
}

/// The unit beside a value.
pub(crate) const fn unit(value: &Value) -> &'static str {
    match value {
        Value::Minutes(_) | Value::NoMinutes | Value::Cycle(_) | Value::Soak(_) => "min",
        Value::Percent(_) => "%",
        _ => "",
    }
}

/// Where the slot is: section, and which slot of it.
pub(crate) fn place(slot: &Slot, c: &Controller) -> (String, String) {
    let w = Words;
    let name = |n: u8| c.station(n).map_or_else(|| w.t("found-unused"), |s| s.name.clone());
    let section = match slot.section {
        Section::Clock => w.t("dial-clock"),
        Section::Minutes | Section::Soak => w.t1("dial-station", slot.index.to_string()),
        Section::Program(l) => w.t1("found-program", l.get().to_string()),
        Section::Percent => w.t("dial-all"),
        Section::Sensor => w.t("dial-sensor"),
    };
    let which = match slot.value {
        Value::Date => w.t("dial-date"),
        Value::Time => w.t("dial-time"),
        Value::Minutes(_) | Value::NoMinutes => name(slot.index),
        Value::Cycle(_) => w.t("dial-cycle"),
        Value::Soak(_) => w.t("dial-soak"),
        Value::Days(..) => w.t("dial-days"),
        Value::Start(_) | Value::StartOff => w.t1("dial-start", slot.index.to_string()),
        Value::Percent(_) | Value::PercentOff => slot.month.map_or_else(|| w.t("week-percent"), month_long),
        Value::SensorActive | Value::SensorBypassed => w.t("dial-switch"),
    };
    (section, which)
}

/// A short name of the slot among its siblings.
pub(crate) fn short(slot: &Slot) -> String {
    match (slot.section, slot.value) {
        (Section::Minutes, _) => slot.index.to_string(),
        (_, Value::Percent(_) | Value::PercentOff) => slot.month.map_or_else(|| Words.t("week-percent"), month_short),
        (_, Value::Start(_) | Value::StartOff) => Words.t1("dial-start", slot.index.to_string()),
        (_, Value::Days(..)) => Words.t("dial-days"),
        (_, Value::Date) => Words.t("dial-date"),
        (_, Value::Time) => Words.t("dial-time"),
        (_, Value::Cycle(_)) => Words.t("dial-cycle"),
        (_, Value::Soak(_)) => Words.t("dial-soak"),
        _ => Words.t("dial-switch"),
    }
}

/// How to get there on the panel.
pub(crate) fn how(slot: &Slot, c: &Controller, now: NaiveDateTime) -> String {
    let w = Words;
    let k = &c.capability;
    match slot.value {
        Value::Date => w.t1("dial-how-date", weekday(now.date())),
        Value::Time => w.t("dial-how-time"),
        Value::StartOff => w.t1("dial-how-off", last_start(k.start_step).to_string()),
        Value::Start(_) => w.t1("dial-how-start", k.start_step.to_string()),
        Value::NoMinutes => w.t("dial-how-none"),
        Value::Minutes(_) => w.t("dial-how-minutes"),
        Value::Cycle(_) => w.t("dial-how-cycle"),
        Value::Soak(_) => w.t("dial-how-soak"),
        Value::Percent(_) => w.t1("dial-how-percent", k.percent_step.get().to_string()),
        Value::PercentOff => w.t("dial-how-percent-off"),
        Value::Days(DayMode::Every { next, .. }, _) => {
            w.t1("dial-how-every", (next - now.date()).num_days().max(0).to_string())
        }
        Value::Days(_, never) if never != Days::NONE => {
            w.t1("dial-how-never", never.iter().map(day_short).collect::<Vec<_>>().join(", "))
        }
        Value::Days(..) => w.t("dial-how-days"),
        Value::SensorActive | Value::SensorBypassed => w.t("dial-how-sensor"),
    }
}

/// The last time of day that a panel can start at: the next step reads off.
fn last_start(step: u16) -> StartTime {
    StartTime::of(chrono::NaiveTime::from_hms_opt(23, 59, 0).unwrap_or(chrono::NaiveTime::MIN)).down_to(step)
}
