//! The columns of a file with many rows a day: what each is, and how its rows are joined.

use upland_core::climate::hourly::MJ_OF_A_WATT_HOUR;

use super::super::column::{Column, Unit};
use super::super::day_hours::ELEMENTS;
use super::super::mapping::unit_of_header;
use super::super::number::number;
use super::super::table::Table;
use super::Fold;

/// Words of columns that are no weather of ours, though their headers name some.
const OTHER: [&str; 13] =
    ["gust", "dir", "soil", "leaf", "batt", "press", "baro", "index", "chill", "evap", "inside", "indoor", "flag"];

/// A column of the file that is joined.
pub(super) struct Source {
    index: usize,
    /// Joules of a watt hour, where the values are those.
    factor: f64,
    /// How it is joined, and the header of each.
    pub(super) folds: Vec<(Fold, Column, String)>,
}

impl Source {
    /// Which of the [`ELEMENTS`] of an hour it is, and whether the rows of an hour add up; the hour has their mean
    /// otherwise. A column of highest or lowest values is none.
    pub(super) fn of_hour(&self) -> Option<(usize, bool)> {
        let has = |fold, column| self.folds.iter().any(|(f, c, _)| (*f, *c) == (fold, column));
        let pairs = [[Column::TMax, Column::TMin], [Column::RhMax, Column::RhMin]];
        if let Some(at) = pairs.iter().position(|[high, low]| has(Fold::High, *high) && has(Fold::Low, *low)) {
            return Some((at, false));
        }
        let (fold, column, _) = self.folds.first().filter(|(fold, ..)| matches!(fold, Fold::Mean | Fold::Sum))?;
        Some((ELEMENTS.iter().position(|element| element == column)?, *fold == Fold::Sum))
    }

    /// The value of a row; `None` where it is missing or no number.
    pub(super) fn value(&self, record: &csv::StringRecord, decimal_comma: bool) -> Option<f64> {
        let value = record.get(self.index).and_then(|text| number(text, decimal_comma)).flatten();
        value.map(|value| value * self.factor)
    }
}

/// The columns of weather, each element once.
pub(super) fn sources(table: &Table, dated: usize) -> Vec<Source> {
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
            let factor = if sums_watt_hours { MJ_OF_A_WATT_HOUR } else { 1.0 };
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
