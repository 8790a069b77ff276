//! A first schedule: stations grouped, days and starts that fit rules, window and capability.

use chrono::TimeZone;

use super::longest_start::longest_start;
use super::situation::Situation;
use super::wish::{DayWish, TimeWish, Wish};
use crate::budget::YearBudget;
use crate::controller::{Controller, DayMode, Days, Program, ProgramLetter, Schedule, StartTime, Station, choose_days};
use crate::landscape::{Plant, WaterNeed};
use crate::place::DateRule;

/// Whether stations change programs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Grouping {
    /// They stay in theirs.
    Keep,
    /// By need and exposure: roofed apart, then turf, beds and what needs little, drip apart.
    ByNeed,
}

/// Something that could not be fitted, and by how much.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Shortfall {
    /// All programs together take longer than the free hours of a day.
    Hours {
        /// Minutes that they take.
        needed: i64,
        /// Minutes that are free at a stretch.
        free: i64,
    },
    /// A program needs more waterings a week than there are days.
    Days {
        /// The program.
        letter: ProgramLetter,
        /// Waterings a week that soil and plant ask for.
        needed: u8,
        /// Days on which watering is allowed.
        allowed: u8,
    },
}

/// A first schedule.
#[derive(Debug, Clone, PartialEq)]
pub struct Proposal {
    /// The controller with the schedule on it. Nothing in it exceeds the capability.
    pub controller: Controller,
    /// What could not be fitted.
    pub shortfalls: Vec<Shortfall>,
}

/// Programs should have ended by this minute of the day, 08:00, where no rule says otherwise
/// (common practice: before people are about and the wind gets up).
const ENDS_BY: u16 = 480;

/// Proposes programs, days, starts and cycles.
///
/// Days: as many as the budget waters in the base month, spread evenly over those that the rules
/// allow, programs on different days where that is possible. Starts: one a program, back to back,
/// the last ending before the first closed hour of the morning (08:00 where there is none) at
/// the year's highest percent. Cycles: where soil and slope ask for them and the panel has them;
/// where it has none, the watering is divided over its starts. The method is our own.
#[must_use]
pub fn propose<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller, grouping: Grouping) -> Proposal {
    propose_as(situation, controller, grouping, Wish::default())
}

/// As [`propose`], by other days or at another time of the day.
#[must_use]
pub fn propose_as<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    grouping: Grouping,
    wish: Wish,
) -> Proposal {
    let mut c = controller.clone();
    if grouping == Grouping::ByNeed {
        group(&mut c);
    }
    for program in &mut c.programs {
        program.schedule = Schedule::default();
    }
    set_cycles(&mut c);
    let mut shortfalls = Vec::new();
    let budget = situation.budget(&c);
    choose_all_days(situation, &mut c, budget.as_ref(), wish.days, &mut shortfalls);
    choose_starts(situation, &mut c, wish.time, &mut shortfalls);
    Proposal { controller: c, shortfalls }
}

/// The kind of stations under a roof, which keep a program of their own.
const ROOFED: u8 = 4;

/// What a station is grouped by: its roof, how it is watered and how long its plants can wait.
fn kind(station: &Station) -> u8 {
    let thrifty = matches!(station.planting.need, Some(WaterNeed::VeryLow | WaterNeed::Low));
    match station.plant {
        _ if station.roofed => ROOFED,
        plant if plant.is_turf() => 0,
        _ if station.sprinkler.kind.wets_the_surface() => 1,
        Plant::Trees | Plant::FruitTrees => 3,
        _ if thrifty => 3,
        _ => 2,
    }
}

fn group(c: &mut Controller) {
    let mut kinds: Vec<u8> = c.stations.iter().map(kind).collect();
    kinds.sort_unstable();
    kinds.dedup();
    let programs = usize::from(c.capability.programs.clamp(1, 4));
    for station in &mut c.stations {
        let place = kinds.iter().position(|k| *k == kind(station)).unwrap_or(0);
        // What no longer has a program of its own joins the last one; a roof keeps its own.
        let last = programs - 1;
        let place = if kinds.len() > programs && station.roofed {
            last
        } else if kinds.len() > programs && kinds.contains(&ROOFED) {
            place.min(last.saturating_sub(1))
        } else {
            place.min(last)
        };
        station.program = ProgramLetter::ALL[place];
        station.also = None;
    }
    c.normalise_programs();
}

fn set_cycles(c: &mut Controller) {
    if !c.capability.cycle_soak {
        for station in &mut c.stations {
            station.cycle = None;
        }
        return;
    }
    let capability = c.capability;
    for station in &mut c.stations {
        station.cycle = station.runoff().setting(&capability);
    }
}

