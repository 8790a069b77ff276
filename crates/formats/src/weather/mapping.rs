use thiserror::Error;

use super::column::{Column, Unit};

/// A column of the file and what it is read as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Assigned {
    /// Index in the file.
    pub index: usize,
    /// What it is.
    pub column: Column,
    /// In which unit.
    pub unit: Unit,
}

/// Which columns of a file are read, as what.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Mapping(Vec<Assigned>);

/// Why a mapping cannot be.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum MappingError {
    /// No column is read as this, and nothing can be done without it.
    #[error("no column is {}", .0.name())]
    Missing(Column),
    /// Two columns are read as the same thing.
    #[error("two columns are {}", .0.name())]
    Twice(Column),
    /// A stated header is not in the file.
    #[error("the file has no header {header:?} for {}", column.name())]
    NoSuchHeader {
        /// What it was stated for.
        column: Column,
        /// The header.
        header: String,
    },
    /// A unit that the column cannot come in.
    #[error("{} cannot come in this unit", .0.name())]
    WrongUnit(Column),
}

impl Mapping {
    /// A mapping out of assignments.
    ///
    /// # Errors
    /// [`MappingError`] when date or a temperature is missing, something is there twice, or a
    /// unit does not belong to its column.
    pub fn new(assigned: Vec<Assigned>) -> Result<Self, MappingError> {
        Self::needing(&[Column::Date, Column::TMax, Column::TMin], assigned)
    }

    /// A mapping of a rain gauge, which measures no temperature.
    ///
    /// # Errors
    /// [`MappingError`] as for [`Mapping::new`], with rain in place of the temperatures.
    pub fn of_gauge(assigned: Vec<Assigned>) -> Result<Self, MappingError> {
        Self::needing(&[Column::Date, Column::Rain], assigned)
    }

    fn needing(columns: &[Column], assigned: Vec<Assigned>) -> Result<Self, MappingError> {
        for (index, a) in assigned.iter().enumerate() {
            if assigned[..index].iter().any(|b| b.column == a.column) {
                return Err(MappingError::Twice(a.column));
            }
            if !a.column.units().contains(&a.unit) {
                return Err(MappingError::WrongUnit(a.column));
            }
        }
        match columns.iter().find(|needed| !assigned.iter().any(|a| a.column == **needed)) {
            Some(missing) => Err(MappingError::Missing(*missing)),
            None => Ok(Self(assigned)),
        }
    }

    /// The strict mapping of the command line: our own names, or the headers stated for them.
    ///
    /// # Errors
    /// [`MappingError`] as for [`Mapping::new`], and for a stated header that is not there.
    pub fn by_name(headers: &[String], stated: &[(Column, String)]) -> Result<Self, MappingError> {
        let mut assigned = Vec::new();
        for column in Column::ALL {
            let unit = column.units()[0];
            let find = |wanted: &str| headers.iter().position(|h| h == wanted);
            let index = match stated.iter().find(|(c, _)| *c == column) {
                Some((_, header)) => {
                    Some(find(header).ok_or_else(|| MappingError::NoSuchHeader { column, header: header.clone() })?)
                }
                None => find(column.name()),
            };
            if let Some(index) = index {
                assigned.push(Assigned { index, column, unit });
            }
        }
        Self::new(assigned)
    }

    /// The assignments.
    #[must_use]
    pub fn assigned(&self) -> &[Assigned] {
        &self.0
    }

    /// The assignment of a column.
    #[must_use]
    pub fn of(&self, column: Column) -> Option<&Assigned> {
        self.0.iter().find(|a| a.column == column)
    }
}

/// What a header was recognised as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Recognised {
    /// What the column is.
    pub column: Column,
    /// Its unit, when the header says it or there is only one; otherwise a person must choose it.
    pub unit: Option<Unit>,
}

/// Words that headers use, lower case without separators; the longest that fits wins.
const WORDS: [(&str, Column); 43] = [
    ("date", Column::Date),
    ("datetime", Column::Date),
    ("timestamp", Column::Date),
    ("dateandtime", Column::Date),
    ("day", Column::Date),
    ("tmax", Column::TMax),
    ("tempmax", Column::TMax),
    ("maxtemp", Column::TMax),
    ("maxt", Column::TMax),
    ("tx", Column::TMax),
    ("temperaturemax", Column::TMax),
    ("maxtemperature", Column::TMax),
    ("high", Column::TMax),
    ("tmin", Column::TMin),
    ("tempmin", Column::TMin),
    ("mintemp", Column::TMin),
    ("mint", Column::TMin),
    ("tn", Column::TMin),
    ("temperaturemin", Column::TMin),
    ("mintemperature", Column::TMin),
    ("low", Column::TMin),
    ("rhmax", Column::RhMax),
    ("humiditymax", Column::RhMax),
    ("rhmin", Column::RhMin),
    ("humiditymin", Column::RhMin),
    ("rh", Column::RhMean),
    ("rhmean", Column::RhMean),
    ("humidity", Column::RhMean),
    ("relativehumidity", Column::RhMean),
    ("dewpoint", Column::DewPoint),
    ("tdew", Column::DewPoint),
    ("dewp", Column::DewPoint),
    ("wind", Column::Wind),
    ("windspeed", Column::Wind),
    ("avgwind", Column::Wind),
    ("solar", Column::Solar),
    ("radiation", Column::Solar),
    ("solarradiation", Column::Solar),
    ("srad", Column::Solar),
    ("rain", Column::Rain),
    ("rainfall", Column::Rain),
    ("precip", Column::Rain),
    ("precipitation", Column::Rain),
];

