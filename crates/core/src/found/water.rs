//! Water as found against what the plants need: a panel is judged as a whole week in millimetres, however its
//! minutes, percent, days and starts come to it.

use chrono::{TimeDelta, TimeZone};

use super::{FoundProgram, Panel, Switch};
use crate::budget::YearBudget;
use crate::controller::{Controller, DayMode, ProgramLetter, StartTime};
use crate::quantity::{MonthOfYear, Percent};
use crate::schedule::{Expansion, Level, Plan, Situation, expand, week_work};

/// Water of a station in a week: as found, and what the plants need now.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FoundWater {
    /// Its number.
    pub number: u8,
    /// Net depth as found, mm a week.
    pub found_mm: f64,
    /// Net depth needed, mm a week, where it is known.
    pub need_mm: Option<f64>,
    /// Water let out as found, m³ a week, where the area is known.
    pub found_m3: Option<f64>,
    /// Water to let out for the need, m³ a week.
    pub need_m3: Option<f64>,
}

/// The one thing that makes a program's week too wet or too dry: changed alone, the week is right.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Cause {
    /// A start too many: it waters the whole program again.
    SecondStart {
        /// The start.
        start: StartTime,
        /// Water that it and those after it let out, m³ a week, where areas are known.
        volume_m3: f64,
    },
    /// The percent. It would be right for another month, where there is one.
    Percent {
        /// On the panel.
        found: Percent,
        /// The percent that gives the need with everything else as found.
        right: f64,
        /// The month that it looks left over from.
        fits: Option<MonthOfYear>,
    },
    /// More or fewer days than the plan has.
    Days {
        /// Waterings a week as found.
        found: f64,
        /// By the plan.
        planned: f64,
    },
    /// The month needs no water.
    NotNeeded,
    /// The minutes, or several things together; the percent that would make up for it.
    Minutes {
        /// The percent.
        right: f64,
    },
}

/// A program whose week is too wet or too dry.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ProgramWater {
    /// The program.
    pub letter: ProgramLetter,
    /// Net depth as found, mm a week: the mean of its stations.
    pub found_mm: f64,
    /// Net depth needed, mm a week.
    pub need_mm: f64,
    /// Water let out beyond the need, m³ a week, where areas are known; negative where it lacks.
    pub surplus_m3: f64,
    /// What makes it so.
    pub cause: Cause,
}

/// A week within this share of its need is right (common practice: what a month's percent differs from the next).
const GRACE: f64 = 0.25;

/// Less than this, mm a week, is not watering worth a finding.
const TRACE_MM: f64 = 2.0;

/// Days that are expanded where days go by the date: twelve weeks, in which every 2, 3, 4, 6, 12, 14 or 28 days
/// come out even.
const BY_DATE_DAYS: i64 = 84;

/// A panel's week at today's percent.
pub(super) struct PanelWeek {
    plan: Plan,
    /// Its runs, over as many weeks as it takes for days by the date to come out even.
    pub(super) runs: Expansion,
    weeks: f64,
}

impl PanelWeek {
    pub(super) fn of<Tz: TimeZone>(panel: &Panel, known: &Controller, situation: &Situation<'_, Tz>) -> Self {
        let mut controller = panel.as_controller(known);
        let today = MonthOfYear::of(panel.seen_at.date());
        for program in &mut controller.programs {
            let now = program.months[today.index()].dial;
            program.months.iter_mut().for_each(|m| m.dial = now);
        }
        let plan = Plan::of(&controller, None);
        let by_weekday = panel.programs.iter().all(|p| matches!(p.days, DayMode::Weekdays(_)));
        let days = if by_weekday { 7 } else { BY_DATE_DAYS };
        let span = [panel.seen_at.date(), panel.seen_at.date() + TimeDelta::days(days - 1)];
        let runs = expand(&controller, &plan, situation.zone, span, Level::Calendar);
        Self { plan, runs, weeks: days as f64 / 7.0 }
    }

    /// Water of a mean week, against the month's need.
    fn water(&self, month: MonthOfYear, known: &Controller, budget: Option<&YearBudget>) -> Vec<FoundWater> {
        let need = |number: u8| budget?.weekly_need_mm(known.station(number)?.program, number, month);
        week_work(&self.plan, &self.runs)
            .stations
            .iter()
            .map(|s| {
                let need = need(s.number);
                let planned = self.plan.station(s.number);
                FoundWater {
                    number: s.number,
                    found_mm: s.net_mm / self.weeks,
                    need_mm: need,
                    found_m3: s.volume_m3.map(|v| v / self.weeks),
                    need_m3: need.zip(planned).and_then(|(mm, p)| p.area_m2.map(|a| mm * p.multiplier * a / 1000.0)),
                }
            })
            .collect()
    }

