//! Spans of hours and of days without watering.

use chrono::NaiveDate;

use crate::controller::StartTime;

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
