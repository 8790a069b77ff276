//! A season of a whole place: its controllers together under each strategy.

use upland_core::controller::Controller;

use super::each;
use super::fixture::{Half, context, days, with_controller};
use crate::context::ControllerContext;
use crate::form::Form;
use crate::pages::replay::PlaceReplay;
use crate::show::Units;

fn view(members: &[ControllerContext], half: Half, units: Units) -> Option<PlaceReplay> {
    let members: Vec<_> = members.iter().map(|context| (context.clone(), None)).collect();
    PlaceReplay::of(&members, &days(half), Form::default(), "/places/2/replay".into(), units)
}

#[test]
fn two_controllers_of_a_place() {
    each("place_replay", |half, units| {
        let both = [context(half), context(half)];
        let view = view(&both, half, units).unwrap();
        format!(
            "{}: {} {}\n{:#?}\n{:#?}\n{:#?}\n{}\n{}",
            view.title, view.figure, view.figure_unit, view.rows, view.controllers, view.years, view.best, view.foot
        )
    });
}

/// Depths are means over the area, so that the same controller twice is as deep, and twice as much water.
#[test]
fn the_same_controller_twice_is_as_deep() {
    let half = Half::South;
    let one = view(&[context(half)], half, Units::Metric).unwrap();
    let two = view(&[context(half), context(half)], half, Units::Metric).unwrap();
    let depths = |view: &PlaceReplay| view.rows.iter().map(|row| row.applied.clone()).collect::<Vec<_>>();
    assert_eq!(depths(&one), depths(&two));
    assert_eq!((one.controllers.len(), two.controllers.len()), (1, 2));
    assert_eq!(two.controllers[0].row.name, two.controllers[1].row.name);
}

#[test]
fn a_controller_without_stations_is_left_out_and_alone_it_is_nothing() {
    let half = Half::North;
    let full = context(half);
    let empty = Controller::new("Empty".into(), full.controller().capability);
    let empty = with_controller(empty, full.at.clone());
    assert!(view(std::slice::from_ref(&empty), half, Units::Us).is_none());
    assert!(view(&[], half, Units::Us).is_none());
    assert_eq!(view(&[empty, full], half, Units::Us).unwrap().controllers.len(), 1);
}
