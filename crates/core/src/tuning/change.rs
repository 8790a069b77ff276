//! The one next change, and the controller with it made.

use crate::controller::{Controller, DayMode, Days, MonthDial, PercentScope, ProgramLetter};
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::sensor::SensorKind;

/// The one next change.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Change {
    /// The panel stands elsewhere than it should: set it to what is planned.
    PutBack {
        /// The program.
        letter: ProgramLetter,
        /// It stood at.
        from: Percent,
        /// It should stand at.
        to: Percent,
    },
    /// Another percent for this month.
    Percent {
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: Percent,
        /// To.
        to: Percent,
    },
    /// A watering day more or less.
    Day {
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: Days,
        /// To.
        to: Days,
    },
    /// Another trim of one station's demand, and the minutes that follow from it.
    Trim {
        /// Its number.
        station: u8,
        /// Trim from, %.
        from_pct: i8,
        /// Trim to, %.
        to_pct: i8,
        /// Base minutes from and to.
        run: [RunTime; 2],
    },
    /// Another offset of the ET sensor that sets a program.
    Offset {
        /// The sensor's id.
        sensor: u16,
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: u8,
        /// To.
        to: u8,
    },
    /// Other base minutes of one station, where somebody typed them.
    Minutes {
        /// Its number.
        station: u8,
        /// From.
        from: RunTime,
        /// To.
        to: RunTime,
    },
}

impl Change {
    /// The program that it is made on; none for a change of one station.
    #[must_use]
    pub const fn letter(&self) -> Option<ProgramLetter> {
        match *self {
            Self::PutBack { letter, .. }
            | Self::Percent { letter, .. }
            | Self::Day { letter, .. }
            | Self::Offset { letter, .. } => Some(letter),
            Self::Trim { .. } | Self::Minutes { .. } => None,
        }
    }

    /// Whether it changes the water of a station.
    #[must_use]
    pub fn concerns(&self, controller: &Controller, number: u8) -> bool {
        let all = controller.capability.percent_scope == PercentScope::AllPrograms;
        match *self {
            Self::Trim { station, .. } | Self::Minutes { station, .. } => station == number,
            Self::PutBack { .. } | Self::Percent { .. } if all => true,
            _ => controller.station(number).is_some_and(|s| Some(s.program) == self.letter()),
        }
    }

    /// The controller with the change made.
    #[must_use]
    pub fn applied(&self, controller: &Controller, month: MonthOfYear) -> Controller {
        let mut c = controller.clone();
        match *self {
            Self::PutBack { .. } => {}
            Self::Percent { letter, to, .. } => {
                // One percent for all programs is kept with the first of them that has a station.
                let governing = match c.capability.percent_scope {
                    PercentScope::EachProgram => letter,
                    PercentScope::AllPrograms => c.programs_with_stations().next().map_or(letter, |p| p.letter),
                };
                if let Some(program) = c.program_mut(governing) {
                    program.months[month.index()].dial = MonthDial::Set(to);
                }
            }
            Self::Day { letter, to, .. } => {
                if let Some(program) = c.program_mut(letter) {
                    program.schedule.days = DayMode::Weekdays(to);
                }
            }
            Self::Trim { station, to_pct, .. } => {
                if let Some(station) = c.station_mut(station) {
                    station.trim_pct = f64::from(to_pct);
                }
            }
            Self::Offset { sensor, to, .. } => {
                for sensor in c.sensors.iter_mut().filter(|s| s.id == sensor) {
                    if let SensorKind::Et { trim, .. } = &mut sensor.kind {
                        *trim = to;
                    }
                }
            }
            Self::Minutes { station, to, .. } => {
                if let Some(station) = c.station_mut(station) {
                    station.minutes = Some(to);
                }
            }
        }
        c
    }
}
