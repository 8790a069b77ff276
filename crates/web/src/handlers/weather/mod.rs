pub(crate) mod choose;
pub(crate) mod decide;
pub(crate) mod discard;
pub(crate) mod export;
pub(crate) mod file;
pub(crate) mod hours;
pub(crate) mod import;
pub(crate) mod list;
pub(crate) mod normals;
pub(crate) mod of_place;
mod record;
pub(crate) mod series;
pub(crate) mod station;
pub(crate) mod upload;

use upland_store::{FurtherWeather, NewRevision, PlaceRecord, Record, SeriesRecord, Versioned, Write};
use uuid::Uuid;

use crate::form::Form;
use crate::handlers::saving::place_write;

/// A place that looks at a series from now on: as its first, where the series has normals; else beside it, for its
/// rain where it measures nothing else, and to fill gaps where it has temperatures too.
fn looking_at(place: &PlaceRecord, id: Uuid, revision: &NewRevision) -> PlaceRecord {
    let mut looking = place.clone();
    let further = &mut looking.further;
    if !revision.normals.is_empty() {
        looking.series_id = Some(id);
    } else if revision.et0.is_empty() {
        further.rain = Some(id);
    } else if further.gaps.len() < FurtherWeather::MOST_GAPS {
        further.gaps.push(id);
    }
    looking
}

/// The writes of a new series, and of the place that asked for it and looks at it from now on, as the form
/// saw it: two people who give a place its weather at once get the choice of two sides.
fn new_series_writes(
    record: SeriesRecord,
    revision: NewRevision,
    place: &Versioned<PlaceRecord>,
    form: &Form,
) -> Vec<Write> {
    let id = Uuid::new_v4();
    let looking = looking_at(&place.value, id, &revision);
    vec![Write::new(id, Record::Series(Some(record), Some(Box::new(revision)))), place_write(place, form, looking)]
}
