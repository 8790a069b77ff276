//! Reference ET of the hours of a series, and the days that they add up to.

use std::collections::BTreeMap;
use std::fmt;

use chrono::{DateTime, FixedOffset, NaiveDate, Utc};

use super::atmosphere::{saturation_vapour_pressure, vapour_pressure_slope};
use super::daily::{Site, Terms};
use super::hour_sky::HourSky;
use super::radiation::{clear_sky, cloudiness, net_longwave_hour, net_shortwave, solar_from_range};
use super::reference_et::{PenmanMonteithInput, Reference, penman_monteith_with};

/// Energy of a watt through an hour, MJ: what turns the mean radiation of an hour, W/m², into its sum, MJ/m².
pub const MJ_OF_A_WATT_HOUR: f64 = 0.0036;

/// One hour of weather. What was not measured is `None`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HourlyWeather {
    /// When the hour begins, with the offset of its clock: the local day follows from it.
    pub start: DateTime<FixedOffset>,
    /// Mean air temperature, °C.
    pub t: Option<f64>,
    /// Mean relative humidity, %.
    pub rh: Option<f64>,
    /// Mean wind at the sensor's height, m/s.
    pub wind: Option<f64>,
    /// Solar radiation, MJ/m² in the hour.
    pub solar: Option<f64>,
    /// Rain, mm.
    pub rain: Option<f64>,
}

impl HourlyWeather {
    /// An hour of which nothing is known yet.
    #[must_use]
    pub const fn empty(start: DateTime<FixedOffset>) -> Self {
        Self { start, t: None, rh: None, wind: None, solar: None, rain: None }
    }

    /// The local day that the hour belongs to.
    #[must_use]
    pub fn date(&self) -> NaiveDate {
        self.start.date_naive()
    }
}

/// Where the cloudiness of an hour's sky came from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Cloud {
    /// The hour's own sun.
    Own,
    /// The last hour before with the sun high enough (\[ASCE-05\] p. 35).
    Carried,
    /// The next hour with the sun high enough, as none came before.
    FromNext,
    /// Taken as 0.7 of a clear sky: no hour of the series has the sun high enough.
    Assumed,
}

/// How an hour's reference ET was reached, and what was guessed on the way.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct HourlyMethod {
    /// Which reference surface.
    pub reference: Reference,
    /// Where the cloudiness came from.
    pub cloud: Cloud,
    /// Whether the dew point was taken near the local day's lowest temperature.
    pub humidity_guessed: bool,
    /// Whether the wind was guessed.
    pub wind_guessed: bool,
    /// Whether the sun was guessed from the local day's temperature range.
    pub sun_guessed: bool,
}

impl fmt::Display for HourlyMethod {
    /// The name used in files: the equation, then each choice and guess after a plus sign.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self.reference {
            Reference::Short => "asce-pm-short-hourly",
            Reference::Tall => "asce-pm-tall-hourly",
        })?;
        f.write_str(match self.cloud {
            Cloud::Own => "",
            Cloud::Carried => "+cloud-carried",
            Cloud::FromNext => "+cloud-from-next",
            Cloud::Assumed => "+cloud-assumed",
        })?;
        for (guessed, name) in [
            (self.humidity_guessed, "+humidity-from-tmin"),
            (self.sun_guessed, "+sun-from-range"),
            (self.wind_guessed, "+wind-assumed"),
        ] {
            f.write_str(if guessed { name } else { "" })?;
        }
        Ok(())
    }
}

/// An hour's reference ET with everything it was made from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HourlyEt0 {
    /// Reference ET, mm; slightly negative on some nights (dew), and kept so.
    pub et0_mm: f64,
    /// How it was reached.
    pub method: HourlyMethod,
    /// The sky of the hour.
    pub sky: HourSky,
    /// The terms of the equation, in MJ/m² an hour.
    pub terms: Terms,
}

/// Share of a clear sky's radiation where no hour of a series tells it; between what FAO-56 p. 75 gives for humid
/// (0.4 to 0.6) and dry places (0.7 to 0.8), from memory.
const ASSUMED_CLEARNESS: f64 = 0.7;

