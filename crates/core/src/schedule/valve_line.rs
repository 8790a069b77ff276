//! One valve line: a program that starts while another runs waits until it has ended, first come
//! first served, letters in their order at the same minute. Within a program stations run in the
//! order of their numbers; while one soaks in the next runs, and where all of them soak the line
//! rests.

use std::rc::Rc;

use chrono::{DateTime, TimeDelta, Utc};

use super::plan::{Plan, PlanStation};
use crate::controller::{Controller, ProgramLetter};
use crate::landscape::cycles;
use crate::quantity::{Percent, RunTime};

/// A start that is due.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Due {
    /// When it should begin.
    pub(crate) at: DateTime<Utc>,
    /// The program.
    pub(crate) letter: ProgramLetter,
    /// At which percent.
    pub(crate) percent: Percent,
}

/// One opening of one valve.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Opening {
    pub(crate) station: u8,
    /// When it opens, from the beginning of its start.
    pub(crate) opens: TimeDelta,
    /// How long it is open.
    pub(crate) length: RunTime,
    pub(crate) cycle: u8,
    pub(crate) of_cycles: u8,
}

impl Opening {
    /// When it shuts, from the beginning of its start.
    pub(crate) fn shuts(&self) -> TimeDelta {
        self.opens + delta(self.length)
    }
}

fn delta(run: RunTime) -> TimeDelta {
    TimeDelta::seconds(i64::from(run.seconds()))
}

/// A start that had its turn.
#[derive(Debug)]
pub(crate) struct Turn {
    pub(crate) began: DateTime<Utc>,
    pub(crate) ended: DateTime<Utc>,
    pub(crate) waited_for: Option<ProgramLetter>,
    pub(crate) openings: Rc<[Opening]>,
}

/// The line, and until when it is taken.
#[derive(Debug)]
pub(crate) struct ValveLine<'a> {
    controller: &'a Controller,
    plan: &'a Plan,
    busy: Option<(DateTime<Utc>, ProgramLetter)>,
    /// The openings of a program at a percent. They are the same at every start, so a week works them out once.
    known: Vec<(ProgramLetter, Percent, Rc<[Opening]>)>,
}

impl<'a> ValveLine<'a> {
    /// A line that nothing has used yet.
    pub(crate) const fn of(controller: &'a Controller, plan: &'a Plan) -> Self {
        Self { controller, plan, busy: None, known: Vec::new() }
    }

    /// Gives a start its turn; nothing when none of its stations has any minutes. Starts come in the
    /// order in which they are due.
    pub(crate) fn take(&mut self, due: Due) -> Option<Turn> {
        let waits = self.busy.filter(|(until, _)| *until > due.at);
        let began = waits.map_or(due.at, |(until, _)| until);
        let openings = self.openings(due);
        let ended = began + openings.last()?.shuts();
        self.busy = Some((ended, due.letter));
        Some(Turn { began, ended, waited_for: waits.map(|(_, letter)| letter), openings })
    }

    fn openings(&mut self, due: Due) -> Rc<[Opening]> {
        if let Some((.., openings)) = self.known.iter().find(|(l, p, _)| (*l, *p) == (due.letter, due.percent)) {
            return Rc::clone(openings);
        }
        let openings: Rc<[Opening]> = self.work_out(due).into();
        self.known.push((due.letter, due.percent, Rc::clone(&openings)));
        openings
    }

    fn work_out(&self, due: Due) -> Vec<Opening> {
        struct Waiting<'a> {
            station: &'a PlanStation,
            cycles: Vec<RunTime>,
            done: usize,
            ready: TimeDelta,
        }
        let capability = &self.controller.capability;
        let mut waiting: Vec<Waiting<'_>> = self
            .plan
            .of_program(due.letter)
            .map(|station| {
                let run = capability.scaled(station.panel, due.percent);
                let cycles = cycles(run, station.cycle.map(|c| c.cycle), capability.run_step);
                Waiting { station, cycles, done: 0, ready: TimeDelta::zero() }
            })
            .filter(|w| !w.cycles.is_empty())
            .collect();
        let pause = delta(self.controller.station_delay);
        let (mut at, mut out) = (TimeDelta::zero(), Vec::with_capacity(waiting.iter().map(|w| w.cycles.len()).sum()));
        while let Some(soonest) = waiting.iter().filter(|w| w.done < w.cycles.len()).map(|w| w.ready).min() {
            at = at.max(soonest);
            let Some(next) = waiting.iter_mut().find(|w| w.done < w.cycles.len() && w.ready <= at) else { break };
            let length = next.cycles[next.done];
            let shuts = at + delta(length);
            next.done += 1;
            let count = |n: usize| u8::try_from(n).unwrap_or(u8::MAX);
            out.push(Opening {
                station: next.station.number,
                opens: at,
                length,
                cycle: count(next.done),
                of_cycles: count(next.cycles.len()),
            });
            next.ready = shuts + next.station.cycle.map_or(TimeDelta::zero(), |c| delta(c.soak));
            at = shuts + pause;
        }
        out
    }
}
