//! Where the sun stands, and when it rises and sets.
//!
//! Source: \[NOAA-SOLAR\], the equations of NOAA's solar calculator in Julian centuries after
//! Meeus (1998), low precision. Rise and set are when the centre's true elevation is -0.833°
//! (half the disc and the refraction at the horizon), iterated at the event's own time.

use chrono::{DateTime, NaiveDate, Offset, TimeDelta, TimeZone, Timelike, Utc};

/// True elevation of the sun's centre at sunrise and sunset, degrees.
pub const HORIZON_DEG: f64 = -0.833;

/// The sun's declination and the equation of time at an instant.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SunTerms {
    /// Declination, degrees.
    pub declination_deg: f64,
    /// Equation of time (true minus mean solar time), minutes.
    pub equation_of_time_min: f64,
    /// Apparent longitude, degrees.
    pub apparent_longitude_deg: f64,
}

/// The sun's terms at a Julian century since J2000.0. Source: \[NOAA-SOLAR\].
#[must_use]
pub fn sun_terms(t: f64) -> SunTerms {
    let sin = |deg: f64| deg.to_radians().sin();
    let cos = |deg: f64| deg.to_radians().cos();
    let l0 = (280.46646 + t * (36000.76983 + t * 0.000_303_2)).rem_euclid(360.0);
    let m = 357.52911 + t * (35999.05029 - 0.000_153_7 * t);
    let e = 0.016_708_634 - t * (0.000_042_037 + 0.000_000_126_7 * t);
    let centre = sin(m) * (1.914_602 - t * (0.004_817 + 0.000_014 * t))
        + sin(2.0 * m) * (0.019_993 - 0.000_101 * t)
        + sin(3.0 * m) * 0.000_289;
    let omega = 125.04 - 1934.136 * t;
    let lambda = l0 + centre - 0.005_69 - 0.004_78 * sin(omega);
    let mean_obliquity = 23.0 + (26.0 + (21.448 - t * (46.815 + t * (0.000_59 - t * 0.001_813))) / 60.0) / 60.0;
    let epsilon = mean_obliquity + 0.002_56 * cos(omega);
    let y = (epsilon / 2.0).to_radians().tan().powi(2);
    let eot = y * sin(2.0 * l0) - 2.0 * e * sin(m) + 4.0 * e * y * sin(m) * cos(2.0 * l0)
        - 0.5 * y * y * sin(4.0 * l0)
        - 1.25 * e * e * sin(2.0 * m);
    SunTerms {
        declination_deg: (sin(epsilon) * sin(lambda)).asin().to_degrees(),
        equation_of_time_min: 4.0 * eot.to_degrees(),
        apparent_longitude_deg: lambda,
    }
}

/// Julian centuries since J2000.0 of an instant.
#[must_use]
pub fn julian_century(at: DateTime<Utc>) -> f64 {
    let days = at.timestamp() as f64 / 86_400.0 + 2_440_587.5;
    (days - 2_451_545.0) / 36_525.0
}

/// The sun's place in the sky.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SunPosition {
    /// True elevation of the centre, degrees, without refraction.
    pub elevation_deg: f64,
    /// Azimuth, degrees from north through east.
    pub azimuth_deg: f64,
}

/// The sun's place at an instant, seen from a latitude and longitude in degrees.
/// Source: \[NOAA-SOLAR\].
#[must_use]
pub fn sun_position(latitude_deg: f64, longitude_deg: f64, at: DateTime<Utc>) -> SunPosition {
    let terms = sun_terms(julian_century(at));
    let minutes = (at.timestamp().rem_euclid(86_400)) as f64 / 60.0;
    let true_solar = (minutes + terms.equation_of_time_min + 4.0 * longitude_deg).rem_euclid(1440.0);
    let hour_angle = (true_solar / 4.0 - 180.0).to_radians();
    let (phi, delta) = (latitude_deg.to_radians(), terms.declination_deg.to_radians());
    let elevation = (phi.sin() * delta.sin() + phi.cos() * delta.cos() * hour_angle.cos()).clamp(-1.0, 1.0).asin();
    let azimuth = hour_angle.sin().atan2(hour_angle.cos() * phi.sin() - delta.tan() * phi.cos());
    SunPosition { elevation_deg: elevation.to_degrees(), azimuth_deg: (azimuth.to_degrees() + 180.0).rem_euclid(360.0) }
}

