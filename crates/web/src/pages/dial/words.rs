//! The words of the slots of a panel.

use chrono::{Datelike, NaiveDate, NaiveDateTime};
use upland_core::controller::{Controller, DayMode, Days, StartOff, StartTime};
use upland_core::dial_in::{Note, Section, Slot, Value};
use upland_core::quantity::RunTime;
use upland_core::sensor::Vent;
use upland_core::word::Word;
use upland_formats::site::{DialledValueDoc, NextDoc, days_of};

use crate::pages::sensors::sensor_name;
use crate::show::{
    Measure, Units, clock, date_long, date_short, day_short, minutes, mode_words, month_long, month_short, number,
    panel_start, panel_time, rain_text, weekday,
};
use crate::words::Words;

/// A watering to come: `Mon 15 June, 04:30, program A`.
pub(crate) fn next_words(next: Option<&NextDoc>) -> String {
    next_with(next, clock)
}

fn next_with(next: Option<&NextDoc>, time: impl Fn(NaiveDateTime) -> String) -> String {
    let Some(next) = next else { return Words.t("dial-next-none") };
    Words.with(
        "dial-next",
        &[
            ("day", &format!("{} {}", day_short(next.at.weekday()), date_short(next.at.date()))),
            ("time", &time(next.at)),
            ("program", &next.program.to_string()),
        ],
    )
}

/// How the slots of a panel are put into words: as its clock shows the time, in the units of who reads them.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Wording<'a> {
    pub(crate) controller: &'a Controller,
    pub(crate) now: NaiveDateTime,
    pub(crate) units: Units,
}

