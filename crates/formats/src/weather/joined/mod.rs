//! Files of other layouts than a row a day, joined to days: rows of an hour or less, a typical year, fixed columns.
//!
//! What comes out is a table of days as a person could have written it, with what the file tells of its station over
//! the header. It goes through the same preview as any other file, so that columns and units stay in sight.

mod clock;
mod fixed;
mod hours;
mod source;
mod stamp;
mod typical;

use std::fmt::Write;

use chrono_tz::Tz;

use super::column::Column;
use super::day_hours::push_number;
use super::file_error::FileError;
use super::layout::TextFile;

/// A day needs this share of its usual rows, in tenths, or its value is missing. Ours.
const ENOUGH_TENTHS: u32 = 9;

/// What a file tells of its station over its header.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct StationHead {
    /// Its name.
    pub name: Option<String>,
    /// Latitude, degrees, north positive.
    pub latitude: Option<f64>,
    /// Longitude, degrees, east positive.
    pub longitude: Option<f64>,
    /// Elevation, m.
    pub elevation_m: Option<f64>,
    /// Height of the wind sensor, m.
    pub wind_height_m: Option<f64>,
    /// How many rows of an hour or less its days were joined from.
    pub joined_rows: Option<usize>,
    /// The time zone by whose days they were joined, where the stamps told their offset from UTC.
    pub days_of: Option<String>,
    /// The time zone of the clock by which the hours of its days stand in its last column.
    pub hours_of: Option<String>,
}

/// The words under which a station is told over a header.
const NAME: &str = "station";
const LATITUDE: &str = "latitude";
const LONGITUDE: &str = "longitude";
const ELEVATION: &str = "elevation_m";
const WIND_HEIGHT: &str = "wind_height_m";
const JOINED: &str = "joined_rows";
const DAYS_OF: &str = "days_of";
const HOURS_OF: &str = "hours_of";

impl StationHead {
    /// Reads it from the lines over a header: a word of ours, a separator, a value. Other lines are passed over.
    #[must_use]
    pub fn read(lines: &[String]) -> Self {
        let mut head = Self::default();
        for line in lines {
            let Some((word, value)) = line.split_once([',', ';', '\t', ':']) else { continue };
            let value = value.trim().trim_matches('"');
            let number = || value.parse::<f64>().ok().filter(|v| v.is_finite());
            match word.trim().to_lowercase().as_str() {
                NAME if !value.is_empty() => head.name = Some(value.to_owned()),
                LATITUDE => head.latitude = number(),
                LONGITUDE => head.longitude = number(),
                ELEVATION => head.elevation_m = number(),
                WIND_HEIGHT => head.wind_height_m = number(),
                JOINED => head.joined_rows = value.parse().ok(),
                DAYS_OF if !value.is_empty() => head.days_of = Some(value.to_owned()),
                HOURS_OF if !value.is_empty() => head.hours_of = Some(value.to_owned()),
                _ => {}
            }
        }
        head
    }

    /// The lines over the header that [`Self::read`] reads again.
    fn write(&self, text: &mut String) {
        // A separator in a name would end it.
        let name = self.name.as_ref().map(|n| n.replace([',', ';', '"', '\n', '\r', '\t'], " "));
        let numbers = [
            (LATITUDE, self.latitude),
            (LONGITUDE, self.longitude),
            (ELEVATION, self.elevation_m),
            (WIND_HEIGHT, self.wind_height_m),
        ];
        if let Some(name) = name {
            let _ = writeln!(text, "{NAME},{name}");
        }
        for (word, value) in numbers {
            if let Some(value) = value {
                let _ = writeln!(text, "{word},{value}");
            }
        }
        if let Some(rows) = self.joined_rows {
            let _ = writeln!(text, "{JOINED},{rows}");
        }
        for (word, zone) in [(DAYS_OF, &self.days_of), (HOURS_OF, &self.hours_of)] {
            if let Some(zone) = zone {
                let _ = writeln!(text, "{word},{zone}");
            }
        }
    }
}

/// What joining a file came to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum AsDays {
    /// A table of days as a person could have written it.
    Joined(String),
    /// Nothing: the file, as it was sent, is such a table already, or is read as one to find out what is wrong with it.
    AsSent(Vec<u8>),
}

impl AsDays {
    /// The table that the file was joined to.
    #[must_use]
    pub fn joined(self) -> Option<String> {
        match self {
            Self::Joined(days) => Some(days),
            Self::AsSent(_) => None,
        }
    }

    /// The bytes of a table of days.
    #[must_use]
    pub fn into_bytes(self) -> Vec<u8> {
        match self {
            Self::Joined(days) => days.into_bytes(),
            Self::AsSent(bytes) => bytes,
        }
    }
}

