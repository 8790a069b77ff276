//! Hourly weather: one row an hour.

use chrono::DateTime;
use upland_core::climate::daily::Site;
use upland_core::climate::hour_quality::{HourIssue, HoursIssue, check_hour, check_hours};
use upland_core::climate::hourly::{HourlyWeather, MJ_OF_A_WATT_HOUR};

use super::number::number;
use super::table::Table;

/// A column of hourly weather.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum HourColumn {
    /// When the hour begins, RFC 3339.
    Time,
    /// Mean air temperature, °C.
    Temp,
    /// Mean relative humidity, %.
    Rh,
    /// Mean wind, m/s.
    Wind,
    /// Solar radiation, W/m², mean of the hour.
    Solar,
    /// Rain, mm.
    Rain,
}

impl HourColumn {
    /// All columns, in the order in which files are written.
    pub const ALL: [Self; 6] = [Self::Time, Self::Temp, Self::Rh, Self::Wind, Self::Solar, Self::Rain];

    /// The column's name in our files, with its unit.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Time => "time",
            Self::Temp => "temp_c",
            Self::Rh => "rh_pct",
            Self::Wind => "wind_ms",
            Self::Solar => "solar_w_m2",
            Self::Rain => "rain_mm",
        }
    }

    /// The column with this name.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|c| c.name() == name)
    }
}

/// Where the columns of an hourly file are.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct HourMapping {
    time: usize,
    others: Vec<(usize, HourColumn)>,
}

/// Why an hourly file cannot be read by its headers.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum HourMappingError {
    /// No column is read as this, and nothing can be done without it.
    #[error("no column is {}", .0.name())]
    Missing(HourColumn),
    /// A stated header is not in the file.
    #[error("the file has no header {header:?} for {}", column.name())]
    NoSuchHeader {
        /// What it was stated for.
        column: HourColumn,
        /// The header.
        header: String,
    },
}

impl HourMapping {
    /// The columns by our own names, or by the headers stated for them.
    ///
    /// # Errors
    /// [`HourMappingError`] when the time or the temperature is missing, or a stated header is not there.
    pub fn by_name(headers: &[String], stated: &[(HourColumn, String)]) -> Result<Self, HourMappingError> {
        let find = |wanted: &str| headers.iter().position(|h| h == wanted);
        let place = |column: HourColumn| match stated.iter().find(|(c, _)| *c == column) {
            Some((_, header)) => {
                find(header).map(Some).ok_or_else(|| HourMappingError::NoSuchHeader { column, header: header.clone() })
            }
            None => Ok(find(column.name())),
        };
        let time = place(HourColumn::Time)?.ok_or(HourMappingError::Missing(HourColumn::Time))?;
        let mut others = Vec::new();
        for column in HourColumn::ALL.into_iter().skip(1) {
            if let Some(index) = place(column)? {
                others.push((index, column));
            }
        }
        if !others.iter().any(|(_, c)| *c == HourColumn::Temp) {
            return Err(HourMappingError::Missing(HourColumn::Temp));
        }
        Ok(Self { time, others })
    }
}

/// Something that bars a row, and with it the file.
#[derive(Debug, Clone, PartialEq)]
pub struct HourFault {
    /// Line of the file.
    pub line: u64,
    /// What is wrong.
    pub kind: HourFaultKind,
}

/// What bars a row of an hourly file.
#[derive(Debug, Clone, PartialEq)]
pub enum HourFaultKind {
    /// More or fewer cells than headers.
    Cells {
        /// Cells of the row.
        found: usize,
        /// Headers of the file.
        expected: usize,
    },
    /// No time written by RFC 3339, with its offset.
    NotATime(String),
    /// Not a number, written with a point.
    NotANumber(HourColumn, String),
    /// An hour with an error.
    Hour(HourIssue),
    /// A row that begins within the hour of an earlier line.
    Overlap {
        /// That line.
        first_line: u64,
    },
}

/// Something doubtful that bars nothing.
#[derive(Debug, Clone, PartialEq)]
pub struct HourNote {
    /// Line of the file.
    pub line: u64,
    /// What is doubtful.
    pub kind: HourNoteKind,
}

