//! What is wrong with a schedule: one look for each kind of finding.

use std::collections::BTreeMap;

use chrono::{Datelike, NaiveDate, TimeDelta, TimeZone, Weekday};

use super::finding::{Finding, Mark, Problem, Severity, Stake};
use super::plan::{Level, Plan, PlanStation};
use super::runs::{Began, Expansion, Run, expand};
use super::situation::Situation;
use super::water_findings::water_findings;
use crate::controller::{Controller, DayMode, Days, Program, ProgramLetter, StartTime, TemporaryKind};
use crate::place::Bound;
use crate::quantity::RunTime;
use crate::sensor::{Sensor, SensorKind};

/// What is wrong with a controller's schedule, worst first, without repairs: fast enough to follow
/// a drag. [`check`](super::check) adds the repairs.
#[must_use]
pub fn detect<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller) -> Vec<Finding> {
    let budget = situation.budget(controller);
    let plan = Plan::of(controller, budget.as_ref());
    let horizon = situation.horizon(controller);
    let look = Look {
        controller,
        plan: &plan,
        now: expand(controller, &plan, situation.zone, horizon, Level::Calendar),
        highest: expand(controller, &plan, situation.zone, horizon, Level::Highest),
        windows: Bound::of_windows(&controller.windows),
        meant: budget.as_ref().map_or_else(Vec::new, |b| {
            b.groups.iter().flat_map(|g| g.stations.iter().map(|s| (s.program, s.waterings))).collect()
        }),
    };
    let mut out = Vec::new();
    for program in &controller.programs {
        look.starts(situation, program, &mut out);
        look.days(situation, program, &mut out);
        look.hours(situation, program, &mut out);
        look.water_windows(program, &mut out);
        look.in_use(situation, program, &mut out);
        look.waiting(program, &mut out);
    }
    if let Some(date) = look.now.beyond_limit.or(look.highest.beyond_limit) {
        out.push(Finding::new(Problem::TooManyOpenings { date }, Severity::Fault, None));
    }
    if let Some(budget) = &budget {
        water_findings(controller, budget, &plan, &mut out);
    }
    look.stations(&mut out);
    look.sensors(situation, &mut out);
    out.sort_by_key(|f| (f.severity, f.code(), f.letter, f.station));
    out
}

/// A controller with what it runs.
pub(super) struct Look<'a> {
    pub(super) controller: &'a Controller,
    pub(super) plan: &'a Plan,
    pub(super) now: Expansion,
    pub(super) highest: Expansion,
    /// The panel's own water windows, as hours that are closed.
    pub(super) windows: Bound,
    /// Waterings a week that the minutes of each program are for.
    meant: Vec<(ProgramLetter, f64)>,
}

