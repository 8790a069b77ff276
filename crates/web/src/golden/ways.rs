//! The ways to water a program, side by side.

use upland_core::controller::ProgramLetter;

use super::each;
use super::fixture::{Half, context, days};
use crate::context::ControllerContext;
use crate::pages::ways::{WaysInput, WaysView};
use crate::show::Units;

fn view(context: &ControllerContext, half: Half, letter: Option<ProgramLetter>, units: Units) -> Option<WaysView> {
    let days = days(half);
    let mut view = WaysView::of(&WaysInput { context, days: &days, letter, today: half.today(), units })?;
    // Made anew for every page.
    view.action.clear();
    Some(view)
}

#[test]
fn the_ways_to_water() {
    each("ways", |half, units| format!("{:#?}", view(&context(half), half, None, units).unwrap()));
}

#[test]
fn one_program_is_shown_and_one_way_is_the_present_one() {
    let (half, context) = (Half::North, context(Half::North));
    for letter in [None, Some(ProgramLetter::ALL[1]), Some(ProgramLetter::ALL[3])] {
        let view = view(&context, half, letter, Units::Metric).unwrap();
        assert_eq!(view.programs.iter().filter(|(.., shown)| *shown).count(), 1);
        assert_eq!(view.rows.iter().filter(|row| row.is_now).count(), 1, "{:#?}", view.rows);
        // A letter without stations stands for the first that has some.
        let expected = letter.filter(|l| *l == ProgramLetter::ALL[1]).unwrap_or(ProgramLetter::A);
        assert_eq!(view.letter, expected.get());
    }
}

#[test]
fn a_program_of_a_person_is_not_handed_over_again() {
    let half = Half::North;
    let mut context = context(half);
    let offers = |c: &ControllerContext| {
        view(c, half, None, Units::Metric).unwrap().rows.iter().filter(|row| row.hands_over).count()
    };
    assert_eq!(offers(&context), 1);
    let program = &mut context.controller.value.controller.programs[0];
    program.by_hand = true;
    program.schedule.starts.clear();
    assert_eq!(offers(&context), 0);
}

#[test]
fn nothing_is_shown_without_stations() {
    let mut context = context(Half::North);
    let c = &mut context.controller.value.controller;
    c.stations.clear();
    c.normalise_programs();
    let context = ControllerContext::new(context.controller, context.at);
    assert!(view(&context, Half::North, None, Units::Us).is_none());
}
