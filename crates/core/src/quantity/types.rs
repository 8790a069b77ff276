use super::ranges::{OutOfRange, range};

/// A newtype over `f64` that is checked against its range when it is made.
macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $range:expr) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
        pub struct $name(f64);

        impl $name {
            /// Makes the quantity.
            ///
            /// # Errors
            /// [`OutOfRange`] outside the range of the table, and for NaN.
            pub fn new(value: f64) -> Result<Self, OutOfRange> {
                $range.check(value).map(Self)
            }

            /// The number in the unit of the type.
            #[must_use]
            pub const fn get(self) -> f64 {
                self.0
            }
        }
    };
}

quantity!(
    /// A depth of water, mm.
    DepthMm, range::DEPTH
);
quantity!(
    /// How fast a station lays water down, mm/h.
    RateMmPerHour, range::RATE
);
quantity!(
    /// A landscape coefficient K_L, the share of reference ET that a planting needs.
    Coefficient, range::COEFFICIENT
);

/// A water-budget percent on a controller: a whole number, 0 to 400.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Percent(u16);

impl Percent {
    /// The percent at which base minutes run as they were set.
    pub const FULL: Self = Self(100);

    /// Makes a percent.
    ///
    /// # Errors
    /// [`OutOfRange`] above 400, which no controller offers.
    pub fn new(value: u16) -> Result<Self, OutOfRange> {
        range::PERCENT.check(f64::from(value)).map(|_| Self(value))
    }

    /// A percent known when the code was written; anything over 400 is held at 400.
    pub(crate) const fn literal(value: u16) -> Self {
        Self(if value > 400 { 400 } else { value })
    }

    /// The number of percent.
    #[must_use]
    pub const fn get(self) -> u16 {
        self.0
    }
}

/// A run time in whole seconds, so that a panel's steps are kept exactly.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Default)]
pub struct RunTime(u32);

impl RunTime {
    /// No water.
    pub const ZERO: Self = Self(0);

    /// Makes a run time from minutes, to the nearest second.
    ///
    /// # Errors
    /// [`OutOfRange`] under 0 and over a day (1440 min).
    pub fn from_minutes(minutes: f64) -> Result<Self, OutOfRange> {
        let minutes = range::RUN_MINUTES.check(minutes)?;
        // In range, so 0 to 86 400: the cast cannot lose anything.
        Ok(Self((minutes * 60.0).round() as u32))
    }

    /// Makes a run time from seconds; over a day it is held at a day.
    #[must_use]
    pub const fn from_seconds(seconds: u32) -> Self {
        Self(if seconds > 86_400 { 86_400 } else { seconds })
    }

    /// Seconds.
    #[must_use]
    pub const fn seconds(self) -> u32 {
        self.0
    }

    /// Minutes, with their fraction.
    #[must_use]
    pub fn minutes(self) -> f64 {
        f64::from(self.0) / 60.0
    }
}

/// A month of the year, January first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct MonthOfYear(u8);

impl MonthOfYear {
    /// The month of a date.
    #[must_use]
    pub fn of(date: chrono::NaiveDate) -> Self {
        use chrono::Datelike;
        Self::ALL[date.month0() as usize]
    }

    /// All twelve, in order.
    pub const ALL: [Self; 12] =
        [Self(1), Self(2), Self(3), Self(4), Self(5), Self(6), Self(7), Self(8), Self(9), Self(10), Self(11), Self(12)];

    /// Makes a month from its number, 1 to 12.
    #[must_use]
    pub const fn new(number: u8) -> Option<Self> {
        if number >= 1 && number <= 12 { Some(Self(number)) } else { None }
    }

    /// The month's number, 1 to 12.
    #[must_use]
    pub const fn number(self) -> u8 {
        self.0
    }

    /// The month's place in an array of twelve, 0 to 11.
    #[must_use]
    pub const fn index(self) -> usize {
        (self.0 - 1) as usize
    }

    /// Days in the month on average over the years: February has 28.25.
    ///
    /// Normals hold for no particular year, so the leap day is spread over four.
    #[must_use]
    pub const fn mean_days(self) -> f64 {
        match self.0 {
            2 => 28.25,
            4 | 6 | 9 | 11 => 30.0,
            _ => 31.0,
        }
    }

    /// Days in the month in a year.
    #[must_use]
    pub fn days_in(self, year: i32) -> u8 {
        let month = chrono::Month::try_from(self.0);
        // Out of chrono's years, which no record reaches, the mean will do.
        month.ok().and_then(|month| month.num_days(year)).unwrap_or_else(|| self.mean_days() as u8)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn quantities_refuse_what_cannot_be() {
        assert!(RateMmPerHour::new(0.84).is_err());
        assert!(RateMmPerHour::new(150.1).is_err());
        assert!(Coefficient::new(f64::NAN).is_err());
        assert!(Percent::new(401).is_err());
        assert!(RunTime::from_minutes(-1.0).is_err());
        assert!(MonthOfYear::new(13).is_none());
    }

    #[test]
    fn the_mean_year_has_a_quarter_of_a_leap_day() {
        let days: f64 = MonthOfYear::ALL.iter().map(|m| m.mean_days()).sum();
        assert!((days - 365.25).abs() < 1e-9);
    }
}
