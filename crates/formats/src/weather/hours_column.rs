//! The hours of the days of a table that was joined from hours.

use chrono::{DateTime, FixedOffset, LocalResult, NaiveDate, NaiveDateTime, Offset, TimeZone, Utc};
use chrono_tz::{OffsetComponents, Tz};
use upland_core::climate::hourly::HourlyWeather;
use upland_core::quantity::{Range, range};

use super::column::Unit;
use super::day_hours::{ELEMENTS, parse};
use super::mapping::Mapping;
use super::table::Table;

/// How the cells of a table become hours.
#[derive(Debug)]
pub(super) struct HoursColumn {
    index: usize,
    zone: Tz,
    units: [Option<Unit>; 5],
}

impl HoursColumn {
    /// The column of a table that was joined from hours; `None` for any other.
    pub(super) fn of(table: &Table, mapping: &Mapping) -> Option<Self> {
        let index = table.hours_column()?;
        let zone = table.head().hours_of?.parse().ok()?;
        Some(Self { index, zone, units: ELEMENTS.map(|column| mapping.of(column).map(|a| a.unit)) })
    }

    /// The hours of a day by the clock of the place, in SI. Values outside their range are missing: the day's own
    /// columns tell of them.
    pub(super) fn hours(&self, record: &csv::StringRecord, date: NaiveDate) -> Vec<HourlyWeather> {
        let cell = record.get(self.index).unwrap_or_default();
        // As many as there are, no more: there may be a hundred years of them.
        let mut hours: Vec<HourlyWeather> = Vec::with_capacity(parse(cell).count());
        for (hour, values) in parse(cell) {
            let Some(local) = date.and_hms_opt(hour, 0, 0) else { continue };
            let again = hours.last().is_some_and(|last| last.start.naive_local() == local);
            let si = |at: usize, range: Range| {
                let value = in_si(self.units[at]?, values[at]?);
                range.check(value).ok()
            };
            hours.push(HourlyWeather {
                start: self.wall_clock(local, again),
                t: si(0, range::TEMPERATURE),
                rh: si(1, range::HUMIDITY),
                wind: si(2, range::WIND),
                solar: si(3, range::SOLAR_HOUR),
                rain: si(4, range::RAIN_HOUR),
            });
        }
        hours
    }

    /// An hour of a clock that goes forward and back with the zone's; of the two that bear the same name, the first or,
    /// `again`, the second. An hour that the clock leaves out is taken by the zone's standard time.
    fn wall_clock(&self, local: NaiveDateTime, again: bool) -> DateTime<FixedOffset> {
        match self.zone.from_local_datetime(&local) {
            LocalResult::Single(at) => at.fixed_offset(),
            LocalResult::Ambiguous(first, second) => if again { second } else { first }.fixed_offset(),
            LocalResult::None => self.standard_time(local),
        }
    }

    /// An hour of a clock that keeps the zone's standard time all year.
    fn standard_time(&self, local: NaiveDateTime) -> DateTime<FixedOffset> {
        let seconds = self.zone.offset_from_utc_datetime(&local).base_utc_offset().num_seconds();
        let offset = i32::try_from(seconds).ok().and_then(FixedOffset::east_opt);
        let offset = offset.unwrap_or_else(|| Utc.fix());
        offset.from_local_datetime(&local).single().unwrap_or_else(|| offset.from_utc_datetime(&local))
    }

    /// Takes all hours by standard time where one of them stands in an hour that a clock with daylight saving leaves
    /// out: many loggers are never put forward.
    pub(super) fn settle_clock<'a>(&self, days: impl Iterator<Item = &'a mut Vec<HourlyWeather>>) {
        let mut hours: Vec<&mut HourlyWeather> = days.flatten().collect();
        let is_left_out = |hour: &&mut HourlyWeather| {
            matches!(self.zone.from_local_datetime(&hour.start.naive_local()), LocalResult::None)
        };
        if hours.iter().any(is_left_out) {
            for hour in &mut hours {
                hour.start = self.standard_time(hour.start.naive_local());
            }
        }
    }
}

/// A value of an hour in SI: MJ/m² in the hour for the sun, else as on days.
fn in_si(unit: Unit, value: f64) -> f64 {
    match unit {
        // The mean of the hour; a day's mean stands for 24 of them.
        Unit::Watts => unit.to_si(value) / 24.0,
        _ => unit.to_si(value),
    }
}

#[cfg(test)]
mod tests {
    use super::super::column::Column;
    use super::super::day_hours::push;
    use super::super::{StationHead, read};
    use super::*;

