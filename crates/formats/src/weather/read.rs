use chrono::NaiveDate;
use upland_core::climate::daily::{DailyWeather, Site};
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::quality::{DayIssue, RunDay, SeriesIssue, check_day, check_series};

use super::column::Column;
use super::hours_column::HoursColumn;
use super::mapping::Mapping;
use super::number::number;
use super::table::Table;

/// A row that was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Row {
    /// Line of the file it starts on.
    pub line: u64,
    /// The day.
    pub day: DailyWeather,
    /// Its hours, in the order of the file, where the table was joined from hours. A day that a person mended has
    /// none: they would hold what was wrong with it.
    pub hours: Vec<HourlyWeather>,
}

/// Something that bars a row, and with it the file.
#[derive(Debug, Clone, PartialEq)]
pub struct Fault {
    /// Line of the file.
    pub line: u64,
    /// The day, where it could be read.
    pub date: Option<NaiveDate>,
    /// What is wrong.
    pub kind: FaultKind,
}

/// What bars a row.
#[derive(Debug, Clone, PartialEq)]
pub enum FaultKind {
    /// More or fewer cells than headers.
    Cells {
        /// Cells of the row.
        found: usize,
        /// Headers of the file.
        expected: usize,
    },
    /// No such day, or not written as the mapping says.
    NotADate(String),
    /// Not a number, written with a point.
    NotANumber(Column, String),
    /// A day with an error.
    Day(DayIssue),
    /// A day that stands on an earlier line already.
    Duplicate {
        /// That line.
        first_line: u64,
    },
}

/// Something doubtful that bars nothing.
#[derive(Debug, Clone, PartialEq)]
pub struct Note {
    /// Line of the file.
    pub line: u64,
    /// The day.
    pub date: NaiveDate,
    /// What is doubtful.
    pub kind: NoteKind,
}

/// What is doubtful.
#[derive(Debug, Clone, PartialEq)]
pub enum NoteKind {
    /// A flag on the day.
    Day(DayIssue),
    /// A temperature is missing, so that the day has no reference ET.
    NoTemperature,
    /// Days are missing before this line.
    Gap {
        /// How many.
        days: i64,
    },
    /// The line's day comes before the day above it.
    OutOfOrder,
    /// The highest temperature has not moved for days.
    Stuck {
        /// How many days in a row.
        days: usize,
    },
}

/// A file that was read: its sound rows or what was kept of them, and everything that is wrong at its line.
#[derive(Debug, Clone)]
pub struct Reading<K = Row> {
    /// Rows that could be read, in the order of the file.
    pub rows: Vec<K>,
    /// What bars the file, by line.
    pub faults: Vec<Fault>,
    /// What is doubtful, by line.
    pub notes: Vec<Note>,
}

/// Reads a table by a mapping. Blank cells are missing values and stay missing.
///
/// With a `site` the sun is held against the clear sky of its place.
#[must_use]
pub fn read(table: &Table, mapping: &Mapping, site: Option<&Site>) -> Reading {
    let hours_column = HoursColumn::of(table, mapping);
    let mut reading = read_rows(table, mapping, site, |line, record, day| {
        let kept = hours_column.as_ref().filter(|_| !table.amendments().cells.contains_key(&line));
        Row { line, day: *day, hours: kept.map(|column| column.hours(record, day.date)).unwrap_or_default() }
    });
    if let Some(column) = &hours_column {
        column.settle_clock(reading.rows.iter_mut().map(|row| &mut row.hours));
    }
    reading
}

/// The same without the hours of the days.
#[must_use]
pub fn read_days(table: &Table, mapping: &Mapping, site: Option<&Site>) -> Reading {
    read_rows(table, mapping, site, |line, _, day| Row { line, day: *day, hours: Vec::new() })
}

/// The same, of whose rows only what is asked for is kept: days take more room than the file.
#[must_use]
pub fn read_each<K: Send>(
    table: &Table,
    mapping: &Mapping,
    site: Option<&Site>,
    keep: impl Fn(&DailyWeather) -> K + Sync,
) -> Reading<K> {
    read_rows(table, mapping, site, |_, _, day| keep(day))
}

