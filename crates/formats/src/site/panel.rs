use chrono::{NaiveDate, NaiveDateTime};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::landscape::CycleSoak;
use upland_core::quantity::{OutOfRange, Percent, RunTime};
use upland_core::word::WordError;

use super::DocError;
use super::days::{DayDoc, DayModeDoc, day_list, days_of, time_of};
use super::error::letter;
use super::rules::{HoursDoc, hours_doc, hours_of};

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
    /// Seconds of a cycle, where it has cycles.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cycle_s: Option<u32>,
    /// Seconds of rest between two cycles.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub soak_s: Option<u32>,
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
    /// Weekdays on which it never waters.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub never: Vec<DayDoc>,
    /// Its percent now.
    pub percent: u16,
    /// Its twelve percents, January first, where they were written down; null for a month that is off.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub months: Option<[Option<u16>; 12]>,
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
    /// Whether its display said off while a sensor held it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub held: bool,
    /// `none`, `active` or `bypassed`.
    pub sensor: String,
    /// Stations with minutes.
    pub stations: Vec<FoundStationDoc>,
    /// Programs.
    pub programs: Vec<FoundProgramDoc>,
    /// Water windows that it is set to.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub windows: Vec<HoursDoc>,
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
            on: p.switch != Switch::Off,
            held: p.switch == Switch::Held,
            sensor: SENSOR_WORDS.iter().find(|(s, _)| *s == p.sensor).map_or("none", |(_, w)| w).to_owned(),
            stations: p
                .stations
                .iter()
                .map(|s| FoundStationDoc {
                    number: s.number,
                    run_s: s.minutes.seconds(),
                    programs: s.programs.iter().map(|l| l.get()).collect(),
                    cycle_s: s.cycle.map(|c| c.cycle.seconds()),
                    soak_s: s.cycle.map(|c| c.soak.seconds()),
                })
                .collect(),
            programs: p
                .programs
                .iter()
                .map(|f| FoundProgramDoc {
                    letter: f.letter.get(),
                    days: f.days.into(),
                    starts: f.starts.iter().map(ToString::to_string).collect(),
                    never: day_list(f.never),
                    percent: f.percent.get(),
                    months: f.months.map(|months| months.map(|m| m.map(Percent::get))),
                })
                .collect(),
            windows: hours_doc(&p.windows),
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
            switch: match (doc.on, doc.held) {
                (false, _) => Switch::Off,
                (true, true) => Switch::Held,
                (true, false) => Switch::On,
            },
            sensor: sensor.ok_or_else(|| WordError::Unknown { field: "sensor", value: doc.sensor.clone() })?,
            stations: doc
                .stations
                .iter()
                .map(|s| {
                    Ok(FoundStation {
                        number: s.number,
                        minutes: RunTime::from_seconds(s.run_s),
                        programs: s.programs.iter().map(|l| letter(*l)).collect::<Result<_, _>>()?,
                        cycle: s.cycle_s.map(|cycle_s| CycleSoak {
                            cycle: RunTime::from_seconds(cycle_s),
                            soak: RunTime::from_seconds(s.soak_s.unwrap_or(0)),
                        }),
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
                        never: days_of(&p.never),
                        percent: Percent::new(p.percent)?,
                        months: p.months.map(months_of).transpose()?,
                    })
                })
                .collect::<Result<_, DocError>>()?,
            windows: hours_of(&doc.windows)?,
            note: doc.note.clone(),
        })
    }
}

fn months_of(months: [Option<u16>; 12]) -> Result<[Option<Percent>; 12], OutOfRange> {
    let mut out = [None; 12];
    for (own, percent) in out.iter_mut().zip(months) {
        *own = percent.map(Percent::new).transpose()?;
    }
    Ok(out)
}
