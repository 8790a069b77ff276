//! The one next change, and the controller with it made.

use crate::controller::{Controller, DayMode, Days, MonthDial, PercentScope, ProgramLetter};
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::sensor::ClimateStep;

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
        /// From this position.
        from: u8,
        /// To this one.
        to: u8,
    },
    /// Another climate step of the ET sensor that sets a program; the base minutes stay.
    Climate {
        /// The sensor's id.
        sensor: u16,
        /// The program.
        letter: ProgramLetter,
        /// From this position.
        from: u8,
        /// To this one.
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
            | Self::Offset { letter, .. }
            | Self::Climate { letter, .. } => Some(letter),
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

    /// Share by which it scales every percent that an ET sensor sets; 1 for a change of anything else.
    #[must_use]
    pub fn scale_of_sensor(&self, controller: &Controller) -> f64 {
        let setting = |id| controller.et_setting(id);
        let scale = match *self {
            Self::Offset { sensor, from, to, .. } => setting(sensor).map(|s| s.sheet.share(to) / s.sheet.share(from)),
            Self::Climate { sensor, from, to, .. } => setting(sensor).and_then(|s| {
                let reference = |p| s.sheet.climate(p).map(ClimateStep::reference_mm_per_day);
                Some(reference(from)? / reference(to)?)
            }),
            _ => None,
        };
        scale.unwrap_or(1.0)
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
                if let Some(setting) = c.et_setting_mut(sensor) {
                    setting.offset = to;
                }
            }
            Self::Climate { sensor, to, .. } => {
                if let Some(setting) = c.et_setting_mut(sensor) {
                    // Minutes that followed the step would move back what it moves.
                    setting.minutes_for = Some(setting.minutes_for.unwrap_or(setting.climate));
                    setting.climate = to;
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
