use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::controller::{
    BaseMonth, Capability, Contact, Controller, DayModes, MonthPlan, PercentScope, PercentStorage, Preset, Program,
    Schedule, Station, Temporary,
};
use upland_core::landscape::{CycleSoak, Plant, Slope, Soil, Sprinkler, SprinklerType, Sun};
use upland_core::quantity::{MonthOfYear, Percent, RateMmPerHour, RunTime};
use upland_core::sensor::Sensor;
use upland_core::word::{Word, WordError, dial_of, dial_word, plant_of, plant_word};

use super::days::ScheduleDoc;
use super::error::{DocError, letter};
use super::sensor::{SensorDoc, TemporaryDoc};

/// Percent range, step and reach.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PercentDoc {
    /// Lowest.
    pub min: u16,
    /// Highest.
    pub max: u16,
    /// Step.
    pub step: u16,
    /// `by_month` or `single`.
    pub storage: String,
    /// `all_programs` or `each_program`.
    pub scope: String,
}

/// The decisions of one month.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct MonthDoc {
    /// `computed`, `off` or a percent.
    pub dial: String,
    /// Waterings a week, where fewer than usual.
    pub waterings: Option<u8>,
}

/// A program.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ProgramDoc {
    /// Letter, A to D.
    pub letter: char,
    /// Name.
    pub name: String,
    /// Waterings a week, where stated.
    pub waterings_per_week: Option<u8>,
    /// Whether rain is counted.
    pub count_rain: bool,
    /// Twelve months.
    pub months: Vec<MonthDoc>,
    /// Days and starts; none until they are chosen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub schedule: Option<ScheduleDoc>,
}

/// A station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct StationDoc {
    /// Terminal number.
    pub number: u8,
    /// Name.
    pub name: String,
    /// Program letter.
    pub program: char,
    /// Plant type, or `coefficient`.
    pub plant: String,
    /// Coefficient, where the plant is `coefficient`.
    pub coefficient: Option<f64>,
    /// Sprinkler type.
    pub sprinkler: String,
    /// Measured rate, mm/h.
    pub rate_mm_h: Option<f64>,
    /// Measured uniformity of the lowest quarter.
    pub uniformity: Option<f64>,
    /// Soil.
    pub soil: String,
    /// Sun.
    pub sun: String,
    /// Under a roof.
    pub roofed: bool,
    /// Area, m².
    pub area_m2: Option<f64>,
    /// `level`, `gentle`, `moderate` or `steep`: 0-3, 4-6, 7-12, over 12 %.
    #[serde(default = "level")]
    pub slope: String,
    /// Base run that was chosen, s; else it follows from what the station needs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub run_s: Option<u32>,
    /// Longest run at a time, s, where the panel has cycle and soak.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cycle_s: Option<u32>,
    /// Rest between two cycles, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub soak_s: Option<u32>,
    /// A second program that runs it too.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub also: Option<char>,
}

fn level() -> String {
    Slope::Level.word().to_owned()
}

const fn version() -> u32 {
    super::VERSION
}

/// What the panel can be set to beside minutes and percent.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct AbilityDoc {
    /// Programs, 1 to 4.
    pub programs: u8,
    /// Start times of each program.
    pub starts: u8,
    /// Step of a start time, min.
    pub start_step_min: u16,
    /// Whether it has odd and even days.
    pub odd_even: bool,
    /// Most days in "every N days"; 0 for none.
    pub every_max: u8,
    /// Whether single weekdays can be closed to every mode.
    pub never_days: bool,
    /// Whether it has cycle and soak.
    pub cycle_soak: bool,
    /// Longest pause between stations, s.
    pub station_delay_max_s: u32,
    /// Sensor inputs.
    pub sensor_inputs: u8,
    /// `normally_closed` or `normally_open`.
    pub contact: String,
    /// Longest rain delay, days.
    pub rain_delay_max: u8,
}

impl Default for AbilityDoc {
    fn default() -> Self {
        Self::from(&Preset::Plain.capability())
    }
}

impl From<&Capability> for AbilityDoc {
    fn from(k: &Capability) -> Self {
        Self {
            programs: k.programs,
            starts: k.starts,
            start_step_min: k.start_step,
            odd_even: k.day_modes.odd_even,
            every_max: k.day_modes.every_max,
            never_days: k.never_days,
            cycle_soak: k.cycle_soak,
            station_delay_max_s: k.station_delay_max.seconds(),
            sensor_inputs: k.sensor_inputs,
            contact: k.contact.word().into(),
            rain_delay_max: k.rain_delay_max,
        }
    }
}

