//! A finding: what is wrong, what is at stake, and the repair.

use chrono::{NaiveDate, NaiveDateTime, Weekday};

use super::repair::Repair;
use crate::controller::{Days, ProgramLetter, StartTime};
use crate::landscape::CycleSoak;
use crate::quantity::{MonthOfYear, RunTime};

/// How bad a finding is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Severity {
    /// Water is wasted or missing.
    Fault,
    /// A rule of the place is broken.
    Rule,
    /// Worth knowing.
    Note,
}

/// What kind of thing a finding is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Code {
    /// More starts than a watering is divided over: the water is multiplied.
    SecondStart,
    /// Cycles on the panel and divided starts at once.
    TwoWaysOfSoak,
    /// A station runs in two programs.
    InTwoPrograms,
    /// Stations, and neither days nor starts.
    NotScheduled,
    /// Days and starts, and no station.
    GhostProgram,
    /// A station whose minutes are 0.
    NoMinutes,
    /// Runs longer than the soil takes, without a soak.
    RunsOff,
    /// Fewer starts than a watering is divided over.
    TooFewStarts,
    /// The minutes are for another number of waterings a week.
    DaysAndMinutes,
    /// A month's percent fights a sensor that sets it.
    FightsSensor,
    /// Runs on a day that the rules close.
    ForbiddenDay,
    /// Runs in hours that the rules close.
    ForbiddenHour,
    /// At the year's highest percent it runs into hours that the rules close.
    LateAtHighest,
    /// A program waits for another.
    Waits,
    /// Odd days: the 31st and the 1st follow each other.
    OddNeighbours,
    /// Every other day made of weekdays has two days side by side.
    NeighbouringDays,
}

/// What exactly was found.
#[derive(Debug, Clone, PartialEq)]
pub enum What {
    /// A start too many.
    Start(StartTime),
    /// Program and minutes of waiting at most, and when the program should begin.
    WaitsFor {
        /// The program it waits for.
        other: ProgramLetter,
        /// Longest wait, minutes.
        minutes: i64,
        /// Its start on the panel.
        planned: StartTime,
        /// When it really begins, at the latest.
        begins: NaiveDateTime,
    },
    /// Weekdays that are closed, of those the program runs on.
    ClosedDays(Days),
    /// Closed dates, the first of them, where days go by the date or a ban stands.
    ClosedDate(NaiveDate),
    /// The first forbidden minute that it runs in, and when it ends.
    Hours {
        /// First forbidden minute.
        from: NaiveDateTime,
        /// When the program ends.
        ends: NaiveDateTime,
        /// When it ends at this month's percent.
        ends_now: Option<NaiveDateTime>,
        /// The month of the highest percent.
        month: Option<MonthOfYear>,
    },
    /// Longest run that the soil takes, and the run, in minutes.
    Runoff {
        /// The run or cycle.
        run: RunTime,
        /// Longest run before runoff.
        longest: f64,
        /// What the panel would be set to.
        setting: Option<CycleSoak>,
    },
    /// Waterings a week: those of the schedule and those that the minutes are for.
    Waterings {
        /// By days.
        scheduled: f64,
        /// By minutes.
        meant: u8,
    },
    /// Starts: those there are and those that are needed.
    Starts {
        /// There are.
        there: usize,
        /// Needed.
        needed: u8,
    },
    /// The second program of a station.
    Second(ProgramLetter),
    /// Two weekdays side by side.
    SideBySide(Weekday, Weekday),
    /// Nothing more to say.
    Plain,
}

/// What is at stake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Stake {
    /// Water a week, m³.
    VolumeM3(f64),
    /// Net depth a week, mm.
    DepthMm(f64),
    /// A rule of the place.
    Rule,
    /// Nothing that is measured here.
    None,
}

/// Where in the week a finding shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Mark {
    /// The date of the program's start.
    pub date: NaiveDate,
    /// The moment, by the clock of the place.
    pub at: NaiveDateTime,
}

/// Something wrong with a schedule.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// What kind.
    pub code: Code,
    /// How bad.
    pub severity: Severity,
    /// The program.
    pub letter: Option<ProgramLetter>,
    /// The station.
    pub station: Option<u8>,
    /// What exactly.
    pub what: What,
    /// What is at stake.
    pub stake: Stake,
    /// Where it shows.
    pub marks: Vec<Mark>,
    /// One action that mends it and adds no other finding.
    pub repair: Option<Repair>,
}

/// What makes two findings the same one.
pub(super) type Key = (Code, Option<ProgramLetter>, Option<u8>);

impl Finding {
    pub(super) fn key(&self) -> Key {
        (self.code, self.letter, self.station)
    }

    /// Whether it was there before, itself or as something worse: a program that ends late in the
    /// peak month alone is less than one that ends late now.
    pub(super) fn is_known(&self, before: &[Key]) -> bool {
        let worse = (Code::ForbiddenHour, self.letter, self.station);
        before.contains(&self.key()) || (self.code == Code::LateAtHighest && before.contains(&worse))
    }
}