impl Look<'_> {
    /// Water of a program in the week, m³, and net depth of its stations, mm.
    fn water(&self, letter: ProgramLetter, by: Option<StartTime>) -> Stake {
        let first = self.now.starts.first().map(|s| s.date);
        let week = |date: NaiveDate| first.is_some_and(|f| date < f + TimeDelta::days(7));
        self.water_of(letter, self.starts_of(letter, by).filter(|s| week(s.date)).flat_map(|s| self.now.runs_of(s)))
    }

    /// Water of some runs of a program, m³; net depth, mean of its stations, mm, where an area is not known.
    pub(super) fn water_of<'r>(&self, letter: ProgramLetter, runs: impl Iterator<Item = &'r Run>) -> Stake {
        let (mut volume, mut depth, mut known) = (0.0, 0.0_f64, true);
        for run in runs {
            let Some(station) = self.plan.station(run.station) else { continue };
            match station.volume_m3(run.length) {
                Some(v) => volume += v,
                None => known = false,
            }
            depth += station.net_mm(run.length);
        }
        let stations = self.plan.of_program(letter).count().max(1) as f64;
        if known { Stake::VolumeM3(volume) } else { Stake::DepthMm(depth / stations) }
    }

    fn marks_of(&self, letter: ProgramLetter, by: Option<StartTime>) -> Vec<Mark> {
        let starts = self.starts_of(letter, by);
        starts.filter_map(|s| Some(Mark { date: s.date, at: self.now.runs_of(s).first()?.local_start })).collect()
    }

    /// The starts of a program, or of one of its start times.
    fn starts_of(&self, letter: ProgramLetter, by: Option<StartTime>) -> impl Iterator<Item = &Began> {
        self.now.starts.iter().filter(move |s| s.letter == letter && by.is_none_or(|b| b == s.by))
    }

    fn starts<Tz: TimeZone>(&self, situation: &Situation<'_, Tz>, program: &Program, out: &mut Vec<Finding>) {
        let (letter, schedule) = (program.letter, &program.schedule);
        let has_stations = self.plan.of_program(letter).next().is_some();
        if !has_stations {
            if !schedule.is_idle() {
                out.push(Finding::new(Problem::GhostProgram, Severity::Note, Some(letter)));
            }
            return;
        }
        if program.by_hand {
            return;
        }
        if schedule.is_idle() {
            out.push(Finding::new(Problem::NotScheduled, Severity::Fault, Some(letter)));
            return;
        }
        let split = schedule.split.max(1);
        if schedule.starts.len() < usize::from(split) {
            let problem = Problem::TooFewStarts { there: schedule.starts.len(), needed: split };
            let mut f = Finding::new(problem, Severity::Fault, Some(letter));
            f.stake = match self.water(letter, None) {
                Stake::VolumeM3(v) => Stake::VolumeM3(short(v, schedule.starts.len(), split)),
                Stake::DepthMm(d) => Stake::DepthMm(short(d, schedule.starts.len(), split)),
                other => other,
            };
            out.push(f);
        }
        // The starts that were meant come first; what is left over doubles the water.
        for extra in schedule.starts.iter().skip(usize::from(split)) {
            let mut f = Finding::new(Problem::SecondStart { start: *extra }, Severity::Fault, Some(letter));
            f.stake = self.water(letter, Some(*extra));
            f.marks = self.marks_of(letter, Some(*extra));
            out.push(f);
        }
        let cycles = self.plan.of_program(letter).any(|s| s.cycle.is_some());
        if cycles && split > 1 {
            let mut f = Finding::new(Problem::TwoWaysOfSoak, Severity::Fault, Some(letter));
            f.marks = self.marks_of(letter, schedule.starts.get(1).copied());
            out.push(f);
        }
        let meant = self.meant.iter().filter(|(l, _)| *l == letter).map(|(_, w)| *w).max_by(f64::total_cmp);
        // Days that are closed are a finding of their own.
        let scheduled = match schedule.days {
            DayMode::Weekdays(days) => {
                f64::from(days.and(schedule.never.complement()).and(situation.allowed().days).count())
            }
            _ => schedule.waterings_a_week(),
        };
        // Odd, even and every N come to parts of a watering: within a third is the same.
        if let Some(meant) = meant.filter(|m| (m - scheduled).abs() > 0.55) {
            let mut f = Finding::new(Problem::DaysAndMinutes { scheduled, meant }, Severity::Fault, Some(letter));
            let share = 1.0 - meant / scheduled.max(0.1);
            f.stake = match self.water(letter, None) {
                Stake::VolumeM3(v) => Stake::VolumeM3(v * share),
                Stake::DepthMm(d) => Stake::DepthMm(d * share),
                other => other,
            };
            out.push(f);
        }
    }

    fn days<Tz: TimeZone>(&self, situation: &Situation<'_, Tz>, program: &Program, out: &mut Vec<Finding>) {
        let (letter, schedule) = (program.letter, &program.schedule);
        let mut closed: Vec<NaiveDate> =
            self.now.starts.iter().filter(|s| s.letter == letter).map(|s| s.date).collect();
        closed.dedup();
        closed.retain(|d| !situation.rules.allows_day(*d));
        if let Some(first) = closed.first() {
            let weekdays = Days::of(closed.iter().map(|d| d.weekday()));
            let problem = match schedule.days {
                DayMode::Weekdays(_) if !situation.rules.on(*first).days.holds(first.weekday()) => {
                    Problem::ForbiddenWeekdays { days: weekdays }
                }
                _ => Problem::ForbiddenDate { date: *first },
            };
            let mut f = Finding::new(problem, Severity::Rule, Some(letter));
            f.stake = Stake::Rule;
            f.marks = self.marks_of(letter, None).into_iter().filter(|m| closed.contains(&m.date)).collect();
            out.push(f);
        }
        // Where the rules give a place its odd dates, there is no choice.
        let chosen = situation.allowed().dates.is_none();
        if schedule.days == DayMode::Odd
            && chosen
            && !schedule.is_idle()
            && self.plan.of_program(letter).next().is_some()
        {
            out.push(Finding::new(Problem::OddNeighbours, Severity::Note, Some(letter)));
        }
        if let DayMode::Weekdays(days) = schedule.days
            && !schedule.is_idle()
            && let Some((first, second)) = side_by_side(days.and(schedule.never.complement()))
        {
            out.push(Finding::new(Problem::NeighbouringDays { first, second }, Severity::Note, Some(letter)));
        }
    }

    fn waiting(&self, program: &Program, out: &mut Vec<Finding>) {
        let letter = program.letter;
        // A second start that waits for the first is its own finding.
        let waits = self.now.starts.iter().chain(&self.highest.starts).filter(|s| s.letter == letter);
        let longest = waits.filter(|s| s.waited_for.is_some_and(|other| other != letter)).max_by_key(|s| s.waited());
        let Some(longest) = longest else { return };
        let Some(other) = longest.waited_for else { return };
        let begins = self
            .runs_at(&self.now, letter, longest)
            .chain(self.runs_at(&self.highest, letter, longest))
            .find(|r| r.start() == longest.began)
            .map_or(longest.began.naive_utc(), |r| r.local_start);
        let problem = Problem::Waits { other, minutes: longest.waited().num_minutes(), planned: longest.by, begins };
        let mut f = Finding::new(problem, Severity::Note, Some(letter));
        f.marks = self
            .starts_of(letter, None)
            .filter(|s| s.waited_for.is_some())
            .filter_map(|s| Some(Mark { date: s.date, at: self.now.runs_of(s).first()?.local_start }))
            .collect();
        out.push(f);
    }

    /// The runs of the start of the same time and date in an expansion.
    fn runs_at<'a>(
        &self,
        expansion: &'a Expansion,
        letter: ProgramLetter,
        start: &Began,
    ) -> impl Iterator<Item = &'a Run> + use<'a> {
        let (date, by) = (start.date, start.by);
        let same = expansion.starts.iter().filter(move |s| s.letter == letter && s.date == date && s.by == by);
        same.flat_map(|s| expansion.runs_of(s))
    }

    /// The longest run of each station in the year's highest week.
    fn longest_runs(&self) -> BTreeMap<u8, &Run> {
        let mut longest: BTreeMap<u8, &Run> = BTreeMap::new();
        // At the year's highest percent every start of a program is the same.
        let first = |p: &Program| self.highest.starts.iter().find(|s| s.letter == p.letter);
        for run in self.controller.programs.iter().filter_map(first).flat_map(|s| self.highest.runs_of(s)) {
            let known = longest.entry(run.station).or_insert(run);
            if run.length > known.length {
                *known = run;
            }
        }
        longest
    }

    fn stations(&self, out: &mut Vec<Finding>) {
        let longest = self.longest_runs();
        for station in &self.plan.stations {
            let number = Some(station.number);
            let letter = station.programs[0];
            if let Some(second) = station.programs[1] {
                let mut f = Finding::new(Problem::InTwoPrograms { second }, Severity::Fault, letter);
                f.stake = self.station_water(station, second);
                out.push(Finding { station: number, ..f });
            }
            let scheduled = letter
                .and_then(|l| self.controller.program(l))
                .is_some_and(|p| !p.schedule.is_idle() && self.plan.highest(p.letter).is_some());
            if scheduled && station.panel == RunTime::ZERO {
                let f = Finding::new(Problem::NoMinutes, Severity::Fault, letter);
                out.push(Finding { station: number, ..f });
            }
            let worst = longest.get(&station.number).copied().filter(|_| scheduled);
            out.extend(worst.and_then(|run| self.runs_off(station, run)));
        }
    }

    fn station_water(&self, station: &PlanStation, letter: ProgramLetter) -> Stake {
        let first = self.now.starts.first().map(|s| s.date);
        let runs = self.now.runs.iter().filter(|r| r.station == station.number && r.letter == letter);
        let week: Vec<RunTime> =
            runs.filter(|r| first.is_some_and(|f| r.date < f + TimeDelta::days(7))).map(|r| r.length).collect();
        match station.area_m2 {
            Some(_) => Stake::VolumeM3(week.iter().filter_map(|r| station.volume_m3(*r)).sum()),
            None => Stake::DepthMm(week.iter().map(|r| station.net_mm(*r)).sum()),
        }
    }

    /// A run or cycle, at the year's highest percent, that is longer than the soil takes. A minute
    /// of grace: rates and soils are not known more finely than that.
    fn runs_off(&self, station: &PlanStation, worst: &Run) -> Option<Finding> {
        let longest = station.longest_minutes?;
        if worst.length.minutes() <= longest + 1.0 {
            return None;
        }
        let setting = self
            .controller
            .station(station.number)
            .and_then(|s| s.runoff().setting(&self.controller.capability))
            .filter(|_| self.controller.capability.cycle_soak);
        let over = (worst.length.minutes() - longest) / 60.0 * station.rate_mm_per_hour;
        let problem = Problem::RunsOff { run: worst.length, longest, setting };
        let mut f = Finding::new(problem, Severity::Fault, Some(worst.letter));
        f.station = Some(station.number);
        f.stake = Stake::DepthMm(over);
        let shows = self.now.runs.iter().filter(|r| r.station == station.number);
        f.marks = shows
            .filter(|r| r.length.minutes() > longest + 1.0)
            .map(|r| Mark { date: r.date, at: r.local_start })
            .collect();
        Some(f)
    }

    fn sensors<Tz: TimeZone>(&self, situation: &Situation<'_, Tz>, out: &mut Vec<Finding>) {
        if situation.rules.needs_sensor && !self.controller.stations.is_empty() {
            let week = || situation.first.iter_days().take(7);
            let is_bypassed = |id| {
                let bypass = TemporaryKind::Bypass { sensor: id };
                self.controller.temporaries.iter().any(|t| t.kind == bypass && week().any(|day| t.holds_on(day)))
            };
            let watches = |s: &Sensor| matches!(s.kind, SensorKind::Rain { .. } | SensorKind::Freeze { .. });
            let mut working = self.controller.sensors.iter().filter(|s| watches(s) && s.jumper_removed);
            if working.all(|s| is_bypassed(s.id)) {
                let f = Finding::new(Problem::SensorRequired, Severity::Rule, None);
                out.push(Finding { stake: Stake::Rule, ..f });
            }
        }
        for sensor in &self.controller.sensors {
            let SensorKind::Et { programs, .. } = &sensor.kind else { continue };
            for letter in programs {
                if self.controller.program(*letter).is_some_and(Program::has_percent_by_hand) {
                    out.push(Finding::new(Problem::FightsSensor, Severity::Fault, Some(*letter)));
                }
            }
        }
    }
}

/// What is missing of the water of all starts when only some are there.
fn short(water: f64, there: usize, needed: u8) -> f64 {
    if there == 0 { 0.0 } else { water / there as f64 * (f64::from(needed) - there as f64) }
}

/// Two neighbours in a week of four days that is meant as every other day.
fn side_by_side(days: Days) -> Option<(Weekday, Weekday)> {
    let gaps = days.gaps();
    let pairs = gaps.iter().filter(|g| **g == 1).count();
    if days.count() != 4 || pairs != 1 {
        return None;
    }
    let at = gaps.iter().position(|g| *g == 1)?;
    let held: Vec<Weekday> = days.iter().collect();
    Some((held[at], held[(at + 1) % held.len()]))
}
