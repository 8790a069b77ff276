//! The water rules of a place: which days, which hours. They bind everything that is proposed.

use std::ops::RangeInclusive;

use chrono::NaiveDate;
use thiserror::Error;

use super::bound::{Allowed, Bound, DateRule};
use super::spans::{Ban, Season};
use crate::controller::{Days, Hours, StartTime, outside, stretches};
use crate::field::{check_date, check_text};
use crate::quantity::limit;

/// On which weekdays an authority lets a property water.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum DayRule {
    /// On any day.
    #[default]
    Any,
    /// On these weekdays.
    Weekdays(Days),
    /// By whether the house number is odd or even.
    ByParity {
        /// Days of odd house numbers.
        odd: Days,
        /// Days of even house numbers.
        even: Days,
    },
    /// By the last digit of the house number, 0 to 9.
    ByLastDigit([Days; 10]),
    /// Odd house numbers on odd dates, even ones on even dates.
    ByDate {
        /// Whether odd house numbers may water on the 31st too, the day before another odd date.
        with_31st: bool,
    },
}

/// Days and hours of an authority in a part of every year, in place of the usual ones.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SeasonRule {
    /// When they hold.
    pub season: Season,
    /// Weekdays that the authority allows then.
    pub days: DayRule,
    /// Hours without watering then.
    pub hours: Vec<Hours>,
}

/// Dates on which the place itself never waters: mowing, an event.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ClosedDates {
    /// First day.
    pub from: NaiveDate,
    /// Last day.
    pub to: NaiveDate,
    /// Why.
    pub why: String,
}

/// The water rules of a place.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Rules {
    /// Weekdays that the authority allows.
    pub days: DayRule,
    /// Weekdays on which the place itself never waters: mowing, events.
    pub never: Days,
    /// Hours without watering.
    pub hours: Vec<Hours>,
    /// Parts of the year that have days and hours of their own; no two share a day.
    pub seasons: Vec<SeasonRule>,
    /// Dates on which the place itself never waters.
    pub closed: Vec<ClosedDates>,
    /// When the household or the public needs the place or its water: watering is done by then, where that is stated.
    pub done_by: Option<StartTime>,
    /// A ban, while there is one.
    pub ban: Option<Ban>,
    /// Whether a working rain or freeze sensor is required.
    pub needs_sensor: bool,
    /// Who made the rules; empty where nobody was asked.
    pub authority: String,
    /// As of when they hold.
    pub dated: Option<NaiveDate>,
}

/// Why rules are not valid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum RulesError {
    /// The rule goes by a house number that is not there.
    #[error("the rule goes by the house number, and the place has none")]
    HouseNumber,
    /// No day is left.
    #[error("no day of the week is left to water on")]
    NoDay,
    /// No hour is left.
    #[error("no hour of the day is left to water in")]
    NoHour,
    /// A ban that ends before it begins.
    #[error("the ban ends before it begins")]
    Ban,
    /// Closed dates that end before they begin, at this place of the list.
    #[error("closed dates {} end before they begin", .0 + 1)]
    Closed(usize),
    /// More closed dates than are kept, or a reason that is too long.
    #[error("at most {} spans of closed dates, each with a reason of up to 60 characters", limit::CLOSED_DATES)]
    TooManyClosed,
    /// More spans of hours than anyone can keep in mind.
    #[error("at most {} spans of hours", Rules::HOURS_MAX)]
    TooManyHours,
    /// Seasons that share a day, or more of them than are kept.
    #[error("at most {} seasons, no two of which share a day", Rules::SEASONS_MAX)]
    Seasons,
    /// A date outside the years that are kept.
    #[error("dates are between 1900 and 2200")]
    Date,
    /// An hour by which nobody can have watered, or by which it is no longer morning.
    #[error("watering is done by a time between 05:00 and 12:00")]
    DoneBy,
    /// A name that is too long.
    #[error("an authority's name has up to 60 characters")]
    Authority,
}

/// The number of a house, from `14`, `14b` or `14-16`: its first digits.
#[must_use]
pub fn house_number(text: &str) -> Option<u32> {
    let digits: String = text.trim().chars().take_while(char::is_ascii_digit).take(9).collect();
    digits.parse().ok()
}

impl DayRule {
    /// Weekdays that it allows at a house number.
    fn at(&self, house: &str) -> Result<Days, RulesError> {
        let number = || house_number(house).ok_or(RulesError::HouseNumber);
        Ok(match *self {
            Self::Any => Days::ALL,
            Self::Weekdays(days) => days,
            Self::ByParity { odd, even } => {
                if number()? % 2 == 1 {
                    odd
                } else {
                    even
                }
            }
            Self::ByLastDigit(days) => days[(number()? % 10) as usize],
            Self::ByDate { .. } => number().map(|_| Days::ALL)?,
        })
    }
}

