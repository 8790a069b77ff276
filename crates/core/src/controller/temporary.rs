//! What is set for a while. Everything temporary has a reason and an end.

use chrono::NaiveDate;

use super::letter::ProgramLetter;
use crate::quantity::Percent;

/// What is set for a while.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TemporaryKind {
    /// Another percent than the month's, for a program or for all of them.
    Percent {
        /// The program; none for all.
        letter: Option<ProgramLetter>,
        /// The percent.
        percent: Percent,
    },
    /// No watering for some days, counted by the panel itself.
    RainDelay,
    /// A sensor that watering does not obey.
    Bypass {
        /// The sensor's [`id`](crate::sensor::Sensor::id).
        sensor: u16,
    },
    /// The controller is off.
    Off,
}

/// Something temporary, from a day to a day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Temporary {
    /// Names it among the controller's temporary settings, from 1; 0 until it is added.
    pub id: u16,
    /// What.
    pub kind: TemporaryKind,
    /// First day.
    pub since: NaiveDate,
    /// Last day; from the next one on it is over, and due to be put back.
    pub until: NaiveDate,
    /// Why.
    pub reason: String,
    /// Who, by name.
    pub by: String,
    /// It is over, and nobody has put it back: it goes on. Never stored; [`Controller::as_of`] tells it.
    ///
    /// [`Controller::as_of`]: crate::controller::Controller::as_of
    pub left_standing: bool,
}

impl Temporary {
    /// Whether it holds on a date: from its first day to its last, and on until it is put back.
    #[must_use]
    pub fn holds_on(&self, date: NaiveDate) -> bool {
        date >= self.since && (date <= self.until || self.left_standing)
    }

    /// Whether somebody has to put it back; a rain delay ends by itself.
    #[must_use]
    pub const fn is_put_back_by_hand(&self) -> bool {
        !matches!(self.kind, TemporaryKind::RainDelay)
    }

    /// Whether it is over and nobody has put it back.
    #[must_use]
    pub fn is_over(&self, today: NaiveDate) -> bool {
        today > self.until
    }

    /// Whether nothing is watered while it holds.
    #[must_use]
    pub const fn stops_watering(&self) -> bool {
        matches!(self.kind, TemporaryKind::Off | TemporaryKind::RainDelay)
    }
}
