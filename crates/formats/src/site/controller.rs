use serde::{Deserialize, Serialize};
use thiserror::Error;
use upland_core::controller::{
    BaseMonth, Capability, Controller, ControllerError, MonthDial, MonthPlan, PercentScope, PercentStorage, Program,
    ProgramLetter, Station,
};
use upland_core::landscape::{Plant, Soil, Sprinkler, SprinklerType, Sun};
use upland_core::quantity::{Coefficient, MonthOfYear, OutOfRange, Percent, RateMmPerHour, RunTime};

/// Why a document is no controller.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum DocError {
    /// Another version than this one.
    #[error("version {0} is not known here; version 1 is")]
    Version(u32),
    /// A word that is none of the allowed ones.
    #[error("{field}: {value:?} is not known")]
    Word {
        /// Where.
        field: &'static str,
        /// The word.
        value: String,
    },
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

/// A closed set of values with a word for each, used by documents, rows and forms alike.
pub trait Word: Copy + PartialEq + Sized + 'static {
    /// Name of the field, for messages.
    const FIELD: &'static str;
    /// Every value with its word.
    const WORDS: &'static [(Self, &'static str)];

    /// The value's word.
    #[must_use]
    fn word(self) -> &'static str {
        Self::WORDS.iter().find(|(v, _)| *v == self).map_or("", |(_, w)| w)
    }

    /// The value of a word.
    ///
    /// # Errors
    /// [`DocError::Word`] for a word that is none of them.
    fn of_word(word: &str) -> Result<Self, DocError> {
        let unknown = || DocError::Word { field: Self::FIELD, value: word.to_owned() };
        Self::WORDS.iter().find(|(_, w)| *w == word).map(|(v, _)| *v).ok_or_else(unknown)
    }
}

macro_rules! words {
    ($type:ty, $field:literal, $($value:expr => $word:literal),+ $(,)?) => {
        impl Word for $type {
            const FIELD: &'static str = $field;
            const WORDS: &'static [(Self, &'static str)] = &[$(($value, $word)),+];
        }
    };
}

words!(PercentStorage, "storage", Self::ByMonth => "by_month", Self::Single => "single");
words!(PercentScope, "scope", Self::AllPrograms => "all_programs", Self::EachProgram => "each_program");
words!(Soil, "soil", Self::Clay => "clay", Self::Loam => "loam", Self::Sand => "sand");
words!(Sun, "sun", Self::Open => "open", Self::QuarterShade => "quarter_shade", Self::HalfShade => "half_shade", Self::ReflectedHeat => "reflected_heat");
words!(SprinklerType, "sprinkler", Self::Spray => "spray", Self::Rotor => "rotor", Self::RotaryNozzle => "rotary_nozzle", Self::Drip => "drip");

const PLANTS: [(Plant, &str); 6] = [
    (Plant::CoolTurf, "cool_turf"),
    (Plant::WarmTurf, "warm_turf"),
    (Plant::Shrubs, "shrubs"),
    (Plant::Annuals, "annuals"),
    (Plant::Trees, "trees"),
    (Plant::Natives, "natives"),
];

/// The word of a plant; `coefficient` for one that is a number.
#[must_use]
pub fn plant_word(plant: Plant) -> &'static str {
    PLANTS.iter().find(|(p, _)| *p == plant).map_or("coefficient", |(_, w)| w)
}

/// The plant of a word, with the coefficient where the word is `coefficient`.
///
/// # Errors
/// [`DocError`] for an unknown word or a coefficient that is missing or out of range.
pub fn plant_of(word: &str, coefficient: Option<f64>) -> Result<Plant, DocError> {
    if word == "coefficient" {
        return Ok(Plant::Coefficient(Coefficient::new(coefficient.unwrap_or(f64::NAN))?));
    }
    let unknown = || DocError::Word { field: "plant", value: word.to_owned() };
    PLANTS.iter().find(|(_, w)| *w == word).map(|(p, _)| *p).ok_or_else(unknown)
}

/// The word of what is dialled: `computed`, `off` or the number of percent.
#[must_use]
pub fn dial_word(dial: MonthDial) -> String {
    match dial {
        MonthDial::Computed => "computed".into(),
        MonthDial::Off => "off".into(),
        MonthDial::Set(percent) => percent.get().to_string(),
    }
}

/// What a word dials.
///
/// # Errors
/// [`DocError`] for anything but `computed`, `off` or a percent of 0 to 400.
pub fn dial_of(word: &str) -> Result<MonthDial, DocError> {
    match word {
        "computed" => Ok(MonthDial::Computed),
        "off" => Ok(MonthDial::Off),
        number => {
            let unknown = |_| DocError::Word { field: "dial", value: number.to_owned() };
            Ok(MonthDial::Set(Percent::new(number.parse().map_err(unknown)?)?))
        }
    }
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
                        .ok_or_else(|| DocError::Word { field: "base_month", value: number.to_string() })?,
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
    ProgramLetter::new(letter).ok_or_else(|| DocError::Word { field: "program", value: letter.to_string() })
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
    use upland_core::controller::Preset;

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
        assert!(matches!(Controller::try_from(&doc), Err(DocError::Word { field: "soil", .. })));
        let mut value = serde_json::to_value(ControllerDoc::from(&controller())).unwrap();
        value["colour"] = "blue".into();
        assert!(serde_json::from_value::<ControllerDoc>(value).is_err());
    }
}
