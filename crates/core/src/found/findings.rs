//! What is wrong with a panel.

use chrono::{NaiveDate, NaiveDateTime, TimeZone, Weekday};

use super::clock::clock_findings;
use super::water::{Cause, PanelWeek, ProgramWater};
use super::{FoundProgram, FoundStation, Panel, SensorSwitch, Switch};
use crate::budget::YearBudget;
use crate::controller::{Controller, DayMode, Days, ProgramLetter};
use crate::place::Bound;
use crate::quantity::RunTime;
use crate::schedule::{Situation, first_forbidden};

/// What is wrong with a panel as it was found.
#[derive(Debug, Clone, PartialEq)]
pub enum PanelFinding {
    /// Day and month are right and the weekday is not: the year is wrong. The nearest year in
    /// which it fits.
    WrongYear {
        /// The weekday shown.
        shows: Weekday,
        /// The year that it believes in, if one within fourteen fits.
        believes: Option<i32>,
    },
    /// The date is another.
    WrongDate {
        /// The date shown.
        shows: NaiveDate,
    },
    /// An hour off: daylight saving.
    HourOff {
        /// Minutes ahead, negative behind.
        ahead: i64,
    },
    /// Twelve hours off: AM for PM.
    HalfDayOff,
    /// Off by something else.
    ClockOff {
        /// Minutes ahead, negative behind.
        ahead: i64,
    },
    /// The panel is off.
    LeftOff,
    /// The sensor switch is at bypass.
    SensorBypassed,
    /// Every day, the same minutes for every station: as the panel came, or as it forgot in a power cut.
    FactoryState {
        /// The minutes.
        minutes: RunTime,
    },
    /// A program whose week is too wet or too dry.
    Water(ProgramWater),
    /// A program that nobody uses still runs.
    LeftoverProgram {
        /// The program.
        letter: ProgramLetter,
    },
    /// A station with minutes that the controller's stations do not name.
    UnknownStation {
        /// Its number.
        station: u8,
        /// Its minutes.
        minutes: RunTime,
    },
    /// A station stands in two programs.
    InTwoPrograms {
        /// Its number.
        station: u8,
    },
    /// A program runs outside of the panel's own water windows, where it does not water.
    OutsideWindow {
        /// The program.
        letter: ProgramLetter,
        /// The first run outside of them begins or goes on outside from here.
        from: NaiveDateTime,
    },
    /// A program runs on into hours that are closed, or into its own next start.
    Overrun {
        /// The program.
        letter: ProgramLetter,
        /// When its last valve shuts.
        ends: NaiveDateTime,
    },
}

impl PanelFinding {
    /// Its code, as files and pages name it.
    #[must_use]
    pub const fn code(&self) -> &'static str {
        match self {
            Self::WrongYear { .. } => "wrong_year",
            Self::WrongDate { .. } => "wrong_date",
            Self::HourOff { .. } => "clock_hour_off",
            Self::HalfDayOff => "clock_half_day_off",
            Self::ClockOff { .. } => "clock_off",
            Self::LeftOff => "left_off",
            Self::SensorBypassed => "sensor_bypassed",
            Self::FactoryState { .. } => "factory_state",
            Self::Water(ProgramWater { cause, .. }) => match cause {
                Cause::SecondStart { .. } => "found_second_start",
                Cause::Percent { .. } => "leftover_percent",
                Cause::Days { .. } => "found_days",
                Cause::NotNeeded => "found_not_needed",
                Cause::Minutes { .. } => "found_minutes",
            },
            Self::LeftoverProgram { .. } => "leftover_program",
            Self::UnknownStation { .. } => "found_unknown_station",
            Self::InTwoPrograms { .. } => "found_in_two_programs",
            Self::OutsideWindow { .. } => "found_outside_window",
            Self::Overrun { .. } => "overrun",
        }
    }

    /// Whether the panel's clock is wrong, so that days and hours are not those it is set to.
    #[must_use]
    pub const fn is_clock(&self) -> bool {
        matches!(
            self,
            Self::WrongYear { .. }
                | Self::WrongDate { .. }
                | Self::HourOff { .. }
                | Self::HalfDayOff
                | Self::ClockOff { .. }
        )
    }
}

/// What is wrong with a panel, in the panel's order. `budget` is that of the controller as it is
/// known, for the month's percent.
#[must_use]
pub fn panel_findings<Tz: TimeZone>(
    panel: &Panel,
    known: &Controller,
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
) -> Vec<PanelFinding> {
    let mut out = Vec::new();
    clock_findings(panel, &mut out);
    if panel.switch == Switch::Off {
        out.push(PanelFinding::LeftOff);
    }
    if panel.sensor == SensorSwitch::Bypassed {
        out.push(PanelFinding::SensorBypassed);
    }
    out.extend(factory_state(panel).map(|minutes| PanelFinding::FactoryState { minutes }));
    let running = |s: &&FoundStation| s.minutes > RunTime::ZERO;
    for station in panel.stations.iter().filter(running) {
        if known.station(station.number).is_none() {
            out.push(PanelFinding::UnknownStation { station: station.number, minutes: station.minutes });
        } else if station.programs.len() > 1 {
            out.push(PanelFinding::InTwoPrograms { station: station.number });
        }
    }
    let week = PanelWeek::of(panel, known, situation);
    let windows = Bound::of_windows(&panel.windows);
    let water = week.program_water(panel, known, budget);
    for program in panel.programs.iter().filter(|p| !p.schedule().is_idle()) {
        let has_minutes = panel.stations.iter().any(|s| running(&s) && s.programs.contains(&program.letter));
        if !has_minutes || !known.stations.iter().any(|s| s.runs_in(program.letter)) {
            out.push(PanelFinding::LeftoverProgram { letter: program.letter });
        }
        out.extend(water.iter().filter(|w| w.letter == program.letter).copied().map(PanelFinding::Water));
        let letter = program.letter;
        let outside = first_forbidden(&windows, &week.runs, letter);
        out.extend(outside.map(|found| PanelFinding::OutsideWindow { letter, from: found.from }));
        let overrun = first_forbidden(situation.rules, &week.runs, letter);
        out.extend(overrun.map(|found| PanelFinding::Overrun { letter, ends: found.ends }));
    }
    out
}

/// The minutes of a panel that waters every station alike every day: two stations or more, all days.
fn factory_state(panel: &Panel) -> Option<RunTime> {
    let every_day = |p: &FoundProgram| match p.days {
        DayMode::Weekdays(days) => days == Days::ALL,
        DayMode::Every { days, .. } => days == 1,
        DayMode::Odd | DayMode::Even => false,
    };
    let mut running = panel.programs.iter().filter(|p| !p.schedule().is_idle()).peekable();
    let first = panel.stations.first()?.minutes;
    let alike = panel.stations.len() > 1 && panel.stations.iter().all(|s| s.minutes == first);
    (first > RunTime::ZERO && alike && running.peek().is_some() && running.all(every_day)).then_some(first)
}
