//! Several schedules for the same stations, side by side with what each costs.

use std::cmp::Ordering;

use chrono::{NaiveDate, NaiveDateTime, TimeZone};

use super::finding::Severity;
use super::findings::detect;
use super::plan::{Level, Plan, PlanStation};
use super::propose::{Grouping, Proposal, propose_as};
use super::situation::Situation;
use super::wish::{DayWish, Pinned, TimeWish, Wish};
use super::work::week_work;
use crate::controller::Controller;
use crate::quantity::MonthOfYear;

/// A schedule that was proposed, with its cost.
#[derive(Debug, Clone, PartialEq)]
pub struct Candidate {
    /// What it goes by.
    pub wish: Wish,
    /// The schedule, and what could not be fitted.
    pub proposal: Proposal,
    /// Findings that break a rule, as they stand in its week.
    pub breaks_rules: usize,
    /// Findings that are faults or break a rule.
    pub broken: usize,
    /// How far the water of a week is from the need of the month, mm: the mean over the stations, over and under
    /// alike. Nothing where the need is not known.
    pub deviation_mm: Option<f64>,
    /// Days of a week on which anything waters, on average.
    pub days_a_week: f64,
    /// When the last valve shuts, at the year's highest percent.
    pub ends: Option<NaiveDateTime>,
}

/// The ways that are tried.
const WAYS: [(DayWish, TimeWish); 8] = [
    (DayWish::Weekdays, TimeWish::Morning),
    (DayWish::Weekdays, TimeWish::Evening),
    (DayWish::Weekdays, TimeWish::Both),
    (DayWish::EveryN, TimeWish::Morning),
    (DayWish::EveryN, TimeWish::Evening),
    (DayWish::EveryN, TimeWish::Both),
    (DayWish::Odd, TimeWish::Morning),
    (DayWish::Even, TimeWish::Morning),
];

/// Every way that the panel has, the best first: those that keep the rules, break nothing and fit, then those nearest to the need,
/// then those with fewer days, then those that end earlier. Pinned programs stay as they are. Ways that come to the same schedule are one; without
/// stations there is none. The method is our own.
#[must_use]
pub fn candidates<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    grouping: Grouping,
    pinned: Pinned,
) -> Vec<Candidate> {
    if controller.stations.is_empty() {
        return Vec::new();
    }
    let modes = controller.capability.day_modes;
    let can = |days: DayWish| match days {
        DayWish::Weekdays => true,
        DayWish::EveryN => modes.every_max > 1,
        DayWish::Odd | DayWish::Even => modes.odd_even,
    };
    let mut out: Vec<Candidate> = Vec::new();
    for (days, time) in WAYS.into_iter().filter(|(days, _)| can(*days)) {
        let wish = Wish { days, time, pinned };
        let proposal = propose_as(situation, controller, grouping, wish);
        if !out.iter().any(|c| c.proposal.controller == proposal.controller) {
            out.push(costed(situation, wish, proposal));
        }
    }
    out.sort_by(better);
    out
}

pub(super) fn better(a: &Candidate, b: &Candidate) -> Ordering {
    let fits = |c: &Candidate| (c.breaks_rules, c.broken, c.proposal.shortfalls.len());
    // A tenth of a millimetre is no difference.
    let tenths = |c: &Candidate| c.deviation_mm.map_or(i64::MAX, |mm| (mm * 10.0).round() as i64);
    fits(a)
        .cmp(&fits(b))
        .then(tenths(a).cmp(&tenths(b)))
        .then(a.days_a_week.total_cmp(&b.days_a_week))
        .then(a.ends.map(|e| e.time()).cmp(&b.ends.map(|e| e.time())))
}

/// A schedule with what it costs under a situation.
#[must_use]
pub fn costed<Tz: TimeZone>(situation: &Situation<'_, Tz>, wish: Wish, proposal: Proposal) -> Candidate {
    let c = &proposal.controller;
    let found = detect(situation, c);
    let breaks_rules = found.iter().filter(|f| f.severity == Severity::Rule).count();
    let broken = found.iter().filter(|f| f.severity != Severity::Note).count();
    let budget = situation.budget(c);
    let plan = situation.plan(c);
    let month = MonthOfYear::of(situation.first);
    let need = |number: u8| budget.as_ref()?.weekly_need_mm(c.station(number)?.program, number, month);
    let off: Vec<f64> =
        plan.stations.iter().filter_map(|s| Some((given_a_week(c, &plan, s, month) - need(s.number)?).abs())).collect();
    let [first, last] = situation.horizon(c);
    let waters = |day: &NaiveDate| c.programs.iter().any(|p| p.schedule.waters_on(*day));
    let days = first.iter_days().take_while(|d| *d <= last).filter(waters).count();
    let weeks = ((last - first).num_days() + 1) as f64 / 7.0;
    let highest = situation.week(c, &plan, Level::Highest);
    let ends = week_work(&plan, &highest).programs.iter().filter_map(|p| p.ends).max_by_key(NaiveDateTime::time);
    Candidate {
        wish,
        breaks_rules,
        broken,
        deviation_mm: (!off.is_empty()).then(|| off.iter().sum::<f64>() / off.len() as f64),
        days_a_week: days as f64 / weeks,
        ends,
        proposal,
    }
}

/// Net depth that a station gets in a mean week of a month, mm: every start of each of its programs.
fn given_a_week(c: &Controller, plan: &Plan, station: &PlanStation, month: MonthOfYear) -> f64 {
    let of_program = |letter| {
        let schedule = &c.program(letter)?.schedule;
        let run = c.capability.scaled(station.panel, plan.percent_of_month(letter, month)?);
        Some(schedule.waterings_a_week() * schedule.starts.len() as f64 * station.net_mm(run))
    };
    station.programs.iter().flatten().filter_map(|letter| of_program(*letter)).sum()
}
