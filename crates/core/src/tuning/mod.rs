//! Looking again: from what is seen on the ground to the one next change.
//!
//! The rule is stated here alone. Source: own method on common practice: one change at a time and a week
//! apart. Where the panel is not what was planned that comes first, unless the ground speaks against it.
//! A percent that an ET sensor set is judged too, and where it is off the sensor is moved.
//! When a whole program is wrong the same way its percent is brought to what the weather calls for, else
//! its water changes by an eighth; under an ET sensor a step of the sensor does. When one station is
//! wrong, its own minutes change by an eighth, a step of the panel at least, and by half of that when it
//! was wrong the other way before.

mod change;
mod et_sensor;
mod short_term;

use chrono::{NaiveDate, TimeDelta};

use crate::budget::{Dial, YearBudget};
use crate::controller::{Controller, PercentScope, ProgramLetter};
use crate::quantity::{MonthOfYear, Percent, range};
use crate::schedule::{Level, Plan, Situation, week_work};

use et_sensor::{a_step, sensor_off, standing};

pub use change::Change;
pub use et_sensor::called_under_sensor;
pub use short_term::{ShortTerm, short_term};

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
#[derive(Debug, Clone, PartialEq)]
pub struct Seen {
    /// The day.
    pub on: NaiveDate,
    /// The percent that stood on the panel, by program.
    pub percents: Vec<(ProgramLetter, Percent)>,
    /// The stations that were judged.
    pub stations: Vec<(u8, Judgement)>,
    /// How stations were judged on the round before.
    pub before: Vec<(u8, Judgement)>,
    /// When something was last changed on the controller.
    pub last_change: Option<NaiveDate>,
    /// Mean reference ET of the last seven days, mm a day, where it is on record.
    pub recent_et0_mm_per_day: Option<f64>,
}

/// Why this change, or none.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Because {
    /// The percent seen is not the one that should stand there.
    PanelDiffers,
    /// The percent seen is not the planned one, and the ground says that the panel is nearer.
    PanelIsNearer(Judgement),
    /// The percent that an ET sensor set is not the one that the weather calls for.
    SensorOff {
        /// The program.
        letter: ProgramLetter,
        /// The percent that was seen.
        seen: Percent,
        /// The one that it should be.
        called: Percent,
    },
    /// The program is off in this month.
    MonthOff(Judgement),
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

