//! Tables with many rows a day.

use std::borrow::Cow;
use std::collections::HashMap;

use chrono_tz::Tz;

use super::super::day_hours;
use super::super::file_error::{FileError, MAX_HOUR_ROWS};
use super::super::layout::TextFile;
use super::super::table::Table;
use super::clock::{Clock, Hours};
use super::source::{Source, sources};
use super::stamp::{StampDay, Stamps};
use super::{AsDays, StationHead, Sum, cell};

/// Fewer rows than this a day, in the mean, are no table of hours: a file of days with some dates twice.
const LEAST_ROWS_A_DAY: usize = 4;

/// After so many days it is known whether it is a table of hours: a long file of days is not kept twice.
const TELLING_DAYS: usize = 1000;

/// The days of a file with many rows a day; any other comes back as it was sent.
pub(super) fn days(file: TextFile, zone: Tz) -> Result<AsDays, FileError> {
    let table = Table::of(file, MAX_HOUR_ROWS)?;
    match joined(&table, zone) {
        Some(joining) => {
            let head = StationHead { joined_rows: Some(table.len()), ..table.head() };
            // What comes out is nearly as long as the file: it is not kept beside it.
            drop(table);
            Ok(AsDays::Joined(joining.written(head)))
        }
        None => Ok(AsDays::AsSent(table.into_bytes())),
    }
}

/// The days of a table with many rows a day; nothing for any other.
fn joined(table: &Table, zone: Tz) -> Option<Joining> {
    let stamps = |at: usize| Stamps::of(&table.title(at), zone);
    let is_dated = |at: &usize| table.first_value(*at).is_some_and(|v| stamps(*at).day(v).is_some());
    let dated = (0..table.headers().len()).find(is_dated)?;
    let mut joining = Joining::new(table, dated, zone);
    table.each_row(|_, record| joining.add(record));
    joining.close();
    if joining.has_few_rows || table.len() < LEAST_ROWS_A_DAY * joining.days.len() || joining.sources.is_empty() {
        return None;
    }
    Some(joining)
}

/// The days of a file while its rows are read.
struct Joining {
    dated: usize,
    stamps: Stamps,
    clock: Clock,
    decimal_comma: bool,
    sources: Vec<Source>,
    /// Which element of an hour each source is, and whether its rows add up.
    of_hour: Vec<Option<(usize, bool)>>,
    days: Vec<Day>,
    at_date: HashMap<String, usize>,
    /// The day that rows are read of.
    open: Option<usize>,
    rows: usize,
    /// After many days there are too few rows a day: what follows is not read.
    has_few_rows: bool,
    /// Stamps told their offset from UTC, so that days are those of the zone.
    is_moved: bool,
}

impl Joining {
    fn new(table: &Table, dated: usize, zone: Tz) -> Self {
        let stamps = Stamps::of_file(&table.title(dated), zone, table, dated);
        let sources = sources(table, dated);
        Self {
            dated,
            stamps,
            clock: Clock::of(table, dated, stamps),
            decimal_comma: table.layout().decimal_comma(),
            of_hour: sources.iter().map(Source::of_hour).collect(),
            sources,
            days: Vec::new(),
            at_date: HashMap::new(),
            open: None,
            rows: 0,
            has_few_rows: false,
            is_moved: false,
        }
    }

    fn add(&mut self, record: &csv::StringRecord) {
        let days = self.days.len();
        self.has_few_rows |= days > TELLING_DAYS && self.rows < LEAST_ROWS_A_DAY * days;
        if self.has_few_rows {
            return;
        }
        self.rows += 1;
        let Some(day) = record.get(self.dated).and_then(|cell| self.stamps.day(cell)) else { return };
        let at = match day {
            StampDay::AsWritten(date) => self.day_of(Cow::Borrowed(date)),
            StampDay::OfPlace(date) => {
                self.is_moved = true;
                self.day_of(Cow::Owned(date.to_string()))
            }
        };
        if self.open != Some(at) {
            self.close();
            self.open = Some(at);
        }
        let day = &mut self.days[at];
        day.rows += 1;
        let mut hour = self.clock.minute(record).map(|minute| day.hours.of_minute(minute));
        for ((source, sum), of_hour) in self.sources.iter().zip(&mut day.sums).zip(&self.of_hour) {
            let Some(value) = source.value(record, self.decimal_comma) else { continue };
            sum.add(value);
            if let (Some(hour), Some((element, _))) = (&mut hour, of_hour) {
                hour.add(*element, value);
            }
        }
    }

