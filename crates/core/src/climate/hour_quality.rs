//! What is wrong, or doubtful, with an hour or a series of hours (ASCE-EWRI 2005 appendix D, FAO-56 annex 5).

use chrono::TimeDelta;

use super::daily::Site;
use super::hour_sky::HourSky;
use super::hourly::HourlyWeather;
use super::quality::out_of_range;
use super::radiation::clear_sky;
use crate::quantity::{OutOfRange, Range, range};

/// Something wrong with one hour. See [`HourIssue::is_fault`] for which of them bar the hour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum HourIssue {
    /// A value that its quantity cannot take.
    OutOfRange(OutOfRange),
    /// A humidity over 100 % that is taken as 100.
    OverSaturation {
        /// The reading, %.
        rh: f64,
    },
    /// More sun than a clear sky gives, by more than 10 %, with the sun high enough to judge it.
    SolarAboveClearSky {
        /// The reading, MJ/m² in the hour.
        solar: f64,
        /// What a clear sky gives here in this hour, MJ/m².
        clear_sky: f64,
    },
    /// Sun while it is below the horizon for the whole hour: the clock of the file is likely off.
    SolarAtNight {
        /// The reading, MJ/m² in the hour.
        solar: f64,
    },
}

impl HourIssue {
    /// Whether it is an error, so that the hour has no figure. The others are flags.
    #[must_use]
    pub const fn is_fault(&self) -> bool {
        matches!(self, Self::OutOfRange(_))
    }
}

/// How far a bright hour may exceed the clear sky of FAO-56 eq. 37: broken clouds reflect sun onto the sensor.
const CLEAR_SKY_MARGIN: f64 = 1.1;

/// The least sun at night that is no noise of the sensor, MJ/m² in the hour (5 W/m²).
const NIGHT_NOISE: f64 = 0.018;

/// All that is wrong with an hour, faults first.
#[must_use]
pub fn check_hour(hour: &HourlyWeather, site: &Site) -> Vec<HourIssue> {
    let mut issues = Vec::new();
    let limits: [(Option<f64>, Range); 5] = [
        (hour.t, range::TEMPERATURE),
        (hour.rh, range::HUMIDITY),
        (hour.wind, range::WIND),
        (hour.solar, range::SOLAR_HOUR),
        (hour.rain, range::RAIN_HOUR),
    ];
    issues.extend(out_of_range(limits).map(HourIssue::OutOfRange));
    if let Some(rh) = hour.rh.filter(|rh| *rh > 100.0 && *rh <= range::HUMIDITY.max) {
        issues.push(HourIssue::OverSaturation { rh });
    }
    if let Some(solar) = hour.solar {
        let sky = HourSky::at(&site.position(), hour.start.to_utc());
        let clear_sky = clear_sky(site.position().elevation_m(), sky.ra);
        if sky.is_high() && solar > CLEAR_SKY_MARGIN * clear_sky {
            issues.push(HourIssue::SolarAboveClearSky { solar, clear_sky });
        }
        if is_sun_at_night(&sky, solar) {
            issues.push(HourIssue::SolarAtNight { solar });
        }
    }
    issues
}

/// Whether the sun of a day shines at night: its hours are likely those of another clock.
#[must_use]
pub fn has_sun_at_night(hours: &[HourlyWeather], site: &Site) -> bool {
    let sky = |hour: &HourlyWeather| HourSky::at(&site.position(), hour.start.to_utc());
    hours.iter().any(|hour| hour.solar.is_some_and(|solar| is_sun_at_night(&sky(hour), solar)))
}

/// Whether it is more than the noise of a sensor, while the sun is below the horizon for the whole hour.
fn is_sun_at_night(sky: &HourSky, solar: f64) -> bool {
    solar > NIGHT_NOISE && sky.ra == 0.0
}

/// Something wrong with the order or the run of hours; `index` is the row it is noticed at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum HoursIssue {
    /// The row begins within the hour of another one, or is the same hour.
    Overlap {
        /// The row.
        index: usize,
        /// The row that has the time already.
        first: usize,
    },
    /// The row's hour comes before that of the row above it.
    OutOfOrder {
        /// The row.
        index: usize,
    },
    /// Hours are missing before this row.
    Gap {
        /// The first row after the gap.
        index: usize,
        /// How many hours are missing, begun ones counted.
        hours: i64,
    },
}

