//! What was seen and done at a controller: the newest record of each kind, the history, the table of judgements.

use chrono::NaiveDate;
use serde_json::{Value, to_value};
use upland_core::controller::{Controller, StartTime};
use upland_core::found::{Panel, PanelClock, SensorSwitch, Switch};
use upland_formats::site::{
    Answer, ChangeDoc, ControllerDoc, DialledDoc, DialledValueDoc, FieldDoc, GroundDoc, MeasuredDoc, MeasurementDoc,
    PanelDoc, PanelNextDoc, RoundDoc,
};
use upland_store::Kind;
use uuid::Uuid;

use super::fixture::{Half, context};
use crate::context::{ChangeEntry, FieldRecord};
use crate::pages::door_card::card_visits;
use crate::pages::field::FieldState;
use crate::pages::log::{JudgedTable, as_csv, days};
use crate::show::Units;

fn day(d: u32) -> NaiveDate {
    NaiveDate::from_ymd_opt(2026, 6, d).unwrap()
}

/// A record of noon, UTC, under the number of its day.
fn record(d: u32, document: FieldDoc) -> FieldRecord {
    FieldRecord {
        id: Uuid::from_u128(u128::from(d)),
        controller_id: Uuid::from_u128(1),
        at: day(d).and_hms_opt(12, 0, 0).unwrap().and_utc(),
        user_name: "Oda".into(),
        document,
    }
}

fn found(d: u32, switch: Switch) -> FieldRecord {
    let panel = Panel {
        seen_at: day(d).and_hms_opt(9, 40, 0).unwrap(),
        clock: PanelClock { date: day(d), weekday: None, time: StartTime::read("09:40").unwrap() },
        switch,
        sensor: SensorSwitch::Active,
        stations: Vec::new(),
        programs: Vec::new(),
        windows: Vec::new(),
        note: "door does not lock".into(),
    };
    record(d, FieldDoc::Found(PanelDoc::from(&panel)))
}

fn dialled(d: u32, not_set: &[&str]) -> FieldRecord {
    record(
        d,
        FieldDoc::Dialled(DialledDoc {
            on: day(d),
            version: 3,
            values: vec![("A.percent".into(), DialledValueDoc::Percent(75))],
            not_set: not_set.iter().map(|key| (*key).to_owned()).collect(),
            panel_next: PanelNextDoc::Words("Wed 04:30".into()),
            our_next: None,
            look_again: day(d + 7),
        }),
    )
}

fn round(d: u32, stations: &[(u8, GroundDoc)], answer: Answer) -> FieldRecord {
    let change = ChangeDoc::Percent { program: 'A', from: 75, to: 65 };
    record(
        d,
        FieldDoc::Round(RoundDoc {
            on: day(d),
            percents: vec![('A', 75)],
            stations: stations.to_vec(),
            change: Some(change).filter(|_| answer != Answer::Nothing),
            answer,
            reason: "a wedding on Saturday".into(),
            look_again: day(d + 10),
            note: String::new(),
        }),
    )
}

fn measured(d: u32) -> FieldRecord {
    let by = MeasurementDoc::Flow { litres_per_minute: 62.0, area_m2: 310.0 };
    let doc = MeasuredDoc { on: day(d), station: 1, by, rate_mm_h: 12.0, uniformity: None, note: "windy".into() };
    record(d, FieldDoc::Measured(doc))
}

fn visits() -> Vec<FieldRecord> {
    vec![
        measured(12),
        round(10, &[(1, GroundDoc::Wet), (2, GroundDoc::Right)], Answer::Rejected),
        dialled(8, &["B.start.1"]),
        found(6, Switch::Off),
        round(4, &[(1, GroundDoc::Dry)], Answer::Accepted),
        round(2, &[(1, GroundDoc::Right), (4, GroundDoc::Right)], Answer::Nothing),
    ]
}

fn change(d: u32, edit: impl Fn(&mut Controller)) -> ChangeEntry {
    let document = |c: &Controller| -> Value { to_value(ControllerDoc::from(c)).unwrap() };
    let mut after = context(Half::North).controller().clone();
    let before = document(&after);
    edit(&mut after);
    ChangeEntry {
        action_id: Uuid::from_u128(50),
        kind: Kind::Controller,
        aggregate_id: Uuid::from_u128(1),
        version: 4,
        at: day(d).and_hms_opt(12, 30, 0).unwrap().and_utc(),
        user_name: "Una".into(),
        why: "why-stations".into(),
        before: Some(before),
        after: Some(document(&after)),
        undoes: None,
    }
}

#[test]
fn the_history() {
    let context = context(Half::North);
    let changes =
        [change(9, |c| c.stations[1].trim_pct = 10.0), ChangeEntry { before: None, after: None, ..change(1, |_| {}) }];
    let told = days(&changes, &visits(), &context, "/controllers/1", Units::Us);
    let judged = JudgedTable::of(&visits(), context.controller());
    let csv = as_csv(&changes, &visits(), &context, Units::Us);
    insta::assert_snapshot!("history", format!("{told:#?}\n{judged:#?}\n{csv}"));
}

#[test]
fn the_newest_of_each_kind_counts_in_whatever_order_records_come() {
    let mut records = visits();
    for _ in 0..records.len() {
        records.rotate_left(1);
        let state = FieldState::of(&records);
        assert_eq!(state.last_change(), Some(day(8)));
        assert_eq!(state.last_visit(), Some(day(12)), "a measurement is a visit too");
        assert_eq!(state.look_again(), Some(day(20)), "the newer of the two says when");
        assert_eq!(state.on_record_since(), Some(day(8)));
    }
    assert_eq!(FieldState::of(&[]).last_visit(), None);
}

#[test]
fn what_was_dialled_since_is_no_longer_as_found() {
    let off = [found(6, Switch::Off)];
    assert_eq!(FieldState::of(&off).found_off(), Some(day(6)));
    let set = [found(6, Switch::Off), dialled(8, &[])];
    assert_eq!(FieldState::of(&set).found_off(), None);
    let again = [found(6, Switch::Off), dialled(8, &[]), found(9, Switch::Off)];
    assert_eq!(FieldState::of(&again).found_off(), Some(day(9)));
    assert_eq!(FieldState::of(&[found(6, Switch::Held)]).found_off(), None, "held is not off");
}

#[test]
fn values_that_could_not_be_set_are_doubted_until_the_panel_is_seen() {
    let context = context(Half::North);
    let doubted = |records: &[FieldRecord]| FieldState::of(records).known(&context, Vec::new()).not_all_set;
    assert!(doubted(&[dialled(8, &["B.start.1"])]));
    assert!(!doubted(&[dialled(8, &[])]));
    assert!(!doubted(&[dialled(8, &["B.start.1"]), found(9, Switch::On)]));
}

#[test]
fn the_card_names_the_last_dialling_and_the_last_round_in_their_order() {
    let context = context(Half::North);
    let on_card: Vec<String> = card_visits(&FieldState::of(&visits()), context.controller())
        .into_iter()
        .map(|visit| format!("{} {}", visit.date, visit.name))
        .collect();
    assert_eq!(on_card, ["8 June Oda", "10 June Oda"]);
    assert!(card_visits(&FieldState::default(), context.controller()).is_empty());
}