impl Site {
    /// Reference ET of each hour, in the order given; `None` where the temperature is missing.
    ///
    /// Source: \[ASCE-05\] eq. 1 with the hourly constants of table 1, by day and by night as net radiation is above
    /// 0 or not. Hours with the sun below 0.3 rad carry the cloudiness of the last hour, by time, with a higher one.
    /// Missing values are stood in for as on days: humidity by the dew point near the local day's lowest
    /// temperature (FAO-56 eq. 48), sun by its temperature range (eq. 50, with the hour's Ra), wind by the site's.
    #[must_use]
    pub fn hourly_et0(&self, hours: &[HourlyWeather], reference: Reference) -> Vec<Option<HourlyEt0>> {
        let ranges = temperature_ranges(hours);
        let skies: Vec<HourSky> = hours.iter().map(|h| HourSky::at(&self.position, h.start.to_utc())).collect();
        let suns: Vec<Option<Sun>> =
            hours.iter().zip(&skies).map(|(hour, sky)| self.sun(hour, sky, ranges.get(&hour.date()))).collect();
        let clouds = clouds(hours, &skies, &suns);
        let hour = |i: usize| {
            let (hour, sun) = (hours.get(i)?, (*suns.get(i)?)?);
            let low = ranges.get(&hour.date())?.0;
            self.hour(hour, low, *skies.get(i)?, sun, *clouds.get(i)?, reference)
        };
        (0..hours.len()).map(hour).collect()
    }

    /// The same for the local days of a series one after another, each with its hours in order: what is kept of thirty
    /// years is what `each` keeps of a day.
    pub(super) fn hourly_et0_by_day<'a>(
        &self,
        days: impl Iterator<Item = &'a [HourlyWeather]> + Clone,
        reference: Reference,
        mut each: impl FnMut(&'a [HourlyWeather], &[Option<HourlyEt0>]),
    ) {
        let with_sun = |day: &'a [HourlyWeather]| {
            let range = day.iter().fold(None, widened);
            day.iter().map(move |hour| {
                let sky = HourSky::at(&self.position, hour.start.to_utc());
                (hour, range, sky, self.sun(hour, &sky, range.as_ref()))
            })
        };
        let first = days.clone().flat_map(with_sun).find_map(|(.., sky, sun)| own_cloudiness(&sky, sun));
        let mut carry = Carry::before(first);
        let mut et0 = Vec::new();
        for day in days {
            et0.clear();
            et0.extend(with_sun(day).map(|(hour, range, sky, sun)| {
                let cloud = carry.next(own_cloudiness(&sky, sun));
                self.hour(hour, range?.0, sky, sun?, cloud, reference)
            }));
            each(day, &et0);
        }
    }

    /// Clear-sky radiation of an hour, MJ/m². Source: \[FAO-56\] eq. 37 with the hour's Ra.
    #[must_use]
    pub fn clear_sky_hour(&self, start: DateTime<Utc>) -> f64 {
        clear_sky(self.position.elevation_m(), HourSky::at(&self.position, start).ra)
    }

    fn sun(&self, hour: &HourlyWeather, sky: &HourSky, range: Option<&(f64, f64)>) -> Option<Sun> {
        let rso = clear_sky(self.position.elevation_m(), sky.ra);
        let guessed = hour.solar.is_none();
        let (t_min, t_max) = *range?;
        let rs = hour.solar.unwrap_or_else(|| solar_from_range(self.guesses.k_rs, t_max, t_min, sky.ra, rso));
        // Pyranometers read a little below 0 at night.
        Some(Sun { rs: rs.max(0.0), rso, guessed })
    }

    fn hour(
        &self,
        hour: &HourlyWeather,
        t_min: f64,
        sky: HourSky,
        sun: Sun,
        (f_cd, cloud): (f64, Cloud),
        reference: Reference,
    ) -> Option<HourlyEt0> {
        let t = hour.t?;
        let es = saturation_vapour_pressure(t);
        // A sensor that reads a little over saturation means saturation.
        let guess = || saturation_vapour_pressure(t_min - self.guesses.dew_point_below_t_min).min(es);
        let ea = hour.rh.map_or_else(guess, |rh| es * rh.min(100.0) / 100.0);
        let (rns, rnl) = (net_shortwave(sun.rs), net_longwave_hour(t, ea, f_cd));
        let rn = rns - rnl;
        let by_day = rn > 0.0;
        let input = PenmanMonteithInput {
            t,
            delta: vapour_pressure_slope(t),
            gamma: self.gamma,
            rn,
            g: reference.soil_heat_share(by_day) * rn,
            u2: hour.wind.map_or(self.guesses.wind_2m, |uz| uz * self.wind_factor),
            es,
            ea,
        };
        let method = HourlyMethod {
            reference,
            cloud,
            humidity_guessed: hour.rh.is_none(),
            wind_guessed: hour.wind.is_none(),
            sun_guessed: sun.guessed,
        };
        Some(HourlyEt0 {
            et0_mm: penman_monteith_with(&input, reference.hourly_constants(by_day)),
            method,
            sky,
            terms: Terms { input, rs: sun.rs, rso: sun.rso, rns, rnl },
        })
    }
}

/// The sun of an hour, measured or guessed, and under a clear sky, MJ/m².
#[derive(Debug, Clone, Copy)]
struct Sun {
    rs: f64,
    rso: f64,
    guessed: bool,
}

