//! Closed sets of values and the word for each, as documents, tables and forms write them.

use thiserror::Error;

use crate::climate::in_words::{Air, Warmth};
use crate::controller::{
    ClockFace, Contact, MonthDial, PanelOrder, PercentScope, PercentStorage, Preset, ProgramLetter, StartOff,
};
use crate::landscape::{Density, Exposure, Maturity, Plant, Rub, Slope, Soil, SprinklerType, Squeeze, WaterNeed};
use crate::quantity::{Coefficient, OutOfRange, Percent};
use crate::sensor::Vent;

/// A word that stands for nothing here, or a number with it that cannot be.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum WordError {
    /// A word that is none of the allowed ones.
    #[error("{field}: {value:?} is not known")]
    Unknown {
        /// Where.
        field: &'static str,
        /// The word.
        value: String,
    },
    /// A number outside its range.
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
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
    /// [`WordError::Word`] for a word that is none of them.
    fn of_word(word: &str) -> Result<Self, WordError> {
        let unknown = || WordError::Unknown { field: Self::FIELD, value: word.to_owned() };
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

words!(ProgramLetter, "program", ProgramLetter::ALL[0] => "A", ProgramLetter::ALL[1] => "B", ProgramLetter::ALL[2] => "C", ProgramLetter::ALL[3] => "D");
words!(PercentStorage, "storage", Self::ByMonth => "by_month", Self::Single => "single");
words!(PercentScope, "scope", Self::AllPrograms => "all_programs", Self::EachProgram => "each_program");
words!(
    Preset, "preset", Self::Plain => "plain", Self::Monthly => "monthly", Self::Fine => "fine", Self::Dial => "dial",
    Self::Valve => "valve", Self::TwoWire => "two_wire"
);
words!(Contact, "contact", Self::NormallyClosed => "normally_closed", Self::NormallyOpen => "normally_open");
words!(PanelOrder, "panel_order", Self::MinutesFirst => "minutes_first", Self::ProgramsFirst => "programs_first");
words!(StartOff, "start_off", Self::PastMidnight => "past_midnight", Self::Key => "key", Self::Cleared => "cleared");
words!(ClockFace, "clock_face", Self::Hours24 => "hours_24", Self::Hours12 => "hours_12");
words!(Slope, "slope", Self::Level => "level", Self::Gentle => "gentle", Self::Moderate => "moderate", Self::Steep => "steep");
words!(Air, "air", Self::Humid => "humid", Self::Arid => "arid");
words!(Warmth, "warmth", Self::Cold => "cold", Self::Cool => "cool", Self::Moderate => "moderate", Self::Warm => "warm");
words!(Vent, "vent", Self::Open => "open", Self::Half => "half", Self::Closed => "closed");
words!(Soil, "soil", Self::Sand => "sand", Self::LoamySand => "loamy_sand", Self::SandyLoam => "sandy_loam", Self::Loam => "loam", Self::SiltLoam => "silt_loam", Self::Silt => "silt", Self::SandyClayLoam => "sandy_clay_loam", Self::ClayLoam => "clay_loam", Self::SiltyClayLoam => "silty_clay_loam", Self::SandyClay => "sandy_clay", Self::SiltyClay => "silty_clay", Self::Clay => "clay");
words!(Exposure, "exposure", Self::Open => "open", Self::Dappled => "dappled", Self::Shaded => "shaded", Self::DeepShade => "deep_shade", Self::Warm => "warm", Self::Hot => "hot");
words!(WaterNeed, "need", Self::VeryLow => "very_low", Self::Low => "low", Self::Moderate => "moderate", Self::High => "high");
words!(Density, "density", Self::Sparse => "sparse", Self::Full => "full", Self::Layered => "layered");
words!(Maturity, "maturity", Self::New => "new", Self::Young => "young", Self::Grown => "grown");
words!(Squeeze, "squeeze", Self::FallsApart => "falls_apart", Self::Ball => "ball", Self::ShortRibbon => "short_ribbon", Self::Ribbon => "ribbon", Self::LongRibbon => "long_ribbon");
words!(Rub, "rub", Self::Gritty => "gritty", Self::Even => "even", Self::Smooth => "smooth");
words!(SprinklerType, "sprinkler", Self::Spray => "spray", Self::MicroSpray => "micro_spray", Self::MultiStream => "multi_stream", Self::Rotor => "rotor", Self::Drip => "drip", Self::Buried => "buried", Self::Bubbler => "bubbler");

const PLANTS: [(Plant, &str); 12] = [
    (Plant::CoolTurf, "cool_turf"),
    (Plant::WarmTurf, "warm_turf"),
    (Plant::GroundCover, "ground_cover"),
    (Plant::Perennials, "perennials"),
    (Plant::Shrubs, "shrubs"),
    (Plant::Trees, "trees"),
    (Plant::Vines, "vines"),
    (Plant::Annuals, "annuals"),
    (Plant::Vegetables, "vegetables"),
    (Plant::Berries, "berries"),
    (Plant::FruitTrees, "fruit_trees"),
    (Plant::Bare, "bare"),
];

/// Every word of a plant that is no number and grows.
#[must_use]
pub fn growing_plant_words() -> Vec<&'static str> {
    PLANTS.iter().filter(|(plant, _)| *plant != Plant::Bare).map(|(_, word)| *word).collect()
}

/// Every word of a plant, `coefficient` last.
#[must_use]
pub fn plant_words() -> Vec<&'static str> {
    PLANTS.iter().map(|(_, word)| *word).chain(["coefficient"]).collect()
}

/// The word of a plant; `coefficient` for one that is a number.
#[must_use]
pub fn plant_word(plant: Plant) -> &'static str {
    PLANTS.iter().find(|(p, _)| *p == plant).map_or("coefficient", |(_, w)| w)
}

/// The plant of a word, with the coefficient where the word is `coefficient`.
///
/// # Errors
/// [`WordError`] for an unknown word or a coefficient that is missing or out of range.
pub fn plant_of(word: &str, coefficient: Option<f64>) -> Result<Plant, WordError> {
    if word == "coefficient" {
        return Ok(Plant::Coefficient(Coefficient::new(coefficient.unwrap_or(f64::NAN))?));
    }
    let unknown = || WordError::Unknown { field: "plant", value: word.to_owned() };
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
/// [`WordError`] for anything but `computed`, `off` or a percent of 0 to 400.
pub fn dial_of(word: &str) -> Result<MonthDial, WordError> {
    match word {
        "computed" => Ok(MonthDial::Computed),
        "off" => Ok(MonthDial::Off),
        number => {
            let unknown = |_| WordError::Unknown { field: "dial", value: number.to_owned() };
            Ok(MonthDial::Set(Percent::new(number.parse().map_err(unknown)?)?))
        }
    }
}
