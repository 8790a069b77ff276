//! Repairs: one action each, tried before it is offered.

use chrono::{TimeDelta, TimeZone};

use super::finding::{Code, Finding, What};
use super::findings::check;
use super::plan::{Level, Plan};
use super::propose::{Grouping, propose};
use super::situation::Situation;
use crate::controller::{Controller, DayMode, Days, MonthDial, ProgramLetter, Schedule, StartTime};
use crate::landscape::CycleSoak;
use crate::quantity::RunTime;

/// A change that mends a finding.
#[derive(Debug, Clone, PartialEq)]
pub enum Repair {
    /// Takes a start out.
    RemoveStart(ProgramLetter, StartTime),
    /// Moves a start.
    MoveStart {
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: StartTime,
        /// To.
        to: StartTime,
    },
    /// Other days.
    SetDays(ProgramLetter, DayMode),
    /// Weekdays on which the program never runs.
    NeverOn(ProgramLetter, Days),
    /// Cycle and soak of a station.
    SetCycle(u8, CycleSoak),
    /// A watering divided over several starts.
    Divide(ProgramLetter, Vec<StartTime>),
    /// One start, minutes whole.
    WholeStart(ProgramLetter, StartTime),
    /// Neither days nor starts.
    ClearSchedule(ProgramLetter),
    /// Days and starts as the tool proposes them.
    TakeProposal(ProgramLetter, Schedule),
    /// Minutes as they are worked out.
    WorkOutMinutes(u8, RunTime),
    /// A station leaves its second program.
    LeaveProgram(u8, ProgramLetter),
    /// Minutes for this many waterings a week.
    MinutesFor(ProgramLetter, u8),
    /// No month's percent by hand.
    FreePercent(ProgramLetter),
}

impl Repair {
    /// The controller with the repair made; nothing when it cannot be made there.
    #[must_use]
    pub fn applied(&self, controller: &Controller) -> Option<Controller> {
        let mut c = controller.clone();
        match self {
            Self::RemoveStart(letter, start) => c.program_mut(*letter)?.schedule.starts.retain(|s| s != start),
            Self::MoveStart { letter, from, to } => {
                let starts = &mut c.program_mut(*letter)?.schedule.starts;
                *starts.iter_mut().find(|s| *s == from)? = *to;
                starts.sort_unstable();
            }
            Self::SetDays(letter, days) => c.program_mut(*letter)?.schedule.days = *days,
            Self::NeverOn(letter, days) => {
                let never = &mut c.program_mut(*letter)?.schedule.never;
                *never = days.iter().fold(*never, Days::with);
            }
            Self::SetCycle(station, cycle) => c.station_mut(*station)?.cycle = Some(*cycle),
            Self::Divide(letter, starts) => {
                let schedule = &mut c.program_mut(*letter)?.schedule;
                schedule.split = u8::try_from(starts.len()).ok()?;
                schedule.starts.clone_from(starts);
            }
            Self::WholeStart(letter, start) => {
                let schedule = &mut c.program_mut(*letter)?.schedule;
                schedule.split = 1;
                schedule.starts = vec![*start];
            }
            Self::ClearSchedule(letter) => {
                c.program_mut(*letter)?.schedule = Schedule::default();
            }
            Self::TakeProposal(letter, schedule) => c.program_mut(*letter)?.schedule = schedule.clone(),
            Self::WorkOutMinutes(station, _) => c.station_mut(*station)?.minutes = None,
            Self::LeaveProgram(station, letter) => {
                let station = c.station_mut(*station)?;
                (station.also == Some(*letter)).then_some(())?;
                station.also = None;
            }
            Self::MinutesFor(letter, waterings) => {
                c.program_mut(*letter)?.waterings_per_week = Some(*waterings);
                for station in c.stations.iter_mut().filter(|s| s.program == *letter) {
                    station.minutes = None;
                }
            }
            Self::FreePercent(letter) => {
                for month in &mut c.program_mut(*letter)?.months {
                    if matches!(month.dial, MonthDial::Set(_)) {
                        month.dial = MonthDial::Computed;
                    }
                }
            }
        }
        (c.check().is_ok() && c != *controller).then_some(c)
    }
}

/// Makes every repair, one after another, each looked for anew; gives the controller and what was
/// done, in order.
#[must_use]
pub fn repair_all<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller) -> (Controller, Vec<Repair>) {
    let mut mended = controller.clone();
    let mut done = Vec::new();
    // Each repair takes a finding away and adds none, so this ends; the bound is for safety.
    for _ in 0..64 {
        let next = check(situation, &mended).into_iter().find_map(|f| f.repair);
        let Some((repair, after)) = next.and_then(|r| r.applied(&mended).map(|after| (r, after))) else { break };
        mended = after;
        done.push(repair);
    }
    (mended, done)
}

