//! What a daily record holds: how complete its months are, and how far its years lie apart.

use std::collections::BTreeMap;

use chrono::{Datelike, NaiveDate};

use super::normals::NormalDay;
use crate::quantity::MonthOfYear;

/// A month of a year in a record.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MonthOnRecord {
    /// The year.
    pub year: i32,
    /// The month.
    pub month: MonthOfYear,
    /// The first day of it that the record should have: 1, or later in its first month.
    pub begins: u32,
    /// Days that the record should have of it: all, or fewer in its first and its last month.
    pub days_due: u32,
    /// Days with a reference ET.
    pub with_et0: u32,
    /// Days with rain measured, were it 0 mm.
    pub with_rain: u32,
    /// Their reference ET, mm.
    pub et0_mm: f64,
    /// Their rain, mm.
    pub rain_mm: f64,
}

impl MonthOnRecord {
    /// Days without a reference ET.
    #[must_use]
    pub const fn missing(&self) -> u32 {
        self.days_due.saturating_sub(self.with_et0)
    }

    /// Days of the calendar month.
    #[must_use]
    pub fn length(&self) -> u32 {
        u32::from(self.month.days_in(self.year))
    }
}

/// The months of a record from its first to its last day, none left out.
///
/// `until` is the last day that the record should have: its own last day, or later.
#[must_use]
pub fn months_on_record(days: &[NormalDay], until: NaiveDate) -> Vec<MonthOnRecord> {
    let Some(first) = days.iter().map(|d| d.date).min() else { return Vec::new() };
    let mut months: BTreeMap<(i32, u32), MonthOnRecord> = BTreeMap::new();
    for date in first.iter_days().take_while(|d| *d <= until) {
        let month = months.entry((date.year(), date.month0())).or_insert_with(|| MonthOnRecord {
            year: date.year(),
            month: MonthOfYear::of(date),
            begins: date.day(),
            days_due: 0,
            with_et0: 0,
            with_rain: 0,
            et0_mm: 0.0,
            rain_mm: 0.0,
        });
        month.days_due += 1;
    }
    for day in days {
        let Some(month) = months.get_mut(&(day.date.year(), day.date.month0())) else { continue };
        if let Some(et0) = day.et0_mm {
            month.with_et0 += 1;
            month.et0_mm += et0;
        }
        if let Some(rain) = day.rain_mm {
            month.with_rain += 1;
            month.rain_mm += rain;
        }
    }
    months.into_values().collect()
}

/// The rain of a calendar month, or of the year, in dry, middle and wet years, mm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// How many years it is from.
    pub years: usize,
    /// In the year that a fifth of the years are drier than.
    pub dry: f64,
    /// Median.
    pub middle: f64,
    /// In the year that a fifth of the years are wetter than.
    pub wet: f64,
    /// The rank of dry and wet from its end: 1 is the driest and the wettest.
    pub rank: usize,
}

impl Spread {
    /// The spread of some years' sums; none without a year. The rank is a fifth of the years, rounded, at
    /// least 1: the second of ten, the sixth of thirty.
    #[must_use]
    pub fn of(mut sums: Vec<f64>) -> Option<Self> {
        sums.sort_by(f64::total_cmp);
        let years = sums.len();
        let rank = ((years + 2) / 5).max(1);
        let dry = *sums.get(rank - 1)?;
        let wet = *sums.get(years.checked_sub(rank)?)?;
        let middle = f64::midpoint(*sums.get((years - 1) / 2)?, *sums.get(years / 2)?);
        Some(Self { years, dry, middle, wet, rank })
    }
}

/// Share of a month's days that must have rain measured for its sum to stand for the month.
const ENOUGH: f64 = 0.9;

