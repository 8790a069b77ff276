use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta};

use super::spans::Ban;
use crate::controller::{Capability, DayMode, Days};

/// Dates by the house number.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct DateRule {
    /// Whether watering is allowed on odd dates; else on even ones.
    pub odd: bool,
    /// Whether the 31st counts among the odd dates.
    pub with_31st: bool,
}

impl DateRule {
    /// Waterings a week that it leaves, rounded up: 183 odd or even dates a year are 3.5 a week.
    const A_WEEK: u8 = 4;

    fn allows(self, date: NaiveDate) -> bool {
        (date.day() % 2 == 1) == self.odd && (self.with_31st || date.day() != 31)
    }

    /// The day mode of a panel that goes by it.
    #[must_use]
    pub const fn mode(self) -> DayMode {
        if self.odd { DayMode::Odd } else { DayMode::Even }
    }
}

/// The rules of one place, its house number looked up.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Bound {
    /// Weekdays on which watering is allowed.
    pub days: Days,
    /// Dates on which it is allowed, where that goes by odd and even.
    pub dates: Option<DateRule>,
    /// Stretches of minutes of the day without watering.
    pub hours: Vec<(u16, u16)>,
    /// First and last days of dates without watering.
    pub closed: Vec<(NaiveDate, NaiveDate)>,
    /// A ban.
    pub ban: Option<Ban>,
    /// Whether a working rain or freeze sensor is required.
    pub needs_sensor: bool,
}

impl Bound {
    /// No rule at all.
    #[must_use]
    pub fn open() -> Self {
        Self { days: Days::ALL, ..Self::default() }
    }

    /// Whether watering is allowed on a date at all.
    #[must_use]
    pub fn allows_day(&self, date: NaiveDate) -> bool {
        self.days.holds(date.weekday())
            && self.dates.is_none_or(|rule| rule.allows(date))
            && self.ban.is_none_or(|b| b.hours.is_some() || !b.holds_on(date))
            && !self.closed.iter().any(|(from, to)| (*from..=*to).contains(&date))
    }

    /// Stretches of minutes of a date without watering, those of a ban included.
    pub fn closed_minutes(&self, date: NaiveDate) -> impl Iterator<Item = (u16, u16)> {
        let ban = self.ban.filter(|b| b.holds_on(date)).and_then(|b| b.hours);
        self.hours.iter().copied().chain(ban.into_iter().flat_map(|h| h.stretches()).flatten())
    }

    /// The first forbidden minute in a local stretch of time of a watering that began on a day, if there is one.
    /// Whether it may begin on that day at all is asked by [`Bound::allows_day`].
    #[must_use]
    pub fn first_forbidden(
        &self,
        began: NaiveDate,
        start: NaiveDateTime,
        stop: NaiveDateTime,
    ) -> Option<NaiveDateTime> {
        let mut date = start.date();
        let mut found: Option<NaiveDateTime> = None;
        while date <= stop.date() {
            let midnight = date.and_time(chrono::NaiveTime::MIN);
            let whole = (date > began && !self.allows_day(date)).then_some((0, 1440));
            for (from, to) in self.closed_minutes(date).chain(whole) {
                let from = midnight + TimeDelta::minutes(i64::from(from));
                let to = midnight + TimeDelta::minutes(i64::from(to));
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

    /// The free stretches as they follow each other through the night: 18:00 to 10:00 is one of sixteen hours, from
    /// minute 1080 to minute 2040.
    #[must_use]
    pub fn free_stretches(&self) -> Vec<(u16, u16)> {
        let mut free = self.free_minutes();
        if let [(0, morning), .., (evening, 1440)] = free[..] {
            free.remove(0);
            free.pop();
            free.push((evening, 1440 + morning));
        }
        free
    }

    /// Whether every day is open, so that a run may go on past midnight.
    #[must_use]
    pub fn is_open_every_day(&self) -> bool {
        self.days == Days::ALL && self.dates.is_none() && self.closed.is_empty() && self.ban.is_none()
    }

    /// Days a week on which watering is allowed.
    #[must_use]
    pub fn days_a_week(&self) -> u8 {
        if self.dates.is_some() { DateRule::A_WEEK.min(self.days.count()) } else { self.days.count() }
    }

    /// A capability that waters on no more days a week than are allowed.
    #[must_use]
    pub fn limit(&self, capability: Capability) -> Capability {
        Capability { watering_days: capability.watering_days.min(self.days_a_week().max(1)), ..capability }
    }
}
