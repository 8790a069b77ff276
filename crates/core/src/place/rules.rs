//! The water rules of a place: which days, which hours. They bind everything that is proposed.

use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta};
use thiserror::Error;

use crate::controller::{Capability, Days, StartTime};
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
}

/// Hours of the day without watering; over midnight when they end before they begin.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Hours {
    /// First minute without watering.
    pub from: StartTime,
    /// First minute that is free again; the same as `from` means the whole day.
    pub to: StartTime,
}

impl Hours {
    /// Minutes of the day, from midnight, that are forbidden: one stretch, or two over midnight.
    #[must_use]
    pub fn stretches(self) -> [Option<(u16, u16)>; 2] {
        let (from, to) = (self.from.minute_of_day(), self.to.minute_of_day());
        if from < to { [Some((from, to)), None] } else { [Some((from, 1440)), (to > 0).then_some((0, to))] }
    }
}

/// A time without any watering.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Ban {
    /// First day.
    pub from: NaiveDate,
    /// Last day.
    pub to: NaiveDate,
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
    /// A ban, while there is one.
    pub ban: Option<Ban>,
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
    /// More spans of hours than anyone can keep in mind.
    #[error("at most {} spans of hours", Rules::HOURS_MAX)]
    TooManyHours,
    /// A date outside the years that are kept.
    #[error("dates are between 1900 and 2200")]
    Date,
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

impl Rules {
    /// Most spans of hours.
    pub const HOURS_MAX: usize = limit::CLOSED_HOURS;

    /// Whether the rules are valid at a place of a house number.
    ///
    /// # Errors
    /// [`RulesError`] for the first thing that is not valid.
    pub fn check(&self, house: &str) -> Result<(), RulesError> {
        check_text(&self.authority, 0, limit::NAME).map_err(|_| RulesError::Authority)?;
        let ban = self.ban.into_iter().flat_map(|b| [b.from, b.to]);
        for date in ban.chain(self.dated) {
            check_date(date).map_err(|_| RulesError::Date)?;
        }
        if self.hours.len() > Self::HOURS_MAX {
            return Err(RulesError::TooManyHours);
        }
        if self.ban.is_some_and(|b| b.to < b.from) {
            return Err(RulesError::Ban);
        }
        if self.allowed_days(house)?.is_empty() {
            return Err(RulesError::NoDay);
        }
        if self.free_minutes().is_empty() {
            return Err(RulesError::NoHour);
        }
        Ok(())
    }

    /// Weekdays on which watering is allowed at a house number, the place's own never-water days
    /// taken out.
    ///
    /// # Errors
    /// [`RulesError::HouseNumber`] when the rule goes by a number that is not there.
    pub fn allowed_days(&self, house: &str) -> Result<Days, RulesError> {
        let number = || house_number(house).ok_or(RulesError::HouseNumber);
        let days = match self.days {
            DayRule::Any => Days::ALL,
            DayRule::Weekdays(days) => days,
            DayRule::ByParity { odd, even } => {
                if number()? % 2 == 1 {
                    odd
                } else {
                    even
                }
            }
            DayRule::ByLastDigit(days) => days[(number()? % 10) as usize],
        };
        Ok(days.and(self.never.complement()))
    }

    /// The rules as they bind one place.
    #[must_use]
    pub fn bind(&self, house: &str) -> Bound {
        Bound {
            // Without a house number nobody can say which days: all are open, and the form of
            // the rules refuses such a place.
            days: self.allowed_days(house).unwrap_or(self.never.complement()),
            hours: self.hours.iter().flat_map(|h| h.stretches()).flatten().collect(),
            ban: self.ban,
        }
    }

    /// Minutes of the day outside every forbidden span, as stretches, earliest first.
    #[must_use]
    pub fn free_minutes(&self) -> Vec<(u16, u16)> {
        self.bind("").free_minutes()
    }

    /// Whether there is any rule.
    #[must_use]
    pub fn is_open(&self) -> bool {
        self.days == DayRule::Any && self.never.is_empty() && self.hours.is_empty() && self.ban.is_none()
    }
}

/// The rules of one place, its house number looked up.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Bound {
    /// Weekdays on which watering is allowed.
    pub days: Days,
    /// Stretches of minutes of the day without watering.
    pub hours: Vec<(u16, u16)>,
    /// A ban.
    pub ban: Option<Ban>,
}

impl Bound {
    /// No rule at all.
    #[must_use]
    pub fn open() -> Self {
        Self { days: Days::ALL, hours: Vec::new(), ban: None }
    }

    /// Whether watering is allowed on a date at all.
    #[must_use]
    pub fn allows_day(&self, date: NaiveDate) -> bool {
        self.days.holds(date.weekday()) && self.ban.is_none_or(|b| date < b.from || date > b.to)
    }