impl HoursIssue {
    /// The row that the issue is noticed at.
    #[must_use]
    pub const fn index(&self) -> usize {
        match *self {
            Self::Overlap { index, .. } | Self::OutOfOrder { index } | Self::Gap { index, .. } => index,
        }
    }
}

/// All that is wrong with the run of a series of hours.
#[must_use]
pub fn check_hours(hours: &[HourlyWeather]) -> Vec<HoursIssue> {
    let mut issues = Vec::new();
    let mut order: Vec<usize> = (0..hours.len()).collect();
    order.sort_by_key(|i| (hours[*i].start, *i));
    for pair in order.windows(2) {
        let [first, index] = *pair else { continue };
        let apart = hours[index].start - hours[first].start;
        if apart < TimeDelta::hours(1) {
            issues.push(HoursIssue::Overlap { index, first });
        } else if apart > TimeDelta::hours(1) {
            issues.push(HoursIssue::Gap { index, hours: (apart.num_seconds() - 1) / 3600 });
        }
    }
    for (index, pair) in (1..).zip(hours.windows(2)) {
        if matches!(pair, [above, row] if row.start < above.start) {
            issues.push(HoursIssue::OutOfOrder { index });
        }
    }
    issues.sort_by_key(HoursIssue::index);
    issues
}

#[cfg(test)]
mod tests {
    use super::super::daily::Guesses;
    use super::*;
    use crate::place::Position;
    use chrono::DateTime;

    fn at(text: &str) -> HourlyWeather {
        HourlyWeather::empty(DateTime::parse_from_rfc3339(text).unwrap())
    }

    fn site() -> Site {
        Site::new(&Position::new(45.0, 0.0, 0.0).unwrap(), 2.0, Guesses::default()).unwrap()
    }

    #[test]
    fn noise_at_night_is_nothing_and_sun_at_night_is_flagged() {
        let night = at("2019-06-10T00:00:00Z");
        assert_eq!(check_hour(&HourlyWeather { solar: Some(-0.01), ..night }, &site()), []);
        assert_eq!(
            check_hour(&HourlyWeather { solar: Some(1.0), ..night }, &site()),
            [HourIssue::SolarAtNight { solar: 1.0 }]
        );
        let of = |solar| [HourlyWeather { solar: Some(solar), ..night }];
        assert!(has_sun_at_night(&of(1.0), &site()) && !has_sun_at_night(&of(0.01), &site()));
        let noon = at("2019-06-10T11:00:00Z");
        assert!(!has_sun_at_night(&[HourlyWeather { solar: Some(2.0), ..noon }], &site()));
        let found = check_hour(&HourlyWeather { solar: Some(4.9), ..noon }, &site());
        assert!(matches!(found[..], [HourIssue::SolarAboveClearSky { .. }]));
        assert!(check_hour(&HourlyWeather { t: Some(75.0), ..noon }, &site()).iter().all(HourIssue::is_fault));
    }

    #[test]
    fn overlaps_gaps_and_order_are_found_at_their_row() {
        let run = |texts: &[&str]| check_hours(&texts.iter().map(|t| at(t)).collect::<Vec<_>>());
        assert_eq!(run(&["2019-03-31T01:00:00+01:00", "2019-03-31T03:00:00+02:00"]), []);
        let first = "2019-06-10T00:00:00Z";
        assert_eq!(run(&[first, first])[..], [HoursIssue::Overlap { index: 1, first: 0 }]);
        assert_eq!(run(&[first, "2019-06-10T00:30:00Z"])[..], [HoursIssue::Overlap { index: 1, first: 0 }]);
        assert_eq!(run(&[first, "2019-06-10T03:00:00Z"])[..], [HoursIssue::Gap { index: 1, hours: 2 }]);
        assert_eq!(run(&["2019-06-10T01:00:00Z", first])[..], [HoursIssue::OutOfOrder { index: 1 }]);
    }
}
