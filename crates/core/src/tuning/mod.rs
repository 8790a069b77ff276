//! Looking again: from what is seen on the ground to the one next change.
//!
//! The rule is stated here alone. Source: own method on common practice: one change at
//! a time and a week apart; when every station of a program is wrong the same way, first the
//! percent is brought to what the weather calls for, then a watering day is added or taken
//! away; when one station is wrong, its own minutes change by 2 to 5.

mod short_term;

use chrono::{NaiveDate, TimeDelta};

use crate::budget::YearBudget;
use crate::controller::{Controller, DayMode, Days, MonthDial, ProgramLetter};
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::schedule::{Level, Plan, Situation, week_work};

pub use short_term::{Recent, ShortTerm, short_term};

/// What the ground of a station says.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Judgement {
    /// Too dry.
    Dry,
    /// Right.
    Right,
    /// Too wet.
    Wet,
}

/// What was seen on a round.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Seen {
    /// The day.
    pub on: NaiveDate,
    /// The percent that stood on the panel, by program.
    pub percents: Vec<(ProgramLetter, Percent)>,
    /// The stations that were judged.
    pub stations: Vec<(u8, Judgement)>,
    /// When something was last changed on the controller.
    pub last_change: Option<NaiveDate>,
}

/// The one next change.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Change {
    /// The panel stands elsewhere than it should: set it to what is planned.
    PutBack {
        /// The program.
        letter: ProgramLetter,
        /// It stood at.
        from: Percent,
        /// It should stand at.
        to: Percent,
    },
    /// Another percent for this month.
    Percent {
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: Percent,
        /// To.
        to: Percent,
    },
    /// A watering day more or less.
    Day {
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: Days,
        /// To.
        to: Days,
    },
    /// Other base minutes of one station.
    Minutes {
        /// Its number.
        station: u8,
        /// From.
        from: RunTime,
        /// To.
        to: RunTime,
    },
}

/// Why this change, or none.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Because {
    /// The percent seen is not the one that should stand there.
    PanelDiffers,
    /// Every station of the program is wrong the same way, and the percent is not what the weather
    /// calls for.
    AllWrongPercentOff(Judgement),
    /// Every station of the program is wrong the same way, and the percent is right.
    AllWrongPercentRight(Judgement),
    /// One station alone is wrong.
    OneWrong(Judgement),
    /// The last change is less than a week old.
    TooSoon {
        /// When it was.
        changed: NaiveDate,
    },
    /// Everything is right.
    AllRight,
    /// Nothing was judged.
    NothingSeen,
    /// The change that the rule asks for cannot be dialled here.
    AtTheLimit(Judgement),
}

/// What a change does to a week's water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expected {
    /// Net depth a week before, mean of the stations concerned, mm.
    pub before_mm: f64,
    /// And after.
    pub after_mm: f64,
    /// Water more (or less) a week, m³, where areas are known.
    pub more_m3: f64,
}

/// The answer to a round.
#[derive(Debug, Clone, PartialEq)]
pub struct Advice {
    /// What to change; at most one thing.
    pub change: Option<Change>,
    /// Why.
    pub because: Because,
    /// What to expect of it.
    pub expected: Option<Expected>,
    /// When to look again.
    pub look_again: NaiveDate,
    /// Stations that are wrong too and wait.
    pub waiting: Vec<u8>,
}

/// Days until the ground shows what a change did (common practice: a week or two).
pub const LOOK_AGAIN_DAYS: i64 = 7;

impl Change {
    /// The controller with the change made.
    #[must_use]
    pub fn applied(&self, controller: &Controller, month: MonthOfYear) -> Controller {
        let mut c = controller.clone();
        match *self {
            Self::PutBack { .. } => {}
            Self::Percent { letter, to, .. } => {
                if let Some(program) = c.program_mut(letter) {
                    program.months[month.index()].dial = MonthDial::Set(to);
                }
            }
            Self::Day { letter, to, .. } => {
                if let Some(program) = c.program_mut(letter) {
                    program.schedule.days = DayMode::Weekdays(to);
                }
            }
            Self::Minutes { station, to, .. } => {
                if let Some(station) = c.station_mut(station) {
                    station.minutes = Some(to);
                }
            }
        }
        c
    }

