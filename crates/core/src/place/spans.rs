//! Spans of hours, of days and of the year.

use chrono::{Datelike, NaiveDate};

use crate::controller::Hours;

/// A day of every year, from 1 January to 31 December, 29 February included.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct DayOfYear {
    month: u8,
    day: u8,
}

impl DayOfYear {
    /// The day of a month, 1 to 12; nothing where no year has it.
    #[must_use]
    pub fn new(month: u8, day: u8) -> Option<Self> {
        // A leap year has every day.
        NaiveDate::from_ymd_opt(2024, month.into(), day.into()).map(|_| Self { month, day })
    }

    /// Month, 1 to 12.
    #[must_use]
    pub const fn month(self) -> u8 {
        self.month
    }

    /// Day of the month, from 1.
    #[must_use]
    pub const fn day(self) -> u8 {
        self.day
    }

    /// The day of a date.
    #[must_use]
    pub fn of(date: NaiveDate) -> Self {
        // A month and its days fit.
        Self { month: date.month() as u8, day: date.day() as u8 }
    }
}

/// A part of every year; over its turn when it ends before it begins.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Season {
    /// First day.
    pub from: DayOfYear,
    /// Last day.
    pub to: DayOfYear,
}

impl Season {
    /// Whether a date is in it.
    #[must_use]
    pub fn holds(self, date: NaiveDate) -> bool {
        let day = DayOfYear::of(date);
        if self.from <= self.to { (self.from..=self.to).contains(&day) } else { day >= self.from || day <= self.to }
    }

    /// Whether two seasons share a day: one of them then begins within the other.
    #[must_use]
    pub fn meets(self, other: Self) -> bool {
        let within = |day: DayOfYear, season: Self| {
            NaiveDate::from_ymd_opt(2024, day.month.into(), day.day.into()).is_some_and(|date| season.holds(date))
        };
        within(self.from, other) || within(other.from, self)
    }
}

/// A time without any watering, or without watering in some hours.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Ban {
    /// First day.
    pub from: NaiveDate,
    /// Last day.
    pub to: NaiveDate,
    /// The hours that it closes; the whole day where there are none.
    pub hours: Option<Hours>,
}

impl Ban {
    pub(super) fn holds_on(&self, date: NaiveDate) -> bool {
        (self.from..=self.to).contains(&date)
    }
}