/// Repairs worth trying for a finding, best first.
pub(super) fn candidates<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    finding: &Finding,
) -> Vec<Repair> {
    let Some(letter) = finding.letter else { return Vec::new() };
    let Some(program) = controller.program(letter) else { return Vec::new() };
    let schedule = &program.schedule;
    match (finding.code, &finding.what) {
        (Code::SecondStart, What::Start(start)) => vec![Repair::RemoveStart(letter, *start)],
        (Code::TwoWaysOfSoak, _) => schedule.starts.iter().map(|start| Repair::WholeStart(letter, *start)).collect(),
        (Code::InTwoPrograms, What::Second(second)) => {
            finding.station.map(|n| Repair::LeaveProgram(n, *second)).into_iter().collect()
        }
        (Code::NotScheduled, _) => {
            let proposal = propose(situation, controller, Grouping::Keep);
            let proposed = proposal.controller.program(letter).map(|p| p.schedule.clone());
            proposed.map(|s| Repair::TakeProposal(letter, s)).into_iter().collect()
        }
        (Code::GhostProgram, _) => vec![Repair::ClearSchedule(letter)],
        (Code::NoMinutes, _) => {
            let Some(number) = finding.station else { return Vec::new() };
            let mut free = controller.clone();
            if let Some(station) = free.station_mut(number) {
                station.minutes = None;
            }
            let run = situation.plan(&free).station(number).map_or(RunTime::ZERO, |s| s.base);
            if run > RunTime::ZERO { vec![Repair::WorkOutMinutes(number, run)] } else { Vec::new() }
        }
        (Code::RunsOff, What::Runoff { longest, setting, .. }) => match (finding.station, setting) {
            (Some(number), Some(setting)) => vec![Repair::SetCycle(number, *setting)],
            _ => divided(situation, controller, letter, *longest),
        },
        (Code::TooFewStarts, What::Starts { needed, .. }) => more_starts(situation, controller, letter, *needed)
            .into_iter()
            .chain(schedule.starts.first().map(|s| Repair::WholeStart(letter, *s)))
            .collect(),
        (Code::DaysAndMinutes, What::Waterings { scheduled, meant }) => {
            other_days(situation, controller, letter, *scheduled, *meant)
        }
        (Code::FightsSensor, _) => vec![Repair::FreePercent(letter)],
        (Code::ForbiddenDay, what) => closed_days(situation, controller, letter, what),
        (Code::ForbiddenHour | Code::LateAtHighest, _) => moves(situation, controller, letter, None),
        (Code::Waits, What::WaitsFor { planned, .. }) => moves(situation, controller, letter, Some(*planned)),
        (Code::OddNeighbours, _) => vec![
            Repair::SetDays(letter, DayMode::Every { days: 2, next: situation.first }),
            Repair::SetDays(letter, DayMode::Even),
        ],
        (Code::NeighbouringDays, What::SideBySide(_, second)) => {
            let every = DayMode::Every { days: 2, next: situation.first };
            let fewer = match schedule.days {
                DayMode::Weekdays(days) => Some(Repair::SetDays(letter, DayMode::Weekdays(days.without(*second)))),
                _ => None,
            };
            std::iter::once(Repair::SetDays(letter, every)).chain(fewer).collect()
        }
        _ => Vec::new(),
    }
}

/// Closed days come off; where the days carry waterings they go to days that are free.
fn closed_days<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    what: &What,
) -> Vec<Repair> {
    let Some(program) = controller.program(letter) else { return Vec::new() };
    let rules = situation.rules;
    match (program.schedule.days, what) {
        (DayMode::Weekdays(days), What::ClosedDays(closed)) => {
            let open = days.and(closed.complement());
            let moved = super::days_fit::even_days(rules.days, days.count());
            // As many waterings as before where the open days carry them, else fewer.
            let same = closed.iter().try_fold(open, |days, from| {
                let gap = |d: &chrono::Weekday| {
                    let apart = (7 + d.num_days_from_monday() - from.num_days_from_monday()) % 7;
                    apart.min(7 - apart)
                };
                Days::WEEK
                    .into_iter()
                    .filter(|d| rules.days.holds(*d) && !days.holds(*d))
                    .min_by_key(gap)
                    .map(|d| days.with(d))
            });
            same.into_iter()
                .chain([moved, open])
                .filter(|d| !d.is_empty())
                .map(|d| Repair::SetDays(letter, DayMode::Weekdays(d)))
                .collect()
        }
        (DayMode::Weekdays(_), _) => Vec::new(),
        _ => {
            let never = Repair::NeverOn(letter, rules.days.complement());
            let count = program.schedule.waterings_a_week().round().max(1.0);
            // 1 to 7 by its own limits.
            let weekdays = super::days_fit::even_days(rules.days, count as u8);
            vec![never, Repair::SetDays(letter, DayMode::Weekdays(weekdays))]
        }
    }
}

/// Days for the waterings that the minutes are for, else minutes for the waterings there are.
fn other_days<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    scheduled: f64,
    meant: u8,
) -> Vec<Repair> {
    let chosen = controller.program(letter).and_then(|p| p.waterings_per_week).is_some();
    let days = super::days_fit::even_days(situation.rules.days, meant);
    let by_days = Repair::SetDays(letter, DayMode::Weekdays(days));
    // 1 to 7 by its own limits.
    let by_minutes = Repair::MinutesFor(letter, scheduled.round().clamp(1.0, 7.0) as u8);
    // What the technician chose stays; the other follows.
    if chosen { vec![by_days, by_minutes] } else { vec![by_minutes, by_days] }
}

