//! Normals that were entered give way to the months that are measured since.

use super::normals::{MonthNormal, Normals};
use super::record::MonthOnRecord;
use crate::quantity::MonthOfYear;

/// A calendar month over the years in which it was measured.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct MeasuredMonth {
    /// Years in which its reference ET was measured.
    pub et0_years: u32,
    /// Mean reference ET of those years, mm a day.
    pub et0_mm_per_day: f64,
    /// Years in which its rain was measured.
    pub rain_years: u32,
    /// Mean rain of those years, mm.
    pub rain_mm: f64,
}

/// Days of a month in ten that must be on record for the month to count. Who writes down rain only when it rains must
/// not make a wet normal of it. Source: own rule, common practice.
const DAYS_IN_TEN: u32 = 9;

/// The twelve calendar months as they were measured, whole months only.
#[must_use]
pub fn measured_months(months: &[MonthOnRecord]) -> [MeasuredMonth; 12] {
    let mut measured = [MeasuredMonth::default(); 12];
    for month in months {
        let of_year = &mut measured[month.month.index()];
        let is_whole = |days: u32| days * 10 >= month.length() * DAYS_IN_TEN;
        if is_whole(month.with_et0) {
            of_year.et0_years += 1;
            of_year.et0_mm_per_day += month.et0_mm / f64::from(month.with_et0);
        }
        if is_whole(month.with_rain) {
            of_year.rain_years += 1;
            of_year.rain_mm += month.rain_mm / f64::from(month.with_rain) * f64::from(month.length());
        }
    }
    for month in &mut measured {
        month.et0_mm_per_day /= f64::from(month.et0_years.max(1));
        month.rain_mm /= f64::from(month.rain_years.max(1));
    }
    measured
}

/// Entered normals with what was measured in their place: a month measured in `n` of `years` years is entered to
/// `1 - n / years`, and wholly measured from `years` on. A month without entered rain takes the measured one.
/// Source: own rule; a published normal is the mean of some thirty years, and one hot July is not yet the climate.
#[must_use]
pub fn giving_way(entered: &Normals, measured: &[MeasuredMonth; 12], years: u32) -> Normals {
    let share = |n: u32| (f64::from(n) / f64::from(years.max(1))).min(1.0);
    MonthOfYear::ALL.map(|m| {
        let (entered, measured) = (entered[m.index()], measured[m.index()]);
        let of_et0 = share(measured.et0_years);
        let of_rain =
            if entered.rain_mm.is_none() && measured.rain_years > 0 { 1.0 } else { share(measured.rain_years) };
        let rain = entered.rain_mm.unwrap_or(0.0);
        MonthNormal {
            et0_mm_per_day: entered.et0_mm_per_day + (measured.et0_mm_per_day - entered.et0_mm_per_day) * of_et0,
            rain_mm: (entered.rain_mm.is_some() || measured.rain_years > 0)
                .then_some(rain + (measured.rain_mm - rain) * of_rain),
        }
    })
}

/// Whether every month was measured in so many years: nothing of what was entered counts any longer.
#[must_use]
pub fn has_given_way(measured: &[MeasuredMonth; 12], years: u32) -> bool {
    measured.iter().all(|month| month.et0_years >= years)
}

#[cfg(test)]
mod tests {
    use chrono::{Days, NaiveDate};

    use super::*;
    use crate::climate::normals::NormalDay;
    use crate::climate::record::months_on_record;

    const ENTERED: Normals = [MonthNormal { et0_mm_per_day: 3.0, rain_mm: Some(60.0) }; 12];

    /// Days of 4 mm of reference ET and 1 mm of rain from a date on.
    fn days(from: &str, count: u64) -> Vec<NormalDay> {
        let first: NaiveDate = from.parse().unwrap();
        (0..count).map(|n| NormalDay { date: first + Days::new(n), et0_mm: Some(4.0), rain_mm: Some(1.0) }).collect()
    }

    fn measured(days: &[NormalDay]) -> [MeasuredMonth; 12] {
        measured_months(&months_on_record(days, days.last().unwrap().date))
    }

    #[test]
    fn a_month_gives_way_by_a_third_with_every_year() {
        // June of three years; July of the first one alone.
        let mut on_record = days("2024-06-01", 61);
        let mut july = Vec::new();
        for (from, june) in [("2025-06-01", [3.0 + 2.0 / 3.0, 40.0]), ("2026-06-01", [4.0, 30.0])] {
            on_record.extend(days(from, 30));
            let normals = giving_way(&ENTERED, &measured(&on_record), 3);
            assert!((normals[5].et0_mm_per_day - june[0]).abs() < 1e-9);
            assert!((normals[5].rain_mm.unwrap() - june[1]).abs() < 1e-9);
            july.push(normals[6].et0_mm_per_day);
            assert_eq!(normals[0], ENTERED[0], "nothing was measured in January");
        }
        assert!(july.iter().all(|mm| (mm - (3.0 + 1.0 / 3.0)).abs() < 1e-9), "{july:?}");
        assert!(!has_given_way(&measured(&on_record), 3));
        assert!(has_given_way(&measured(&days("2023-01-01", 366 + 365 + 365)), 3));
    }

    #[test]
    fn part_of_a_month_does_not_count() {
        for (count, years) in [(26, 0), (27, 1), (30, 1)] {
            let june = measured(&days("2026-06-01", count))[5];
            assert_eq!((june.et0_years, june.rain_years), (years, years), "{count} days");
        }
        // Nine days in ten with a mean of 1 mm a day are a month of 30 mm.
        assert!((measured(&days("2026-06-01", 27))[5].rain_mm - 30.0).abs() < 1e-9);
        // The wet days alone.
        let wet: Vec<_> = days("2026-06-01", 30).into_iter().step_by(5).collect();
        assert_eq!(measured(&wet)[5].rain_years, 0);
    }

    #[test]
    fn measured_rain_stands_in_for_none_entered() {
        let without = ENTERED.map(|m| MonthNormal { rain_mm: None, ..m });
        let normals = giving_way(&without, &measured(&days("2026-06-01", 30)), 3);
        assert!((normals[5].rain_mm.unwrap() - 30.0).abs() < 1e-9);
        assert_eq!(normals[6].rain_mm, None);
    }
}
