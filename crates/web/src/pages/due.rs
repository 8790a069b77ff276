//! What is due at a controller on a day, each with its reason: what Today lists.

use chrono::NaiveDate;
use upland_core::controller::Program;
use upland_core::dial_in::slots;
use upland_core::found::panel_findings;
use upland_core::schedule::{Severity, detect};

use super::dial::DialIn;
use super::field::FieldState;
use super::findings::{finding_key, finding_title};
use super::found::found_href;
use super::job_list::{JobKind, Todo};
use super::sensors::{About, notes, sensor_name};
use super::soon::{rules_soon, soon};
use super::temporary::{back_words, kind_words};
use super::year::program_label;
use crate::context::{ControllerContext, monday};
use crate::show::{Units, date_short};
use crate::words::Words;

/// Everything that is due, what ends first.
pub(crate) fn due(context: &ControllerContext, state: &FieldState, today: NaiveDate) -> Vec<Todo> {
    let w = Words;
    let c = context.controller();
    let id = context.controller.id;
    let at = c.name.clone();
    let mut out = Vec::new();
    for t in c.temporaries.iter().filter(|t| t.is_over(today)) {
        out.push(Todo {
            kind: JobKind::Ended,
            key: format!("ended.{}", t.id),
            mark: "flag",
            title: w.t2("due-over", ("controller", &at), ("what", kind_words(&t.kind, c))),
            reason: w.t2("due-over-more", ("date", date_short(t.until)), ("reason", &t.reason)),
            href: format!("/controllers/{id}/temporary"),
            act: back_words(&t.kind),
        });
    }
    if let Some(on) = state.found_off() {
        out.push(Todo {
            kind: JobKind::Fault,
            key: "found-off".to_owned(),
            mark: "fault",
            title: w.t1("due-found-off", &at),
            reason: w.t1("due-found-off-more", date_short(on)),
            href: format!("/controllers/{id}/as-found"),
            act: w.t("due-found-off-act"),
        });
    }
    out.extend(week_faults(context, today));
    out.extend(found_faults(context, state));
    out.extend(to_dial(context, state, today));
    out.extend(never_dialled(context, state, today));
    out.extend(soon(context, today));
    out.extend(rules_soon(context, today));
    out.extend(by_hand(context, today));
    if let Some(day) = state.look_again().filter(|d| *d <= today) {
        out.push(Todo {
            kind: JobKind::LookAgain,
            key: "look-again".to_owned(),
            mark: "glass",
            title: w.t1("due-look-again", &at),
            reason: w.t1("due-look-again-more", date_short(day)),
            href: format!("/controllers/{id}/round"),
            act: w.t("due-look-again-act"),
        });
    }
    for sensor in &c.sensors {
        // A bypass that is over stands above, with everything temporary.
        let own = notes(c, sensor, today).into_iter().filter(|(_, about)| *about != About::BypassOver);
        for (index, (note, about)) in own.enumerate() {
            out.push(Todo {
                key: format!("sensor.{}.{index}", sensor.id),
                kind: if about.stops() { JobKind::Fault } else { JobKind::Sensor },
                mark: if about.stops() { "fault" } else { "battery" },
                title: w.t2("due-sensor", ("controller", &at), ("sensor", sensor_name(sensor))),
                reason: note,
                href: format!("/controllers/{id}/sensors?sensor={}", sensor.id),
                act: w.t("due-sensor-act"),
            });
        }
    }
    out
}

/// Faults and broken rules of the schedule as the panel would run it this week.
fn week_faults(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let c = context.controller();
    // What has no schedule at all is not complete, and said there.
    if !c.programs_with_stations().any(Program::is_scheduled) {
        return None;
    }
    let mut found = detect(&context.week_of(today), c);
    found.retain(|f| f.severity != Severity::Note);
    let first = found.first()?;
    let title = finding_title(c, first);
    Some(Todo {
        kind: JobKind::Fault,
        key: format!("week.{}.{}", found.len(), finding_key(first)),
        mark: if first.severity == Severity::Fault { "fault" } else { "caution" },
        title: w.t1(if first.severity == Severity::Fault { "due-week" } else { "due-week-rule" }, &c.name),
        reason: match found.len() {
            1 => title,
            n => w.t2("due-dial-more", ("title", title), ("count", (n - 1).to_string())),
        },
        href: format!("/controllers/{}/week", context.controller.id),
        act: w.t("due-rules-act"),
    })
}

/// What was wrong on a panel as it was found, with nothing dialled since. That it was off is said before.
fn found_faults(context: &ControllerContext, state: &FieldState) -> Option<Todo> {
    let w = Words;
    let panel = state.panel_still_found().filter(|_| state.found_off().is_none())?;
    let seen = panel.seen_at.date();
    let found = panel_findings(panel, context.controller(), &context.week_of(seen), context.budget().ok());
    (!found.is_empty()).then(|| Todo {
        kind: JobKind::Fault,
        key: format!("found.{}.{}", found.len(), seen),
        mark: "fault",
        title: w.t1("due-found", &context.controller().name),
        reason: w.t2(
            "due-found-more",
            ("findings", w.count("found-findings", found.len())),
            ("date", date_short(seen)),
        ),
        href: found_href(context.controller.id),
        act: w.t("due-found-off-act"),
    })
}

/// A schedule that nobody ever dialled in, on a panel of which nobody wrote down how it stands.
fn never_dialled(context: &ControllerContext, state: &FieldState, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let c = context.controller();
    let is_ready = c.programs_with_stations().any(Program::is_scheduled) && context.budget().is_ok();
    if !is_ready || state.dialled.is_some() || state.panel_still_found().is_some() {
        return None;
    }
    let values = slots(c, &context.plan(), today).len();
    Some(Todo {
        kind: JobKind::Dial,
        key: "never-dialled".to_owned(),
        mark: "flag",
        title: w.t1("due-never", &c.name),
        reason: w.count("due-never-more", values),
        href: format!("/controllers/{}/dial-in", context.controller.id),
        act: w.t("due-dial-act"),
    })
}

/// The week's runs of the programs that are watered by hand.
fn by_hand(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let c = context.controller();
    let own = c.programs_with_stations().filter(|p| p.by_hand);
    let programs: Vec<String> = own.map(|p| program_label(Some(p), p.letter)).collect();
    (!programs.is_empty()).then(|| Todo {
        kind: JobKind::ByHand,
        key: format!("by-hand.{}", monday(today)),
        mark: "todo",
        title: w.t1("due-by-hand", &c.name),
        reason: w.t1("due-by-hand-more", programs.join(", ")),
        href: format!("/controllers/{}/by-hand", context.controller.id),
        act: w.t("ways-card"),
    })
}

/// Values that do not stand on the panel as they should, once it was dialled.
fn to_dial(context: &ControllerContext, state: &FieldState, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    state.dialled.as_ref()?;
    let dial = DialIn::of(context, today.and_time(chrono::NaiveTime::MIN), Units::Metric);
    let pending = dial.pending(state);
    let first = pending.first()?;
    Some(Todo {
        kind: JobKind::Dial,
        key: "dial".to_owned(),
        mark: "flag",
        title: w.t1("due-dial", &context.controller().name),
        reason: match pending.len() {
            1 => dial.line_without_units(first),
            n => w.t2("due-dial-more", ("title", dial.line_without_units(first)), ("count", (n - 1).to_string())),
        },
        href: format!("/controllers/{}/dial-in?only=changed", context.controller.id),
        act: w.t("due-dial-act"),
    })
}