impl Wording<'_> {
    fn time(&self, at: NaiveDateTime) -> String {
        panel_time(at.time(), self.controller.capability.clock_face)
    }

    fn start(&self, start: StartTime) -> String {
        panel_start(start, self.controller.capability.clock_face)
    }

    /// A watering to come, by the panel's own clock face.
    pub(crate) fn next(&self, next: Option<&NextDoc>) -> String {
        next_with(next, |at| self.time(at))
    }

    /// What a slot must read.
    pub(crate) fn value(&self, value: &Value) -> String {
        let w = Words;
        match value {
            Value::Date => date_long(self.now.date()),
            Value::Time => self.time(self.now),
            Value::Minutes(run) | Value::Cycle(run) | Value::Soak(run) => minutes(*run),
            Value::NoMinutes => "0".into(),
            Value::Days(mode, never) => mode_words(*mode, *never),
            Value::Start(time) | Value::WindowFrom(time) | Value::WindowTo(time) => self.start(*time),
            Value::StartOff | Value::PercentOff | Value::WindowOff => w.t("off"),
            Value::Percent(p) => p.get().to_string(),
            Value::SensorActive => w.t("dial-active"),
            Value::SensorBypassed => w.t("dial-bypass"),
            Value::StationDelay(pause) => pause.seconds().to_string(),
            Value::RainDelay(until) => self.days_left(*until),
            Value::Obeys => w.t("dial-obeys"),
            Value::Ignores => w.t("dial-ignores"),
            Value::RainSetting(mm) => rain_text(*mm, self.units),
            Value::Vent(vent) => vent_word(*vent),
            Value::DaysAfterRain(days) => days.to_string(),
            Value::FreezeSetting(c) => Measure::Temperature.typed(*c, self.units),
            Value::SoilThreshold(reading) => number(*reading, 1),
            Value::EtClimate(mark) | Value::EtOffset(mark) => mark.to_string(),
            Value::SwitchOn => w.t("dial-run"),
            Value::SwitchOff => w.t("off"),
        }
    }

    /// The unit beside a value.
    pub(crate) fn unit(&self, value: &Value) -> &'static str {
        match value {
            Value::Minutes(_) | Value::NoMinutes | Value::Cycle(_) | Value::Soak(_) => "min",
            Value::Percent(_) | Value::SoilThreshold(_) => "%",
            Value::StationDelay(_) => "s",
            Value::RainDelay(_) | Value::DaysAfterRain(_) => "d",
            Value::RainSetting(_) => Measure::Depth.unit(self.units),
            Value::FreezeSetting(_) => Measure::Temperature.unit(self.units),
            _ => "",
        }
    }

    /// `16 min`, `off`.
    pub(crate) fn with_unit(&self, value: &Value) -> String {
        let (value, unit) = (self.value(value), self.unit(value));
        if unit.is_empty() { value } else { format!("{value}\u{a0}{unit}") }
    }

    /// What a slot was set to, from its record.
    pub(crate) fn dialled(&self, value: &DialledValueDoc) -> String {
        let w = Words;
        match value {
            DialledValueDoc::RunS(seconds) => minutes(RunTime::from_seconds(*seconds)),
            DialledValueDoc::Days { mode, never } => mode_words(mode.into(), days_of(never)),
            DialledValueDoc::Start(start) => StartTime::read(start).map_or_else(|| start.clone(), |s| self.start(s)),
            DialledValueDoc::Percent(percent) => percent.to_string(),
            DialledValueDoc::Off | DialledValueDoc::SwitchOff => w.t("off"),
            DialledValueDoc::SensorActive => w.t("dial-active"),
            DialledValueDoc::SensorBypassed => w.t("dial-bypass"),
            DialledValueDoc::RainDelay(until) => self.days_left(*until),
            DialledValueDoc::Obeys => w.t("dial-obeys"),
            DialledValueDoc::Ignores => w.t("dial-ignores"),
            DialledValueDoc::Mm(mm) => rain_text(*mm, self.units),
            DialledValueDoc::C(c) => Measure::Temperature.typed(*c, self.units),
            DialledValueDoc::Reading(reading) => number(*reading, 1),
            DialledValueDoc::Vent(word) => Vent::of_word(word).map_or_else(|_| word.clone(), vent_word),
            DialledValueDoc::DaysAfter(n) => n.to_string(),
            DialledValueDoc::EtClimate(mark) | DialledValueDoc::EtOffset(mark) => mark.clone(),
            DialledValueDoc::SwitchOn => w.t("dial-run"),
        }
    }

    fn days_left(&self, until: NaiveDate) -> String {
        ((until - self.now.date()).num_days() + 1).max(0).to_string()
    }

    /// A slot in the middle of a sentence: `All programs, percent`.
    pub(crate) fn slot(&self, slot: &Slot) -> String {
        let (section, which) = self.place(slot);
        let is_percent = matches!(slot.value, Value::Percent(_) | Value::PercentOff) && slot.month.is_none();
        let which = if is_percent { Words.t("dial-percent") } else { which };
        format!("{section}, {which}")
    }

    /// Where the slot is: section, and which slot of it.
    pub(crate) fn place(&self, slot: &Slot) -> (String, String) {
        let w = Words;
        let name = |n: u8| self.controller.station(n).map_or_else(|| w.t("found-unused"), |s| s.name.clone());
        let section = match slot.section {
            Section::Clock => w.t("dial-clock"),
            Section::Minutes | Section::Soak | Section::Obeys => w.t1("dial-station", slot.index.to_string()),
            Section::Program(l) => w.t1("found-program", l.get().to_string()),
            Section::Percent => w.t("dial-all"),
            Section::StationDelay | Section::RainDelay | Section::Switch | Section::WaterWindows => w.t("dial-panel"),
            Section::Sensor => w.t("dial-sensor"),
            Section::SensorSetting(id) => self.controller.sensor(id).map_or_else(|| w.t("dial-sensor"), sensor_name),
        };
        let which = match slot.value {
            Value::Minutes(_) | Value::NoMinutes => name(slot.index),
            Value::Percent(_) | Value::PercentOff => slot.month.map_or_else(|| w.t("week-percent"), month_long),
            Value::Obeys | Value::Ignores => name(slot.index),
            _ => short(slot),
        };
        (section, which)
    }

    /// How to get there on the panel.
    pub(crate) fn how(&self, slot: &Slot) -> String {
        let w = Words;
        let k = &self.controller.capability;
        match slot.value {
            Value::Date => w.t1("dial-how-date", weekday(self.now.date())),
            Value::Time => w.t("dial-how-time"),
            Value::StartOff => match k.start_off {
                StartOff::PastMidnight => w.t1("dial-how-off", self.start(last_start(k.start_step))),
                StartOff::Key => w.t("dial-how-off-key"),
                StartOff::Cleared => w.t("dial-how-off-cleared"),
            },
            Value::Start(_) => w.t1("dial-how-start", k.start_step.to_string()),
            Value::NoMinutes => w.t("dial-how-none"),
            Value::Minutes(_) => w.t("dial-how-minutes"),
            Value::Cycle(_) => w.t("dial-how-cycle"),
            Value::Soak(_) => w.t("dial-how-soak"),
            Value::Percent(_) => w.t1("dial-how-percent", k.percent_step.get().to_string()),
            Value::PercentOff => w.t("dial-how-percent-off"),
            Value::Days(DayMode::Every { next, .. }, _) => {
                w.t1("dial-how-every", (next - self.now.date()).num_days().max(0).to_string())
            }
            Value::Days(_, never) if never != Days::NONE => {
                w.t1("dial-how-never", never.iter().map(day_short).collect::<Vec<_>>().join(", "))
            }
            Value::Days(..) => w.t("dial-how-days"),
            Value::SensorActive | Value::SensorBypassed => w.t("dial-how-sensor"),
            Value::StationDelay(_) => w.t("dial-how-station-delay"),
            Value::WindowFrom(_) | Value::WindowTo(_) => w.t("dial-how-window"),
            Value::WindowOff => w.t("dial-how-window-off"),
            Value::RainDelay(until) => w.t1("dial-how-rain-delay", date_short(until)),
            Value::Obeys => w.t("dial-how-obeys"),
            Value::Ignores if k.sensor_by_station => w.t("dial-how-ignores"),
            Value::Ignores => w.t("dial-how-ignores-wired"),
            Value::RainSetting(_) | Value::FreezeSetting(_) => w.t("dial-how-on-sensor"),
            Value::Vent(_) => w.t("dial-how-vent"),
            Value::DaysAfterRain(_) => w.t("dial-how-days-after"),
            Value::SoilThreshold(_) => w.t("dial-how-threshold"),
            Value::EtClimate(_) | Value::EtOffset(_) => w.t("dial-how-et"),
            Value::SwitchOn => w.t("dial-how-run"),
            Value::SwitchOff => w.t("dial-how-switch-off"),
        }
    }

    /// What goes with a value that does not stay; empty for one that does.
    pub(crate) fn note(&self, slot: &Slot) -> String {
        match slot.note {
            None => String::new(),
            Some(Note::Until { last, then }) => {
                Words.t2("dial-until", ("date", date_short(last)), ("value", self.with_unit(&then)))
            }
            Some(Note::PutBack { ended, .. }) => Words.t1("dial-puts-back", date_short(ended)),
        }
    }
}

