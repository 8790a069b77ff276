use chrono::NaiveDate;
use diesel::prelude::*;
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::element::Element;
use upland_core::climate::review::{Decision, Verdict};
use uuid::Uuid;

use crate::error::StoreError;
use crate::schema::{daily_weather, weather_decisions};

#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = daily_weather)]
pub(crate) struct DayRow {
    day: NaiveDate,
    tmax_c: Option<f64>,
    tmin_c: Option<f64>,
    rhmax_pct: Option<f64>,
    rhmin_pct: Option<f64>,
    rhmean_pct: Option<f64>,
    dewpoint_c: Option<f64>,
    wind_ms: Option<f64>,
    solar_mj_m2: Option<f64>,
    rain_mm: Option<f64>,
}

impl From<DayRow> for DailyWeather {
    fn from(row: DayRow) -> Self {
        Self {
            date: row.day,
            t_max: row.tmax_c,
            t_min: row.tmin_c,
            rh_max: row.rhmax_pct,
            rh_min: row.rhmin_pct,
            rh_mean: row.rhmean_pct,
            dew_point: row.dewpoint_c,
            wind: row.wind_ms,
            solar: row.solar_mj_m2,
            rain: row.rain_mm,
        }
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = weather_decisions)]
pub(crate) struct DecisionRow {
    account_id: Uuid,
    revision_id: Uuid,
    day: NaiveDate,
    element: String,
    verdict: String,
    original: Option<f64>,
    value: Option<f64>,
    reason: String,
}

impl DecisionRow {
    pub(crate) fn new(account_id: Uuid, revision_id: Uuid, decision: &Decision) -> Self {
        let (verdict, value) = match decision.verdict {
            Verdict::Accepted => ("accepted", None),
            Verdict::Excluded => ("excluded", None),
            Verdict::Corrected(value) => ("corrected", Some(value)),
        };
        Self {
            account_id,
            revision_id,
            day: decision.date,
            element: decision.element.word().to_owned(),
            verdict: verdict.to_owned(),
            original: decision.original,
            value,
            reason: decision.reason.clone(),
        }
    }
}

impl TryFrom<DecisionRow> for Decision {
    type Error = StoreError;

    fn try_from(row: DecisionRow) -> Result<Self, StoreError> {
        let verdict = match (row.verdict.as_str(), row.value) {
            ("accepted", _) => Verdict::Accepted,
            ("excluded", _) => Verdict::Excluded,
            ("corrected", Some(value)) => Verdict::Corrected(value),
            (other, _) => return Err(StoreError::BrokenRow(format!("no such verdict: {other}"))),
        };
        let element = Element::of_word(&row.element)
            .ok_or_else(|| StoreError::BrokenRow(format!("no such element: {}", row.element)))?;
        Ok(Self { date: row.day, element, original: row.original, verdict, reason: row.reason })
    }
}
