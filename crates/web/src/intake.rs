//! From weather that was read, or typed, to what is stored: days, reference ET, normals, and the
//! normals under each guess's other values.

use std::collections::HashMap;

use chrono::NaiveDate;
use sha2::{Digest, Sha256};
use thiserror::Error;
use upland_core::climate::by_hours::{DayFigure, et0_of_days};
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::element::Element;
use upland_core::climate::giving_way::{MeasuredMonth, has_given_way, measured_months};
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::method::Method;
use upland_core::climate::normals::{NormalDay, Normals, NormalsError, monthly_normals};
use upland_core::climate::record::months_on_record;
use upland_core::climate::reference_et::Reference;
use upland_core::climate::review::{Decision, as_decided};
use upland_core::place::Position;
use upland_core::quantity::OutOfRange;
use upland_store::{HoursOnRecord, NewRevision, NormalsVariant};
use uuid::Uuid;

pub use crate::context::TypedNormals;
use crate::context::WholeRecord;

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
        let Some(guessed) = method.guessed() else { return false };
        match self.key {
            "wind" => guessed.wind,
            "sun" => guessed.sun,
            _ => guessed.humidity,
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

/// A daily record on its way into the store.
#[derive(Debug, Clone)]
pub struct DailyRecord {
    /// Where it was measured.
    pub position: Position,
    /// Height of the wind sensor, m.
    pub wind_height_m: f64,
    /// Where it came from, such as a file's name.
    pub source: String,
    /// The days as they were read.
    pub read: Vec<DailyWeather>,
    /// Their hours, where those were measured.
    pub hours: HoursOnRecord,
    /// What was decided about single values.
    pub decisions: Vec<Decision>,
    /// Typed normals, which give way to the months that the days measure.
    pub typed: Option<TypedNormals>,
    /// Whether it stands beside another station, as a rain gauge does: it then needs no normals of its own.
    pub beside: bool,
}

impl DailyRecord {
    /// A record as it stands in the store with its hours, to be worked out anew. One without normals stands beside
    /// another station, and still needs none.
    pub(crate) fn of(WholeRecord { record, hours }: &WholeRecord) -> Self {
        let series = &record.weather.series.value;
        Self {
            position: series.position,
            wind_height_m: series.wind_height_m,
            source: record.weather.revision.source.clone(),
            read: record.read(),
            hours: hours.clone(),
            decisions: record.decisions.clone(),
            typed: record.weather.typed(),
            beside: record.weather.normals().is_none(),
        }
    }
}

/// What a series of days brings.
///
/// # Errors
/// [`IntakeError`] when the site cannot be or the days do not cover every month.
pub fn revision_of_days(
    position: &Position,
    wind_height_m: f64,
    source: &str,
    days: Vec<DailyWeather>,
) -> Result<NewRevision, IntakeError> {
    revision_of_record(DailyRecord {
        position: *position,
        wind_height_m,
        source: source.to_owned(),
        read: days,
        hours: HoursOnRecord::new(),
        decisions: Vec::new(),
        typed: None,
        beside: false,
    })
}

/// What a record brings: the days as they count, and all that follows from them.
///
/// # Errors
/// [`IntakeError`] when the site cannot be, or the days do not cover every month, no normals were typed and it does
/// not stand beside another station.
pub fn revision_of_record(record: DailyRecord) -> Result<NewRevision, IntakeError> {
    let days = as_decided(&record.read, &record.decisions);
    let site = Site::new(&record.position, record.wind_height_m, Guesses::default())?;
    let counted = Counted { days, hours: record.hours, decisions: record.decisions };
    let days = &counted.days;
    let all = counted.et0(&site);
    let normal_days = counted.normal_days(&all);
    let figures: Vec<(NaiveDate, f64, Method)> = all
        .into_iter()
        .zip(days)
        .filter_map(|(figure, day)| figure.map(|(mm, method)| (day.date, mm, method)))
        .collect();
    let usual = usual_method(figures.iter().map(|(.., m)| *m));
    let measured_by = || usual.as_ref().map(Method::to_string).unwrap_or_default();
    let (normals, method) = match record.typed.map(|typed| (typed, measured_of(&normal_days))) {
        Some((typed, measured)) if !has_given_way(&measured, typed.years()) => {
            (typed.with_measured(&measured), typed.method())
        }
        _ => match monthly_normals(normal_days) {
            Err(_) if record.beside => (Vec::new(), measured_by()),
            own => (with_variants(&site, &counted, own?, usual.as_ref())?, measured_by()),
        },
    };
    Ok(NewRevision {
        id: Uuid::new_v4(),
        source: record.source,
        input_hash: hash_of(&counted),
        method_version: METHOD_VERSION,
        method,
        et0: figures.into_iter().map(|(date, et0, method)| (date, et0, method.to_string())).collect(),
        days: counted.days,
        hours: counted.hours,
        decisions: counted.decisions,
        normals,
    })
}

/// The hours of a record, a day after another.
pub(crate) fn hours_by_day(hours: &HoursOnRecord) -> impl Iterator<Item = &[HourlyWeather]> + Clone {
    hours.values().map(|day| day.hours.as_slice())
}

/// The days of a record as they count, with what their reference ET is worked out from.
struct Counted {
    days: Vec<DailyWeather>,
    hours: HoursOnRecord,
    decisions: Vec<Decision>,
}

impl Counted {
    /// Reference ET of the days, in their order.
    fn et0(&self, site: &Site) -> Vec<DayFigure> {
        et0_of_days(site, &self.days, hours_by_day(&self.hours), &self.decisions, Reference::Short)
    }

    /// The days as the normals need them, by their figures.
    fn normal_days(&self, figures: &[DayFigure]) -> Vec<NormalDay> {
        let day = |(figure, day): (&DayFigure, &DailyWeather)| NormalDay {
            date: day.date,
            et0_mm: figure.as_ref().map(|(mm, _)| *mm),
            rain_mm: day.rain,
        };
        figures.iter().zip(&self.days).map(day).collect()
    }
}

fn measured_of(days: &[NormalDay]) -> [MeasuredMonth; 12] {
    let last = days.iter().map(|day| day.date).max();
    measured_months(&last.map_or_else(Vec::new, |last| months_on_record(days, last)))
}

/// The normals, and those under the other values of every guess that was taken.
fn with_variants(
    site: &Site,
    counted: &Counted,
    normals: Normals,
    method: Option<&Method>,
) -> Result<Vec<NormalsVariant>, IntakeError> {
    let mut all = vec![TypedNormals::of(normals).variant()];
    for guess in WEATHER_GUESSES.iter().filter(|g| method.is_some_and(|m| g.taken(m))) {
        for value in guess.tried {
            let other = site.with_guesses(guess.with(value));
            all.push(NormalsVariant {
                variant: guess.variant(value),
                normals: monthly_normals(counted.normal_days(&counted.et0(&other)))?,
                temperatures: None,
            });
        }
    }
    Ok(all)
}

fn hash_of(counted: &Counted) -> Vec<u8> {
    let mut hash = Sha256::new();
    let mut add = |value: Option<f64>| hash.update(value.unwrap_or(f64::NAN).to_le_bytes());
    for day in &counted.days {
        add(Some(f64::from(day.date.to_epoch_days())));
        for element in Element::ALL {
            add(element.of(day));
        }
    }
    for hour in hours_by_day(&counted.hours).flatten() {
        add(Some(hour.start.timestamp() as f64));
        for value in [hour.t, hour.rh, hour.wind, hour.solar, hour.rain] {
            add(value);
        }
    }
    hash.finalize().to_vec()
}

/// What twelve typed months bring.
#[must_use]
pub fn revision_of_normals(source: &str, typed: TypedNormals) -> NewRevision {
    let mut hash = Sha256::new();
    for month in &typed.normals {
        hash.update(month.et0_mm_per_day.to_le_bytes());
        hash.update(month.rain_mm.unwrap_or(f64::NAN).to_le_bytes());
    }
    NewRevision {
        id: Uuid::new_v4(),
        source: source.to_owned(),
        input_hash: hash.finalize().to_vec(),
        method_version: METHOD_VERSION,
        method: typed.method(),
        days: Vec::new(),
        hours: HoursOnRecord::new(),
        decisions: Vec::new(),
        et0: Vec::new(),
        normals: vec![typed.variant()],
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rain_gauge_needs_no_normals_where_it_stands_beside_a_station() {
        let position = Position::new(47.6, -122.3, 50.0).unwrap();
        let date = NaiveDate::from_ymd_opt(2026, 6, 1).unwrap();
        let rain = DailyWeather { rain: Some(4.2), ..DailyWeather::empty(date) };
        let gauge = |beside| DailyRecord {
            position,
            wind_height_m: 2.0,
            source: "gauge.csv".into(),
            read: vec![rain],
            hours: HoursOnRecord::new(),
            decisions: Vec::new(),
            typed: None,
            beside,
        };
        assert!(matches!(revision_of_record(gauge(false)), Err(IntakeError::Normals(_))));
        let revision = revision_of_record(gauge(true)).unwrap();
        assert_eq!((revision.normals.len(), revision.et0.len(), revision.days.len()), (0, 0, 1));
        assert_eq!(revision.method, "", "nothing was worked out");
    }

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
        let revision = revision_of_days(&position, 10.0, "x.csv", (0..365).map(day).collect()).unwrap();
        let variants: Vec<&str> = revision.normals.iter().map(|n| n.variant.as_str()).collect();
        assert_eq!(variants, ["", "sun=0.14", "sun=0.19", "humidity=1", "humidity=3"]);
        assert_eq!(revision.method, "asce-pm-short+humidity-from-tmin+sun-from-range");
    }
}
