use chrono::NaiveDate;

use super::capability::Capability;
use super::days::Schedule;
use super::hours::Hours;
use super::letter::ProgramLetter;
use super::station::Station;
use super::temporary::Temporary;
use crate::field::check_text;
use crate::quantity::{MonthOfYear, Percent, RunTime, limit};
use crate::sensor::Sensor;

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
    /// Whether a person starts each of its runs, so that the panel has no start for it.
    pub by_hand: bool,
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
            by_hand: false,
            months: [MonthPlan::default(); 12],
            schedule: Schedule::default(),
        }
    }

    /// Gives it days and starts. One that has a start is not watered by hand any more.
    pub fn take_schedule(&mut self, schedule: Schedule) {
        self.by_hand &= schedule.starts.is_empty();
        self.schedule = schedule;
    }

    /// Hands it to a person who starts each run: the panel keeps neither days nor starts.
    pub fn hand_over(&mut self) {
        self.take_schedule(Schedule::default());
        self.by_hand = true;
    }

    /// Whether it is known how it waters: by its days and starts, or by a person.
    #[must_use]
    pub fn is_scheduled(&self) -> bool {
        self.by_hand || !self.schedule.is_idle()
    }

    /// Whether the technician chose a percent for any month.
    #[must_use]
    pub fn has_percent_by_hand(&self) -> bool {
        self.months.iter().any(|m| matches!(m.dial, MonthDial::Set(_)))
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
    /// Water windows that the panel is set to, every day the same: outside of them it makes no start and ends what
    /// runs. None for all of the day.
    pub windows: Vec<Hours>,
    /// Sensors, in the order in which they were put on.
    pub sensors: Vec<Sensor>,
    /// What is set for a while: each has a reason and an end.
    pub temporaries: Vec<Temporary>,
}

/// Whether a name of anything is valid: 1 to 60 characters, none of them a control character.
#[must_use]
pub fn name_is_valid(name: &str) -> bool {
    check_text(name, 1, limit::NAME).is_ok()
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
            windows: Vec::new(),
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

    /// The programs that run a station of their own, by letter.
    pub fn programs_with_stations(&self) -> impl Iterator<Item = &Program> {
        self.programs.iter().filter(|p| self.stations.iter().any(|s| s.program == p.letter))
    }

    /// Adds the programs that stations name and that are not there yet, drops unused ones that
    /// hold no decision, and puts programs and stations in order.
    pub fn normalise_programs(&mut self) {
        for letter in ProgramLetter::ALL {
            let used = self.stations.iter().any(|s| s.runs_in(letter));
            if used && self.program(letter).is_none() {
                let count_rain = !self.rain_is_sensed(letter);
                self.programs.push(Program { count_rain, ..Program::proposed(letter) });
            }
            let keep_first = letter == ProgramLetter::A && self.stations.is_empty();
            if !used && !keep_first {
                let undecided = |p: &Program| Program { count_rain: true, ..p.clone() } == Program::proposed(letter);
                self.programs.retain(|p| p.letter != letter || !undecided(p));
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

    /// The controller as a day knows it: what is over by then and was not put back goes on, whatever date is
    /// asked about.
    #[must_use]
    pub fn as_of(mut self, today: NaiveDate) -> Self {
        for temporary in &mut self.temporaries {
            temporary.left_standing = temporary.is_put_back_by_hand() && temporary.is_over(today);
        }
        self
    }

    /// Adds a temporary setting under an id that no other has, and gives that id.
    pub fn add_temporary(&mut self, temporary: Temporary) -> u16 {
        let id = next_id(self.temporaries.iter().map(|t| t.id));
        self.temporaries.push(Temporary { id, left_standing: false, ..temporary });
        id
    }
}

/// One more than the highest id in use.
pub(super) fn next_id(used: impl Iterator<Item = u16>) -> u16 {
    used.max().unwrap_or(0).saturating_add(1)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::TemporaryKind;
    use crate::sensor::SensorKind;

    #[test]
    fn ids_of_sensors_are_their_own_and_a_bypass_goes_with_its_sensor() {
        let mut c = Controller::new("Cabinet".into(), crate::controller::Preset::Fine.capability());
        let sensor = Sensor::proposed(SensorKind::common_rain(), "Shed", &c);
        let (first, second) = (c.add_sensor(sensor.clone()), c.add_sensor(sensor));
        let day = chrono::NaiveDate::from_ymd_opt(2026, 6, 1).unwrap();
        for sensor in [first, second] {
            let kind = TemporaryKind::Bypass { sensor };
            c.add_temporary(Temporary {
                id: 0,
                kind,
                since: day,
                until: day,
                reason: "Seed".into(),
                by: "Oda".into(),
                left_standing: false,
            });
        }
        assert_eq!(c.check(), Ok(()));
        c.remove_sensor(first);
        assert_eq!((c.sensors.len(), c.sensors[0].id, c.temporaries.len()), (1, second, 1));
        assert_eq!(c.check(), Ok(()));
    }
}