impl Rules {
    /// Most spans of hours.
    pub const HOURS_MAX: usize = limit::CLOSED_HOURS;

    /// Most seasons with rules of their own.
    pub const SEASONS_MAX: usize = limit::RULE_SEASONS;

    /// Minutes of the day between which watering can be asked to be done, 05:00 to 12:00.
    pub const DONE_BY: RangeInclusive<u16> = 300..=720;

    /// Whether the rules are valid at a place of a house number.
    ///
    /// # Errors
    /// [`RulesError`] for the first thing that is not valid.
    pub fn check(&self, house: &str) -> Result<(), RulesError> {
        check_text(&self.authority, 0, limit::NAME).map_err(|_| RulesError::Authority)?;
        let ban = self.ban.into_iter().flat_map(|b| [b.from, b.to]);
        let closed = self.closed.iter().flat_map(|c| [c.from, c.to]);
        for date in ban.chain(closed).chain(self.dated) {
            check_date(date).map_err(|_| RulesError::Date)?;
        }
        let share = |(i, one): (usize, &SeasonRule)| self.seasons[..i].iter().any(|s| s.season.meets(one.season));
        if self.seasons.len() > Self::SEASONS_MAX || self.seasons.iter().enumerate().any(share) {
            return Err(RulesError::Seasons);
        }
        if self.ban.is_some_and(|b| b.to < b.from) {
            return Err(RulesError::Ban);
        }
        if let Some(index) = self.closed.iter().position(|c| c.to < c.from) {
            return Err(RulesError::Closed(index));
        }
        let too_long = |c: &ClosedDates| check_text(&c.why, 0, limit::NAME).is_err();
        if self.closed.len() > limit::CLOSED_DATES || self.closed.iter().any(too_long) {
            return Err(RulesError::TooManyClosed);
        }
        if self.done_by.is_some_and(|at| !Self::DONE_BY.contains(&at.minute_of_day())) {
            return Err(RulesError::DoneBy);
        }
        for (days, hours) in self.parts() {
            if hours.len() > Self::HOURS_MAX {
                return Err(RulesError::TooManyHours);
            }
            if days.at(house)?.and(self.never.complement()).is_empty() {
                return Err(RulesError::NoDay);
            }
            if outside(&stretches(hours)).is_empty() {
                return Err(RulesError::NoHour);
            }
        }
        Ok(())
    }

    /// The usual days and hours, and those of each season.
    fn parts(&self) -> impl Iterator<Item = (&DayRule, &[Hours])> {
        let seasons = self.seasons.iter().map(|s| (&s.days, &s.hours[..]));
        std::iter::once((&self.days, &self.hours[..])).chain(seasons)
    }

    /// The usual weekdays on which watering is allowed at a house number, the place's own never-water days
    /// taken out.
    ///
    /// # Errors
    /// [`RulesError::HouseNumber`] when the rule goes by a number that is not there.
    pub fn allowed_days(&self, house: &str) -> Result<Days, RulesError> {
        Ok(self.days.at(house)?.and(self.never.complement()))
    }

    /// The rules as they bind one place.
    #[must_use]
    pub fn bind(&self, house: &str) -> Bound {
        let part = |rule: &DayRule, hours: &[Hours]| Allowed {
            // Without a house number nobody can say which days: all are open, and the form of
            // the rules refuses such a place.
            days: rule.at(house).unwrap_or(Days::ALL).and(self.never.complement()),
            dates: match rule {
                DayRule::ByDate { with_31st } => {
                    house_number(house).map(|n| DateRule { odd: n % 2 == 1, with_31st: *with_31st })
                }
                _ => None,
            },
            hours: stretches(hours),
        };
        Bound {
            usual: part(&self.days, &self.hours),
            seasons: self.seasons.iter().map(|s| (s.season, part(&s.days, &s.hours))).collect(),
            closed: self.closed.iter().map(|c| (c.from, c.to)).collect(),
            done_by: self.done_by,
            ban: self.ban,
            needs_sensor: self.needs_sensor,
        }
    }

    /// Another place's rules of the authority, with the days and hours that this place itself keeps.
    #[must_use]
    pub fn under(&self, authority: &Self) -> Self {
        Self { never: self.never, closed: self.closed.clone(), done_by: self.done_by, ..authority.clone() }
    }

    /// Whether an authority asks for anything, beyond what the place itself keeps.
    #[must_use]
    pub fn has_authority(&self) -> bool {
        !Self::default().under(self).is_open()
    }

    /// Whether there is any rule.
    #[must_use]
    pub fn is_open(&self) -> bool {
        let no_days = self.days == DayRule::Any && self.never.is_empty() && self.closed.is_empty();
        let no_hours = self.hours.is_empty() && self.done_by.is_none();
        no_days && no_hours && self.seasons.is_empty() && self.ban.is_none() && !self.needs_sensor
    }
}

#[cfg(test)]
mod tests;
