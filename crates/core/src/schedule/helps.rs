//! What would help where no schedule fits, by trying it.

use std::cmp::Ordering;

use chrono::{TimeZone, Weekday};

use super::candidates::{Candidate, better, costed};
use super::propose::{Grouping, Shortfall, propose_as};
use super::situation::Situation;
use super::wish::{DayWish, Pinned, TimeWish, Wish};
use crate::controller::{Capability, Controller, Days, Program, ProgramLetter};
use crate::place::{Allowed, Bound};

/// Something that could be changed so that a schedule fits, or fits better.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Help {
    /// Half of a program's stations in one that the panel has free.
    Split {
        /// The program.
        letter: ProgramLetter,
        /// The free one.
        into: ProgramLetter,
    },
    /// One more day of the week, if the authority or the place itself allows it.
    Day(Weekday),
    /// Closed hours that begin later, if the authority allows it.
    Hours {
        /// Minute of the day at which they begin now.
        from: u16,
        /// Minute at which they would have to.
        to: u16,
    },
    /// A panel that cuts runs into cycles by itself.
    Cycles,
    /// A panel that waters on as many days a week as the rules allow.
    PanelDays(u8),
}

impl Help {
    /// What is asked, from what the technician does alone to what has to be bought.
    const fn effort(self) -> u8 {
        match self {
            Self::Split { .. } => 0,
            Self::Day(_) | Self::Hours { .. } => 1,
            Self::Cycles | Self::PanelDays(_) => 2,
        }
    }
}

/// Something that helps, and the best schedule that it makes possible.
#[derive(Debug, Clone, PartialEq)]
pub struct Helped {
    /// What would be changed.
    pub help: Help,
    /// The schedule that it makes possible, with what still does not fit.
    pub candidate: Candidate,
}

/// The ways that are tried with each help.
const WAYS: [(DayWish, TimeWish); 3] =
    [(DayWish::Weekdays, TimeWish::Morning), (DayWish::Weekdays, TimeWish::Both), (DayWish::EveryN, TimeWish::Morning)];

/// What is closed from the afternoon on is no end of a morning.
const NOON: u16 = 720;

/// Closed hours are asked to move by whole half hours.
const HALF_HOUR: i64 = 30;

/// What would help where the best of the candidates does not fit: each change tried by itself, those that leave
/// least to be wished for first, among equals those that ask least. Nothing where the best one fits. The method is
/// our own.
#[must_use]
pub fn helps<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    best: &Candidate,
    grouping: Grouping,
) -> Vec<Helped> {
    let pinned = best.wish.pinned;
    if lacks(best) == (0, 0, 0, 0) {
        return Vec::new();
    }
    let tried = |help: Help, rules: &Bound, c: &Controller, grouping| {
        let relaxed = Situation { rules, ..*situation };
        let ways =
            WAYS.into_iter().filter(|(days, _)| *days != DayWish::EveryN || c.capability.day_modes.every_max > 1);
        let made = ways.map(|(days, time)| {
            let wish = Wish { days, time, pinned };
            costed(&relaxed, wish, propose_as(&relaxed, c, grouping, wish))
        });
        made.min_by(better).map(|candidate| Helped { help, candidate })
    };
    let rules = situation.rules;
    let days = closed_days(situation).into_iter().filter_map(|day| {
        let relaxed = relaxed(situation, |allowed| allowed.days = allowed.days.with(day));
        tried(Help::Day(day), &relaxed, controller, grouping)
    });
    // One day is as good as another: only the best of them is worth saying.
    let day = days.min_by(order);
    let hours = later_hours(situation, best).and_then(|(from, to)| {
        let relaxed = relaxed(situation, |allowed| {
            for hours in allowed.hours.iter_mut().filter(|hours| hours.0 == from) {
                hours.0 = to;
            }
        });
        tried(Help::Hours { from, to }, &relaxed, controller, grouping)
    });
    // As grouped by need, where that was asked: what is split is the best candidate itself.
    let grouped = &best.proposal.controller;
    let splits = splits(grouped, pinned).into_iter();
    let splits = splits.filter_map(|(help, c)| tried(help, rules, &c, Grouping::Keep));
    let panels = panels(situation, controller).into_iter();
    let panels = panels.filter_map(|(help, capability)| {
        tried(help, rules, &Controller { capability, ..controller.clone() }, grouping)
    });
    let mut found: Vec<Helped> = splits.chain(day).chain(hours).chain(panels).collect();
    found.retain(|helped| lacks(&helped.candidate) < lacks(best));
    found.sort_by(order);
    found
}

