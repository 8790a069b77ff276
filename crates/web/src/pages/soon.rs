//! What is to be dialled by hand within a week: what a visit today could prepare.

use chrono::{NaiveDate, TimeDelta};
use upland_core::budget::Dial;
use upland_core::controller::PercentStorage;
use upland_core::in_force::{InForce, ProgramInForce, SetBy, in_force};

use super::job_list::{JobKind, Todo};
use crate::context::ControllerContext;
use crate::show::{date_short, dial};
use crate::words::Words;

/// Days ahead that are looked at.
const AHEAD_DAYS: i64 = 7;

/// The first change of percents that the panel does not make itself, from tomorrow to a week from now.
pub(super) fn soon(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let c = context.controller();
    context.budget().ok()?;
    let plan = context.week_of(today).plan(c);
    let on = |day: i64| in_force(c, &plan, None, today + TimeDelta::days(day));
    let (changes, day) = (1..=AHEAD_DAYS).find_map(|day| {
        let changes = changes(context, &on(day - 1), &on(day));
        (!changes.is_empty()).then(|| (changes, today + TimeDelta::days(day)))
    })?;
    Some(Todo {
        kind: JobKind::Soon,
        key: format!("soon.{day}"),
        mark: "todo",
        title: w.t2("due-soon", &c.name, date_short(day)),
        reason: changes.join(", "),
        href: format!("/controllers/{}/year", context.controller.id),
        act: w.t("due-soon-act"),
    })
}

/// The programs whose percent is to be dialled by hand between two days, in words.
fn changes(context: &ControllerContext, before: &InForce, after: &InForce) -> Vec<String> {
    let by_hand = |a: &ProgramInForce, b: &ProgramInForce| {
        let capability = &context.controller().capability;
        let for_a_while = [a, b].iter().any(|p| matches!(p.by, SetBy::ForAWhile(_)));
        let off = [a, b].iter().any(|p| p.dial == Dial::Off);
        // Months that the panel holds follow one another by themselves.
        for_a_while || capability.percent_storage == PercentStorage::Single || (off && !capability.months_off)
    };
    let pairs = before.programs.iter().filter_map(|a| Some((a, after.program(a.letter)?)));
    let changed = pairs.filter(|(a, b)| a.dial != b.dial && b.by != SetBy::EtSensor && by_hand(a, b));
    changed
        .map(|(a, b)| {
            let figures = [a.letter.get().to_string(), dial(a.dial), dial(b.dial)];
            let [letter, now, then] = &figures;
            Words.with("due-soon-program", &[("program", letter), ("now", now), ("then", then)])
        })
        .collect()
}
