use thiserror::Error;

use super::capability::{Capability, CapabilityError};
use super::days::{DayMode, Schedule};
use super::temporary::{Temporary, TemporaryKind};
use crate::landscape::{CycleSoak, Plant, Runoff, Slope, Soil, Sprinkler, SprinklerType, Sun, runoff};
use crate::quantity::{MonthOfYear, OutOfRange, Percent, RunTime, range};
use crate::sensor::{Sensor, SensorError, SensorKind};

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

    /// Its place among the letters, 0 to 3.
    #[must_use]
    pub const fn index(self) -> usize {
        self.0 as usize - 'A' as usize
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
    /// Days and starts; empty until they are chosen.
    pub schedule: Schedule,
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
            schedule: Schedule::default(),
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
    /// How steep.
    pub slope: Slope,
    /// Base minutes that the technician chose; else they follow from what it needs.
    pub minutes: Option<RunTime>,
    /// Cycle and soak set on the panel, where it has them.
    pub cycle: Option<CycleSoak>,
    /// A second program that runs it too, as a panel may hold by mistake.
    pub also: Option<ProgramLetter>,
}

impl Station {
    /// K_L, the landscape coefficient: that of the plants times that of sun and shade.
    #[must_use]
    pub fn landscape_coefficient(&self) -> f64 {
        self.plant.coefficient().0 * self.sun.factor()
    }

    /// A station as it is before anything is known of it: loam, level, in the open, in program A.
    #[must_use]
    pub fn plain(number: u8, name: &str, plant: Plant, kind: SprinklerType) -> Self {
        Self {
            number,
            name: name.to_owned(),
            program: ProgramLetter::A,
            plant,
            sprinkler: Sprinkler { kind, rate: None, uniformity: None },
            soil: Soil::default(),
            sun: Sun::default(),
            roofed: false,
            area_m2: None,
            slope: Slope::default(),
            minutes: None,
            cycle: None,
            also: None,
        }
    }

    /// Whether a program runs it.
    #[must_use]
    pub fn runs_in(&self, letter: ProgramLetter) -> bool {
        self.program == letter || self.also == Some(letter)
    }

