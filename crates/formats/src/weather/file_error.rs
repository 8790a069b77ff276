//! How large a file may be, and why one cannot be read.

use thiserror::Error;

/// Largest file that is read: 200 years of days with every column are under 20 MB.
pub const MAX_BYTES: usize = 32 * 1024 * 1024;

/// Most columns that are read; loggers write a few dozen.
pub const MAX_COLUMNS: usize = 200;

/// Most rows that are read: every day of the years that are kept, and as many again in duplicates
/// as a careless copy makes.
pub const MAX_ROWS: usize = 220_000;

/// Most rows of an hourly file: a hundred years of hours.
pub const MAX_HOUR_ROWS: usize = 880_000;

/// Why a file cannot be read as a table at all.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum FileError {
    /// Larger than [`MAX_BYTES`].
    #[error("the file is larger than {} MB", MAX_BYTES / 1024 / 1024)]
    TooLarge,
    /// Bytes that no text has, such as those of a picture.
    #[error("this is not a text file: byte {at} is not text")]
    NotText {
        /// Where the first such byte stands.
        at: usize,
    },
    /// Nothing but blank lines.
    #[error("the file is empty")]
    Empty,
    /// The same header twice: nobody can tell which is meant.
    #[error("the header {0:?} is there twice")]
    HeaderTwice(String),
    /// A header but no row under it.
    #[error("there is a header but no row under it")]
    NoRows,
    /// More columns than [`MAX_COLUMNS`].
    #[error("the file has {found} columns; up to {MAX_COLUMNS} are read")]
    TooManyColumns {
        /// Columns of the header.
        found: usize,
    },
    /// More rows than [`MAX_ROWS`] or, by the hour, [`MAX_HOUR_ROWS`].
    #[error("the file has more than {most} rows; that is more than any record has")]
    TooManyRows {
        /// Most rows that are read.
        most: usize,
    },
    /// A quoted cell that never ends, or another break of RFC 4180.
    #[error("line {line}: {what}")]
    Malformed {
        /// Where.
        line: u64,
        /// What the reader says.
        what: String,
    },
}
