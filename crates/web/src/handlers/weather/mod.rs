pub(crate) mod choose;
pub(crate) mod decide;
pub(crate) mod export;
pub(crate) mod file;
pub(crate) mod import;
pub(crate) mod list;
pub(crate) mod normals;
pub(crate) mod of_place;
mod record;
pub(crate) mod series;
pub(crate) mod upload;

use upland_store::{NewRevision, PlaceRecord, Record, SeriesRecord, Versioned, Write};
use uuid::Uuid;

use crate::form::Form;
use crate::handlers::saving::place_write;

/// The writes of a new series, and of the place that asked for it and looks at it from now on, as the form
/// saw it: two people who give a place its weather at once get the choice of two sides.
fn new_series_writes(
    record: SeriesRecord,
    revision: NewRevision,
    place: &Versioned<PlaceRecord>,
    form: &Form,
) -> Vec<Write> {
    let id = Uuid::new_v4();
    let looking = PlaceRecord { series_id: Some(id), ..place.value.clone() };
    vec![Write::new(id, Record::Series(Some(record), Some(Box::new(revision)))), place_write(place, form, looking)]
}
