//! Where the rows of a file are: in pieces of many rows, which can be read side by side.

use std::ops::Range;

use memchr::{memchr, memchr_iter, memchr2_iter};

use super::file_error::FileError;

/// Rows of a piece: enough that reading one takes far longer than handing it to a thread.
const PIECE: usize = 2048;

/// A stretch of a file that begins and ends with whole rows.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) struct Piece {
    /// Its bytes of the text.
    pub(super) bytes: Range<usize>,
    /// The line of the file that the bytes begin on.
    pub(super) line: u64,
}

/// The rows of a text.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) struct Rows {
    pub(super) pieces: Vec<Piece>,
    /// How many rows there are.
    pub(super) count: usize,
}

impl Rows {
    /// The rows of the text of a file from a byte on, at most so many.
    ///
    /// # Errors
    /// [`FileError`] where there are none or too many, or where they cannot be split.
    pub(super) fn find(text: &str, from: usize, separator: u8, most: usize) -> Result<Self, FileError> {
        let mut found = Found { lines: LineCount::from(1, text.as_bytes()), most, rows: Self::none() };
        // A quoted cell may go on over lines. Without quotes every line with something on it is a row.
        match memchr(b'"', &text.as_bytes()[from..]) {
            None => found.by_lines(from)?,
            Some(_) => found.by_records(from, separator)?,
        }
        let mut rows = found.rows;
        match rows.pieces.last_mut() {
            None => Err(FileError::NoRows),
            Some(last) => {
                last.bytes.end = text.len();
                Ok(rows)
            }
        }
    }

    const fn none() -> Self {
        Self { pieces: Vec::new(), count: 0 }
    }
}

/// The rows of a text while they are looked for.
struct Found<'a> {
    lines: LineCount<'a>,
    most: usize,
    rows: Rows,
}

impl Found<'_> {
    fn by_lines(&mut self, from: usize) -> Result<(), FileError> {
        let bytes = self.lines.bytes;
        let mut start = from;
        let ends = memchr2_iter(b'\r', b'\n', &bytes[from..]).map(|at| from + at);
        for end in ends.chain(std::iter::once(bytes.len())) {
            if end > start {
                self.row(start)?;
            }
            start = end + 1;
        }
        Ok(())
    }

    fn by_records(&mut self, from: usize, separator: u8) -> Result<(), FileError> {
        let rest = &self.lines.bytes[from..];
        let mut reader = splitter(separator).has_headers(false).from_reader(rest);
        let mut record = csv::ByteRecord::new();
        while reader.read_byte_record(&mut record).map_err(malformed)? {
            self.row(from + start_of(record.position()))?;
        }
        Ok(())
    }

    /// Counts a row that starts at this byte or after the line ends that follow it.
    fn row(&mut self, start: usize) -> Result<(), FileError> {
        if self.rows.count.is_multiple_of(PIECE) {
            let (start, line) = self.lines.at_record(start);
            if let Some(last) = self.rows.pieces.last_mut() {
                last.bytes.end = start;
            }
            self.rows.pieces.push(Piece { bytes: start..start, line });
        }
        self.rows.count += 1;
        if self.rows.count > self.most { Err(FileError::TooManyRows { most: self.most }) } else { Ok(()) }
    }
}

/// What splits rows into cells.
pub(super) fn splitter(separator: u8) -> csv::ReaderBuilder {
    let mut splitter = csv::ReaderBuilder::new();
    splitter.delimiter(separator).flexible(true);
    splitter
}

/// Where a record begins, or the line ends before it.
pub(super) fn start_of(position: Option<&csv::Position>) -> usize {
    position.map_or(0, |position| usize::try_from(position.byte()).unwrap_or(usize::MAX))
}

/// Why a file cannot be split.
pub(super) fn malformed(error: csv::Error) -> FileError {
    let line = error.position().map_or(1, csv::Position::line);
    FileError::Malformed { line, what: error.to_string() }
}

/// Counts lines up to where records start. The reader's own count is one short after Windows line
/// ends and stops at blank lines, and a technician looks the line up in an editor.
pub(super) struct LineCount<'a> {
    bytes: &'a [u8],
    at: usize,
    line: u64,
}

impl<'a> LineCount<'a> {
    /// Of bytes that begin on a line of the file.
    pub(super) const fn from(line: u64, bytes: &'a [u8]) -> Self {
        Self { bytes, at: 0, line }
    }

    /// The first byte and the line of the record that starts at this byte or after the line ends that follow it.
    pub(super) fn at_record(&mut self, start: usize) -> (usize, u64) {
        let start = start.min(self.bytes.len());
        let skipped = self.bytes[start..].iter().take_while(|b| matches!(b, b'\r' | b'\n')).count();
        let end = (start + skipped).max(self.at);
        self.line += memchr_iter(b'\n', &self.bytes[self.at..end]).count() as u64;
        self.at = end;
        (self.at, self.line)
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    /// The rows by the lines, and by the reader of CSV.
    fn both(text: &str) -> [Rows; 2] {
        let found = || Found { lines: LineCount::from(3, text.as_bytes()), most: 1_000_000, rows: Rows::none() };
        let (mut by_lines, mut by_records) = (found(), found());
        by_lines.by_lines(0).unwrap();
        by_records.by_records(0, b',').unwrap();
        [by_lines.rows, by_records.rows]
    }

    #[test]
    fn many_rows_are_found_in_pieces_that_join() {
        let text = "1,2\r\n\r\n".repeat(3 * PIECE);
        let rows = Rows::find(&text, 0, b',', usize::MAX).unwrap();
        assert_eq!(rows.count, 3 * PIECE);
        let starts: Vec<usize> = rows.pieces.iter().map(|piece| piece.bytes.start).collect();
        assert_eq!(starts, [0, 7 * PIECE, 14 * PIECE]);
        let lines: Vec<u64> = rows.pieces.iter().map(|piece| piece.line).collect();
        assert_eq!(lines, [0, 1, 2].map(|n| 1 + n * 2 * PIECE as u64));
        assert!(rows.pieces.windows(2).all(|two| two[0].bytes.end == two[1].bytes.start));
        assert_eq!(rows.pieces.last().unwrap().bytes.end, text.len());
    }

    #[test]
    fn none_and_too_many_are_errors() {
        assert_eq!(Rows::find("a,b\n\r\n", 4, b',', 9), Err(FileError::NoRows));
        assert_eq!(Rows::find("1\n2\n3", 0, b',', 2), Err(FileError::TooManyRows { most: 2 }));
        assert_eq!(Rows::find("\"1\"\n2\n3", 0, b',', 2), Err(FileError::TooManyRows { most: 2 }));
    }

    proptest! {
        #[test]
        fn lines_and_records_are_the_same_rows(text in "[a,; \r\n]{0,60}", times in 1usize..400) {
            let [by_lines, by_records] = both(&text.repeat(times));
            prop_assert_eq!(by_lines, by_records);
        }
    }
}
