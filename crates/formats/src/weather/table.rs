use std::collections::{BTreeMap, HashSet};
use std::ops::ControlFlow;
use std::sync::OnceLock;

use rayon::prelude::*;

use super::day_hours;
use super::file_error::{FileError, MAX_COLUMNS, MAX_HOUR_ROWS, MAX_ROWS};
use super::joined::StationHead;
use super::layout::{Layout, TextFile, find};
use super::mapping::{Recognised, recognise};
use super::number::number;
use super::pieces::{LineCount, Piece, Rows, malformed, splitter, start_of};

/// A file of headers and rows. The rows are split anew each time they are read, so that a file
/// takes no more memory than its text.
#[derive(Debug, Clone)]
pub struct Table {
    layout: Layout,
    /// What the lines over the header tell of the station.
    head: StationHead,
    headers: Vec<String>,
    /// The units under the headers, where the file has a line of them.
    units: Vec<String>,
    /// The first value of each column that is not blank, once somebody asks.
    first_values: OnceLock<Vec<Option<String>>>,
    file: TextFile,
    /// The rows in pieces, which can be read side by side.
    pieces: Vec<Piece>,
    rows: usize,
    amendments: Amendments,
}

/// What a person changes of a file before it is imported. The file itself stays as it was sent.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Amendments {
    /// Texts in place of those of the file, by line and column.
    pub cells: BTreeMap<u64, BTreeMap<usize, String>>,
    /// Lines that do not count.
    pub left_out: HashSet<u64>,
}

impl Amendments {
    /// The lines that are changed or left out.
    #[must_use]
    pub fn lines(&self) -> Vec<u64> {
        let mut lines: Vec<u64> = self.cells.keys().chain(&self.left_out).copied().collect();
        lines.sort_unstable();
        lines.dedup();
        lines
    }

    /// A row as it counts; nothing where it is left out. A changed row has a cell under every header.
    fn of(&self, line: u64, record: &csv::StringRecord, columns: usize) -> Option<csv::StringRecord> {
        if self.left_out.contains(&line) {
            return None;
        }
        let Some(changed) = self.cells.get(&line) else { return Some(record.clone()) };
        let cell =
            |column: usize| changed.get(&column).map_or_else(|| record.get(column).unwrap_or(""), String::as_str);
        Some((0..columns).map(cell).collect())
    }
}

impl Table {
    /// Splits a file by RFC 4180, with semicolons or tabs as well as commas. Lines over the header, a line of
    /// units under it, UTF-16, Windows-1252, blank lines and either kind of line end are
    /// accepted; rows of another length than the header are kept and found wrong when read.
    ///
    /// # Errors
    /// [`FileError`], always before anything is kept.
    pub fn parse(bytes: impl Into<Vec<u8>>) -> Result<Self, FileError> {
        Self::of(TextFile::read(bytes.into())?, MAX_ROWS)
    }

    /// The same for a file with a row an hour.
    ///
    /// # Errors
    /// As for [`Table::parse`].
    pub fn parse_hours(bytes: impl Into<Vec<u8>>) -> Result<Self, FileError> {
        Self::of(TextFile::read(bytes.into())?, MAX_HOUR_ROWS)
    }

    /// The table of a file, with at most so many rows.
    pub(super) fn of(file: TextFile, most: usize) -> Result<Self, FileError> {
        let text = file.text();
        if text.trim().is_empty() {
            return Err(FileError::Empty);
        }
        let layout = find(text, file.encoding);
        let above: Vec<String> = text.lines().take(layout.preamble).map(str::to_owned).collect();
        let head = StationHead::read(&above);
        let start = start_of_line(text, layout.preamble);
        let mut reader = splitter(layout.separator).from_reader(&text.as_bytes()[start..]);
        let headers: Vec<String> = reader.headers().map_err(malformed)?.iter().map(|h| h.trim().to_owned()).collect();
        if headers.len() > MAX_COLUMNS {
            return Err(FileError::TooManyColumns { found: headers.len() });
        }
        let mut seen = HashSet::new();
        if let Some(twice) = headers.iter().find(|h| !h.is_empty() && !seen.insert(h.as_str())) {
            return Err(FileError::HeaderTwice(twice.clone()));
        }
        let mut record = csv::StringRecord::new();
        let mut units = Vec::new();
        if layout.units && reader.read_record(&mut record).map_err(malformed)? {
            units = record.iter().map(|cell| cell.trim().to_owned()).collect();
        }
        let from = start + start_of(Some(reader.position()));
        let Rows { pieces, count } = Rows::find(text, from, layout.separator, most)?;
        let first_values = OnceLock::new();
        let amendments = Amendments::default();
        Ok(Self { layout, head, headers, units, first_values, file, pieces, rows: count, amendments })
    }

    /// The file that the table was read from, as it was sent.
    #[must_use]
    pub fn into_bytes(self) -> Vec<u8> {
        self.file.into_bytes()
    }

