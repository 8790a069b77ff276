//! The water rules of a place: which days, which hours. They bind everything that is proposed.

use chrono::NaiveDate;
use thiserror::Error;

use super::bound::{Allowed, Bound, DateRule, free_minutes};
use super::spans::{Ban, Hours, Season};
use crate::controller::Days;
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

/// Minutes of the day that spans of hours close, as stretches.
fn stretches(hours: &[Hours]) -> Vec<(u16, u16)> {
    hours.iter().flat_map(|h| h.stretches()).flatten().collect()
}

impl Rules {
    /// Most spans of hours.
    pub const HOURS_MAX: usize = limit::CLOSED_HOURS;

    /// Most seasons with rules of their own.
    pub const SEASONS_MAX: usize = limit::RULE_SEASONS;

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
        for (days, hours) in self.parts() {
            if hours.len() > Self::HOURS_MAX {
                return Err(RulesError::TooManyHours);
            }
            if days.at(house)?.and(self.never.complement()).is_empty() {
                return Err(RulesError::NoDay);
            }
            if free_minutes(&stretches(hours)).is_empty() {
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
            ban: self.ban,
            needs_sensor: self.needs_sensor,
        }
    }

    /// Another place's rules of the authority, with the days and dates on which this place itself never waters.
    #[must_use]
    pub fn under(&self, authority: &Self) -> Self {
        Self { never: self.never, closed: self.closed.clone(), ..authority.clone() }
    }

    /// Whether an authority asks for anything, beyond the days and dates that the place itself closes.
    #[must_use]
    pub fn has_authority(&self) -> bool {
        !Self::default().under(self).is_open()
    }

