//! Dialling in: every value of the panel and its sensors in the panel's own order, slots that must be off included.

mod ahead;
mod id;
mod list;
mod shown;

use chrono::{DateTime, NaiveDate, TimeDelta, TimeZone, Utc};

use crate::controller::{Controller, DayMode, Days, ProgramLetter, StartTime};
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::schedule::{Began, Level, Plan, expand};
use crate::sensor::{Mark, Vent};

pub use ahead::{Change, DayAhead, changes_ahead};
pub use id::SlotId;
pub use list::slots;
pub use shown::shown;

/// A part of the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
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
    /// The pause between two stations.
    StationDelay,
    /// The panel's own water windows.
    WaterWindows,
    /// The rain delay.
    RainDelay,
    /// The sensor switch.
    Sensor,
    /// Which stations obey the sensors.
    Obeys,
    /// A sensor's own settings, by its id.
    SensorSetting(u16),
    /// The switch of the whole panel.
    Switch,
}

/// What one slot must read.
#[derive(Debug, Clone, Copy, PartialEq)]
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
    /// The pause between two stations.
    StationDelay(RunTime),
    /// A water window opens.
    WindowFrom(StartTime),
    /// A water window closes.
    WindowTo(StartTime),
    /// A water window that is not used.
    WindowOff,
    /// The rain delay, to its last day; the panel counts it down by itself.
    RainDelay(NaiveDate),
    /// A station that obeys the sensors.
    Obeys,
    /// A station that ignores them.
    Ignores,
    /// The setting of a rain sensor, mm.
    RainSetting(f64),
    /// Its vent ring.
    Vent(Vent),
    /// Days that it holds on once it is dry.
    DaysAfterRain(u8),
    /// The setting of a freeze sensor, °C.
    FreezeSetting(f64),
    /// The threshold of a soil-moisture sensor, percent.
    SoilThreshold(f64),
    /// The climate step of an ET sensor.
    EtClimate(Mark),
    /// The offset of an ET sensor.
    EtOffset(Mark),
    /// The panel at run.
    SwitchOn,
    /// The panel off: it keeps its programs and waters nothing.
    SwitchOff,
}

impl Value {
    /// Whether a panel reads this where nobody ever touched the slot.
    #[must_use]
    pub const fn is_untouched(&self) -> bool {
        matches!(self, Self::SwitchOn | Self::Obeys)
    }
}

/// What goes with a value that does not stay.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Note {
    /// It holds to a last day; then the slot must be set to something else.
    Until {
        /// The last day.
        last: NaiveDate,
        /// What it must read then.
        then: Value,
    },
    /// Something else was set for a while that is over: this puts it back.
    PutBack {
        /// The day on which it was over.
        ended: NaiveDate,
        /// Its [`id`](crate::controller::Temporary::id).
        temporary: u16,
    },
}

/// One slot of the panel.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Slot {
    /// Where.
    pub section: Section,
    /// Station number, or place of the start slot from 1, or 0.
    pub index: u8,
    /// Month of a percent that is kept by month.
    pub month: Option<MonthOfYear>,
    /// What it must read.
    pub value: Value,
    /// What goes with it, where it does not stay.
    pub note: Option<Note>,
}

impl Slot {
    /// Names the slot in a record, as [`Slot::id`] is shown.
    #[must_use]
    pub fn key(&self) -> String {
        self.id().to_string()
    }

    /// The temporary setting that setting this slot puts back.
    #[must_use]
    pub const fn puts_back(&self) -> Option<u16> {
        match self.note {
            Some(Note::PutBack { temporary, .. }) => Some(temporary),
            _ => None,
        }
    }

    /// Whether it is set anew on every visit, as date and time are.
    #[must_use]
    pub const fn is_clock(&self) -> bool {
        matches!(self.section, Section::Clock)
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
        // Clock 2, minutes 8, programs A (days, 4 starts), B and C (4 starts each), one percent, the switch.
        assert_eq!(all.len(), 2 + 8 + 5 + 4 + 4 + 1 + 1);
        assert_eq!(all.iter().filter(|s| s.value == Value::StartOff).count(), 3 + 4 + 4);
        assert_eq!(all.iter().filter(|s| s.value == Value::NoMinutes).count(), 7);
        assert_eq!(all[10].section, Section::Program(ProgramLetter::A));
    }

    #[test]
    fn a_percent_that_a_sensor_sets_is_not_dialled() {
        use crate::sensor::{EtSetting, EtSheet, Sensor, SensorKind};
        let mut c = cabinet();
        let programs = vec![ProgramLetter::A];
        let kind = SensorKind::Et { setting: EtSetting::for_peak(EtSheet::example(), 5.0), programs };
        c.sensors = vec![Sensor::proposed(kind, "Shed", &c)];
        let all = slots(&c, &Plan::of(&c, None), june());
        assert!(!all.iter().any(|s| matches!(s.value, Value::Percent(_) | Value::PercentOff)));
        // The sensor's own dials are, by the marks beside them: 5 mm a day is its third step.
        let three = crate::sensor::mark("3").unwrap();
        for value in [Value::EtClimate(three), Value::EtOffset(three)] {
            assert!(all.iter().any(|s| s.value == value), "{value:?}");
        }
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
