//! A panel as it was found: written down before anything is changed, and what is wrong with it.

mod clock;
mod differences;
mod findings;
mod water;

use chrono::NaiveDateTime;
use thiserror::Error;

use crate::controller::{
    Capability, Controller, DayMode, Days, Hours, MonthDial, ProgramLetter, Schedule, StartTime, windows_fit,
};
use crate::field::check_date;
use crate::landscape::CycleSoak;
use crate::quantity::{MonthOfYear, Percent, RunTime, limit};

pub use clock::{PanelClock, days_by_number};
pub use differences::{Difference, Held, Part, adopt, differences};
pub use findings::{PanelFinding, panel_findings};
pub use water::{Cause, FoundWater, ProgramWater, panel_water, program_water};

/// The switch of a panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Switch {
    /// It runs its programs.
    #[default]
    On,
    /// The display says off while a sensor holds: the panel itself is on and waters again by itself.
    Held,
    /// It ignores everything and keeps its programs.
    Off,
}

/// The sensor switch of a panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum SensorSwitch {
    /// There is none, or no sensor.
    #[default]
    None,
    /// Sensors are obeyed.
    Active,
    /// Sensors are ignored.
    Bypassed,
}

/// Minutes of a station and the programs in which they stand.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FoundStation {
    /// Terminal number.
    pub number: u8,
    /// Minutes at 100 %.
    pub minutes: RunTime,
    /// Programs that run it.
    pub programs: Vec<ProgramLetter>,
    /// Its cycles, on a panel that has them.
    pub cycle: Option<CycleSoak>,
}

/// A program of the panel.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FoundProgram {
    /// Its letter.
    pub letter: ProgramLetter,
    /// Its days.
    pub days: DayMode,
    /// Weekdays on which it never waters, whatever the mode says.
    pub never: Days,
    /// Its starts, earliest first; slots that read off are left out.
    pub starts: Vec<StartTime>,
    /// Its percent now.
    pub percent: Percent,
    /// Its twelve percents, January first, where the panel keeps them by month and they were written down; none
    /// for a month that is off.
    pub months: Option<[Option<Percent>; 12]>,
}

impl FoundProgram {
    /// Its days and starts as a program of ours holds them.
    #[must_use]
    pub fn schedule(&self) -> Schedule {
        Schedule { days: self.days, never: self.never, starts: self.starts.clone(), ..Schedule::default() }
    }

    /// What it holds for a month; the percent of today where no more is known.
    #[must_use]
    pub fn dial(&self, month: MonthOfYear) -> MonthDial {
        let own = self.months.map_or(Some(self.percent), |months| months[month.index()]);
        own.map_or(MonthDial::Off, MonthDial::Set)
    }
}

/// Everything a panel holds, in its own order.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Panel {
    /// When it was written down, by a good clock of the place.
    pub seen_at: NaiveDateTime,
    /// What its clock showed then.
    pub clock: PanelClock,
    /// Off or on.
    pub switch: Switch,
    /// The sensor switch.
    pub sensor: SensorSwitch,
    /// Stations with minutes.
    pub stations: Vec<FoundStation>,
    /// Programs, by letter.
    pub programs: Vec<FoundProgram>,
    /// Water windows that it is set to.
    pub windows: Vec<Hours>,
    /// What else was seen; may be empty.
    pub note: String,
}

/// Why a record of a panel is not valid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum PanelError {
    /// A station that the panel does not have.
    #[error("station {number} of {stations}: there is no such terminal")]
    NoSuchTerminal {
        /// The number.
        number: u8,
        /// Terminals.
        stations: u8,
    },
    /// A run that the panel cannot hold.
    #[error("station {0}: the run is longer than the panel's longest")]
    TooLong(u8),
    /// Cycles without a length.
    #[error("station {0}: a cycle lasts longer than nothing")]
    Cycle(u8),
    /// A program that the panel does not have.
    #[error("program {}: the panel has fewer programs", .0.get())]
    NoSuchProgram(ProgramLetter),
    /// More starts than the panel has.
    #[error("program {}: more starts than the panel has", .0.get())]
    TooManyStarts(ProgramLetter),
    /// More water windows than the panel keeps, or one that opens and closes at the same time.
    #[error("up to {0} water windows, each with two different times")]
    WaterWindows(u8),
    /// The same thing twice.
    #[error("{0} is there twice")]
    Twice(&'static str),
    /// A note that is too long, or with control characters.
    #[error("a note has up to {} characters", limit::NOTE)]
    Note,
    /// A date outside the years that are kept.
    #[error("dates are between 1900 and 2200")]
    Date,
}

