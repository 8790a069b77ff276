//! From weather that was read, or typed, to what is stored: days, reference ET, normals, and the
//! normals under each guess's other values.

use std::collections::HashMap;

use chrono::NaiveDate;
use sha2::{Digest, Sha256};
use thiserror::Error;
use upland_core::climate::daily::{DailyWeather, Guesses, HumiditySource, Method, Site};
use upland_core::climate::normals::{NormalDay, Normals, NormalsError, monthly_normals};
use upland_core::climate::reference_et::Reference;
use upland_core::place::Position;
use upland_core::quantity::OutOfRange;
use upland_store::{NewRevision, NormalsVariant};
use uuid::Uuid;

/// Counts up when a method changes, so that stored figures can be told from fresh ones.
pub const METHOD_VERSION: i32 = 1;

/// Why a series gives no normals.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum IntakeError {
    /// The site cannot be.
    #[error(transparent)]
    Site(#[from] OutOfRange),
    /// The days do not cover a year.
    #[error(transparent)]
    Normals(#[from] NormalsError),
}

/// A guess in the weather and the other values that are tried for it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct WeatherGuess {
    /// Key of the guess, and of the words for it.
    pub(crate) key: &'static str,
    /// The values, as in the names of the variants.
    pub(crate) tried: [f64; 2],
}

/// The guesses that a method can have taken.
pub(crate) const WEATHER_GUESSES: [WeatherGuess; 3] = [
    WeatherGuess { key: "wind", tried: [1.0, 3.0] },
    WeatherGuess { key: "sun", tried: [0.14, 0.19] },
    WeatherGuess { key: "humidity", tried: [1.0, 3.0] },
];

impl WeatherGuess {
    fn taken(&self, method: &Method) -> bool {
        let Method::PenmanMonteith { humidity, wind_guessed, sun_guessed, .. } = method else { return false };
        match self.key {
            "wind" => *wind_guessed,
            "sun" => *sun_guessed,
            _ => *humidity == HumiditySource::LowestTemperature,
        }
    }

    fn with(&self, value: f64) -> Guesses {
        let usual = Guesses::default();
        match self.key {
            "wind" => Guesses { wind_2m: value, ..usual },
            "sun" => Guesses { k_rs: value, ..usual },
            _ => Guesses { dew_point_below_t_min: value, ..usual },
        }
    }

    /// The name of a variant.
    pub(crate) fn variant(&self, value: f64) -> String {
        format!("{}={value}", self.key)
    }
}

/// The usual method of many days: the one that most of them took.
fn usual_method(methods: impl Iterator<Item = Method>) -> Option<Method> {
    let mut counts: HashMap<String, (usize, Method)> = HashMap::new();
    for method in methods {
        counts.entry(method.to_string()).or_insert((0, method)).0 += 1;
    }
    counts.into_values().max_by_key(|(count, method)| (*count, method.to_string())).map(|(_, method)| method)
}

/// What a series of days brings.
///
/// # Errors
/// [`IntakeError`] when the site cannot be or the days do not cover every month.
pub fn revision_of_days(
    position: &Position,
    wind_height_m: f64,
    source: &str,
    bytes: &[u8],
    mut days: Vec<DailyWeather>,
) -> Result<NewRevision, IntakeError> {
    days.sort_by_key(|d| d.date);
    let site = Site::new(position, wind_height_m, Guesses::default())?;
    let figures: Vec<(NaiveDate, f64, Method)> =
        days.iter().filter_map(|d| site.et0(d, Reference::Short).map(|e| (d.date, e.et0_mm, e.method))).collect();
    let mut normals = vec![NormalsVariant { variant: String::new(), normals: normals_of(&site, &days)? }];
    let method = usual_method(figures.iter().map(|(.., m)| *m));
    for guess in WEATHER_GUESSES.iter().filter(|g| method.as_ref().is_some_and(|m| g.taken(m))) {
        for value in guess.tried {
            let other = site.with_guesses(guess.with(value));
            normals.push(NormalsVariant { variant: guess.variant(value), normals: normals_of(&other, &days)? });
        }
    }
    Ok(NewRevision {
        id: Uuid::new_v4(),
        source: source.to_owned(),
        input_hash: Sha256::digest(bytes).to_vec(),
        method_version: METHOD_VERSION,
        method: method.map(|m| m.to_string()).unwrap_or_default(),
        et0: figures.into_iter().map(|(date, et0, method)| (date, et0, method.to_string())).collect(),
        days,
        normals,
    })
}

fn normals_of(site: &Site, days: &[DailyWeather]) -> Result<Normals, NormalsError> {
    monthly_normals(days.iter().map(|d| NormalDay {
        date: d.date,
        et0_mm: site.et0_mm(d, Reference::Short),
        rain_mm: d.rain,
    }))
}

/// What twelve typed months bring.
#[must_use]
pub fn revision_of_normals(source: &str, normals: Normals) -> NewRevision {
    let mut hash = Sha256::new();
    for month in &normals {
        hash.update(month.et0_mm_per_day.to_le_bytes());
        hash.update(month.rain_mm.unwrap_or(f64::NAN).to_le_bytes());
    }
    NewRevision {
        id: Uuid::new_v4(),
        source: source.to_owned(),
        input_hash: hash.finalize().to_vec(),
        method_version: METHOD_VERSION,
        method: "typed".into(),
        days: Vec::new(),
        et0: Vec::new(),
        normals: vec![NormalsVariant { variant: String::new(), normals }],
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn guesses_that_were_taken_get_their_variants() {
        let position = Position::new(47.6, -122.3, 50.0).unwrap();
        let first = NaiveDate::from_ymd_opt(2013, 1, 1).unwrap();
        let day = |d: i64| DailyWeather {
            t_max: Some(20.0),
            t_min: Some(8.0),
            wind: Some(3.0),
            ..DailyWeather::empty(first + chrono::TimeDelta::days(d))
        };
        let revision = revision_of_days(&position, 10.0, "x.csv", b"x", (0..365).map(day).collect()).unwrap();
        let variants: Vec<&str> = revision.normals.iter().map(|n| n.variant.as_str()).collect();
        assert_eq!(variants, ["", "sun=0.14", "sun=0.19", "humidity=1", "humidity=3"]);
        assert_eq!(revision.method, "asce-pm-short+humidity-from-tmin+sun-from-range");
    }
}
