//! Documents of what is saved as a whole: the form in which the store keeps a place or a controller,
//! and in which the log of changes holds all three kinds.

use serde::{Deserialize, Serialize};
use serde_json::Value;
use upland_core::controller::Controller;
use upland_core::place::{Position, Rules};
use upland_formats::site::{ControllerDoc, PlaceDoc, PlaceLinks, RulesDoc, Tabled, VERSION, upgrade};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ChangeEntry, ControllerRecord, FurtherWeather, Kind, PlaceRecord, Record, SeriesRecord};

/// The key under which a controller's document names its place.
const PLACE: &str = "place";

/// A series of weather: its days are in the import that it points to.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct SeriesDoc {
    version: u32,
    name: String,
    latitude: f64,
    longitude: f64,
    elevation_m: f64,
    wind_height_m: f64,
    revision: Uuid,
}

fn broken(error: impl std::fmt::Display) -> StoreError {
    StoreError::BrokenRow(error.to_string())
}

/// A document of plain values always becomes JSON.
fn json(document: impl Serialize) -> Value {
    serde_json::to_value(document).unwrap_or_default()
}

impl PlaceRecord {
    pub(crate) fn to_document(&self) -> Value {
        let links = PlaceLinks {
            version: VERSION,
            weather: self.series_id.map(|id| id.to_string()),
            rain_weather: self.further.rain.map(|id| id.to_string()),
            gap_weather: self.further.gaps.iter().map(Uuid::to_string).collect(),
            rules: RulesDoc::from(&self.rules),
        };
        json(Tabled(self.place.clone(), links))
    }

    pub(crate) fn of_document(document: Value) -> Result<Self, StoreError> {
        let document = upgrade::place(document).map_err(broken)?;
        let Tabled(place, links): PlaceDoc = serde_json::from_value(document).map_err(broken)?;
        Ok(Self {
            place,
            rules: Rules::try_from(&links.rules).map_err(broken)?,
            series_id: links.weather.as_deref().map(Uuid::parse_str).transpose().map_err(broken)?,
            further: FurtherWeather {
                rain: links.rain_weather.as_deref().map(Uuid::parse_str).transpose().map_err(broken)?,
                gaps: links
                    .gap_weather
                    .iter()
                    .map(|id| Uuid::parse_str(id))
                    .collect::<Result<_, _>>()
                    .map_err(broken)?,
            },
        })
    }
}

impl ControllerRecord {
    pub(crate) fn to_document(&self) -> Value {
        let mut document = json(ControllerDoc::from(&self.controller));
        document[PLACE] = json(self.place_id);
        document
    }

    pub(crate) fn of_document(mut document: Value) -> Result<Self, StoreError> {
        let place = document.as_object_mut().and_then(|fields| fields.remove(PLACE));
        let place = place.ok_or_else(|| broken("a controller without a place"))?;
        let document = upgrade::controller(document).map_err(broken)?;
        let doc: ControllerDoc = serde_json::from_value(document).map_err(broken)?;
        let controller = Controller::try_from(&doc).map_err(broken)?;
        Ok(Self { place_id: serde_json::from_value(place).map_err(broken)?, controller })
    }
}

impl SeriesRecord {
    pub(crate) fn to_document(&self) -> Value {
        json(SeriesDoc {
            version: VERSION,
            name: self.name.clone(),
            latitude: self.position.latitude_deg(),
            longitude: self.position.longitude_deg(),
            elevation_m: self.position.elevation_m(),
            wind_height_m: self.wind_height_m,
            revision: self.revision_id,
        })
    }

    pub(crate) fn of_document(document: Value) -> Result<Self, StoreError> {
        let document = upgrade::series(document).map_err(broken)?;
        let doc: SeriesDoc = serde_json::from_value(document).map_err(broken)?;
        Ok(Self {
            position: Position::new(doc.latitude, doc.longitude, doc.elevation_m).map_err(broken)?,
            name: doc.name,
            wind_height_m: doc.wind_height_m,
            revision_id: doc.revision,
        })
    }
}

impl Record {
    /// The document of the thing; none where it is removed.
    #[must_use]
    pub fn document(&self) -> Option<Value> {
        match self {
            Self::Place(place) => place.as_ref().map(PlaceRecord::to_document),
            Self::Controller(controller) => controller.as_ref().map(ControllerRecord::to_document),
            Self::Series(series, _) => series.as_ref().map(SeriesRecord::to_document),
        }
    }

    /// The thing that a document of any version stands for.
    fn of_document(kind: Kind, document: Option<Value>) -> Result<Self, StoreError> {
        Ok(match kind {
            Kind::Place => Self::Place(document.map(PlaceRecord::of_document).transpose()?),
            Kind::Controller => Self::Controller(document.map(ControllerRecord::of_document).transpose()?),
            Kind::Series => Self::Series(document.map(SeriesRecord::of_document).transpose()?, None),
        })
    }
}

impl ChangeEntry {
    /// The thing as it was before the change: what undo writes back.
    ///
    /// # Errors
    /// [`StoreError::BrokenRow`] for a document that cannot be read.
    pub fn record_before(&self) -> Result<Record, StoreError> {
        Record::of_document(self.kind, self.before.clone())
    }
}
