//! Saving with its entry in the log: what stood before and after, as documents.

use actix_web::HttpResponse;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use upland_core::controller::Controller;
use upland_core::place::{Position, Rules};
use upland_formats::site::{ControllerDoc, FieldDoc, PlaceDoc, RulesDoc, VERSION};
use upland_store::{
    Action, ControllerRecord, FieldKind, FieldRecord, Kind, NewRevision, PlaceRecord, Record, SeriesRecord, StoreError,
    Write,
};
use uuid::Uuid;

use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::conflicts::{Conflict, conflict_page};
use crate::handlers::go;
use crate::pages::desk::Desk;

/// A controller's document together with the place it hangs at.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ControllerEntry {
    place: Uuid,
    controller: ControllerDoc,
}

/// A series' document: its days are in the import that it points to.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct SeriesEntry {
    version: u32,
    name: String,
    latitude: f64,
    longitude: f64,
    elevation_m: f64,
    wind_height_m: f64,
    revision: Uuid,
}

fn json<T: Serialize>(value: T) -> Option<Value> {
    serde_json::to_value(value).ok()
}

fn place_doc(place: &PlaceRecord) -> Option<Value> {
    json(PlaceDoc {
        version: VERSION,
        name: place.name.clone(),
        house_number: place.house_number.clone(),
        latitude: place.position.latitude_deg(),
        longitude: place.position.longitude_deg(),
        elevation_m: place.position.elevation_m(),
        time_zone: place.time_zone.clone(),
        weather: place.series_id.map(|id| id.to_string()),
        rules: RulesDoc::from(&place.rules),
    })
}

fn controller_doc(record: &ControllerRecord) -> Option<Value> {
    json(ControllerEntry { place: record.place_id, controller: ControllerDoc::from(&record.controller) })
}

fn series_doc(series: &SeriesRecord) -> Option<Value> {
    json(SeriesEntry {
        version: VERSION,
        name: series.name.clone(),
        latitude: series.position.latitude_deg(),
        longitude: series.position.longitude_deg(),
        elevation_m: series.position.elevation_m(),
        wind_height_m: series.wind_height_m,
        revision: series.revision_id,
    })
}

/// A write of a place.
pub(crate) fn place_write(id: Uuid, made_on: i32, before: Option<&PlaceRecord>, after: Option<PlaceRecord>) -> Write {
    let (before, after_doc) = (before.and_then(place_doc), after.as_ref().and_then(place_doc));
    Write { id, made_on, record: Record::Place(after), before, after: after_doc }
}

/// A write of a controller.
pub(crate) fn controller_write(
    id: Uuid,
    made_on: i32,
    before: Option<&ControllerRecord>,
    after: Option<ControllerRecord>,
) -> Write {
    let (before, after_doc) = (before.and_then(controller_doc), after.as_ref().and_then(controller_doc));
    Write { id, made_on, record: Record::Controller(after), before, after: after_doc }
}

/// A write of a series, with the import that it brings.
pub(crate) fn series_write(
    id: Uuid,
    made_on: i32,
    before: Option<&SeriesRecord>,
    after: SeriesRecord,
    revision: NewRevision,
) -> Write {
    let (before, after_doc) = (before.and_then(series_doc), series_doc(&after));
    Write { id, made_on, record: Record::Series(Some(after), Some(Box::new(revision))), before, after: after_doc }
}

/// The record that a document of the log stands for.
pub(crate) fn record_of(kind: Kind, document: Option<&Value>) -> Result<Record, PageError> {
    let Some(document) = document.cloned() else {
        return Ok(match kind {
            Kind::Place => Record::Place(None),
            Kind::Controller => Record::Controller(None),
            Kind::Series => Record::Series(None, None),
        });
    };
    fn ours(error: impl std::error::Error + Send + Sync + 'static) -> PageError {
        PageError::Ours(Box::new(error))
    }
    Ok(match kind {
        Kind::Place => {
            let doc: PlaceDoc = serde_json::from_value(document).map_err(ours)?;
            Record::Place(Some(PlaceRecord {
                position: doc.position().map_err(ours)?,
                rules: Rules::try_from(&doc.rules).map_err(ours)?,
                series_id: doc.weather.as_deref().map(Uuid::parse_str).transpose().map_err(ours)?,
                name: doc.name,
                house_number: doc.house_number,
                time_zone: doc.time_zone,
            }))
        }
        Kind::Controller => {
            let entry: ControllerEntry = serde_json::from_value(document).map_err(ours)?;
            let controller = Controller::try_from(&entry.controller).map_err(ours)?;
            Record::Controller(Some(ControllerRecord { place_id: entry.place, controller }))
        }
        Kind::Series => {
            let entry: SeriesEntry = serde_json::from_value(document).map_err(ours)?;
            let record = SeriesRecord {
                name: entry.name,
                position: Position::new(entry.latitude, entry.longitude, entry.elevation_m).map_err(ours)?,
                wind_height_m: entry.wind_height_m,
                revision_id: entry.revision,
            };
            Record::Series(Some(record), None)
        }
    })
}

