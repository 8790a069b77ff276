//! A day's reference ET by the best method that its data allow.

use chrono::{Datelike, NaiveDate};

use super::atmosphere::{
    pressure, psychrometric_constant, saturation_vapour_pressure, vapour_pressure_from_extremes, vapour_pressure_slope,
    wind_factor,
};
use super::method::{HumiditySource, Method};
use super::radiation::{Sky, clear_sky, net_longwave, net_shortwave, solar_from_range};
use super::reference_et::{PenmanMonteithInput, Reference, hargreaves, penman_monteith};
use crate::place::Position;
use crate::quantity::{OutOfRange, range};

/// One day of weather. What was not measured is `None`; nothing is ever made up here.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DailyWeather {
    /// The local day.
    pub date: NaiveDate,
    /// Highest air temperature, °C.
    pub t_max: Option<f64>,
    /// Lowest air temperature, °C.
    pub t_min: Option<f64>,
    /// Highest relative humidity, %.
    pub rh_max: Option<f64>,
    /// Lowest relative humidity, %.
    pub rh_min: Option<f64>,
    /// Mean relative humidity, %.
    pub rh_mean: Option<f64>,
    /// Mean dew point, °C.
    pub dew_point: Option<f64>,
    /// Mean wind at the sensor's height, m/s.
    pub wind: Option<f64>,
    /// Solar radiation, MJ/m².
    pub solar: Option<f64>,
    /// Rain, mm.
    pub rain: Option<f64>,
}

impl DailyWeather {
    /// A day of which nothing is known yet.
    #[must_use]
    pub const fn empty(date: NaiveDate) -> Self {
        Self {
            date,
            t_max: None,
            t_min: None,
            rh_max: None,
            rh_min: None,
            rh_mean: None,
            dew_point: None,
            wind: None,
            solar: None,
            rain: None,
        }
    }
}

/// The stand-ins that a site uses for what was not measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Guesses {
    /// Wind at 2 m where none was measured, m/s. FAO-56 p. 63 takes 2 m/s.
    pub wind_2m: f64,
    /// k of eq. 50: 0.16 inland, 0.19 on a coast.
    pub k_rs: f64,
    /// How far the dew point stands below the lowest temperature, °C: 0 in humid places, 2 to 3
    /// in dry ones (FAO-56 p. 36 and eq. 48).
    pub dew_point_below_t_min: f64,
}

impl Default for Guesses {
    fn default() -> Self {
        Self { wind_2m: 2.0, k_rs: 0.16, dew_point_below_t_min: 0.0 }
    }
}

/// A weather station's site: what depends on the place alone, worked out once.
#[derive(Debug, Clone)]
pub struct Site {
    pub(super) position: Position,
    pub(super) gamma: f64,
    pub(super) wind_factor: f64,
    pub(super) guesses: Guesses,
    /// Ra by day of the year, index 0 for 1 January; 366 entries.
    ra: Box<[f64; 366]>,
}

/// A day's reference ET with everything it was made from: the working.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Et0 {
    /// Reference ET, mm.
    pub et0_mm: f64,
    /// How it was reached.
    pub method: Method,
    /// Extraterrestrial radiation, MJ/m².
    pub ra: f64,
    /// The terms of Penman-Monteith; `None` for Hargreaves.
    pub terms: Option<Terms>,
}

/// The terms of a Penman-Monteith day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Terms {
    /// What went into the equation.
    pub input: PenmanMonteithInput,
    /// Solar radiation, measured or guessed, MJ/m².
    pub rs: f64,
    /// Clear-sky radiation, MJ/m².
    pub rso: f64,
    /// Net solar radiation, MJ/m².
    pub rns: f64,
    /// Net outgoing long-wave radiation, MJ/m².
    pub rnl: f64,
}