/// What is doubtful with a row of an hourly file.
#[derive(Debug, Clone, PartialEq)]
pub enum HourNoteKind {
    /// A flag on the hour.
    Hour(HourIssue),
    /// The temperature is missing, so that the hour has no reference ET.
    NoTemperature,
    /// Hours are missing before this line.
    Gap {
        /// How many.
        hours: i64,
    },
    /// The line's hour comes before that of the line above it.
    OutOfOrder,
}

/// An hourly file that was read: sound hours, and everything that is wrong at its line.
#[derive(Debug, Clone, Default)]
pub struct HourReading {
    /// Lines of the sound hours.
    pub lines: Vec<u64>,
    /// The sound hours, in the order of the file.
    pub hours: Vec<HourlyWeather>,
    /// What bars the file, by line.
    pub faults: Vec<HourFault>,
    /// What is doubtful, by line.
    pub notes: Vec<HourNote>,
}

/// Reads a table of hours. Blank cells are missing values and stay missing.
#[must_use]
pub fn read_hours(table: &Table, mapping: &HourMapping, site: &Site) -> HourReading {
    let mut reading = HourReading::default();
    let decimal_comma = table.layout().decimal_comma();
    table.fold_rows(
        |piece: &mut HourReading, line, record| match read_row(record, table.headers().len(), mapping, decimal_comma) {
            Ok(hour) => piece.take(line, hour, site),
            Err(kind) => piece.faults.push(HourFault { line, kind }),
        },
        |piece| reading.append(piece),
    );
    reading.check_run();
    reading
}

impl HourReading {
    fn take(&mut self, line: u64, hour: HourlyWeather, site: &Site) {
        let issues = check_hour(&hour, site);
        if let Some(fault) = issues.iter().find(|i| i.is_fault()) {
            self.faults.push(HourFault { line, kind: HourFaultKind::Hour(*fault) });
            return;
        }
        self.notes.extend(issues.into_iter().map(|issue| HourNote { line, kind: HourNoteKind::Hour(issue) }));
        if hour.t.is_none() {
            self.notes.push(HourNote { line, kind: HourNoteKind::NoTemperature });
        }
        self.lines.push(line);
        self.hours.push(hour);
    }

    /// Adds what was read of a later piece of the file.
    fn append(&mut self, mut later: Self) {
        self.lines.append(&mut later.lines);
        self.hours.append(&mut later.hours);
        self.faults.append(&mut later.faults);
        self.notes.append(&mut later.notes);
    }

    fn check_run(&mut self) {
        for issue in check_hours(&self.hours) {
            let line = self.lines[issue.index()];
            let kind = match issue {
                HoursIssue::Overlap { first, .. } => {
                    let kind = HourFaultKind::Overlap { first_line: self.lines[first] };
                    self.faults.push(HourFault { line, kind });
                    continue;
                }
                HoursIssue::OutOfOrder { .. } => HourNoteKind::OutOfOrder,
                HoursIssue::Gap { hours, .. } => HourNoteKind::Gap { hours },
            };
            self.notes.push(HourNote { line, kind });
        }
        self.faults.sort_by_key(|f| f.line);
        self.notes.sort_by_key(|n| n.line);
    }
}

