//! Repairs worth trying for a finding. Each is tried by [`check`](super::check) before it is offered.

use chrono::TimeZone;

use super::finding::{Finding, Problem};
use super::longest_start::longest_start;
use super::propose::{Grouping, propose};
use super::repair::Repair;
use super::situation::Situation;
use crate::controller::{Controller, DayMode, Days, ProgramLetter, StartTime, even_days};
use crate::quantity::RunTime;

/// Repairs worth trying for a finding, best first.
pub(super) fn candidates<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    finding: &Finding,
) -> Vec<Repair> {
    let Some(letter) = finding.letter else { return Vec::new() };
    let Some(program) = controller.program(letter) else { return Vec::new() };
    let rules = situation.rules.within(&controller.windows);
    let situation = &Situation { rules: &rules, ..*situation };
    let schedule = &program.schedule;
    match &finding.problem {
        Problem::SecondStart { start } => vec![Repair::RemoveStart(letter, *start)],
        Problem::TwoWaysOfSoak => schedule.starts.iter().map(|start| Repair::WholeStart(letter, *start)).collect(),
        Problem::InTwoPrograms { second } => {
            finding.station.map(|n| Repair::LeaveProgram(n, *second)).into_iter().collect()
        }
        Problem::NotScheduled => {
            let proposal = propose(situation, controller, Grouping::Keep);
            let proposed = proposal.controller.program(letter).map(|p| p.schedule.clone());
            proposed.map(|s| Repair::TakeProposal(letter, s)).into_iter().collect()
        }
        Problem::GhostProgram => vec![Repair::ClearSchedule(letter)],
        Problem::NoMinutes => {
            let Some(number) = finding.station else { return Vec::new() };
            let mut free = controller.clone();
            if let Some(station) = free.station_mut(number) {
                station.minutes = None;
            }
            let run = situation.plan(&free).station(number).map_or(RunTime::ZERO, |s| s.base);
            if run > RunTime::ZERO { vec![Repair::WorkOutMinutes(number, run)] } else { Vec::new() }
        }
        Problem::RunsOff { longest, setting, .. } => match (finding.station, setting) {
            (Some(number), Some(setting)) => vec![Repair::SetCycle(number, *setting)],
            _ => divided(situation, controller, letter, *longest),
        },
        Problem::TooFewStarts { needed, .. } => more_starts(situation, controller, letter, *needed)
            .into_iter()
            .chain(schedule.starts.first().map(|s| Repair::WholeStart(letter, *s)))
            .collect(),
        Problem::DaysAndMinutes { scheduled, meant } => other_days(situation, controller, letter, *scheduled, *meant),
        // Several programs come to it together, or it takes hands at the sensor.
        Problem::TooManyOpenings { .. } | Problem::SensorRequired => Vec::new(),
        Problem::RunHeld { .. }
        | Problem::PercentHeld { .. }
        | Problem::DeeperThanSoil { .. }
        | Problem::DeeperThanReady { .. } => more_days(situation, controller, letter),
        Problem::RainCountedTwice => vec![Repair::LeaveRainToSensor(letter)],
        Problem::FightsSensor => vec![Repair::FreePercent(letter)],
        Problem::ForbiddenWeekdays { days } => closed_weekdays(situation, controller, letter, *days),
        Problem::ForbiddenDate { .. } => closed_dates(situation, controller, letter),
        Problem::ForbiddenHour { .. }
        | Problem::LateAtHighest { .. }
        | Problem::OutsideWindow { .. }
        | Problem::NotDone { .. } => moves(situation, controller, letter, None),
        Problem::Waits { planned, .. } => moves(situation, controller, letter, Some(*planned)),
        Problem::OddNeighbours => vec![
            Repair::SetDays(letter, DayMode::Every { days: 2, next: situation.first }),
            Repair::SetDays(letter, DayMode::Even),
        ],
        Problem::NeighbouringDays { second, .. } => {
            let every = DayMode::Every { days: 2, next: situation.first };
            let fewer = match schedule.days {
                DayMode::Weekdays(days) => Some(Repair::SetDays(letter, DayMode::Weekdays(days.without(*second)))),
                _ => None,
            };
            std::iter::once(Repair::SetDays(letter, every)).chain(fewer).collect()
        }
    }
}

