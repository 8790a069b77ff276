//! What a change would have done in the weather just past: the balance of the root zones, replayed with it and without.

use chrono::{NaiveDate, TimeDelta};
use upland_core::controller::{Controller, MonthDial, ProgramLetter};
use upland_core::quantity::Percent;
use upland_core::tuning::Change;

use super::replay::Field;
use crate::context::{ControllerContext, WeatherDay};
use crate::show::{date_short, month_of, number};
use crate::words::Words;

/// Days that are replayed: what a round looks at is a few weeks of growth.
const DAYS: i64 = 28;
/// Weather that ended longer ago says nothing of the ground today.
const FRESH_DAYS: i64 = 21;

/// Demand met in a period, percent, with and without a change.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Met {
    pub(crate) period: [NaiveDate; 2],
    pub(crate) before: f64,
    pub(crate) after: f64,
}

/// Demand met with and without a change; nothing where there is no fresh weather by the day.
pub(crate) fn met(context: &ControllerContext, days: &[WeatherDay], change: Change, today: NaiveDate) -> Option<Met> {
    let last = days.last().map(|d| d.date).filter(|d| (today - *d).num_days() <= FRESH_DAYS)?;
    let period = [last - TimeDelta::days(DAYS - 1), last];
    let field = Field::of(context, days, None)?;
    let season = field.season(period)?;
    let sides = sides(&field.controller, change, today);
    let stations = concerned(&sides[0], change);
    let [before, after] =
        sides.map(|controller| field.of_schedule(&season, &controller, Some(&stations)).adequacy * 100.0);
    Some(Met { period, before, after })
}

/// The same in words; empty where there is nothing to say. Where the balance sees no difference the ground has
/// another reason, and that is said.
pub(crate) fn effect(context: &ControllerContext, days: &[WeatherDay], change: Change, today: NaiveDate) -> String {
    let Some(Met { period, before, after }) = met(context, days, change, today) else { return String::new() };
    let [from, to] = period.map(date_short);
    let [before, after] = [before, after].map(|percent| number(percent, 0));
    let key = if before == after { "expect-met-same" } else { "expect-met" };
    Words.with(key, &[("from", &from), ("to", &to), ("before", &before), ("after", &after)])
}

/// The controller as the panel stands, and with the change. A percent stands in every month here: the weeks before may
/// lie in another one.
fn sides(c: &Controller, change: Change, today: NaiveDate) -> [Controller; 2] {
    match change {
        Change::PutBack { letter, from, to } | Change::Percent { letter, from, to } => {
            [from, to].map(|percent| at_percent(c, letter, percent))
        }
        other => [c.clone(), other.applied(c, month_of(today))],
    }
}

fn at_percent(c: &Controller, letter: ProgramLetter, percent: Percent) -> Controller {
    let mut c = c.clone();
    if let Some(program) = c.program_mut(letter) {
        program.months.iter_mut().for_each(|m| m.dial = MonthDial::Set(percent));
    }
    c
}

/// The stations that a change concerns.
fn concerned(c: &Controller, change: Change) -> Vec<u8> {
    let of_program = |letter| c.stations.iter().filter(move |s| s.runs_in(letter)).map(|s| s.number).collect();
    match change {
        Change::PutBack { letter, .. }
        | Change::Percent { letter, .. }
        | Change::Day { letter, .. }
        | Change::Offset { letter, .. }
        | Change::Climate { letter, .. } => of_program(letter),
        Change::Trim { station, .. } | Change::Minutes { station, .. } => vec![station],
    }
}