fn choose_all_days<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &mut Controller,
    budget: Option<&YearBudget>,
    wish: DayWish,
    shortfalls: &mut Vec<Shortfall>,
) {
    let rules = situation.rules;
    let most = rules.limit(c.capability).watering_days;
    let modes = c.capability.day_modes;
    let by_date = rules.dates.map(DateRule::mode).or(match wish {
        DayWish::Odd => Some(DayMode::Odd),
        DayWish::Even => Some(DayMode::Even),
        DayWish::Weekdays | DayWish::EveryN => None,
    });
    let by_date = by_date.filter(|_| modes.odd_even);
    let mut load = [0.0; 7];
    let stations = c.stations.clone();
    for program in c.programs.iter_mut().filter(|p| stations.iter().any(|s| s.runs_in(p.letter))) {
        let bases: Vec<_> = budget
            .and_then(|b| b.group(program.letter))
            .map_or_else(Vec::new, |g| g.stations.iter().filter(|s| s.program == program.letter).collect());
        let a_week = bases.iter().map(|s| s.waterings).max_by(f64::total_cmp);
        if let Some(days) = a_week.filter(|w| *w < 1.0).map(|w| (7.0 / w).round() as u8) {
            // Roots that reach deep wait longer than a week.
            program.schedule.days = DayMode::Every { days, next: situation.first };
            continue;
        }
        if let Some(mode) = by_date {
            program.schedule.days = mode;
            continue;
        }
        // As long as the thirstiest station can wait.
        let interval = bases.iter().map(|s| s.interval_days.floor()).min_by(f64::total_cmp);
        if let Some(days) = interval.filter(|_| wish == DayWish::EveryN && modes.every_max > 1) {
            // A cast that saturates, cut to what the panel counts.
            let days = (days as u8).clamp(1, modes.every_max);
            program.schedule.days = DayMode::Every { days, next: situation.first };
            continue;
        }
        // 1 to 7 by its own limits.
        let waterings = a_week.map(|w| w.ceil() as u8).or(program.waterings_per_week).unwrap_or(most);
        let asked = bases.iter().map(|s| (7.0 / s.interval_days).ceil() as u8).max().unwrap_or(waterings);
        if asked > most && program.waterings_per_week.is_none() {
            shortfalls.push(Shortfall::Days { letter: program.letter, needed: asked, allowed: most });
        }
        let days = choose_days(rules.days, waterings.min(most), &load);
        program.schedule.days = DayMode::Weekdays(days);
        let minutes: f64 = bases.iter().map(|s| s.run.minutes()).sum::<f64>().max(1.0);
        for day in days.iter() {
            load[day.num_days_from_monday() as usize] += minutes;
        }
    }
}

/// A program that still needs its starts.
struct Unplaced {
    letter: ProgramLetter,
    days: Days,
    /// Starts that stand in for cycles, and minutes from one to the next.
    starts: i64,
    apart: i64,
    /// Minutes from its first start to its last valve, at the year's highest percent.
    length: i64,
}

/// From the end of the window backwards, the last program first: programs that share a day follow
/// one another, others may run at the same hour.
fn choose_starts<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &mut Controller,
    wish: TimeWish,
    shortfalls: &mut Vec<Shortfall>,
) {
    let step = i64::from(c.capability.start_step.max(1));
    let plan = situation.plan(c);
    let unplaced: Vec<Unplaced> = c
        .programs
        .iter()
        .filter_map(|p| match p.schedule.days {
            DayMode::Weekdays(days) if days.is_empty() => None,
            DayMode::Weekdays(days) => Some(unplaced(situation, c, p.letter, days)),
            // Days that go by the date fall on every weekday in turn.
            _ => Some(unplaced(situation, c, p.letter, Days::ALL)),
        })
        .collect();
    let needed = busiest_day(&unplaced, step);
    let (opens, shuts) = match wish {
        TimeWish::Morning => window(situation, needed),
        TimeWish::Evening => evening(situation).unwrap_or_else(|| window(situation, needed)),
    };
    let (opens, shuts) = (i64::from(opens), i64::from(shuts));
    let mut placed: Vec<(Days, i64)> = Vec::new();
    let mut lacking = false;
    for mut program in unplaced.into_iter().rev() {
        let limit = placed.iter().filter(|(days, _)| !days.and(program.days).is_empty()).map(|(_, at)| *at).min();
        let limit = limit.unwrap_or(shuts);
        let first_possible = (opens + step - 1).div_euclid(step) * step;
        // Rules come before runoff: a watering is divided over fewer starts before it runs late.
        while program.starts > 1 && limit - program.length < first_possible {
            program = undivided(situation, c, &plan, program);
        }
        let at = (limit - program.length).div_euclid(step) * step;
        lacking |= at < first_possible;
        let at = at.max(first_possible.min(1439));
        placed.push((program.days, at));
        // What begins after midnight begins on the day after.
        let (days_on, at) = (at.div_euclid(1440), at.rem_euclid(1440));
        let times: Vec<StartTime> = (0..program.starts)
            .filter_map(|i| StartTime::new(u16::try_from(at + i * program.apart).ok()?).ok())
            .collect();
        if let Some(own) = c.program_mut(program.letter) {
            if let DayMode::Weekdays(days) = own.schedule.days
                && days_on > 0
            {
                own.schedule.days = DayMode::Weekdays(days.day_after());
            }
            set_starts(own, times);
        }
    }
    if lacking {
        shortfalls.push(Shortfall::Hours { needed, free: shuts - opens });
    }
}