/// Closed weekdays come off; where the days carry waterings they go to days that are free.
fn closed_weekdays<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    closed: Days,
) -> Vec<Repair> {
    let Some(program) = controller.program(letter) else { return Vec::new() };
    let DayMode::Weekdays(days) = program.schedule.days else { return Vec::new() };
    let allowed = situation.allowed().days;
    let open = days.and(closed.complement());
    let moved = even_days(allowed, days.count());
    // As many waterings as before where the open days carry them, else fewer.
    let same = closed.iter().try_fold(open, |days, from| {
        let gap = |d: &chrono::Weekday| {
            let apart = (7 + d.num_days_from_monday() - from.num_days_from_monday()) % 7;
            apart.min(7 - apart)
        };
        Days::WEEK.into_iter().filter(|d| allowed.holds(*d) && !days.holds(*d)).min_by_key(gap).map(|d| days.with(d))
    });
    same.into_iter()
        .chain([moved, open])
        .filter(|d| !d.is_empty())
        .map(|d| Repair::SetDays(letter, DayMode::Weekdays(d)))
        .collect()
}

/// Where days go by the date: weekdays that are closed to the program, or weekdays in their place.
fn closed_dates<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
) -> Vec<Repair> {
    let Some(program) = controller.program(letter) else { return Vec::new() };
    if let Some(rule) = situation.allowed().dates.filter(|_| controller.capability.day_modes.odd_even) {
        return vec![Repair::SetDays(letter, rule.mode())];
    }
    if matches!(program.schedule.days, DayMode::Weekdays(_)) {
        return Vec::new();
    }
    let allowed = situation.allowed().days;
    let count = program.schedule.waterings_a_week().round().max(1.0);
    // 1 to 7 by its own limits.
    let weekdays = even_days(allowed, count as u8);
    vec![Repair::NeverOn(letter, allowed.complement()), Repair::SetDays(letter, DayMode::Weekdays(weekdays))]
}

/// Days for the waterings that the minutes are for, else minutes for the waterings there are.
fn other_days<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
    scheduled: f64,
    meant: f64,
) -> Vec<Repair> {
    let chosen = controller.program(letter).and_then(|p| p.waterings_per_week).is_some();
    // 1 to 7 by its own limits.
    let days = even_days(situation.allowed().days, meant.round().clamp(1.0, 7.0) as u8);
    let by_days = Repair::SetDays(letter, DayMode::Weekdays(days));
    // 1 to 7 by its own limits.
    let by_minutes = Repair::MinutesFor(letter, scheduled.round().clamp(1.0, 7.0) as u8);
    // What the technician chose stays; the other follows.
    if chosen { vec![by_days, by_minutes] } else { vec![by_minutes, by_days] }
}

/// More waterings a week, with shorter runs, where rules and panel leave days for them; fewest first.
fn more_days<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    letter: ProgramLetter,
) -> Vec<Repair> {
    let Some(program) = controller.program(letter) else { return Vec::new() };
    let DayMode::Weekdays(days) = program.schedule.days else { return Vec::new() };
    let most = situation.allowed().limit(controller.capability).watering_days;
    let more = (days.count() + 1..=most).map(|count| even_days(situation.allowed().days, count));
    more.map(|days| Repair::WaterMoreOften(letter, days)).collect()
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
/// closed, before people need the water, before and after other programs, at the beginning of free hours.
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
        let allowed = situation.allowed();
        for (open, shut) in allowed.free_minutes().into_iter().chain(allowed.free_stretches()) {
            minutes.push(i64::from(shut) - own);
            minutes.push(i64::from(open));
        }
        minutes.extend(situation.rules.done_by.map(|by| i64::from(by.minute_of_day()) - own));
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
