//! What is due at a controller on a day, each with its reason: what Today lists.

use chrono::NaiveDate;

use super::dial::DialIn;
use super::field::FieldState;
use super::job_list::{JobKind, Todo};
use super::sensors::{About, notes, sensor_name};
use super::soon::{rules_soon, soon};
use super::temporary::{back_words, kind_words};
use crate::context::ControllerContext;
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
            title: w.t2("due-over", &at, kind_words(&t.kind, c)),
            reason: w.t2("due-over-more", date_short(t.until), &t.reason),
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
    if let Some(dial) = to_dial(context, state, today) {
        out.push(Todo { title: w.t1(&dial.title, &at), ..dial });
    }
    out.extend(soon(context, today));
    out.extend(rules_soon(context, today));
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
                title: w.t2("due-sensor", &at, sensor_name(sensor)),
                reason: note,
                href: format!("/controllers/{id}/sensors?sensor={}", sensor.id),
                act: w.t("due-sensor-act"),
            });
        }
    }
    out
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
        title: "due-dial".to_owned(),
        reason: match pending.len() {
            1 => dial.line_without_units(first),
            n => w.t2("due-dial-more", dial.line_without_units(first), (n - 1).to_string()),
        },
        href: format!("/controllers/{}/dial-in?only=changed", context.controller.id),
        act: w.t("due-dial-act"),
    })
}