fn read_rows<K: Send>(
    table: &Table,
    mapping: &Mapping,
    site: Option<&Site>,
    keep: impl Fn(u64, &csv::StringRecord, &DailyWeather) -> K + Sync,
) -> Reading<K> {
    let (headers, decimal_comma) = (table.headers().len(), table.layout().decimal_comma());
    // A rain gauge lacks none.
    let has_temperature = mapping.of(Column::TMax).is_some();
    let mut all = Stretch { rows: Vec::with_capacity(table.len()), ..Stretch::default() };
    table.fold_rows(
        |stretch: &mut Stretch<K>, line, record| match read_row(record, headers, mapping, decimal_comma) {
            Ok(day) => {
                if stretch.is_sound(line, &day, has_temperature, site) {
                    stretch.rows.push(keep(line, record, &day));
                    stretch.run.push((line, RunDay::from(&day)));
                }
            }
            Err((date, kind)) => stretch.faults.push(Fault { line, date, kind }),
        },
        |stretch| all.append(stretch),
    );
    all.checked()
}

/// What was read of a stretch of a file.
struct Stretch<K> {
    rows: Vec<K>,
    /// The sound days with their lines.
    run: Vec<(u64, RunDay)>,
    faults: Vec<Fault>,
    notes: Vec<Note>,
}

impl<K> Default for Stretch<K> {
    fn default() -> Self {
        Self { rows: Vec::new(), run: Vec::new(), faults: Vec::new(), notes: Vec::new() }
    }
}

impl<K> Stretch<K> {
    /// Whether the day can be kept; what is wrong or doubtful with it is noted.
    fn is_sound(&mut self, line: u64, day: &DailyWeather, has_temperature: bool, site: Option<&Site>) -> bool {
        let date = day.date;
        let issues = check_day(day, site);
        if let Some(fault) = issues.iter().find(|i| i.is_fault()) {
            self.faults.push(Fault { line, date: Some(date), kind: FaultKind::Day(*fault) });
            return false;
        }
        self.notes.extend(issues.into_iter().map(|issue| Note { line, date, kind: NoteKind::Day(issue) }));
        if has_temperature && (day.t_max.is_none() || day.t_min.is_none()) {
            self.notes.push(Note { line, date, kind: NoteKind::NoTemperature });
        }
        true
    }

    /// Adds what was read of a later stretch.
    fn append(&mut self, mut later: Self) {
        self.rows.append(&mut later.rows);
        self.run.append(&mut later.run);
        self.faults.append(&mut later.faults);
        self.notes.append(&mut later.notes);
    }

    /// The whole file, with the order and the run of its sound days checked.
    fn checked(mut self) -> Reading<K> {
        for issue in check_series(self.run.iter().map(|(_, day)| *day)) {
            let Some((line, day)) = self.run.get(issue.index()).copied() else { continue };
            let kind = match issue {
                SeriesIssue::Duplicate { first, .. } => {
                    let first_line = self.run.get(first).map_or(0, |(line, _)| *line);
                    let kind = FaultKind::Duplicate { first_line };
                    self.faults.push(Fault { line, date: Some(day.date), kind });
                    continue;
                }
                SeriesIssue::OutOfOrder { .. } => NoteKind::OutOfOrder,
                SeriesIssue::Gap { days, .. } => NoteKind::Gap { days },
                SeriesIssue::Stuck { days, .. } => NoteKind::Stuck { days },
            };
            self.notes.push(Note { line, date: day.date, kind });
        }
        self.faults.sort_by_key(|f| f.line);
        self.notes.sort_by_key(|n| n.line);
        Reading { rows: self.rows, faults: self.faults, notes: self.notes }
    }
}

fn read_row(
    record: &csv::StringRecord,
    headers: usize,
    mapping: &Mapping,
    decimal_comma: bool,
) -> Result<DailyWeather, (Option<NaiveDate>, FaultKind)> {
    if record.len() != headers {
        return Err((None, FaultKind::Cells { found: record.len(), expected: headers }));
    }
    let cell = |index: usize| record.get(index).unwrap_or("");
    let Some(date) = mapping.of(Column::Date) else {
        return Err((None, FaultKind::NotADate(String::new())));
    };
    let text = cell(date.index).trim();
    let date = date.unit.date(text).ok_or_else(|| (None, FaultKind::NotADate(text.to_owned())))?;
    let mut day = DailyWeather::empty(date);
    for assigned in mapping.assigned() {
        let Some(element) = assigned.column.element() else { continue };
        let text = cell(assigned.index);
        match number(text, decimal_comma) {
            Some(value) => element.put(&mut day, value.map(|v| assigned.unit.to_si(v))),
            None => return Err((Some(date), FaultKind::NotANumber(assigned.column, text.trim().to_owned()))),
        }
    }
    Ok(day)
}

