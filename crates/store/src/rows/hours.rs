use chrono::{DateTime, FixedOffset, NaiveDate, Offset, Utc};
use diesel::prelude::*;
use upland_core::climate::hourly::HourlyWeather;
use uuid::Uuid;

use crate::model::DayHours;
use crate::schema::weather_hours;

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = weather_hours)]
pub(crate) struct HoursRow {
    account_id: Uuid,
    revision_id: Uuid,
    day: NaiveDate,
    starts: Vec<DateTime<Utc>>,
    utc_offset_s: Vec<i32>,
    temp_c: Vec<Option<f64>>,
    rh_pct: Vec<Option<f64>>,
    wind_ms: Vec<Option<f64>>,
    solar_mj_m2: Vec<Option<f64>>,
    rain_mm: Vec<Option<f64>>,
}

impl HoursRow {
    pub(crate) fn new(account_id: Uuid, revision_id: Uuid, day: NaiveDate, hours: &[HourlyWeather]) -> Self {
        let values = |of: fn(&HourlyWeather) -> Option<f64>| hours.iter().map(of).collect();
        Self {
            account_id,
            revision_id,
            day,
            starts: hours.iter().map(|h| h.start.to_utc()).collect(),
            utc_offset_s: hours.iter().map(|h| h.start.offset().local_minus_utc()).collect(),
            temp_c: values(|h| h.t),
            rh_pct: values(|h| h.rh),
            wind_ms: values(|h| h.wind),
            solar_mj_m2: values(|h| h.solar),
            rain_mm: values(|h| h.rain),
        }
    }

    /// The day and its hours. The arrays are equally long: the database holds it.
    pub(crate) fn day_hours(self) -> (NaiveDate, DayHours) {
        let value = |list: &[Option<f64>], at: usize| list.get(at).copied().flatten();
        let hour = |(at, start): (usize, &DateTime<Utc>)| {
            let offset = self.utc_offset_s.get(at).and_then(|seconds| FixedOffset::east_opt(*seconds));
            HourlyWeather {
                start: start.with_timezone(&offset.unwrap_or_else(|| Utc.fix())),
                t: value(&self.temp_c, at),
                rh: value(&self.rh_pct, at),
                wind: value(&self.wind_ms, at),
                solar: value(&self.solar_mj_m2, at),
                rain: value(&self.rain_mm, at),
            }
        };
        let hours = self.starts.iter().enumerate().map(hour).collect();
        (self.day, DayHours { brought_by: Some(self.revision_id), hours })
    }
}
