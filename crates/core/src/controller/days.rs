//! Days and times as a panel keeps them: weekdays, odd, even, every N days, and start times.

use chrono::{Datelike, NaiveDate, NaiveTime, Weekday};

use crate::quantity::{OutOfRange, range};

/// A set of weekdays.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Hash)]
pub struct Days(u8);

impl Days {
    /// No day.
    pub const NONE: Self = Self(0);
    /// All seven.
    pub const ALL: Self = Self(0b111_1111);
    /// The week in its order, Monday first.
    pub const WEEK: [Weekday; 7] =
        [Weekday::Mon, Weekday::Tue, Weekday::Wed, Weekday::Thu, Weekday::Fri, Weekday::Sat, Weekday::Sun];

    /// The set of these weekdays.
    #[must_use]
    pub fn of(days: impl IntoIterator<Item = Weekday>) -> Self {
        days.into_iter().fold(Self::NONE, Self::with)
    }

    /// The set whose bits are these, Monday the lowest; higher bits than Sunday's are dropped.
    #[must_use]
    pub const fn from_bits(bits: u8) -> Self {
        Self(bits & Self::ALL.0)
    }

    /// The bits of the set, Monday the lowest.
    #[must_use]
    pub const fn bits(self) -> u8 {
        self.0
    }

    /// Whether a weekday is in the set.
    #[must_use]
    pub fn holds(self, day: Weekday) -> bool {
        self.0 & bit(day) != 0
    }

    /// The set with a weekday put in.
    #[must_use]
    pub fn with(self, day: Weekday) -> Self {
        Self(self.0 | bit(day))
    }

    /// The set without a weekday.
    #[must_use]
    pub fn without(self, day: Weekday) -> Self {
        Self(self.0 & !bit(day))
    }

    /// The weekdays in both sets.
    #[must_use]
    pub const fn and(self, other: Self) -> Self {
        Self(self.0 & other.0)
    }

    /// The same days, each a day later: Sunday becomes Monday.
    #[must_use]
    pub fn day_after(self) -> Self {
        Self::of(self.iter().map(|day| day.succ()))
    }

    /// The weekdays that are not in the set.
    #[must_use]
    pub const fn complement(self) -> Self {
        Self(!self.0 & Self::ALL.0)
    }

    /// How many weekdays, 0 to 7.
    #[must_use]
    pub const fn count(self) -> u8 {
        // At most seven bits are set.
        self.0.count_ones() as u8
    }

    /// Whether there is none.
    #[must_use]
    pub const fn is_empty(self) -> bool {
        self.0 == 0
    }

    /// The weekdays of the set, Monday first.
    pub fn iter(self) -> impl Iterator<Item = Weekday> {
        Self::WEEK.into_iter().filter(move |d| self.holds(*d))
    }

    /// Days from each weekday of the set to the next one, round the week.
    ///
    /// ```
    /// use chrono::Weekday::{Fri, Mon, Wed};
    /// use upland_core::controller::Days;
    /// assert_eq!(Days::of([Mon, Wed, Fri]).gaps(), [2, 2, 3]);
    /// ```
    #[must_use]
    pub fn gaps(self) -> Vec<u8> {
        let held: Vec<u32> = self.iter().map(|d| d.num_days_from_monday()).collect();
        // Weekday numbers are 0 to 6, so a gap is 1 to 7.
        (0..held.len())
            .map(|i| {
                let next = held.get(i + 1).copied().unwrap_or(held[0] + 7);
                (next - held[i]) as u8
            })
            .collect()
    }
}

fn bit(day: Weekday) -> u8 {
    1 << day.num_days_from_monday()
}

/// A time of day on a panel: whole minutes from midnight, 0 to 1439.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct StartTime(u16);

impl StartTime {
    /// The beginning of a day.
    pub const MIDNIGHT: Self = Self(0);

    /// Makes a time of day.
    ///
    /// # Errors
    /// [`OutOfRange`] from 24:00 on.
    pub fn new(minute_of_day: u16) -> Result<Self, OutOfRange> {
        range::MINUTE_OF_DAY.check(f64::from(minute_of_day)).map(|_| Self(minute_of_day))
    }

