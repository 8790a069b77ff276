use chrono::{NaiveDate, NaiveDateTime};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::quantity::{Percent, RunTime};
use upland_core::word::WordError;

use super::DocError;
use super::days::{DayDoc, DayModeDoc, time_of};
use super::error::letter;

/// A station as it was found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct FoundStationDoc {
    /// Terminal number.
    pub number: u8,
    /// Seconds at 100 %.
    pub run_s: u32,
    /// Programs that run it.
    pub programs: Vec<char>,
}

/// A program as it was found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct FoundProgramDoc {
    /// Its letter.
    pub letter: char,
    /// Its days.
    pub days: DayModeDoc,
    /// Its starts, `HH:MM`.
    pub starts: Vec<String>,
    /// Its percent.
    pub percent: u16,
}

/// A panel as it was found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PanelDoc {
    /// When it was written down, by a good clock of the place.
    pub seen_at: NaiveDateTime,
    /// The date that it showed.
    pub clock_date: NaiveDate,
    /// The weekday that it showed.
    #[serde(default)]
    pub clock_weekday: Option<DayDoc>,
    /// The time that it showed, `HH:MM`.
    pub clock_time: String,
    /// Whether it was on.
    pub on: bool,
    /// `none`, `active` or `bypassed`.
    pub sensor: String,
    /// Stations with minutes.
    pub stations: Vec<FoundStationDoc>,
    /// Programs.
    pub programs: Vec<FoundProgramDoc>,
    /// What else was seen.
    #[serde(default)]
    pub note: String,
}

const SENSOR_WORDS: [(SensorSwitch, &str); 3] =
    [(SensorSwitch::None, "none"), (SensorSwitch::Active, "active"), (SensorSwitch::Bypassed, "bypassed")];

impl From<&Panel> for PanelDoc {
    fn from(p: &Panel) -> Self {
        Self {
            seen_at: p.seen_at,
            clock_date: p.clock.date,
            clock_weekday: p.clock.weekday.map(DayDoc::of),
            clock_time: p.clock.time.to_string(),
            on: p.switch == Switch::On,
            sensor: SENSOR_WORDS.iter().find(|(s, _)| *s == p.sensor).map_or("none", |(_, w)| w).to_owned(),
            stations: p
                .stations
                .iter()
                .map(|s| FoundStationDoc {
                    number: s.number,
                    run_s: s.minutes.seconds(),
                    programs: s.programs.iter().map(|l| l.get()).collect(),
                })
                .collect(),
            programs: p
                .programs
                .iter()
                .map(|f| FoundProgramDoc {
                    letter: f.letter.get(),
                    days: f.days.into(),
                    starts: f.starts.iter().map(ToString::to_string).collect(),
                    percent: f.percent.get(),
                })
                .collect(),
            note: p.note.clone(),
        }
    }
}

impl TryFrom<&PanelDoc> for Panel {
    type Error = DocError;

    fn try_from(doc: &PanelDoc) -> Result<Self, DocError> {
        let sensor = SENSOR_WORDS.iter().find(|(_, w)| *w == doc.sensor).map(|(s, _)| *s);
        Ok(Self {
            seen_at: doc.seen_at,
            clock: PanelClock {
                date: doc.clock_date,
                weekday: doc.clock_weekday.map(DayDoc::weekday),
                time: time_of(&doc.clock_time)?,
            },
            switch: if doc.on { Switch::On } else { Switch::Off },
            sensor: sensor.ok_or_else(|| WordError::Unknown { field: "sensor", value: doc.sensor.clone() })?,
            stations: doc
                .stations
                .iter()
                .map(|s| {
                    Ok(FoundStation {
                        number: s.number,
                        minutes: RunTime::from_seconds(s.run_s),
                        programs: s.programs.iter().map(|l| letter(*l)).collect::<Result<_, _>>()?,
                    })
                })
                .collect::<Result<_, DocError>>()?,
            programs: doc
                .programs
                .iter()
                .map(|p| {
                    Ok(FoundProgram {
                        letter: letter(p.letter)?,
                        days: (&p.days).into(),
                        starts: p.starts.iter().map(|s| time_of(s)).collect::<Result<_, _>>()?,
                        percent: Percent::new(p.percent)?,
                    })
                })
                .collect::<Result<_, DocError>>()?,
            note: doc.note.clone(),
        })
    }
}