/// Lowest and highest hourly temperature of each local day, °C.
fn temperature_ranges(hours: &[HourlyWeather]) -> BTreeMap<NaiveDate, (f64, f64)> {
    let mut ranges: BTreeMap<NaiveDate, (f64, f64)> = BTreeMap::new();
    for hour in hours {
        if let Some(range) = widened(ranges.get(&hour.date()).copied(), hour) {
            ranges.insert(hour.date(), range);
        }
    }
    ranges
}

/// A range of temperatures with that of one more hour.
fn widened(range: Option<(f64, f64)>, hour: &HourlyWeather) -> Option<(f64, f64)> {
    match (range, hour.t) {
        (Some((low, high)), Some(t)) => Some((low.min(t), high.max(t))),
        (range, t) => range.or(t.map(|t| (t, t))),
    }
}

/// The cloudiness factor of the last hour with the sun high enough.
#[derive(Debug, Clone, Copy)]
struct Carry((f64, Cloud));

impl Carry {
    /// Before the first hour of a series: `first` is the factor of its first hour with the sun high enough.
    fn before(first: Option<f64>) -> Self {
        Self(match first {
            Some(next) => (next, Cloud::FromNext),
            None => (cloudiness(ASSUMED_CLEARNESS, 1.0), Cloud::Assumed),
        })
    }

    /// The factor of the next hour, which has its own where the sun is high enough.
    fn next(&mut self, own: Option<f64>) -> (f64, Cloud) {
        let Some(f_cd) = own else { return self.0 };
        self.0 = (f_cd, Cloud::Carried);
        (f_cd, Cloud::Own)
    }
}

/// The cloudiness factor of an hour by its own sun; `None` where that is too low.
fn own_cloudiness(sky: &HourSky, sun: Option<Sun>) -> Option<f64> {
    sun.filter(|_| sky.is_high()).map(|s| cloudiness(s.rs, s.rso))
}

/// The cloudiness factor of each hour, carried through those with a low sun in the order of time.
fn clouds(hours: &[HourlyWeather], skies: &[HourSky], suns: &[Option<Sun>]) -> Vec<(f64, Cloud)> {
    let mut order: Vec<usize> = (0..hours.len()).collect();
    order.sort_by_key(|i| hours[*i].start);
    let own = |i: usize| own_cloudiness(&skies[i], suns[i]);
    let mut carry = Carry::before(order.iter().find_map(|i| own(*i)));
    let mut out = vec![carry.0; hours.len()];
    for i in order {
        out[i] = carry.next(own(i));
    }
    out
}

#[cfg(test)]
mod tests {
    use super::super::example_hours::{day, site};
    use super::*;

    #[test]
    fn nights_carry_the_cloud_of_the_afternoon_before() {
        let mut hours = day("2015-07-06", 0.5);
        hours.extend(day("2015-07-07", 1.0));
        let et0 = site().hourly_et0(&hours, Reference::Short);
        let cloud = |i: usize| et0[i].unwrap().method.cloud;
        assert_eq!(
            (cloud(0), cloud(12), cloud(23), cloud(25)),
            (Cloud::FromNext, Cloud::Own, Cloud::Carried, Cloud::Carried)
        );
        // The second night is under the first day's half-clear sky, the hours before it was known too.
        let f_cd = |i: usize| {
            let t = et0[i].unwrap().terms;
            t.rnl / net_longwave_hour(t.input.t, t.input.ea, 1.0)
        };
        assert!((f_cd(25) - cloudiness(0.5, 1.0)).abs() < 1e-9);
        assert!((f_cd(36) - 1.0).abs() < 1e-9);
        let name = et0[25].unwrap().method.to_string();
        assert_eq!(name, "asce-pm-short-hourly+cloud-carried");
    }

    #[test]
    fn the_order_of_the_rows_does_not_matter() {
        let hours = day("2015-07-06", 0.7);
        let mut turned = hours.clone();
        turned.reverse();
        let mut et0 = site().hourly_et0(&turned, Reference::Tall);
        et0.reverse();
        assert_eq!(et0, site().hourly_et0(&hours, Reference::Tall));
    }

    #[test]
    fn what_is_missing_is_stood_in_for_and_said() {
        let hours: Vec<_> = day("2015-07-06", 0.7)
            .into_iter()
            .map(|h| HourlyWeather { rh: None, wind: None, solar: None, ..h })
            .collect();
        let noon = site().hourly_et0(&hours, Reference::Short)[12].unwrap();
        assert_eq!(noon.method.to_string(), "asce-pm-short-hourly+humidity-from-tmin+sun-from-range+wind-assumed");
        assert!(noon.et0_mm > 0.2 && noon.et0_mm < 1.0, "{}", noon.et0_mm);
        let mut gap = hours;
        gap[3].t = None;
        assert!(site().hourly_et0(&gap, Reference::Short)[3].is_none());
        assert!(site().hourly_et0(&[], Reference::Short).is_empty());
    }
}
