//! Day modes over ten years in several time zones, clock changes included, against the `rrule`
//! crate (RFC 5545 recurrence rules), which knows nothing of this one.

use chrono::{DateTime, Datelike, NaiveDate, TimeDelta, TimeZone, Utc};
use rrule::{RRuleSet, Tz as RuleZone};
use upland_core::controller::{DayMode, Days, Schedule};
use upland_core::schedule::{Level, Plan, expand, resolve};

use crate::builders::{controller, day, station, time};
use upland_core::controller::ProgramLetter;

/// Starts of a mode by our expansion.
fn ours(zone: chrono_tz::Tz, days: DayMode, at: &str, [from, to]: [NaiveDate; 2]) -> Vec<DateTime<Utc>> {
    let mut c = controller(vec![station(1, ProgramLetter::A, 10)]);
    c.programs[0].schedule = Schedule { days, starts: vec![time(at)], ..Schedule::default() };
    let found = expand(&c, &Plan::of(&c, None), &zone, [from, to], Level::Calendar);
    assert_eq!(found.runs.len(), found.starts.len());
    found.runs.iter().map(|r| r.start()).collect()
}

/// The dates of a rule by the library, at midday so that no clock change touches them.
fn theirs(rule: &str, [from, to]: [NaiveDate; 2]) -> Vec<NaiveDate> {
    let start = from.format("%Y%m%dT120000Z");
    let until = to.format("%Y%m%dT235959Z");
    let set: RRuleSet = format!("DTSTART:{start}\nRRULE:{rule};UNTIL={until}").parse().unwrap();
    set.all(10_000).dates.iter().map(|d| d.date_naive()).collect()
}

const ZONES: [chrono_tz::Tz; 5] = [
    chrono_tz::Europe::Madrid,
    chrono_tz::America::Los_Angeles,
    chrono_tz::Australia::Lord_Howe,
    chrono_tz::America::Santiago,
    chrono_tz::Asia::Kolkata,
];

const YEARS: fn() -> [NaiveDate; 2] = || [day(2020, 1, 1), day(2029, 12, 31)];

#[test]
fn every_mode_falls_on_the_days_of_the_library() {
    let odd = (1..=31).step_by(2).map(|d| d.to_string()).collect::<Vec<_>>().join(",");
    let even = (2..=30).step_by(2).map(|d| d.to_string()).collect::<Vec<_>>().join(",");
    let span = YEARS();
    let modes = [
        (DayMode::Weekdays(Days::from_bits(0b1_0101)), "FREQ=WEEKLY;BYDAY=MO,WE,FR".to_owned()),
        (DayMode::Odd, format!("FREQ=MONTHLY;BYMONTHDAY={odd}")),
        (DayMode::Even, format!("FREQ=MONTHLY;BYMONTHDAY={even}")),
        (DayMode::Every { days: 2, next: span[0] }, "FREQ=DAILY;INTERVAL=2".to_owned()),
        (DayMode::Every { days: 9, next: span[0] }, "FREQ=DAILY;INTERVAL=9".to_owned()),
    ];
    for (mode, rule) in modes {
        let wanted: Vec<NaiveDate> = theirs(&rule, span).into_iter().filter(|d| mode.waters_on(*d)).collect::<Vec<_>>();
        let all = theirs(&rule, span);
        assert_eq!(wanted, all, "{rule}: a day of the library that is not ours");
        for zone in ZONES {
            let local: Vec<NaiveDate> =
                ours(zone, mode, "03:30", span).iter().map(|at| at.with_timezone(&zone).date_naive()).collect();
            assert_eq!(local, all, "{rule} in {zone}");
        }
    }
}

/// The library's own local times, where the clocks show each of them once.
#[test]
fn starts_stand_where_the_library_puts_them_away_from_clock_changes() {
    for zone in ZONES {
        let rule_zone: RuleZone = zone.into();
        let from = day(2024, 1, 1);
        let start = rule_zone.from_local_datetime(&from.and_hms_opt(21, 45, 0).unwrap()).unwrap();
        let local = from.format("%Y%m%dT214500");
        let rule = format!("DTSTART;TZID={}:{local}\nRRULE:FREQ=DAILY;INTERVAL=3;COUNT=700", zone.name());
        let set: RRuleSet = rule.parse().unwrap();
        let theirs: Vec<DateTime<Utc>> = set.all(1000).dates.iter().map(|d| d.with_timezone(&Utc)).collect();
        assert_eq!(theirs[0], start.with_timezone(&Utc));
        let to = from + TimeDelta::days(3 * 699);
        assert_eq!(ours(zone, DayMode::Every { days: 3, next: from }, "21:45", [from, to]), theirs, "{zone}");
    }
}

/// Madrid: 29 March 2026 the clocks go from 02:00 to 03:00, 25 October from 03:00 back to 02:00.
#[test]
fn the_missing_hour_runs_once_at_its_end_and_the_repeated_one_once_at_its_first_pass() {
    let zone = chrono_tz::Europe::Madrid;
    let at = |d: NaiveDate| ours(zone, DayMode::Weekdays(Days::ALL), "02:30", [d, d]);
    let spring = at(day(2026, 3, 29));
    assert_eq!(spring.len(), 1);
    assert_eq!(spring[0].to_rfc3339(), "2026-03-29T01:00:00+00:00");
    let autumn = at(day(2026, 10, 25));
    assert_eq!(autumn.len(), 1);
    assert_eq!(autumn[0].to_rfc3339(), "2026-10-25T00:30:00+00:00");
    // Lord Howe moves by half an hour: on 4 October 2026 02:00 becomes 02:30.
    let half = resolve(&chrono_tz::Australia::Lord_Howe, day(2026, 10, 4).and_hms_opt(2, 10, 0).unwrap());
    assert_eq!(half.with_timezone(&chrono_tz::Australia::Lord_Howe).format("%H:%M").to_string(), "02:30");
    // Samoa skipped all of 30 December 2011.
    let apia = chrono_tz::Pacific::Apia;
    let skipped = resolve(&apia, day(2011, 12, 30).and_hms_opt(4, 0, 0).unwrap());
    assert_eq!(skipped.with_timezone(&apia).date_naive().day(), 31);
}
