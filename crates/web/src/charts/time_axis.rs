//! Lines and names along a time axis: weeks, months or years, by how long it is.

use chrono::{Datelike, NaiveDate};

use crate::show::{Fixed, date_tiny, month_of, month_short, number};

/// An axis from the start of its first day to the end of its last.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct TimeAxis {
    pub(super) first: NaiveDate,
    pub(super) last: NaiveDate,
    pub(super) left: f64,
    pub(super) right: f64,
}

/// A line at the start of a stretch, the middle of the stretch, and its name where there is room for it.
pub(crate) type Tick = (Fixed, Fixed, String);

impl TimeAxis {
    /// How wide a day is.
    pub(super) fn day(&self) -> f64 {
        (self.right - self.left) / ((self.last - self.first).num_days() + 1) as f64
    }

    /// Where a day starts.
    pub(super) fn start(&self, date: NaiveDate) -> f64 {
        self.left + self.day() * (date - self.first).num_days() as f64
    }

    /// The middle of a day.
    pub(super) fn middle(&self, date: NaiveDate) -> f64 {
        self.start(date) + self.day() / 2.0
    }

    /// Mondays of up to six weeks, months of up to two years, years of more.
    pub(super) fn ticks(&self) -> Vec<Tick> {
        let days = (self.last - self.first).num_days();
        let (by_week, by_month) = (days <= 45, days <= 740);
        let begins = |date: NaiveDate| {
            if by_week {
                date.weekday().num_days_from_monday() == 0
            } else {
                date.day() == 1 && (by_month || date.month() == 1)
            }
        };
        let name = |date: NaiveDate| {
            if by_week {
                date_tiny(date)
            } else if by_month {
                month_short(month_of(date))
            } else {
                number(f64::from(date.year()), 0)
            }
        };
        let starts: Vec<NaiveDate> =
            self.first.iter_days().take_while(|d| *d <= self.last).filter(|d| *d == self.first || begins(*d)).collect();
        let room = if by_week { 44.0 } else { 24.0 };
        // Of many years every second, fifth or tenth has its name.
        let years = starts.len() as f64 * 34.0 / (self.right - self.left);
        let every = [1, 2, 5, 10, 20, 50].into_iter().find(|n| years <= f64::from(*n)).unwrap_or(100);
        (0..starts.len())
            .map(|i| {
                let next = starts.get(i + 1).map_or(self.right, |date| self.start(*date));
                let from = self.start(starts[i]);
                let named = if by_month { next - from > room } else { starts[i].year() % every == 0 };
                let label = if named { name(starts[i]) } else { String::new() };
                (Fixed(from), Fixed(f64::midpoint(from, next)), label)
            })
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn names(first: (i32, u32, u32), last: (i32, u32, u32)) -> Vec<String> {
        let date = |(y, m, d)| NaiveDate::from_ymd_opt(y, m, d).unwrap();
        let axis = TimeAxis { first: date(first), last: date(last), left: 46.0, right: 778.0 };
        axis.ticks().into_iter().map(|(.., name)| name).filter(|name| !name.is_empty()).collect()
    }

    #[test]
    fn weeks_months_and_years_are_named_where_there_is_room() {
        assert_eq!(names((2026, 6, 1), (2026, 6, 16)), ["1 Jun", "8 Jun", "15 Jun"]);
        assert_eq!(names((2026, 1, 1), (2026, 3, 10)), ["Jan", "Feb", "Mar"]);
        assert_eq!(names((2024, 1, 1), (2026, 12, 31)), ["2024", "2025", "2026"]);
        assert_eq!(names((1990, 1, 1), (2026, 12, 31)).first().map(String::as_str), Some("1990"));
        assert!(names((1990, 1, 1), (2026, 12, 31)).len() < 20);
    }
}
