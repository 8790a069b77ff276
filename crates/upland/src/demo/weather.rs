//! The demo's weather: a simulated station that plays an open record again, up to yesterday.

use anyhow::Context;
use chrono::{Datelike, Days, NaiveDate};
use std::collections::HashMap;
use upland_core::climate::daily::DailyWeather;
use upland_formats::weather::{Assigned, Column, Mapping, Table, Unit, read};

/// The daily record of Seattle, 2012-2015 (NOAA), as the package vega-datasets carries it.
const RECORD: &[u8] = include_bytes!("../../../../docs/examples/seattle-weather.csv");
/// First year of the record, a leap year.
const FIRST_YEAR: i32 = 2012;
/// Its years, played again and again.
const YEARS: i32 = 4;

/// Where the days come from, for the pages.
pub(super) const SOURCE: &str = "simulated station; days of seattle-weather.csv (NOAA, 2012-2015)";

fn record() -> anyhow::Result<HashMap<NaiveDate, DailyWeather>> {
    let table = Table::parse(RECORD)?;
    let columns = [
        (0, Column::Date, Unit::YearMonthDay),
        (1, Column::Rain, Unit::Millimetres),
        (2, Column::TMax, Unit::Celsius),
        (3, Column::TMin, Unit::Celsius),
        (4, Column::Wind, Unit::MetresPerSecond),
    ];
    let mapping = Mapping::new(columns.map(|(index, column, unit)| Assigned { index, column, unit }).to_vec())?;
    Ok(read(&table, &mapping, None).rows.into_iter().map(|r| (r.day.date, r.day)).collect())
}

/// The four years up to yesterday. Each day of the year comes once from every year of the record, so that the
/// normals are those of the record whatever day it is. Like any station, this one has its faults: a lost sign
/// seven weeks ago, and three days missing in the second spring.
pub(super) fn played_again(today: NaiveDate) -> anyhow::Result<Vec<DailyWeather>> {
    let record = record()?;
    let years_ago =
        |n: i32| today.with_year(today.year() - n).unwrap_or(today - Days::new(365 * n.unsigned_abs() as u64));
    let lost_sign = today - Days::new(48);
    let silent = years_ago(2) - Days::new(60);
    let mut days = Vec::new();
    for date in years_ago(YEARS).iter_days().take_while(|date| *date < today) {
        if date >= silent && date < silent + Days::new(3) {
            continue;
        }
        let year = FIRST_YEAR + (date.year() - FIRST_YEAR).rem_euclid(YEARS);
        let source = date.with_year(year).and_then(|played| record.get(&played));
        let mut day = DailyWeather { date, ..*source.context("a day that the record does not have")? };
        if date == lost_sign {
            day.t_min = day.t_min.map(|t| -t);
        }
        days.push(day);
    }
    Ok(days)
}

/// A gauge in the hills near by, emptied every morning since New Year: a fifth more rain than the station, in steps
/// of 0.2 mm, and nothing in the last week of April.
pub(super) fn gauge(station: &[DailyWeather], today: NaiveDate) -> Vec<DailyWeather> {
    let unread = |date: NaiveDate| date.month() == 4 && date.day() > 23;
    let this_year = station.iter().filter(|d| d.date.year() == today.year() && !unread(d.date));
    let rain = |mm: f64| (mm * 1.2 / 0.2).round() * 0.2;
    this_year.map(|d| DailyWeather { rain: d.rain.map(rain), ..DailyWeather::empty(d.date) }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::climate::normals::{NormalDay, monthly_normals};

    #[test]
    fn the_gauge_is_read_this_year_but_for_a_week() {
        let today = "2026-06-11".parse().unwrap();
        let read = gauge(&played_again(today).unwrap(), today);
        assert_eq!(read.len(), 161 - 7, "1 January to 10 June");
        assert!(read.iter().all(|d| d.t_max.is_none() && d.rain.is_some()));
        let new_year = "2026-01-01".parse().unwrap();
        assert!(gauge(&played_again(new_year).unwrap(), new_year).is_empty());
    }

    #[test]
    fn the_rain_of_a_year_is_that_of_the_record_on_any_day() {
        let rain = |days: &[DailyWeather]| -> f64 {
            let normals =
                monthly_normals(days.iter().map(|d| NormalDay { date: d.date, et0_mm: d.t_max, rain_mm: d.rain }));
            normals.unwrap().iter().filter_map(|n| n.rain_mm).sum()
        };
        let read: Vec<DailyWeather> = record().unwrap().into_values().collect();
        for today in ["2026-06-11", "2026-01-01", "2028-02-29", "2028-12-31"] {
            let days = played_again(today.parse().unwrap()).unwrap();
            assert!((rain(&days) - rain(&read)).abs() < 8.0, "{today}");
            assert_eq!(days.last().unwrap().date.succ_opt(), today.parse().ok());
        }
    }
}
