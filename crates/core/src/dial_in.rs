//! Dialling in: every value of the panel in the panel's own order, slots that must be off included.

use chrono::{DateTime, NaiveDate, TimeDelta, TimeZone, Utc};

use crate::budget::Dial;
use crate::controller::{Controller, DayMode, Days, PercentScope, PercentStorage, ProgramLetter, StartTime};
use crate::found::Panel;
use crate::in_force::{InForce, in_force};
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::schedule::{Began, Level, Plan, expand};

/// A part of the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Section {
    /// Date and time.
    Clock,
    /// Minutes of each station.
    Minutes,
    /// Cycle and soak.
    Soak,
    /// A program: days, starts, percent.
    Program(ProgramLetter),
    /// The percent of all programs.
    Percent,
    /// The sensor switch.
    Sensor,
}

/// What one slot must read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Value {
    /// Today's date, the year first.
    Date,
    /// The time.
    Time,
    /// Minutes of a station.
    Minutes(RunTime),
    /// A terminal that is not in use: no minutes.
    NoMinutes,
    /// A limit on the run.
    Cycle(RunTime),
    /// A rest between two cycles.
    Soak(RunTime),
    /// Days.
    Days(DayMode, Days),
    /// A start.
    Start(StartTime),
    /// A start slot that must be off.
    StartOff,
    /// A percent.
    Percent(Percent),
    /// A month that is off.
    PercentOff,
    /// The sensor switch at active.
    SensorActive,
    /// The sensor switch at bypass, while a bypass is on record.
    SensorBypassed,
}

/// One slot of the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Slot {
    /// Where.
    pub section: Section,
    /// Station number, or place of the start slot from 1, or 0.
    pub index: u8,
    /// Month of a percent that is kept by month.
    pub month: Option<MonthOfYear>,
    /// What it must read.
    pub value: Value,
}

impl Slot {
    /// Names the slot in a record: the same slot of the same panel always has the same key.
    #[must_use]
    pub fn key(&self) -> String {
        let month = self.month.map_or_else(String::new, |m| format!(".{}", m.number()));
        match (self.section, self.value) {
            (Section::Clock, Value::Date) => "clock.date".into(),
            (Section::Clock, _) => "clock.time".into(),
            (Section::Minutes, _) => format!("minutes.{}", self.index),
            (Section::Soak, Value::Cycle(_)) => format!("cycle.{}", self.index),
            (Section::Soak, _) => format!("soak.{}", self.index),
            (Section::Program(l), Value::Days(..)) => format!("{}.days", l.get()),
            (Section::Program(l), Value::Start(_) | Value::StartOff) => format!("{}.start.{}", l.get(), self.index),
            (Section::Program(l), _) => format!("{}.percent{month}", l.get()),
            (Section::Percent, _) => format!("percent{month}"),
            (Section::Sensor, _) => "sensor".into(),
        }
    }

    /// Whether it is set anew on every visit, as date and time are.
    #[must_use]
    pub const fn is_clock(&self) -> bool {
        matches!(self.section, Section::Clock)
    }
}

/// The slots of a controller in the order of its panel.
///
/// `date` is the day of dialling: what is in force then goes on the panel. A panel with a single percent gets
/// that day's, with what is set for a while; so does the day's month where a panel holds twelve.
#[must_use]
pub fn slots(controller: &Controller, plan: &Plan, date: NaiveDate) -> Vec<Slot> {
    let month = MonthOfYear::of(date);
    let today = in_force(controller, plan, None, date);
    let capability = &controller.capability;
    let mut out = Vec::new();
    let mut push = |section, index, month, value| out.push(Slot { section, index, month, value });
    push(Section::Clock, 0, None, Value::Date);
    push(Section::Clock, 0, None, Value::Time);
    for number in 1..=capability.stations {
        let panel = plan.station(number).map(|s| s.panel).filter(|r| *r > RunTime::ZERO);
        push(Section::Minutes, number, None, panel.map_or(Value::NoMinutes, Value::Minutes));
    }
    for station in &plan.stations {
        if let Some(set) = station.cycle.filter(|c| station.panel > c.cycle) {
            push(Section::Soak, station.number, None, Value::Cycle(set.cycle));
            push(Section::Soak, station.number, None, Value::Soak(set.soak));
        }
    }
    let letters = ProgramLetter::ALL.into_iter().take(usize::from(capability.programs));
    for letter in letters {
        let section = Section::Program(letter);
        let program = controller.program(letter);
        let schedule = program.map(|p| &p.schedule);
        let runs = plan.of_program(letter).next().is_some();
        if let Some(program) = program.filter(|p| runs && !p.schedule.is_idle()) {
            push(section, 0, None, Value::Days(controller.days_in(program, month), program.schedule.never));
        }
        for slot in 1..=capability.starts {
            let start = schedule.filter(|_| runs).and_then(|s| s.starts.get(usize::from(slot - 1)));
            push(section, slot, None, start.map_or(Value::StartOff, |s| Value::Start(*s)));
        }
        if capability.percent_scope == PercentScope::EachProgram && runs && !controller.percent_by_sensor(letter) {
            percents(controller, plan, &today, letter, &mut |month, value| push(section, 0, month, value));
        }
    }
    if capability.percent_scope == PercentScope::AllPrograms
        && let Some(first) = controller.programs.iter().find(|p| plan.of_program(p.letter).next().is_some())
        && !controller.programs.iter().any(|p| controller.percent_by_sensor(p.letter))
    {
        percents(controller, plan, &today, first.letter, &mut |month, value| push(Section::Percent, 0, month, value));
    }
    if !controller.sensors.is_empty() {
        let bypassed = today.sensors.iter().any(|s| s.bypass.is_some());
        push(Section::Sensor, 0, None, if bypassed { Value::SensorBypassed } else { Value::SensorActive });
    }
    out
}