/// A controller with its programs and stations.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ControllerDoc {
    /// Version of the document.
    #[serde(default = "version")]
    pub version: u32,
    /// Name.
    pub name: String,
    /// Terminals.
    pub station_count: u8,
    /// Percent.
    pub percent: PercentDoc,
    /// Run-time step, s.
    pub run_step_s: u32,
    /// Longest run, s.
    pub run_max_s: u32,
    /// Days a week on which it may water.
    pub watering_days: u8,
    /// Month in which base minutes run at 100 %; none for the peak.
    pub base_month: Option<u8>,
    /// Programs.
    pub programs: Vec<ProgramDoc>,
    /// Stations.
    pub stations: Vec<StationDoc>,
    /// What else the panel can be set to.
    #[serde(default)]
    pub ability: AbilityDoc,
    /// Pause between two stations, s.
    #[serde(default)]
    pub station_delay_s: u32,
    /// Sensors.
    #[serde(default)]
    pub sensors: Vec<SensorDoc>,
    /// What is set for a while.
    #[serde(default)]
    pub temporaries: Vec<TemporaryDoc>,
}

impl From<&Controller> for ControllerDoc {
    fn from(c: &Controller) -> Self {
        let k = &c.capability;
        Self {
            version: super::VERSION,
            name: c.name.clone(),
            station_count: k.stations,
            percent: PercentDoc {
                min: k.percent_min.get(),
                max: k.percent_max.get(),
                step: k.percent_step.get(),
                storage: k.percent_storage.word().into(),
                scope: k.percent_scope.word().into(),
            },
            run_step_s: k.run_step.seconds(),
            run_max_s: k.run_max.seconds(),
            watering_days: k.watering_days,
            base_month: match c.base_month {
                BaseMonth::Peak => None,
                BaseMonth::Month(month) => Some(month.number()),
            },
            programs: c.programs.iter().map(program_doc).collect(),
            stations: c.stations.iter().map(station_doc).collect(),
            ability: AbilityDoc::from(k),
            station_delay_s: c.station_delay.seconds(),
            sensors: c.sensors.iter().map(SensorDoc::from).collect(),
            temporaries: c.temporaries.iter().map(TemporaryDoc::from).collect(),
        }
    }
}

fn program_doc(p: &Program) -> ProgramDoc {
    ProgramDoc {
        letter: p.letter.get(),
        name: p.name.clone(),
        waterings_per_week: p.waterings_per_week,
        count_rain: p.count_rain,
        months: p.months.iter().map(|m| MonthDoc { dial: dial_word(m.dial), waterings: m.waterings }).collect(),
        schedule: (p.schedule != Schedule::default()).then(|| ScheduleDoc::from(&p.schedule)),
    }
}

fn station_doc(s: &Station) -> StationDoc {
    StationDoc {
        number: s.number,
        name: s.name.clone(),
        program: s.program.get(),
        plant: plant_word(s.plant).into(),
        coefficient: match s.plant {
            Plant::Coefficient(k) => Some(k.get()),
            _ => None,
        },
        sprinkler: s.sprinkler.kind.word().into(),
        rate_mm_h: s.sprinkler.rate.map(RateMmPerHour::get),
        uniformity: s.sprinkler.uniformity,
        soil: s.soil.word().into(),
        sun: s.sun.word().into(),
        roofed: s.roofed,
        area_m2: s.area_m2,
        slope: s.slope.word().into(),
        run_s: s.minutes.map(RunTime::seconds),
        cycle_s: s.cycle.map(|c| c.cycle.seconds()),
        soak_s: s.cycle.map(|c| c.soak.seconds()),
        also: s.also.map(|l| l.get()),
    }
}

impl TryFrom<&ControllerDoc> for Controller {
    type Error = DocError;

    fn try_from(doc: &ControllerDoc) -> Result<Self, DocError> {
        if doc.version != super::VERSION {
            return Err(DocError::Version(doc.version));
        }
        let controller = Self {
            name: doc.name.clone(),
            capability: Capability {
                stations: doc.station_count,
                percent_min: Percent::new(doc.percent.min)?,
                percent_max: Percent::new(doc.percent.max)?,
                percent_step: Percent::new(doc.percent.step)?,
                percent_storage: PercentStorage::of_word(&doc.percent.storage)?,
                percent_scope: PercentScope::of_word(&doc.percent.scope)?,
                run_step: RunTime::from_seconds(doc.run_step_s),
                run_max: RunTime::from_seconds(doc.run_max_s),
                watering_days: doc.watering_days,
                programs: doc.ability.programs,
                starts: doc.ability.starts,
                start_step: doc.ability.start_step_min,
                day_modes: DayModes { odd_even: doc.ability.odd_even, every_max: doc.ability.every_max },
                never_days: doc.ability.never_days,
                cycle_soak: doc.ability.cycle_soak,
                station_delay_max: RunTime::from_seconds(doc.ability.station_delay_max_s),
                sensor_inputs: doc.ability.sensor_inputs,
                contact: Contact::of_word(&doc.ability.contact)?,
                rain_delay_max: doc.ability.rain_delay_max,
            },
            base_month: match doc.base_month {
                None => BaseMonth::Peak,
                Some(number) => BaseMonth::Month(
                    MonthOfYear::new(number)
                        .ok_or_else(|| WordError::Unknown { field: "base_month", value: number.to_string() })?,
                ),
            },
            programs: doc.programs.iter().map(program).collect::<Result<_, _>>()?,
            stations: doc.stations.iter().map(station).collect::<Result<_, _>>()?,
            station_delay: RunTime::from_seconds(doc.station_delay_s),
            sensors: doc.sensors.iter().map(Sensor::try_from).collect::<Result<_, _>>()?,
            temporaries: doc.temporaries.iter().map(Temporary::try_from).collect::<Result<_, _>>()?,
        };
        controller.check()?;
        Ok(controller)
    }
}

