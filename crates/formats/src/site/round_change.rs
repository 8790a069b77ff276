//! The change that a round proposed, as it stands on record.

use serde::{Deserialize, Serialize};
use upland_core::controller::ProgramLetter;
use upland_core::quantity::{Percent, RunTime};
use upland_core::tuning::Change;

use super::days::{DayDoc, day_list, days_of};

/// A change that was proposed on a round.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum ChangeDoc {
    /// The panel is set back to the planned percent.
    PutBack {
        /// The program.
        program: char,
        /// From this percent.
        from: u16,
        /// To this one.
        to: u16,
    },
    /// Another percent for the month.
    Percent {
        /// The program.
        program: char,
        /// From this percent.
        from: u16,
        /// To this one.
        to: u16,
    },
    /// Other watering days.
    Days {
        /// The program.
        program: char,
        /// From these.
        from: Vec<DayDoc>,
        /// To these.
        to: Vec<DayDoc>,
    },
    /// Another trim of a station's demand, and the base minutes that follow.
    Trim {
        /// Its number.
        station: u8,
        /// Trim from, %.
        from_pct: i8,
        /// Trim to, %.
        to_pct: i8,
        /// Base minutes from these seconds.
        from_s: u32,
        /// To these.
        to_s: u32,
    },
    /// Another offset of an ET sensor.
    Offset {
        /// The sensor's id.
        sensor: u16,
        /// The program that was judged.
        program: char,
        /// From this position.
        from: u8,
        /// To this one.
        to: u8,
    },
    /// Another climate step of an ET sensor.
    Climate {
        /// The sensor's id.
        sensor: u16,
        /// The program that was judged.
        program: char,
        /// From this position.
        from: u8,
        /// To this one.
        to: u8,
    },
    /// Other base minutes of a station.
    Minutes {
        /// Its number.
        station: u8,
        /// From these seconds.
        from_s: u32,
        /// To these.
        to_s: u32,
    },
    /// A change on record in words alone, as records of version 1 have it.
    Words(String),
}

impl From<Change> for ChangeDoc {
    fn from(change: Change) -> Self {
        match change {
            Change::PutBack { letter, from, to } => {
                Self::PutBack { program: letter.get(), from: from.get(), to: to.get() }
            }
            Change::Percent { letter, from, to } => {
                Self::Percent { program: letter.get(), from: from.get(), to: to.get() }
            }
            Change::Day { letter, from, to } => {
                Self::Days { program: letter.get(), from: day_list(from), to: day_list(to) }
            }
            Change::Trim { station, from_pct, to_pct, run: [from, to] } => {
                Self::Trim { station, from_pct, to_pct, from_s: from.seconds(), to_s: to.seconds() }
            }
            Change::Offset { sensor, letter, from, to } => Self::Offset { sensor, program: letter.get(), from, to },
            Change::Climate { sensor, letter, from, to } => Self::Climate { sensor, program: letter.get(), from, to },
            Change::Minutes { station, from, to } => {
                Self::Minutes { station, from_s: from.seconds(), to_s: to.seconds() }
            }
        }
    }
}

impl ChangeDoc {
    /// The change; none for one that is on record in words alone.
    #[must_use]
    pub fn change(&self) -> Option<Change> {
        let percents = |from, to| Some((Percent::new(from).ok()?, Percent::new(to).ok()?));
        Some(match self {
            Self::PutBack { program, from, to } => {
                let (from, to) = percents(*from, *to)?;
                Change::PutBack { letter: ProgramLetter::new(*program)?, from, to }
            }
            Self::Percent { program, from, to } => {
                let (from, to) = percents(*from, *to)?;
                Change::Percent { letter: ProgramLetter::new(*program)?, from, to }
            }
            Self::Days { program, from, to } => {
                Change::Day { letter: ProgramLetter::new(*program)?, from: days_of(from), to: days_of(to) }
            }
            Self::Trim { station, from_pct, to_pct, from_s, to_s } => Change::Trim {
                station: *station,
                from_pct: *from_pct,
                to_pct: *to_pct,
                run: [*from_s, *to_s].map(RunTime::from_seconds),
            },
            Self::Offset { sensor, program, from, to } => {
                Change::Offset { sensor: *sensor, letter: ProgramLetter::new(*program)?, from: *from, to: *to }
            }
            Self::Climate { sensor, program, from, to } => {
                Change::Climate { sensor: *sensor, letter: ProgramLetter::new(*program)?, from: *from, to: *to }
            }
            Self::Minutes { station, from_s, to_s } => Change::Minutes {
                station: *station,
                from: RunTime::from_seconds(*from_s),
                to: RunTime::from_seconds(*to_s),
            },
            Self::Words(_) => return None,
        })
    }
}
