use chrono::NaiveDate;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::controller::Hours;
use upland_core::place::{Ban, ClosedDates, DayOfYear, DayRule, Rules, Season, SeasonRule};
use upland_core::word::WordError;

use super::DocError;
use super::days::{DayDoc, day_list, days_of, time_of};

/// On which weekdays watering is allowed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "by", rename_all = "snake_case", deny_unknown_fields)]
pub enum DayRuleDoc {
    /// Any day.
    Any,
    /// These.
    Weekdays {
        /// The days.
        days: Vec<DayDoc>,
    },
    /// By odd or even house number.
    Parity {
        /// Days of odd numbers.
        odd: Vec<DayDoc>,
        /// Days of even numbers.
        even: Vec<DayDoc>,
    },
    /// By the last digit of the house number.
    LastDigit {
        /// Days of the digits 0 to 9.
        digits: [Vec<DayDoc>; 10],
    },
    /// Odd house numbers on odd dates, even ones on even dates.
    Date {
        /// Whether the 31st counts among the odd dates.
        with_31st: bool,
    },
}

/// Hours of the day; over midnight where they end before they begin.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct HoursDoc {
    /// From, `HH:MM`.
    pub from: String,
    /// To, `HH:MM`.
    pub to: String,
}

/// A time without any watering.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct BanDoc {
    /// First day.
    pub from: NaiveDate,
    /// Last day.
    pub to: NaiveDate,
    /// The hours that it closes; the whole day where there are none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<HoursDoc>,
}

/// Dates on which the place itself never waters.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ClosedDatesDoc {
    /// First day.
    pub from: NaiveDate,
    /// Last day.
    pub to: NaiveDate,
    /// Why.
    #[serde(default)]
    pub why: String,
}

/// Days and hours in a part of every year, in place of the usual ones.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SeasonRuleDoc {
    /// First day, `MM-DD`.
    #[schemars(regex(pattern = r"^[01][0-9]-[0-3][0-9]$"))]
    pub from: String,
    /// Last day, `MM-DD`; before the first one where the season goes over the turn of the year.
    #[schemars(regex(pattern = r"^[01][0-9]-[0-3][0-9]$"))]
    pub to: String,
    /// Weekdays that the authority allows then.
    pub days: DayRuleDoc,
    /// Hours without watering then.
    #[serde(default)]
    pub hours: Vec<HoursDoc>,
}

/// The water rules of a place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct RulesDoc {
    /// Weekdays that the authority allows.
    pub days: DayRuleDoc,
    /// Weekdays on which the place never waters.
    #[serde(default)]
    pub never: Vec<DayDoc>,
    /// Hours without watering.
    #[serde(default)]
    pub hours: Vec<HoursDoc>,
    /// Parts of the year with days and hours of their own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub seasons: Vec<SeasonRuleDoc>,
    /// Dates on which the place never waters.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub closed: Vec<ClosedDatesDoc>,
    /// When watering is to be done, `HH:MM`, 05:00 to 12:00; left out where the place states no such hour.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub done_by: Option<String>,
    /// A ban.
    #[serde(default)]
    pub ban: Option<BanDoc>,
    /// Whether a working rain or freeze sensor is required.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub needs_sensor: bool,
    /// Who made the rules.
    #[serde(default)]
    pub authority: String,
    /// As of when they hold.
    #[serde(default)]
    pub dated: Option<NaiveDate>,
}

impl Default for RulesDoc {
    fn default() -> Self {
        Self::from(&Rules::default())
    }
}

impl From<Hours> for HoursDoc {
    fn from(h: Hours) -> Self {
        Self { from: h.from.to_string(), to: h.to.to_string() }
    }
}

impl TryFrom<&HoursDoc> for Hours {
    type Error = DocError;

    fn try_from(doc: &HoursDoc) -> Result<Self, DocError> {
        Ok(Self { from: time_of(&doc.from)?, to: time_of(&doc.to)? })
    }
}

