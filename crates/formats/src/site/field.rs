//! What is recorded in the field: documents that are written once and never changed.

use chrono::NaiveDate;
use serde::{Deserialize, Serialize};
use upland_core::tuning::Judgement;

use super::panel::PanelDoc;

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
    /// The stations that were looked at.
    pub stations: Vec<(u8, GroundDoc)>,
    /// The change that was proposed, in words.
    pub change: String,
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
    /// What every slot was set to: its key and its value, so that a later change shows what is to
    /// be dialled anew.
    pub values: Vec<(String, String)>,
    /// Keys of the slots that could not be set.
    pub not_set: Vec<String>,
    /// What the panel says of its next watering; empty where nobody looked.
    pub panel_next: String,
    /// What we say, in words.
    pub our_next: String,
    /// When to look again.
    pub look_again: NaiveDate,
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
}
