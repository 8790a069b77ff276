use chrono::NaiveDate;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::place::{Ban, DayRule, Hours, Rules};

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
}

/// Hours without watering.
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
    /// A ban.
    #[serde(default)]
    pub ban: Option<BanDoc>,
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

impl From<&Rules> for RulesDoc {
    fn from(r: &Rules) -> Self {
        Self {
            days: match r.days {
                DayRule::Any => DayRuleDoc::Any,
                DayRule::Weekdays(days) => DayRuleDoc::Weekdays { days: day_list(days) },
                DayRule::ByParity { odd, even } => DayRuleDoc::Parity { odd: day_list(odd), even: day_list(even) },
                DayRule::ByLastDigit(digits) => DayRuleDoc::LastDigit { digits: digits.map(day_list) },
            },
            never: day_list(r.never),
            hours: r.hours.iter().map(|h| HoursDoc { from: h.from.to_string(), to: h.to.to_string() }).collect(),
            ban: r.ban.map(|b| BanDoc { from: b.from, to: b.to }),
            authority: r.authority.clone(),
            dated: r.dated,
        }
    }
}

impl TryFrom<&RulesDoc> for Rules {
    type Error = DocError;

    fn try_from(doc: &RulesDoc) -> Result<Self, DocError> {
        Ok(Self {
            days: match &doc.days {
                DayRuleDoc::Any => DayRule::Any,
                DayRuleDoc::Weekdays { days } => DayRule::Weekdays(days_of(days)),
                DayRuleDoc::Parity { odd, even } => DayRule::ByParity { odd: days_of(odd), even: days_of(even) },
                DayRuleDoc::LastDigit { digits } => DayRule::ByLastDigit(std::array::from_fn(|i| days_of(&digits[i]))),
            },
            never: days_of(&doc.never),
            hours: doc
                .hours
                .iter()
                .map(|h| Ok(Hours { from: time_of(&h.from)?, to: time_of(&h.to)? }))
                .collect::<Result<_, DocError>>()?,
            ban: doc.ban.as_ref().map(|b| Ban { from: b.from, to: b.to }),
            authority: doc.authority.clone(),
            dated: doc.dated,
        })
    }
}
