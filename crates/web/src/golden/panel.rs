//! A panel as it is found: while it is written down, and against the plan.

use chrono::NaiveDateTime;
use uuid::Uuid;

use super::each;
use super::fixture::{Half, context};
use crate::form::Form;
use crate::pages::found::{Against, PanelLive, TAKE, blank, differing, read, taken};
use crate::show::Units;

fn now(half: Half) -> NaiveDateTime {
    half.today().and_hms_opt(9, 40, 0).unwrap()
}

/// A panel whose clock is a day off, with a fourth start nobody planned and the sensor bypassed.
fn typed(half: Half) -> Form {
    let context = context(half);
    let (mut form, _) = blank(context.controller(), now(half));
    let yesterday = half.today().pred_opt().unwrap().to_string();
    for (field, value) in [
        ("clock_date", yesterday.as_str()),
        ("clock_time", "09:38"),
        ("sensor", "bypassed"),
        ("m1", "38"),
        ("m2", "20"),
        ("m4", "12"),
        ("onA0", "1"),
        ("onA2", "1"),
        ("onA4", "1"),
        ("startA0", "04:30"),
        ("startA1", "12:00"),
        ("pctA", "100"),
        ("onB5", "1"),
        ("startB0", "08:15"),
        ("pctB", "60"),
        ("note", "door does not lock"),
    ] {
        form.set(field, value);
    }
    form
}

#[test]
fn a_panel_while_it_is_written_down_and_against_the_plan() {
    each("panel", |half, units| {
        let context = context(half);
        let mut form = typed(half);
        let panel = read(&mut form, &context.controller().capability, now(half));
        assert!(form.is_sound(), "{form:?}");
        let live = PanelLive::of(&context, &panel, &form, units);
        let against = Against::of(&context, (Uuid::from_u128(9), &panel), &Form::default());
        format!("{live:#?}\n{against:#?}")
    });
}

#[test]
fn nothing_is_said_of_a_clock_that_is_not_written_down_yet() {
    let half = Half::North;
    let context = context(half);
    let (form, panel) = blank(context.controller(), now(half));
    let live = PanelLive::of(&context, &panel, &form, Units::Metric);
    assert_eq!(live.clock, "");
    let clocked = {
        let mut form = typed(half);
        let panel = read(&mut form, &context.controller().capability, now(half));
        PanelLive::of(&context, &panel, &form, Units::Metric)
    };
    assert!(clocked.findings.len() > live.findings.len());
    assert_ne!(clocked.clock, "");
}

#[test]
fn only_what_differs_and_can_be_taken_is_taken() {
    let half = Half::North;
    let context = context(half);
    let panel = read(&mut typed(half), &context.controller().capability, now(half));
    let differ = differing(&context, &panel);
    let adoptable = differ.iter().filter(|d| d.can_adopt).count();
    assert!(adoptable > 0);
    let ticked = |key: &str| {
        let mut form = Form::default();
        form.set(TAKE, key);
        taken(&form, &differ)
    };
    let first = differ.iter().find(|d| d.can_adopt).unwrap().part;
    assert_eq!(ticked(&first.key()), [first]);
    assert_eq!(ticked("minutes-30"), []);
    assert_eq!(taken(&Form::default(), &differ), []);
}

#[test]
fn what_no_panel_shows_is_refused_at_its_field() {
    let half = Half::North;
    let capability = context(half).controller().capability;
    let error = |field: &str, value: &str, at: &str| {
        let mut form = typed(half);
        form.set(field, value);
        read(&mut form, &capability, now(half));
        assert!(!form.error(at).is_empty(), "{field} = {value}: {form:?}");
    };
    error("clock_time", "25:00", "clock_time");
    error("clock_date", "11 June", "clock_date");
    error("seen", "2031-01-01 00:00", "seen");
    error("m1", "999", "m1");
    error("m1", "a while", "m1");
    error("m77", "10", "stations");
    error("startA1", "04:30", "startA1");
    error("pctA", "12 %", "pctA");
    error("pctA_7", "much", "pctA_7");
    error("modeA", "every", "everyA");
    error("modeA", "numbers", "clock_number");
}
