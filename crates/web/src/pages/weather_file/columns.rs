//! The columns of a file: what each is read as, and in what unit.

use upland_formats::weather::{Column, Table, Unit, date_orders};

use crate::form::Form;
use crate::pages::Choice;
use crate::pages::series::element_key;
use crate::words::Words;

/// A column of the file and what it is read as.
#[derive(Debug, Clone)]
pub(crate) struct ColumnRow {
    pub(crate) header: String,
    pub(crate) first: String,
    pub(crate) role_field: String,
    pub(crate) unit_field: String,
    pub(crate) units: Vec<Choice>,
    pub(crate) how: String,
    pub(crate) how_mark: &'static str,
    pub(crate) open: bool,
}

pub(super) fn role_key(column: Column) -> &'static str {
    column.element().map_or("column-date", element_key)
}

pub(super) fn unit_key(unit: Unit) -> &'static str {
    match unit {
        Unit::YearMonthDay => "unit-ymd",
        Unit::DayMonthYear => "unit-dmy",
        Unit::MonthDayYear => "unit-mdy",
        Unit::Celsius => "unit-c",
        Unit::Fahrenheit => "unit-f",
        Unit::Percent => "unit-pct",
        Unit::MetresPerSecond => "unit-ms",
        Unit::KilometresPerHour => "unit-kmh",
        Unit::MilesPerHour => "unit-mph",
        Unit::Knots => "unit-kn",
        Unit::Megajoules => "unit-mj",
        Unit::Watts => "unit-w",
        Unit::Langleys => "unit-ly",
        Unit::Millimetres => "unit-mm",
        Unit::Inches => "unit-in",
    }
}

/// What a column of the file may become.
pub(crate) fn roles() -> Vec<Choice> {
    let leave = std::iter::once(Choice::new("", Words.t("column-leave-out")));
    leave.chain(Column::ALL.map(|c| Choice::new(c.name(), Words.t(role_key(c))))).collect()
}

/// Puts what the headers say into a form that was not filled in yet.
pub(crate) fn guess(form: &mut Form, table: &Table) {
    let mut seen = Vec::new();
    for index in 0..table.headers().len() {
        let found = table.recognised(index).filter(|r| !seen.contains(&r.column));
        form.set(&format!("as_{index}"), found.map_or("", |r| r.column.name()));
        if let Some(found) = found {
            seen.push(found.column);
            let unit = match found.column {
                // A date that can be read both ways is asked about.
                Column::Date => match date_orders(&table.texts(index))[..] {
                    [only] => Some(only),
                    _ => None,
                },
                _ => found.unit,
            };
            form.set(&format!("unit_{index}"), unit.map_or("", Unit::name));
        }
    }
}

/// A value as the table shows it: a number with at most four decimals.
fn shortened(value: &str) -> String {
    match value.split_once('.') {
        Some((_, decimals)) if decimals.len() > 4 => {
            value.parse::<f64>().map_or_else(|_| value.to_owned(), |v| format!("{v:.4}"))
        }
        _ => value.to_owned(),
    }
}

/// Rows of the table of columns.
pub(crate) fn column_rows(form: &Form, table: &Table) -> Vec<ColumnRow> {
    let w = Words;
    table
        .headers()
        .iter()
        .enumerate()
        // The hours of a day are in the units of its columns, and are not chosen.
        .filter(|(index, _)| Some(*index) != table.hours_column())
        .map(|(index, header)| {
            let (role_field, unit_field) = (format!("as_{index}"), format!("unit_{index}"));
            let column = Column::from_name(form.get(&role_field));
            let unit = Unit::from_name(form.get(&unit_field));
            let by_name = table.recognised(index).map(|r| r.column) == column;
            let open = column.is_some_and(|c| unit.is_none_or(|u| !c.units().contains(&u)));
            let (how, how_mark) = match column {
                None => ("read-by-nobody", "skip"),
                Some(_) if open => ("read-needs-unit", "fault"),
                Some(_) if by_name => ("read-by-name", "done"),
                Some(_) => ("read-by-hand", "part"),
            };
            let mut units = vec![Choice::new("", w.t("unit-choose"))];
            units.extend(column.iter().flat_map(|c| c.units()).map(|u| Choice::new(u.name(), w.t(unit_key(*u)))));
            ColumnRow {
                header: header.clone(),
                first: shortened(table.first_value(index).unwrap_or("")),
                role_field,
                unit_field,
                units: if column.is_some() { units } else { Vec::new() },
                how: w.t(how),
                how_mark,
                open,
            }
        })
        .collect()
}