    /// How the file is laid out.
    #[must_use]
    pub const fn layout(&self) -> Layout {
        self.layout
    }

    /// What the lines over the header tell of the station.
    #[must_use]
    pub fn head(&self) -> StationHead {
        self.head.clone()
    }

    /// The column with the hours of each day, in a table that was joined from hours.
    #[must_use]
    pub fn hours_column(&self) -> Option<usize> {
        self.head.hours_of.as_ref()?;
        self.headers.iter().position(|header| header == day_hours::HEADER)
    }

    /// The header of a column with the unit under it.
    pub(super) fn title(&self, column: usize) -> String {
        let of = |list: &[String]| list.get(column).map_or("", String::as_str).to_owned();
        format!("{} {}", of(&self.headers), of(&self.units)).trim().to_owned()
    }

    /// What a column is by its header, and its unit by the header or the line of units.
    #[must_use]
    pub fn recognised(&self, column: usize) -> Option<Recognised> {
        let header = self.headers.get(column)?;
        let with_unit = self.units.get(column).and_then(|unit| recognise(&format!("{header} {unit}")));
        with_unit.or_else(|| recognise(header))
    }

    /// The numbers of a column in its own unit, missing values and what is no number left out.
    #[must_use]
    pub fn numbers(&self, column: usize) -> Vec<f64> {
        let mut numbers = Vec::with_capacity(self.rows);
        self.each_row(|_, record| {
            let value = record.get(column).and_then(|cell| number(cell, self.layout.decimal_comma()));
            numbers.extend(value.flatten());
        });
        numbers
    }

    /// The texts of a column, blanks left out.
    #[must_use]
    pub fn texts(&self, column: usize) -> Vec<String> {
        let mut texts = Vec::with_capacity(self.rows);
        self.each_row(|_, record| {
            texts.extend(record.get(column).map(str::trim).filter(|cell| !cell.is_empty()).map(str::to_owned));
        });
        texts
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
        self.first_values.get_or_init(|| self.find_first_values()).get(column)?.as_deref()
    }

    fn find_first_values(&self) -> Vec<Option<String>> {
        let mut values = vec![None; self.headers.len()];
        let _ = self.pieces.iter().try_for_each(|piece| {
            self.try_each_row_of_file(piece, |_, record| {
                for (first, cell) in values.iter_mut().zip(record).filter(|(first, _)| first.is_none()) {
                    *first = Some(cell.trim()).filter(|c| !c.is_empty()).map(str::to_owned);
                }
                if values.iter().all(Option::is_some) { ControlFlow::Break(()) } else { ControlFlow::Continue(()) }
            })
        });
        values
    }

    /// The table with what a person changed of it. A text that is the file's own is no change.
    #[must_use]
    pub fn amended(mut self, mut amendments: Amendments) -> Self {
        let there = self.cells_of(&amendments.lines());
        let columns = self.headers.len();
        amendments.cells.retain(|line, changed| {
            let Some(cells) = there.get(line) else { return false };
            // A row may have fewer cells than headers, and gets those that are typed.
            changed.retain(|column, text| {
                *column < columns && cells.get(*column).map(String::as_str) != Some(text.trim())
            });
            !changed.is_empty()
        });
        amendments.left_out.retain(|line| there.contains_key(line));
        self.rows -= amendments.left_out.len();
        self.amendments = amendments;
        self
    }

    /// What was changed of the file.
    #[must_use]
    pub const fn amendments(&self) -> &Amendments {
        &self.amendments
    }

    /// The trimmed cells of some lines as they count, those that are left out included.
    #[must_use]
    pub fn cells_of(&self, lines: &[u64]) -> BTreeMap<u64, Vec<String>> {
        let wanted: HashSet<u64> = lines.iter().copied().collect();
        let mut cells = BTreeMap::new();
        if wanted.is_empty() {
            return cells;
        }
        let all = Amendments { left_out: HashSet::new(), ..self.amendments.clone() };
        for piece in &self.pieces {
            self.each_row_of_file(piece, |line, record| {
                if wanted.contains(&line)
                    && let Some(record) = all.of(line, record, self.headers.len())
                {
                    cells.insert(line, record.iter().map(|cell| cell.trim().to_owned()).collect());
                }
            });
        }
        cells
    }

    /// Calls back for each row that counts, with the number of the line it starts on.
    pub(super) fn each_row(&self, mut row: impl FnMut(u64, &csv::StringRecord)) {
        self.pieces.iter().for_each(|piece| self.each_row_of(piece, &mut row));
    }