/// A file joined to a table of days.
///
/// - Rows of an hour or less: highest and lowest temperature and humidity, mean wind and dew point, mean or sum of the
///   radiation as its unit says, sum of the rain, by the date as it is written (a stamp of 24:00 belongs to the day
///   that ends with it). Stamps with an offset from UTC, or under a header that says UTC, belong to the days of the
///   time zone. A day with under nine tenths of its usual rows has no value. The hours themselves stand in the last
///   column, by the clock of the file.
/// - A typical year in the EPW layout (EnergyPlus Weather): each month from the year that it was taken from, with the
///   station's position.
/// - GHCN-Daily's fixed columns (`.dly`): values that failed the archive's own checks are missing.
///
/// # Errors
/// [`FileError`] where the bytes are no text, no table or too many.
pub fn to_days(bytes: impl Into<Vec<u8>>, zone: Tz) -> Result<AsDays, FileError> {
    let file = TextFile::read(bytes.into())?;
    match typical::days(file.text()).or_else(|| fixed::days(file.text())) {
        Some(days) => Ok(AsDays::Joined(days)),
        None => hours::days(file, zone),
    }
}

/// Values of one element on one day.
#[derive(Debug, Clone, Copy)]
struct Sum {
    count: u32,
    sum: f64,
    low: f64,
    high: f64,
}

impl Default for Sum {
    fn default() -> Self {
        Self { count: 0, sum: 0.0, low: f64::INFINITY, high: f64::NEG_INFINITY }
    }
}

/// How the values of a day become one.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Fold {
    Mean,
    Sum,
    Low,
    High,
}

impl Sum {
    fn add(&mut self, value: f64) {
        self.count += 1;
        self.sum += value;
        self.low = self.low.min(value);
        self.high = self.high.max(value);
    }

    /// The day's value where enough of its usual rows have one.
    fn folded(&self, fold: Fold, usual_rows: u32) -> Option<f64> {
        if self.count == 0 || self.count * 10 < usual_rows * ENOUGH_TENTHS {
            return None;
        }
        Some(match fold {
            Fold::Mean => self.sum / f64::from(self.count),
            Fold::Sum => self.sum,
            Fold::Low => self.low,
            Fold::High => self.high,
        })
    }
}

/// A value in a cell of its own.
fn cell(text: &mut String, value: Option<f64>) {
    text.push(',');
    if let Some(value) = value {
        push_number(text, value);
    }
}

/// The header of days with our own columns.
fn header(text: &mut String, columns: &[&str]) {
    text.push_str(Column::Date.name());
    for column in columns {
        text.push(',');
        text.push_str(column);
    }
    text.push('\n');
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::weather::Table;

    #[test]
    fn a_station_is_read_back_from_over_the_header() {
        let head = StationHead {
            name: Some("Hut, upper".into()),
            latitude: Some(-36.5),
            longitude: Some(174.25),
            elevation_m: Some(-2.0),
            wind_height_m: Some(10.0),
            joined_rows: Some(8760),
            days_of: Some("Europe/Madrid".into()),
            hours_of: Some("Europe/Lisbon".into()),
        };
        let mut text = String::new();
        head.write(&mut text);
        text.push_str("date,tmax_c,tmin_c\n2026-06-01,20,10\n");
        let table = Table::parse(text.as_bytes()).unwrap();
        assert_eq!(table.head(), StationHead { name: Some("Hut  upper".into()), ..head });
        assert_eq!(table.headers(), ["date", "tmax_c", "tmin_c"]);
    }

    #[test]
    fn a_long_table_of_days_is_told_early_and_years_that_are_not_kept_are_left_out() {
        let mut text = String::from("date,tmax_c,tmin_c\n");
        for day in 0..3000 {
            text.push_str(&format!("{:04}-{:02}-{:02},20,10\n", 1990 + day / 336, 1 + day / 28 % 12, 1 + day % 28));
        }
        assert_eq!(to_days(text.as_bytes(), Tz::UTC).unwrap(), AsDays::AsSent(text.into_bytes()));
        let epw = |year: u32| {
            let rows: String = (1..=24).map(|hour| format!("{year},6,1,{hour},60,x,20.0,8.0\n")).collect();
            to_days(format!("LOCATION,x\n{rows}"), Tz::UTC).unwrap().joined()
        };
        assert!(epw(1995).is_some());
        assert_eq!(epw(99_999), None);
    }

    #[test]
    fn a_table_of_days_stays_as_it_is() {
        let days = "\u{feff}date,tmax_c (°C),tmin_c\n2026-06-01,20,10\n2026-06-02,21,9\n";
        let latin: Vec<u8> = days.chars().skip(1).map(|c| u8::try_from(u32::from(c)).unwrap()).collect();
        for bytes in [days.as_bytes().to_vec(), latin] {
            assert_eq!(to_days(bytes.clone(), Tz::UTC).unwrap(), AsDays::AsSent(bytes));
        }
        assert_eq!(to_days(b"", Tz::UTC), Err(FileError::Empty));
        assert!(to_days([0xff, 0xd8, 0, 1], Tz::UTC).is_err());
    }
}
