//! Runs into time in which nothing may run, by the rules of the place or by the panel's own water windows.

use chrono::{NaiveDate, NaiveDateTime, TimeDelta, TimeZone};

use super::finding::{Finding, Mark, Problem, Severity, Stake};
use super::findings::Look;
use super::runs::{Began, Expansion, Run};
use super::situation::Situation;
use crate::controller::{Program, ProgramLetter, StartTime};
use crate::place::Bound;

/// A start that goes into forbidden time.
pub(crate) struct Forbidden {
    /// From when.
    pub(crate) from: NaiveDateTime,
    /// When it ends.
    pub(crate) ends: NaiveDateTime,
    date: NaiveDate,
    by: StartTime,
}

/// The runs of a program that go into forbidden time. A start that lies wholly in allowed time is asked about once
/// and not run by run.
fn forbidden_runs<'a>(
    rules: &'a Bound,
    expansion: &'a Expansion,
    letter: ProgramLetter,
) -> impl Iterator<Item = &'a Run> {
    let is_forbidden = |date, from, to| rules.first_forbidden(date, from, to).is_some();
    let into = move |start: &&Began| match expansion.runs_of(start) {
        [first, .., last] => is_forbidden(start.date, first.local_start, last.local_stop()),
        _ => true,
    };
    let starts = expansion.starts.iter().filter(move |s| s.letter == letter).filter(into);
    let runs = starts.flat_map(|s| expansion.runs_of(s));
    runs.filter(move |r| is_forbidden(r.date, r.local_start, r.local_stop()))
}

/// The first start of a program that goes into forbidden time.
pub(crate) fn first_forbidden(rules: &Bound, expansion: &Expansion, letter: ProgramLetter) -> Option<Forbidden> {
    forbidden_runs(rules, expansion, letter).find_map(|r| {
        let from = rules.first_forbidden(r.date, r.local_start, r.local_stop())?;
        let same = expansion.runs.iter().filter(|o| o.letter == letter && o.date == r.date && o.by == r.by);
        let ends = same.map(|o| o.local_stop()).max().unwrap_or_else(|| r.local_stop());
        Some(Forbidden { from, ends, date: r.date, by: r.by })
    })
}

impl Look<'_> {
    pub(super) fn hours<Tz: TimeZone>(&self, situation: &Situation<'_, Tz>, program: &Program, out: &mut Vec<Finding>) {
        let letter = program.letter;
        let rules = situation.rules;
        let Some((late, Forbidden { from, ends, date, by })) = self.forbidden(rules, letter) else { return };
        let problem = if late {
            let now = self.now.runs.iter().filter(|r| r.letter == letter && r.date == date && r.by == by);
            let ends_now = now.map(|r| r.local_stop()).max();
            let month = self.plan.highest(letter).map(|(m, _)| m);
            Problem::LateAtHighest { from, ends, ends_now, month }
        } else {
            Problem::ForbiddenHour { from, ends }
        };
        let mut f = Finding::new(problem, Severity::Rule, Some(letter));
        f.stake = Stake::Rule;
        f.marks = self.forbidden_marks(rules, letter, late);
        out.push(f);
    }

    /// Runs outside of the windows in which the panel lets its programs run: it does not make them.
    pub(super) fn water_windows(&self, program: &Program, out: &mut Vec<Finding>) {
        // Most panels have none, and findings follow a drag.
        if self.controller.windows.is_empty() {
            return;
        }
        let letter = program.letter;
        let Some((late, Forbidden { from, ends, .. })) = self.forbidden(&self.windows, letter) else { return };
        let month = self.plan.highest(letter).map(|(month, _)| month).filter(|_| late);
        let mut f = Finding::new(Problem::OutsideWindow { from, ends, month }, Severity::Fault, Some(letter));
        let expansion = if late { &self.highest } else { &self.now };
        let last = expansion.starts.first().map(|s| s.date + TimeDelta::days(6));
        let week = forbidden_runs(&self.windows, expansion, letter).filter(|r| last.is_some_and(|day| r.date <= day));
        f.stake = self.water_of(letter, week);
        f.marks = self.forbidden_marks(&self.windows, letter, late);
        out.push(f);
    }

    /// Runs while people need the place or its water.
    pub(super) fn in_use<Tz: TimeZone>(
        &self,
        situation: &Situation<'_, Tz>,
        program: &Program,
        out: &mut Vec<Finding>,
    ) {
        let letter = program.letter;
        let Some((by, rules)) = situation.rules.done_by.zip(situation.rules.in_use()) else { return };
        let Some((late, Forbidden { ends, .. })) = self.forbidden(&rules, letter) else { return };
        let month = self.plan.highest(letter).map(|(month, _)| month).filter(|_| late);
        let mut f = Finding::new(Problem::NotDone { by, ends, month }, Severity::Note, Some(letter));
        f.marks = self.forbidden_marks(&rules, letter, late);
        out.push(f);
    }

    fn forbidden_marks(&self, rules: &Bound, letter: ProgramLetter, late: bool) -> Vec<Mark> {
        let expansion = if late { &self.highest } else { &self.now };
        let mut marks: Vec<Mark> =
            forbidden_runs(rules, expansion, letter).map(|r| Mark { date: r.date, at: r.local_stop() }).collect();
        marks.dedup_by_key(|m| m.date);
        marks
    }

    /// The first start of a program that goes into forbidden time, now or else at the year's highest percent alone.
    fn forbidden(&self, rules: &Bound, letter: ProgramLetter) -> Option<(bool, Forbidden)> {
        let into = |expansion, late| first_forbidden(rules, expansion, letter).map(|found| (late, found));
        into(&self.now, false).or_else(|| into(&self.highest, true))
    }
}
