//! What is wrong, or doubtful, with a day or a series (ASCE-EWRI 2005 appendix D, FAO-56 annex 5).

use chrono::NaiveDate;

use super::daily::{DailyWeather, Site};
use crate::quantity::{OutOfRange, Range, range};

/// Something wrong with one day. See [`DayIssue::is_fault`] for which of them bar the day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum DayIssue {
    /// A value that its quantity cannot take.
    OutOfRange(OutOfRange),
    /// The lowest temperature stands above the highest.
    TminAboveTmax {
        /// Lowest, °C.
        t_min: f64,
        /// Highest, °C.
        t_max: f64,
    },
    /// A humidity over 100 % that is taken as 100.
    OverSaturation {
        /// The reading, %.
        rh: f64,
    },
    /// The lowest relative humidity stands above the highest.
    RhMinAboveMax,
    /// The dew point stands above the highest temperature.
    DewPointAboveTmax,
    /// More sun than a clear sky gives, by more than 5 %.
    SolarAboveClearSky {
        /// The reading, MJ/m².
        solar: f64,
        /// What a clear sky gives here on this day, MJ/m².
        clear_sky: f64,
    },
}

impl DayIssue {
    /// Whether it is an error, so that the day has no figure. The others are flags.
    #[must_use]
    pub const fn is_fault(&self) -> bool {
        matches!(self, Self::OutOfRange(_) | Self::TminAboveTmax { .. } | Self::RhMinAboveMax)
    }
}

/// All that is wrong with a day, faults first.
///
/// `site` is needed for the clear-sky envelope; without it that one check is left out.
#[must_use]
pub fn check_day(day: &DailyWeather, site: Option<&Site>) -> Vec<DayIssue> {
    let mut issues = Vec::new();
    let limits: [(Option<f64>, Range); 9] = [
        (day.t_max, range::TEMPERATURE),
        (day.t_min, range::TEMPERATURE),
        (day.rh_max, range::HUMIDITY),
        (day.rh_min, range::HUMIDITY),
        (day.rh_mean, range::HUMIDITY),
        (day.dew_point, range::TEMPERATURE),
        (day.wind, range::WIND),
        (day.solar, range::SOLAR),
        (day.rain, range::RAIN),
    ];
    issues.extend(out_of_range(limits).map(DayIssue::OutOfRange));
    if let (Some(t_max), Some(t_min)) = (day.t_max, day.t_min)
        && t_min > t_max
    {
        issues.push(DayIssue::TminAboveTmax { t_min, t_max });
    }
    if let (Some(max), Some(min)) = (day.rh_max, day.rh_min)
        && min > max
    {
        issues.push(DayIssue::RhMinAboveMax);
    }
    if let Some(rh) =
        [day.rh_max, day.rh_min, day.rh_mean].into_iter().flatten().find(|rh| *rh > 100.0 && *rh <= range::HUMIDITY.max)
    {
        issues.push(DayIssue::OverSaturation { rh });
    }
    if let (Some(dew_point), Some(t_max)) = (day.dew_point, day.t_max)
        && dew_point > t_max
    {
        issues.push(DayIssue::DewPointAboveTmax);
    }
    if let (Some(solar), Some(site)) = (day.solar, site) {
        let clear_sky = site.clear_sky(day.date);
        if solar > 1.05 * clear_sky {
            issues.push(DayIssue::SolarAboveClearSky { solar, clear_sky });
        }
    }
    issues
}

/// The values outside what their quantities can take.
pub(super) fn out_of_range(values: impl IntoIterator<Item = (Option<f64>, Range)>) -> impl Iterator<Item = OutOfRange> {
    values.into_iter().filter_map(|(value, range)| range.check(value?).err())
}

/// Something wrong with the order or the run of a series; `index` is the row it is noticed at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SeriesIssue {
    /// The same day stands twice: nobody can tell which is right.
    Duplicate {
        /// The second row.
        index: usize,
        /// The row that has the day already.
        first: usize,
    },
    /// The row's day comes before the day of the row above it.
    OutOfOrder {
        /// The row.
        index: usize,
    },
    /// Days are missing before this row.
    Gap {
        /// The first row after the gap.
        index: usize,
        /// How many days are missing.
        days: i64,
    },
    /// The highest temperature has not moved for several days: a stuck sensor.
    Stuck {
        /// The last row of the run.
        index: usize,
        /// How many days in a row have the same value.
        days: usize,
    },
}

