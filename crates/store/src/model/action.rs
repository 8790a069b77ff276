//! An action, in a line.

use chrono::{DateTime, Utc};
use uuid::Uuid;

/// An action as the undo line shows it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ActionLine {
    /// Its key.
    pub id: Uuid,
    /// When.
    pub at: DateTime<Utc>,
    /// What was done: the key of a word.
    pub why: String,
}