impl Panel {
    /// Whether a panel of this capability can hold this.
    ///
    /// # Errors
    /// [`PanelError`] for the first thing that is not valid.
    pub fn check(&self, capability: &Capability) -> Result<(), PanelError> {
        for (index, s) in self.stations.iter().enumerate() {
            if !(1..=capability.stations).contains(&s.number) {
                return Err(PanelError::NoSuchTerminal { number: s.number, stations: capability.stations });
            }
            if s.minutes > capability.run_max {
                return Err(PanelError::TooLong(s.number));
            }
            if s.cycle.is_some_and(|c| c.cycle == RunTime::ZERO) {
                return Err(PanelError::Cycle(s.number));
            }
            if self.stations[..index].iter().any(|o| o.number == s.number) {
                return Err(PanelError::Twice("a station"));
            }
        }
        let letters = self.stations.iter().flat_map(|s| &s.programs).chain(self.programs.iter().map(|p| &p.letter));
        if let Some(letter) = letters.into_iter().find(|l| l.index() >= usize::from(capability.programs)) {
            return Err(PanelError::NoSuchProgram(*letter));
        }
        for (index, p) in self.programs.iter().enumerate() {
            if p.starts.len() > usize::from(capability.starts) {
                return Err(PanelError::TooManyStarts(p.letter));
            }
            if !p.starts.windows(2).all(|pair| pair[0] < pair[1]) {
                return Err(PanelError::Twice("a start"));
            }
            if self.programs[..index].iter().any(|o| o.letter == p.letter) {
                return Err(PanelError::Twice("a program"));
            }
        }
        let most = capability.water_windows;
        if !windows_fit(&self.windows, most) {
            return Err(PanelError::WaterWindows(most));
        }
        // Line ends are part of a note; NUL and other control characters are not.
        let line_end = |c: char| matches!(c, '\n' | '\r' | '\t');
        let strange = self.note.chars().any(|c| c.is_control() && !line_end(c));
        if strange || self.note.chars().count() > limit::NOTE {
            return Err(PanelError::Note);
        }
        let next = self.programs.iter().filter_map(|p| match p.days {
            DayMode::Every { next, .. } => Some(next),
            _ => None,
        });
        for date in [self.seen_at.date(), self.clock.date].into_iter().chain(next) {
            check_date(date).map_err(|_| PanelError::Date)?;
        }
        Ok(())
    }

    /// The controller as the panel would run it: what is known of its stations, with the panel's
    /// minutes, programs, days, starts and percent, and nothing temporary.
    #[must_use]
    pub fn as_controller(&self, known: &Controller) -> Controller {
        let mut c = known.clone();
        c.temporaries.clear();
        c.windows.clone_from(&self.windows);
        c.stations.retain(|s| self.stations.iter().any(|f| f.number == s.number));
        for station in &mut c.stations {
            let Some(found) = self.stations.iter().find(|f| f.number == station.number) else { continue };
            station.minutes = Some(found.minutes);
            station.cycle = found.cycle;
            let mut programs = found.programs.iter().copied();
            station.program = programs.next().unwrap_or(station.program);
            station.also = programs.next();
            if found.programs.is_empty() {
                station.minutes = Some(RunTime::ZERO);
            }
        }
        c.programs.clear();
        for found in &self.programs {
            let mut program = crate::controller::Program::proposed(found.letter);
            // A person goes on watering what the panel has no start for.
            program.by_hand = known.is_by_hand(found.letter);
            program.take_schedule(found.schedule());
            for (month, plan) in MonthOfYear::ALL.into_iter().zip(&mut program.months) {
                plan.dial = found.dial(month);
            }
            c.programs.push(program);
        }
        for station in c.stations.clone() {
            for letter in std::iter::once(station.program).chain(station.also) {
                if c.program(letter).is_none() {
                    c.programs.push(crate::controller::Program::proposed(letter));
                }
            }
        }
        c.programs.sort_by_key(|p| p.letter);
        c
    }
}