    /// The first forbidden minute in a local stretch of time, if there is one.
    #[must_use]
    pub fn first_forbidden(&self, start: NaiveDateTime, stop: NaiveDateTime) -> Option<NaiveDateTime> {
        let mut date = start.date();
        let mut found: Option<NaiveDateTime> = None;
        while date <= stop.date() {
            let midnight = date.and_time(chrono::NaiveTime::MIN);
            for (from, to) in &self.hours {
                let from = midnight + TimeDelta::minutes(i64::from(*from));
                let to = midnight + TimeDelta::minutes(i64::from(*to));
                let first = from.max(start);
                if first < to && first < stop {
                    found = Some(found.map_or(first, |f| f.min(first)));
                }
            }
            date += TimeDelta::days(1);
        }
        found
    }

    /// Minutes of the day outside every forbidden stretch, as stretches, earliest first.
    #[must_use]
    pub fn free_minutes(&self) -> Vec<(u16, u16)> {
        let mut closed = self.hours.clone();
        closed.sort_unstable();
        let (mut free, mut at) = (Vec::new(), 0);
        for (from, to) in closed {
            if from > at {
                free.push((at, from));
            }
            at = at.max(to);
        }
        if at < 1440 {
            free.push((at, 1440));
        }
        free
    }

    /// A capability that waters on no more days a week than are allowed.
    #[must_use]
    pub fn limit(&self, capability: Capability) -> Capability {
        Capability { watering_days: capability.watering_days.min(self.days.count().max(1)), ..capability }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::Weekday::{Mon, Sat, Sun, Thu, Tue};

    fn hours(from: &str, to: &str) -> Hours {
        Hours { from: StartTime::read(from).unwrap(), to: StartTime::read(to).unwrap() }
    }

    fn at(text: &str) -> NaiveDateTime {
        NaiveDateTime::parse_from_str(text, "%Y-%m-%d %H:%M").unwrap()
    }

    #[test]
    fn days_go_by_the_house_number() {
        let parity = Rules {
            days: DayRule::ByParity { odd: Days::of([Tue, Sat]), even: Days::of([Mon, Thu]) },
            ..Rules::default()
        };
        assert_eq!(parity.allowed_days("14b"), Ok(Days::of([Mon, Thu])));
        assert_eq!(parity.allowed_days("3"), Ok(Days::of([Tue, Sat])));
        assert_eq!(parity.check(""), Err(RulesError::HouseNumber));
        let mut digits = [Days::NONE; 10];
        digits[4] = Days::of([Sun]);
        let digit = Rules { days: DayRule::ByLastDigit(digits), ..Rules::default() };
        assert_eq!(digit.allowed_days("114-116"), Ok(Days::of([Sun])));
        assert_eq!(digit.check("5"), Err(RulesError::NoDay));
    }

    #[test]
    fn never_water_days_come_off_whatever_the_authority_allows() {
        let rules = Rules { never: Days::of([Thu]), ..Rules::default() };
        assert_eq!(rules.allowed_days("").unwrap().count(), 6);
        assert_eq!(Rules { never: Days::ALL, ..Rules::default() }.check(""), Err(RulesError::NoDay));
    }

    #[test]
    fn hours_may_go_over_midnight() {
        let rules = Rules { hours: vec![hours("22:00", "03:00"), hours("10:00", "18:00")], ..Rules::default() };
        assert_eq!(rules.free_minutes(), [(180, 600), (1080, 1320)]);
        let bound = rules.bind("");
        assert_eq!(bound.first_forbidden(at("2026-06-08 21:00"), at("2026-06-08 23:00")), Some(at("2026-06-08 22:00")));
        assert_eq!(bound.first_forbidden(at("2026-06-08 04:00"), at("2026-06-08 10:00")), None);
        assert_eq!(bound.first_forbidden(at("2026-06-08 09:59"), at("2026-06-08 10:01")), Some(at("2026-06-08 10:00")));
        assert_eq!(
            Rules { hours: vec![hours("06:00", "06:00")], ..Rules::default() }.check(""),
            Err(RulesError::NoHour)
        );
    }

    #[test]
    fn a_ban_closes_its_days_and_no_others() {
        let day = |d| NaiveDate::from_ymd_opt(2026, 8, d).unwrap();
        let rules = Rules { ban: Some(Ban { from: day(3), to: day(5) }), ..Rules::default() };
        let open: Vec<u32> = (1..=7).map(day).filter(|d| rules.bind("").allows_day(*d)).map(|d| d.day()).collect();
        assert_eq!(open, [1, 2, 6, 7]);
        assert_eq!(Rules { ban: Some(Ban { from: day(5), to: day(3) }), ..rules }.check(""), Err(RulesError::Ban));
    }
}
