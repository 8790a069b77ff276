//! The days on which clocks change: panels that do not follow need a visit.

use chrono::{NaiveDate, TimeDelta, TimeZone};
use chrono_tz::Tz;

use super::job_list::{JobKind, Todo};
use crate::show::{date_short, weekday};
use crate::words::Words;

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
        title: w.t2("due-clock", ("weekday", weekday(day)), ("date", date_short(day))),
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
