//! Lists across places: places with their controllers, jobs by place, and the line that undoes.

use chrono::{NaiveDate, TimeDelta, TimeZone, Utc};
use upland_store::{ActionLine, Snooze};
use uuid::Uuid;

use super::each;
use super::fixture::{Half, context, shell_input};
use crate::context::ControllerHead;
use crate::pages::job_list::{Job, JobKind, Todo, by_place};
use crate::pages::places::place_rows;
use crate::pages::shell::{Shell, ShellInput};
use crate::pages::today::kind_links;
use crate::show::Units;

fn head(id: u128, name: &str, place: u128) -> ControllerHead {
    ControllerHead {
        id: Uuid::from_u128(id),
        name: name.into(),
        version: 3,
        stations: 8,
        place_id: Uuid::from_u128(place),
        place: format!("Place {place}"),
        place_version: 1,
        position_deg: [47.5, 12.2],
        time_zone: "Europe/Vienna".into(),
        revision_id: None,
        further_revisions: Vec::new(),
        recorded_at: None,
        last_visit: None,
        look_again: None,
    }
}

fn todo(kind: JobKind, key: &str) -> Todo {
    Todo {
        kind,
        key: key.into(),
        mark: "todo",
        title: format!("do {key}"),
        reason: String::new(),
        href: "/".into(),
        act: "Do it".into(),
    }
}

#[test]
fn places_with_their_controllers() {
    each("places", |half, units| {
        let context = context(half);
        let weather = context.at.weather.as_ref().unwrap();
        let series = [(weather.series.id, weather.series.value.clone())];
        let mut bare = context.at.place.clone();
        bare.id = Uuid::from_u128(77);
        bare.value.series_id = None;
        let heads = [head(1, "Boiler-room cabinet", 2), head(5, "Wall", 99)];
        format!("{:#?}", place_rows(&[context.at.place.clone(), bare], &heads, &series, units))
    });
}

#[test]
fn jobs_of_a_place_stand_together_in_their_order() {
    let (one, two) = (head(1, "Gate", 10), head(2, "Wall", 11));
    let todos = [todo(JobKind::Dial, "dial"), todo(JobKind::Fault, "fault"), todo(JobKind::Clock, "")];
    let today = Half::North.today();
    let jobs = [
        Job::of(&one, &todos[0], &[], today),
        Job::of(&one, &todos[1], &[], today),
        Job::of(&two, &todos[0], &[], today),
        Job { head: None, todo: &todos[2], snooze: None },
    ];
    let groups = by_place(&jobs);
    let told: Vec<(String, usize, u32)> = groups.iter().map(|g| (g.place.clone(), g.jobs.len(), g.minutes)).collect();
    let minutes = |kind: JobKind| kind.minutes();
    assert_eq!(told[0], ("Place 10".into(), 2, minutes(JobKind::Dial) + minutes(JobKind::Fault)));
    assert_eq!((told[1].0.as_str(), told[1].1), ("Place 11", 1));
    assert_eq!((told.len(), told[2].1), (3, 1));
    // What is due everywhere cannot be put off at one controller.
    assert_eq!((groups[2].jobs[0].later.as_str(), groups[2].position_deg), ("", None));
    assert!(groups[0].jobs[0].later.contains("job=dial"), "{}", groups[0].jobs[0].later);
}

#[test]
fn a_job_that_was_put_off_is_there_again_on_its_day() {
    let head = head(1, "Gate", 10);
    let todo = todo(JobKind::Dial, "dial");
    let until = Half::North.today();
    let snooze = |job: &str, controller: Uuid| Snooze {
        controller_id: controller,
        job: job.into(),
        until,
        reason: "the key is lost".into(),
        user_id: Uuid::nil(),
        user_name: "Oda".into(),
        at: Utc.with_ymd_and_hms(2026, 6, 4, 8, 0, 0).unwrap(),
    };
    let put_off = |snoozes: &[Snooze], today: NaiveDate| Job::of(&head, &todo, snoozes, today).snooze.is_some();
    let own = [snooze("dial", head.id)];
    assert!(put_off(&own, until - TimeDelta::days(1)));
    assert!(!put_off(&own, until), "it is there again");
    assert!(!put_off(&[snooze("fault", head.id), snooze("dial", Uuid::nil())], until - TimeDelta::days(1)));
}

#[test]
fn kinds_are_offered_where_there_is_a_choice() {
    let (dial, fault) = (todo(JobKind::Dial, "a"), todo(JobKind::Fault, "b"));
    assert!(kind_links(&[&dial, &dial], None, "").is_empty(), "one kind is no choice");
    let links = kind_links(&[&dial, &fault, &dial], Some(JobKind::Dial), "hill & dale");
    assert_eq!(links.iter().map(|l| l.count).collect::<Vec<_>>(), [3, 1, 2]);
    assert_eq!(links.iter().filter(|l| l.current).count(), 1);
    assert!(links.iter().all(|l| l.href.contains("q=hill+%26+dale")), "what was searched stays: {links:#?}");
}

#[test]
fn every_kind_of_job_is_known_by_its_word() {
    for kind in JobKind::ALL {
        assert_eq!(JobKind::of_word(kind.word()), Some(kind));
    }
    assert_eq!(JobKind::of_word("holiday"), None);
}

#[test]
fn the_line_that_undoes_says_how_long_ago() {
    let saved = Utc.with_ymd_and_hms(2026, 6, 11, 8, 0, 0).unwrap();
    let last = ActionLine { id: Uuid::from_u128(1), at: saved, why: "why-stations".into() };
    let after = |minutes: i64| {
        let now = (saved + TimeDelta::minutes(minutes)).naive_utc();
        let shell = Shell::of(ShellInput { last_action: Some(&last), now, ..shell_input(Units::Metric) });
        shell.undo.unwrap().saved
    };
    // A clock that was set back is no reason to count backwards.
    assert_eq!(after(-30), after(0));
    let told = [0, 1, 59, 60, 1439, 1440].map(after);
    insta::assert_snapshot!("saved", told.join("\n"));
}
