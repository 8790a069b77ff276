//! What is due at a controller on a day, each with its reason: what Today lists.

use chrono::{NaiveDate, TimeDelta, TimeZone};
use chrono_tz::Tz;

use super::dial::DialIn;
use super::field::FieldState;
use super::job_list::{JobKind, Todo};
use super::sensors::{About, notes, sensor_name};
use super::soon::soon;
use super::temporary::{back_words, kind_words};
use crate::context::ControllerContext;
use crate::show::{Units, date_short, weekday};
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

/// The change of the clock at places of a zone, on the day before and the week that leads to it.
pub(crate) fn clock_change(zone: Tz, today: NaiveDate) -> Option<(NaiveDate, i64)> {
    let offset = |d: NaiveDate| {
        use chrono::Offset;
        let noon = d.and_hms_opt(12, 0, 0)?;
        let local = zone.from_local_datetime(&noon).earliest()?;
        Some(i64::from(local.offset().fix().local_minus_utc()))
    };
    (0..=7).map(|n| today + TimeDelta::days(n)).find_map(|day| {
        let (before, after) = (offset(day - TimeDelta::days(1))?, offset(day)?);
        (before != after).then_some((day, (after - before) / 60))
    })
}

/// The change of the clock as something to do: panels that do not change it themselves need a visit.
pub(crate) fn clock_todo(zones: &[Tz], today: NaiveDate) -> Option<Todo> {
    let w = Words;
    let (day, minutes) = zones.iter().find_map(|z| clock_change(*z, today))?;
    Some(Todo {
        kind: JobKind::Clock,
        key: String::new(),
        mark: "flag",
        title: w.t2("due-clock", weekday(day), date_short(day)),
        reason: w.t(if minutes > 0 { "due-clock-forward" } else { "due-clock-back" }),
        href: "/rounds".to_owned(),
        act: w.t("nav-rounds"),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(y: i32, m: u32, d: u32) -> NaiveDate {
        NaiveDate::from_ymd_opt(y, m, d).unwrap()
    }

    /// Source: the IANA time zone database; the United States change on the second Sunday of March
    /// and the first of November, the European Union on the last Sundays of March and October.
    #[test]
    fn the_clock_change_is_seen_a_week_ahead_and_then_no_more() {
        let zone = Tz::America__Los_Angeles;
        assert_eq!(clock_change(zone, day(2026, 3, 1)), Some((day(2026, 3, 8), 60)));
        assert_eq!(clock_change(zone, day(2026, 3, 8)), Some((day(2026, 3, 8), 60)));
        assert_eq!(clock_change(zone, day(2026, 3, 9)), None);
        assert_eq!(clock_change(Tz::Europe__Vienna, day(2026, 10, 20)), Some((day(2026, 10, 25), -60)));
        assert_eq!(clock_change(Tz::UTC, day(2026, 3, 5)), None);
    }
}
