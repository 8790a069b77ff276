use diesel::prelude::*;
use upland_core::place::Position;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::PlaceRecord;
use crate::schema::places;

#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = places, treat_none_as_null = true)]
pub(crate) struct PlaceRow {
    pub(crate) account_id: Uuid,
    pub(crate) id: Uuid,
    name: String,
    house_number: String,
    latitude_deg: f64,
    longitude_deg: f64,
    elevation_m: f64,
    time_zone: String,
    series_id: Option<Uuid>,
}

impl PlaceRow {
    pub(crate) fn new(account_id: Uuid, id: Uuid, place: &PlaceRecord) -> Self {
        Self {
            account_id,
            id,
            name: place.name.clone(),
            house_number: place.house_number.clone(),
            latitude_deg: place.position.latitude_deg(),
            longitude_deg: place.position.longitude_deg(),
            elevation_m: place.position.elevation_m(),
            time_zone: place.time_zone.clone(),
            series_id: place.series_id,
        }
    }
}

impl TryFrom<PlaceRow> for PlaceRecord {
    type Error = StoreError;

    fn try_from(row: PlaceRow) -> Result<Self, StoreError> {
        Ok(Self {
            name: row.name,
            house_number: row.house_number,
            position: Position::new(row.latitude_deg, row.longitude_deg, row.elevation_m)
                .map_err(|e| StoreError::BrokenRow(e.to_string()))?,
            time_zone: row.time_zone,
            series_id: row.series_id,
        })
    }
}
