//! How a day's reference ET was reached.

use std::fmt;

use super::reference_et::Reference;

/// Where the vapour pressure of a figure came from, best first.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum HumiditySource {
    /// Measured dew point (eq. 14).
    DewPoint,
    /// Highest and lowest relative humidity (eq. 17).
    Extremes,
    /// Highest relative humidity alone (eq. 18).
    Highest,
    /// Mean relative humidity (eq. 19, the least sure of the measured ones).
    Mean,
    /// Guessed: the dew point stands near the lowest temperature (eq. 48).
    LowestTemperature,
}

/// How a day's reference ET was reached: the equation, and what was guessed on the way.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Method {
    /// Standardised Penman-Monteith.
    PenmanMonteith {
        /// Which reference surface.
        reference: Reference,
        /// Where the humidity came from.
        humidity: HumiditySource,
        /// Whether the wind was guessed (2 m/s at 2 m, or the site's stated mean).
        wind_guessed: bool,
        /// Whether the sun was guessed from the temperature range (eq. 50).
        sun_guessed: bool,
    },
    /// Standardised Penman-Monteith of each hour of the day, added up.
    SumOfHours {
        /// Which reference surface.
        reference: Reference,
        /// Whether the humidity of any hour was guessed from the day's lowest temperature.
        humidity_guessed: bool,
        /// Whether the wind of any hour was guessed.
        wind_guessed: bool,
        /// Whether the sun of any hour was guessed from the day's temperature range.
        sun_guessed: bool,
    },
    /// Hargreaves and Samani: only temperatures were there.
    Hargreaves,
}

/// What was guessed on the way to a figure.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Guessed {
    /// The humidity, from the lowest temperature (eq. 48).
    pub humidity: bool,
    /// The wind: 2 m/s at 2 m, or the site's stated mean.
    pub wind: bool,
    /// The sun, from the temperature range (eq. 50).
    pub sun: bool,
}

impl Method {
    /// What was guessed; `None` for Hargreaves, which needs neither humidity, wind nor sun.
    #[must_use]
    pub fn guessed(&self) -> Option<Guessed> {
        match *self {
            Self::PenmanMonteith { humidity, wind_guessed, sun_guessed, .. } => Some(Guessed {
                humidity: humidity == HumiditySource::LowestTemperature,
                wind: wind_guessed,
                sun: sun_guessed,
            }),
            Self::SumOfHours { humidity_guessed, wind_guessed, sun_guessed, .. } => {
                Some(Guessed { humidity: humidity_guessed, wind: wind_guessed, sun: sun_guessed })
            }
            Self::Hargreaves => None,
        }
    }

    /// How many of humidity, wind and sun were not measured.
    #[must_use]
    pub fn guesses(&self) -> usize {
        self.guessed().map_or(3, |g| usize::from(g.humidity) + usize::from(g.wind) + usize::from(g.sun))
    }

    /// Whether the humidity, the wind and the sun are all measured.
    #[must_use]
    pub fn is_measured(&self) -> bool {
        self.guesses() == 0
    }
}

impl fmt::Display for Method {
    /// The name used in files: the equation, then each guess after a plus sign.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::PenmanMonteith { reference: Reference::Short, .. } => "asce-pm-short",
            Self::PenmanMonteith { reference: Reference::Tall, .. } => "asce-pm-tall",
            Self::SumOfHours { reference: Reference::Short, .. } => "asce-pm-short-hourly-sum",
            Self::SumOfHours { reference: Reference::Tall, .. } => "asce-pm-tall-hourly-sum",
            Self::Hargreaves => "hargreaves-samani",
        })?;
        let Some(guessed) = self.guessed() else { return Ok(()) };
        let names = [
            (guessed.humidity, "+humidity-from-tmin"),
            (guessed.sun, "+sun-from-range"),
            (guessed.wind, "+wind-assumed"),
        ];
        names.iter().filter(|(is_guessed, _)| *is_guessed).try_for_each(|(_, name)| f.write_str(name))
    }
}
