use chrono::NaiveDate;

use super::capability::Capability;
use super::days::Schedule;
use super::errors::RootZoneError;
use super::letter::ProgramLetter;
use super::temporary::Temporary;
use crate::balance::RootZone;
use crate::field::check_text;
use crate::landscape::{
    CycleSoak, Exposure, Plant, Planting, Provenance, Runoff, Slope, Soil, Sprinkler, SprinklerType, runoff,
};
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

    /// Whether the technician chose a percent for any month.
    #[must_use]
    pub fn has_percent_by_hand(&self) -> bool {
        self.months.iter().any(|m| matches!(m.dial, MonthDial::Set(_)))
    }
}

/// What somebody measured or knows of a station's root zone, in place of the tables.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct StatedRootZone {
    /// Water content at field capacity, m³/m³; with a wilting point, or neither.
    pub field_capacity: Option<f64>,
    /// Water content at wilting point, m³/m³.
    pub wilting_point: Option<f64>,
    /// Depth of the watered roots, m.
    pub root_depth_m: Option<f64>,
    /// Share p of the available water that may be used before watering.
    pub p: Option<f64>,
    /// Water missing to field capacity when a replay begins, mm; 0 unless stated.
    pub depletion_start_mm: Option<f64>,
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
    /// What else is known of that planting.
    pub planting: Planting,
    /// What waters it.
    pub sprinkler: Sprinkler,
    /// On what soil.
    pub soil: Soil,
    /// In what sun, shade and wind.
    pub exposure: Exposure,
    /// Microclimate factor that somebody states, in place of that of the exposure.
    pub microclimate: Option<f64>,
    /// Under a roof, where rain never reaches.
    pub roofed: bool,
    /// What is stated of its root zone; the rest follows from soil and plant.
    pub root_zone: StatedRootZone,
    /// Watered area, m², where it is known.
    pub area_m2: Option<f64>,
    /// How steep.
    pub slope: Slope,
    /// Trim of its demand for what the other fields do not tell, %: -30 to 30.
    pub trim_pct: f64,
    /// Base minutes that the technician chose; else they follow from what it needs.
    pub minutes: Option<RunTime>,
    /// Cycle and soak set on the panel, where it has them.
    pub cycle: Option<CycleSoak>,
    /// A second program that runs it too, as a panel may hold by mistake.
    pub also: Option<ProgramLetter>,
}

impl Station {
    /// Coefficient of what grows there in a month, before sun and shade, and how it is known.
    ///
    /// A mixed station goes by the thirstier of two plants that fill about half of it each (common practice).
    #[must_use]
    pub fn plant_coefficient(&self, month: MonthOfYear) -> (f64, Provenance) {
        if let Some(by_month) = self.planting.by_month {
            return (by_month[month.index()].get(), Provenance::Measured);
        }
        let own = self.plant.coefficient(&self.planting);
        match self.coefficient_beside() {
            Some(beside) if beside.0 > own.0 => beside,
            _ => own,
        }
    }

    /// The coefficient of the plant that shares the station, of usual need and cover.
    #[must_use]
    pub fn coefficient_beside(&self) -> Option<(f64, Provenance)> {
        self.planting.beside.map(|plant| plant.coefficient(&Planting::default()))
    }

    /// Microclimate factor, and how it is known.
    #[must_use]
    pub fn microclimate_factor(&self) -> (f64, Provenance) {
        let by_exposure = (self.exposure.factor(), Provenance::Table);
        self.microclimate.map_or(by_exposure, |factor| (factor, Provenance::Measured))
    }

    /// K_L, the landscape coefficient in a month: that of the plants times that of the microclimate, trimmed.
    ///
    /// `K_L = k_plant k_microclimate (1 + trim / 100)`. Source: \[LCM-2000\]; the trim is ours.
    #[must_use]
    pub fn landscape_coefficient(&self, month: MonthOfYear) -> f64 {
        self.plant_coefficient(month).0 * self.microclimate_factor().0 * (1.0 + self.trim_pct / 100.0)
    }

    /// K_L of the twelve months, January first.
    #[must_use]
    pub fn landscape_coefficients(&self) -> [f64; 12] {
        MonthOfYear::ALL.map(|month| self.landscape_coefficient(month))
    }