/// Programs that share a percent: each by itself, or all of them.
fn groups(controller: &Controller) -> Vec<Vec<ProgramLetter>> {
    let used: Vec<ProgramLetter> =
        controller.programs_with_stations().filter(|p| !p.by_hand).map(|p| p.letter).collect();
    match controller.capability.percent_scope {
        PercentScope::AllPrograms => vec![used],
        PercentScope::EachProgram => used.into_iter().map(|l| vec![l]).collect(),
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
    // A run that is started by hand gives what is missing: no minutes or percent of the panel change it.
    let runs_by_panel =
        |(number, _): &(u8, Judgement)| controller.station(*number).is_none_or(|s| !controller.is_by_hand(s.program));
    let stations = seen.stations.iter().copied().filter(runs_by_panel).collect();
    let seen = &Seen { stations, ..seen.clone() };
    let month = MonthOfYear::of(seen.on);
    let plan = Plan::of(controller, budget);
    let look_again = seen.on + TimeDelta::days(LOOK_AGAIN_DAYS);
    let answer = |change: Option<Change>, because| {
        let expected = change.map(|c| {
            let under_sensor = matches!(c, Change::Offset { .. } | Change::Climate { .. });
            let stands = c.letter().filter(|_| under_sensor).map_or(1.0, |l| standing(situation, budget, l, seen));
            expected(situation, controller, &plan, c, month, stands)
        });
        Advice { change, because, expected, look_again, waiting: waiting(seen, change, controller) }
    };
    if let Some((change, because)) = panel_differs(controller, &plan, seen) {
        return answer(Some(change), because);
    }
    let sensor_off = sensor_off(situation, controller, budget, seen);
    if seen.stations.is_empty() && sensor_off.is_none() {
        return answer(None, Because::NothingSeen);
    }
    if sensor_off.is_none() && seen.stations.iter().all(|(_, j)| *j == Judgement::Right) {
        return answer(None, Because::AllRight);
    }
    if let Some(changed) = seen.last_change.filter(|d| seen.on - *d < TimeDelta::days(LOOK_AGAIN_DAYS)) {
        let advice = answer(None, Because::TooSoon { changed });
        return Advice { look_again: changed + TimeDelta::days(LOOK_AGAIN_DAYS), ..advice };
    }
    if let Some((change, because)) = sensor_off {
        return answer(change, because);
    }
    let mut limit = None;
    for letters in groups(controller) {
        let Some(way) = all_the_same_way(controller, &letters, seen) else { continue };
        match whole_program(controller, &plan, budget, &letters, way, month) {
            Some((change, because)) => return answer(Some(change), because),
            None => limit = Some(way),
        }
    }
    let wrong = seen.stations.iter().filter(|(_, j)| *j != Judgement::Right);
    // Dry plants die, wet ground only wastes: dry first, then by number.
    let Some((number, way)) = wrong.min_by_key(|(number, j)| (*j == Judgement::Wet, *number)).copied() else {
        return answer(None, Because::AllRight);
    };
    let off = controller.station(number).is_some_and(|s| plan.dial(s.program, month) == Dial::Off);
    if off {
        // Minutes of a month that is off change nothing.
        return answer(None, Because::MonthOff(way));
    }
    let was = seen.before.iter().find(|(n, _)| *n == number).map(|(_, j)| *j);
    match one_station(situation, controller, &plan, number, way, was) {
        Some(change) => answer(Some(change), Because::OneWrong(way)),
        None => answer(None, Because::AtTheLimit(limit.unwrap_or(way))),
    }
}

/// A panel that stands elsewhere than it should. Where the ground speaks for the panel the plan follows
/// it. What an ET sensor sets is never put back.
fn panel_differs(controller: &Controller, plan: &Plan, seen: &Seen) -> Option<(Change, Because)> {
    let own = seen.percents.iter().filter(|(letter, _)| controller.percent_is_dialled(*letter));
    own.into_iter().find_map(|(letter, on_panel)| {
        let planned = plan.percent_on(controller, *letter, seen.on, Level::Calendar)?;
        if planned == *on_panel {
            return None;
        }
        let group = groups(controller).into_iter().find(|g| g.contains(letter)).unwrap_or_else(|| vec![*letter]);
        let month_has_it = plan.percent_of_month(*letter, MonthOfYear::of(seen.on)) == Some(planned);
        let nearer = match all_the_same_way(controller, &group, seen) {
            Some(Judgement::Wet) => *on_panel < planned,
            Some(Judgement::Dry) => *on_panel > planned,
            _ => false,
        };
        if let Some(way) = all_the_same_way(controller, &group, seen).filter(|_| nearer && month_has_it) {
            let change = Change::Percent { letter: *letter, from: planned, to: *on_panel };
            return Some((change, Because::PanelIsNearer(way)));
        }
        Some((Change::PutBack { letter: *letter, from: *on_panel, to: planned }, Because::PanelDiffers))
    })
}

/// The way in which a group of programs is wrong as a whole: every judged station the same way, two at
/// least, and at least two thirds of all that it has.
fn all_the_same_way(controller: &Controller, letters: &[ProgramLetter], seen: &Seen) -> Option<Judgement> {
    let in_group = |n: u8| controller.station(n).is_some_and(|s| letters.contains(&s.program));
    let own: Vec<Judgement> = seen.stations.iter().filter(|(n, _)| in_group(*n)).map(|(_, j)| *j).collect();
    let all = controller.stations.iter().filter(|s| letters.contains(&s.program)).count();
    let first = *own.first()?;
    let same = first != Judgement::Right && own.iter().all(|j| *j == first);
    (same && own.len() >= 2 && 3 * own.len() >= 2 * all).then_some(first)
}

/// A change goes by an eighth: 10 to 15 % are common practice.
const SHARE: f64 = 0.125;

/// From a figure up or down by a share.
fn moved(from: f64, way: Judgement, share: f64) -> f64 {
    if way == Judgement::Dry { from * (1.0 + share) } else { from * (1.0 - share) }
}

fn whole_program(
    controller: &Controller,
    plan: &Plan,
    budget: Option<&YearBudget>,
    letters: &[ProgramLetter],
    way: Judgement,
    month: MonthOfYear,
) -> Option<(Change, Because)> {
    let capability = &controller.capability;
    let letter = *letters.first()?;
    let right = Because::AllWrongPercentRight(way);
    if let Some(change) = a_step(controller, letter, way) {
        return change.map(|c| (c, right));
    }
    let called = budget.and_then(|b| b.group(letter)).map(|g| g.month(month).percent_exact);
    let step = f64::from(capability.percent_step.get());
    let from = match plan.dial(letter, month) {
        Dial::Percent(percent) => percent,
        // A month that is off and too dry is turned on; off and too wet has nothing left to change.
        Dial::Off if way == Judgement::Dry => {
            let to = capability.dial(called.unwrap_or(0.0));
            let change = Change::Percent { letter, from: Percent::new(0).ok()?, to };
            return Some((change, Because::MonthOff(way)));
        }
        Dial::Off => return None,
    };
    let exact = f64::from(from.get());
    let toward = called.filter(|c| match way {
        Judgement::Dry => c - exact > step / 2.0,
        _ => exact - c > step / 2.0,
    });
    if let Some(called) = toward {
        let to = capability.dial(called);
        if to != from {
            return Some((Change::Percent { letter, from, to }, Because::AllWrongPercentOff(way)));
        }
    }
    let by_share = capability.dial(moved(exact, way, SHARE));
    let by_step = capability.dial(if way == Judgement::Dry { exact + step } else { exact - step });
    let to = if by_share == from { by_step } else { by_share };
    (to != from).then_some((Change::Percent { letter, from, to }, right))
}

/// Minutes of one station by an eighth, a step at least; by half of that when it was wrong the other way
/// before. Minutes that are worked out stay so: the station's trim changes, within its limits.
fn one_station<Tz: chrono::TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    plan: &Plan,
    number: u8,
    way: Judgement,
    was: Option<Judgement>,
) -> Option<Change> {
    let station = controller.station(number)?;
    let from = plan.station(number)?.base;
    let turned = was.is_some_and(|w| w != way && w != Judgement::Right);
    let share = if turned { SHARE / 2.0 } else { SHARE };
    let wanted = moved(from.minutes(), way, share);
    let capability = &controller.capability;
    if station.minutes.is_some() {
        let step = capability.run_step.minutes();
        let by_share = capability.run(wanted);
        let by_step = capability.run(if way == Judgement::Dry { from.minutes() + step } else { from.minutes() - step });
        let to = if by_share == from { by_step } else { by_share }.max(capability.run_step);
        return (to != from).then_some(Change::Minutes { station: number, from, to });
    }
    // The first whole trim that gives as many minutes, or else the next step of the panel.
    let share_pct = moved(100.0 + station.trim_pct, way, share) - 100.0;
    let ends = range::TRIM;
    let toward: Vec<f64> = match way {
        Judgement::Dry => (0..=60).map(|n| share_pct.round() + f64::from(n)).collect(),
        _ => (0..=60).map(|n| share_pct.round() - f64::from(n)).collect(),
    };
    toward.into_iter().take_while(|pct| ends.holds(*pct)).find_map(|pct| {
        let mut changed = controller.clone();
        changed.station_mut(number)?.trim_pct = pct;
        let to = situation.plan(&changed).station(number)?.base;
        let right_way = if way == Judgement::Dry { to > from } else { to < from };
        // Within the trim's range of -30 to 30.
        right_way.then_some(Change::Trim {
            station: number,
            from_pct: station.trim_pct.round() as i8,
            to_pct: pct as i8,
            run: [from, to],
        })
    })
}

