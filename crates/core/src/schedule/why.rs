//! Why a station got no water on a day: everything that stood in the way, first cause first.

use chrono::{Datelike, NaiveDate, TimeZone};

use super::plan::{Level, Plan};
use super::runs::{Run, expand};
use crate::budget::Dial;
use crate::controller::{Controller, DayMode, ProgramLetter, TemporaryKind};
use crate::in_force::{OffBy, in_force};
use crate::place::Bound;
use crate::quantity::{MonthOfYear, RunTime};

/// Something that kept a station dry.
#[derive(Debug, Clone, PartialEq)]
pub enum Obstacle {
    /// The controller was off.
    Off {
        /// Since.
        since: NaiveDate,
        /// Why.
        reason: String,
        /// Whether it should have been put back by then.
        overdue: bool,
    },
    /// A rain delay was on.
    RainDelay {
        /// Until.
        until: NaiveDate,
    },
    /// The panel was found off, and nothing says that it was put back.
    FoundOff {
        /// When it was found so.
        on: NaiveDate,
    },
    /// The station is not in use.
    NoStation,
    /// Its program has no start.
    NoStart(ProgramLetter),
    /// A person starts the runs of its program.
    ByHand(ProgramLetter),
    /// Its program does not run on that day.
    NotItsDay {
        /// The program.
        letter: ProgramLetter,
        /// The last day before on which it ran, within a month.
        last: Option<NaiveDate>,
        /// The next day on which it runs, within a month.
        next: Option<NaiveDate>,
    },
    /// A never-water day of the program.
    NeverDay(ProgramLetter),
    /// Counting every N days has not begun.
    NotYet {
        /// The first day.
        next: NaiveDate,
    },
    /// The month is off.
    MonthOff(MonthOfYear),
    /// Its minutes are 0.
    NoMinutes,
    /// The percent makes nothing of its minutes.
    PercentToNothing {
        /// The percent.
        percent: u16,
        /// Its minutes.
        minutes: f64,
    },
    /// Its runs lie outside of the panel's water windows.
    OutsideWindow(ProgramLetter),
    /// A sensor held watering, as the weather on record makes it.
    SensorHeld {
        /// The sensor's id.
        sensor: u16,
    },
    /// The panel's weekday was wrong when it was found, so it waters on other days.
    WrongClock,
}

/// What cannot be known from here.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Unknown {
    /// Whether it had power.
    Power,
    /// Whether the panel's clock was right.
    Clock,
    /// Whether somebody switched it off and on again.
    Hand,
    /// Whether the valve opened: solenoid, wire, water.
    Valve,
    /// Whether everything read what it must: some values could not be set when the panel was dialled in.
    NotSet,
    /// What a sensor said, as there is no weather for the day.
    Sensor(u16),
    /// Whether a bypassed sensor was silenced the right way.
    Bypass(u16),
}

/// The answer.
#[derive(Debug, Clone, PartialEq)]
pub struct Why {
    /// What stood in the way, first cause first; empty when it should have run.
    pub obstacles: Vec<Obstacle>,
    /// The runs that were due, were nothing in the way.
    pub due: Vec<Run>,
    /// What cannot be known from here.
    pub unknown: Vec<Unknown>,
}

/// What is on record beside the controller.
#[derive(Debug, Clone, Default)]
pub struct Known {
    /// For each sensor by its id, whether the weather says that it held on that day.
    pub held: Vec<(u16, Option<bool>)>,
    /// When the panel was last found off, if nothing was dialled since.
    pub found_off: Option<NaiveDate>,
    /// Whether the panel's weekday or clock was last found wrong and not set since.
    pub clock_wrong: bool,
    /// Whether the panel's sensor switch was last found at bypass and not set since.
    pub found_bypassed: bool,
    /// Whether some values could not be set when the panel was last dialled in.
    pub not_all_set: bool,
}

