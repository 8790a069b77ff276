//! A typical year in the EPW layout (EnergyPlus Weather).
//!
//! Eight lines of head, the first with the station, then 8760 rows of 35 fields without a header. Fields by their
//! place, from 1, with what stands for a missing value: 7 dry bulb, °C (99.9); 8 dew point, °C (99.9); 14 global
//! horizontal radiation, Wh/m² (9999); 22 wind speed, m/s (999); 34 liquid precipitation, mm (999).
//! Source: EnergyPlus documentation, Auxiliary Programs, weather file; from memory, checked with pvlib's reader.

use std::collections::BTreeMap;

use chrono::NaiveDate;
use upland_core::field::check_date;

use super::super::column::Column;
use super::{Fold, StationHead, Sum, cell, header};

/// Height at which airports measure wind, which the files are made from.
const WIND_HEIGHT_M: f64 = 10.0;

/// Hours of a day.
const HOURS: u32 = 24;

/// A column of the days: the field that it is made from (from 0), what stands for missing, how it is joined, factor.
const FIELDS: [(Column, usize, f64, Fold, f64); 6] = [
    (Column::TMax, 6, 99.9, Fold::High, 1.0),
    (Column::TMin, 6, 99.9, Fold::Low, 1.0),
    (Column::DewPoint, 7, 99.9, Fold::Mean, 1.0),
    (Column::Wind, 21, 999.0, Fold::Mean, 1.0),
    (Column::Solar, 13, 9999.0, Fold::Sum, 0.0036),
    (Column::Rain, 33, 999.0, Fold::Sum, 1.0),
];

/// The days of such a file; nothing for any other.
pub(super) fn days(text: &str) -> Option<String> {
    let place = text.lines().next()?.strip_prefix("LOCATION,")?;
    let mut days: BTreeMap<NaiveDate, [Sum; 6]> = BTreeMap::new();
    let mut rows = 0;
    for fields in text.lines().map(|line| line.split(',').map(str::trim).collect::<Vec<_>>()) {
        let Some(date) = date(&fields) else { continue };
        rows += 1;
        let sums = days.entry(date).or_default();
        for ((_, index, missing, _, factor), sum) in FIELDS.iter().zip(sums) {
            let value = fields.get(*index).and_then(|f| f.parse::<f64>().ok());
            // Longer runs of nines stand for missing too.
            if let Some(value) = value.filter(|v| v.is_finite() && *v < *missing) {
                sum.add(value * factor);
            }
        }
    }
    if rows < HOURS {
        return None;
    }
    let any = |at: usize, least: f64| days.values().any(|sums| sums[at].count > 0 && sums[at].high > least);
    let used: Vec<usize> = (0..FIELDS.len())
        // A year without a drop is one in which nobody measured rain; one without light had no sun.
        .filter(|at| any(*at, if matches!(FIELDS[*at].0, Column::Rain | Column::Solar) { 0.0 } else { -999.0 }))
        .collect();
    let mut out = String::new();
    StationHead { joined_rows: Some(rows as usize), ..head(place) }.write(&mut out);
    header(&mut out, &used.iter().map(|at| FIELDS[*at].0).collect::<Vec<_>>());
    for (date, sums) in &days {
        out.push_str(&date.to_string());
        for at in &used {
            cell(&mut out, sums[*at].folded(FIELDS[*at].3, HOURS));
        }
        out.push('\n');
    }
    Some(out)
}

/// The date of a row: year, month and day lead it, the hour from 1 to 24 follows. Years that are not kept are none.
fn date(fields: &[&str]) -> Option<NaiveDate> {
    let number = |at: usize| fields.get(at)?.parse::<u32>().ok();
    let hour = number(3)?;
    let year = i32::try_from(number(0)?).ok()?;
    let date = NaiveDate::from_ymd_opt(year, number(1)?, number(2)?)?;
    ((1..=HOURS).contains(&hour) && check_date(date).is_ok()).then_some(date)
}

/// Name, latitude, longitude, time zone and elevation of the first line.
fn head(place: &str) -> StationHead {
    let fields: Vec<&str> = place.split(',').map(str::trim).collect();
    let number = |at: usize| fields.get(at).and_then(|f| f.parse::<f64>().ok());
    StationHead {
        name: fields.first().filter(|name| !name.is_empty()).map(|name| (*name).to_owned()),
        latitude: number(5),
        longitude: number(6),
        elevation_m: number(8),
        wind_height_m: Some(WIND_HEIGHT_M),
        joined_rows: None,
        days_of: None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A made-up day: 10 to 33 °C, dew point 8 with one hour missing, 100 Wh/m² from hour 7 to 18.
    fn file(hours: u32) -> String {
        let mut text = String::from("LOCATION,Hut above the orchard,-,XXX,made up,000000,47.50,-122.25,-8.0,214.0\n");
        text.push_str("DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31\n");
        for hour in 1..=hours {
            let dew = if hour == 3 { "99.9" } else { "8.0" };
            let sun = if (7..=18).contains(&hour) { 100 } else { 0 };
            text.push_str(&format!(
                "1995,6,1,{hour},60,A7,{},{dew},70,100100,0,0,288,{sun},0,0,0,0,0,0,340,3.0,6,6,20,420,9,9,0,0.05,0,88,0,0.0,0.0\n",
                9 + hour
            ));
        }
        text
    }

    #[test]
    fn a_day_of_hours_and_its_station() {
        let text = days(&file(24)).unwrap();
        let lines: Vec<&str> = text.lines().collect();
        assert_eq!(lines[0], "station,Hut above the orchard");
        assert_eq!(
            lines[1..6],
            ["latitude,47.5", "longitude,-122.25", "elevation_m,214", "wind_height_m,10", "joined_rows,24"]
        );
        // A year without a drop has no rain column.
        assert_eq!(lines[6], "date,tmax_c,tmin_c,dewpoint_c,wind_ms,solar_mj_m2");
        assert_eq!(lines[7], "1995-06-01,33,10,8,3,4.32");
    }

    #[test]
    fn what_is_no_such_file_is_none() {
        assert_eq!(days("date,tmax_c\n2026-06-01,20\n"), None);
        assert_eq!(days("LOCATION,x\n"), None);
        assert_eq!(days(&file(20)), None);
    }
}
