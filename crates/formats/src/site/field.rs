//! What is recorded in the field: documents that are written once and never changed.

use chrono::{NaiveDate, NaiveDateTime};
use serde::{Deserialize, Deserializer, Serialize};
use serde_json::Value as Json;
use upland_core::dial_in::{Slot, Value};
use upland_core::tuning::Judgement;
use upland_core::word::Word;

use super::days::{DayDoc, DayModeDoc, day_list};
use super::measured::MeasuredDoc;
use super::panel::PanelDoc;
use super::round_change::ChangeDoc;
use super::{DocError, VERSION, upgrade};

/// How a proposed change was answered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Answer {
    /// Taken over.
    Accepted,
    /// Turned down.
    Rejected,
    /// There was nothing to change.
    Nothing,
}

/// The ground of a station.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum GroundDoc {
    /// Too dry.
    Dry,
    /// Right.
    Right,
    /// Too wet.
    Wet,
}

impl From<Judgement> for GroundDoc {
    fn from(j: Judgement) -> Self {
        match j {
            Judgement::Dry => Self::Dry,
            Judgement::Right => Self::Right,
            Judgement::Wet => Self::Wet,
        }
    }
}

impl From<GroundDoc> for Judgement {
    fn from(doc: GroundDoc) -> Self {
        match doc {
            GroundDoc::Dry => Self::Dry,
            GroundDoc::Right => Self::Right,
            GroundDoc::Wet => Self::Wet,
        }
    }
}

/// A round: what was seen, what the tool proposed and what became of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct RoundDoc {
    /// The day, by the calendar of the place.
    pub on: NaiveDate,
    /// The percent that stood on the panel, by program.
    pub percents: Vec<(char, u16)>,
    /// The stations that were judged.
    pub stations: Vec<(u8, GroundDoc)>,
    /// The change that was proposed; none when nothing had to change.
    pub change: Option<ChangeDoc>,
    /// What became of it.
    pub answer: Answer,
    /// Why it was turned down.
    pub reason: String,
    /// When to look again.
    pub look_again: NaiveDate,
    /// What else was seen.
    pub note: String,
}

/// A dialling in: the version of the controller that the panel holds since.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DialledDoc {
    /// The day, by the calendar of the place.
    pub on: NaiveDate,
    /// Version of the controller.
    pub version: i32,
    /// What every slot was set to: its key and its value, so that a later change shows what has to
    /// be dialled again.
    pub values: Vec<(String, DialledValueDoc)>,
    /// Keys of the slots that could not be set.
    pub not_set: Vec<String>,
    /// What the panel's own display says about its next watering.
    pub panel_next: PanelNextDoc,
    /// The next watering by our schedule; none when nothing is due.
    pub our_next: Option<NextDoc>,
    /// When to look again.
    pub look_again: NaiveDate,
}

/// A value that a slot of the panel was set to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum DialledValueDoc {
    /// Minutes, cycle or soak, s.
    RunS(u32),
    /// Days, and weekdays that are closed to every mode.
    Days {
        /// The mode.
        mode: DayModeDoc,
        /// The closed weekdays.
        never: Vec<DayDoc>,
    },
    /// A start, or an end of a water window, `HH:MM`.
    Start(String),
    /// A percent.
    Percent(u16),
    /// A start, a month or a water window that is off.
    Off,
    /// The sensor switch at active.
    SensorActive,
    /// The sensor switch at bypass.
    SensorBypassed,
    /// A rain delay, to its last day.
    RainDelay(NaiveDate),
    /// A station that obeys the sensors.
    Obeys,
    /// A station that ignores them.
    Ignores,
    /// A depth, mm.
    Mm(f64),
    /// A temperature, °C.
    C(f64),
    /// A reading, percent.
    Reading(f64),
    /// The vent ring of a rain sensor, by its word.
    Vent(String),
    /// Days after rain.
    DaysAfter(u8),
    /// The climate step of an ET sensor, by its mark. Older records have the number of a step of ours.
    #[serde(alias = "et_class", deserialize_with = "mark_or_number")]
    EtClimate(String),
    /// The offset of an ET sensor, by its mark.
    #[serde(deserialize_with = "mark_or_number")]
    EtOffset(String),
    /// The panel at run.
    SwitchOn,
    /// The panel off.
    SwitchOff,
}

