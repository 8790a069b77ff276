//! What is missing at a controller, and the percent that a new month asks for.

use chrono::{Datelike, NaiveDate};
use upland_core::controller::{PercentStorage, Program};
use upland_core::quantity::MonthOfYear;

use crate::context::{ControllerContext, Missing};
use crate::pages::job_list::{JobKind, Todo};
use crate::show::{date_short, dial, month_of};
use crate::words::Words;

/// What is missing at a controller, the next sensible step.
pub(crate) fn todos(context: &ControllerContext, today: NaiveDate) -> Vec<Todo> {
    let w = Words;
    let name = &context.controller().name;
    let at = &context.at.place.value.place.name;
    let id = context.controller.id;
    let todo = |mark, title: &str, reason: String, href: String, act: &str| Todo {
        kind: JobKind::Missing,
        key: title.to_owned(),
        mark,
        title: w.t1(title, name),
        reason,
        href,
        act: w.t(act),
    };
    match context.budget() {
        Err(Missing::Weather) => vec![todo(
            "todo",
            "todo-weather",
            w.t1("todo-weather-more", at),
            format!("/places/{}/weather", context.at.place.id),
            "todo-weather-act",
        )],
        Err(Missing::Stations) => vec![todo(
            "todo",
            "todo-stations",
            w.t1("todo-stations-more", at),
            format!("/controllers/{id}/stations"),
            "todo-stations-act",
        )],
        Ok(_) if !context.controller().programs_with_stations().any(Program::is_scheduled) => vec![todo(
            "todo",
            "todo-schedule",
            w.t("todo-schedule-more"),
            format!("/controllers/{id}/week"),
            "due-rules-act",
        )],
        Ok(budget) => {
            let shorts: usize = budget.groups.iter().flat_map(|g| &g.months).filter(|m| m.fewer_days.is_some()).count();
            let short = (shorts > 0).then(|| Todo {
                reason: w.count("todo-short-more", shorts),
                ..todo("part", "todo-short", String::new(), format!("/controllers/{id}/year"), "todo-short-act")
            });
            short.into_iter().chain(turn_by_hand(context, today)).collect()
        }
    }
}

/// In the first days of a month, and the last before it, the percent of a single-percent panel has to
/// be turned by hand.
fn turn_by_hand(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    if context.controller().capability.percent_storage != PercentStorage::Single || today.day() > 7 {
        return None;
    }
    let budget = context.budget().ok()?;
    let month = month_of(today);
    let before = MonthOfYear::ALL[(month.index() + 11) % 12];
    let group = budget.groups.iter().find(|g| g.month(month).dial != g.month(before).dial)?;
    let dial = dial(group.month(month).dial);
    Some(Todo {
        kind: JobKind::Dial,
        key: format!("turn.{}", month.number()),
        mark: "flag",
        title: w.t2("todo-turn", ("controller", &context.controller().name), ("value", dial)),
        reason: w.t1("todo-turn-more", date_short(today)),
        href: format!("/controllers/{}/year", context.controller.id),
        act: w.t("todo-turn-act"),
    })
}