impl From<DayRule> for DayRuleDoc {
    fn from(rule: DayRule) -> Self {
        match rule {
            DayRule::Any => Self::Any,
            DayRule::Weekdays(days) => Self::Weekdays { days: day_list(days) },
            DayRule::ByParity { odd, even } => Self::Parity { odd: day_list(odd), even: day_list(even) },
            DayRule::ByLastDigit(digits) => Self::LastDigit { digits: digits.map(day_list) },
            DayRule::ByDate { with_31st } => Self::Date { with_31st },
        }
    }
}

impl From<&DayRuleDoc> for DayRule {
    fn from(doc: &DayRuleDoc) -> Self {
        match doc {
            DayRuleDoc::Any => Self::Any,
            DayRuleDoc::Weekdays { days } => Self::Weekdays(days_of(days)),
            DayRuleDoc::Parity { odd, even } => Self::ByParity { odd: days_of(odd), even: days_of(even) },
            DayRuleDoc::LastDigit { digits } => Self::ByLastDigit(std::array::from_fn(|i| days_of(&digits[i]))),
            DayRuleDoc::Date { with_31st } => Self::ByDate { with_31st: *with_31st },
        }
    }
}

pub(super) fn hours_doc(hours: &[Hours]) -> Vec<HoursDoc> {
    hours.iter().copied().map(HoursDoc::from).collect()
}

pub(super) fn hours_of(docs: &[HoursDoc]) -> Result<Vec<Hours>, DocError> {
    docs.iter().map(Hours::try_from).collect()
}

/// A day of every year as `MM-DD`.
fn day_doc(day: DayOfYear) -> String {
    format!("{:02}-{:02}", day.month(), day.day())
}

fn day_of(text: &str) -> Result<DayOfYear, DocError> {
    let read = || {
        let (month, day) = text.split_once('-')?;
        DayOfYear::new(month.parse().ok()?, day.parse().ok()?)
    };
    read().ok_or_else(|| WordError::Unknown { field: "day of the year", value: text.to_owned() }.into())
}

impl From<&SeasonRule> for SeasonRuleDoc {
    fn from(s: &SeasonRule) -> Self {
        Self { from: day_doc(s.season.from), to: day_doc(s.season.to), days: s.days.into(), hours: hours_doc(&s.hours) }
    }
}

impl TryFrom<&SeasonRuleDoc> for SeasonRule {
    type Error = DocError;

    fn try_from(doc: &SeasonRuleDoc) -> Result<Self, DocError> {
        Ok(Self {
            season: Season { from: day_of(&doc.from)?, to: day_of(&doc.to)? },
            days: (&doc.days).into(),
            hours: hours_of(&doc.hours)?,
        })
    }
}

impl From<&Rules> for RulesDoc {
    fn from(r: &Rules) -> Self {
        Self {
            days: r.days.into(),
            never: day_list(r.never),
            hours: hours_doc(&r.hours),
            seasons: r.seasons.iter().map(SeasonRuleDoc::from).collect(),
            closed: r.closed.iter().map(|c| ClosedDatesDoc { from: c.from, to: c.to, why: c.why.clone() }).collect(),
            done_by: r.done_by.map(|at| at.to_string()),
            ban: r.ban.map(|b| BanDoc { from: b.from, to: b.to, hours: b.hours.map(HoursDoc::from) }),
            needs_sensor: r.needs_sensor,
            authority: r.authority.clone(),
            dated: r.dated,
        }
    }
}

impl TryFrom<&RulesDoc> for Rules {
    type Error = DocError;

    fn try_from(doc: &RulesDoc) -> Result<Self, DocError> {
        Ok(Self {
            days: (&doc.days).into(),
            never: days_of(&doc.never),
            hours: hours_of(&doc.hours)?,
            seasons: doc.seasons.iter().map(SeasonRule::try_from).collect::<Result<_, DocError>>()?,
            closed: doc.closed.iter().map(|c| ClosedDates { from: c.from, to: c.to, why: c.why.clone() }).collect(),
            done_by: doc.done_by.as_deref().map(time_of).transpose()?,
            ban: match &doc.ban {
                Some(b) => {
                    Some(Ban { from: b.from, to: b.to, hours: b.hours.as_ref().map(Hours::try_from).transpose()? })
                }
                None => None,
            },
            needs_sensor: doc.needs_sensor,
            authority: doc.authority.clone(),
            dated: doc.dated,
        })
    }
}
