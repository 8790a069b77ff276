use thiserror::Error;

use super::capability::{Capability, CapabilityError};
use crate::landscape::{Plant, Soil, Sprinkler, Sun};
use crate::quantity::{MonthOfYear, OutOfRange, Percent, range};

/// A program's letter, A to D.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct ProgramLetter(char);

impl ProgramLetter {
    /// The four letters, in the order of the panel.
    pub const ALL: [Self; 4] = [Self('A'), Self('B'), Self('C'), Self('D')];
    /// The first program.
    pub const A: Self = Self('A');

    /// Reads a letter, in either case.
    #[must_use]
    pub fn new(letter: char) -> Option<Self> {
        let upper = letter.to_ascii_uppercase();
        ('A'..='D').contains(&upper).then_some(Self(upper))
    }

    /// The letter.
    #[must_use]
    pub const fn get(self) -> char {
        self.0
    }
}

/// The month in which base minutes run at 100 %.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum BaseMonth {
    /// Whichever month needs most.
    #[default]
    Peak,
    /// A stated month, as when the base was set in spring.
    Month(MonthOfYear),
}

/// What is dialled for a month.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum MonthDial {
    /// What the weather calls for, to the nearest step.
    #[default]
    Computed,
    /// No watering.
    Off,
    /// A percent that the technician chose.
    Set(Percent),
}

/// The technician's decisions for one month of a program.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct MonthPlan {
    /// What is dialled.
    pub dial: MonthDial,
    /// Waterings a week in this month, where they are fewer than in the base month.
    pub waterings: Option<u8>,
}

/// Stations that share days, starts and percent.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Program {
    /// Its letter.
    pub letter: ProgramLetter,
    /// What it waters, in a word or two; may be empty.
    pub name: String,
    /// Waterings a week, where the technician chose them; else they follow from soil and plant.
    pub waterings_per_week: Option<u8>,
    /// Whether rain is counted against the demand.
    pub count_rain: bool,
    /// The twelve months, January first.
    pub months: [MonthPlan; 12],
}

impl Program {
    /// A program as the tool proposes it: rain counted, waterings and percents computed.
    #[must_use]
    pub fn proposed(letter: ProgramLetter) -> Self {
        Self {
            letter,
            name: String::new(),
            waterings_per_week: None,
            count_rain: true,
            months: [MonthPlan::default(); 12],
        }
    }
}

/// One station: a valve and what it waters.
#[derive(Debug, Clone, PartialEq)]
pub struct Station {
    /// Terminal number on the controller, from 1.
    pub number: u8,
    /// Its name.
    pub name: String,
    /// The program that runs it.
    pub program: ProgramLetter,
    /// What grows there.
    pub plant: Plant,
    /// What waters it.
    pub sprinkler: Sprinkler,
    /// On what soil.
    pub soil: Soil,
    /// In what sun.
    pub sun: Sun,
    /// Under a roof, where rain never reaches.
    pub roofed: bool,
    /// Watered area, m², where it is known.
    pub area_m2: Option<f64>,
}

/// A controller with its programs and stations: what is saved, versioned and undone as one.
#[derive(Debug, Clone, PartialEq)]
pub struct Controller {
    /// Its name, usually where it hangs.
    pub name: String,
    /// What it can be set to.
    pub capability: Capability,
    /// The month in which base minutes run at 100 %.
    pub base_month: BaseMonth,
    /// Programs in use, by letter.
    pub programs: Vec<Program>,
    /// Stations in use, by number.
    pub stations: Vec<Station>,
}

/// Longest name of anything, in characters.
pub(super) const NAME_MAX: usize = 60;

/// Why a controller cannot be as it was entered.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum ControllerError {
    /// The name is missing or too long.
    #[error("a name has 1 to 60 characters")]
    Name,
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
    /// A station's value is out of range.
    #[error("station {number}: {error}")]
    Station {
        /// The station's number.
        number: u8,
        /// What is wrong.
        error: OutOfRange,
    },
    /// A station's name is missing or too long.
    #[error("station {0}: a name has 1 to 60 characters")]
    StationName(u8),
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
}