fn vent_word(vent: Vent) -> String {
    Words.t(match vent {
        Vent::Open => "dial-vent-open",
        Vent::Half => "dial-vent-half",
        Vent::Closed => "dial-vent-closed",
    })
}

/// A short name of the slot among its siblings.
pub(crate) fn short(slot: &Slot) -> String {
    let w = Words;
    match (slot.section, slot.value) {
        (Section::Minutes | Section::Obeys, _) => slot.index.to_string(),
        (_, Value::Percent(_) | Value::PercentOff) => slot.month.map_or_else(|| w.t("week-percent"), month_short),
        (_, Value::Start(_) | Value::StartOff) => w.t1("dial-start", slot.index.to_string()),
        (_, Value::Days(..)) => w.t("dial-days"),
        (_, Value::Date) => w.t("dial-date"),
        (_, Value::Time) => w.t("dial-time"),
        (_, Value::Cycle(_)) => w.t("dial-cycle"),
        (_, Value::Soak(_)) => w.t("dial-soak"),
        (_, Value::StationDelay(_)) => w.t("dial-station-delay"),
        (_, Value::WindowFrom(_) | Value::WindowOff) => w.t1("dial-window-from", slot.index.to_string()),
        (_, Value::WindowTo(_)) => w.t1("dial-window-to", slot.index.to_string()),
        (_, Value::RainDelay(_)) => w.t("dial-rain-delay"),
        (_, Value::RainSetting(_) | Value::FreezeSetting(_)) => w.t("dial-setting"),
        (_, Value::Vent(_)) => w.t("dial-vent"),
        (_, Value::DaysAfterRain(_)) => w.t("dial-days-after"),
        (_, Value::SoilThreshold(_)) => w.t("dial-threshold"),
        (_, Value::EtClimate(_)) => w.t("dial-et-climate"),
        (_, Value::EtOffset(_)) => w.t("dial-et-offset"),
        _ => w.t("dial-switch"),
    }
}

/// The last time of day that a panel can start at: the next step reads off.
fn last_start(step: u16) -> StartTime {
    StartTime::of(chrono::NaiveTime::from_hms_opt(23, 59, 0).unwrap_or(chrono::NaiveTime::MIN)).down_to(step)
}
