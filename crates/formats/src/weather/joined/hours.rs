//! Tables with many rows a day.

use std::borrow::Cow;
use std::collections::HashMap;

use chrono_tz::Tz;

use super::super::column::{Column, Unit};
use super::super::day_hours::{self, ELEMENTS};
use super::super::mapping::unit_of_header;
use super::super::table::{Table, number};
use super::clock::{Clock, Hours};
use super::stamp::{StampDay, Stamps};
use super::{Fold, StationHead, Sum, cell};

/// Fewer rows than this a day, in the mean, are no table of hours: a file of days with some dates twice.
const LEAST_ROWS_A_DAY: usize = 4;

/// After so many days it is known whether it is a table of hours: a long file of days is not kept twice.
const TELLING_DAYS: usize = 1000;

/// Words of columns that are no weather of ours, though their headers name some.
const OTHER: [&str; 13] =
    ["gust", "dir", "soil", "leaf", "batt", "press", "baro", "index", "chill", "evap", "inside", "indoor", "flag"];

/// A column of the file that is joined.
struct Source {
    index: usize,
    /// Joules of a watt hour, where the values are those.
    factor: f64,
    /// How it is joined, and the header of each.
    folds: Vec<(Fold, Column, String)>,
}

impl Source {
    /// Which of the [`ELEMENTS`] of an hour it is, and whether the rows of an hour add up; the hour has their mean
    /// otherwise. A column of highest or lowest values is none.
    fn of_hour(&self) -> Option<(usize, bool)> {
        let has = |fold, column| self.folds.iter().any(|(f, c, _)| (*f, *c) == (fold, column));
        let pairs = [[Column::TMax, Column::TMin], [Column::RhMax, Column::RhMin]];
        if let Some(at) = pairs.iter().position(|[high, low]| has(Fold::High, *high) && has(Fold::Low, *low)) {
            return Some((at, false));
        }
        let (fold, column, _) = self.folds.first().filter(|(fold, ..)| matches!(fold, Fold::Mean | Fold::Sum))?;
        Some((ELEMENTS.iter().position(|element| element == column)?, *fold == Fold::Sum))
    }
}

