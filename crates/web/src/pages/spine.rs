//! The steps of a controller in the order of the work, and the next sensible one.

use chrono::NaiveDate;
use upland_core::controller::{Program, TemporaryKind};
use upland_core::schedule::{Severity, detect};
use uuid::Uuid;

use crate::context::{ControllerContext, Missing};
use crate::words::Words;

/// A step of the spine.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Step {
    Place,
    Controller,
    Stations,
    Weather,
    Sensors,
    Year,
    Week,
    DoorCard,
}

#[derive(Debug, Clone)]
pub(crate) struct StepLink {
    pub(crate) href: String,
    pub(crate) label: String,
    pub(crate) state: &'static str,
    pub(crate) state_word: String,
    pub(crate) current: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct NextStep {
    pub(crate) href: String,
    pub(crate) label: String,
    pub(crate) reason: String,
}

#[derive(Debug, Clone)]
pub(crate) struct Spine {
    pub(crate) place: String,
    pub(crate) place_href: String,
    pub(crate) controller: String,
    pub(crate) steps: Vec<StepLink>,
    pub(crate) next: Option<NextStep>,
}

impl Step {
    const ALL: [Self; 8] = [
        Self::Place,
        Self::Controller,
        Self::Stations,
        Self::Weather,
        Self::Sensors,
        Self::Year,
        Self::Week,
        Self::DoorCard,
    ];

    fn href(self, place: Uuid, controller: Uuid) -> String {
        match self {
            Self::Place => format!("/places/{place}"),
            Self::Weather => format!("/places/{place}/weather"),
            Self::Controller => format!("/controllers/{controller}"),
            Self::Stations => format!("/controllers/{controller}/stations"),
            Self::Sensors => format!("/controllers/{controller}/sensors"),
            Self::Year => format!("/controllers/{controller}/year"),
            Self::Week => format!("/controllers/{controller}/week"),
            Self::DoorCard => format!("/controllers/{controller}/door-card"),
        }
    }

    fn label(self) -> String {
        Words.t(match self {
            Self::Place => "step-place",
            Self::Controller => "step-controller",
            Self::Stations => "step-stations",
            Self::Weather => "step-weather",
            Self::Sensors => "step-sensors",
            Self::Year => "step-year",
            Self::Week => "step-week",
            Self::DoorCard => "step-door-card",
        })
    }

    /// `done`, `part`, `fault` or `todo`: the mark's name. `week` is that of the week, which takes longest to tell.
    fn state(
        self,
        context: &ControllerContext,
        budget: &Result<(), Missing>,
        short_runs: bool,
        week: &'static str,
    ) -> &'static str {
        match self {
            Self::Place | Self::Controller => "done",
            Self::Stations if context.controller().stations.is_empty() => "todo",
            Self::Stations => "done",
            Self::Weather if context.at.weather.is_none() => "todo",
            Self::Weather => "done",
            Self::Sensors => sensors_state(context),
            Self::Year => match budget {
                Ok(()) if short_runs => "part",
                Ok(()) => "done",
                Err(_) => "todo",
            },
            Self::Week => week,
            // A card without days and starts cannot be dialled in.
            Self::DoorCard if budget.is_ok() && week != "todo" => "done",
            Self::DoorCard => "todo",
        }
    }
}

/// Of the sensors: one that cannot act, one that nobody saw work, none, or done.
fn sensors_state(context: &ControllerContext) -> &'static str {
    let c = context.controller();
    let silent = c.sensors.iter().any(|s| s.has_contact() && !(s.jumper_removed && s.fits(c)));
    let bypassed = c.temporaries.iter().any(|t| matches!(t.kind, TemporaryKind::Bypass { .. }));
    if c.sensors.is_empty() {
        "todo"
    } else if silent || bypassed {
        "fault"
    } else if c.sensors.iter().any(|s| s.proven.is_none()) {
        "part"
    } else {
        "done"
    }
}

/// Of the week: a fault or a broken rule, something worth knowing, nothing set yet, or done.
fn week_state(context: &ControllerContext) -> &'static str {
    let c = context.controller();
    if c.stations.is_empty() || !c.programs.iter().any(Program::is_scheduled) {
        return "todo";
    }
    // Which week it is does not matter: rules and programs are the same in all of them.
    let situation = context.situation(NaiveDate::default());
    let worst = detect(&situation, c).iter().map(|f| f.severity).min();
    match worst {
        Some(Severity::Fault | Severity::Rule) => "fault",
        Some(Severity::Note) => "part",
        None => "done",
    }
}

impl Spine {
    /// No step is the current one: the page stands beside them.
    pub(crate) fn leave(&mut self) {
        for step in &mut self.steps {
            step.current = false;
        }
    }

    pub(crate) fn of(context: &ControllerContext, current: Step) -> Self {
        let (place, controller) = (context.at.place.id, context.controller.id);
        let budget = context.budget();
        let short_runs = budget.is_ok_and(|b| {
            b.groups.iter().any(|g| g.months.iter().any(upland_core::budget::MonthBudget::has_short_run))
        });
        let week = week_state(context);
        let states = Step::ALL.map(|step| (step, step.state(context, &budget.map(|_| ()), short_runs, week)));
        let w = Words;
        let steps = states
            .map(|(step, state)| StepLink {
                href: step.href(place, controller),
                label: step.label(),
                state,
                state_word: w.t(match state {
                    "done" => "state-done",
                    "part" => "state-part",
                    "fault" => "state-fault",
                    _ => "state-todo",
                }),
                current: step == current,
            })
            .to_vec();
        // A controller does without sensors, so that none is no next step.
        let waits = |(step, state): &(Step, &str)| match *state {
            "fault" => true,
            state => state == "todo" && *step != Step::Sensors,
        };
        let next = states.into_iter().find(|s| s.0 != current && waits(s)).map(|(step, _)| step);
        let next =
            next.or((current != Step::DoorCard && budget.is_ok()).then_some(Step::DoorCard)).map(|step| NextStep {
                href: step.href(place, controller),
                label: w.t1("next-step", step.label()),
                reason: w.t(match step {
                    Step::Stations => "next-stations",
                    Step::Weather => "next-weather",
                    Step::Sensors => "next-sensors",
                    Step::Year => "next-year",
                    Step::Week => "next-week",
                    _ => "next-door-card",
                }),
            });
        Self {
            place: context.at.place.value.place.name.clone(),
            place_href: Step::Place.href(place, controller),
            controller: context.controller().name.clone(),
            steps,
            next,
        }
    }
}