    /// Reads `4:30`, `04:30`, `0430` or `4:30 am`; nothing for what is no time of day.
    ///
    /// ```
    /// use upland_core::controller::StartTime;
    /// assert_eq!(StartTime::read("4:30").unwrap().to_string(), "04:30");
    /// assert_eq!(StartTime::read("4:20 pm").unwrap().to_string(), "16:20");
    /// assert_eq!(StartTime::read("12:00 am").unwrap().to_string(), "00:00");
    /// assert!(StartTime::read("25:00").is_none() && StartTime::read("16:20 pm").is_none());
    /// ```
    #[must_use]
    pub fn read(text: &str) -> Option<Self> {
        let text = text.trim().to_ascii_lowercase();
        let half = |ending: &str| text.strip_suffix(ending).map(str::trim_end);
        let (afternoon, twelve) = match (half("am"), half("pm")) {
            (Some(twelve), _) => (0, twelve),
            (_, Some(twelve)) => (12, twelve),
            _ => return Self::read_24(&text),
        };
        // A whole hour may be said without its minutes: 4 pm.
        let whole = format!("{twelve}:00");
        let at = Self::read_24(if twelve.len() <= 2 { &whole } else { twelve })?;
        let (hour, minute) = (at.0 / 60, at.0 % 60);
        (1..=12).contains(&hour).then_some(Self((hour % 12 + afternoon) * 60 + minute))
    }

    fn read_24(text: &str) -> Option<Self> {
        let (hour, minute) = match text.split_once([':', '.']) {
            Some((hour, minute)) => (hour, minute),
            None if text.len() == 4 && text.is_ascii() => text.split_at(2),
            None => return None,
        };
        let digits = |t: &str| {
            ((1..=2).contains(&t.len()) && t.bytes().all(|b| b.is_ascii_digit())).then(|| t.parse::<u16>().ok())?
        };
        let (hour, minute) = (digits(hour)?, digits(minute)?);
        (hour < 24 && minute < 60).then_some(Self(hour * 60 + minute))
    }

    /// The minute that a time of day falls in.
    #[must_use]
    pub fn of(time: NaiveTime) -> Self {
        use chrono::Timelike;
        // An hour under 24 and a minute under 60.
        Self((time.hour() * 60 + time.minute()) as u16)
    }

    /// Minutes from midnight.
    #[must_use]
    pub const fn minute_of_day(self) -> u16 {
        self.0
    }

    /// The time of day.
    #[must_use]
    pub fn time(self) -> NaiveTime {
        // In range by construction.
        NaiveTime::from_num_seconds_from_midnight_opt(u32::from(self.0) * 60, 0).unwrap_or(NaiveTime::MIN)
    }

    /// The latest time at or before this one that a panel of a step can be set to.
    #[must_use]
    pub fn down_to(self, step_minutes: u16) -> Self {
        Self(self.0 - self.0 % step_minutes.max(1))
    }

    /// Whether a panel of a step can be set to it.
    #[must_use]
    pub fn is_on(self, step_minutes: u16) -> bool {
        self.0.is_multiple_of(step_minutes.max(1))
    }
}

impl std::fmt::Display for StartTime {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{:02}:{:02}", self.0 / 60, self.0 % 60)
    }
}

/// On which days a program runs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DayMode {
    /// On these weekdays.
    Weekdays(Days),
    /// On odd dates, the 31st among them.
    Odd,
    /// On even dates.
    Even,
    /// Every so many days from a date, and never before it.
    Every {
        /// Days from one watering to the next, 1 to 31.
        days: u8,
        /// The next watering.
        next: NaiveDate,
    },
}

impl Default for DayMode {
    fn default() -> Self {
        Self::Weekdays(Days::NONE)
    }
}

impl DayMode {
    /// Whether the mode waters on a date, whatever the never-water days say.
    #[must_use]
    pub fn waters_on(self, date: NaiveDate) -> bool {
        match self {
            Self::Weekdays(days) => days.holds(date.weekday()),
            Self::Odd => date.day() % 2 == 1,
            Self::Even => date.day().is_multiple_of(2),
            Self::Every { next, .. } => date >= next && self.falls_on(date),
        }
    }

    /// Whether the mode's count falls on a date, also before the next watering of "every N days":
    /// for a year that is long past.
    #[must_use]
    pub fn falls_on(self, date: NaiveDate) -> bool {
        match self {
            Self::Every { days, next } => (date - next).num_days().rem_euclid(i64::from(days.max(1))) == 0,
            other => other.waters_on(date),
        }
    }

    /// Waterings a week on average: 3.5 for odd and even days.
    #[must_use]
    pub fn a_week(self) -> f64 {
        match self {
            Self::Weekdays(days) => f64::from(days.count()),
            // A year has 186 odd dates and 179 even ones; 29 February, in 97 years of 400, is odd.
            Self::Odd => 186.2425 / 365.2425 * 7.0,
            Self::Even => 179.0 / 365.2425 * 7.0,
            Self::Every { days, .. } => 7.0 / f64::from(days.max(1)),
        }
    }
}

