//! A finding: what is wrong, what is at stake, and the repair.

use chrono::{NaiveDate, NaiveDateTime, Weekday};

use super::repair::Repair;
use crate::controller::{Days, ProgramLetter, StartTime};
use crate::landscape::CycleSoak;
use crate::quantity::{MonthOfYear, Percent, RunTime};

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

/// What kind of problem a finding is, without its figures: what findings are sorted and named by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[expect(missing_docs, reason = "each is described at its namesake in `Problem`")]
pub enum Code {
    SecondStart,
    TwoWaysOfSoak,
    InTwoPrograms,
    NotScheduled,
    GhostProgram,
    NoMinutes,
    RunsOff,
    TooFewStarts,
    TooManyOpenings,
    DaysAndMinutes,
    RainCountedTwice,
    PercentHeld,
    RunHeld,
    DeeperThanSoil,
    DeeperThanReady,
    FightsSensor,
    ForbiddenDay,
    ForbiddenHour,
    OutsideWindow,
    SensorRequired,
    LateAtHighest,
    NotDone,
    Waits,
    OddNeighbours,
    NeighbouringDays,
}

/// What is wrong, with the figures that show it.
#[derive(Debug, Clone, PartialEq)]
pub enum Problem {
    /// More starts than a watering is divided over: the water is multiplied.
    SecondStart {
        /// The start too many.
        start: StartTime,
    },
    /// Cycles on the panel and divided starts at once.
    TwoWaysOfSoak,
    /// A station runs in two programs.
    InTwoPrograms {
        /// The second one.
        second: ProgramLetter,
    },
    /// Stations, and neither days nor starts.
    NotScheduled,
    /// Days and starts, and no station.
    GhostProgram,
    /// A station whose minutes are 0.
    NoMinutes,
    /// Runs longer than the soil takes, without a soak.
    RunsOff {
        /// The run or cycle.
        run: RunTime,
        /// Longest run before runoff, minutes.
        longest: f64,
        /// What the panel would be set to.
        setting: Option<CycleSoak>,
    },
    /// Fewer starts than a watering is divided over.
    TooFewStarts {
        /// Starts there are.
        there: usize,
        /// Starts needed.
        needed: u8,
    },
    /// The starts of a day open valves more often than is worked out.
    TooManyOpenings {
        /// The first such date.
        date: NaiveDate,
    },
    /// The minutes are for another number of waterings a week.
    DaysAndMinutes {
        /// Waterings a week by the days.
        scheduled: f64,
        /// Waterings a week that the minutes are for.
        meant: f64,
    },
    /// Rain is taken off by month, and a sensor holds the program back for it too.
    RainCountedTwice,
    /// A month calls for more than the panel's highest percent.
    PercentHeld {
        /// The month that lacks most.
        month: MonthOfYear,
        /// The percent that it calls for.
        wanted: f64,
        /// The panel's highest.
        highest: Percent,
    },
    /// A station needs more minutes than the panel's longest run.
    RunHeld {
        /// What it needs at the year's highest percent, minutes.
        wanted_minutes: f64,
        /// The panel's longest run.
        longest: RunTime,
    },
    /// A watering is deeper than what the root zone holds.
    DeeperThanSoil {
        /// Net depth of a watering at the year's highest percent, mm.
        net_mm: f64,
        /// Total available water, mm.
        taw_mm: f64,
    },
    /// A watering is deeper than what plants use before they feel it: they wait too long for it.
    DeeperThanReady {
        /// Net depth of a watering at the year's highest percent, mm.
        net_mm: f64,
        /// Readily available water, mm.
        raw_mm: f64,
    },
    /// A month's percent fights a sensor that sets it.
    FightsSensor,
    /// Runs on weekdays that the rules close.
    ForbiddenWeekdays {
        /// The closed ones of its days.
        days: Days,
    },
    /// Runs on dates that the rules close, where days go by the date or a ban is in force.
    ForbiddenDate {
        /// The first of them.
        date: NaiveDate,
    },
    /// Runs in hours that the rules close.
    ForbiddenHour {
        /// First forbidden minute that it runs in.
        from: NaiveDateTime,
        /// When the program ends.
        ends: NaiveDateTime,
    },
    /// Runs outside of the panel's own water windows, which it does not make.
    OutsideWindow {
        /// First minute outside of them.
        from: NaiveDateTime,
        /// When the program would end.
        ends: NaiveDateTime,
        /// The month of the highest percent, where it is so only then.
        month: Option<MonthOfYear>,
    },
    /// The rules require a working rain or freeze sensor, and none is at work.
    SensorRequired,
    /// At the year's highest percent it runs into hours that the rules close.
    LateAtHighest {
        /// First forbidden minute that it runs in.
        from: NaiveDateTime,
        /// When the program ends then.
        ends: NaiveDateTime,
        /// When it ends at this month's percent.
        ends_now: Option<NaiveDateTime>,
        /// The month of the highest percent.
        month: Option<MonthOfYear>,
    },
    /// Waters while people need the place or its water.
    NotDone {
        /// When watering is to be done.
        by: StartTime,
        /// When the program ends.
        ends: NaiveDateTime,
        /// The month of the highest percent, where it is so only then.
        month: Option<MonthOfYear>,
    },
    /// A program waits for another.
    Waits {
        /// The program it waits for.
        other: ProgramLetter,
        /// Longest wait, minutes.
        minutes: i64,
        /// Its start on the panel.
        planned: StartTime,
        /// When it really begins, at the latest.
        begins: NaiveDateTime,
    },
    /// Odd days: the 31st and the 1st follow each other.
    OddNeighbours,
    /// Every other day made of weekdays has two days side by side.
    NeighbouringDays {
        /// The earlier of the two.
        first: Weekday,
        /// The later.
        second: Weekday,
    },
}