/// Starts that take the place of cycles, each far enough from the one before.
fn divided<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    longest: f64,
) -> Vec<Repair> {
    let plan = situation.plan(controller);
    let highest = plan.highest(letter).map_or(100.0, |(_, p)| f64::from(p.get()));
    let longest_run = plan.of_program(letter).map(|s| s.base.minutes()).fold(0.0, f64::max) * highest / 100.0;
    let need = (longest_run / longest.max(0.5)).ceil().clamp(2.0, 16.0) as u8;
    (2..=controller.capability.starts.min(16))
        .filter(|n| *n >= need.min(controller.capability.starts))
        .flat_map(|n| more_starts(situation, controller, letter, n))
        .collect()
}

fn more_starts<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    needed: u8,
) -> Vec<Repair> {
    let Some(first) = controller.program(letter).and_then(|p| p.schedule.starts.first()) else { return Vec::new() };
    let plan = situation.plan(controller);
    let soak =
        controller.stations.iter().filter(|s| s.runs_in(letter)).map(|s| s.runoff().soak_minutes).fold(0.0, f64::max);
    let highest = plan.highest(letter).map_or(100.0, |(_, p)| f64::from(p.get()));
    let total: f64 = plan.of_program(letter).map(|s| s.base.minutes()).sum::<f64>() * highest / 100.0;
    let apart = (total / f64::from(needed.max(1))).max(soak).ceil() as u32;
    let step = u32::from(controller.capability.start_step.max(1));
    let apart = apart.div_ceil(step) * step;
    let length = apart * u32::from(needed);
    // As late as it now begins, or earlier where the whole would run into the day.
    [u32::from(first.minute_of_day()), 360_u32.saturating_sub(length), 0]
        .into_iter()
        .filter_map(|from| {
            let from = from / step * step;
            let starts: Option<Vec<StartTime>> = (0..u32::from(needed))
                .map(|i| u16::try_from(from + i * apart).ok().and_then(|m| StartTime::new(m).ok()))
                .collect();
            starts.map(|s| Repair::Divide(letter, s))
        })
        .collect()
}

/// Starts moved to where they may end in time and nobody waits: before the hours that are
/// closed, before and after other programs, at the beginning of free hours.
fn moves<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    only: Option<StartTime>,
) -> Vec<Repair> {
    let Some(program) = controller.program(letter) else { return Vec::new() };
    let plan = situation.plan(controller);
    let longest = |l: ProgramLetter, c: &Controller| longest_start(situation, c, &plan, l);
    let own = longest(letter, controller);
    let step = i64::from(controller.capability.start_step.max(1));
    let mut out = Vec::new();
    for from in program.schedule.starts.iter().filter(|s| only.is_none_or(|o| o == **s)) {
        let mut minutes: Vec<i64> = Vec::new();
        for (open, shut) in situation.rules.free_minutes() {
            minutes.push(i64::from(shut) - own);
            minutes.push(i64::from(open));
        }
        for other in controller.programs.iter().filter(|p| p.letter != letter) {
            let length = longest(other.letter, controller);
            for start in &other.schedule.starts {
                let start = i64::from(start.minute_of_day());
                minutes.push(start - own);
                // Up to the panel's step, so that nobody waits.
                minutes.push(
                    (start + length).div_euclid(step) * step + if (start + length) % step == 0 { 0 } else { step },
                );
            }
        }
        let now = i64::from(from.minute_of_day());
        let mut times: Vec<StartTime> = minutes
            .into_iter()
            .filter(|m| (0..1440).contains(m))
            .filter_map(|m| StartTime::new(u16::try_from(m).ok()?).ok())
            .map(|t| t.down_to(controller.capability.start_step))
            .filter(|t| t != from && !program.schedule.starts.contains(t))
            .collect();
        times.sort_unstable();
        times.dedup();
        // The nearest first; a start may move to the evening before only when nothing else fits.
        times.sort_by_key(|t| (i64::from(t.minute_of_day()) - now).abs());
        out.extend(times.into_iter().map(|to| Repair::MoveStart { letter, from: *from, to }));
    }
    out
}

/// The longest that one start of a program takes, alone on the line, at the year's highest
/// percent, minutes.
pub(super) fn longest_start<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    plan: &Plan,
    letter: ProgramLetter,
) -> i64 {
    let mut alone = controller.clone();
    alone.programs.retain(|p| p.letter == letter);
    for program in &mut alone.programs {
        program.schedule = Schedule {
            days: DayMode::Weekdays(Days::ALL),
            never: Days::NONE,
            starts: StartTime::new(0).into_iter().collect(),
            split: program.schedule.split,
        };
    }
    let day = [situation.first, situation.first];
    let found = super::runs::expand(&alone, plan, situation.zone, day, Level::Highest);
    // Counted by the clock that does not change, up to whole minutes.
    found.starts.iter().map(|s| (s.ended - s.began + TimeDelta::seconds(59)).num_minutes()).max().unwrap_or(0)
}
