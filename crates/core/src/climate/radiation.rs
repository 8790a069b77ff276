//! Sun on the top of the atmosphere and on the ground (FAO-56 chapter 3).
//!
//! Radiation in MJ/m² a day, angles in radians, temperatures in °C, vapour pressure in kPa.

use std::f64::consts::PI;

/// Solar constant, MJ/m² a minute. Source: \[FAO-56\] eq. 21.
const G_SC: f64 = 0.0820;

/// Stefan-Boltzmann constant, MJ/(K⁴ m² day). Source: \[ASCE-05\] eq. 18; FAO-56 has 4.903e-9,
/// which changes a day's ET0 by less than 0.001 mm.
pub const SIGMA: f64 = 4.901e-9;

/// What the sky gives at a latitude on a day of the year.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sky {
    /// Inverse relative distance from Earth to Sun, eq. 23.
    pub dr: f64,
    /// Solar declination, rad, eq. 24.
    pub delta: f64,
    /// Sunset hour angle, rad, eq. 25: 0 when the sun does not rise, π when it does not set.
    pub omega_s: f64,
    /// Extraterrestrial radiation, MJ/m² a day, eq. 21.
    pub ra: f64,
}

impl Sky {
    /// The sky at a latitude (degrees, north positive) on a day of the year (1 to 366).
    ///
    /// Source: \[FAO-56\] eq. 21, 23, 24 and 25. Beyond the polar circles `tan φ tan δ` leaves
    /// -1..1; it is held there, which is the sun not rising or not setting.
    ///
    /// ```
    /// use upland_core::climate::radiation::Sky;
    /// // FAO-56 example 8: 20° S, 3 September, printed Ra 32.2 MJ/m² a day.
    /// assert!((Sky::at(-20.0, 246).ra - 32.2).abs() < 0.05);
    /// ```
    #[must_use]
    pub fn at(latitude_deg: f64, day_of_year: u32) -> Self {
        let phi = latitude_deg.to_radians();
        let j = f64::from(day_of_year);
        let dr = 1.0 + 0.033 * (2.0 * PI / 365.0 * j).cos();
        let delta = 0.409 * (2.0 * PI / 365.0 * j - 1.39).sin();
        let omega_s = (-phi.tan() * delta.tan()).clamp(-1.0, 1.0).acos();
        let ra = 24.0 * 60.0 / PI
            * G_SC
            * dr
            * (omega_s * phi.sin() * delta.sin() + phi.cos() * delta.cos() * omega_s.sin());
        // Just outside the polar night rounding can leave a hair below nothing.
        Self { dr, delta, omega_s, ra: ra.max(0.0) }
    }

    /// Daylight hours. `N = 24/π ωs`. Source: \[FAO-56\] eq. 34.
    #[must_use]
    pub fn daylight_hours(&self) -> f64 {
        24.0 / PI * self.omega_s
    }
}

/// Solar radiation from sunshine hours, with the regression constants 0.25 and 0.50.
///
/// `Rs = (0.25 + 0.50 n/N) Ra`. Source: \[FAO-56\] eq. 35. On a day without daylight it is 0.
#[must_use]
pub fn solar_from_sunshine(sunshine_hours: f64, sky: &Sky) -> f64 {
    let n = sky.daylight_hours();
    if n <= 0.0 { 0.0 } else { (0.25 + 0.50 * (sunshine_hours / n).clamp(0.0, 1.0)) * sky.ra }
}

/// Clear-sky radiation. `Rso = (0.75 + 2e-5 z) Ra`. Source: \[FAO-56\] eq. 37, z in m.
#[must_use]
pub fn clear_sky(z: f64, ra: f64) -> f64 {
    (0.75 + 2e-5 * z) * ra
}

/// Solar radiation from the day's temperature range, never above the clear sky's.
///
/// `Rs = k √(Tmax - Tmin) Ra`. Source: \[FAO-56\] eq. 50; k is 0.16 inland, 0.19 on a coast.
#[must_use]
pub fn solar_from_range(k_rs: f64, t_max: f64, t_min: f64, ra: f64, rso: f64) -> f64 {
    (k_rs * (t_max - t_min).max(0.0).sqrt() * ra).min(rso)
}

/// Net solar radiation of a grass or alfalfa surface, albedo 0.23.
///
/// `Rns = 0.77 Rs`. Source: \[FAO-56\] eq. 38.
#[must_use]
pub fn net_shortwave(rs: f64) -> f64 {
    0.77 * rs
}

/// Cloudiness factor: `f_cd = 1.35 Rs/Rso - 0.35`, the ratio held in 0.3..1.
///
/// Source: \[ASCE-05\] eq. 18 (daily) and 45 (hourly), with their limits. Without any sun (Rso 0) the ratio is taken
/// as 0.3.
#[must_use]
pub fn cloudiness(rs: f64, rso: f64) -> f64 {
    let ratio = if rso > 0.0 { (rs / rso).clamp(0.3, 1.0) } else { 0.3 };
    1.35 * ratio - 0.35
}

/// Stefan-Boltzmann constant, MJ/(K⁴ m² hour). Source: \[ASCE-05\] eq. 44.
const SIGMA_HOUR: f64 = 2.042e-10;

/// Net outgoing long-wave radiation of an hour, MJ/m².
///
/// `Rnl = σ TK⁴ (0.34 - 0.14 √ea) f_cd`. Source: \[ASCE-05\] eq. 44.
#[must_use]
pub fn net_longwave_hour(t: f64, ea: f64, f_cd: f64) -> f64 {
    SIGMA_HOUR * (t + 273.16).powi(4) * (0.34 - 0.14 * ea.max(0.0).sqrt()) * f_cd
}

/// Net outgoing long-wave radiation of a day.
///
/// `Rnl = σ (TmaxK⁴ + TminK⁴)/2 (0.34 - 0.14 √ea) (1.35 Rs/Rso - 0.35)`. Source: \[FAO-56\]
/// eq. 39 with the limits of \[ASCE-05\] eq. 17 and 18: Rs/Rso is held in 0.3..1, so that the
/// cloudiness factor lies in 0.05..1. Without any sun (Rso 0) the ratio is taken as 0.3.
#[must_use]
pub fn net_longwave(t_max: f64, t_min: f64, ea: f64, rs: f64, rso: f64) -> f64 {
    let f_cd = cloudiness(rs, rso);
    let t4 = ((t_max + 273.16).powi(4) + (t_min + 273.16).powi(4)) / 2.0;
    SIGMA * t4 * (0.34 - 0.14 * ea.max(0.0).sqrt()) * f_cd
}
