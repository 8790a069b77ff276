//! Files that were uploaded for a preview and not imported yet.

use std::collections::BTreeMap;

use chrono::{DateTime, Utc};
use uuid::Uuid;

/// Which uploaded files a company keeps: a preview is looked at within the day, and nobody fills the disk.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct UploadsKept {
    /// From when on.
    pub since: DateTime<Utc>,
    /// How many bytes in all, the newest files first.
    pub bytes: i64,
}

/// A file to keep for its preview.
#[derive(Debug, Clone, Copy)]
pub struct NewUpload<'a> {
    /// Its name.
    pub file_name: &'a str,
    /// Its bytes.
    pub content: &'a [u8],
    /// The place that it is for; a site file brings its own.
    pub place_id: Option<Uuid>,
    /// Who sent it, by name.
    pub user_name: &'a str,
    /// When it was sent.
    pub at: DateTime<Utc>,
}

/// An uploaded file.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Upload {
    /// Its name.
    pub file_name: String,
    /// Its bytes.
    pub content: Vec<u8>,
    /// The fields of its preview as they were left; empty before anybody chose or typed anything.
    pub typed: BTreeMap<String, String>,
}

/// An uploaded file as a list shows it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct WaitingUpload {
    /// Key.
    pub id: Uuid,
    /// Its name.
    pub file_name: String,
    /// How many bytes it has.
    pub bytes: i32,
    /// Who sent it, by name.
    pub user_name: String,
    /// When it was sent.
    pub at: DateTime<Utc>,
}
