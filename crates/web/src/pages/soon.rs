//! What comes within a week and could be prepared today: what is to be dialled by hand, and other water rules.

use chrono::NaiveDate;

use super::ahead::{by_hand, change_words, other_rules};
use super::job_list::{JobKind, Todo};
use crate::context::ControllerContext;
use crate::show::date_short;
use crate::words::Words;

/// Days ahead that are looked at.
const AHEAD_DAYS: i64 = 7;

/// The first change that a panel does not make itself, from tomorrow to a week from now.
pub(super) fn soon(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let c = context.controller();
    let day = by_hand(context, today, AHEAD_DAYS).into_iter().next()?;
    Some(Todo {
        kind: JobKind::Soon,
        key: format!("soon.{}", day.on),
        mark: "todo",
        title: w.t2("due-soon", ("controller", &c.name), ("date", date_short(day.on))),
        reason: change_words(c, &day),
        href: "/ahead".to_owned(),
        act: w.t("due-soon-act"),
    })
}

/// Rules of another season that begin within a week and that the schedule, as it is, would break.
pub(super) fn rules_soon(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let change = other_rules(context, today, AHEAD_DAYS).into_iter().find(|change| change.breaks)?;
    Some(Todo {
        kind: JobKind::Soon,
        key: format!("rules.{}", change.on),
        mark: "caution",
        title: w.t2("due-rules", ("controller", &context.controller().name), ("date", date_short(change.on))),
        reason: w.t("due-rules-more"),
        href: format!("/controllers/{}/week", context.controller.id),
        act: w.t("due-rules-act"),
    })
}
