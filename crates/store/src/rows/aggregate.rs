use diesel::prelude::*;
use serde_json::Value;
use uuid::Uuid;

use crate::model::{ControllerRecord, PlaceRecord};
use crate::schema::{controllers, places};

/// A place's document, beside what queries ask for.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = places, treat_none_as_null = true)]
pub(crate) struct PlaceRow {
    account_id: Uuid,
    pub(crate) id: Uuid,
    name: String,
    series_id: Option<Uuid>,
    pub(crate) document: Value,
    further_series: Vec<Uuid>,
}

impl PlaceRow {
    pub(crate) fn new(account_id: Uuid, id: Uuid, place: &PlaceRecord) -> Self {
        let (name, series_id) = (place.place.name.clone(), place.series_id);
        let further_series = place.further.all().collect();
        Self { account_id, id, name, series_id, document: place.to_document(), further_series }
    }
}

/// A controller's document, beside what queries ask for.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = controllers)]
pub(crate) struct ControllerRow {
    account_id: Uuid,
    pub(crate) id: Uuid,
    place_id: Uuid,
    name: String,
    pub(crate) document: Value,
}

impl ControllerRow {
    pub(crate) fn new(account_id: Uuid, id: Uuid, record: &ControllerRecord) -> Self {
        let (place_id, name) = (record.place_id, record.controller.name.clone());
        Self { account_id, id, place_id, name, document: record.to_document() }
    }
}
