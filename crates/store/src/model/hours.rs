use std::collections::BTreeMap;

use chrono::NaiveDate;
use upland_core::climate::hourly::HourlyWeather;
use uuid::Uuid;

/// The hours of a local day as a station measured them.
#[derive(Debug, Clone, PartialEq)]
pub struct DayHours {
    /// The import that brought them; `None` for that in which they stand.
    pub brought_by: Option<Uuid>,
    /// The hours, in order.
    pub hours: Vec<HourlyWeather>,
}

/// The hours of a record, for the days of which they were measured.
pub type HoursOnRecord = BTreeMap<NaiveDate, DayHours>;
