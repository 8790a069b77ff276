//! Runs as CSV and iCalendar.

use chrono::{DateTime, NaiveDate};
use upland_core::schedule::{Level, Situation, expand};
use upland_formats::site::{DatedEvent, NamedRun, dates_calendar, read_site, runs_calendar, runs_csv};

use crate::example;

fn day(text: &str) -> NaiveDate {
    text.parse().unwrap()
}

/// Calls `with` with the runs of the library's controller from a day to a day.
fn runs<T>(from: &str, to: &str, with: impl FnOnce(&[NamedRun<'_>], chrono_tz::Tz) -> T) -> T {
    let site = read_site(&example("library-terraces")).unwrap();
    let rules = site.rules.bind(&site.place.house_number);
    let normals = site.weather.as_ref().map(|(_, n)| n);
    let situation = Situation { rules: &rules, normals, zone: &site.place.zone, first: day(from) };
    let c = &site.controllers[0];
    let found = expand(c, &situation.plan(c), &site.place.zone, [day(from), day(to)], Level::Calendar);
    let named: Vec<NamedRun<'_>> =
        found.runs.iter().map(|run| NamedRun { controller: &c.name, station: "Lawn", run }).collect();
    with(&named, site.place.zone)
}

#[test]
fn csv_has_the_offset_of_each_instant() {
    let text = runs("2026-03-06", "2026-07-10", |runs, zone| runs_csv(runs, &zone));
    let mut lines = text.lines();
    assert_eq!(lines.next(), Some("start,stop,controller,program,station,cycle,cause"));
    let rows: Vec<Vec<&str>> = lines.map(|l| l.split(',').collect()).collect();
    assert!(rows.iter().all(|r| r.len() == 7));
    // The clock goes forward on 8 March 2026 (IANA, America/Los_Angeles).
    let winter = rows.iter().filter(|r| r[0] < "2026-03-08");
    assert!(winter.clone().count() > 0 && winter.clone().all(|r| r[0].ends_with("-08:00")));
    assert!(rows.iter().filter(|r| r[0] > "2026-03-09").all(|r| r[0].ends_with("-07:00")));
    for row in &rows {
        let [start, stop] = [row[0], row[1]].map(|t| DateTime::parse_from_rfc3339(t).unwrap());
        assert!(start < stop);
    }
    assert!(rows.windows(2).all(|p| p[0][0] <= p[1][0] || p[0][0][..10] == p[1][0][..10]));
}

/// RFC 5545: lines end with CRLF and are folded at 75 octets; every event has UID, DTSTAMP, DTSTART.
#[test]
fn calendar_keeps_to_its_rules() {
    let made = "2026-06-01T00:00:00Z".parse().unwrap();
    let (text, count) = runs("2026-06-08", "2026-06-14", |runs, _| (runs_calendar("Library", runs, made), runs.len()));
    assert!(text.starts_with("BEGIN:VCALENDAR\r\n") && text.ends_with("END:VCALENDAR\r\n"));
    assert!(text.split("\r\n").all(|l| l.len() <= 75 && !l.contains('\n')));
    let unfolded = text.replace("\r\n ", "");
    for what in ["BEGIN:VEVENT", "UID:", "DTSTAMP:20260601T000000Z", "DTSTART:2026", "DTEND:2026", "SUMMARY:"] {
        assert_eq!(unfolded.matches(&format!("\r\n{what}")).count(), count, "{what}");
    }
    let mut keys: Vec<&str> = unfolded.split("\r\nUID:").skip(1).map(|l| l.split("\r\n").next().unwrap()).collect();
    keys.sort_unstable();
    keys.dedup();
    assert_eq!(keys.len(), count, "each run has a key of its own");
}

/// RFC 5545, 3.3.4 and 3.3.11: an event all day long has a DATE without a time; commas and semicolons of a text are
/// escaped.
#[test]
fn what_comes_is_an_event_all_day_long() {
    let made = "2026-06-01T00:00:00Z".parse().unwrap();
    let event = DatedEvent {
        key: "20260901-set-1".into(),
        on: chrono::NaiveDate::from_ymd_opt(2026, 9, 1).unwrap(),
        summary: "Shed: program A, percent from 100 % to 60 %; 1 more value".into(),
        location: "Library terraces".into(),
    };
    let everywhere = DatedEvent { key: "20260308-clock-all".into(), location: String::new(), ..event.clone() };
    let text = dates_calendar("Averstane Grounds", &[event, everywhere], made).replace("\r\n ", "");
    assert!(text.contains("\r\nDTSTART;VALUE=DATE:20260901\r\n"), "{text}");
    assert!(text.contains("SUMMARY:Shed: program A\\, percent from 100 % to 60 %\\; 1 more value\r\n"), "{text}");
    assert_eq!(text.matches("LOCATION:").count(), 1);
    assert!(text.contains("UID:20260901-set-1@upland-almanac"));
}
