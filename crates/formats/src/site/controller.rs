use serde::{Deserialize, Serialize};
use thiserror::Error;
use upland_core::controller::{
    BaseMonth, Capability, Controller, ControllerError, MonthPlan, PercentScope, PercentStorage, Program,
    ProgramLetter, Station,
};
use upland_core::landscape::{Plant, Soil, Sprinkler, SprinklerType, Sun};
use upland_core::quantity::{MonthOfYear, OutOfRange, Percent, RateMmPerHour, RunTime};
use upland_core::word::{Word, WordError, dial_of, dial_word, plant_of, plant_word};

/// Why a document is no controller.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum DocError {
    /// Another version than this one.
    #[error("version {0} is not known here; version 1 is")]
    Version(u32),
    /// A word that is none of the allowed ones.
    #[error(transparent)]
    Word(#[from] WordError),
    /// A value outside its range.
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
    /// Not twelve months.
    #[error("a program has 12 months, not {0}")]
    Months(usize),
    /// A controller that cannot be.
    #[error(transparent)]
    Controller(#[from] ControllerError),
}

/// Percent range, step and reach.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MonthDoc {
    /// `computed`, `off` or a percent.
    pub dial: String,
    /// Waterings a week, where fewer than usual.
    pub waterings: Option<u8>,
}

/// A program.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
}

/// A station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
}

/// A controller with its programs and stations.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ControllerDoc {
    /// Version of the document.
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
        };
        controller.check()?;
        Ok(controller)
    }
}

fn letter(letter: char) -> Result<ProgramLetter, DocError> {
    ProgramLetter::new(letter).ok_or_else(|| WordError::Unknown { field: "program", value: letter.to_string() }.into())
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
            program: ProgramLetter::ALL[1],
            plant: Plant::Coefficient(Coefficient::new(0.34).unwrap()),
            sprinkler: Sprinkler { kind: SprinklerType::Drip, rate: RateMmPerHour::new(12.6).ok(), uniformity: None },
            soil: Soil::Sand,
            sun: Sun::HalfShade,
            roofed: true,
            area_m2: Some(42.0),
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
