//! What time it is. The only place of the pages that asks the machine.

use chrono::{DateTime, NaiveDate, NaiveDateTime, NaiveTime, Utc};
use chrono_tz::Tz;

/// The clock of the application.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Clock {
    /// The machine's.
    #[default]
    Machine,
    /// Pages are shown as of this day, early in the morning: for demonstrations and tests. What
    /// is written to the log keeps the real time.
    Day(NaiveDate),
}

/// The hour that a fixed day is shown at.
const MORNING: NaiveTime = match NaiveTime::from_hms_opt(7, 12, 0) {
    Some(time) => time,
    None => NaiveTime::MIN,
};

impl Clock {
    /// The instant, for what is written.
    #[must_use]
    pub fn now(self) -> DateTime<Utc> {
        Utc::now()
    }

    /// The local date and time at a place, for what is shown.
    #[must_use]
    pub fn local(self, zone: Tz) -> NaiveDateTime {
        match self {
            Self::Machine => Utc::now().with_timezone(&zone).naive_local(),
            Self::Day(day) => day.and_time(MORNING),
        }
    }

    /// The moment that is shown at a place: that of the local date and time.
    #[must_use]
    pub fn moment(self, zone: Tz) -> DateTime<Utc> {
        // An hour that the clock leaves out has no moment of its own: the real one will do.
        self.local(zone).and_local_timezone(zone).earliest().map_or_else(Utc::now, |t| t.with_timezone(&Utc))
    }

    /// The machine's instant of a moment that is shown at a place, to look it up among what was written. On a fixed
    /// day what was written an hour ago is shown as an hour before that day's morning.
    #[must_use]
    pub fn written(self, shown: DateTime<Utc>, zone: Tz) -> DateTime<Utc> {
        match self {
            Self::Machine => shown,
            Self::Day(_) => Utc::now() - (self.moment(zone) - shown),
        }
    }

    /// The local day at a place.
    #[must_use]
    pub fn today(self, zone: Tz) -> NaiveDate {
        self.local(zone).date()
    }
}