fn waiting(seen: &Seen, change: Option<Change>, controller: &Controller) -> Vec<u8> {
    let concerned = |number: u8| change.is_some_and(|c| c.concerns(controller, number));
    seen.stations.iter().filter(|(n, j)| *j != Judgement::Right && !concerned(*n)).map(|(n, _)| *n).collect()
}

fn expected<Tz: chrono::TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    plan: &Plan,
    change: Change,
    month: MonthOfYear,
    stands: f64,
) -> Expected {
    let changed = change.applied(controller, month);
    let new_plan = match change {
        Change::PutBack { .. } => plan.clone(),
        _ => situation.plan(&changed),
    };
    let weeks =
        [(controller, plan), (&changed, &new_plan)].map(|(c, p)| week_work(p, &situation.week(c, p, Level::Calendar)));
    let concerned = |n: u8| change.concerns(controller, n);
    let share = match change {
        // The week as planned is what it goes back to; before it stood at another percent.
        Change::PutBack { from, to, .. } => f64::from(from.get()) / f64::from(to.get().max(1)),
        _ => stands,
    };
    let after = change.scale_of_sensor(controller) * stands;
    let depth = |i: usize| {
        let own: Vec<f64> = weeks[i].stations.iter().filter(|s| concerned(s.number)).map(|s| s.net_mm).collect();
        own.iter().sum::<f64>() / own.len().max(1) as f64
    };
    let volume = |i: usize| -> f64 {
        weeks[i].stations.iter().filter(|s| concerned(s.number)).filter_map(|s| s.volume_m3).sum()
    };
    Expected { before_mm: depth(0) * share, after_mm: depth(1) * after, more_m3: volume(1) * after - volume(0) * share }
}
