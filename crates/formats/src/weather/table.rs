use std::collections::HashSet;

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
    /// Text, but not UTF-8.
    #[error("line {line} is not UTF-8 text; save the file as UTF-8")]
    NotUtf8 {
        /// The first such line.
        line: u64,
    },
    /// Nothing but blank lines.
    #[error("the file is empty")]
    Empty,
    /// Separated by semicolons, usually with decimal commas.
    #[error(
        "line 1 is separated by semicolons; save the file with commas between the columns and points in the numbers"
    )]
    Semicolons,
    /// Separated by tabs.
    #[error("line 1 is separated by tabs; save the file with commas between the columns")]
    Tabs,
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

/// A file of headers and rows. The rows are split anew each time they are read, so that a file
/// takes no more memory than its text.
#[derive(Debug, Clone)]
pub struct Table {
    headers: Vec<String>,
    /// The first value of each column that is not blank.
    first_values: Vec<Option<String>>,
    text: String,
    rows: usize,
}

impl Table {
    /// Splits a file by RFC 4180. A byte-order mark, blank lines and either kind of line end are
    /// accepted; rows of another length than the header are kept and found wrong when read.
    ///
    /// # Errors
    /// [`FileError`], always before anything is kept.
    pub fn parse(bytes: &[u8]) -> Result<Self, FileError> {
        Self::parse_up_to(bytes, MAX_ROWS)
    }

    /// The same for a file with a row an hour.
    ///
    /// # Errors
    /// As for [`Table::parse`].
    pub fn parse_hours(bytes: &[u8]) -> Result<Self, FileError> {
        Self::parse_up_to(bytes, MAX_HOUR_ROWS)
    }

    fn parse_up_to(bytes: &[u8], most: usize) -> Result<Self, FileError> {
        if bytes.len() > MAX_BYTES {
            return Err(FileError::TooLarge);
        }
        if let Some(at) = bytes.iter().position(|b| matches!(b, 0..=8 | 14..=31)) {
            return Err(FileError::NotText { at });
        }
        let text = std::str::from_utf8(bytes).map_err(|error| {
            let before = &bytes[..error.valid_up_to()];
            FileError::NotUtf8 { line: before.iter().filter(|b| **b == b'\n').count() as u64 + 1 }
        })?;
        let text = text.strip_prefix('\u{feff}').unwrap_or(text);
        if text.trim().is_empty() {
            return Err(FileError::Empty);
        }
        let mut reader = reader(text);
        let headers: Vec<String> = reader.headers().map_err(malformed)?.iter().map(|h| h.trim().to_owned()).collect();
        if let [only] = &headers[..] {
            if only.contains(';') {
                return Err(FileError::Semicolons);
            }
            if only.contains('\t') {
                return Err(FileError::Tabs);
            }
        }
        if headers.len() > MAX_COLUMNS {
            return Err(FileError::TooManyColumns { found: headers.len() });
        }
        let mut seen = HashSet::new();
        if let Some(twice) = headers.iter().find(|h| !h.is_empty() && !seen.insert(h.as_str())) {
            return Err(FileError::HeaderTwice(twice.clone()));
        }
        let (mut first_values, mut rows) = (vec![None; headers.len()], 0);
        let mut record = csv::StringRecord::new();
        while reader.read_record(&mut record).map_err(malformed)? {
            rows += 1;
            if rows > most {
                return Err(FileError::TooManyRows { most });
            }
            for (first, cell) in first_values.iter_mut().zip(&record).filter(|(first, _)| first.is_none()) {
                *first = Some(cell.trim()).filter(|c| !c.is_empty()).map(str::to_owned);
            }
        }
        if rows == 0 {
            return Err(FileError::NoRows);
        }
        Ok(Self { headers, first_values, text: text.to_owned(), rows })
    }

    /// The headers, trimmed.
    #[must_use]
    pub fn headers(&self) -> &[String] {
        &self.headers
    }

    /// Number of rows under the header.
    #[must_use]
    pub fn len(&self) -> usize {
        self.rows
    }

    /// Whether there is no row; never so after [`Table::parse`].
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.rows == 0
    }

    /// The first value of a column that is not blank.
    #[must_use]
    pub fn first_value(&self, column: usize) -> Option<&str> {
        self.first_values.get(column)?.as_deref()
    }

    /// Calls back for each row, with the number of the line it starts on.
    pub(super) fn each_row(&self, mut row: impl FnMut(u64, &csv::StringRecord)) {
        let (mut reader, mut lines) = (reader(&self.text), LineCount::of(self.text.as_bytes()));
        let mut record = csv::StringRecord::new();
        // The whole file was split once before, so nothing can be malformed.
        while reader.read_record(&mut record).unwrap_or(false) {
            row(lines.at_record(record.position().map_or(0, csv::Position::byte)), &record);
        }
    }
}

fn reader(text: &str) -> csv::Reader<&[u8]> {
    csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes())
}

/// Counts lines up to where records start. The reader's own count is one short after Windows line
/// ends and stops at blank lines, and a technician looks the line up in an editor.
struct LineCount<'a> {
    bytes: &'a [u8],
    at: usize,
    line: u64,
}

impl<'a> LineCount<'a> {
    const fn of(bytes: &'a [u8]) -> Self {
        Self { bytes, at: 0, line: 1 }
    }

    /// The line of the record that starts at this byte or after the line ends that follow it.
    fn at_record(&mut self, start: u64) -> u64 {
        let start = usize::try_from(start).unwrap_or(usize::MAX).min(self.bytes.len());
        let skipped = self.bytes[start..].iter().take_while(|b| matches!(b, b'\r' | b'\n')).count();
        let end = (start + skipped).max(self.at);
        self.line += self.bytes[self.at..end].iter().filter(|b| **b == b'\n').count() as u64;
        self.at = end;
        self.line
    }
}

fn malformed(error: csv::Error) -> FileError {
    let line = error.position().map_or(1, csv::Position::line);
    FileError::Malformed { line, what: error.to_string() }
}
