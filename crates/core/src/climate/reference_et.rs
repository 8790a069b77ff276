//! Reference evapotranspiration of a day and of an hour.

/// Which reference surface the figure is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Reference {
    /// Short crop, 0.12 m, like clipped cool-season grass (ETos, ET0).
    #[default]
    Short,
    /// Tall crop, 0.50 m, like full-cover alfalfa (ETrs).
    Tall,
}

impl Reference {
    /// The daily numerator and denominator constants Cn and Cd. Source: \[ASCE-05\] table 1.
    #[must_use]
    pub const fn constants(self) -> (f64, f64) {
        match self {
            Self::Short => (900.0, 0.34),
            Self::Tall => (1600.0, 0.38),
        }
    }

    /// The hourly constants Cn and Cd, by day (net radiation above 0) and by night. Source: \[ASCE-05\] table 1.
    #[must_use]
    pub const fn hourly_constants(self, by_day: bool) -> (f64, f64) {
        match (self, by_day) {
            (Self::Short, true) => (37.0, 0.24),
            (Self::Short, false) => (37.0, 0.96),
            (Self::Tall, true) => (66.0, 0.25),
            (Self::Tall, false) => (66.0, 1.7),
        }
    }

    /// Soil heat flux of an hour as a share of net radiation. Source: \[ASCE-05\] eq. 65 and 66, table 1.
    #[must_use]
    pub const fn soil_heat_share(self, by_day: bool) -> f64 {
        match (self, by_day) {
            (Self::Short, true) => 0.1,
            (Self::Short, false) => 0.5,
            (Self::Tall, true) => 0.04,
            (Self::Tall, false) => 0.2,
        }
    }
}

/// What the Penman-Monteith equation takes for a day or an hour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PenmanMonteithInput {
    /// Mean of the day's highest and lowest temperature, or the hour's mean, °C.
    pub t: f64,
    /// Slope of the vapour pressure curve at `t`, kPa/°C.
    pub delta: f64,
    /// Psychrometric constant, kPa/°C.
    pub gamma: f64,
    /// Net radiation, MJ/m² in the day or hour.
    pub rn: f64,
    /// Soil heat flux, MJ/m² in the day or hour; of a day it is taken as 0 (\[FAO-56\] eq. 42).
    pub g: f64,
    /// Wind at 2 m, m/s.
    pub u2: f64,
    /// Mean saturation vapour pressure, kPa.
    pub es: f64,
    /// Actual vapour pressure, kPa.
    pub ea: f64,
}

/// Standardised Penman-Monteith reference ET of a day, mm.
///
/// Source: \[ASCE-05\] eq. 1 with table 1; for the short reference the same as \[FAO-56\] eq. 6.
#[must_use]
pub fn penman_monteith(i: &PenmanMonteithInput, reference: Reference) -> f64 {
    penman_monteith_with(i, reference.constants())
}

/// The equation under stated constants Cn and Cd, mm in the day or hour.
///
/// `ET = (0.408 Δ (Rn - G) + γ Cn/(T+273) u2 (es - ea)) / (Δ + γ (1 + Cd u2))`. Source: \[ASCE-05\] eq. 1. A vapour
/// pressure deficit below 0 counts as 0. Hourly figures may be slightly negative at night and are kept so.
#[must_use]
pub fn penman_monteith_with(i: &PenmanMonteithInput, (cn, cd): (f64, f64)) -> f64 {
    let PenmanMonteithInput { t, delta, gamma, rn, g, u2, es, ea } = *i;
    (0.408 * delta * (rn - g) + gamma * cn / (t + 273.0) * u2 * (es - ea).max(0.0)) / (delta + gamma * (1.0 + cd * u2))
}

/// Hargreaves and Samani's reference ET of a day from temperatures alone, mm, for short grass.
///
/// `ET0 = 0.0023 (Tmean + 17.8) √(Tmax - Tmin) 0.408 Ra`. Source: \[HS-85\]; \[FAO-56\] eq. 52. In
/// frost below -17.8 °C the formula turns negative and is held at 0.
///
/// ```
/// use upland_core::climate::{radiation::Sky, reference_et::hargreaves};
/// // FAO-56 example 20: 45.72° N, 15 July, 26.6 and 14.8 °C, printed 5.0 mm.
/// assert!((hargreaves(26.6, 14.8, Sky::at(45.72, 196).ra) - 5.0).abs() < 0.05);
/// ```
#[must_use]
pub fn hargreaves(t_max: f64, t_min: f64, ra: f64) -> f64 {
    let t_mean = (t_max + t_min) / 2.0;
    (0.0023 * (t_mean + 17.8) * (t_max - t_min).max(0.0).sqrt() * 0.408 * ra).max(0.0)
}