    /// Where the day of a date is among the days.
    fn day_of(&mut self, date: Cow<'_, str>) -> usize {
        if let Some(at) = self.at_date.get(date.as_ref()) {
            return *at;
        }
        self.days.push(Day::new(date.clone().into_owned(), self.sources.len()));
        self.at_date.insert(date.into_owned(), self.days.len() - 1);
        self.days.len() - 1
    }

    /// No row of the day that is open follows.
    fn close(&mut self) {
        if let Some(day) = self.open.take().and_then(|open| self.days.get_mut(open)) {
            day.close(&self.of_hour);
        }
    }

    /// The table of days.
    fn written(self, head: StationHead) -> String {
        let usual = usual(self.days.iter().map(|day| day.rows));
        // Without temperatures there is nothing to work out from an hour.
        let has_temperature = self.of_hour.iter().flatten().any(|(element, _)| *element == 0);
        let keeps_hours = has_temperature && self.days.iter().any(|day| !day.cell.is_empty());
        let name = |is_so: bool| is_so.then(|| self.stamps.zone().name().to_owned());
        let mut text = String::new();
        StationHead { days_of: name(self.is_moved), hours_of: name(keeps_hours), ..head }.write(&mut text);
        text.push_str("date");
        let headers = self.sources.iter().flat_map(|s| &s.folds).map(|(.., header)| header.as_str());
        for header in headers.chain(keeps_hours.then_some(day_hours::HEADER)) {
            text.push(',');
            text.push_str(header);
        }
        text.push('\n');
        for day in self.days {
            let of_source = |(source, sum): (&Source, &Sum)| -> Vec<Option<f64>> {
                source.folds.iter().map(|(fold, ..)| sum.folded(*fold, usual)).collect()
            };
            let values: Vec<Option<f64>> = self.sources.iter().zip(&day.sums).flat_map(of_source).collect();
            // A day of which too little is there is no day of the record.
            if values.iter().all(Option::is_none) {
                continue;
            }
            text.push_str(&day.date);
            for value in values {
                cell(&mut text, value);
            }
            if keeps_hours {
                text.push(',');
                text.push_str(&day.cell);
            }
            text.push('\n');
        }
        text
    }
}

/// A day that is being joined.
struct Day {
    /// Its date as it is written.
    date: String,
    rows: u32,
    /// Of each source.
    sums: Vec<Sum>,
    /// The hours, while rows are read of the day.
    hours: Hours,
    /// The cell of its hours, afterwards. It takes a quarter of the memory.
    cell: String,
    /// Rows of the day stand in one place of the file.
    is_closed: bool,
}

impl Day {
    fn new(date: String, sources: usize) -> Self {
        let sums = vec![Sum::default(); sources];
        Self { date, rows: 0, sums, hours: Hours::default(), cell: String::new(), is_closed: false }
    }

    /// Writes the cell of the hours. Those of a day that stands in two places of the file are left out: it would be
    /// half a day.
    fn close(&mut self, of_hour: &[Option<(usize, bool)>]) {
        let hours = std::mem::take(&mut self.hours);
        self.cell = if self.is_closed { String::new() } else { hours.cell(of_hour) };
        self.is_closed = true;
    }
}