/// A mark of a dial; a number in older records, where the marks were numbers.
fn mark_or_number<'de, D: Deserializer<'de>>(deserializer: D) -> Result<String, D::Error> {
    #[derive(Deserialize)]
    #[serde(untagged)]
    enum Either {
        Mark(String),
        Number(u8),
    }
    Ok(match Either::deserialize(deserializer)? {
        Either::Mark(mark) => mark,
        Either::Number(number) => number.to_string(),
    })
}

impl DialledValueDoc {
    /// What the record of a slot holds; none for the clock, which is set on every visit.
    #[must_use]
    pub fn of(value: &Value) -> Option<Self> {
        Some(match value {
            Value::Date | Value::Time => return None,
            Value::Minutes(run) | Value::Cycle(run) | Value::Soak(run) => Self::RunS(run.seconds()),
            Value::NoMinutes => Self::RunS(0),
            Value::Days(mode, never) => Self::Days { mode: (*mode).into(), never: day_list(*never) },
            Value::Start(time) | Value::WindowFrom(time) | Value::WindowTo(time) => Self::Start(time.to_string()),
            Value::StartOff | Value::PercentOff | Value::WindowOff => Self::Off,
            Value::Percent(percent) => Self::Percent(percent.get()),
            Value::SensorActive => Self::SensorActive,
            Value::SensorBypassed => Self::SensorBypassed,
            Value::StationDelay(pause) => Self::RunS(pause.seconds()),
            Value::RainDelay(until) => Self::RainDelay(*until),
            Value::Obeys => Self::Obeys,
            Value::Ignores => Self::Ignores,
            Value::RainSetting(mm) => Self::Mm(*mm),
            Value::Vent(vent) => Self::Vent(vent.word().to_owned()),
            Value::DaysAfterRain(days) => Self::DaysAfter(*days),
            Value::FreezeSetting(c) => Self::C(*c),
            Value::SoilThreshold(reading) => Self::Reading(*reading),
            Value::EtClimate(mark) => Self::EtClimate(mark.to_string()),
            Value::EtOffset(mark) => Self::EtOffset(mark.to_string()),
            Value::SwitchOn => Self::SwitchOn,
            Value::SwitchOff => Self::SwitchOff,
        })
    }
}

impl DialledDoc {
    /// What the record of a panel holds when every slot was set.
    #[must_use]
    pub fn values_of(slots: &[Slot]) -> Vec<(String, DialledValueDoc)> {
        slots.iter().filter_map(|slot| Some((slot.key(), DialledValueDoc::of(&slot.value)?))).collect()
    }
}

/// What the panel's own display says about its next watering.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum PanelNextDoc {
    /// Nobody looked.
    NotSeen,
    /// The same as our schedule.
    Same,
    /// Something else, as the technician typed it.
    Words(String),
}

/// A watering to come.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct NextDoc {
    /// When it starts, by the clock of the place.
    pub at: NaiveDateTime,
    /// Its program.
    pub program: char,
}

/// Something recorded in the field.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "record", rename_all = "snake_case")]
pub enum FieldDoc {
    /// A panel as it was found.
    Found(PanelDoc),
    /// A round.
    Round(RoundDoc),
    /// A dialling in.
    Dialled(DialledDoc),
    /// A station's application rate, measured.
    Measured(MeasuredDoc),
}

impl FieldDoc {
    /// The record as it is stored, its version with it.
    #[must_use]
    pub fn to_json(&self) -> Json {
        // A document of plain values always becomes JSON.
        let mut json = serde_json::to_value(self).unwrap_or_default();
        json["format"] = VERSION.into();
        json
    }

    /// Reads a stored record of any version.
    ///
    /// # Errors
    /// [`DocError`] for a version that is not known or a document of another shape.
    pub fn from_json(document: Json) -> Result<Self, DocError> {
        let mut document = upgrade::field_record(document)?;
        if let Some(fields) = document.as_object_mut() {
            fields.remove("format");
        }
        serde_json::from_value(document).map_err(|e| DocError::Shape(e.to_string()))
    }
}
