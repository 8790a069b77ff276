//! For tests: a day in hours, and where it was measured.

use chrono::{DateTime, TimeDelta};

use super::daily::{Guesses, Site};
use super::hourly::HourlyWeather;
use crate::place::Position;

pub(super) fn site() -> Site {
    Site::new(&Position::new(46.5, 9.8, 900.0).unwrap(), 2.0, Guesses::default()).unwrap()
}

/// A plain day in hours: warmest at 15:00, dampest before dawn, sun as a share of the clear sky's.
pub(super) fn day(date: &str, clearness: f64) -> Vec<HourlyWeather> {
    let midnight = DateTime::parse_from_rfc3339(&format!("{date}T00:00:00+01:00")).unwrap();
    (0..24)
        .map(|h| {
            let start = midnight + TimeDelta::hours(h);
            let wave = ((h as f64 - 9.0) / 24.0 * std::f64::consts::TAU).sin();
            HourlyWeather {
                t: Some(16.0 + 7.0 * wave),
                rh: Some(65.0 - 25.0 * wave),
                wind: Some(1.5),
                solar: Some(clearness * site().clear_sky_hour(start.to_utc())),
                rain: Some(0.0),
                ..HourlyWeather::empty(start)
            }
        })
        .collect()
}
