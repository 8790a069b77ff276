use std::borrow::Cow;

use chrono::{Datelike, NaiveDate, NaiveDateTime, NaiveTime, TimeDelta, Timelike};

use super::spans::{Ban, Season};
use crate::controller::{Capability, DayMode, Days, Hours, StartTime, outside, stretches};

/// Seconds of a day.
const DAY: i64 = 86_400;

fn second_of_day(at: NaiveDateTime) -> i64 {
    i64::from(at.num_seconds_from_midnight())
}

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

/// Days and hours on which watering is allowed.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Allowed {
    /// Weekdays on which watering is allowed.
    pub days: Days,
    /// Dates on which it is allowed, where that goes by odd and even.
    pub dates: Option<DateRule>,
    /// Stretches of minutes of the day without watering.
    pub hours: Vec<(u16, u16)>,
}

impl Default for Allowed {
    fn default() -> Self {
        Self { days: Days::ALL, dates: None, hours: Vec::new() }
    }
}

impl Allowed {
    /// Days a week on which watering is allowed.
    #[must_use]
    pub fn days_a_week(&self) -> u8 {
        if self.dates.is_some() { DateRule::A_WEEK.min(self.days.count()) } else { self.days.count() }
    }

    /// Minutes of the day outside every forbidden stretch, as stretches, earliest first.
    #[must_use]
    pub fn free_minutes(&self) -> Vec<(u16, u16)> {
        outside(&self.hours)
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

    /// A capability that waters on no more days a week than are allowed.
    #[must_use]
    pub fn limit(&self, capability: Capability) -> Capability {
        Capability { watering_days: capability.watering_days.min(self.days_a_week().max(1)), ..capability }
    }
}

/// The rules of one place, its house number looked up.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Bound {
    /// The usual days and hours.
    pub usual: Allowed,
    /// Days and hours of parts of the year.
    pub seasons: Vec<(Season, Allowed)>,
    /// First and last days of dates without watering.
    pub closed: Vec<(NaiveDate, NaiveDate)>,
    /// When people need the place or its water, where that is stated.
    pub done_by: Option<StartTime>,
    /// A ban.
    pub ban: Option<Ban>,
    /// Whether a working rain or freeze sensor is required.
    pub needs_sensor: bool,
}

impl Bound {
    /// Evening watering begins no earlier than this minute of the day, 17:00 (common practice: the sun is low).
    pub const EVENING: u16 = 1020;

    /// No rule at all.
    #[must_use]
    pub fn open() -> Self {
        Self::default()
    }

    /// Rules of days and hours that hold all year.
    #[must_use]
    pub fn all_year(usual: Allowed) -> Self {
        Self { usual, ..Self::default() }
    }

    /// The days and hours of the season that a date falls in, else the usual ones.
    #[must_use]
    pub fn on(&self, date: NaiveDate) -> &Allowed {
        self.seasons.iter().find(|(season, _)| season.holds(date)).map_or(&self.usual, |(_, open)| open)
    }

    /// The next day after a date from which other days and hours hold, within a year.
    #[must_use]
    pub fn changes_after(&self, date: NaiveDate) -> Option<NaiveDate> {
        if self.seasons.is_empty() {
            return None;
        }
        date.iter_days().skip(1).take(366).find(|day| self.on(*day) != self.on(date))
    }

    /// Whether watering is allowed on a date at all.
    #[must_use]
    pub fn allows_day(&self, date: NaiveDate) -> bool {
        let open = self.on(date);
        open.days.holds(date.weekday())
            && open.dates.is_none_or(|rule| rule.allows(date))
            && self.ban.is_none_or(|b| b.hours.is_some() || !b.holds_on(date))
            && !self.closed.iter().any(|(from, to)| (*from..=*to).contains(&date))
    }

    /// Stretches of minutes of a date without watering, those of a ban included.
    pub fn closed_minutes(&self, date: NaiveDate) -> impl Iterator<Item = (u16, u16)> {
        let ban = self.ban.filter(|b| b.holds_on(date)).and_then(|b| b.hours);
        self.on(date).hours.iter().copied().chain(ban.into_iter().flat_map(|h| h.stretches()).flatten())
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
        // Every run of every week is asked about: seconds of the day are compared, not dates and times.
        let last = stop.date();
        start.date().iter_days().take_while(|date| *date <= last).find_map(|date| {
            let from_start = if date == start.date() { second_of_day(start) } else { 0 };
            let to_stop = if date == last { second_of_day(stop) } else { DAY };
            let whole = (date > began && !self.allows_day(date)).then_some((0, 1440));
            let closed = self.closed_minutes(date).chain(whole);
            let first = closed.filter_map(|(from, to)| {
                let first = (60 * i64::from(from)).max(from_start);
                (first < 60 * i64::from(to) && first < to_stop).then_some(first)
            });
            first.min().map(|second| date.and_time(NaiveTime::MIN) + TimeDelta::seconds(second))
        })
    }

    /// The same with the water windows of a panel: what lies in none of them is closed too. A schedule has to keep to
    /// both.
    #[must_use]
    pub fn within(&self, windows: &[Hours]) -> Cow<'_, Self> {
        if windows.is_empty() {
            return Cow::Borrowed(self);
        }
        let closed = outside(&stretches(windows));
        let mut both = self.clone();
        for allowed in both.seasons.iter_mut().map(|(_, open)| open).chain([&mut both.usual]) {
            allowed.hours.extend(&closed);
            // Hours that both close are closed once: what lies outside of all that is free.
            allowed.hours = outside(&allowed.free_minutes());
        }
        Cow::Owned(both)
    }

    /// The water windows of a panel alone, as hours that are closed.
    #[must_use]
    pub fn of_windows(windows: &[Hours]) -> Self {
        Self::open().within(windows).into_owned()
    }

    /// The hours in which people need the place or its water, as hours that are closed: from when watering is to be
    /// done until the evening. Nothing where no such hour is stated.
    #[must_use]
    pub fn in_use(&self) -> Option<Self> {
        let hours = vec![(self.done_by?.minute_of_day(), Self::EVENING)];
        Some(Self::all_year(Allowed { hours, ..Allowed::default() }))
    }

    /// Weekdays that are open in every season; those of the narrowest one where there is none.
    #[must_use]
    pub fn days_all_year(&self) -> Days {
        let seasons = || self.seasons.iter().map(|(_, allowed)| allowed.days).chain([self.usual.days]);
        let all = seasons().fold(Days::ALL, Days::and);
        if all.is_empty() { seasons().min_by_key(|days| days.count()).unwrap_or(all) } else { all }
    }

    /// Whether every day from a date on is open, so that a run may go on past midnight.
    #[must_use]
    pub fn is_open_every_day(&self, date: NaiveDate) -> bool {
        let open = self.on(date);
        open.days == Days::ALL && open.dates.is_none() && self.closed.is_empty() && self.ban.is_none()
    }

    /// A capability that waters on no more days a week than are allowed in the season that allows most: what a whole
    /// year is planned by. A date has its own limit, [`Allowed::limit`].
    #[must_use]
    pub fn limit(&self, capability: Capability) -> Capability {
        let seasons = self.seasons.iter().map(|(_, open)| open);
        let widest = seasons.chain([&self.usual]).map(Allowed::days_a_week).max().unwrap_or(7).max(1);
        Capability { watering_days: capability.watering_days.min(widest), ..capability }
    }
}