/// The rows that most days have.
fn usual(rows: impl Iterator<Item = u32>) -> u32 {
    let mut counts: HashMap<u32, u32> = HashMap::new();
    for count in rows {
        *counts.entry(count).or_default() += 1;
    }
    counts.into_iter().max_by_key(|(rows, days)| (*days, *rows)).map_or(24, |(rows, _)| rows)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The table of days that bytes are joined to.
    fn days(bytes: &[u8], zone: Tz) -> Option<String> {
        super::days(TextFile::read(bytes.to_vec()).unwrap(), zone).unwrap().joined()
    }

    /// Two days of hours: the temperature goes from 10 to 33, rain falls in two hours, one hour is missing.
    fn hourly(stamp: impl Fn(u32, u32) -> String, header: &str) -> String {
        let mut text = format!("{header}\n");
        for day in 1..=2 {
            for hour in 0..24 {
                let rain = if hour == 5 || hour == 17 { "1.5" } else { "0" };
                let wind = if day == 2 && hour == 3 { "" } else { "2" };
                text.push_str(&format!("{},{},{},{},{wind}\n", stamp(day, hour), 10 + hour, 40 + hour, rain));
            }
        }
        text
    }

    #[test]
    fn hours_become_days_with_the_units_of_the_file() {
        let header = "Timestamp,Air temp (°F),RH (%),Rain (in),Wind (mph)";
        let text = days(hourly(|d, h| format!("2026-06-0{d} {h:02}:00"), header).as_bytes(), Tz::UTC).unwrap();
        let lines: Vec<&str> = text.lines().collect();
        assert_eq!(lines[0], "joined_rows,48");
        assert_eq!(lines[1], "hours_of,UTC");
        assert_eq!(lines[2], "date,tmax degF,tmin degF,rh max %,rh min %,rain in,wind mph,hours");
        assert!(lines[3].starts_with("2026-06-01,33,10,63,40,3,2,0:10/40/2//0 1:11/41/2//0 2:12"), "{}", lines[3]);
        assert!(lines[3].ends_with(" 23:33/63/2//0"));
        // The wind of one hour is missing.
        assert!(lines[4].contains(" 3:13/43///0 "), "{}", lines[4]);
        assert_eq!(lines.len(), 5);
    }

    #[test]
    fn date_and_time_in_columns_of_their_own_and_hours_to_twenty_four() {
        let header = "Date,Temp,Humidity,Precip,Wind speed";
        // The hour stands in the same cell as a person would split it: day first, 01:00 to 24:00.
        let text = days(hourly(|d, h| format!("0{d}.06.2026 {:02}:00", h + 1), header).as_bytes(), Tz::UTC).unwrap();
        assert!(text.contains("\n01.06.2026,33,10,63,40,3,2,0:10/40/2//0 1:11/41"), "{text}");
    }

    #[test]
    fn a_day_that_stands_in_two_places_has_its_values_and_not_its_hours() {
        let header = "Time,Temp,RH,Rain,Wind";
        let whole = hourly(|d, h| format!("2026-06-0{d}T{h:02}:00"), header);
        let mut lines: Vec<&str> = whole.lines().collect();
        let evening = lines.drain(13..25).collect::<Vec<_>>();
        lines.extend(evening);
        let text = days(lines.join("\n").as_bytes(), Tz::UTC).unwrap();
        assert!(text.contains("\n2026-06-01,33,10,63,40,3,2,\n"), "{text}");
        assert!(text.contains("\n2026-06-02,33,10,63,40,3,2,0:10/"), "{text}");
    }

    #[test]
    fn a_day_with_too_few_rows_has_no_value() {
        let header = "Time,Temp,RH,Rain,Wind";
        let whole = hourly(|d, h| format!("2026-06-0{d}T{h:02}:00"), header);
        let cut: String = whole.lines().take(1 + 24 + 20).fold(String::new(), |text, line| text + line + "\n");
        let text = days(cut.as_bytes(), Tz::UTC).unwrap();
        assert!(text.contains("2026-06-01,") && !text.contains("2026-06-02,"), "{text}");
    }

    #[test]
    fn radiation_is_a_mean_of_watts_and_a_sum_of_watt_hours() {
        for (unit, day) in [("W/m2", "100"), ("Wh/m2", "8.64"), ("MJ/m2", "2400")] {
            let mut text = format!("Time,Temp C,Solar radiation {unit}\n");
            for hour in 0..24 {
                text.push_str(&format!("2026-06-01 {hour}:00,20,100\n"));
            }
            let joined = days(text.as_bytes(), Tz::UTC).unwrap();
            assert!(joined.contains(&format!("\n2026-06-01,20,20,{day},0:20///")), "{joined}");
        }
    }

    /// Two days of UTC are the end of one day, a whole one and the beginning of a third where clocks stand seven hours
    /// behind: the whole one has its seventeen hours of the first date and seven of the second.
    #[test]
    fn stamps_in_utc_are_joined_to_the_days_of_the_place() {
        let header = "Time,Temp C,RH %,Rain mm,Wind m/s";
        let utc = hourly(|d, h| format!("2026-06-0{d}T{h:02}:00:00Z"), header);
        let text = days(utc.as_bytes(), Tz::America__Los_Angeles).unwrap();
        assert!(text.contains("days_of,America/Los_Angeles\n"), "{text}");
        // Rain at 05:00 and 17:00 UTC: 22:00 of the day before, and 10:00; 1.5 mm and, seven hours into 2 June, 1.5.
        let lines: Vec<&str> = text.lines().filter(|line| line.starts_with("2026")).collect();
        assert_eq!(lines.len(), 1, "{text}");
        assert!(lines[0].starts_with("2026-06-01,33,10,63,40,3,"), "{text}");
        let local = hourly(|d, h| format!("2026-06-0{d}T{h:02}:00:00"), header);
        assert!(!days(local.as_bytes(), Tz::America__Los_Angeles).unwrap().contains("days_of"));
    }
}