    /// Calls back for each row that counts, with something to keep for its piece of the file, and gives the kept in
    /// the order of the file. Pieces are read side by side, a few at a time.
    pub(super) fn fold_rows<T: Default + Send>(
        &self,
        row: impl Fn(&mut T, u64, &csv::StringRecord) + Sync,
        mut take: impl FnMut(T),
    ) {
        let of_piece = |piece: &Piece| {
            let mut kept = T::default();
            self.each_row_of(piece, |line, record| row(&mut kept, line, record));
            kept
        };
        for together in self.pieces.chunks(rayon::current_num_threads()) {
            let kept: Vec<T> = together.par_iter().map(of_piece).collect();
            kept.into_iter().for_each(&mut take);
        }
    }

    fn each_row_of(&self, piece: &Piece, mut row: impl FnMut(u64, &csv::StringRecord)) {
        if self.amendments == Amendments::default() {
            return self.each_row_of_file(piece, row);
        }
        self.each_row_of_file(piece, |line, record| {
            if let Some(record) = self.amendments.of(line, record, self.headers.len()) {
                row(line, &record);
            }
        });
    }

    fn each_row_of_file(&self, piece: &Piece, mut row: impl FnMut(u64, &csv::StringRecord)) {
        let _ = self.try_each_row_of_file(piece, |line, record| {
            row(line, record);
            ControlFlow::Continue(())
        });
    }

    fn try_each_row_of_file(
        &self,
        piece: &Piece,
        mut row: impl FnMut(u64, &csv::StringRecord) -> ControlFlow<()>,
    ) -> ControlFlow<()> {
        let text = &self.file.text()[piece.bytes.clone()];
        let mut reader = splitter(self.layout.separator).has_headers(false).from_reader(text.as_bytes());
        let mut lines = LineCount::from(piece.line, text.as_bytes());
        let mut record = csv::StringRecord::new();
        // The whole file was split once before, so nothing can be malformed.
        while reader.read_record(&mut record).unwrap_or(false) {
            row(lines.at_record(start_of(record.position())).1, &record)?;
        }
        ControlFlow::Continue(())
    }
}

/// Where a text goes on after its first lines.
fn start_of_line(text: &str, lines: usize) -> usize {
    let Some(last) = lines.checked_sub(1) else { return 0 };
    text.match_indices('\n').nth(last).map_or(0, |(at, _)| at + 1)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn amended(table: Table, cells: &[(u64, usize, &str)], left_out: &[u64]) -> Table {
        let mut amendments = Amendments { left_out: left_out.iter().copied().collect(), ..Amendments::default() };
        for (line, column, text) in cells {
            amendments.cells.entry(*line).or_default().insert(*column, (*text).into());
        }
        table.amended(amendments)
    }

    #[test]
    fn what_is_no_change_is_none_and_lines_that_are_not_there_are_passed_over() {
        let table = Table::parse("date,tmax_c\n2026-06-01, 20 \n2026-06-02,21\n").unwrap();
        let same = amended(table.clone(), &[(2, 1, "20"), (9, 1, "7"), (3, 7, "")], &[1, 40]);
        assert_eq!((same.amendments(), same.len()), (&Amendments::default(), 2));
        let changed = amended(table, &[(2, 1, "19")], &[3]);
        assert_eq!((changed.amendments().lines(), changed.len()), (vec![2, 3], 1));
        assert_eq!(changed.numbers(1), [19.0]);
        assert_eq!(changed.texts(0), ["2026-06-01"], "a line that is left out does not count");
    }

    #[test]
    fn the_first_value_of_a_column_may_come_late_or_never() {
        let mut text = String::from("date,rain_mm,note\n");
        for n in 0..5000 {
            text.push_str(&format!("{n},{},\n", if n < 4000 { "" } else { " 2.5 " }));
        }
        let table = Table::parse(text).unwrap();
        assert_eq!([0, 1, 2, 3].map(|column| table.first_value(column)), [Some("0"), Some("2.5"), None, None]);
    }

    proptest! {
        /// Rows that are read side by side come in the order of the file, each with its line.
        #[test]
        fn rows_come_in_order_however_they_are_read(cells in prop::collection::vec("[a-c\n ]{0,3}", 1..60), times in 1usize..300) {
            let rows: String = cells.iter().map(|cell| format!("\"{cell}\",1\n")).collect();
            let table = Table::parse(format!("a,b\n{}", rows.repeat(times))).unwrap();
            let (mut one_by_one, mut together) = (Vec::new(), Vec::new());
            table.each_row(|line, record| one_by_one.push((line, record[0].to_owned())));
            table.fold_rows(
                |piece: &mut Vec<(u64, String)>, line, record| piece.push((line, record[0].to_owned())),
                |mut piece| together.append(&mut piece),
            );
            prop_assert_eq!(one_by_one.len(), cells.len() * times);
            prop_assert_eq!(&one_by_one, &together);
            let last_line = 1 + rows.repeat(times).matches('\n').count() as u64;
            let last = cells.last().map_or(0, |cell| cell.matches('\n').count() as u64);
            prop_assert_eq!(together.last().map(|(line, _)| *line), Some(last_line - last));
        }
    }
}
