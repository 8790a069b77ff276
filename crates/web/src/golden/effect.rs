//! What a change would have done: the figures are those of the balance, and their order is that of the water.

use upland_core::controller::ProgramLetter;
use upland_core::quantity::Percent;
use upland_core::tuning::Change;

use super::fixture::{Half, context, weather};
use crate::pages::effect::effect;

fn percent(from: u16, to: u16) -> Change {
    let of = |p| Percent::new(p).unwrap();
    Change::Percent { letter: ProgramLetter::A, from: of(from), to: of(to) }
}

/// Demand met before and after, percent.
fn met(half: Half, change: Change) -> [f64; 2] {
    let words = effect(&context(half), &weather(half), change, half.today());
    let tokens: Vec<&str> = words.split_whitespace().collect();
    let before_percent = tokens.windows(2).filter(|pair| pair[1].starts_with('%'));
    let figures: Vec<f64> = before_percent.map(|pair| pair[0].parse().unwrap()).collect();
    let [after, before] = figures[..] else { panic!("{words}") };
    [before, after]
}

#[test]
fn more_water_meets_no_less_of_the_demand_and_the_way_back_is_the_same_way() {
    for half in [Half::North, Half::South] {
        let [before, after] = met(half, percent(20, 100));
        assert!(before <= after && after <= 100.0, "{before} {after}");
        assert_eq!(met(half, percent(100, 20)), [after, before]);
        assert_eq!(met(half, percent(60, 60))[0], met(half, percent(60, 60))[1]);
    }
}

#[test]
fn weather_that_ended_long_ago_says_nothing() {
    let half = Half::North;
    let later = half.today() + chrono::TimeDelta::days(60);
    assert_eq!(effect(&context(half), &weather(half), percent(20, 100), later), "");
    assert_eq!(effect(&context(half), &[], percent(20, 100), half.today()), "");
}
