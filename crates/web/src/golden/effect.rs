//! What a change would have done: the figures are those of the balance, and their order is that of the water.

use upland_core::controller::ProgramLetter;
use upland_core::quantity::{Percent, RunTime};
use upland_core::tuning::Change;

use super::fixture::{Half, context, days};
use crate::pages::effect::{Met, effect, met};

fn percent(from: u16, to: u16) -> Change {
    let of = |p| Percent::new(p).unwrap();
    Change::Percent { letter: ProgramLetter::A, from: of(from), to: of(to) }
}

/// Demand met before and after, percent.
fn before_after(half: Half, change: Change) -> [f64; 2] {
    let Met { before, after, .. } = met(&context(half), &days(half), change, half.today()).unwrap();
    [before, after]
}

#[test]
fn more_water_meets_no_less_of_the_demand_and_the_way_back_is_the_same_way() {
    let half = Half::North;
    let [before, after] = before_after(half, percent(20, 100));
    assert!(before <= after && after <= 100.0, "{before} {after}");
    assert_eq!(before_after(half, percent(100, 20)), [after, before]);
    let words = effect(&context(half), &days(half), percent(60, 60), half.today());
    assert!(words.contains("no difference"), "{words}");
}

#[test]
fn a_station_without_minutes_goes_thirsty() {
    let run = |minutes| RunTime::from_minutes(minutes).unwrap();
    let none = Change::Minutes { station: 1, from: run(40.0), to: run(0.0) };
    let [before, after] = before_after(Half::North, none);
    assert!(after < before, "{before} {after}");
    let words = effect(&context(Half::North), &days(Half::North), none, Half::North.today());
    assert!(words.starts_with("In the weather of"), "{words}");
}

#[test]
fn weather_that_ended_long_ago_says_nothing() {
    let half = Half::North;
    let later = half.today() + chrono::TimeDelta::days(60);
    assert_eq!(effect(&context(half), &days(half), percent(20, 100), later), "");
    assert_eq!(effect(&context(half), &[], percent(20, 100), half.today()), "");
}
