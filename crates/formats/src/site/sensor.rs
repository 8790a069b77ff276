use chrono::NaiveDateTime;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::controller::Temporary;
use upland_core::quantity::{limit, range};
use upland_core::sensor::{Reading, Sensor, SensorKind};

use super::DocError;
use super::et_sheet::EtSheetDoc;
use super::tabled::Tabled;

/// A reading of a soil-moisture sensor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingDoc {
    /// When, by the clock of the place.
    pub at: NaiveDateTime,
    /// Percent.
    #[schemars(range(min = range::SOIL_READING.min, max = range::SOIL_READING.max))]
    pub percent: f64,
}

/// What stands beside the field table of a sensor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SensorLists {
    /// Names it among the controller's sensors, from 1.
    #[schemars(range(min = 1))]
    pub id: u16,
    /// Readings of the calibration of a soil-moisture sensor, earliest first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schemars(length(max = limit::READINGS))]
    pub readings: Vec<ReadingDoc>,
    /// The own sheet of an ET sensor; left out for the example of ours.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sheet: Option<EtSheetDoc>,
}

/// A sensor: its field table, and its lists.
pub type SensorDoc = Tabled<Sensor, SensorLists>;

impl From<&Sensor> for SensorDoc {
    fn from(s: &Sensor) -> Self {
        let mut lists = SensorLists { id: s.id, readings: Vec::new(), sheet: None };
        match &s.kind {
            SensorKind::SoilMoisture { readings, .. } => {
                lists.readings = readings.iter().map(|r| ReadingDoc { at: r.at, percent: r.percent }).collect();
            }
            SensorKind::Et { setting, .. } => lists.sheet = Some((&setting.sheet).into()),
            SensorKind::Rain { .. } | SensorKind::Freeze { .. } => {}
        }
        Self(s.clone(), lists)
    }
}

impl TryFrom<&SensorDoc> for Sensor {
    type Error = DocError;

    fn try_from(Tabled(entered, lists): &SensorDoc) -> Result<Self, DocError> {
        let mut sensor = Self { id: lists.id, ..entered.clone() };
        match &mut sensor.kind {
            SensorKind::SoilMoisture { readings, .. } => {
                *readings = lists.readings.iter().map(|r| Reading { at: r.at, percent: r.percent }).collect();
            }
            _ if !lists.readings.is_empty() => {
                return Err(DocError::Shape("readings: only a soil-moisture sensor has them".to_owned()));
            }
            _ => {}
        }
        match (&mut sensor.kind, &lists.sheet) {
            (_, None) => {}
            (SensorKind::Et { setting, .. }, Some(sheet)) => setting.sheet = sheet.try_into()?,
            _ => return Err(DocError::Shape("sheet: only an ET sensor has one".to_owned())),
        }
        Ok(sensor)
    }
}

/// What stands beside the field table of a temporary setting.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TemporaryId {
    /// Names it among the controller's temporary settings, from 1.
    #[schemars(range(min = 1))]
    pub id: u16,
}

/// Something temporary.
pub type TemporaryDoc = Tabled<Temporary, TemporaryId>;

impl From<&Temporary> for TemporaryDoc {
    fn from(t: &Temporary) -> Self {
        Self(t.clone(), TemporaryId { id: t.id })
    }
}

impl From<&TemporaryDoc> for Temporary {
    fn from(Tabled(entered, TemporaryId { id }): &TemporaryDoc) -> Self {
        Self { id: *id, ..entered.clone() }
    }
}