    /// As [`program_water`].
    pub(super) fn program_water(
        &self,
        panel: &Panel,
        known: &Controller,
        budget: Option<&YearBudget>,
    ) -> Vec<ProgramWater> {
        let month = MonthOfYear::of(panel.seen_at.date());
        let water = self.water(month, known, budget);
        let judged = panel.programs.iter().filter(|p| !p.schedule().is_idle());
        judged.filter_map(|program| judge(program, panel, known, &water, budget)).collect()
    }
}

/// Water of a mean week as the panel was seen, against the month's need.
#[must_use]
pub fn panel_water<Tz: TimeZone>(
    panel: &Panel,
    known: &Controller,
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
) -> Vec<FoundWater> {
    let mut week = PanelWeek::of(panel, known, situation);
    if panel.switch == Switch::Off {
        week.runs = Expansion::default();
    }
    week.water(MonthOfYear::of(panel.seen_at.date()), known, budget)
}

/// The programs whose week is too wet or too dry. A panel that is off is judged by what it would run. Stations in
/// two programs are a finding of their own and left out here.
#[must_use]
pub fn program_water<Tz: TimeZone>(
    panel: &Panel,
    known: &Controller,
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
) -> Vec<ProgramWater> {
    PanelWeek::of(panel, known, situation).program_water(panel, known, budget)
}

/// What is wrong with the week of a program; nothing where it is right, or nothing of it is known.
fn judge(
    program: &FoundProgram,
    panel: &Panel,
    known: &Controller,
    water: &[FoundWater],
    budget: Option<&YearBudget>,
) -> Option<ProgramWater> {
    let own = |w: &&FoundWater| panel.stations.iter().any(|s| s.number == w.number && s.programs == [program.letter]);
    let stations: Vec<(&FoundWater, f64)> = water.iter().filter(own).filter_map(|w| Some((w, w.need_mm?))).collect();
    let count = stations.len() as f64;
    let found = stations.iter().map(|(w, _)| w.found_mm).sum::<f64>() / count;
    let need = stations.iter().map(|(_, need)| need).sum::<f64>() / count;
    // Nothing of it is known: the mean is no number.
    if stations.is_empty() || fits(found, need) {
        return None;
    }
    let surplus = stations.iter().filter_map(|(w, _)| Some(w.found_m3? - w.need_m3?)).sum();
    let month = MonthOfYear::of(panel.seen_at.date());
    let let_out = stations.iter().filter_map(|(w, _)| w.found_m3).sum();
    let cause = cause(program, known, (found, need, let_out), month, budget);
    Some(ProgramWater { letter: program.letter, found_mm: found, need_mm: need, surplus_m3: surplus, cause })
}

/// Whether a week is right for its need.
fn fits(found: f64, need: f64) -> bool {
    (found - need).abs() <= (GRACE * need).max(TRACE_MM)
}

fn cause(
    program: &FoundProgram,
    known: &Controller,
    (found, need, volume_m3): (f64, f64, f64),
    month: MonthOfYear,
    budget: Option<&YearBudget>,
) -> Cause {
    if need < TRACE_MM {
        return Cause::NotNeeded;
    }
    let starts = program.starts.len();
    let surplus_start = (1..starts).find(|keep| fits(found * *keep as f64 / starts as f64, need));
    if let Some((keep, start)) = surplus_start.and_then(|keep| Some((keep, program.starts.get(keep)?))) {
        let share = 1.0 - keep as f64 / starts as f64;
        return Cause::SecondStart { start: *start, volume_m3: volume_m3 * share };
    }
    let percent = f64::from(program.percent.get());
    // A program at 0 % gives nothing to scale.
    let right = if found > 0.0 { percent * need / found } else { 100.0 };
    if let Some(group) = budget.and_then(|b| b.group(program.letter)) {
        let called = group.month(month).percent_exact;
        if fits(found * called / percent.max(1.0), need) {
            let off = |m: &MonthOfYear| (group.month(*m).percent_exact - percent).abs();
            let nearest = MonthOfYear::ALL.into_iter().min_by(|a, b| off(a).total_cmp(&off(b)));
            let fits = nearest.filter(|m| off(m) <= 10.0 && *m != month);
            return Cause::Percent { found: program.percent, right: called, fits };
        }
    }
    if let Some(planned) = known.program(program.letter).map(|p| known.days_in(p, month).a_week()).filter(|w| *w > 0.0)
    {
        let days = program.schedule().waterings_a_week();
        if (days - planned).abs() > 0.1 && days > 0.0 && fits(found * planned / days, need) {
            return Cause::Days { found: days, planned };
        }
    }
    Cause::Minutes { right }
}