/// When a program runs.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Schedule {
    /// On which days.
    pub days: DayMode,
    /// Weekdays on which it never runs, whatever the mode says; the count of days goes on.
    pub never: Days,
    /// Start times, earliest first. Each starts the whole program.
    pub starts: Vec<StartTime>,
    /// Over how many starts one watering is divided, minutes and all: 1 unless the panel has no
    /// cycle and soak of its own and its starts stand in for it.
    pub split: u8,
}

impl Default for Schedule {
    fn default() -> Self {
        Self { days: DayMode::default(), never: Days::NONE, starts: Vec::new(), split: 1 }
    }
}

impl Schedule {
    /// Whether the program runs on a date.
    #[must_use]
    pub fn waters_on(&self, date: NaiveDate) -> bool {
        !self.starts.is_empty() && self.days.waters_on(date) && !self.never.holds(date.weekday())
    }

    /// Whether it never runs at all.
    #[must_use]
    pub fn is_idle(&self) -> bool {
        self.starts.is_empty()
            || match self.days {
                DayMode::Weekdays(days) => days.and(self.never.complement()).is_empty(),
                _ => self.never == Days::ALL,
            }
    }

    /// Waterings a week on average, never-water days taken out.
    #[must_use]
    pub fn waterings_a_week(&self) -> f64 {
        match self.days {
            DayMode::Weekdays(days) => f64::from(days.and(self.never.complement()).count()),
            mode => mode.a_week() * f64::from(7 - self.never.count()) / 7.0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::Weekday::{Fri, Mon, Sun, Wed};

    fn day(y: i32, m: u32, d: u32) -> NaiveDate {
        NaiveDate::from_ymd_opt(y, m, d).unwrap()
    }

    #[test]
    fn weekdays_in_and_out_of_a_set() {
        let days = Days::of([Mon, Wed, Fri]);
        assert_eq!((days.count(), days.bits()), (3, 0b1_0101));
        assert!(days.without(Wed).and(Days::of([Wed])).is_empty());
        assert_eq!(Days::of([Mon, Wed, Fri, Sun]).gaps(), [2, 2, 2, 1]);
        assert_eq!(Days::of([Sun]).gaps(), [7]);
        assert_eq!(days.complement().count(), 4);
    }

    #[test]
    fn the_31st_and_the_1st_are_both_odd() {
        assert!(DayMode::Odd.waters_on(day(2026, 7, 31)) && DayMode::Odd.waters_on(day(2026, 8, 1)));
        assert!(DayMode::Odd.waters_on(day(2028, 2, 29)) && DayMode::Odd.waters_on(day(2028, 3, 1)));
    }

    #[test]
    fn every_n_days_counts_calendar_days_and_never_before_its_next() {
        let mode = DayMode::Every { days: 3, next: day(2026, 2, 27) };
        let days = (20..=28).map(|d| day(2026, 2, d)).chain((1..9).map(|d| day(2026, 3, d)));
        let runs: Vec<u32> = runs_on(mode, days);
        assert_eq!(runs, [27, 2, 5, 8]);
    }

    fn runs_on(mode: DayMode, days: impl IntoIterator<Item = NaiveDate>) -> Vec<u32> {
        days.into_iter().filter(|d| mode.waters_on(*d)).map(|d| d.day()).collect()
    }

    #[test]
    fn a_never_water_day_drops_the_run_and_the_count_goes_on() {
        let schedule = Schedule {
            days: DayMode::Every { days: 2, next: day(2026, 6, 8) },
            never: Days::of([Wed]),
            starts: vec![StartTime::new(270).unwrap()],
            split: 1,
        };
        let ran: Vec<u32> =
            (8..=16).map(|d| day(2026, 6, d)).filter(|d| schedule.waters_on(*d)).map(|d| d.day()).collect();
        assert_eq!(ran, [8, 12, 14, 16]);
    }

    #[test]
    fn times_are_read_as_people_write_them_and_nonsense_is_not() {
        assert_eq!(StartTime::read("0430"), StartTime::read(" 4:30 "));
        for no in ["25:00", "4:60", "4", "", "ab:cd", "-1:00", "24:00", "004:30"] {
            assert_eq!(StartTime::read(no), None, "{no}");
        }
        assert_eq!(StartTime::read("04:44").unwrap().down_to(15).to_string(), "04:30");
    }

    #[test]
    fn the_mean_week_of_odd_days_has_a_little_more_than_half_its_days() {
        // Counted over a whole Gregorian cycle of 400 years.
        let first = day(2000, 1, 1);
        let days = 146_097;
        let odd = (0..days).filter(|d| DayMode::Odd.waters_on(first + chrono::TimeDelta::days(*d))).count();
        let a_week = odd as f64 / days as f64 * 7.0;
        assert!((DayMode::Odd.a_week() - a_week).abs() < 1e-9, "{a_week}");
    }
}