    /// As [`Change::applied`], with the minutes of the program kept: a watering day
    /// more must not make every watering shorter.
    #[must_use]
    pub fn applied_keeping_minutes(&self, controller: &Controller, plan: &Plan, month: MonthOfYear) -> Controller {
        let mut c = self.applied(controller, month);
        if let Self::Day { letter, to, .. } = *self {
            for station in c.stations.iter_mut().filter(|s| s.program == letter) {
                station.minutes = plan.station(station.number).map(|s| s.base);
            }
            if let Some(program) = c.program_mut(letter) {
                program.waterings_per_week = Some(to.count().max(1));
            }
        }
        c
    }
}

/// The one next change.
#[must_use]
pub fn advise<Tz: chrono::TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    budget: Option<&YearBudget>,
    seen: &Seen,
) -> Advice {
    use chrono::Datelike;
    let month = MonthOfYear::ALL[seen.on.month0() as usize];
    let plan = Plan::of(controller, budget);
    let look_again = seen.on + TimeDelta::days(LOOK_AGAIN_DAYS);
    let answer = |change: Option<Change>, because| {
        let expected = change.map(|c| expected(situation, controller, &plan, c, month));
        Advice { change, because, expected, look_again, waiting: waiting(seen, change, controller) }
    };
    if let Some(change) = put_back(controller, &plan, seen) {
        return answer(Some(change), Because::PanelDiffers);
    }
    if seen.stations.is_empty() {
        return answer(None, Because::NothingSeen);
    }
    if seen.stations.iter().all(|(_, j)| *j == Judgement::Right) {
        return answer(None, Because::AllRight);
    }
    if let Some(changed) = seen.last_change.filter(|d| seen.on - *d < TimeDelta::days(LOOK_AGAIN_DAYS)) {
        let advice = answer(None, Because::TooSoon { changed });
        return Advice { look_again: changed + TimeDelta::days(LOOK_AGAIN_DAYS), ..advice };
    }
    let mut limit = None;
    for program in &controller.programs {
        let Some(way) = all_the_same_way(controller, program.letter, seen) else { continue };
        match whole_program(situation, controller, &plan, budget, program.letter, way, month) {
            Some((change, because)) => return answer(Some(change), because),
            None => limit = Some(way),
        }
    }
    let wrong = seen.stations.iter().filter(|(_, j)| *j != Judgement::Right);
    // Dry plants die, wet ground only wastes: dry first, then by number.
    let first = wrong.min_by_key(|(number, j)| (*j == Judgement::Wet, *number));
    match first.and_then(|(number, way)| minutes(controller, &plan, *number, *way).map(|c| (c, *way))) {
        Some((change, way)) => answer(Some(change), Because::OneWrong(way)),
        None => answer(None, Because::AtTheLimit(limit.or(first.map(|f| f.1)).unwrap_or(Judgement::Right))),
    }
}

fn put_back(controller: &Controller, plan: &Plan, seen: &Seen) -> Option<Change> {
    seen.percents.iter().find_map(|(letter, from)| {
        let to = plan.percent_on(controller, *letter, seen.on, Level::Calendar)?;
        (to != *from).then_some(Change::PutBack { letter: *letter, from: *from, to })
    })
}

/// The way in which every judged station of a program is wrong: two at least, and all
/// that the program has when it has fewer than three.
fn all_the_same_way(controller: &Controller, letter: ProgramLetter, seen: &Seen) -> Option<Judgement> {
    let own: Vec<Judgement> = seen
        .stations
        .iter()
        .filter(|(n, _)| controller.station(*n).is_some_and(|s| s.program == letter))
        .map(|(_, j)| *j)
        .collect();
    let first = *own.first()?;
    let same = first != Judgement::Right && own.iter().all(|j| *j == first);
    (same && own.len() >= 2).then_some(first)
}