/// The spread of rain of the twelve months, and that of the whole years. Months with less than nine tenths of
/// their days on record are left out; of the others the sum is scaled to the month's length. Source: own
/// method, common practice.
#[must_use]
pub fn rain_spread(months: &[MonthOnRecord]) -> ([Option<Spread>; 12], Option<Spread>) {
    let whole = |m: &&MonthOnRecord| f64::from(m.with_rain) >= ENOUGH * f64::from(m.length());
    let sum = |m: &MonthOnRecord| m.rain_mm / f64::from(m.with_rain) * f64::from(m.length());
    let by_month = MonthOfYear::ALL
        .map(|month| Spread::of(months.iter().filter(whole).filter(|m| m.month == month).map(sum).collect()));
    let mut years: BTreeMap<i32, (usize, f64)> = BTreeMap::new();
    for month in months.iter().filter(whole) {
        let year = years.entry(month.year).or_default();
        *year = (year.0 + 1, year.1 + sum(month));
    }
    let by_year = Spread::of(years.into_values().filter(|(n, _)| *n == 12).map(|(_, sum)| sum).collect());
    (by_month, by_year)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn date(year: i32, month: u32, day: u32) -> NaiveDate {
        NaiveDate::from_ymd_opt(year, month, day).unwrap()
    }

    /// Whole years; every day of a year has the year's rain.
    fn years(rain: &[f64]) -> Vec<NormalDay> {
        (2001..)
            .zip(rain)
            .flat_map(|(year, mm)| {
                date(year, 1, 1).iter_days().take_while(move |d| d.year() == year).map(|date| NormalDay {
                    date,
                    et0_mm: Some(2.0),
                    rain_mm: Some(*mm),
                })
            })
            .collect()
    }

    #[test]
    fn the_second_of_ten_years_is_dry_and_the_ninth_is_wet() {
        let days = years(&[3.0, 1.0, 2.0, 9.0, 5.0, 4.0, 8.0, 6.0, 7.0, 0.0]);
        let (by_month, by_year) = rain_spread(&months_on_record(&days, date(2010, 12, 31)));
        let june = by_month[5].unwrap();
        assert_eq!((june.dry, june.middle, june.wet), (30.0, 135.0, 240.0));
        assert_eq!((june.years, june.rank), (10, 2));
        assert_eq!(by_year.unwrap().dry, 365.0);
    }

    #[test]
    fn two_years_are_the_driest_and_the_wettest_and_none_have_no_spread() {
        let spread = Spread::of(vec![40.0, 20.0]).unwrap();
        assert_eq!((spread.dry, spread.middle, spread.wet, spread.rank), (20.0, 30.0, 40.0, 1));
        assert_eq!(Spread::of(vec![5.0]).map(|s| (s.dry, s.wet)), Some((5.0, 5.0)));
        assert_eq!(Spread::of(Vec::new()), None);
    }

    #[test]
    fn a_month_with_a_tenth_missing_is_scaled_and_one_with_more_is_left_out() {
        let mut days = years(&[1.0]);
        days.retain(|d| {
            ![(4, 1), (4, 2), (4, 3), (5, 1), (5, 2), (5, 3), (5, 4)].contains(&(d.date.month(), d.date.day()))
        });
        let months = months_on_record(&days, date(2001, 12, 31));
        assert_eq!((months[3].missing(), months[4].missing()), (3, 4));
        let (by_month, by_year) = rain_spread(&months);
        assert_eq!(by_month[3].map(|s| s.middle), Some(30.0));
        assert_eq!((by_month[4], by_year), (None, None));
    }

    #[test]
    fn the_first_and_last_month_owe_their_days_alone_and_months_between_are_all_there() {
        let days: Vec<NormalDay> = [date(2023, 11, 20), date(2024, 2, 29)]
            .map(|date| NormalDay { date, et0_mm: Some(1.0), rain_mm: None })
            .to_vec();
        let due: Vec<u32> = months_on_record(&days, date(2024, 3, 2)).iter().map(|m| m.days_due).collect();
        assert_eq!(due, [11, 31, 31, 29, 2]);
        assert_eq!(months_on_record(&[], date(2024, 3, 2)), []);
    }
}