    /// How long it may run before water runs off, and how long it soaks in.
    #[must_use]
    pub fn runoff(&self) -> Runoff {
        runoff(self.soil, self.slope, self.sprinkler.rate_mm_per_hour().0)
    }
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
    /// Pause between two stations.
    pub station_delay: RunTime,
    /// Sensors, in the order in which they were put on.
    pub sensors: Vec<Sensor>,
    /// What is set for a while: each has a reason and an end.
    pub temporaries: Vec<Temporary>,
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
    /// A pause between stations that this controller cannot be set to.
    #[error("a pause between stations of up to {0} s")]
    StationDelay(u32),
    /// A sensor that cannot be.
    #[error("sensor {number}: {error}")]
    Sensor {
        /// Its place in the list, from 1.
        number: u8,
        /// What is wrong.
        error: SensorError,
    },
    /// Something temporary that cannot be.
    #[error("temporary setting {number}: {what}")]
    Temporary {
        /// Its place in the list, from 1.
        number: u8,
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
    /// A cycle of no length.
    #[error("a cycle is longer than nothing, a soak is up to 24 h")]
    Cycle,
    /// The second program is the first one.
    #[error("it runs in this program already")]
    AlsoSame,
}

/// Why something temporary cannot be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum TemporaryError {
    /// No reason, or too long a one.
    #[error("it needs a reason of 1 to 200 characters")]
    Reason,
    /// It ends before it begins, or in more than a year.
    #[error("it ends on or after the day it begins, within a year")]
    End,
    /// A percent that cannot be dialled.
    #[error("the percent cannot be dialled")]
    Percent,
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
            station_delay: RunTime::ZERO,
            sensors: Vec::new(),
            temporaries: Vec::new(),
        }
    }

    /// The program with this letter, to be changed.
    pub fn program_mut(&mut self, letter: ProgramLetter) -> Option<&mut Program> {
        self.programs.iter_mut().find(|p| p.letter == letter)
    }

    /// The station with this number.
    #[must_use]
    pub fn station(&self, number: u8) -> Option<&Station> {
        self.stations.iter().find(|s| s.number == number)
    }

    /// The station with this number, to be changed.
    pub fn station_mut(&mut self, number: u8) -> Option<&mut Station> {
        self.stations.iter_mut().find(|s| s.number == number)
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
            let used = self.stations.iter().any(|s| s.runs_in(letter));
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
        for sensor in &mut self.sensors {
            let stations = &self.stations;
            sensor.exempt.retain(|n| stations.iter().any(|s| s.number == *n));
        }
    }

    /// Whether an ET sensor sets a program's percent every night, so that nobody dials it by month.
    #[must_use]
    pub fn percent_by_sensor(&self, letter: ProgramLetter) -> bool {
        self.sensors.iter().any(|s| matches!(&s.kind, SensorKind::Et { programs, .. } if programs.contains(&letter)))
    }

    /// Takes a sensor away, its bypass with it.
    pub fn remove_sensor(&mut self, index: usize) {
        if index >= self.sensors.len() {
            return;
        }
        self.sensors.remove(index);
        self.temporaries.retain_mut(|t| match &mut t.kind {
            TemporaryKind::Bypass { sensor } if usize::from(*sensor) == index => false,
            TemporaryKind::Bypass { sensor } => {
                *sensor -= u8::from(usize::from(*sensor) > index);
                true
            }
            _ => true,
        });
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
            self.check_schedule(program)?;
        }
        if self.station_delay > self.capability.station_delay_max {
            return Err(ControllerError::StationDelay(self.capability.station_delay_max.seconds()));
        }
        for (number, sensor) in (1u8..).zip(&self.sensors) {
            sensor.check(self).map_err(|error| ControllerError::Sensor { number, error })?;
        }
        for (number, temporary) in (1u8..).zip(&self.temporaries) {
            self.check_temporary(temporary).map_err(|what| ControllerError::Temporary { number, what })?;
        }
        Ok(())
    }

    fn check_schedule(&self, program: &Program) -> Result<(), ControllerError> {
        let c = &self.capability;
        let letter = program.letter;
        if letter.index() >= usize::from(c.programs) {
            return Err(ControllerError::NoSuchLetter { letter, programs: c.programs });
        }
        let s = &program.schedule;
        let sorted = s.starts.windows(2).all(|pair| pair[0] < pair[1]);
        let what = if s.starts.len() > usize::from(c.starts) {
            Some(ScheduleError::TooManyStarts { starts: s.starts.len(), allowed: c.starts })
        } else if s.starts.iter().any(|t| !t.is_on(c.start_step)) {
            Some(ScheduleError::StartStep(c.start_step))
        } else if !sorted {
            Some(ScheduleError::StartTwice)
        } else if !(1..=c.starts).contains(&s.split) {
            Some(ScheduleError::Split(c.starts))
        } else if !s.never.is_empty() && !c.never_days {
            Some(ScheduleError::NeverDays)
        } else {
            match s.days {
                DayMode::Odd | DayMode::Even if !c.day_modes.odd_even => Some(ScheduleError::DayMode),
                DayMode::Every { .. } if c.day_modes.every_max == 0 => Some(ScheduleError::DayMode),
                DayMode::Every { days, .. } if !(1..=c.day_modes.every_max).contains(&days) => {
                    Some(ScheduleError::Every(c.day_modes.every_max))
                }
                _ => None,
            }
        };
        what.map_or(Ok(()), |what| Err(ControllerError::Schedule { letter, what }))
    }

    fn check_run(&self, station: &Station) -> Option<RunError> {
        let c = &self.capability;
        let step = c.run_step.seconds().max(1);
        let set = station.minutes.into_iter().chain(station.cycle.map(|c| c.cycle));
        for run in set {
            if run > c.run_max {
                return Some(RunError::TooLong(c.run_max.seconds() / 60));
            }
            if !run.seconds().is_multiple_of(step) {
                return Some(RunError::Step(step));
            }
        }
        match station.cycle {
            Some(_) if !c.cycle_soak => Some(RunError::NoCycles),
            Some(set) if set.cycle == RunTime::ZERO => Some(RunError::Cycle),
            _ if station.also == Some(station.program) => Some(RunError::AlsoSame),
            _ => None,
        }
    }

    fn check_temporary(&self, temporary: &Temporary) -> Result<(), TemporaryError> {
        let reason = temporary.reason.trim().chars().count();
        if !(1..=200).contains(&reason) || temporary.reason.chars().any(char::is_control) {
            return Err(TemporaryError::Reason);
        }
        let days = (temporary.until - temporary.since).num_days();
        if !(0..=366).contains(&days) {
            return Err(TemporaryError::End);
        }
        match temporary.kind {
            TemporaryKind::Percent { percent, .. } if !self.capability.can_dial(percent) => {
                Err(TemporaryError::Percent)
            }
            TemporaryKind::Percent { letter: Some(letter), .. } if self.program(letter).is_none() => {
                Err(TemporaryError::Program)
            }
            TemporaryKind::RainDelay if days + 1 > i64::from(self.capability.rain_delay_max) => {
                Err(TemporaryError::RainDelay(self.capability.rain_delay_max))
            }
            TemporaryKind::Bypass { sensor } if usize::from(sensor) >= self.sensors.len() => {
                Err(TemporaryError::Sensor)
            }
            _ => Ok(()),
        }
    }

    fn check_station(&self, station: &Station) -> Result<(), ControllerError> {
        let number = station.number;
        if !(1..=self.capability.stations).contains(&number) {
            return Err(ControllerError::NoSuchTerminal { number, stations: self.capability.stations });
        }
        if !name_is_sound(&station.name) {
            return Err(ControllerError::StationName(number));
        }
        for letter in std::iter::once(station.program).chain(station.also) {
            if self.program(letter).is_none() {
                return Err(ControllerError::NoSuchProgram { number, letter });
            }
        }
        if let Some(what) = self.check_run(station) {
            return Err(ControllerError::Run { number, what });
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
