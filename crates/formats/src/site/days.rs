use chrono::{NaiveDate, Weekday};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::controller::{DayMode, Days, Schedule, StartTime};
use upland_core::word::WordError;

use super::DocError;

/// A weekday.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum DayDoc {
    /// Monday.
    Mon,
    /// Tuesday.
    Tue,
    /// Wednesday.
    Wed,
    /// Thursday.
    Thu,
    /// Friday.
    Fri,
    /// Saturday.
    Sat,
    /// Sunday.
    Sun,
}

impl DayDoc {
    const ALL: [Self; 7] = [Self::Mon, Self::Tue, Self::Wed, Self::Thu, Self::Fri, Self::Sat, Self::Sun];

    pub(super) fn of(day: Weekday) -> Self {
        Self::ALL[day.num_days_from_monday() as usize]
    }

    pub(super) fn weekday(self) -> Weekday {
        Days::WEEK[Self::ALL.iter().position(|d| *d == self).unwrap_or(0)]
    }
}

/// Weekdays, as a list.
pub(super) fn day_list(days: Days) -> Vec<DayDoc> {
    days.iter().map(DayDoc::of).collect()
}

/// The set of weekdays that a list holds.
#[must_use]
pub fn days_of(list: &[DayDoc]) -> Days {
    Days::of(list.iter().map(|d| d.weekday()))
}

/// A time of day of a document.
pub(super) fn time_of(text: &str) -> Result<StartTime, DocError> {
    let unknown = || WordError::Unknown { field: "time", value: text.to_owned() };
    StartTime::read(text).ok_or_else(|| unknown().into())
}

/// On which days a program runs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "mode", rename_all = "lowercase", deny_unknown_fields)]
pub enum DayModeDoc {
    /// On weekdays.
    Weekdays {
        /// These.
        days: Vec<DayDoc>,
    },
    /// On odd dates.
    Odd,
    /// On even dates.
    Even,
    /// Every so many days.
    Every {
        /// Days from one watering to the next, 1 to 31.
        days: u8,
        /// The next watering.
        next: NaiveDate,
    },
}

impl From<DayMode> for DayModeDoc {
    fn from(mode: DayMode) -> Self {
        match mode {
            DayMode::Weekdays(days) => Self::Weekdays { days: day_list(days) },
            DayMode::Odd => Self::Odd,
            DayMode::Even => Self::Even,
            DayMode::Every { days, next } => Self::Every { days, next },
        }
    }
}

impl From<&DayModeDoc> for DayMode {
    fn from(doc: &DayModeDoc) -> Self {
        match doc {
            DayModeDoc::Weekdays { days } => Self::Weekdays(days_of(days)),
            DayModeDoc::Odd => Self::Odd,
            DayModeDoc::Even => Self::Even,
            DayModeDoc::Every { days, next } => Self::Every { days: *days, next: *next },
        }
    }
}

/// When a program runs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ScheduleDoc {
    /// On which days.
    pub days: DayModeDoc,
    /// Weekdays on which it never runs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub never: Vec<DayDoc>,
    /// Start times, `HH:MM`, earliest first.
    pub starts: Vec<String>,
    /// Over how many starts one watering is divided.
    #[serde(default = "one")]
    pub split: u8,
}

const fn one() -> u8 {
    1
}

impl From<&Schedule> for ScheduleDoc {
    fn from(s: &Schedule) -> Self {
        Self {
            days: s.days.into(),
            never: day_list(s.never),
            starts: s.starts.iter().map(ToString::to_string).collect(),
            split: s.split,
        }
    }
}

impl TryFrom<&ScheduleDoc> for Schedule {
    type Error = DocError;

    fn try_from(doc: &ScheduleDoc) -> Result<Self, DocError> {
        Ok(Self {
            days: (&doc.days).into(),
            never: days_of(&doc.never),
            starts: doc.starts.iter().map(|s| time_of(s)).collect::<Result<_, _>>()?,
            split: doc.split,
        })
    }
}
