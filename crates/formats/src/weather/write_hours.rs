use std::fmt::Write;

use chrono::SecondsFormat;
use upland_core::climate::hourly::{HourlyWeather, MJ_OF_A_WATT_HOUR};

use super::hourly::HourColumn;

/// The value of an hour in a column of ours; `None` where it was not measured, and for the time.
fn value(column: HourColumn, hour: &HourlyWeather) -> Option<f64> {
    match column {
        HourColumn::Time => None,
        HourColumn::Temp => hour.t,
        HourColumn::Rh => hour.rh,
        HourColumn::Wind => hour.wind,
        HourColumn::Solar => hour.solar.map(|mj| mj / MJ_OF_A_WATT_HOUR),
        HourColumn::Rain => hour.rain,
    }
}

/// Hours as CSV in our own columns and units, those that no hour has left out; [`super::read_hours`] gives the same
/// hours back, but for the last digits of the sun, which is written in W/m².
#[must_use]
pub fn write_hours(hours: &[HourlyWeather]) -> String {
    let has = |column: &HourColumn| hours.iter().any(|hour| value(*column, hour).is_some());
    let used: Vec<HourColumn> = HourColumn::ALL.into_iter().filter(has).collect();
    let mut text = String::from(HourColumn::Time.name());
    for column in &used {
        text.push(',');
        text.push_str(column.name());
    }
    text.push('\n');
    for hour in hours {
        text.push_str(&hour.start.to_rfc3339_opts(SecondsFormat::Secs, true));
        for column in &used {
            text.push(',');
            if let Some(value) = value(*column, hour) {
                // Writing into a string cannot fail.
                let _ = write!(text, "{value}");
            }
        }
        text.push('\n');
    }
    text
}

#[cfg(test)]
mod tests {
    use chrono::{DateTime, TimeDelta};
    use upland_core::climate::daily::{Guesses, Site};
    use upland_core::place::Position;

    use super::super::{HourMapping, Mapping, Table, read, read_hours, to_days};
    use super::*;

    /// Four days around that on which clocks in Madrid go back; nobody measured the rain.
    fn hours() -> Vec<HourlyWeather> {
        let first = DateTime::parse_from_rfc3339("2026-10-24T00:00:00+02:00").unwrap();
        let back = DateTime::parse_from_rfc3339("2026-10-25T02:00:00+01:00").unwrap();
        (0..4 * 24 + 1)
            .map(|hour| {
                let start = first + TimeDelta::hours(hour);
                let start = if start >= back { start.with_timezone(back.offset()) } else { start };
                HourlyWeather {
                    t: Some(10.0 + (hour % 24) as f64 / 3.0),
                    rh: (hour != 5).then_some(60.5),
                    wind: Some(1.25),
                    solar: Some(if (8..18).contains(&(hour % 24)) { 1.1 } else { 0.0 }),
                    ..HourlyWeather::empty(start)
                }
            })
            .collect()
    }

    fn are_near(a: &HourlyWeather, b: &HourlyWeather) -> bool {
        let near = |a: Option<f64>, b: Option<f64>| match (a, b) {
            (Some(a), Some(b)) => (a - b).abs() < 1e-6,
            (a, b) => a == b,
        };
        a.start == b.start && near(a.t, b.t) && near(a.rh, b.rh) && near(a.wind, b.wind) && near(a.solar, b.solar)
    }

    #[test]
    fn what_is_written_reads_back_as_hours() {
        let site = Site::new(&Position::new(40.4, -3.7, 660.0).unwrap(), 2.0, Guesses::default()).unwrap();
        let table = Table::parse_hours(write_hours(&hours()).as_bytes()).unwrap();
        assert_eq!(table.headers(), ["time", "temp_c", "rh_pct", "wind_ms", "solar_w_m2"]);
        let reading = read_hours(&table, &HourMapping::by_name(table.headers(), &[]).unwrap(), &site);
        assert_eq!((reading.faults.len(), reading.hours.len()), (0, 97));
        assert!(reading.hours.iter().zip(&hours()).all(|(a, b)| are_near(a, b)));
    }

    /// The way of an import: joined to days, read again with the hours of each day.
    #[test]
    fn what_is_written_can_be_imported_again() {
        let zone = chrono_tz::Tz::Europe__Madrid;
        let joined = to_days(write_hours(&hours()), zone).unwrap().joined().unwrap();
        let table = Table::parse(joined.as_bytes()).unwrap();
        let assigned = (0..table.headers().len())
            .filter_map(|index| {
                let found = table.recognised(index)?;
                let unit = found.unit.unwrap_or(found.column.units()[0]);
                Some(super::super::Assigned { index, column: found.column, unit })
            })
            .collect();
        let reading = read(&table, &Mapping::new(assigned).unwrap(), None);
        assert_eq!(reading.faults, []);
        let back: Vec<HourlyWeather> = reading.rows.iter().flat_map(|row| row.hours.iter().copied()).collect();
        assert_eq!(back.len(), 97);
        assert!(back.iter().zip(&hours()).all(|(a, b)| are_near(a, b)), "{back:?}");
        let days: Vec<usize> = reading.rows.iter().map(|row| row.hours.len()).collect();
        assert_eq!(days, [24, 25, 24, 24]);
    }
}
