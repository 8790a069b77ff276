//! Sun on the top of the atmosphere within an hour (FAO-56 chapter 3, ASCE-EWRI 2005; equation and page numbers of
//! the latter from memory, its figures checked against published values).

use std::f64::consts::PI;

use chrono::{DateTime, Datelike, TimeDelta, Timelike, Utc};

use super::radiation::Sky;
use crate::place::Position;

/// Solar constant, MJ/m² an hour: 0.0820 a minute. Source: \[ASCE-05\] eq. 48.
const G_SC: f64 = 4.92;

/// What the sky gives at a place in one hour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HourSky {
    /// The day's sky at the latitude.
    pub day: Sky,
    /// Solar time angle at the middle of the hour, rad: 0 at solar noon, afternoon positive. \[FAO-56\] eq. 31.
    pub omega: f64,
    /// Extraterrestrial radiation, MJ/m² in the hour. \[FAO-56\] eq. 28.
    pub ra: f64,
    /// The sun's angle above the horizon at the middle of the hour, rad. \[ASCE-05\] eq. 62.
    pub beta: f64,
}

impl HourSky {
    /// The sky over the hour that begins at an instant.
    ///
    /// The solar time follows from the instant and the longitude alone, so that no time zone and no clock change
    /// can shift it: `ω = π/12 (t + L/15 + Sc - 12)` with t in hours UTC at the middle of the hour, L the longitude
    /// in degrees east and Sc the seasonal correction. Source: \[FAO-56\] eq. 28 to 33, whose eq. 31 takes clock time
    /// and the zone's meridian instead. The day of the year is that of the solar time.
    #[must_use]
    pub fn at(position: &Position, start: DateTime<Utc>) -> Self {
        let middle = start + TimeDelta::minutes(30);
        let east_s = (position.longitude_deg() * 240.0).round() as i64;
        let local = middle + TimeDelta::seconds(east_s);
        let day = Sky::at(position.latitude_deg(), local.ordinal());
        let clock_hours = f64::from(local.num_seconds_from_midnight()) / 3600.0;
        // Seconds are rounded for the date alone: the angle takes the longitude as it is.
        let exact = clock_hours + position.longitude_deg() / 15.0 - east_s as f64 / 3600.0;
        let omega = wrapped(PI / 12.0 * (exact + seasonal_correction(local.ordinal()) - 12.0));
        let phi = position.latitude_deg().to_radians();
        let (vertical, level) = (phi.sin() * day.delta.sin(), phi.cos() * day.delta.cos());
        let [from, to] = within_daylight(omega, day.omega_s);
        let ra = 12.0 / PI * G_SC * day.dr * ((to - from) * vertical + level * (to.sin() - from.sin()));
        let beta = (vertical + level * omega.cos()).clamp(-1.0, 1.0).asin();
        Self { day, omega, ra: ra.max(0.0), beta }
    }
}

impl HourSky {
    /// The sun's least angle above the horizon, rad, for its strength to tell how cloudy it is, judged at the middle
    /// of the hour. Source: \[ASCE-05\] p. 34.
    pub const HIGH_ENOUGH: f64 = 0.3;

    /// Whether the sun is high enough for its strength to tell how cloudy it is.
    #[must_use]
    pub fn is_high(&self) -> bool {
        self.beta >= Self::HIGH_ENOUGH
    }
}

/// Seasonal correction of the solar time, hours. Source: \[FAO-56\] eq. 32 and 33.
fn seasonal_correction(day_of_year: u32) -> f64 {
    let b = 2.0 * PI * (f64::from(day_of_year) - 81.0) / 364.0;
    0.1645 * (2.0 * b).sin() - 0.1255 * b.cos() - 0.025 * b.sin()
}

/// An angle in -π to π.
fn wrapped(angle: f64) -> f64 {
    (angle + PI).rem_euclid(2.0 * PI) - PI
}

/// The part of an hour around ω in which the sun is up (\[ASCE-05\] eq. 55 and 56, its limits at sunrise and sunset).
fn within_daylight(omega: f64, omega_s: f64) -> [f64; 2] {
    let (from, to) = (omega - PI / 24.0, omega + PI / 24.0);
    if omega_s >= PI {
        return [from, to];
    }
    let from = from.clamp(-omega_s, omega_s);
    [from, to.clamp(-omega_s, omega_s).max(from)]
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::TimeZone;
    use proptest::prelude::*;

    proptest! {
        /// The hours of a solar day add up to the daily figure of FAO-56 eq. 21, anywhere on any day.
        #[test]
        fn the_hours_of_a_day_give_what_the_day_gives(latitude in -66.0f64..66.0, longitude in -180.0f64..180.0, j in 1u32..=365) {
            let position = Position::new(latitude, longitude, 0.0).unwrap();
            let midnight = Utc.with_ymd_and_hms(2015, 1, 1, 0, 0, 0).unwrap() + TimeDelta::days(i64::from(j) - 1)
                - TimeDelta::seconds((longitude * 240.0) as i64);
            let hours: f64 = (0..24).map(|h| HourSky::at(&position, midnight + TimeDelta::hours(h)).ra).sum();
            let day = Sky::at(latitude, j).ra;
            prop_assert!((hours - day).abs() < 0.03 * day.max(1.0), "{hours} against {day}");
        }
    }

    #[test]
    fn at_the_pole_in_june_every_hour_has_sun_and_in_december_none() {
        let pole = Position::new(89.0, 0.0, 0.0).unwrap();
        for hour in 0..24 {
            assert!(HourSky::at(&pole, Utc.with_ymd_and_hms(2015, 6, 21, hour, 0, 0).unwrap()).ra > 1.0);
            assert_eq!(HourSky::at(&pole, Utc.with_ymd_and_hms(2015, 12, 21, hour, 0, 0).unwrap()).ra, 0.0);
        }
    }
}