fn read_row(
    record: &csv::StringRecord,
    headers: usize,
    mapping: &HourMapping,
    decimal_comma: bool,
) -> Result<HourlyWeather, HourFaultKind> {
    if record.len() != headers {
        return Err(HourFaultKind::Cells { found: record.len(), expected: headers });
    }
    let cell = |index: usize| record.get(index).unwrap_or("").trim();
    let text = cell(mapping.time);
    let start = DateTime::parse_from_rfc3339(text).map_err(|_| HourFaultKind::NotATime(text.to_owned()))?;
    let mut hour = HourlyWeather::empty(start);
    for (index, column) in &mapping.others {
        let text = cell(*index);
        let value = number(text, decimal_comma).ok_or_else(|| HourFaultKind::NotANumber(*column, text.to_owned()))?;
        let Some(value) = value else { continue };
        match column {
            HourColumn::Time => {}
            HourColumn::Temp => hour.t = Some(value),
            HourColumn::Rh => hour.rh = Some(value),
            HourColumn::Wind => hour.wind = Some(value),
            HourColumn::Solar => hour.solar = Some(value * MJ_OF_A_WATT_HOUR),
            HourColumn::Rain => hour.rain = Some(value),
        }
    }
    Ok(hour)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use upland_core::climate::daily::Guesses;
    use upland_core::place::Position;

    fn reading(text: &str) -> HourReading {
        let site = Site::new(&Position::new(39.5, -118.8, 1208.5).unwrap(), 3.0, Guesses::default()).unwrap();
        let table = Table::parse(text.as_bytes()).unwrap();
        read_hours(&table, &HourMapping::by_name(table.headers(), &[]).unwrap(), &site)
    }

    #[test]
    fn watts_through_an_hour_are_megajoules() {
        let r =
            reading("time,temp_c,solar_w_m2,other\n2015-07-01T18:00:00Z,33.2,711.29,x\n2015-07-01T12:00:00-07:00,,,\n");
        assert!(r.faults.is_empty(), "{:?}", r.faults);
        assert!((r.hours[0].solar.unwrap() - 2.560_644).abs() < 1e-6);
        assert_eq!(r.hours[1].t, None);
        assert_eq!(r.notes, [HourNote { line: 3, kind: HourNoteKind::NoTemperature }]);
    }

    #[test]
    fn every_fault_stands_at_its_line() {
        let r = reading(
            "time,temp_c\n2015-07-01 18:00,20\n2015-07-01T18:00:00Z,x\n2015-07-01T19:00:00Z\n2015-07-01T20:00:00Z,99\n2015-07-01T21:00:00Z,20\n2015-07-01T14:00:00-07:00,21\n2015-07-02T00:00:00Z,20\n",
        );
        let lines: Vec<u64> = r.faults.iter().map(|f| f.line).collect();
        assert_eq!(lines, [2, 3, 4, 5, 7]);
        assert!(matches!(&r.faults[0].kind, HourFaultKind::NotATime(t) if t == "2015-07-01 18:00"));
        assert_eq!(r.faults[4].kind, HourFaultKind::Overlap { first_line: 6 });
        assert_eq!(r.notes, [HourNote { line: 8, kind: HourNoteKind::Gap { hours: 2 } }]);
    }

    #[test]
    fn a_file_without_time_or_temperature_says_which() {
        let headers = |names: &[&str]| names.iter().map(|n| (*n).to_owned()).collect::<Vec<_>>();
        let error = |names: &[&str]| HourMapping::by_name(&headers(names), &[]).unwrap_err().to_string();
        assert_eq!(error(&["temp_c"]), "no column is time");
        assert_eq!(error(&["time", "rh_pct"]), "no column is temp_c");
        let stated = [(HourColumn::Temp, "T air".to_owned())];
        assert!(HourMapping::by_name(&headers(&["time", "T air"]), &stated).is_ok());
        assert!(HourMapping::by_name(&headers(&["time", "temp_c"]), &stated).is_err());
    }

    proptest! {
        #[test]
        fn no_text_makes_the_reader_panic(rows in proptest::collection::vec("[0-9TZ:,.\\-+eE\" a-z\n]{0,50}", 0..20)) {
            let text = format!("time,temp_c,rh_pct,wind_ms\n2015-07-01T18:00:00Z,1,2,3\n{}", rows.join("\n"));
            if let Ok(table) = Table::parse(text.as_bytes()) {
                let site = Site::new(&Position::new(0.0, 0.0, 0.0).unwrap(), 2.0, Guesses::default()).unwrap();
                let mapping = HourMapping::by_name(table.headers(), &[]).unwrap();
                let r = read_hours(&table, &mapping, &site);
                prop_assert!(r.hours.len() <= table.len());
            }
        }
    }
}