impl SeriesIssue {
    /// The row that the issue is noticed at.
    #[must_use]
    pub const fn index(&self) -> usize {
        match *self {
            Self::Duplicate { index, .. }
            | Self::OutOfOrder { index }
            | Self::Gap { index, .. }
            | Self::Stuck { index, .. } => index,
        }
    }

    /// Whether the series cannot be imported.
    #[must_use]
    pub const fn is_fault(&self) -> bool {
        matches!(self, Self::Duplicate { .. })
    }
}

/// Days in a row with the same highest temperature, to a tenth, that count as stuck.
const STUCK_DAYS: usize = 7;

/// What the run of a series is checked by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RunDay {
    /// The day.
    pub date: NaiveDate,
    /// Its highest temperature, °C.
    pub t_max: Option<f64>,
}

impl From<&DailyWeather> for RunDay {
    fn from(day: &DailyWeather) -> Self {
        Self { date: day.date, t_max: day.t_max }
    }
}

/// All that is wrong with the run of a series.
#[must_use]
pub fn check_series(days: impl Iterator<Item = RunDay> + Clone) -> Vec<SeriesIssue> {
    let mut issues = Vec::new();
    let mut order: Vec<(NaiveDate, usize)> = days.clone().map(|d| d.date).zip(0..).collect();
    order.sort_unstable();
    for pair in order.windows(2) {
        let [(date, first), (next, index)] = pair else { continue };
        match (*next - *date).num_days() {
            0 => issues.push(SeriesIssue::Duplicate { index: *index, first: *first }),
            1 => {}
            apart => issues.push(SeriesIssue::Gap { index: *index, days: apart - 1 }),
        }
    }
    let mut same = 1;
    for (index, (above, row)) in (1..).zip(days.clone().zip(days.skip(1))) {
        if row.date < above.date {
            issues.push(SeriesIssue::OutOfOrder { index });
        }
        same = if row.t_max.is_some() && row.t_max == above.t_max { same + 1 } else { 1 };
        if same == STUCK_DAYS {
            issues.push(SeriesIssue::Stuck { index, days: same });
        }
    }
    issues.sort_by_key(SeriesIssue::index);
    issues
}

#[cfg(test)]
mod tests {
    use super::super::daily::Guesses;
    use super::*;
    use crate::place::Position;

    fn on(day: i64) -> DailyWeather {
        let date = NaiveDate::from_ymd_opt(2019, 1, 1).unwrap() + chrono::TimeDelta::days(day);
        DailyWeather { t_max: Some(10.0 + day as f64 * 0.1), t_min: Some(2.0), ..DailyWeather::empty(date) }
    }

    #[test]
    fn a_sound_day_has_no_issue() {
        assert_eq!(check_day(&on(0), None), []);
    }

    #[test]
    fn crossed_temperatures_and_impossible_values_are_faults() {
        let crossed = DailyWeather { t_max: Some(1.0), t_min: Some(4.0), ..on(0) };
        assert!(check_day(&crossed, None).iter().all(DayIssue::is_fault));
        let hot = DailyWeather { t_max: Some(75.0), ..on(0) };
        assert!(matches!(check_day(&hot, None)[..], [DayIssue::OutOfRange(out)] if out.value == 75.0));
    }

    #[test]
    fn a_little_over_saturation_and_over_the_clear_sky_are_flags() {
        let site = Site::new(&Position::new(45.0, 0.0, 0.0).unwrap(), 2.0, Guesses::default()).unwrap();
        let day = DailyWeather { rh_max: Some(101.0), solar: Some(site.clear_sky(on(0).date) * 1.2), ..on(0) };
        let issues = check_day(&day, Some(&site));
        assert_eq!(issues.len(), 2);
        assert!(!issues.iter().any(DayIssue::is_fault));
    }

    #[test]
    fn duplicates_gaps_and_stuck_sensors_are_found_at_their_row() {
        assert_eq!(
            check_series([on(0), on(1), on(1)].iter().map(RunDay::from))[..],
            [SeriesIssue::Duplicate { index: 2, first: 1 }]
        );
        assert_eq!(
            check_series([on(0), on(1), on(1097)].iter().map(RunDay::from))[..],
            [SeriesIssue::Gap { index: 2, days: 1095 }]
        );
        assert_eq!(check_series([on(1), on(0)].iter().map(RunDay::from))[..], [SeriesIssue::OutOfOrder { index: 1 }]);
        let stuck: Vec<_> = (0..8).map(|d| DailyWeather { t_max: Some(20.0), ..on(d) }).collect();
        assert_eq!(check_series(stuck.iter().map(RunDay::from))[..], [SeriesIssue::Stuck { index: 6, days: 7 }]);
    }
}