/// An action of the user of a form; `why` is the key of its words.
pub(crate) fn action(app: &App, user: &SignedIn, form: &Form, why: &str, writes: Vec<Write>) -> Action {
    Action {
        // Made when the page was made, so that pressing twice saves once.
        id: Uuid::parse_str(form.get("action")).unwrap_or_else(|_| Uuid::new_v4()),
        user_id: user.user.id,
        user_name: user.user.name.clone(),
        at: app.clock.now(),
        why: why.to_owned(),
        undoes: None,
        writes,
        records: Vec::new(),
    }
}

/// A record of the field under the key that its form was made with, so that sending it twice keeps one.
pub(crate) fn field_record(
    action: &Action,
    form: &Form,
    controller_id: Uuid,
    document: &FieldDoc,
) -> Result<FieldRecord, PageError> {
    Ok(FieldRecord {
        id: Uuid::parse_str(form.get("record")).unwrap_or_else(|_| Uuid::new_v4()),
        controller_id,
        kind: match document {
            FieldDoc::Found(_) => FieldKind::Found,
            FieldDoc::Round(_) => FieldKind::Round,
            FieldDoc::Dialled(_) => FieldKind::Dialled,
        },
        at: action.at,
        user_name: action.user_name.clone(),
        document: serde_json::to_value(document).map_err(|e| PageError::Ours(Box::new(e)))?,
    })
}

/// The version of a thing that its form was made on.
pub(crate) fn made_on(form: &Form) -> i32 {
    form.get("version").parse().unwrap_or(0)
}

/// Saves a changed thing. When somebody was faster, nothing is saved and the answer is the page
/// with the choice of two sides. `[post_to, back]`: where the form was sent, and where it stands.
pub(crate) async fn save_over(
    app: &App,
    user: &SignedIn,
    form: Form,
    why: &str,
    write: Write,
    addresses: [&str; 2],
) -> Result<Option<HttpResponse>, PageError> {
    let action = action(app, user, &form, why, vec![write]);
    apply_over(app, user, form, &action, addresses).await
}

/// As [`save_over`], for an action that writes one thing or none, and records of the field with it.
pub(crate) async fn apply_over(
    app: &App,
    user: &SignedIn,
    form: Form,
    action: &Action,
    [post_to, back]: [&str; 2],
) -> Result<Option<HttpResponse>, PageError> {
    match (user.account.apply(action).await, action.writes.first()) {
        (Ok(()), _) => Ok(None),
        (Err(StoreError::Conflict { current, .. }), Some(write)) => {
            let (id, mine) = (write.id, write.after.clone());
            conflict_page(app, user, Conflict { id, current, form, mine, post_to, back }).await.map(Some)
        }
        (Err(other), _) => Err(other.into()),
    }
}

/// Saves a changed controller and goes on to `to`; a stale version gets the choice of two sides.
/// `[post_to, to]`: where the form was sent, and where to go afterwards.
pub(crate) async fn save_controller(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    form: Form,
    changed: Controller,
    why: &str,
    [post_to, to]: [&str; 2],
) -> Page {
    let known = &desk.controller;
    let record = ControllerRecord { place_id: known.value.place_id, controller: changed };
    let write = controller_write(known.id, made_on(&form), Some(&known.value), Some(record));
    if let Some(choice) = save_over(app, user, form, why, write, [post_to, to]).await? {
        return Ok(choice);
    }
    go(to)
}
