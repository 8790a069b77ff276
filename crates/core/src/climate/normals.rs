//! Twelve months out of many days.

use chrono::{Datelike, NaiveDate};
use thiserror::Error;

use super::radiation::Sky;
use super::reference_et::hargreaves;
use crate::quantity::MonthOfYear;

/// A month of an average year at a place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MonthNormal {
    /// Reference ET, mean of the month's days, mm a day.
    pub et0_mm_per_day: f64,
    /// Rain of the month, mm; `None` when no rain was measured in it.
    pub rain_mm: Option<f64>,
}

/// The twelve months, January first.
pub type Normals = [MonthNormal; 12];

/// One day as the normals need it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NormalDay {
    /// The local day.
    pub date: NaiveDate,
    /// Reference ET, mm; `None` where it could not be worked out.
    pub et0_mm: Option<f64>,
    /// Rain, mm; `None` where it was not measured.
    pub rain_mm: Option<f64>,
}

/// Why there are no normals.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum NormalsError {
    /// Some months have no day with a reference ET; they are named by their numbers.
    #[error("no day with a reference ET in month {}", numbers(.0))]
    MonthsMissing(Vec<MonthOfYear>),
}

fn numbers(months: &[MonthOfYear]) -> String {
    months.iter().map(|m| m.number().to_string()).collect::<Vec<_>>().join(", ")
}

/// Monthly normals of a series.
///
/// Each month's reference ET is the mean over all its days in all years, so that a part month
/// counts by its days and a 29 February like any other day; rain is the mean a day times the
/// month's mean length (28.25 days in February). Source: own method, common practice.
///
/// # Errors
/// [`NormalsError::MonthsMissing`] when a month has no day with a reference ET, as in a series
/// shorter than a year.
pub fn monthly_normals(days: impl IntoIterator<Item = NormalDay>) -> Result<Normals, NormalsError> {
    #[derive(Clone, Copy, Default)]
    struct Sum {
        et0: f64,
        et0_days: u32,
        rain: f64,
        rain_days: u32,
    }
    let mut sums = [Sum::default(); 12];
    for day in days {
        let sum = &mut sums[day.date.month0() as usize];
        if let Some(et0) = day.et0_mm {
            sum.et0 += et0;
            sum.et0_days += 1;
        }
        if let Some(rain) = day.rain_mm {
            sum.rain += rain;
            sum.rain_days += 1;
        }
    }
    let missing: Vec<_> = MonthOfYear::ALL.into_iter().filter(|m| sums[m.index()].et0_days == 0).collect();
    if !missing.is_empty() {
        return Err(NormalsError::MonthsMissing(missing));
    }
    Ok(MonthOfYear::ALL.map(|month| {
        let sum = sums[month.index()];
        MonthNormal {
            // A month of hard frost can sum to a hair under nothing.
            et0_mm_per_day: (sum.et0 / f64::from(sum.et0_days)).max(0.0),
            rain_mm: (sum.rain_days > 0).then(|| sum.rain / f64::from(sum.rain_days) * month.mean_days()),
        }
    }))
}

/// A month as a climate summary prints it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MonthSummary {
    /// Mean of the daily highs, °C.
    pub t_max: f64,
    /// Mean of the daily lows, °C.
    pub t_min: f64,
    /// Rain of the month, mm, where the summary has it.
    pub rain_mm: Option<f64>,
}

/// Normals of a place from mean highs, lows and rain: Hargreaves and Samani's reference ET of each day of the month
/// under those temperatures. Source: \[HS-85\]; \[FAO-56\] eq. 52, with Ra by eq. 21 day by day.
///
/// ```
/// use upland_core::climate::normals::{MonthSummary, normals_of_summary};
/// // FAO-56 example 20: 45.72° N, 26.6 and 14.8 °C, printed 5.0 mm on 15 July.
/// let july = normals_of_summary(45.72, &[MonthSummary { t_max: 26.6, t_min: 14.8, rain_mm: None }; 12])[6];
/// assert!((july.et0_mm_per_day - 5.0).abs() < 0.05);
/// ```
#[must_use]
pub fn normals_of_summary(latitude_deg: f64, months: &[MonthSummary; 12]) -> Normals {
    let mut day_of_year = 0;
    let mut normals = [MonthNormal { et0_mm_per_day: 0.0, rain_mm: None }; 12];
    for ((summary, month), normal) in months.iter().zip(MonthOfYear::ALL).zip(&mut normals) {
        // A common year; 29 February is like the 28th.
        let days = month.mean_days().floor() as u32;
        let sum: f64 = (1..=days)
            .map(|day| hargreaves(summary.t_max, summary.t_min, Sky::at(latitude_deg, day_of_year + day).ra))
            .sum();
        day_of_year += days;
        *normal = MonthNormal { et0_mm_per_day: sum / f64::from(days), rain_mm: summary.rain_mm };
    }
    normals
}

#[cfg(test)]
mod tests {
    use super::*;

    fn year(from: (i32, u32, u32), days: i64, value: impl Fn(NaiveDate) -> f64) -> Vec<NormalDay> {
        let first = NaiveDate::from_ymd_opt(from.0, from.1, from.2).unwrap();
        (0..days)
            .map(|d| first + chrono::TimeDelta::days(d))
            .map(|date| NormalDay { date, et0_mm: Some(value(date)), rain_mm: Some(1.0) })
            .collect()
    }

    #[test]
    fn a_leap_february_counts_twenty_nine_days() {
        let days = year((2016, 1, 1), 366, |d| if d.month() == 2 && d.day() == 29 { 30.0 } else { 1.0 });
        let normals = monthly_normals(days).unwrap();
        assert!((normals[1].et0_mm_per_day - (28.0 + 30.0) / 29.0).abs() < 1e-12);
        assert!((normals[1].rain_mm.unwrap() - 28.25).abs() < 1e-12);
    }

    #[test]
    fn a_part_month_counts_by_its_days() {
        // January 2017 whole at 1 mm, January 2018 ten days at 5 mm: (31 + 50) / 41.
        let days = year((2017, 1, 1), 375, |d| if d.year() == 2018 { 5.0 } else { 1.0 });
        let normals = monthly_normals(days).unwrap();
        assert!((normals[0].et0_mm_per_day - 81.0 / 41.0).abs() < 1e-12);
    }

    #[test]
    fn a_series_without_winter_has_no_normals() {
        let error = monthly_normals(year((2019, 3, 1), 250, |_| 1.0)).unwrap_err();
        assert_eq!(error.to_string(), "no day with a reference ET in month 1, 2, 12");
    }

    #[test]
    fn a_summary_follows_the_sun_of_its_hemisphere() {
        let even = [MonthSummary { t_max: 22.0, t_min: 10.0, rain_mm: Some(40.0) }; 12];
        let (north, south) = (normals_of_summary(45.0, &even), normals_of_summary(-45.0, &even));
        assert!(north[5].et0_mm_per_day > 2.0 * north[11].et0_mm_per_day);
        assert!(south[11].et0_mm_per_day > 2.0 * south[5].et0_mm_per_day);
        assert!(north.iter().all(|m| m.rain_mm == Some(40.0)));
    }

    #[test]
    fn days_without_a_figure_are_left_out_of_the_mean() {
        let mut days = year((2019, 1, 1), 365, |_| 2.0);
        days[3].et0_mm = None;
        days[4].rain_mm = None;
        let normals = monthly_normals(days).unwrap();
        assert_eq!(normals[0].et0_mm_per_day, 2.0);
        assert!((normals[0].rain_mm.unwrap() - 31.0).abs() < 1e-12);
    }
}
