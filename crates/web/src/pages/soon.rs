//! What is to be dialled by hand within a week: what a visit today could prepare.

use chrono::NaiveDate;

use super::ahead::{by_hand, change_words};
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
        title: w.t2("due-soon", &c.name, date_short(day.on)),
        reason: change_words(c, &day),
        href: "/ahead".to_owned(),
        act: w.t("due-soon-act"),
    })
}
