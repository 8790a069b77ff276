//! What two people changed at once: every value by the name that people use, with its unit.

use serde_json::{Value, json, to_value};
use upland_core::quantity::{Percent, RunTime};
use upland_formats::site::ControllerDoc;

use super::each;
use super::fixture::{Half, context};
use crate::pages::differences::differences;
use crate::show::Units;

fn document(change: impl Fn(&mut upland_core::controller::Controller)) -> Value {
    let mut controller = context(Half::North).controller().clone();
    change(&mut controller);
    to_value(ControllerDoc::from(&controller)).unwrap()
}

#[test]
fn the_two_sides_of_a_controller() {
    each("conflict", |_, units| {
        let theirs = document(|c| {
            c.name = "Boiler room".into();
            c.stations[0].area_m2 = Some(305.0);
            c.stations[1].cycle = None;
            c.programs[0].schedule.starts.pop();
            c.temporaries.clear();
        });
        let mine = document(|c| {
            c.stations[0].minutes = Some(RunTime::from_seconds(1500));
            c.stations[1].trim_pct = 15.0;
            c.stations.remove(2);
            c.capability.percent_max = Percent::new(150).unwrap();
            c.sensors[0].place = "Pump house".into();
        });
        let told = differences(&theirs, &mine, units);
        told.iter().map(|d| format!("{}: {} | {}", d.what, d.theirs, d.mine)).collect::<Vec<_>>().join("\n")
    });
}

#[test]
fn the_same_document_has_no_two_sides() {
    assert_eq!(differences(&document(|_| {}), &document(|_| {}), Units::Metric), []);
}

#[test]
fn a_removed_station_does_not_shift_those_after_it() {
    let told = differences(&document(|_| {}), &document(|c| drop(c.stations.remove(0))), Units::Metric);
    assert!(!told.is_empty());
    // Every value that is gone is one of station 1, or follows from it; station 2 and 4 stay what they are.
    assert!(told.iter().all(|d| !d.what.contains("2 ") && !d.what.contains("4 ")), "{told:#?}");
}

#[test]
fn swapping_the_sides_swaps_the_columns() {
    let (a, b) = (document(|_| {}), document(|c| c.stations[0].name = "Lawn".into()));
    let there = differences(&a, &b, Units::Metric);
    let back = differences(&b, &a, Units::Metric);
    assert_eq!(there.len(), 1);
    assert_eq!((&there[0].theirs, &there[0].mine), (&back[0].mine, &back[0].theirs));
}

#[test]
fn a_member_that_nobody_knows_is_still_shown() {
    let told = differences(&json!({"unheard_of": 1}), &json!({"unheard_of": 2}), Units::Metric);
    assert_eq!(told.len(), 1);
    assert_eq!((told[0].theirs.as_str(), told[0].mine.as_str()), ("1", "2"));
}
