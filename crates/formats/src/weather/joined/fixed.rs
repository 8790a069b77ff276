//! The fixed columns of GHCN-Daily, the open archive of daily climate records (`.dly`).
//!
//! A line is a month of one element: station (11 characters), year (4), month (2), element (4), then 31 values of 5
//! characters with three flags each. Temperatures, rain and wind are in tenths; -9999 is missing; a second flag that
//! is not blank says that the value failed a check of the archive. Source: its readme, from memory.

use std::collections::BTreeMap;

use chrono::NaiveDate;
use upland_core::field::check_date;

use super::super::column::Column;
use super::{StationHead, cell, header};

/// The elements that are read.
const ELEMENTS: [(&str, Column); 4] =
    [("TMAX", Column::TMax), ("TMIN", Column::TMin), ("PRCP", Column::Rain), ("AWND", Column::Wind)];

/// Characters before the first value, and of a value with its flags.
const LEAD: usize = 21;
const VALUE: usize = 8;

/// The days of such a file; nothing for any other.
pub(super) fn days(text: &str) -> Option<String> {
    let mut days: BTreeMap<NaiveDate, [Option<f64>; 4]> = BTreeMap::new();
    let mut station = None;
    for line in text.lines() {
        let month = month(line)?;
        if *station.get_or_insert(month.station) != month.station {
            // Two stations are no record of one.
            return None;
        }
        let Some(at) = ELEMENTS.iter().position(|(name, _)| *name == month.element) else { continue };
        for day in 1..=31_u32 {
            let date = NaiveDate::from_ymd_opt(month.year, month.month, day);
            // Years that are not kept are passed over.
            let Some(date) = date.filter(|date| check_date(*date).is_ok()) else { continue };
            if let Some(value) = value(line, day as usize) {
                days.entry(date).or_default()[at] = Some(value);
            }
        }
    }
    let station = station?;
    let used: Vec<usize> = (0..ELEMENTS.len()).filter(|at| days.values().any(|v| v[*at].is_some())).collect();
    let mut out = String::new();
    StationHead { name: Some(station.to_owned()), ..StationHead::default() }.write(&mut out);
    header(&mut out, &used.iter().map(|at| ELEMENTS[*at].1.name()).collect::<Vec<_>>());
    for (date, values) in &days {
        out.push_str(&date.to_string());
        for at in &used {
            cell(&mut out, values[*at]);
        }
        out.push('\n');
    }
    (!days.is_empty()).then_some(out)
}

/// What leads a line.
struct Month<'a> {
    station: &'a str,
    year: i32,
    month: u32,
    element: &'a str,
}

fn month(line: &str) -> Option<Month<'_>> {
    if !line.is_ascii() || line.len() < LEAD + VALUE {
        return None;
    }
    let element = &line[17..LEAD];
    let named = element.bytes().all(|b| b.is_ascii_uppercase() || b.is_ascii_digit());
    let (year, month) = (line[11..15].parse().ok()?, line[15..17].parse().ok()?);
    named.then_some(Month { station: line[..11].trim(), year, month, element })
}

/// The value of a day, from 1; nothing where it is missing or failed a check.
fn value(line: &str, day: usize) -> Option<f64> {
    let at = LEAD + (day - 1) * VALUE;
    let tenths: f64 = line.get(at..at + 5)?.trim().parse().ok()?;
    let passed = line.get(at + 6..at + 7).is_none_or(|flag| flag == " ");
    (tenths != -9999.0 && passed).then_some(tenths / 10.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line(element: &str, values: &[(i32, &str)]) -> String {
        let mut line = format!("XX000000001201502{element}");
        for day in 0..31 {
            let (value, flags) = values.get(day).copied().unwrap_or((-9999, "   "));
            line.push_str(&format!("{value:>5}{flags}"));
        }
        line
    }

    #[test]
    fn a_month_of_each_element() {
        let text = [
            line("TMAX", &[(123, "  S"), (-15, "  S"), (400, " XS")]),
            line("TMIN", &[(-20, "  S"), (-80, "  S"), (10, "  S")]),
            line("PRCP", &[(0, "T S"), (254, "  S")]),
            line("SNOW", &[(0, "  S")]),
        ]
        .join("\n");
        let out = days(&text).unwrap();
        assert_eq!(
            out,
            "station,XX000000001\ndate,tmax_c,tmin_c,rain_mm\n2015-02-01,12.3,-2,0\n2015-02-02,-1.5,-8,25.4\n2015-02-03,,1,\n"
        );
    }

    #[test]
    fn what_is_no_such_file_is_none() {
        for text in ["", "date,tmax_c,tmin_c,rain_mm,wind_ms\n2026-06-01,20,10,0,2\n", "x"] {
            assert_eq!(days(text), None);
        }
        let other = line("TMAX", &[(123, "  S")]).replace("XX000000001", "XX000000002");
        assert_eq!(days(&format!("{}\n{other}", line("TMAX", &[(123, "  S")]))), None);
    }
}