impl Problem {
    /// What kind of problem it is.
    #[must_use]
    pub const fn code(&self) -> Code {
        match self {
            Self::SecondStart { .. } => Code::SecondStart,
            Self::TwoWaysOfSoak => Code::TwoWaysOfSoak,
            Self::InTwoPrograms { .. } => Code::InTwoPrograms,
            Self::NotScheduled => Code::NotScheduled,
            Self::GhostProgram => Code::GhostProgram,
            Self::NoMinutes => Code::NoMinutes,
            Self::RunsOff { .. } => Code::RunsOff,
            Self::TooFewStarts { .. } => Code::TooFewStarts,
            Self::TooManyOpenings { .. } => Code::TooManyOpenings,
            Self::DaysAndMinutes { .. } => Code::DaysAndMinutes,
            Self::RainCountedTwice => Code::RainCountedTwice,
            Self::PercentHeld { .. } => Code::PercentHeld,
            Self::RunHeld { .. } => Code::RunHeld,
            Self::DeeperThanSoil { .. } => Code::DeeperThanSoil,
            Self::DeeperThanReady { .. } => Code::DeeperThanReady,
            Self::FightsSensor => Code::FightsSensor,
            Self::ForbiddenWeekdays { .. } | Self::ForbiddenDate { .. } => Code::ForbiddenDay,
            Self::ForbiddenHour { .. } => Code::ForbiddenHour,
            Self::OutsideWindow { .. } => Code::OutsideWindow,
            Self::SensorRequired => Code::SensorRequired,
            Self::LateAtHighest { .. } => Code::LateAtHighest,
            Self::NotDone { .. } => Code::NotDone,
            Self::Waits { .. } => Code::Waits,
            Self::OddNeighbours => Code::OddNeighbours,
            Self::NeighbouringDays { .. } => Code::NeighbouringDays,
        }
    }
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
    /// What is wrong.
    pub problem: Problem,
    /// How bad.
    pub severity: Severity,
    /// The program.
    pub letter: Option<ProgramLetter>,
    /// The station.
    pub station: Option<u8>,
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
    /// A finding of a program, or of the whole controller, that nothing else is known of.
    pub(super) const fn new(problem: Problem, severity: Severity, letter: Option<ProgramLetter>) -> Self {
        Self { problem, severity, letter, station: None, stake: Stake::None, marks: Vec::new(), repair: None }
    }

    /// What kind of problem it is.
    #[must_use]
    pub const fn code(&self) -> Code {
        self.problem.code()
    }

    pub(super) fn key(&self) -> Key {
        (self.code(), self.letter, self.station)
    }

    /// Whether it was there before, itself or as something worse: a program that ends late in the
    /// peak month alone is less than one that ends late now, and water that comes too seldom is less
    /// than water that sinks away, or none.
    pub(super) fn is_known(&self, before: &[Key]) -> bool {
        let worse: &[Code] = match self.code() {
            Code::LateAtHighest => &[Code::ForbiddenHour],
            Code::DeeperThanReady => &[Code::DeeperThanSoil, Code::NoMinutes],
            _ => &[],
        };
        before.contains(&self.key()) || worse.iter().any(|code| before.contains(&(*code, self.letter, self.station)))
    }
}