fn unplaced<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &Controller,
    letter: ProgramLetter,
    days: Days,
) -> Unplaced {
    let plan = situation.plan(c);
    match division(situation, c, letter) {
        // Each start has its share of the minutes; they are as far apart as the soak asks.
        Some((starts, share, apart)) => Unplaced { letter, days, starts, apart, length: apart * (starts - 1) + share },
        None => {
            let length = longest_start(situation, c, &plan, letter);
            Unplaced { letter, days, starts: 1, apart: length, length }
        }
    }
}

/// The same program with its watering in one start.
fn undivided<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &Controller,
    plan: &super::plan::Plan,
    program: Unplaced,
) -> Unplaced {
    let length = longest_start(situation, c, plan, program.letter);
    Unplaced { starts: 1, apart: length, length, ..program }
}

/// Minutes that the programs of the fullest day take one after another.
fn busiest_day(unplaced: &[Unplaced], step: i64) -> i64 {
    let of_day = |day| {
        let own = unplaced.iter().filter(|u| u.days.holds(day));
        own.map(|u| (u.length + step - 1).div_euclid(step) * step).sum::<i64>()
    };
    Days::WEEK.into_iter().map(of_day).max().unwrap_or(0)
}

fn set_starts(program: &mut Program, times: Vec<StartTime>) {
    program.schedule.split = u8::try_from(times.len()).unwrap_or(1).max(1);
    program.schedule.starts = times;
}

/// The free stretch that ends in the morning and holds what is needed: the last one that ends
/// between 05:00 and noon, else the longest, which may go on through the night.
fn window<Tz: TimeZone>(situation: &Situation<'_, Tz>, needed: i64) -> (u16, u16) {
    let rules = situation.rules;
    let free = rules.free_minutes();
    // Through the night, where the day after is always open too.
    let nights = if rules.is_open_every_day() { rules.free_stretches() } else { free.clone() };
    let morning = free.iter().copied().filter(|(from, to)| *from < ENDS_BY && *to > 300).map(|(from, to)| {
        // Where the stretch goes on into the day it ends by 08:00 when what is needed fits.
        let end = if to > ENDS_BY && i64::from(ENDS_BY) - i64::from(from) >= needed { ENDS_BY } else { to };
        (from, end)
    });
    let longest = nights.into_iter().max_by_key(|(from, to)| to - from);
    morning.into_iter().rfind(|(from, to)| i64::from(to - from) >= needed).or(longest).unwrap_or((0, 1440))
}

/// Evening watering begins no earlier than 17:00 and ends by 23:00 (common practice: the sun is low, and what is
/// wet overnight stays wet longest).
const EVENING: (u16, u16) = (1020, 1380);

/// The free stretch of the evening; nothing where the rules leave none.
fn evening<Tz: TimeZone>(situation: &Situation<'_, Tz>) -> Option<(u16, u16)> {
    let free = situation.rules.free_minutes().into_iter();
    free.map(|(from, to)| (from.max(EVENING.0), to.min(EVENING.1))).rfind(|(from, to)| from < to)
}

/// Starts that stand in for cycles on a panel without them, minutes of each, and from one to the
/// next.
fn division<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &Controller,
    letter: ProgramLetter,
) -> Option<(i64, i64, i64)> {
    if c.capability.cycle_soak {
        return None;
    }
    let plan = situation.plan(c);
    let highest = plan.highest(letter).map_or(1.0, |(_, p)| f64::from(p.get()) / 100.0);
    let starts = plan
        .of_program(letter)
        .filter_map(|s| s.longest_minutes.map(|longest| (s.base.minutes() * highest / longest.max(0.5)).ceil()))
        .fold(1.0, f64::max)
        .min(f64::from(c.capability.starts)) as i64;
    if starts < 2 {
        return None;
    }
    let soak = c.stations.iter().filter(|s| s.runs_in(letter)).map(|s| s.runoff().soak_minutes).fold(0.0, f64::max);
    let share: f64 = plan.of_program(letter).map(|s| (s.base.minutes() * highest / starts as f64).ceil() + 1.0).sum();
    let step = i64::from(c.capability.start_step.max(1));
    let apart = (share.max(soak).ceil() as i64 + step - 1) / step * step;
    Some((starts, share.ceil() as i64, apart))
}

/// Days that a proposal may use, for a page that says why.
impl Proposal {
    /// Weekdays that any program of the proposal waters on.
    #[must_use]
    pub fn days(&self) -> Days {
        self.controller.programs.iter().fold(Days::NONE, |days, p| match p.schedule.days {
            DayMode::Weekdays(own) => own.iter().fold(days, Days::with),
            _ => days,
        })
    }
}