/// Endings by which headers say their unit, in the order in which they are tried.
const UNIT_ENDINGS: [(&str, Unit); 22] = [
    ("mjm2day", Unit::Megajoules),
    ("mjm2d", Unit::Megajoules),
    ("mjm2", Unit::Megajoules),
    ("wm2", Unit::Watts),
    ("langley", Unit::Langleys),
    ("ly", Unit::Langleys),
    ("kmh", Unit::KilometresPerHour),
    ("kph", Unit::KilometresPerHour),
    ("mph", Unit::MilesPerHour),
    ("knots", Unit::Knots),
    ("mps", Unit::MetresPerSecond),
    ("ms", Unit::MetresPerSecond),
    ("degc", Unit::Celsius),
    ("degf", Unit::Fahrenheit),
    ("celsius", Unit::Celsius),
    ("fahrenheit", Unit::Fahrenheit),
    ("c", Unit::Celsius),
    ("f", Unit::Fahrenheit),
    ("mm", Unit::Millimetres),
    ("inch", Unit::Inches),
    ("in", Unit::Inches),
    ("pct", Unit::Percent),
];

/// A header as its words and endings are compared: lower case, letters and digits alone.
fn plain(header: &str) -> String {
    let spelled = header.to_lowercase().replace('°', "deg").replace('²', "2").replace('%', "pct");
    spelled.chars().filter(char::is_ascii_alphanumeric).collect()
}

/// The unit of a column that a header ends with, whatever else it says.
pub(super) fn unit_of_header(header: &str, column: Column) -> Option<Unit> {
    let plain = plain(header);
    UNIT_ENDINGS.iter().find(|(ending, unit)| plain.ends_with(ending) && column.units().contains(unit)).map(|(_, u)| *u)
}

/// Recognises a header by its words, and its unit by its ending.
#[must_use]
pub fn recognise(header: &str) -> Option<Recognised> {
    let plain = plain(header);
    if plain.is_empty() {
        return None;
    }
    let word = |text: &str| WORDS.iter().find(|(w, _)| *w == text).map(|(_, c)| *c);
    let unit_of = |column: Column| match column.units() {
        // A day written year first is told from its value, and humidity has one unit.
        [only] => Some(*only),
        [Unit::YearMonthDay, ..] => Some(Unit::YearMonthDay),
        _ => None,
    };
    if let Some(column) = word(&plain) {
        return Some(Recognised { column, unit: unit_of(column) });
    }
    UNIT_ENDINGS.iter().find_map(|(ending, unit)| {
        let column = word(plain.strip_suffix(ending)?)?;
        column.units().contains(unit).then_some(Recognised { column, unit: Some(*unit) })
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn headers_are_recognised_with_their_units() {
        let r = |h: &str| recognise(h).map(|r| (r.column, r.unit));
        assert_eq!(r("date"), Some((Column::Date, Some(Unit::YearMonthDay))));
        assert_eq!(r("temp_max"), Some((Column::TMax, None)));
        assert_eq!(r("Tmax (°F)"), Some((Column::TMax, Some(Unit::Fahrenheit))));
        assert_eq!(r("Wind speed [km/h]"), Some((Column::Wind, Some(Unit::KilometresPerHour))));
        assert_eq!(r("solar_mj_m2"), Some((Column::Solar, Some(Unit::Megajoules))));
        assert_eq!(r("RH %"), Some((Column::RhMean, Some(Unit::Percent))));
        assert_eq!(r("precipitation"), Some((Column::Rain, None)));
        assert_eq!(r("weather"), None);
        assert_eq!(r("☂"), None);
    }

    #[test]
    fn our_own_names_are_all_recognised() {
        for column in Column::ALL {
            let found = recognise(column.name()).unwrap();
            assert_eq!((found.column, found.unit), (column, Some(column.units()[0])), "{}", column.name());
        }
    }

    #[test]
    fn a_mapping_needs_a_date_and_both_temperatures_once() {
        let headers: Vec<String> = ["date", "tmax_c", "rain"].map(String::from).to_vec();
        assert_eq!(Mapping::by_name(&headers, &[]), Err(MappingError::Missing(Column::TMin)));
        let rain = Assigned { index: 2, column: Column::Rain, unit: Unit::Millimetres };
        let date = Assigned { index: 0, column: Column::Date, unit: Unit::YearMonthDay };
        assert!(Mapping::of_gauge(vec![date, rain]).is_ok(), "a gauge has no temperature");
        assert_eq!(Mapping::of_gauge(vec![date]), Err(MappingError::Missing(Column::Rain)));
        let stated = [(Column::TMin, "low".to_owned())];
        let error = Mapping::by_name(&headers, &stated).unwrap_err();
        assert_eq!(error.to_string(), "the file has no header \"low\" for tmin_c");
    }
}
