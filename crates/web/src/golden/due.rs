//! What is due at a controller on a day, and what is missing before anything can be due.

use chrono::{Days, NaiveDate, TimeDelta};
use upland_core::controller::{Controller, PercentStorage};
use upland_core::dial_in::slots;
use upland_core::found::Switch;
use upland_core::sensor::Proof;
use upland_formats::site::{DialledDoc, DialledValueDoc, FieldDoc, PanelDoc, PanelNextDoc};
use uuid::Uuid;

use super::each;
use super::fixture::{Half, context, moment, with_controller};
use crate::context::{ControllerContext, FieldRecord, PlaceContext};
use crate::pages::due::due;
use crate::pages::field::FieldState;
use crate::pages::found::{blank, read};
use crate::pages::job_list::{JobKind, Todo};
use crate::pages::today::todos;

/// The controller of the fixture after a change.
fn changed(half: Half, change: impl FnOnce(&mut Controller)) -> ControllerContext {
    let mut context = context(half);
    change(&mut context.controller.value.controller);
    ControllerContext::new(context.controller, context.at)
}

/// A controller at which nothing is due but what a test makes so, and what is wrong with its schedule.
fn quiet(half: Half) -> ControllerContext {
    changed(half, |c| {
        c.temporaries.clear();
        c.sensors[0].proven = Some(Proof { on: half.today(), how: "poured water over it".into() });
    })
}

pub(super) fn record(half: Half, hours: i64, document: FieldDoc) -> FieldRecord {
    FieldRecord {
        id: Uuid::from_u128(9),
        controller_id: Uuid::from_u128(1),
        at: moment(half) + TimeDelta::hours(hours),
        user_name: "Oda".into(),
        document,
    }
}

/// Everything dialled in today as it is planned, but for the first of the values if that is said.
pub(super) fn dialled(context: &ControllerContext, half: Half, all: bool) -> FieldDoc {
    let values = slots(context.controller(), &context.plan(), half.today());
    // The clock, which comes first, is set on every visit.
    let set = values.iter().filter(|slot| !slot.is_clock()).skip(usize::from(!all));
    FieldDoc::Dialled(DialledDoc {
        on: half.today(),
        version: 3,
        values: set.filter_map(|slot| Some((slot.key(), DialledValueDoc::of(&slot.value)?))).collect(),
        not_set: Vec::new(),
        panel_next: PanelNextDoc::NotSeen,
        our_next: None,
        look_again: half.today() + Days::new(14),
    })
}

fn found(context: &ControllerContext, half: Half, switch: Switch) -> FieldDoc {
    let now = half.today().and_hms_opt(9, 40, 0).unwrap();
    let (mut form, _) = blank(context.controller(), now);
    form.set("clock_date", half.today().to_string());
    form.set("clock_time", "09:40");
    let mut panel = read(&mut form, &context.controller().capability, now);
    assert!(form.is_sound(), "{form:?}");
    panel.switch = switch;
    FieldDoc::Found(PanelDoc::from(&panel))
}

fn keys(todos: &[Todo]) -> Vec<&str> {
    todos.iter().map(|todo| todo.key.as_str()).collect()
}

fn due_keys(context: &ControllerContext, state: &FieldState, on: NaiveDate) -> Vec<String> {
    let due = due(context, state, on);
    keys(&due).into_iter().filter(|key| !key.starts_with("week.")).map(str::to_owned).collect()
}

#[test]
fn everything_that_is_due() {
    each("due", |half, _| {
        let context = changed(half, |c| {
            c.programs[0].hand_over();
            c.sensors[0].battery = "CR2032".into();
            c.sensors[0].jumper_removed = false;
        });
        let off = found(&context, half, Switch::Off);
        let state = FieldState::of(&[record(half, -5, dialled(&context, half, true)), record(half, -1, off)]);
        format!("{:#?}", due(&context, &state, half.today() + Days::new(14)))
    });
}

#[test]
fn what_was_never_dialled_is_due_until_all_of_it_stands() {
    for half in [Half::North, Half::South] {
        let context = quiet(half);
        let today = half.today();
        let on = |state: &FieldState| due_keys(&context, state, today);
        assert_eq!(on(&FieldState::default()), ["never-dialled"]);
        let part = record(half, -2, dialled(&context, half, false));
        assert_eq!(on(&FieldState::of([&part])), ["dial"]);
        let all = record(half, -1, dialled(&context, half, true));
        assert_eq!(on(&FieldState::of([&all, &part])), Vec::<String>::new(), "the newer record counts");
    }
}