impl Site {
    /// Works out what depends on the place: the pressure, the wind factor and 366 values of Ra.
    ///
    /// # Errors
    /// [`OutOfRange`] when the wind sensor's height is not 0.5 to 200 m.
    pub fn new(position: &Position, wind_height_m: f64, guesses: Guesses) -> Result<Self, OutOfRange> {
        let wind_height = range::WIND_HEIGHT.check(wind_height_m)?;
        let mut ra = Box::new([0.0; 366]);
        for (day, value) in (1u32..).zip(ra.iter_mut()) {
            *value = Sky::at(position.latitude_deg(), day).ra;
        }
        Ok(Self {
            position: *position,
            gamma: psychrometric_constant(pressure(position.elevation_m())),
            wind_factor: wind_factor(wind_height),
            guesses,
            ra,
        })
    }

    /// The same site with other stand-ins, for asking what a guess would change.
    #[must_use]
    pub fn with_guesses(&self, guesses: Guesses) -> Self {
        Self { guesses, ..self.clone() }
    }

    /// Where it is.
    #[must_use]
    pub const fn position(&self) -> Position {
        self.position
    }

    /// Extraterrestrial radiation of the day, MJ/m².
    #[must_use]
    pub fn ra(&self, date: NaiveDate) -> f64 {
        self.ra[(date.ordinal0() as usize).min(365)]
    }

    /// Clear-sky radiation of the day, MJ/m².
    #[must_use]
    pub fn clear_sky(&self, date: NaiveDate) -> f64 {
        clear_sky(self.position.elevation_m(), self.ra(date))
    }

    /// The day's reference ET, or `None` when a temperature is missing.
    ///
    /// Penman-Monteith with measured values where they are there, each missing one stood in for
    /// (FAO-56 eq. 48 for humidity, eq. 50 for the sun, the site's wind); when nothing but
    /// temperatures is there, Hargreaves for the short reference. For the tall reference, to
    /// which Hargreaves does not apply, all three are stood in for. Of several humidities the
    /// order is dew point, extremes, highest, mean (FAO-56 ch. 3).
    #[must_use]
    pub fn et0(&self, day: &DailyWeather, reference: Reference) -> Option<Et0> {
        let (t_max, t_min) = (day.t_max?, day.t_min?);
        let ra = self.ra(day.date);
        let es_max = saturation_vapour_pressure(t_max);
        let es_min = saturation_vapour_pressure(t_min);
        let t = (t_max + t_min) / 2.0;
        let delta = vapour_pressure_slope(t);
        let humidity = measured_vapour_pressure(day, es_max, es_min);
        if humidity.is_none() && day.wind.is_none() && day.solar.is_none() && reference == Reference::Short {
            return Some(Et0 { et0_mm: hargreaves(t_max, t_min, ra), method: Method::Hargreaves, ra, terms: None });
        }
        let (ea, humidity) = humidity.unwrap_or_else(|| {
            let dew_point = t_min - self.guesses.dew_point_below_t_min;
            (saturation_vapour_pressure(dew_point), HumiditySource::LowestTemperature)
        });
        let rso = clear_sky(self.position.elevation_m(), ra);
        let rs = day.solar.unwrap_or_else(|| solar_from_range(self.guesses.k_rs, t_max, t_min, ra, rso));
        let (rns, rnl) = (net_shortwave(rs), net_longwave(t_max, t_min, ea, rs, rso));
        let input = PenmanMonteithInput {
            t,
            delta,
            gamma: self.gamma,
            rn: rns - rnl,
            g: 0.0,
            u2: day.wind.map_or(self.guesses.wind_2m, |uz| uz * self.wind_factor),
            es: (es_max + es_min) / 2.0,
            ea,
        };
        let method = Method::PenmanMonteith {
            reference,
            humidity,
            wind_guessed: day.wind.is_none(),
            sun_guessed: day.solar.is_none(),
        };
        let terms = Terms { input, rs, rso, rns, rnl };
        Some(Et0 { et0_mm: penman_monteith(&input, reference), method, ra, terms: Some(terms) })
    }

    /// The figure of [`Site::et0`] alone, mm. The compiler drops the working that is not kept.
    #[must_use]
    #[inline]
    pub fn et0_mm(&self, day: &DailyWeather, reference: Reference) -> Option<f64> {
        self.et0(day, reference).map(|e| e.et0_mm)
    }
}