fn order(a: &Helped, b: &Helped) -> Ordering {
    lacks(&a.candidate)
        .cmp(&lacks(&b.candidate))
        .then(a.help.effort().cmp(&b.help.effort()))
        .then_with(|| better(&a.candidate, &b.candidate))
}

/// What a schedule leaves to be wished for: broken rules, findings that are no notes, things that do not fit, and by how much.
fn lacks(candidate: &Candidate) -> (usize, usize, usize, i64) {
    let by_how_much = |shortfall: &Shortfall| match shortfall {
        Shortfall::Hours { needed, free } => needed - free,
        Shortfall::Days { needed, allowed, .. } => i64::from(*needed) - i64::from(*allowed),
    };
    let shortfalls = &candidate.proposal.shortfalls;
    (candidate.breaks_rules, candidate.broken, shortfalls.len(), shortfalls.iter().map(by_how_much).sum())
}

/// The rules with other days and hours in the season of the week.
fn relaxed<Tz: TimeZone>(situation: &Situation<'_, Tz>, change: impl Fn(&mut Allowed)) -> Bound {
    let mut rules = situation.rules.clone();
    let now = situation.allowed();
    for allowed in rules.seasons.iter_mut().map(|(_, allowed)| allowed).chain([&mut rules.usual]) {
        if allowed == now {
            change(allowed);
        }
    }
    rules
}

fn closed_days<Tz: TimeZone>(situation: &Situation<'_, Tz>) -> Vec<Weekday> {
    let allowed = situation.allowed();
    // Dates by the house number are no days of the week.
    let closed = if allowed.dates.is_none() { allowed.days.complement() } else { Days::NONE };
    closed.iter().collect()
}

/// The closed hours of the morning, begun later by what is missing.
fn later_hours<Tz: TimeZone>(situation: &Situation<'_, Tz>, best: &Candidate) -> Option<(u16, u16)> {
    let missing = best.proposal.shortfalls.iter().find_map(|shortfall| match shortfall {
        Shortfall::Hours { needed, free } => Some((needed - free).max(HALF_HOUR)),
        Shortfall::Days { .. } => None,
    })?;
    let allowed = situation.allowed();
    let from = allowed.free_minutes().into_iter().map(|(_, shuts)| shuts).rfind(|shuts| *shuts <= NOON)?;
    let to = i64::from(from) + (missing + HALF_HOUR - 1) / HALF_HOUR * HALF_HOUR;
    let ends = allowed.hours.iter().find(|(at, _)| *at == from)?.1;
    u16::try_from(to).ok().filter(|to| *to < ends).map(|to| (from, to))
}

/// Each program with half of its stations in one that is free.
fn splits(controller: &Controller, pinned: Pinned) -> Vec<(Help, Controller)> {
    let panel = usize::from(controller.capability.programs.clamp(1, 4));
    let in_use = |letter: ProgramLetter| controller.stations.iter().any(|s| s.runs_in(letter));
    let Some(into) = ProgramLetter::ALL[..panel].iter().copied().find(|l| !in_use(*l) && !pinned.holds(*l)) else {
        return Vec::new();
    };
    let split = |letter: ProgramLetter| {
        let own: Vec<usize> = (0..controller.stations.len())
            .filter(|i| controller.stations[*i].program == letter && controller.stations[*i].also.is_none())
            .collect();
        (own.len() > 1).then(|| {
            let mut c = controller.clone();
            for index in &own[own.len().div_ceil(2)..] {
                c.stations[*index].program = into;
            }
            c.normalise_programs();
            // What was decided for the program holds for both of its halves.
            if let (Some(own), Some(half)) = (controller.program(letter), c.program_mut(into)) {
                *half = Program { letter: into, name: String::new(), ..own.clone() };
            }
            (Help::Split { letter, into }, c)
        })
    };
    ProgramLetter::ALL.into_iter().filter(|l| in_use(*l) && !pinned.holds(*l)).filter_map(split).collect()
}

/// Panels that hold more than this one.
fn panels<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller) -> Vec<(Help, Capability)> {
    let own = controller.capability;
    let mut out = Vec::new();
    if !own.cycle_soak {
        out.push((Help::Cycles, Capability { cycle_soak: true, ..own }));
    }
    let days = situation.allowed().days_a_week();
    if own.watering_days < days {
        out.push((Help::PanelDays(days), Capability { watering_days: days, ..own }));
    }
    out
}
