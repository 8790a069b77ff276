//! The card for a week of runs that a person starts.

use upland_core::quantity::RunTime;

use super::each;
use super::fixture::{Half, context};
use crate::pages::by_hand::HandCard;
use crate::show::Units;

/// What the three stations used in the last week, mm.
const USED: [(u8, f64); 3] = [(1, 22.0), (2, 19.5), (4, 0.2)];

#[test]
fn the_week_by_hand() {
    each("by_hand", |half, units| {
        let context = context(half);
        let by_balance = HandCard::of(&context, &USED, half.today(), units);
        format!("{by_balance:#?}\n{:#?}", HandCard::of(&context, &[], half.today(), units))
    });
}

#[test]
fn the_total_is_that_of_the_rows_and_what_hardly_wets_is_left_out() {
    let card = HandCard::of(&context(Half::North), &USED, Half::North.today(), Units::Metric);
    let sum: f64 = card.rows.iter().map(|row| row.minutes.parse::<f64>().unwrap()).sum();
    assert_eq!(card.total.parse::<f64>().unwrap(), sum);
    let idle: Vec<u8> = card.rows.iter().filter(|row| row.is_idle).map(|row| row.number).collect();
    assert_eq!(idle, [4], "{:#?}", card.rows);
}

#[test]
fn the_same_depth_is_the_same_minutes_in_either_system() {
    let minutes = |units| -> Vec<String> {
        HandCard::of(&context(Half::South), &USED, Half::South.today(), units)
            .rows
            .into_iter()
            .map(|row| row.minutes + &row.cycles)
            .collect()
    };
    assert_eq!(minutes(Units::Metric), minutes(Units::Us));
}

#[test]
fn only_the_programs_of_a_person_stand_on_it_where_there_are_any() {
    let mut context = context(Half::North);
    let c = &mut context.controller.value.controller;
    c.programs[1].by_hand = true;
    c.programs[1].schedule.starts.clear();
    c.stations[2].minutes = Some(RunTime::from_seconds(600));
    let card = HandCard::of(&context, &USED, Half::North.today(), Units::Metric);
    assert_eq!(card.rows.iter().map(|row| row.number).collect::<Vec<_>>(), [4]);
}

#[test]
fn days_that_are_over_or_closed_are_not_offered() {
    let half = Half::North;
    let context = context(half);
    // 11 June 2026 is a Thursday, and nobody waters on a Sunday there.
    let card = HandCard::of(&context, &USED, half.today(), Units::Metric);
    for (day, offered) in [("Wednesday", false), ("Thursday", true), ("Saturday", true), ("Sunday", false)] {
        assert_eq!(card.on_days.contains(day), offered, "{}", card.on_days);
    }
}