/// Actual vapour pressure from the best humidity that was measured, kPa.
fn measured_vapour_pressure(day: &DailyWeather, es_max: f64, es_min: f64) -> Option<(f64, HumiditySource)> {
    // A sensor that reads a little over saturation means saturation.
    let share = |rh: f64| rh.min(100.0);
    if let Some(dew_point) = day.dew_point {
        return Some((saturation_vapour_pressure(dew_point), HumiditySource::DewPoint));
    }
    match (day.rh_max, day.rh_min, day.rh_mean) {
        (Some(max), Some(min), _) => {
            let ea = vapour_pressure_from_extremes(es_max, es_min, share(max), share(min));
            Some((ea, HumiditySource::Extremes))
        }
        (Some(max), None, _) => Some((es_min * share(max) / 100.0, HumiditySource::Highest)),
        (_, _, Some(mean)) => Some(((es_max + es_min) / 2.0 * share(mean) / 100.0, HumiditySource::Mean)),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day() -> DailyWeather {
        let date = NaiveDate::from_ymd_opt(2015, 7, 6).unwrap();
        DailyWeather { t_max: Some(21.5), t_min: Some(12.3), ..DailyWeather::empty(date) }
    }

    fn site() -> Site {
        Site::new(&Position::new(50.8, 4.35, 100.0).unwrap(), 10.0, Guesses::default()).unwrap()
    }

    fn name(day: &DailyWeather, reference: Reference) -> String {
        site().et0(day, reference).unwrap().method.to_string()
    }

    #[test]
    fn every_guess_is_in_the_name_of_the_method() {
        assert_eq!(name(&day(), Reference::Short), "hargreaves-samani");
        assert_eq!(
            name(&DailyWeather { wind: Some(2.0), ..day() }, Reference::Short),
            "asce-pm-short+humidity-from-tmin+sun-from-range"
        );
        assert_eq!(
            name(&DailyWeather { solar: Some(22.0), ..day() }, Reference::Short),
            "asce-pm-short+humidity-from-tmin+wind-assumed"
        );
        assert_eq!(
            name(&DailyWeather { rh_mean: Some(70.0), ..day() }, Reference::Short),
            "asce-pm-short+sun-from-range+wind-assumed"
        );
        assert_eq!(name(&day(), Reference::Tall), "asce-pm-tall+humidity-from-tmin+sun-from-range+wind-assumed");
    }

    #[test]
    fn the_best_humidity_is_taken() {
        let all = DailyWeather {
            dew_point: Some(13.0),
            rh_max: Some(84.0),
            rh_min: Some(63.0),
            rh_mean: Some(72.0),
            ..day()
        };
        let source = |d: &DailyWeather| match site().et0(d, Reference::Short).unwrap().method {
            Method::PenmanMonteith { humidity, .. } => humidity,
            other => panic!("{other}"),
        };
        assert_eq!(source(&all), HumiditySource::DewPoint);
        let no_dew = DailyWeather { dew_point: None, ..all };
        assert_eq!(source(&no_dew), HumiditySource::Extremes);
        let no_min = DailyWeather { rh_min: None, ..no_dew };
        assert_eq!(source(&no_min), HumiditySource::Highest);
        assert_eq!(source(&DailyWeather { rh_max: None, ..no_min }), HumiditySource::Mean);
    }

    #[test]
    fn a_missing_temperature_gives_no_figure() {
        assert!(site().et0(&DailyWeather { t_min: None, ..day() }, Reference::Short).is_none());
    }

    #[test]
    fn guessed_wind_is_at_two_metres_whatever_the_sensor_height() {
        let terms = site().et0(&DailyWeather { solar: Some(20.0), ..day() }, Reference::Short).unwrap().terms.unwrap();
        assert_eq!(terms.input.u2, 2.0);
    }

    #[test]
    fn the_plain_figure_equals_the_explained_one() {
        let d = DailyWeather { wind: Some(2.78), rh_max: Some(84.0), rh_min: Some(63.0), solar: Some(22.07), ..day() };
        assert_eq!(site().et0_mm(&d, Reference::Short), site().et0(&d, Reference::Short).map(|e| e.et0_mm));
    }
}
