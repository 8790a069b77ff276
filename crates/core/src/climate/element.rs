//! The elements of weather that a day can hold, each with its range.

use super::daily::DailyWeather;
use crate::quantity::{Range, range};

/// A weather element: one of the values that are measured on a day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Element {
    /// Highest air temperature, °C.
    TMax,
    /// Lowest air temperature, °C.
    TMin,
    /// Highest relative humidity, %.
    RhMax,
    /// Lowest relative humidity, %.
    RhMin,
    /// Mean relative humidity, %.
    RhMean,
    /// Mean dew point, °C.
    DewPoint,
    /// Mean wind at the sensor's height, m/s.
    Wind,
    /// Solar radiation, MJ/m² a day.
    Solar,
    /// Rain, mm.
    Rain,
}

impl Element {
    /// All elements, in the order in which files are written.
    pub const ALL: [Self; 9] = [
        Self::TMax,
        Self::TMin,
        Self::RhMax,
        Self::RhMin,
        Self::RhMean,
        Self::DewPoint,
        Self::Wind,
        Self::Solar,
        Self::Rain,
    ];

    /// The name in files and in the database, with its unit.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::TMax => "tmax_c",
            Self::TMin => "tmin_c",
            Self::RhMax => "rhmax_pct",
            Self::RhMin => "rhmin_pct",
            Self::RhMean => "rhmean_pct",
            Self::DewPoint => "dewpoint_c",
            Self::Wind => "wind_ms",
            Self::Solar => "solar_mj_m2",
            Self::Rain => "rain_mm",
        }
    }

    /// The element of that name.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|element| element.word() == word)
    }

    /// What the element can be.
    #[must_use]
    pub const fn range(self) -> Range {
        match self {
            Self::TMax | Self::TMin | Self::DewPoint => range::TEMPERATURE,
            Self::RhMax | Self::RhMin | Self::RhMean => range::HUMIDITY,
            Self::Wind => range::WIND,
            Self::Solar => range::SOLAR,
            Self::Rain => range::RAIN,
        }
    }

    /// Its value on a day; `None` where it was not measured.
    #[must_use]
    pub const fn of(self, day: &DailyWeather) -> Option<f64> {
        match self {
            Self::TMax => day.t_max,
            Self::TMin => day.t_min,
            Self::RhMax => day.rh_max,
            Self::RhMin => day.rh_min,
            Self::RhMean => day.rh_mean,
            Self::DewPoint => day.dew_point,
            Self::Wind => day.wind,
            Self::Solar => day.solar,
            Self::Rain => day.rain,
        }
    }

    /// Puts a value into a day, or takes it out.
    pub const fn put(self, day: &mut DailyWeather, value: Option<f64>) {
        *match self {
            Self::TMax => &mut day.t_max,
            Self::TMin => &mut day.t_min,
            Self::RhMax => &mut day.rh_max,
            Self::RhMin => &mut day.rh_min,
            Self::RhMean => &mut day.rh_mean,
            Self::DewPoint => &mut day.dew_point,
            Self::Wind => &mut day.wind,
            Self::Solar => &mut day.solar,
            Self::Rain => &mut day.rain,
        } = value;
    }
}