#[cfg(test)]
mod tests {
    use super::super::file_error::FileError;
    use super::super::table::Amendments;
    use super::*;
    use proptest::prelude::*;

    fn reading(text: &str) -> Reading {
        let table = Table::parse(text.as_bytes()).unwrap();
        let mapping = Mapping::by_name(table.headers(), &[]).unwrap();
        read(&table, &mapping, None)
    }

    #[test]
    fn sound_rows_with_a_mark_and_windows_line_ends() {
        let r =
            reading("\u{feff}date,tmax_c,tmin_c,rain_mm,extra\r\n2016-02-28,10,2,,x\r\n2016-02-29,11.5,-3,4.2,y\r\n");
        assert!(r.faults.is_empty() && r.notes.is_empty());
        assert_eq!((r.rows[0].day.rain, r.rows[1].day.rain), (None, Some(4.2)));
        assert_eq!(r.rows[1].line, 3);
    }

    #[test]
    fn lines_are_those_of_an_editor() {
        let r = reading("date,tmax_c,tmin_c,note\n\n2016-02-28,10,2,\"two\nlines\"\n\n2016-02-29,11,1,\n");
        assert_eq!(r.rows.iter().map(|row| row.line).collect::<Vec<_>>(), [3, 6]);
    }

    /// A file that is read in several pieces, with cells and blank lines over which lines are easily miscounted.
    #[test]
    fn a_long_file_is_read_as_a_short_one_is() {
        let first = NaiveDate::from_ymd_opt(1990, 1, 1).unwrap();
        let (mut text, mut lines) = (String::from("date,tmax_c,tmin_c,note\r\n,°C,°C,\r\n"), Vec::new());
        let mut at = 3;
        for (n, day) in (0..7000).zip(first.iter_days()) {
            lines.push(at);
            let note = if n % 3 == 0 { "\"two\r\nlines\"" } else { "\"a \"\"word\"\"\"" };
            let end = if n % 1000 == 47 { "\r\n\r\n\n" } else { "\r\n" };
            let row = format!("{day},{},1,{note}{end}", n % 10 + 5);
            at += row.matches('\n').count() as u64;
            text.push_str(&row);
        }
        let r = reading(&text);
        assert_eq!((&r.faults, &r.notes), (&Vec::new(), &Vec::new()));
        assert_eq!(r.rows.iter().map(|row| row.line).collect::<Vec<_>>(), lines);
        assert!(r.rows.iter().zip(first.iter_days()).all(|(row, day)| row.day.date == day));
        // The last day is far from the first in the file, and comes twice.
        text.push_str("1990-01-01,5,1,\r\n1990-02-31,5,1,\r\n");
        let faults = reading(&text).faults;
        assert_eq!(faults.iter().map(|f| f.line).collect::<Vec<_>>(), [at, at + 1]);
        assert_eq!(faults[0].kind, FaultKind::Duplicate { first_line: 3 });
    }

    #[test]
    fn every_fault_stands_at_its_line() {
        let r = reading(
            "date,tmax_c,tmin_c\n2017-02-29,1,0\n2017-03-01,x,0\n2017-03-02,1,9\n2017-03-03,5\n2017-03-04,5,1\n2017-03-04,6,1\n",
        );
        let lines: Vec<u64> = r.faults.iter().map(|f| f.line).collect();
        assert_eq!(lines, [2, 3, 4, 5, 7]);
        assert!(matches!(&r.faults[0].kind, FaultKind::NotADate(t) if t == "2017-02-29"));
        assert!(matches!(&r.faults[1].kind, FaultKind::NotANumber(Column::TMax, t) if t == "x"));
        assert!(matches!(r.faults[2].kind, FaultKind::Day(DayIssue::TminAboveTmax { .. })));
        assert!(matches!(r.faults[3].kind, FaultKind::Cells { found: 2, expected: 3 }));
        assert!(matches!(r.faults[4].kind, FaultKind::Duplicate { first_line: 6 }));
    }