    /// A table of days with hours, as joining an hourly file writes it.
    fn rows(zone: &str, columns: &str, days: &[(&str, &str, String)]) -> Vec<super::super::Row> {
        let mut text = format!("joined_rows,48\nhours_of,{zone}\ndate,{columns},hours\n");
        for (date, cells, hours) in days {
            text.push_str(&format!("{date},{cells},{hours}\n"));
        }
        let table = Table::parse(text.as_bytes()).unwrap();
        assert_eq!(
            table.head(),
            StationHead { joined_rows: Some(48), hours_of: Some(zone.into()), ..StationHead::default() }
        );
        let headers: Vec<String> = table.headers().to_vec();
        let mapping = Mapping::by_name(&headers, &[]).unwrap();
        let reading = read(&table, &mapping, None);
        assert_eq!(reading.faults, []);
        reading.rows
    }

    fn cell(hours: impl IntoIterator<Item = u32>) -> String {
        let mut text = String::new();
        for hour in hours {
            push(&mut text, hour, &[Some(10.5), Some(80.0), Some(1.0 / 3.0), None, Some(0.0)]);
        }
        text
    }

    #[test]
    fn hours_are_in_the_units_of_the_columns_of_the_day() {
        let columns = "tmax_c,tmin_c,rhmax_pct,solar W/m2,rain_mm";
        let mut text = format!("joined_rows,24\nhours_of,UTC\ndate,{columns},hours\n");
        text.push_str("2026-06-01,68,50,90,200,0,0:68/90/2/500/0.2 1:900/50/2/500/0\n");
        let table = Table::parse(text.as_bytes()).unwrap();
        let fahrenheit = |column| super::super::Assigned { column, unit: Unit::Fahrenheit, index: 1 };
        let mut assigned = vec![
            super::super::Assigned { column: Column::Date, unit: Unit::YearMonthDay, index: 0 },
            fahrenheit(Column::TMax),
            super::super::Assigned { index: 2, ..fahrenheit(Column::TMin) },
            super::super::Assigned { column: Column::Solar, unit: Unit::Watts, index: 4 },
        ];
        assigned.push(super::super::Assigned { column: Column::Rain, unit: Unit::Inches, index: 5 });
        let row = &read(&table, &Mapping::new(assigned).unwrap(), None).rows[0];
        let [first, second] = row.hours[..] else { panic!("{:?}", row.hours) };
        assert_eq!((first.t, first.rh, first.wind), (Some(20.0), None, None), "columns that are left out stay out");
        assert!((first.solar.unwrap() - 1.8).abs() < 1e-9 && (first.rain.unwrap() - 5.08).abs() < 1e-9);
        assert_eq!(second.t, None, "900 °F is no temperature");
    }

    /// In 2026 clocks in Madrid go forward on 29 March and back on 25 October.
    #[test]
    fn days_have_23_and_25_hours_where_the_clock_goes_forward_and_back() {
        let spring = (0..24).filter(|hour| *hour != 2);
        let autumn = [0, 1, 2, 2].into_iter().chain(3..24);
        let rows = rows(
            "Europe/Madrid",
            "tmax_c,tmin_c",
            &[("2026-03-29", "20,5", cell(spring)), ("2026-10-25", "20,5", cell(autumn))],
        );
        for (row, hours) in rows.iter().zip([23, 25]) {
            assert_eq!(row.hours.len(), hours);
            let apart = |pair: &[HourlyWeather]| pair[1].start - pair[0].start == chrono::TimeDelta::hours(1);
            assert!(row.hours.windows(2).all(apart), "{:?}", row.hours);
        }
        assert_eq!(rows[1].hours[3].start.to_rfc3339(), "2026-10-25T02:00:00+01:00");
    }

    #[test]
    fn a_logger_that_is_never_put_forward_keeps_standard_time() {
        let rows = rows(
            "Europe/Madrid",
            "tmax_c,tmin_c",
            &[("2026-03-29", "20,5", cell(0..24)), ("2026-06-01", "30,15", cell(0..24))],
        );
        assert_eq!(rows[1].hours[12].start.to_rfc3339(), "2026-06-01T12:00:00+01:00");
        let wall = HoursColumn { index: 0, zone: Tz::Europe__Madrid, units: [None; 5] };
        let noon = rows[1].hours[12].start.naive_local();
        assert_eq!(wall.wall_clock(noon, false).to_rfc3339(), "2026-06-01T12:00:00+02:00");
    }

    #[test]
    fn a_column_called_hours_of_another_file_is_left_alone() {
        let table = Table::parse(b"date,tmax_c,tmin_c,hours\n2026-06-01,20,10,5\n").unwrap();
        let mapping = Mapping::by_name(table.headers(), &[]).unwrap();
        assert_eq!(read(&table, &mapping, None).rows[0].hours, []);
    }
}