fn whole_program<Tz: chrono::TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    plan: &Plan,
    budget: Option<&YearBudget>,
    letter: ProgramLetter,
    way: Judgement,
    month: MonthOfYear,
) -> Option<(Change, Because)> {
    let capability = &controller.capability;
    let from = match plan.dial(letter, month) {
        crate::budget::Dial::Percent(p) => p,
        crate::budget::Dial::Off => return None,
    };
    let called = budget.and_then(|b| b.group(letter)).map(|g| g.month(month).percent_exact);
    let step = f64::from(capability.percent_step.get());
    let off = called.map_or(0.0, |c| c - f64::from(from.get()));
    let sign = if way == Judgement::Dry { 1.0 } else { -1.0 };
    let one_step = || {
        let to = capability.dial(f64::from(from.get()) + sign * step);
        (to != from).then_some(Change::Percent { letter, from, to })
    };
    if off * sign > step / 2.0 {
        return one_step().map(|c| (c, Because::AllWrongPercentOff(way)));
    }
    let because = Because::AllWrongPercentRight(way);
    let program = controller.program(letter)?;
    if let DayMode::Weekdays(days) = program.schedule.days {
        let most = situation.rules.limit(*capability).watering_days;
        let count = if way == Judgement::Dry { days.count() + 1 } else { days.count().saturating_sub(1) };
        if (1..=most).contains(&count) {
            let to = crate::controller::even_days(situation.rules.days, count);
            if to.count() == count {
                return Some((Change::Day { letter, from: days, to }, because));
            }
        }
    }
    one_step().map(|c| (c, because))
}

/// Minutes of one station: an eighth of them, 2 at least and 5 at most, up to the panel's step.
fn minutes(controller: &Controller, plan: &Plan, number: u8, way: Judgement) -> Option<Change> {
    let from = plan.station(number)?.base;
    let by = (from.minutes() / 8.0).round().clamp(2.0, 5.0);
    let wanted = if way == Judgement::Dry { from.minutes() + by } else { from.minutes() - by };
    let to = controller.capability.run(wanted).max(controller.capability.run_step);
    (to != from).then_some(Change::Minutes { station: number, from, to })
}

fn waiting(seen: &Seen, change: Option<Change>, controller: &Controller) -> Vec<u8> {
    let concerned = |number: u8| match change {
        Some(Change::Minutes { station, .. }) => station == number,
        Some(Change::Percent { letter, .. } | Change::Day { letter, .. } | Change::PutBack { letter, .. }) => {
            controller.station(number).is_some_and(|s| s.program == letter)
        }
        None => false,
    };
    seen.stations.iter().filter(|(n, j)| *j != Judgement::Right && !concerned(*n)).map(|(n, _)| *n).collect()
}

fn expected<Tz: chrono::TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    plan: &Plan,
    change: Change,
    month: MonthOfYear,
) -> Expected {
    let changed = change.applied_keeping_minutes(controller, plan, month);
    let new_plan = match change {
        Change::PutBack { .. } => plan.clone(),
        _ => situation.plan(&changed),
    };
    let weeks =
        [(controller, plan), (&changed, &new_plan)].map(|(c, p)| week_work(p, &situation.week(c, p, Level::Calendar)));
    let concerned = |n: u8| match change {
        Change::Minutes { station, .. } => station == n,
        Change::Percent { letter, .. } | Change::Day { letter, .. } | Change::PutBack { letter, .. } => {
            controller.station(n).is_some_and(|s| s.program == letter)
        }
    };
    let share = match change {
        // The week as planned is what it goes back to; before it stood at another percent.
        Change::PutBack { from, to, .. } => f64::from(from.get()) / f64::from(to.get().max(1)),
        _ => 1.0,
    };
    let depth = |i: usize| {
        let own: Vec<f64> = weeks[i].stations.iter().filter(|s| concerned(s.number)).map(|s| s.net_mm).collect();
        own.iter().sum::<f64>() / own.len().max(1) as f64
    };
    let volume = |i: usize| -> f64 {
        weeks[i].stations.iter().filter(|s| concerned(s.number)).filter_map(|s| s.volume_m3).sum()
    };
    Expected { before_mm: depth(0) * share, after_mm: depth(1), more_m3: volume(1) - volume(0) * share }
}