fn program(doc: &ProgramDoc) -> Result<Program, DocError> {
    let plans: Vec<MonthPlan> = doc
        .months
        .iter()
        .map(|m| Ok(MonthPlan { dial: dial_of(&m.dial)?, waterings: m.waterings }))
        .collect::<Result<_, DocError>>()?;
    Ok(Program {
        letter: letter(doc.letter)?,
        name: doc.name.clone(),
        waterings_per_week: doc.waterings_per_week,
        count_rain: doc.count_rain,
        months: plans.try_into().map_err(|_| DocError::Months(doc.months.len()))?,
        schedule: doc.schedule.as_ref().map(Schedule::try_from).transpose()?.unwrap_or_default(),
    })
}

fn station(doc: &StationDoc) -> Result<Station, DocError> {
    Ok(Station {
        number: doc.number,
        name: doc.name.clone(),
        program: letter(doc.program)?,
        plant: plant_of(&doc.plant, doc.coefficient)?,
        sprinkler: Sprinkler {
            kind: SprinklerType::of_word(&doc.sprinkler)?,
            rate: doc.rate_mm_h.map(RateMmPerHour::new).transpose()?,
            uniformity: doc.uniformity,
        },
        soil: Soil::of_word(&doc.soil)?,
        sun: Sun::of_word(&doc.sun)?,
        roofed: doc.roofed,
        area_m2: doc.area_m2,
        slope: Slope::of_word(&doc.slope)?,
        minutes: doc.run_s.map(RunTime::from_seconds),
        cycle: doc.cycle_s.map(|cycle| CycleSoak {
            cycle: RunTime::from_seconds(cycle),
            soak: RunTime::from_seconds(doc.soak_s.unwrap_or(0)),
        }),
        also: doc.also.map(letter).transpose()?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::controller::{MonthDial, Preset};
    use upland_core::quantity::Coefficient;

    fn controller() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Fine.capability());
        c.stations = vec![Station {
            number: 3,
            name: "Steps bank".into(),
            program: upland_core::controller::ProgramLetter::ALL[1],
            plant: Plant::Coefficient(Coefficient::new(0.34).unwrap()),
            sprinkler: Sprinkler { kind: SprinklerType::Drip, rate: RateMmPerHour::new(12.6).ok(), uniformity: None },
            soil: Soil::Sand,
            sun: Sun::HalfShade,
            roofed: true,
            area_m2: Some(42.0),
            slope: Slope::Moderate,
            minutes: RunTime::from_minutes(22.0).ok(),
            cycle: Some(CycleSoak { cycle: RunTime::from_seconds(480), soak: RunTime::from_seconds(2700) }),
            also: None,
        }];
        c.settle_programs();
        c.programs[0].months[2].dial = MonthDial::Set(Percent::new(31).unwrap());
        c.programs[0].months[11].dial = MonthDial::Off;
        c
    }

    #[test]
    fn there_and_back_is_the_same() {
        let json = serde_json::to_string(&ControllerDoc::from(&controller())).unwrap();
        let doc: ControllerDoc = serde_json::from_str(&json).unwrap();
        assert_eq!(Controller::try_from(&doc).unwrap(), controller());
    }

    #[test]
    fn other_versions_unknown_words_and_unknown_fields_are_refused() {
        let mut doc = ControllerDoc::from(&controller());
        doc.version = 2;
        assert_eq!(Controller::try_from(&doc), Err(DocError::Version(2)));
        let mut doc = ControllerDoc::from(&controller());
        doc.stations[0].soil = "peat".into();
        assert!(matches!(Controller::try_from(&doc), Err(DocError::Word(WordError::Unknown { field: "soil", .. }))));
        let mut value = serde_json::to_value(ControllerDoc::from(&controller())).unwrap();
        value["colour"] = "blue".into();
        assert!(serde_json::from_value::<ControllerDoc>(value).is_err());
    }
}
