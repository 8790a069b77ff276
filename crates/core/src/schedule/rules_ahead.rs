//! Water rules that change in the time to come, and whether the present schedule keeps them then.

use chrono::{NaiveDate, TimeZone};

use super::finding::Severity;
use super::findings::detect;
use super::situation::Situation;
use crate::controller::Controller;

/// A day from which other days and hours are allowed than before.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct RuleChange {
    /// The day.
    pub on: NaiveDate,
    /// Whether the schedule, as it is now, breaks a rule in the week from that day on.
    pub breaks: bool,
}

/// The days after the first one of a situation, to a last one, on which the rules of the seasons change.
#[must_use]
pub fn rule_changes<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    last: NaiveDate,
) -> Vec<RuleChange> {
    let next = |from: &NaiveDate| situation.rules.changes_after(*from).filter(|on| *on <= last);
    std::iter::successors(next(&situation.first), next)
        .map(|on| {
            let then = Situation { first: on, ..*situation };
            RuleChange { on, breaks: detect(&then, controller).iter().any(|f| f.severity == Severity::Rule) }
        })
        .collect()
}
