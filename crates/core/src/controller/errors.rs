//! Why a controller is not valid.

use thiserror::Error;

use super::capability::CapabilityError;
use super::letter::ProgramLetter;
use crate::field::FieldFault;
use crate::quantity::{MonthOfYear, Percent, limit};
use crate::sensor::SensorError;

/// Why a controller is not valid.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum ControllerError {
    /// A field of the controller itself holds what it may not.
    #[error("{0}")]
    Field(FieldFault),
    /// The capability cannot be.
    #[error(transparent)]
    Capability(#[from] CapabilityError),
    /// A station stands on a terminal that the controller does not have.
    #[error("station {number} of {stations}: there is no such terminal")]
    NoSuchTerminal {
        /// The station's number.
        number: u8,
        /// Terminals of the controller.
        stations: u8,
    },
    /// Two stations share a terminal.
    #[error("station {0} is there twice")]
    StationTwice(u8),
    /// A field of a station holds what it may not.
    #[error("station {number}: {fault}")]
    Station {
        /// The station's number.
        number: u8,
        /// What is wrong.
        fault: FieldFault,
    },
    /// A field of a program holds what it may not.
    #[error("program {}: {fault}", letter.get())]
    Program {
        /// The program.
        letter: ProgramLetter,
        /// What is wrong.
        fault: FieldFault,
    },
    /// A program is there twice.
    #[error("program {} is there twice", .0.get())]
    ProgramTwice(ProgramLetter),
    /// A station runs in a program that is not there.
    #[error("station {number} runs in program {}, which is not there", letter.get())]
    NoSuchProgram {
        /// The station's number.
        number: u8,
        /// The program.
        letter: ProgramLetter,
    },
    /// A month's percent cannot be dialled on this controller.
    #[error("program {}, month {}: {} % cannot be dialled; steps of {step} from {min} to {max}", letter.get(), month.number(), percent.get())]
    CannotDial {
        /// The program.
        letter: ProgramLetter,
        /// The month.
        month: MonthOfYear,
        /// The percent asked for.
        percent: Percent,
        /// The controller's step.
        step: u16,
        /// Its lowest percent.
        min: u16,
        /// Its highest percent.
        max: u16,
    },
    /// More waterings a week than days on which it may water.
    #[error("program {}: {waterings} waterings a week, on {allowed} allowed days", letter.get())]
    TooManyWaterings {
        /// The program.
        letter: ProgramLetter,
        /// Waterings asked for.
        waterings: u8,
        /// Days a week on which it may water.
        allowed: u8,
    },
    /// A program that this controller does not have.
    #[error("program {}: the controller has {programs}", letter.get())]
    NoSuchLetter {
        /// The program.
        letter: ProgramLetter,
        /// Programs of the controller.
        programs: u8,
    },
    /// Days, starts or their division that this controller cannot be set to.
    #[error("program {}: {what}", letter.get())]
    Schedule {
        /// The program.
        letter: ProgramLetter,
        /// What cannot be set.
        what: ScheduleError,
    },
    /// Minutes, cycle or soak of a station that this controller cannot be set to.
    #[error("station {number}: {what}")]
    Run {
        /// The station's number.
        number: u8,
        /// What cannot be set.
        what: RunError,
    },
    /// What is stated of a station's root zone does not fit together.
    #[error("station {number}: {what}")]
    RootZone {
        /// The station's number.
        number: u8,
        /// What does not fit.
        what: RootZoneError,
    },
    /// A pause between stations that this controller cannot be set to.
    #[error("a pause between stations of up to {0} s")]
    StationDelay(u32),
    /// More water windows than the panel keeps, or one that opens and closes at the same time.
    #[error("up to {0} water windows, each with two different times")]
    WaterWindows(u8),
    /// More sensors than a controller may have.
    #[error("{0} sensors; up to {max} are allowed", max = limit::SENSORS)]
    TooManySensors(usize),
    /// A sensor without an id, or with another one's.
    #[error("sensor {0}: each sensor needs an id of its own, from 1")]
    SensorId(u16),
    /// A sensor that is not valid.
    #[error("sensor {id}: {error}")]
    Sensor {
        /// Its id.
        id: u16,
        /// What is wrong.
        error: SensorError,
    },
    /// More temporary settings than a controller may have.
    #[error("{0} temporary settings; up to {max} are allowed", max = limit::TEMPORARIES)]
    TooManyTemporaries(usize),
    /// A temporary setting without an id, or with another one's.
    #[error("temporary setting {0}: each needs an id of its own, from 1")]
    TemporaryId(u16),
    /// A temporary setting that is not valid.
    #[error("temporary setting {id}: {what}")]
    Temporary {
        /// Its id.
        id: u16,
        /// What is wrong.
        what: TemporaryError,
    },
}