/// Whether a name can be: 1 to 60 characters, none of them a control character.
#[must_use]
pub fn name_is_sound(name: &str) -> bool {
    let count = name.trim().chars().count();
    (1..=NAME_MAX).contains(&count) && !name.chars().any(char::is_control)
}

impl Controller {
    /// A new controller without stations.
    #[must_use]
    pub fn new(name: String, capability: Capability) -> Self {
        Self {
            name,
            capability,
            base_month: BaseMonth::Peak,
            programs: vec![Program::proposed(ProgramLetter::A)],
            stations: Vec::new(),
        }
    }

    /// The program with this letter.
    #[must_use]
    pub fn program(&self, letter: ProgramLetter) -> Option<&Program> {
        self.programs.iter().find(|p| p.letter == letter)
    }

    /// Adds the programs that stations name and that are not there yet, drops unused ones that
    /// hold no decision, and puts programs and stations in order.
    pub fn settle_programs(&mut self) {
        for letter in ProgramLetter::ALL {
            let used = self.stations.iter().any(|s| s.program == letter);
            if used && self.program(letter).is_none() {
                self.programs.push(Program::proposed(letter));
            }
            let keep_first = letter == ProgramLetter::A && self.stations.is_empty();
            if !used && !keep_first {
                self.programs.retain(|p| p.letter != letter || *p != Program::proposed(letter));
            }
        }
        if self.programs.is_empty() {
            self.programs.push(Program::proposed(ProgramLetter::A));
        }
        self.programs.sort_by_key(|p| p.letter);
        self.stations.sort_by_key(|s| s.number);
    }

    /// Whether the controller can be as it stands.
    ///
    /// # Errors
    /// [`ControllerError`] for the first thing that cannot be; nothing is changed.
    pub fn check(&self) -> Result<(), ControllerError> {
        if !name_is_sound(&self.name) {
            return Err(ControllerError::Name);
        }
        self.capability.checked()?;
        for (index, station) in self.stations.iter().enumerate() {
            if self.stations[..index].iter().any(|s| s.number == station.number) {
                return Err(ControllerError::StationTwice(station.number));
            }
            self.check_station(station)?;
        }
        for (index, program) in self.programs.iter().enumerate() {
            if self.programs[..index].iter().any(|p| p.letter == program.letter) {
                return Err(ControllerError::ProgramTwice(program.letter));
            }
            self.check_program(program)?;
        }
        Ok(())
    }

    fn check_station(&self, station: &Station) -> Result<(), ControllerError> {
        let number = station.number;
        if !(1..=self.capability.stations).contains(&number) {
            return Err(ControllerError::NoSuchTerminal { number, stations: self.capability.stations });
        }
        if !name_is_sound(&station.name) {
            return Err(ControllerError::StationName(number));
        }
        if self.program(station.program).is_none() {
            return Err(ControllerError::NoSuchProgram { number, letter: station.program });
        }
        let checks = [
            station.area_m2.map(|a| range::AREA.check(a)),
            station.sprinkler.uniformity.map(|u| range::UNIFORMITY.check(u)),
        ];
        match checks.into_iter().flatten().find_map(Result::err) {
            Some(error) => Err(ControllerError::Station { number, error }),
            None => Ok(()),
        }
    }

    fn check_program(&self, program: &Program) -> Result<(), ControllerError> {
        let c = &self.capability;
        let letter = program.letter;
        let waterings = program.months.iter().filter_map(|m| m.waterings).chain(program.waterings_per_week);
        if let Some(waterings) = waterings.into_iter().find(|w| !(1..=c.watering_days).contains(w)) {
            return Err(ControllerError::TooManyWaterings { letter, waterings, allowed: c.watering_days });
        }
        for (month, plan) in MonthOfYear::ALL.into_iter().zip(&program.months) {
            if let MonthDial::Set(percent) = plan.dial
                && !c.can_dial(percent)
            {
                let (step, min, max) = (c.percent_step.get(), c.percent_min.get(), c.percent_max.get());
                return Err(ControllerError::CannotDial { letter, month, percent, step, min, max });
            }
        }
        Ok(())
    }
}
