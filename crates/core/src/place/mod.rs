//! Where something is on the Earth, how far apart such things are and how they are visited, and which water rules bind
//! it.

mod bound;
mod fields;
mod rules;
mod spans;
mod tour;

pub use bound::{Allowed, Bound, DateRule};
pub use fields::Place;
pub use rules::{ClosedDates, DayRule, Rules, RulesError, SeasonRule, house_number};
pub use spans::{Ban, DayOfYear, Season};
pub use tour::{ARRIVING_MINUTES, Leg, ROAD_FACTOR, SPEED_KM_PER_HOUR, Tour, tour};

use crate::quantity::{OutOfRange, range};

/// A position: latitude and longitude in degrees, elevation in metres above sea level.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Position {
    latitude_deg: f64,
    longitude_deg: f64,
    elevation_m: f64,
}

impl Position {
    /// Where the equator meets the prime meridian, at the level of the sea.
    pub(crate) const ORIGIN: Self = Self { latitude_deg: 0.0, longitude_deg: 0.0, elevation_m: 0.0 };

    /// Moves it to the coordinates that are stated; nothing where one of them cannot be.
    fn put(&mut self, [latitude, longitude, elevation]: [Option<f64>; 3]) -> Option<()> {
        let latitude = latitude.unwrap_or(self.latitude_deg);
        let longitude = longitude.unwrap_or(self.longitude_deg);
        *self = Self::new(latitude, longitude, elevation.unwrap_or(self.elevation_m)).ok()?;
        Some(())
    }

    /// Makes a position.
    ///
    /// # Errors
    /// [`OutOfRange`] for the first of latitude (±90°), longitude (±180°) and elevation
    /// (-450 to 6000 m) that cannot be.
    pub fn new(latitude_deg: f64, longitude_deg: f64, elevation_m: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            latitude_deg: range::LATITUDE.check(latitude_deg)?,
            longitude_deg: range::LONGITUDE.check(longitude_deg)?,
            elevation_m: range::ELEVATION.check(elevation_m)?,
        })
    }

    /// Latitude in degrees, north positive.
    #[must_use]
    pub const fn latitude_deg(&self) -> f64 {
        self.latitude_deg
    }

    /// Longitude in degrees, east positive.
    #[must_use]
    pub const fn longitude_deg(&self) -> f64 {
        self.longitude_deg
    }

    /// Elevation in metres above sea level.
    #[must_use]
    pub const fn elevation_m(&self) -> f64 {
        self.elevation_m
    }

    /// Distance to another position along the surface, km.
    ///
    /// Haversine formula on a sphere of radius 6371 km: within 0.6 % of the ellipsoid, which is
    /// far finer than what the distance is used for (is a weather station good for rain?).
    #[must_use]
    pub fn distance_km(&self, other: &Self) -> f64 {
        let (phi1, phi2) = (self.latitude_deg.to_radians(), other.latitude_deg.to_radians());
        let d_phi = phi2 - phi1;
        let d_lambda = (other.longitude_deg - self.longitude_deg).to_radians();
        let h = (d_phi / 2.0).sin().powi(2) + phi1.cos() * phi2.cos() * (d_lambda / 2.0).sin().powi(2);
        2.0 * 6371.0 * h.min(1.0).sqrt().asin()
    }

    /// Bearing of another position, degrees clockwise from north, 0 to 360: the first course of the great circle.
    /// Source: spherical trigonometry, own arrangement. Of the same position it is 0.
    #[must_use]
    pub fn bearing_deg(&self, other: &Self) -> f64 {
        let (phi1, phi2) = (self.latitude_deg.to_radians(), other.latitude_deg.to_radians());
        let d_lambda = (other.longitude_deg - self.longitude_deg).to_radians();
        let east = d_lambda.sin() * phi2.cos();
        let north = phi1.cos() * phi2.sin() - phi1.sin() * phi2.cos() * d_lambda.cos();
        east.atan2(north).to_degrees().rem_euclid(360.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn bearings_go_clockwise_from_north() {
        let at = |lat, lon| Position::new(lat, lon, 0.0).unwrap();
        let here = at(0.0, 10.0);
        for (there, bearing) in [(at(1.0, 10.0), 0.0), (at(0.0, 11.0), 90.0), (at(-1.0, 10.0), 180.0), (here, 0.0)] {
            assert!((here.bearing_deg(&there) - bearing).abs() < 1e-9, "{there:?}");
        }
        // Across the date line it is still east.
        assert!((at(0.0, 179.5).bearing_deg(&at(0.0, -179.5)) - 90.0).abs() < 1e-9);
        assert!((at(45.0, 0.0).bearing_deg(&at(44.0, -1.0)) - 215.8).abs() < 0.5);
    }

    #[test]
    fn a_degree_along_a_meridian_is_a_hundred_and_eleven_kilometres() {
        let south = Position::new(47.0, 8.0, 0.0).unwrap();
        let north = Position::new(48.0, 8.0, 0.0).unwrap();
        // 2 π 6371 / 360 = 111.19 km.
        assert!((south.distance_km(&north) - 111.19).abs() < 0.01);
        assert_eq!(south.distance_km(&south), 0.0);
    }

    #[test]
    fn impossible_positions_are_refused() {
        assert_eq!(Position::new(95.0, 0.0, 0.0).unwrap_err().range.what, "latitude");
        assert_eq!(Position::new(0.0, 181.0, 0.0).unwrap_err().range.what, "longitude");
        assert_eq!(Position::new(0.0, 0.0, 9000.0).unwrap_err().range.what, "elevation");
    }
}
