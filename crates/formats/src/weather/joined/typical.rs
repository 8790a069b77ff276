//! A typical year in the EPW layout (EnergyPlus Weather).
//!
//! Eight lines of head, the first with the station, then 8760 rows of 35 fields without a header. Fields by their
//! place, from 1, with what stands for a missing value: 7 dry bulb, °C (99.9); 8 dew point, °C (99.9); 9 relative
//! humidity, % (999); 14 global horizontal radiation, Wh/m² (9999); 22 wind speed, m/s (999); 34 liquid precipitation,
//! mm (999). Hours are of the standard time that the first line tells.
//! Source: EnergyPlus documentation, Auxiliary Programs, weather file; from memory, checked with pvlib's reader.

use std::collections::BTreeMap;

use chrono::NaiveDate;
use upland_core::climate::hourly::MJ_OF_A_WATT_HOUR;
use upland_core::field::check_date;

use super::super::column::Column;
use super::super::day_hours;
use super::stamp::zone_at;
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
    (Column::Solar, 13, 9999.0, Fold::Sum, MJ_OF_A_WATT_HOUR),
    (Column::Rain, 33, 999.0, Fold::Sum, 1.0),
];

/// The fields of an hour's temperature, humidity, wind, sun and rain, with what stands for missing and their factor.
const HOURS_FIELDS: [(usize, f64, f64); 5] =
    [(6, 99.9, 1.0), (8, 999.0, 1.0), (21, 999.0, 1.0), (13, 9999.0, MJ_OF_A_WATT_HOUR), (33, 999.0, 1.0)];

/// The days of such a file; nothing for any other.
pub(super) fn days(text: &str) -> Option<String> {
    let place = text.lines().next()?.strip_prefix("LOCATION,")?;
    let mut days: BTreeMap<NaiveDate, ([Sum; 6], String)> = BTreeMap::new();
    let zone = zone(place);
    let mut rows = 0;
    for fields in text.lines().map(|line| line.split(',').map(str::trim).collect::<Vec<_>>()) {
        let Some((date, hour)) = date(&fields) else { continue };
        rows += 1;
        let (sums, hours) = days.entry(date).or_default();
        // Longer runs of nines stand for missing too.
        let value = |index: usize, missing: f64| {
            fields.get(index).and_then(|f| f.parse::<f64>().ok()).filter(|v| v.is_finite() && *v < missing)
        };
        for ((_, index, missing, _, factor), sum) in FIELDS.iter().zip(sums) {
            if let Some(value) = value(*index, *missing) {
                sum.add(value * factor);
            }
        }
        if zone.is_some() {
            let values = HOURS_FIELDS.map(|(index, missing, factor)| value(index, missing).map(|v| v * factor));
            day_hours::push(hours, hour - 1, &values);
        }
    }
    if rows < HOURS {
        return None;
    }
    let any = |at: usize, least: f64| days.values().any(|(sums, _)| sums[at].count > 0 && sums[at].high > least);
    let used: Vec<usize> = (0..FIELDS.len())
        // A year without a drop is one in which nobody measured rain; one without light had no sun.
        .filter(|at| any(*at, if matches!(FIELDS[*at].0, Column::Rain | Column::Solar) { 0.0 } else { -999.0 }))
        .collect();
    let mut out = String::new();
    let keeps_hours = zone.is_some();
    StationHead { joined_rows: Some(rows as usize), hours_of: zone, ..head(place) }.write(&mut out);
    let mut columns: Vec<&str> = used.iter().map(|at| FIELDS[*at].0.name()).collect();
    columns.extend(keeps_hours.then_some(day_hours::HEADER));
    header(&mut out, &columns);
    for (date, (sums, hours)) in &days {
        out.push_str(&date.to_string());
        for at in &used {
            cell(&mut out, sums[*at].folded(FIELDS[*at].3, HOURS));
        }
        if keeps_hours {
            out.push(',');
            out.push_str(hours);
        }
        out.push('\n');
    }
    Some(out)
}

/// The time zone of the first line by its name, for hours from UTC that are whole; the hours of others are not kept.
fn zone(place: &str) -> Option<String> {
    let hours: f64 = place.split(',').nth(7)?.trim().parse().ok()?;
    Some(zone_at(hours)?.name().to_owned())
}

/// The date of a row and its hour: year, month and day lead it, the hour from 1 to 24 follows. Years that are not kept
/// are none.
fn date(fields: &[&str]) -> Option<(NaiveDate, u32)> {
    let number = |at: usize| fields.get(at)?.parse::<u32>().ok();
    let hour = number(3)?;
    let year = i32::try_from(number(0)?).ok()?;
    let date = NaiveDate::from_ymd_opt(year, number(1)?, number(2)?)?;
    ((1..=HOURS).contains(&hour) && check_date(date).is_ok()).then_some((date, hour))
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
        ..StationHead::default()
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
        assert_eq!(lines[6], "hours_of,Etc/GMT+8");
        // A year without a drop has no rain column.
        assert_eq!(lines[7], "date,tmax_c,tmin_c,dewpoint_c,wind_ms,solar_mj_m2,hours");
        // The first row is of the hour that ends at 01:00.
        assert!(lines[8].starts_with("1995-06-01,33,10,8,3,4.32,0:10/70/3/0/0 1:11/70/3/0/0 2:"), "{}", lines[8]);
        assert!(lines[8].contains(" 11:21/70/3/0.36/0 "), "{}", lines[8]);
    }

    #[test]
    fn what_is_no_such_file_is_none() {
        assert_eq!(days("date,tmax_c\n2026-06-01,20\n"), None);
        assert_eq!(days("LOCATION,x\n"), None);
        assert_eq!(days(&file(20)), None);
    }
}
