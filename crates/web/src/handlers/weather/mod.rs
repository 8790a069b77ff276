pub(crate) mod choose;
pub(crate) mod file;
pub(crate) mod import;
pub(crate) mod list;
pub(crate) mod normals;
pub(crate) mod of_place;
pub(crate) mod series;
pub(crate) mod upload;

use upland_store::{NewRevision, PlaceRecord, Record, SeriesRecord, Versioned, Write};
use uuid::Uuid;

/// The writes of a new series, and of the place that asked for it and looks at it from now on.
fn new_series_writes(
    name: String,
    position: upland_core::place::Position,
    wind_height_m: f64,
    revision: NewRevision,
    place: Option<&Versioned<PlaceRecord>>,
) -> (Uuid, Vec<Write>) {
    let id = Uuid::new_v4();
    let record = SeriesRecord { name, position, wind_height_m, revision_id: revision.id };
    let mut writes = vec![Write::new(id, Record::Series(Some(record), Some(Box::new(revision))))];
    if let Some(place) = place {
        let looking = PlaceRecord { series_id: Some(id), ..place.value.clone() };
        writes.push(Write { id: place.id, made_on: place.version, record: Record::Place(Some(looking)) });
    }
    (id, writes)
}
