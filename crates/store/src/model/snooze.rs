//! A job that somebody put off.

use chrono::{DateTime, NaiveDate, Utc};
use uuid::Uuid;

/// A job that somebody put off, with a reason and the day on which it is there again.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Snooze {
    /// The controller.
    pub controller_id: Uuid,
    /// The job's key among those of its controller.
    pub job: String,
    /// The day on which it is there again.
    pub until: NaiveDate,
    /// Why.
    pub reason: String,
    /// Who.
    pub user_id: Uuid,
    /// Who, by name.
    pub user_name: String,
    /// When it was put off.
    pub at: DateTime<Utc>,
}