#[test]
fn a_panel_found_off_is_one_fault_until_something_is_dialled() {
    let half = Half::North;
    let context = quiet(half);
    let off = record(half, -2, found(&context, half, Switch::Off));
    let faults = |records: &[&FieldRecord]| {
        let due = due(&context, &FieldState::of(records.iter().copied()), half.today());
        due.iter().filter(|todo| todo.kind == JobKind::Fault && todo.key.starts_with("found")).count()
    };
    assert_eq!(faults(&[&off]), 1);
    let dialled = record(half, -1, dialled(&context, half, true));
    assert_eq!(faults(&[&off, &dialled]), 0);
    let earlier = FieldRecord { at: off.at - TimeDelta::hours(1), ..dialled };
    assert_eq!(faults(&[&off, &earlier]), 1);
}

#[test]
fn a_second_look_is_due_from_its_day_on() {
    let half = Half::South;
    let context = quiet(half);
    let state = FieldState::of(&[record(half, 0, dialled(&context, half, true))]);
    let look = half.today() + Days::new(14);
    let is_due = |on: NaiveDate| due_keys(&context, &state, on).contains(&"look-again".to_owned());
    assert_eq!([look - Days::new(1), look, look + Days::new(40)].map(is_due), [false, true, true]);
}

#[test]
fn a_week_by_hand_is_a_new_job_each_monday() {
    let half = Half::North;
    let context = changed(half, |c| c.programs[0].hand_over());
    let key = |day: u64| {
        let due = due(&context, &FieldState::default(), half.today() + Days::new(day));
        due.into_iter().find(|todo| todo.kind == JobKind::ByHand).unwrap().key
    };
    // The eleventh of June 2026 is a Thursday.
    assert_eq!(key(0), "by-hand.2026-06-08");
    assert_eq!(key(3), key(0));
    assert_eq!(key(4), "by-hand.2026-06-15");
}

#[test]
fn something_temporary_is_to_be_put_back_from_the_day_after_its_last() {
    let context = context(Half::North);
    let until = context.controller().temporaries[0].until;
    let is_due = |on| due_keys(&context, &FieldState::default(), on).contains(&"ended.1".to_owned());
    let first = context.controller().temporaries[0].id;
    assert_eq!(first, 1);
    assert!(!is_due(until) && is_due(until + Days::new(1)));
}

#[test]
fn one_percent_for_the_whole_year_is_turned_in_the_first_week_of_a_month() {
    for half in [Half::North, Half::South] {
        let context = changed(half, |c| c.capability.percent_storage = PercentStorage::Single);
        let turned = |day: u32| {
            let month = NaiveDate::from_ymd_opt(2026, if half == Half::North { 5 } else { 11 }, day).unwrap();
            todos(&context, month).iter().any(|todo| todo.kind == JobKind::Dial)
        };
        assert_eq!([1, 7, 8, 30].map(turned), [true, true, false, false], "{half:?}");
        // What changes its percent by itself is left alone.
        let own = changed(half, |_| {});
        assert!(todos(&own, half.today()).iter().all(|todo| todo.kind != JobKind::Dial));
    }
}

#[test]
fn what_is_missing_is_said_one_thing_at_a_time() {
    let full = context(Half::North);
    let today = Half::North.today();
    let missing = |context: &ControllerContext| keys(&todos(context, today)).join(" ");
    let empty = Controller::new("New".into(), full.controller().capability);
    let nowhere = PlaceContext::new(full.at.place.clone(), None);
    assert_eq!(missing(&with_controller(empty.clone(), full.at.clone())), "todo-stations");
    assert_eq!(missing(&with_controller(full.controller().clone(), nowhere)), "todo-weather");
    let mut unscheduled = full.controller().clone();
    unscheduled.programs.iter_mut().for_each(|p| p.schedule.starts.clear());
    assert_eq!(missing(&with_controller(unscheduled, full.at.clone())), "todo-schedule");
    assert!(!missing(&full).contains("todo-schedule"));
}