/// Why a program's days and starts cannot be set.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum ScheduleError {
    /// More starts than the panel has.
    #[error("{starts} starts, the panel has {allowed}")]
    TooManyStarts {
        /// Starts asked for.
        starts: usize,
        /// Starts of a program of this panel.
        allowed: u8,
    },
    /// A start off the panel's step.
    #[error("a start goes by {0} min")]
    StartStep(u16),
    /// A start of a program that is watered by hand.
    #[error("a program that is watered by hand has no starts")]
    ByHand,
    /// The same start twice.
    #[error("the same start is there twice")]
    StartTwice,
    /// A day mode that the panel does not have.
    #[error("the panel has no such day mode")]
    DayMode,
    /// Every N days, out of the panel's range.
    #[error("every 1 to {0} days")]
    Every(u8),
    /// Never-water days on a panel without them.
    #[error("the panel cannot close single weekdays")]
    NeverDays,
    /// A next watering in a year that is not kept.
    #[error("the next watering is between 1900 and 2200")]
    Date,
    /// A watering divided over no start, or over more than the panel has.
    #[error("a watering is divided over 1 to {0} starts")]
    Split(u8),
}

/// Why a station's minutes or cycles cannot be set.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum RunError {
    /// Longer than the panel's longest run.
    #[error("a run of up to {0} min")]
    TooLong(u32),
    /// Off the panel's step.
    #[error("run times go by {0} s")]
    Step(u32),
    /// Cycle and soak on a panel without them.
    #[error("the panel has no cycle and soak of its own")]
    NoCycles,
    /// More cycles in its minutes than a run is cut into.
    #[error("a run is cut into {0} cycles at most; set longer ones")]
    TooManyCycles(u32),
    /// A cycle of no length.
    #[error("a cycle is longer than nothing, a soak is up to 24 h")]
    Cycle,
    /// The second program is the first one.
    #[error("it runs in this program already")]
    AlsoSame,
}

/// Why what is stated of a root zone is not valid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum RootZoneError {
    /// One of field capacity and wilting point without the other.
    #[error("field capacity and wilting point go together")]
    Half,
    /// A field capacity at or under the wilting point.
    #[error("the field capacity is not above the wilting point")]
    Reversed,
    /// A depletion at the start that the root zone cannot have.
    #[error("more is missing at the start than the root zone holds")]
    Start,
}

/// Why a temporary setting is not valid.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum TemporaryError {
    /// A field holds what it may not.
    #[error(transparent)]
    Field(#[from] FieldFault),
    /// It ends before it begins, or in more than a year.
    #[error("it ends on or after the day it begins, within a year")]
    End,
    /// A percent that cannot be dialled.
    #[error("the percent cannot be dialled")]
    Percent,
    /// A weaning that adds nothing, takes nothing away, or goes on after it has.
    #[error("weaning adds 1 to 200 %, loses 1 % of it or more a week, and ends when nothing is left")]
    Weaning,
    /// More starts than the panel has, or a last one before the first.
    #[error("1 to {0} starts a day, the last one after the first")]
    GrowIn(u8),
    /// A rain delay longer than the panel's.
    #[error("a rain delay of 1 to {0} days")]
    RainDelay(u8),
    /// A sensor that is not there.
    #[error("there is no such sensor")]
    Sensor,
    /// A program that is not there.
    #[error("there is no such program")]
    Program,
}
