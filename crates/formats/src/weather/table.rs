use thiserror::Error;

/// Largest file that is read: 200 years of days with every column are under 20 MB.
pub const MAX_BYTES: usize = 32 * 1024 * 1024;

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
    /// A quoted cell that never ends, or another break of RFC 4180.
    #[error("line {line}: {what}")]
    Malformed {
        /// Where.
        line: u64,
        /// What the reader says.
        what: String,
    },
}

/// A file split into headers and cells.
#[derive(Debug, Clone)]
pub struct Table {
    headers: Vec<String>,
    /// Rows with the line they start on.
    records: Vec<(u64, csv::StringRecord)>,
}

impl Table {
    /// Splits a file by RFC 4180. A byte-order mark, blank lines and either kind of line end are
    /// accepted; rows of another length than the header are kept and found wrong when read.
    ///
    /// # Errors
    /// [`FileError`], always before anything is kept.
    pub fn parse(bytes: &[u8]) -> Result<Self, FileError> {
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
        let mut reader = csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes());
        let headers: Vec<String> = reader.headers().map_err(malformed)?.iter().map(|h| h.trim().to_owned()).collect();
        if let [only] = &headers[..] {
            if only.contains(';') {
                return Err(FileError::Semicolons);
            }
            if only.contains('\t') {
                return Err(FileError::Tabs);
            }
        }
        for (index, header) in headers.iter().enumerate() {
            if !header.is_empty() && headers[..index].contains(header) {
                return Err(FileError::HeaderTwice(header.clone()));
            }
        }
        let mut lines = LineCount::of(text.as_bytes());
        let mut records = Vec::new();
        for record in reader.records() {
            let record = record.map_err(malformed)?;
            let line = lines.at_record(record.position().map_or(0, csv::Position::byte));
            records.push((line, record));
        }
        if records.is_empty() {
            return Err(FileError::NoRows);
        }
        Ok(Self { headers, records })
    }

    /// The headers, trimmed.
    #[must_use]
    pub fn headers(&self) -> &[String] {
        &self.headers
    }

    /// Number of rows under the header.
    #[must_use]
    pub fn len(&self) -> usize {
        self.records.len()
    }

    /// Whether there is no row; never so after [`Table::parse`].
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.records.is_empty()
    }

    /// The first value of a column that is not blank.
    #[must_use]
    pub fn first_value(&self, column: usize) -> Option<&str> {
        self.records.iter().filter_map(|(_, r)| r.get(column)).map(str::trim).find(|v| !v.is_empty())
    }

    /// Rows with the number of the line they start on.
    pub(super) fn rows(&self) -> impl Iterator<Item = (u64, &csv::StringRecord)> {
        self.records.iter().map(|(line, record)| (*line, record))
    }
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