/// Why a station got no water on a date.
#[must_use]
pub fn why_dry<Tz: TimeZone>(
    controller: &Controller,
    plan: &Plan,
    zone: &Tz,
    known: &Known,
    station: u8,
    date: NaiveDate,
) -> Why {
    let force = in_force(controller, plan, known.found_off, date);
    let off = |by| match by {
        OffBy::Found { on } => Obstacle::FoundOff { on },
        OffBy::Set(t) => Obstacle::Off { since: t.since, overdue: t.is_over(date), reason: t.reason },
        OffBy::RainDelay(t) => Obstacle::RainDelay { until: t.until },
    };
    let mut obstacles: Vec<Obstacle> = force.off.into_iter().map(off).collect();
    if known.clock_wrong {
        obstacles.push(Obstacle::WrongClock);
    }
    let mut unknown = vec![Unknown::Power, Unknown::Clock, Unknown::Hand];
    unknown.extend(known.not_all_set.then_some(Unknown::NotSet));
    let found = plan.station(station);
    let mut due = Vec::new();
    match (found, controller.station(station)) {
        (Some(planned), Some(own)) => {
            let letter = own.program;
            schedule_obstacles(controller, letter, date, &mut obstacles);
            let month = MonthOfYear::ALL[date.month0() as usize];
            if plan.dial(letter, month) == Dial::Off {
                obstacles.push(Obstacle::MonthOff(month));
            }
            if planned.panel == RunTime::ZERO {
                obstacles.push(Obstacle::NoMinutes);
            } else if let Some(percent) = plan.percent_on(controller, letter, date, Level::Calendar)
                && controller.capability.scaled(planned.panel, percent) == RunTime::ZERO
            {
                let minutes = planned.panel.minutes();
                obstacles.push(Obstacle::PercentToNothing { percent: percent.get(), minutes });
            }
            let mut free = controller.clone();
            free.temporaries.retain(|t| !t.stops_watering());
            due = expand(&free, plan, zone, [date, date], Level::Calendar).runs;
            due.retain(|r| r.station == station);
            let windows = Bound::of_windows(&controller.windows);
            let outside =
                |r: &Run| windows.first_forbidden(r.date, r.local_start, r.local_stop()) == Some(r.local_start);
            if !due.is_empty() && due.iter().all(outside) {
                obstacles.push(Obstacle::OutsideWindow(letter));
            }
            sensor_obstacles(controller, known, station, date, &mut obstacles, &mut unknown);
        }
        _ => obstacles.push(Obstacle::NoStation),
    }
    unknown.push(Unknown::Valve);
    Why { obstacles, due, unknown }
}

fn schedule_obstacles(controller: &Controller, letter: ProgramLetter, date: NaiveDate, obstacles: &mut Vec<Obstacle>) {
    let Some(program) = controller.program(letter) else { return };
    let schedule = controller.schedule_on(program, date);
    if schedule.starts.is_empty() {
        obstacles.push(if program.by_hand { Obstacle::ByHand(letter) } else { Obstacle::NoStart(letter) });
        return;
    }
    if schedule.waters_on(date) {
        return;
    }
    match schedule.days {
        DayMode::Every { next, .. } if date < next => obstacles.push(Obstacle::NotYet { next }),
        mode if mode.waters_on(date) => obstacles.push(Obstacle::NeverDay(letter)),
        _ => {
            let near =
                |step: i64| (1..=31).map(|d| date + chrono::TimeDelta::days(d * step)).find(|d| schedule.waters_on(*d));
            obstacles.push(Obstacle::NotItsDay { letter, last: near(-1), next: near(1) });
        }
    }
}

fn sensor_obstacles(
    controller: &Controller,
    known: &Known,
    station: u8,
    date: NaiveDate,
    obstacles: &mut Vec<Obstacle>,
    unknown: &mut Vec<Unknown>,
) {
    for sensor in &controller.sensors {
        if !sensor.governs(station) || !sensor.has_contact() {
            continue;
        }
        let bypass = TemporaryKind::Bypass { sensor: sensor.id };
        if known.found_bypassed || controller.temporaries.iter().any(|t| t.holds_on(date) && t.kind == bypass) {
            unknown.push(Unknown::Bypass(sensor.id));
            continue;
        }
        if !sensor.jumper_removed {
            // With the jumper in place it never acts, whatever it measures.
            continue;
        }
        match known.held.iter().find(|(id, _)| *id == sensor.id).and_then(|(_, held)| *held) {
            Some(true) => obstacles.push(Obstacle::SensorHeld { sensor: sensor.id }),
            Some(false) => {}
            None => unknown.push(Unknown::Sensor(sensor.id)),
        }
    }
}
