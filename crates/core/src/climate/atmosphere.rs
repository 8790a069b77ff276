//! Air: pressure, humidity and wind (FAO-56 chapter 3).
//!
//! Temperatures in °C, pressures in kPa, heights in m, wind in m/s.

/// Atmospheric pressure, kPa.
///
/// `P = 101.3 ((293 - 0.0065 z) / 293)^5.26`. Source: \[FAO-56\] eq. 7.
///
/// ```
/// use upland_core::climate::atmosphere::pressure;
/// // FAO-56 example 2: 1800 m, printed 81.8 kPa.
/// assert!((pressure(1800.0) - 81.8).abs() < 0.05);
/// ```
#[must_use]
pub fn pressure(z: f64) -> f64 {
    101.3 * ((293.0 - 0.0065 * z) / 293.0).powf(5.26)
}

/// Psychrometric constant, kPa/°C.
///
/// `γ = 0.000665 P`. Source: \[FAO-56\] eq. 8.
#[must_use]
pub fn psychrometric_constant(p: f64) -> f64 {
    0.000_665 * p
}

/// Saturation vapour pressure at a temperature, kPa.
///
/// `e°(T) = 0.6108 exp(17.27 T / (T + 237.3))`. Source: \[FAO-56\] eq. 11. With the dew point it
/// gives the actual vapour pressure (eq. 14).
///
/// ```
/// use upland_core::climate::atmosphere::saturation_vapour_pressure;
/// // FAO-56 example 3: 24.5 °C, printed 3.075 kPa.
/// assert!((saturation_vapour_pressure(24.5) - 3.075).abs() < 0.0005);
/// ```
#[must_use]
pub fn saturation_vapour_pressure(t: f64) -> f64 {
    0.6108 * (17.27 * t / (t + 237.3)).exp()
}

/// Slope of the saturation vapour pressure curve, kPa/°C.
///
/// `Δ = 2503 exp(17.27 T / (T + 237.3)) / (T + 237.3)²`. Source: \[ASCE-05\] eq. 5; \[FAO-56\]
/// eq. 13 writes it as `4098 e°(T) / (T + 237.3)²`, which is 0.002 % more.
#[must_use]
pub fn vapour_pressure_slope(t: f64) -> f64 {
    2503.0 / (t + 237.3).powi(2) * (17.27 * t / (t + 237.3)).exp()
}

/// Actual vapour pressure from the day's highest and lowest relative humidity, kPa.
///
/// `ea = (e°(Tmin) RHmax/100 + e°(Tmax) RHmin/100) / 2`. Source: \[FAO-56\] eq. 17.
#[must_use]
pub fn vapour_pressure_from_extremes(es_tmax: f64, es_tmin: f64, rh_max: f64, rh_min: f64) -> f64 {
    (es_tmin * (rh_max / 100.0) + es_tmax * (rh_min / 100.0)) / 2.0
}

/// Wind speed at 2 m from a speed at another height over short grass, m/s.
///
/// `u2 = uz 4.87 / ln(67.8 z - 5.42)`. Source: \[FAO-56\] eq. 47. Valid from 0.5 m; at 2 m the
/// factor is 1 (0.99999 as printed, taken as exactly 1).
///
/// ```
/// use upland_core::climate::atmosphere::wind_at_2m;
/// // FAO-56 example 14: 3.2 m/s at 10 m, printed 2.4 m/s.
/// assert!((wind_at_2m(3.2, 10.0) - 2.4).abs() < 0.05);
/// ```
#[must_use]
pub fn wind_at_2m(uz: f64, z: f64) -> f64 {
    uz * wind_factor(z)
}

/// The factor of [`wind_at_2m`] alone.
#[must_use]
pub fn wind_factor(z: f64) -> f64 {
    if z == 2.0 { 1.0 } else { 4.87 / (67.8 * z - 5.42).ln() }
}