fn percents(
    controller: &Controller,
    plan: &Plan,
    today: &InForce,
    letter: ProgramLetter,
    push: &mut impl FnMut(Option<MonthOfYear>, Value),
) {
    let value = |dial| match dial {
        Dial::Off => Value::PercentOff,
        Dial::Percent(percent) => Value::Percent(percent),
    };
    let now = today.dial(letter);
    match controller.capability.percent_storage {
        PercentStorage::ByMonth => MonthOfYear::ALL.into_iter().for_each(|m| {
            push(Some(m), value(if m == today.month() { now } else { plan.dial(letter, m) }));
        }),
        PercentStorage::Single => push(None, value(now)),
    }
}

/// What a slot showed when the panel was written down; nothing where that was not written down.
#[must_use]
pub fn shown(slot: &Slot, panel: &Panel) -> Option<Value> {
    let program = |letter| panel.programs.iter().find(|p| p.letter == letter);
    match (slot.section, slot.value) {
        (Section::Minutes, _) => {
            let minutes = panel.stations.iter().find(|s| s.number == slot.index).map(|s| s.minutes);
            Some(minutes.filter(|m| *m > RunTime::ZERO).map_or(Value::NoMinutes, Value::Minutes))
        }
        (Section::Program(letter), Value::Days(..)) => program(letter).map(|p| Value::Days(p.days, Days::NONE)),
        (Section::Program(letter), Value::Start(_) | Value::StartOff) => {
            let starts = program(letter).map(|p| p.starts.as_slice()).unwrap_or_default();
            let start = starts.get(usize::from(slot.index.saturating_sub(1)));
            Some(start.map_or(Value::StartOff, |s| Value::Start(*s)))
        }
        (Section::Program(letter), Value::Percent(_) | Value::PercentOff) if slot.month.is_none() => {
            program(letter).map(|p| Value::Percent(p.percent))
        }
        (Section::Percent, _) if slot.month.is_none() => panel.programs.first().map(|p| Value::Percent(p.percent)),
        (Section::Sensor, _) => match panel.sensor {
            crate::found::SensorSwitch::Active => Some(Value::SensorActive),
            crate::found::SensorSwitch::Bypassed => Some(Value::SensorBypassed),
            crate::found::SensorSwitch::None => None,
        },
        _ => None,
    }
}

/// The next start of any program after a moment, within 62 days: what the panel should say too.
#[must_use]
pub fn next_watering<Tz: TimeZone>(
    controller: &Controller,
    plan: &Plan,
    zone: &Tz,
    after: DateTime<Utc>,
) -> Option<Began> {
    let today = after.with_timezone(zone).date_naive();
    // Most controllers water within a week: look there before looking further.
    [7, 62].into_iter().find_map(|days| {
        let span = [today, today + TimeDelta::days(days)];
        let found = expand(controller, plan, zone, span, Level::Calendar);
        found.starts.into_iter().find(|s| s.began > after)
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::{Preset, Schedule, Station};
    use crate::landscape::{Plant, SprinklerType};
    use chrono::{FixedOffset, Weekday};

    fn cabinet() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Plain.capability());
        c.stations = vec![Station {
            minutes: RunTime::from_minutes(24.0).ok(),
            ..Station::plain(2, "Lawn", Plant::CoolTurf, SprinklerType::Drip)
        }];
        c.programs[0].schedule = Schedule {
            days: DayMode::Weekdays(Days::of([Weekday::Mon])),
            starts: vec![StartTime::new(270).unwrap()],
            ..Schedule::default()
        };
        c
    }

    fn june() -> NaiveDate {
        NaiveDate::from_ymd_opt(2026, 6, 8).unwrap()
    }

    #[test]
    fn every_slot_of_the_panel_is_there_and_the_unused_ones_must_be_off() {
        let c = cabinet();
        let all = slots(&c, &Plan::of(&c, None), june());
        // Clock 2, minutes 8, programs A (days, 4 starts), B and C (4 starts each), one percent.
        assert_eq!(all.len(), 2 + 8 + 5 + 4 + 4 + 1);
        assert_eq!(all.iter().filter(|s| s.value == Value::StartOff).count(), 3 + 4 + 4);
        assert_eq!(all.iter().filter(|s| s.value == Value::NoMinutes).count(), 7);
        assert_eq!(all[10].section, Section::Program(ProgramLetter::A));
    }

    #[test]
    fn a_percent_that_a_sensor_sets_is_not_dialled() {
        use crate::sensor::{EtClass, Sensor, SensorKind};
        let mut c = cabinet();
        let programs = vec![ProgramLetter::A];
        let kind = SensorKind::Et { class: EtClass::ALL[2], trim: 3, programs };
        c.sensors = vec![Sensor::proposed(kind, "Shed", &c)];
        let all = slots(&c, &Plan::of(&c, None), june());
        assert!(!all.iter().any(|s| matches!(s.value, Value::Percent(_) | Value::PercentOff)));
    }

    #[test]
    fn the_next_watering_is_the_next_one_after_now() {
        let c = cabinet();
        let zone = FixedOffset::east_opt(0).unwrap();
        // Monday, 8 June 2026, after the start.
        let now = "2026-06-08T05:00:00Z".parse().unwrap();
        let next = next_watering(&c, &Plan::of(&c, None), &zone, now).unwrap();
        assert_eq!(next.began.to_rfc3339(), "2026-06-15T04:30:00+00:00");
    }
}
