//! A week in 224 by 76: a column a day, midnight on top, closed hours hatched.

use chrono::{NaiveDate, NaiveDateTime, NaiveTime, TimeDelta};
use upland_core::controller::Days;
use upland_core::place::{Allowed, Bound};
use upland_core::schedule::Expansion;

use crate::show::{Fixed, day_letter};

/// A filled piece of the drawing.
#[derive(Debug, Clone)]
pub(crate) struct Block {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) width: Fixed,
    pub(crate) height: Fixed,
    /// The program of water; none of closed hours.
    pub(crate) letter: Option<char>,
}

#[derive(Debug, Clone)]
pub(crate) struct MiniWeek {
    /// Where each day begins, and its letter.
    pub(crate) days: Vec<(Fixed, Fixed, String)>,
    pub(crate) closed: Vec<Block>,
    pub(crate) water: Vec<Block>,
}

const DAY_WIDTH: f64 = 32.0;
const TOP: f64 = 14.0;
const HEIGHT: f64 = 60.0;
/// A short watering stays in sight.
const LEAST: f64 = 1.5;

fn block(day: i64, [from, to]: [f64; 2], letter: Option<char>) -> Block {
    let y = TOP + from / 1440.0 * HEIGHT;
    let height = ((to - from) / 1440.0 * HEIGHT).max(LEAST);
    let inset = if letter.is_some() { 5.0 } else { 0.0 };
    Block {
        x: Fixed(day as f64 * DAY_WIDTH + inset),
        y: Fixed(y.min(TOP + HEIGHT - height)),
        width: Fixed(DAY_WIDTH - 2.0 * inset),
        height: Fixed(height),
        letter,
    }
}

/// The minutes of a day that are not free.
fn closed_hours(allowed: &Allowed) -> Vec<[f64; 2]> {
    let free = allowed.free_minutes();
    let ends = free.iter().map(|(_, to)| f64::from(*to));
    let begins = free.iter().map(|(from, _)| f64::from(*from));
    let gaps = std::iter::once(0.0).chain(ends).zip(begins.chain([1440.0]));
    gaps.filter(|(from, to)| from < to).map(|(from, to)| [from, to]).collect()
}

impl MiniWeek {
    pub(crate) fn draw(first: NaiveDate, week: &Expansion, rules: &Bound) -> Self {
        let begins = first.and_time(NaiveTime::MIN);
        let minutes = |at: NaiveDateTime| (at - begins).num_minutes() as f64;
        let mut water = Vec::new();
        let mut done: Vec<(char, NaiveDate, NaiveDateTime)> = Vec::new();
        for run in &week.runs {
            // One block a start of a program, from its first valve to its last.
            let same = || week.runs.iter().filter(|r| r.letter == run.letter && r.date == run.date && r.by == run.by);
            let Some(from) = same().map(|r| r.local_start).min() else { continue };
            let Some(to) = same().map(|r| r.local_stop()).max() else { continue };
            let key = (run.letter.get(), run.date, from);
            if done.contains(&key) {
                continue;
            }
            done.push(key);
            // What goes on past midnight goes on at the top of the next day.
            let (from, to) = (minutes(from), minutes(to));
            for day in 0..7 {
                let begin = day as f64 * 1440.0;
                let part = [(from - begin).max(0.0), (to - begin).min(1440.0)];
                if part[0] < part[1] {
                    water.push(block(day, part, Some(run.letter.get())));
                }
            }
        }
        let closed = (0..).zip(Days::WEEK).flat_map(|(day, weekday)| {
            let allowed = rules.on(first + TimeDelta::days(day));
            let whole = if allowed.days.holds(weekday) { Vec::new() } else { vec![block(day, [0.0, 1440.0], None)] };
            let hours = closed_hours(allowed).into_iter().map(move |ends| block(day, ends, None));
            whole.into_iter().chain(hours).collect::<Vec<_>>()
        });
        Self {
            days: (0..)
                .zip(Days::WEEK)
                .map(|(n, day)| {
                    let x = f64::from(n) * DAY_WIDTH;
                    (Fixed(x), Fixed(x + DAY_WIDTH / 2.0), day_letter(day))
                })
                .collect(),
            closed: closed.collect(),
            water,
        }
    }
}