    /// What a person types in place of the file's texts, and lines that are left out.
    #[test]
    fn amended_lines_are_read_as_they_were_typed() {
        let text = "date,tmax_c,tmin_c\n2017-03-01,x,0\n2017-03-02,1,9\n2017-03-03,5\n2017-03-04,5,1\n";
        let table = Table::parse(text.as_bytes()).unwrap();
        let mapping = Mapping::by_name(table.headers(), &[]).unwrap();
        let cells = |pairs: &[(usize, &str)]| pairs.iter().map(|(c, t)| (*c, (*t).to_owned())).collect();
        let amendments = Amendments {
            // The short row gets a cell under every header; a text that is the file's own is no change.
            cells: [
                (2, cells(&[(1, "7")])),
                (4, cells(&[(2, "2")])),
                (5, cells(&[(1, "5")])),
                (99, cells(&[(1, "5")])),
            ]
            .into(),
            left_out: [3, 98].into(),
        };
        let table = table.amended(amendments);
        assert_eq!((table.len(), table.amendments().lines()), (3, vec![2, 3, 4]));
        let r = read(&table, &mapping, None);
        assert_eq!(r.faults, []);
        let days: Vec<_> = r.rows.iter().map(|row| (row.line, row.day.t_max, row.day.t_min)).collect();
        assert_eq!(days, [(2, Some(7.0), Some(0.0)), (4, Some(5.0), Some(2.0)), (5, Some(5.0), Some(1.0))]);
        assert_eq!(table.cells_of(&[3])[&3], ["2017-03-02", "1", "9"], "what is left out can be looked at");
    }

    #[test]
    fn a_gap_and_a_missing_temperature_are_notes() {
        let r = reading("date,tmax_c,tmin_c\n2012-01-01,5,1\n2015-01-01,,1\n");
        assert_eq!(r.notes.len(), 2);
        assert!(r.notes.iter().any(|n| n.kind == NoteKind::Gap { days: 1095 } && n.line == 3));
        assert!(r.notes.iter().any(|n| n.kind == NoteKind::NoTemperature));
    }

    #[test]
    fn decimal_commas_missing_marks_and_lines_under_a_preamble() {
        let r = reading("Hut\ndate;tmax_c;tmin_c;rain_mm\n;°C;°C;mm\n2026-06-01;20,5;NA;-999\n2026-06-02;x;1;0\n");
        let day = &r.rows[0];
        assert_eq!((day.line, day.day.t_max, day.day.t_min, day.day.rain), (4, Some(20.5), None, None));
        assert_eq!((r.faults[0].line, &r.faults[0].kind), (5, &FaultKind::NotANumber(Column::TMax, "x".into())));
    }

    #[test]
    fn files_that_are_no_tables_say_why() {
        let error = |bytes: &[u8]| Table::parse(bytes).unwrap_err();
        assert_eq!(error(b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR"), FileError::NotText { at: 6 });
        assert_eq!(error(b" \n\n"), FileError::Empty);
        assert_eq!(error(b"date,tmax_c\n"), FileError::NoRows);
        assert_eq!(error(b"date,date\n1,2\n"), FileError::HeaderTwice("date".into()));
        assert_eq!(error(&vec![b'a'; super::super::MAX_BYTES + 1]), FileError::TooLarge);
        let wide = (0..100_000).map(|n| format!("c{n}")).collect::<Vec<_>>().join(",");
        assert_eq!(error(wide.as_bytes()), FileError::TooManyColumns { found: 100_000 });
        assert_eq!(error(&b"a\n".repeat(300_000)), FileError::TooManyRows { most: super::super::MAX_ROWS });
    }

    proptest! {
        #[test]
        fn no_bytes_make_the_reader_panic(bytes in proptest::collection::vec(any::<u8>(), 0..400)) {
            let _ = Table::parse(bytes);
        }

        #[test]
        fn no_text_makes_the_reader_panic(rows in proptest::collection::vec("[0-9,.\\-eE\" a-z\n]{0,40}", 0..20)) {
            let text = format!("date,tmax_c,tmin_c,rain_mm\n{}", rows.join("\n"));
            if let Ok(table) = Table::parse(text.as_bytes()) {
                let mapping = Mapping::by_name(table.headers(), &[]).unwrap();
                let r = read(&table, &mapping, None);
                prop_assert!(r.rows.len() <= table.len());
            }
        }
    }
}