    /// Whether there is any rule.
    #[must_use]
    pub fn is_open(&self) -> bool {
        let no_days = self.days == DayRule::Any && self.never.is_empty() && self.closed.is_empty();
        no_days && self.hours.is_empty() && self.seasons.is_empty() && self.ban.is_none() && !self.needs_sensor
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::StartTime;
    use crate::place::DayOfYear;
    use chrono::Weekday::{Mon, Sat, Sun, Thu, Tue};
    use chrono::{Datelike, NaiveDateTime, TimeDelta};

    fn hours(from: &str, to: &str) -> Hours {
        Hours { from: StartTime::read(from).unwrap(), to: StartTime::read(to).unwrap() }
    }

    fn at(text: &str) -> NaiveDateTime {
        NaiveDateTime::parse_from_str(text, "%Y-%m-%d %H:%M").unwrap()
    }

    fn forbidden(bound: &Bound, began: &str, start: NaiveDateTime, stop: NaiveDateTime) -> Option<NaiveDateTime> {
        bound.first_forbidden(began.parse().unwrap(), start, stop)
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
    fn odd_houses_water_on_odd_dates_and_the_31st_only_where_the_rule_lets_them() {
        let on = |house: &str, with_31st| {
            let rules = Rules { days: DayRule::ByDate { with_31st }, ..Rules::default() };
            rules.check(house).unwrap();
            let bound = rules.bind(house);
            let first = NaiveDate::from_ymd_opt(2026, 7, 29).unwrap();
            (0..5)
                .map(|n| first + TimeDelta::days(n))
                .filter(|d| bound.allows_day(*d))
                .map(|d| d.day())
                .collect::<Vec<_>>()
        };
        assert_eq!(on("7", true), [29, 31, 1]);
        assert_eq!(on("7", false), [29, 1]);
        assert_eq!(on("12b", false), [30, 2]);
        let rules = Rules { days: DayRule::ByDate { with_31st: true }, ..Rules::default() };
        assert_eq!(rules.check(""), Err(RulesError::HouseNumber));
        assert_eq!(rules.bind("7").limit(crate::controller::Preset::Plain.capability()).watering_days, 4);
    }

    #[test]
    fn dates_of_an_event_are_closed_and_a_ban_may_close_some_hours_alone() {
        let day = |d| NaiveDate::from_ymd_opt(2026, 8, d).unwrap();
        let event = ClosedDates { from: day(8), to: day(9), why: "wedding".into() };
        let ban = Ban { from: day(3), to: day(5), hours: Some(hours("20:00", "06:00")) };
        let rules = Rules { closed: vec![event.clone()], ban: Some(ban), ..Rules::default() };
        assert_eq!(rules.check(""), Ok(()));
        let bound = rules.bind("");
        let open: Vec<u32> = (3..=10).map(day).filter(|d| bound.allows_day(*d)).map(|d| d.day()).collect();
        assert_eq!(open, [3, 4, 5, 6, 7, 10]);
        assert_eq!(
            forbidden(&bound, "2026-08-04", at("2026-08-04 05:00"), at("2026-08-04 07:00")),
            Some(at("2026-08-04 05:00"))
        );
        assert_eq!(forbidden(&bound, "2026-08-06", at("2026-08-06 05:00"), at("2026-08-06 07:00")), None);
        let turned = ClosedDates { from: day(9), to: day(8), ..event };
        assert_eq!(Rules { closed: vec![turned], ..Rules::default() }.check(""), Err(RulesError::Closed(0)));
    }

    /// Two days a week in summer, any day from 1 October on, over the turn of the year to the end of April.
    #[test]
    fn a_season_has_days_and_hours_of_its_own_and_may_go_over_the_turn_of_the_year() {
        let day = |month, day| DayOfYear::new(month, day).unwrap();
        let winter = SeasonRule {
            season: Season { from: day(10, 1), to: day(4, 30) },
            days: DayRule::Any,
            hours: vec![hours("20:00", "08:00")],
        };
        let rules = Rules {
            days: DayRule::Weekdays(Days::of([Tue, Sat])),
            hours: vec![hours("10:00", "18:00")],
            seasons: vec![winter.clone()],
            ..Rules::default()
        };
        assert_eq!(rules.check(""), Ok(()));
        let bound = rules.bind("");
        let date = |text: &str| text.parse::<NaiveDate>().unwrap();
        // 30 September and 1 October 2026 are a Wednesday and a Thursday, 30 April and 1 May a Thursday and a Friday.
        let open = ["2026-09-30", "2026-10-01", "2026-12-31", "2027-01-01", "2027-02-28", "2026-04-30", "2026-05-01"]
            .map(|d| bound.allows_day(date(d)));
        assert_eq!(open, [false, true, true, true, true, true, false]);
        assert!(bound.allows_day(date("2028-02-29")));
        assert_eq!(bound.closed_minutes(date("2026-12-31")).collect::<Vec<_>>(), [(1200, 1440), (0, 480)]);
        assert_eq!(bound.closed_minutes(date("2026-06-02")).collect::<Vec<_>>(), [(600, 1080)]);
        assert_eq!(bound.changes_after(date("2026-06-11")), Some(date("2026-10-01")));
        assert_eq!(bound.changes_after(date("2026-12-31")), Some(date("2027-05-01")));
        assert_eq!(Bound::open().changes_after(date("2026-06-11")), None);
        // A year is planned by the days of its widest season, a date by its own.
        let seven = crate::controller::Preset::Plain.capability();
        let seven = crate::controller::Capability { watering_days: 7, ..seven };
        assert_eq!(bound.limit(seven).watering_days, 7);
        assert_eq!(bound.on(date("2026-06-11")).limit(seven).watering_days, 2);
        assert_eq!(bound.days_all_year(), Days::of([Tue, Sat]));
        // The evening of 30 September is open until midnight, when the winter's hours begin.
        assert_eq!(
            forbidden(&bound, "2026-09-29", at("2026-09-29 23:00"), at("2026-10-01 01:00")),
            Some(at("2026-09-30 00:00"))
        );
        let meets = SeasonRule { season: Season { from: day(4, 30), to: day(6, 1) }, ..winter.clone() };
        let two = Rules { seasons: vec![winter, meets], ..rules };
        assert_eq!(two.check(""), Err(RulesError::Seasons));
    }

    #[test]
    fn seasons_meet_where_they_share_a_day() {
        let season = |from: (u8, u8), to: (u8, u8)| Season {
            from: DayOfYear::new(from.0, from.1).unwrap(),
            to: DayOfYear::new(to.0, to.1).unwrap(),
        };
        let summer = season((5, 1), (9, 30));
        for (other, meets) in [
            (season((10, 1), (4, 30)), false),
            (season((9, 30), (10, 2)), true),
            (season((6, 1), (6, 2)), true),
            (season((11, 1), (5, 1)), true),
            (season((1, 1), (12, 31)), true),
        ] {
            assert_eq!((summer.meets(other), other.meets(summer)), (meets, meets), "{other:?}");
        }
        assert_eq!((DayOfYear::new(2, 30), DayOfYear::new(13, 1)), (None, None));
    }

    /// What an authority changes is changed everywhere; what a place closes itself stays its own.
    #[test]
    fn places_are_under_the_same_rules_whatever_they_close_themselves() {
        let town = Rules { hours: vec![hours("10:00", "18:00")], authority: "Town".into(), ..Rules::default() };
        let mown = Rules { never: Days::of([Thu]), ..town.clone() };
        let stricter = Rules { days: DayRule::Weekdays(Days::of([Tue, Sat])), ..town.clone() };
        let after = mown.under(&stricter);
        assert_eq!((after.never, after.days), (Days::of([Thu]), stricter.days));
        assert!(town.has_authority());
        assert!(!Rules { never: Days::of([Thu]), ..Rules::default() }.has_authority());
    }

    /// A run that began on an open evening is in a closed day from midnight on.
    #[test]
    fn a_run_past_midnight_into_a_closed_day_is_forbidden_from_midnight_on() {
        let bound = Rules { never: Days::of([Thu]), ..Rules::default() }.bind("");
        assert_eq!(forbidden(&bound, "2026-06-10", at("2026-06-10 23:30"), at("2026-06-11 00:00")), None);
        assert_eq!(
            forbidden(&bound, "2026-06-10", at("2026-06-10 23:30"), at("2026-06-11 00:40")),
            Some(at("2026-06-11 00:00"))
        );
        assert_eq!(
            forbidden(&bound, "2026-06-11", at("2026-06-11 23:30"), at("2026-06-12 00:40")),
            None,
            "the day of its start is its own finding"
        );
        // The second station of a program that began on the open evening.
        let second = forbidden(&bound, "2026-06-10", at("2026-06-11 00:10"), at("2026-06-11 00:40"));
        assert_eq!(second, Some(at("2026-06-11 00:10")));
    }

    #[test]
    fn a_free_stretch_runs_across_midnight() {
        let bound = Rules { hours: vec![hours("10:00", "18:00")], ..Rules::default() }.bind("");
        assert_eq!(bound.usual.free_minutes(), [(0, 600), (1080, 1440)]);
        assert_eq!(bound.usual.free_stretches(), [(1080, 1440 + 600)]);
        assert_eq!(Allowed::default().free_stretches(), [(0, 1440)]);
        let two = Rules { hours: vec![hours("00:00", "02:00"), hours("10:00", "18:00")], ..Rules::default() }.bind("");
        assert_eq!(two.usual.free_stretches(), [(120, 600), (1080, 1440)], "midnight itself is closed");
    }

    #[test]
    fn hours_may_go_over_midnight() {
        let rules = Rules { hours: vec![hours("22:00", "03:00"), hours("10:00", "18:00")], ..Rules::default() };
        assert_eq!(rules.bind("").usual.free_minutes(), [(180, 600), (1080, 1320)]);
        let bound = rules.bind("");
        assert_eq!(
            forbidden(&bound, "2026-06-08", at("2026-06-08 21:00"), at("2026-06-08 23:00")),
            Some(at("2026-06-08 22:00"))
        );
        assert_eq!(forbidden(&bound, "2026-06-08", at("2026-06-08 04:00"), at("2026-06-08 10:00")), None);
        assert_eq!(
            forbidden(&bound, "2026-06-08", at("2026-06-08 09:59"), at("2026-06-08 10:01")),
            Some(at("2026-06-08 10:00"))
        );
        assert_eq!(
            Rules { hours: vec![hours("06:00", "06:00")], ..Rules::default() }.check(""),
            Err(RulesError::NoHour)
        );
    }

    #[test]
    fn a_ban_closes_its_days_and_no_others() {
        let day = |d| NaiveDate::from_ymd_opt(2026, 8, d).unwrap();
        let rules = Rules { ban: Some(Ban { from: day(3), to: day(5), hours: None }), ..Rules::default() };
        let open: Vec<u32> = (1..=7).map(day).filter(|d| rules.bind("").allows_day(*d)).map(|d| d.day()).collect();
        assert_eq!(open, [1, 2, 6, 7]);
        assert_eq!(
            Rules { ban: Some(Ban { from: day(5), to: day(3), hours: None }), ..rules }.check(""),
            Err(RulesError::Ban)
        );
    }
}
