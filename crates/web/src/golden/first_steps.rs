//! The first steps of a new company, from nothing to a schedule.

use upland_core::controller::Controller;

use super::fixture::{Half, context, with_controller};
use crate::context::{ControllerContext, PlaceContext};
use crate::pages::first_steps::first_steps;

/// Which step is next, and how many are done.
fn at(place: Option<&PlaceContext>, controller: Option<&ControllerContext>) -> (usize, Option<String>) {
    let steps = first_steps(place, controller);
    let done = steps.iter().filter(|s| s.mark == "done").count();
    assert!(steps.iter().filter(|s| !s.href.is_empty()).count() <= 1, "one action at a time");
    (done, steps.into_iter().find(|s| !s.href.is_empty()).map(|s| s.href))
}

#[test]
fn one_step_after_the_other_until_there_is_a_schedule() {
    let full = context(Half::North);
    assert_eq!(first_steps(Some(&full.at), Some(&full)), []);
    assert_eq!(at(None, None), (0, Some("/places/new".into())));
    let place = PlaceContext { weather: None, ..full.at.clone() };
    let of_place = |rest: &str| Some(format!("/places/{}{rest}", full.at.place.id));
    assert_eq!(at(Some(&place), None), (1, of_place("/controllers/new")));
    let mut controller = Controller::new("New".into(), full.controller().capability);
    let empty = with_controller(controller.clone(), place.clone());
    assert_eq!(at(Some(&place), Some(&empty)), (2, Some(format!("/controllers/{}/stations", full.controller.id))));
    controller.stations = full.controller().stations.clone();
    controller.normalise_programs();
    let empty = with_controller(controller, full.at.clone());
    assert_eq!(at(Some(&place), Some(&empty)), (3, of_place("/weather")));
    assert_eq!(at(Some(&full.at), Some(&empty)), (4, Some(format!("/controllers/{}/week", full.controller.id))));
}
