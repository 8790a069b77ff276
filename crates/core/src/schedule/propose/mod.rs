//! A first schedule: stations grouped, days and starts that fit rules, window and capability.

use chrono::TimeZone;

mod group;
mod starts;

use self::group::group;
use self::starts::choose_starts;
use super::situation::Situation;
use super::wish::{DayWish, Wish};
use crate::budget::{StationBase, YearBudget};
use crate::controller::{Controller, DayMode, Days, ProgramLetter, Schedule, choose_days};
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

/// Proposes programs, days, starts and cycles.
///
/// Days: as many as the budget waters in the base month, spread evenly over those that the rules
/// allow, programs on different days where that is possible. Starts: one a program, back to back,
/// the last ending before the first closed hour of the morning, or the hour by which the place wants watering done
/// (08:00 where there is neither), at the year's highest percent. Cycles: where soil and slope ask for them and the
/// panel has them; where it has none, the watering is divided over its starts. Water windows of the panel are kept to
/// like hours that the rules leave open. A program that a person waters stays as it is. The method is our own.
#[must_use]
pub fn propose<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller, grouping: Grouping) -> Proposal {
    propose_as(situation, controller, grouping, Wish::default())
}

/// As [`propose`], by other days, at another time of the day, or with some programs left as they are: the others
/// take the days and hours that those leave.
#[must_use]
pub fn propose_as<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    grouping: Grouping,
    wish: Wish,
) -> Proposal {
    let rules = situation.rules.within(&controller.windows);
    let situation = &Situation { rules: &rules, ..*situation };
    // What a person waters stays with that person.
    let wish =
        Wish { pinned: wish.pinned.and(controller.programs.iter().filter(|p| p.by_hand).map(|p| p.letter)), ..wish };
    let mut c = controller.clone();
    if grouping == Grouping::ByNeed {
        group(&mut c, wish.pinned);
    }
    for program in c.programs.iter_mut().filter(|p| !wish.pinned.holds(p.letter)) {
        program.schedule = Schedule::default();
    }
    set_cycles(&mut c, wish);
    let mut shortfalls = Vec::new();
    let budget = situation.budget(&c);
    choose_all_days(situation, &mut c, budget.as_ref(), wish, &mut shortfalls);
    if let Some([needed, free]) = choose_starts(situation, &mut c, wish) {
        shortfalls.push(Shortfall::Hours { needed, free });
    }
    Proposal { controller: c, shortfalls }
}

fn set_cycles(c: &mut Controller, wish: Wish) {
    let capability = c.capability;
    for station in c.stations.iter_mut().filter(|s| !wish.pinned.holds_station(s)) {
        station.cycle = if capability.cycle_soak { station.runoff().setting(&capability) } else { None };
    }
}

fn choose_all_days<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    c: &mut Controller,
    budget: Option<&YearBudget>,
    wish: Wish,
    shortfalls: &mut Vec<Shortfall>,
) {
    let rules = situation.allowed();
    let most = rules.limit(c.capability).watering_days;
    let modes = c.capability.day_modes;
    let by_date = rules.dates.map(DateRule::mode).or(match wish.days {
        DayWish::Odd => Some(DayMode::Odd),
        DayWish::Even => Some(DayMode::Even),
        DayWish::Weekdays | DayWish::EveryN => None,
    });
    let by_date = by_date.filter(|_| modes.odd_even);
    let mut load = [0.0; 7];
    let stations = c.stations.clone();
    let bases_of = |letter: ProgramLetter| -> Vec<&StationBase> {
        let group = budget.and_then(|b| b.group(letter));
        group.map_or_else(Vec::new, |g| g.stations.iter().filter(|s| s.program == letter).collect())
    };
    let minutes_of = |bases: &[&StationBase]| bases.iter().map(|s| s.run.minutes()).sum::<f64>().max(1.0);
    // What stays has its days already; the others go beside them.
    for program in c.programs.iter().filter(|p| wish.pinned.holds(p.letter)) {
        if let DayMode::Weekdays(days) = program.schedule.days {
            add_load(&mut load, days, minutes_of(&bases_of(program.letter)));
        }
    }
    let open = |letter| !wish.pinned.holds(letter) && stations.iter().any(|s| s.runs_in(letter));
    for program in c.programs.iter_mut().filter(|p| open(p.letter)) {
        let bases = bases_of(program.letter);
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
        if let Some(days) = interval.filter(|_| wish.days == DayWish::EveryN && modes.every_max > 1) {
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
        add_load(&mut load, days, minutes_of(&bases));
    }
}

/// Minutes of a program on each of its weekdays.
fn add_load(load: &mut [f64; 7], days: Days, minutes: f64) {
    for day in days.iter() {
        load[day.num_days_from_monday() as usize] += minutes;
    }
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
