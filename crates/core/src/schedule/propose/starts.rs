//! At which times programs start: back to back, ending before the window does.

use chrono::TimeZone;

use crate::controller::{Controller, DayMode, Days, Program, ProgramLetter, StartTime};
use crate::place::Bound;
use crate::schedule::longest_start::longest_start;
use crate::schedule::plan::Plan;
use crate::schedule::situation::Situation;
use crate::schedule::wish::{TimeWish, Wish};

/// Programs should have ended by this minute of the day, 08:00, where the place states no other and no rule says
/// otherwise (common practice: before people are about and the wind gets up).
const ENDS_BY: u16 = 480;

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

/// A stretch that is taken on some days: weekdays, first minute and the one after the last. Minutes past 1440 are of
/// the day after.
type Taken = (Days, i64, i64);

/// From the end of the window backwards, the last program first: programs that share a day follow
/// one another, others may run at the same hour. Gives the minutes that are needed and those that are free, where
/// not everything has a place.
pub(super) fn choose_starts<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &mut Controller,
    wish: Wish,
) -> Option<[i64; 2]> {
    let step = i64::from(c.capability.start_step.max(1));
    let plan = situation.plan(c);
    let of_programs = |pinned: bool| {
        c.programs.iter().filter(move |p| wish.pinned.holds(p.letter) == pinned).filter_map(|p| match p.schedule.days {
            DayMode::Weekdays(days) if days.is_empty() => None,
            DayMode::Weekdays(days) => Some((p, days)),
            // Days that go by the date fall on every weekday in turn.
            _ => Some((p, Days::ALL)),
        })
    };
    let mut taken: Vec<Taken> =
        of_programs(true).flat_map(|(p, days)| stretches(situation, c, &plan, p, days)).collect();
    let unplaced: Vec<Unplaced> = of_programs(false).map(|(p, days)| unplaced(situation, c, p.letter, days)).collect();
    let needed = busiest_day(&unplaced, step);
    let windows = windows(situation, wish.time, needed);
    let mut lacking = false;
    for mut program in unplaced.into_iter().rev() {
        let place = |program: &Unplaced| windows.tried.iter().find_map(|window| latest(program, *window, &taken, step));
        let mut at = place(&program);
        // Rules come before runoff: a watering is divided over fewer starts before it runs late.
        while program.starts > 1 && at.is_none() {
            program = undivided(situation, c, &plan, program);
            at = place(&program);
        }
        lacking |= at.is_none();
        let at = at.unwrap_or_else(|| up_to(windows.tried[0][0], step).min(1439));
        taken.push((program.days, at, at + program.length));
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
    lacking.then_some([needed, windows.free])
}

/// The next start of a panel's step.
const fn up_to(minute: i64, step: i64) -> i64 {
    (minute + step - 1).div_euclid(step) * step
}

/// The latest start in a window at which nothing that shares a day is in the way.
fn latest(program: &Unplaced, [opens, shuts]: [i64; 2], taken: &[Taken], step: i64) -> Option<i64> {
    let down_to = |minute: i64| minute.div_euclid(step) * step;
    let mut at = down_to(shuts - program.length);
    loop {
        if at < up_to(opens, step) {
            return None;
        }
        let in_the_way = taken
            .iter()
            .filter(|(days, from, to)| !days.and(program.days).is_empty() && at < *to && *from < at + program.length)
            .map(|(_, from, _)| *from)
            .min();
        match in_the_way {
            Some(from) => at = down_to(from - program.length),
            None => return Some(at),
        }
    }
}

/// What a program takes that stays as it is, as the windows count: also as the end of the night before.
fn stretches<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &Controller,
    plan: &Plan,
    program: &Program,
    days: Days,
) -> Vec<Taken> {
    let length = longest_start(situation, c, plan, program.letter);
    // Six days on is one day back.
    let night_before = (0..6).fold(days, |days, _| days.day_after());
    let of_start = |start: &StartTime| {
        let at = i64::from(start.minute_of_day());
        [(days, at, at + length), (night_before, at + 1440, at + 1440 + length)]
    };
    program.schedule.starts.iter().flat_map(of_start).collect()
}

/// Where programs may go.
struct Windows {
    /// Stretches in minutes of the day, the first to be tried first.
    tried: Vec<[i64; 2]>,
    /// Minutes that are free in all.
    free: i64,
}

fn windows<Tz: TimeZone>(situation: &Situation<'_, Tz>, wish: TimeWish, needed: i64) -> Windows {
    let one = |(opens, shuts): (u16, u16)| [i64::from(opens), i64::from(shuts)];
    let length = |[opens, shuts]: [i64; 2]| shuts - opens;
    let morning = || one(window(situation, needed));
    let evening = evening(situation).map(one);
    let tried = match (wish, evening) {
        (TimeWish::Morning, _) | (_, None) => vec![morning()],
        (TimeWish::Evening, Some(evening)) => vec![evening],
        (TimeWish::Both, Some(evening)) => {
            // Before people are about what ends by then, by the first closed hour what does not.
            let early = one(window(situation, 0));
            let mut free = situation.allowed().free_minutes().into_iter().map(one);
            let whole = free.rfind(|[opens, shuts]| *opens <= early[0] && early[1] <= *shuts).unwrap_or(early);
            return Windows { free: length(whole) + length(evening), tried: vec![early, whole, evening] };
        }
    };
    Windows { free: tried.iter().copied().map(length).sum(), tried }
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
fn undivided<Tz: TimeZone>(situation: &Situation<'_, Tz>, c: &Controller, plan: &Plan, program: Unplaced) -> Unplaced {
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

/// The minute of the day by which programs should have ended.
fn ends_by<Tz: TimeZone>(situation: &Situation<'_, Tz>) -> u16 {
    situation.rules.done_by.map_or(ENDS_BY, StartTime::minute_of_day)
}

/// The free stretch that ends in the morning and holds what is needed: the last one that ends
/// between 05:00 and noon, else the longest, which may go on through the night.
fn window<Tz: TimeZone>(situation: &Situation<'_, Tz>, needed: i64) -> (u16, u16) {
    let rules = situation.allowed();
    let free = rules.free_minutes();
    // Through the night, where the day after is always open too.
    let nights = if situation.rules.is_open_every_day(situation.first) { rules.free_stretches() } else { free.clone() };
    let by = ends_by(situation);
    let morning = free.iter().copied().filter(|(from, to)| *from < by && *to > 300).map(|(from, to)| {
        // Where the stretch goes on into the day it ends before people are about, when what is needed fits.
        let end = if to > by && i64::from(by) - i64::from(from) >= needed { by } else { to };
        (from, end)
    });
    let longest = nights.into_iter().max_by_key(|(from, to)| to - from);
    morning.into_iter().rfind(|(from, to)| i64::from(to - from) >= needed).or(longest).unwrap_or((0, 1440))
}

/// Evening watering ends by 23:00 (common practice: what is wet overnight stays wet longest).
const EVENING: (u16, u16) = (Bound::EVENING, 1380);

/// The free stretch of the evening; nothing where the rules leave none.
fn evening<Tz: TimeZone>(situation: &Situation<'_, Tz>) -> Option<(u16, u16)> {
    let free = situation.allowed().free_minutes().into_iter();
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