/// The days of a file with many rows a day.
pub(super) fn days(bytes: &[u8], zone: Tz) -> Option<String> {
    let table = Table::parse_hours(bytes).ok()?;
    let stamps = |at: usize| Stamps::of(&table.title(at), zone);
    let is_dated = |at: &usize| table.first_value(*at).is_some_and(|v| stamps(*at).day(v).is_some());
    let dated = (0..table.headers().len()).find(is_dated)?;
    let stamps = Stamps::of_file(&table.title(dated), zone, &table, dated);
    let zone = stamps.zone();
    let clock = Clock::of(&table, dated, stamps);
    let sources = sources(&table, dated);
    let of_hour: Vec<(usize, usize, bool)> = sources
        .iter()
        .enumerate()
        .filter_map(|(source, s)| s.of_hour().map(|(element, adds_up)| (source, element, adds_up)))
        .collect();
    let comma = table.layout().decimal_comma();
    let mut at_date: HashMap<String, usize> = HashMap::new();
    let mut days: Vec<Day> = Vec::new();
    let (mut read, mut few, mut moved) = (0, false, false);
    // The day that rows are read of.
    let mut open: Option<usize> = None;
    table.each_row(|_, record| {
        few = few || (days.len() > TELLING_DAYS && read < LEAST_ROWS_A_DAY * days.len());
        if few {
            return;
        }
        read += 1;
        let Some(day) = record.get(dated).and_then(|cell| stamps.day(cell)) else { return };
        let date = match day {
            StampDay::AsWritten(date) => Cow::Borrowed(date),
            StampDay::OfPlace(date) => {
                moved = true;
                Cow::Owned(date.to_string())
            }
        };
        let known = at_date.get(date.as_ref()).copied();
        let at = known.unwrap_or_else(|| {
            days.push(Day::new(date.clone().into_owned(), sources.len()));
            at_date.insert(date.into_owned(), days.len() - 1);
            days.len() - 1
        });
        if open != Some(at) {
            if let Some(last) = open.and_then(|open| days.get_mut(open)) {
                last.close(&of_hour);
            }
            open = Some(at);
        }
        let day = &mut days[at];
        day.rows += 1;
        let value = |source: &Source| {
            let value = record.get(source.index).and_then(|text| number(text, comma)).flatten();
            value.map(|value| value * source.factor)
        };
        for (source, sum) in sources.iter().zip(&mut day.sums) {
            if let Some(value) = value(source) {
                sum.add(value);
            }
        }
        if let Some(minute) = clock.minute(record) {
            let hour = day.hours.of_minute(minute);
            for (source, element, _) in &of_hour {
                hour.add(*element, value(&sources[*source]));
            }
        }
    });
    if let Some(last) = open.and_then(|open| days.get_mut(open)) {
        last.close(&of_hour);
    }
    if few || table.len() < LEAST_ROWS_A_DAY * days.len() || sources.is_empty() {
        return None;
    }
    let usual = usual(days.iter().map(|day| day.rows));
    // Without temperatures there is nothing to work out from an hour.
    let keeps_hours =
        of_hour.iter().any(|(_, element, _)| *element == 0) && days.iter().any(|day| !day.cell.is_empty());
    let mut text = String::new();
    let name = |is_so: bool| is_so.then(|| zone.name().to_owned());
    let head = StationHead { joined_rows: Some(table.len()), days_of: name(moved), ..table.head() };
    // What comes out is nearly as long as the file: it is not kept beside it.
    drop(table);
    StationHead { hours_of: name(keeps_hours), ..head }.write(&mut text);
    text.push_str("date");
    for (.., header) in sources.iter().flat_map(|s| &s.folds) {
        text.push(',');
        text.push_str(header);
    }
    if keeps_hours {
        text.push(',');
        text.push_str(day_hours::HEADER);
    }
    text.push('\n');
    for day in days {
        let values: Vec<Option<f64>> = sources
            .iter()
            .zip(&day.sums)
            .flat_map(|(source, sum)| source.folds.iter().map(|(fold, ..)| sum.folded(*fold, usual)))
            .collect();
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
    Some(text)
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
    fn close(&mut self, of_hour: &[(usize, usize, bool)]) {
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

/// The columns of weather, each element once.
fn sources(table: &Table, dated: usize) -> Vec<Source> {
    let mut taken: Vec<Column> = Vec::new();
    let mut sources = Vec::new();
    for index in (0..table.headers().len()).filter(|index| *index != dated) {
        let title = table.title(index);
        let Some((folds, sums_watt_hours)) = folds(&title.to_lowercase()) else { continue };
        let fresh: Vec<(Fold, Column)> = folds.into_iter().filter(|(_, column)| !taken.contains(column)).collect();
        taken.extend(fresh.iter().map(|(_, column)| *column));
        let header = |column| column_header(column, &title, sums_watt_hours);
        let folds: Vec<(Fold, Column, String)> =
            fresh.into_iter().map(|(fold, column)| (fold, column, header(column))).collect();
        if !folds.is_empty() {
            let factor = if sums_watt_hours { 0.0036 } else { 1.0 };
            sources.push(Source { index, factor, folds });
        }
    }
    sources
}

/// How the values of a column are joined, by its header in lower case, and whether they are watt hours.
fn folds(header: &str) -> Option<(Vec<(Fold, Column)>, bool)> {
    let says = |words: &[&str]| words.iter().any(|word| header.contains(word));
    if says(&OTHER) {
        return None;
    }
    let one = |fold, column| Some((vec![(fold, column)], false));
    if says(&["rain", "precip", "prcp"]) {
        return one(Fold::Sum, Column::Rain);
    }
    if says(&["solar", "radiation", "irradiance", "srad"]) {
        let watt_hours = says(&["wh"]);
        let fold = if watt_hours || says(&["mj", "langley", "ly"]) { Fold::Sum } else { Fold::Mean };
        return Some((vec![(fold, Column::Solar)], watt_hours));
    }
    if says(&["dew"]) {
        return one(Fold::Mean, Column::DewPoint);
    }
    if says(&["humid", "rh"]) {
        return Some((vec![(Fold::High, Column::RhMax), (Fold::Low, Column::RhMin)], false));
    }
    if says(&["wind"]) {
        return one(Fold::Mean, Column::Wind);
    }
    if says(&["temp", "tair", "tmax", "tmin"]) {
        return match (says(&["max", "high", "hi "]), says(&["min", "low"])) {
            (true, false) => one(Fold::High, Column::TMax),
            (false, true) => one(Fold::Low, Column::TMin),
            _ => Some((vec![(Fold::High, Column::TMax), (Fold::Low, Column::TMin)], false)),
        };
    }
    None
}

/// The header of a joined column: what it is, and its unit where the file says it.
fn column_header(column: Column, title: &str, sums_watt_hours: bool) -> String {
    let word = match column {
        Column::TMax => "tmax",
        Column::TMin => "tmin",
        Column::RhMax => "rh max",
        Column::RhMin => "rh min",
        Column::DewPoint => "dew point",
        Column::Wind => "wind",
        Column::Solar => "solar",
        Column::Rain => "rain",
        Column::Date | Column::RhMean => column.name(),
    };
    let unit = match unit_of_header(title, column) {
        _ if sums_watt_hours => "MJ/m2",
        Some(Unit::Celsius) => "degC",
        Some(Unit::Fahrenheit) => "degF",
        Some(Unit::Percent) => "%",
        Some(Unit::MetresPerSecond) => "m/s",
        Some(Unit::KilometresPerHour) => "km/h",
        Some(Unit::MilesPerHour) => "mph",
        Some(Unit::Knots) => "knots",
        Some(Unit::Megajoules) => "MJ/m2",
        Some(Unit::Watts) => "W/m2",
        Some(Unit::Langleys) => "ly",
        Some(Unit::Millimetres) => "mm",
        Some(Unit::Inches) => "in",
        _ => return word.to_owned(),
    };
    format!("{word} {unit}")
}

#[cfg(test)]
mod tests {
    use super::*;

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