    /// Available water of its soil, mm per m of depth, and how it is known.
    ///
    /// `1000 (theta_FC - theta_WP)` where both are stated. Source: \[FAO-56\] eq. 82. Of a bare surface what
    /// evaporates, `1000 (theta_FC - 0.5 theta_WP)`; eq. 73.
    #[must_use]
    pub fn available_water_mm_per_m(&self) -> (f64, Provenance) {
        let bare = self.plant == Plant::Bare;
        match (self.root_zone.field_capacity, self.root_zone.wilting_point) {
            (Some(fc), Some(wp)) => {
                let unused = if bare { 0.5 * wp } else { wp };
                (1000.0 * (fc - unused), Provenance::Measured)
            }
            _ if bare => (self.soil.evaporable_mm()[0] / Plant::Bare.root_depth_m(), Provenance::Table),
            _ => (self.soil.available_water_mm_per_m(), Provenance::Table),
        }
    }

    /// Depth of its watered roots, m, and how it is known. Of two plants the shallower rules.
    #[must_use]
    pub fn root_depth_m(&self) -> (f64, Provenance) {
        let of = |plant: Plant| plant.root_depth_m();
        let depth = self.planting.beside.map_or(of(self.plant), |beside| of(self.plant).min(of(beside)));
        // A surface has no roots that grow.
        let share = if self.plant == Plant::Bare { 1.0 } else { self.planting.maturity.root_share() };
        let guessed = (depth * share, Provenance::Guessed);
        self.root_zone.root_depth_m.map_or(guessed, |depth| (depth, Provenance::Measured))
    }

    /// Share p of the available water that may be used, and how it is known; of a bare surface the part that
    /// evaporates at the full rate, REW / TEW (\[FAO-56\] eq. 74).
    #[must_use]
    pub fn depletion_share(&self) -> (f64, Provenance) {
        let [total, readily] = self.soil.evaporable_mm();
        let table = if self.plant == Plant::Bare { readily / total } else { self.plant.depletion_share() };
        self.root_zone.p.map_or((table, Provenance::Table), |p| (p, Provenance::Measured))
    }

    /// The store that its plants draw on.
    #[must_use]
    pub fn zone(&self) -> RootZone {
        RootZone::new(self.available_water_mm_per_m().0, self.root_depth_m().0, self.depletion_share().0)
    }

    /// A station as it is before anything is known of it: loam, level, in the open, in program A.
    #[must_use]
    pub fn plain(number: u8, name: &str, plant: Plant, kind: SprinklerType) -> Self {
        Self {
            number,
            name: name.to_owned(),
            program: ProgramLetter::A,
            plant,
            planting: Planting::default(),
            sprinkler: Sprinkler { kind, rate: None, uniformity: None },
            soil: Soil::default(),
            exposure: Exposure::default(),
            microclimate: None,
            roofed: false,
            root_zone: StatedRootZone::default(),
            area_m2: None,
            slope: Slope::default(),
            trim_pct: 0.0,
            minutes: None,
            cycle: None,
            also: None,
        }
    }

    /// Whether what is stated of its root zone fits together.
    ///
    /// # Errors
    /// [`RootZoneError`] for the first thing that does not.
    pub fn check_root_zone(&self) -> Result<(), RootZoneError> {
        match (self.root_zone.field_capacity, self.root_zone.wilting_point) {
            (Some(_), None) | (None, Some(_)) => return Err(RootZoneError::Half),
            (Some(fc), Some(wp)) if fc <= wp => return Err(RootZoneError::Reversed),
            _ => {}
        }
        let start = self.root_zone.depletion_start_mm.unwrap_or(0.0);
        if start > self.zone().taw_mm + 1e-9 { Err(RootZoneError::Start) } else { Ok(()) }
    }

    /// Whether a program runs it.
    #[must_use]
    pub fn runs_in(&self, letter: ProgramLetter) -> bool {
        self.program == letter || self.also == Some(letter)
    }

    /// How long it may run before water runs off, and how long it soaks in; no limit where the surface is not
    /// wetted as a whole.
    #[must_use]
    pub fn runoff(&self) -> Runoff {
        let found = runoff(self.soil, self.slope, self.sprinkler.rate_mm_per_hour().0);
        if self.sprinkler.kind.wets_the_surface() { found } else { Runoff { longest_minutes: None, ..found } }
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
    fn a_trim_scales_the_coefficient() {
        let plain = Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray);
        let trimmed = Station { trim_pct: -10.0, ..plain.clone() };
        let may = MonthOfYear::ALL[4];
        assert!((trimmed.landscape_coefficient(may) - 0.9 * plain.landscape_coefficient(may)).abs() < 1e-12);
    }

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
