//! The first steps of a new company: from nothing to a card that can be dialled in.

use upland_core::controller::Controller;

use crate::context::{ControllerContext, PlaceContext};
use crate::words::Words;

/// A step, in the order of the work.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct FirstStep {
    pub(crate) number: usize,
    /// `done` or `todo`: the mark's name.
    pub(crate) mark: &'static str,
    pub(crate) label: String,
    pub(crate) what: String,
    /// Where it is done, for the one that is next; empty for the others.
    pub(crate) href: String,
    pub(crate) act: String,
}

/// Whether a controller has days and starts for any program with stations.
fn is_scheduled(controller: &Controller) -> bool {
    controller.programs.iter().any(|p| p.is_scheduled() && controller.stations.iter().any(|s| s.runs_in(p.letter)))
}

/// The steps to the first card; none once there is a schedule. A company with more controllers needs no leading.
pub(crate) fn first_steps(place: Option<&PlaceContext>, controller: Option<&ControllerContext>) -> Vec<FirstStep> {
    let w = Words;
    let has = |test: fn(&ControllerContext) -> bool| controller.is_some_and(test);
    let done = [
        place.is_some(),
        controller.is_some(),
        has(|c| !c.controller().stations.is_empty()),
        place.is_some_and(|p| p.weather.is_some()),
        has(|c| is_scheduled(c.controller())),
    ];
    let Some(next) = done.iter().position(|done| !done) else { return Vec::new() };
    let of_place = |rest: &str| place.map_or_else(String::new, |p| format!("/places/{}{rest}", p.place.id));
    let of_controller =
        |rest: &str| controller.map_or_else(String::new, |c| format!("/controllers/{}{rest}", c.controller.id));
    let steps = [
        ("first-place", "first-place-what", "/places/new".to_owned(), "place-new"),
        ("first-controller", "first-controller-what", of_place("/controllers/new"), "first-controller-act"),
        ("first-stations", "first-stations-what", of_controller("/stations"), "todo-stations-act"),
        ("first-weather", "first-weather-what", of_place("/weather"), "todo-weather-act"),
        ("first-schedule", "first-schedule-what", of_controller("/week"), "week-propose-keep"),
    ];
    let step = |(index, (label, what, href, act)): (usize, (&str, &str, String, &str))| FirstStep {
        number: index + 1,
        mark: if done[index] { "done" } else { "todo" },
        label: w.t(label),
        what: w.t(what),
        href: if index == next { href } else { String::new() },
        act: w.t(act),
    };
    steps.into_iter().enumerate().map(step).collect()
}