/// The sun's day at a place.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SunDay {
    /// Sunrise; `None` where the sun does not cross the horizon that day.
    pub sunrise: Option<DateTime<Utc>>,
    /// Solar noon.
    pub noon: DateTime<Utc>,
    /// Sunset; `None` where the sun does not cross the horizon that day.
    pub sunset: Option<DateTime<Utc>>,
}

/// Sunrise, noon and sunset of the local day whose zone stands `utc_offset_s` seconds ahead of
/// UTC at its noon. Source: \[NOAA-SOLAR\], iterated.
#[must_use]
pub fn sun_day(latitude_deg: f64, longitude_deg: f64, date: NaiveDate, utc_offset_s: i32) -> SunDay {
    let midnight = date.and_time(chrono::NaiveTime::MIN).and_utc() - TimeDelta::seconds(i64::from(utc_offset_s));
    // Local mean solar noon, brought onto the zone's own day.
    let offset_min = f64::from(utc_offset_s) / 60.0;
    let mean_noon = (720.0 - 4.0 * longitude_deg + offset_min).rem_euclid(1440.0);
    let at = |minutes: f64| midnight + TimeDelta::milliseconds((minutes * 60_000.0).round() as i64);
    let event = |side: f64| -> Option<DateTime<Utc>> {
        let mut minutes = mean_noon;
        for _ in 0..6 {
            let terms = sun_terms(julian_century(at(minutes)));
            let noon = mean_noon - terms.equation_of_time_min;
            minutes = noon + side * 4.0 * hour_angle_deg(latitude_deg, terms.declination_deg)?;
        }
        Some(at(minutes))
    };
    let mut noon = mean_noon;
    for _ in 0..3 {
        noon = mean_noon - sun_terms(julian_century(at(noon))).equation_of_time_min;
    }
    SunDay { sunrise: event(-1.0), noon: at(noon), sunset: event(1.0) }
}

/// Hour of sunrise in the middle of each month of a year, January first, by the clock of a zone; six
/// where the sun does not rise.
#[must_use]
pub fn sunrise_hours<Tz: TimeZone>(latitude_deg: f64, longitude_deg: f64, zone: &Tz, year: i32) -> [f64; 12] {
    crate::quantity::MonthOfYear::ALL.map(|month| {
        let sunrise = NaiveDate::from_ymd_opt(year, month.number().into(), 15).and_then(|date| {
            let noon = date.and_time(chrono::NaiveTime::MIN) + TimeDelta::hours(12);
            let offset = zone.offset_from_utc_datetime(&noon).fix().local_minus_utc();
            sun_day(latitude_deg, longitude_deg, date, offset).sunrise
        });
        sunrise.map_or(6.0, |at| {
            let local = at.with_timezone(zone).naive_local();
            f64::from(local.hour()) + f64::from(local.minute()) / 60.0
        })
    })
}

/// Hour angle at which the sun stands on the horizon, degrees; `None` if it never does.
fn hour_angle_deg(latitude_deg: f64, declination_deg: f64) -> Option<f64> {
    let (phi, delta) = (latitude_deg.to_radians(), declination_deg.to_radians());
    let cos = (HORIZON_DEG.to_radians().sin() - phi.sin() * delta.sin()) / (phi.cos() * delta.cos());
    (-1.0..=1.0).contains(&cos).then(|| cos.acos().to_degrees())
}
