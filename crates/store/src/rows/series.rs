use chrono::NaiveDate;
use diesel::prelude::*;
use upland_core::climate::normals::MonthNormal;
use upland_core::place::Position;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{NewRevision, NormalsVariant, RevisionSummary, SeriesRecord};
use crate::schema::{monthly_normals, series, series_revisions};

#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = series)]
pub(crate) struct SeriesRow {
    pub(crate) account_id: Uuid,
    pub(crate) id: Uuid,
    name: String,
    latitude_deg: f64,
    longitude_deg: f64,
    elevation_m: f64,
    wind_height_m: f64,
    revision_id: Uuid,
}

impl SeriesRow {
    pub(crate) fn new(account_id: Uuid, id: Uuid, series: &SeriesRecord) -> Self {
        Self {
            account_id,
            id,
            name: series.name.clone(),
            latitude_deg: series.position.latitude_deg(),
            longitude_deg: series.position.longitude_deg(),
            elevation_m: series.position.elevation_m(),
            wind_height_m: series.wind_height_m,
            revision_id: series.revision_id,
        }
    }
}

impl TryFrom<SeriesRow> for SeriesRecord {
    type Error = StoreError;

    fn try_from(row: SeriesRow) -> Result<Self, StoreError> {
        Ok(Self {
            name: row.name,
            position: Position::new(row.latitude_deg, row.longitude_deg, row.elevation_m)
                .map_err(|e| StoreError::BrokenRow(e.to_string()))?,
            wind_height_m: row.wind_height_m,
            revision_id: row.revision_id,
        })
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = series_revisions)]
pub(crate) struct RevisionRow {
    account_id: Uuid,
    id: Uuid,
    series_id: Uuid,
    source: String,
    input_hash: Vec<u8>,
    method_version: i32,
    first_day: Option<NaiveDate>,
    last_day: Option<NaiveDate>,
    day_count: i32,
    method: String,
}

impl RevisionRow {
    pub(crate) fn new(account_id: Uuid, series_id: Uuid, revision: &NewRevision) -> Self {
        let days = || revision.days.iter().map(|d| d.date);
        Self {
            account_id,
            id: revision.id,
            series_id,
            source: revision.source.clone(),
            input_hash: revision.input_hash.clone(),
            method_version: revision.method_version,
            first_day: days().min(),
            last_day: days().max(),
            // A file has at most a few hundred thousand lines.
            day_count: i32::try_from(revision.days.len()).unwrap_or(i32::MAX),
            method: revision.method.clone(),
        }
    }
}

impl RevisionRow {
    pub(crate) fn summary(self, has_normals: bool) -> RevisionSummary {
        RevisionSummary {
            id: self.id,
            source: self.source,
            first_day: self.first_day,
            last_day: self.last_day,
            day_count: self.day_count,
            method: self.method,
            has_normals,
        }
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = monthly_normals)]
pub(crate) struct NormalRow {
    account_id: Uuid,
    revision_id: Uuid,
    variant: String,
    month: i16,
    et0_mm_per_day: f64,
    rain_mm: Option<f64>,
    tmax_c: Option<f64>,
    tmin_c: Option<f64>,
}

impl NormalRow {
    pub(crate) fn of(account_id: Uuid, revision: &NewRevision) -> Vec<Self> {
        let mut rows = Vec::new();
        for variant in &revision.normals {
            for (index, (month, normal)) in (1i16..).zip(&variant.normals).enumerate() {
                let temperatures = variant.temperatures.map(|months| months[index]);
                rows.push(Self {
                    account_id,
                    revision_id: revision.id,
                    variant: variant.variant.clone(),
                    month,
                    et0_mm_per_day: normal.et0_mm_per_day,
                    rain_mm: normal.rain_mm,
                    tmax_c: temperatures.map(|[high, _]| high),
                    tmin_c: temperatures.map(|[_, low]| low),
                });
            }
        }
        rows
    }
}

/// Rows in order of variant and month, as twelve months a variant.
pub(crate) fn normals_by_variant(rows: &[NormalRow]) -> Result<Vec<NormalsVariant>, StoreError> {
    rows.chunk_by(|a, b| a.variant == b.variant)
        .map(|year| {
            let months: Vec<MonthNormal> =
                year.iter().map(|r| MonthNormal { et0_mm_per_day: r.et0_mm_per_day, rain_mm: r.rain_mm }).collect();
            let normals = months.try_into().map_err(|_| StoreError::BrokenRow("not twelve months".into()))?;
            let temperatures: Option<Vec<[f64; 2]>> = year.iter().map(|r| Some([r.tmax_c?, r.tmin_c?])).collect();
            Ok(NormalsVariant {
                variant: year.first().map_or_else(String::new, |r| r.variant.clone()),
                normals,
                temperatures: temperatures.and_then(|months| months.try_into().ok()),
            })
        })
        .collect()
}
