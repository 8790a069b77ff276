//! A percent that an ET sensor set, against the one that the weather calls for. It is never put back: the
//! sensor's offset is moved, and from the end of it its climate step. Source: common practice.

use chrono::{NaiveDate, TimeZone};

use super::{Because, Change, Judgement, Seen};
use crate::budget::YearBudget;
use crate::controller::{Controller, ProgramLetter};
use crate::quantity::{MonthOfYear, Percent};
use crate::schedule::Situation;
use crate::sensor::Correction;

/// The percent that should stand at a program under an ET sensor: the month's of the budget, by the reference ET
/// of the last days against the month's normal where it is known. Exact; nothing without a budget.
///
/// `recent`: mean reference ET of the last days, mm a day.
#[must_use]
pub fn called_under_sensor<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
    letter: ProgramLetter,
    on: NaiveDate,
    recent: Option<f64>,
) -> Option<f64> {
    let month = MonthOfYear::of(on);
    let normal = situation.normals.map(|n| n[month.index()].et0_mm_per_day).filter(|et0| *et0 > 0.0);
    let weather = recent.zip(normal).map_or(1.0, |(recent, normal)| recent.max(0.0) / normal);
    Some(budget?.group(letter)?.month(month).percent_exact * weather)
}

/// The percent that was seen at a program.
fn seen_at(seen: &Seen, letter: ProgramLetter) -> Option<Percent> {
    seen.percents.iter().find(|(own, _)| *own == letter).map(|(_, percent)| *percent)
}

/// What was seen at a program as a share of what should stand there; 1 where either is not known.
pub(super) fn standing<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
    letter: ProgramLetter,
    seen: &Seen,
) -> f64 {
    let called =
        called_under_sensor(situation, budget, letter, seen.on, seen.recent_et0_mm_per_day).filter(|c| *c > 0.0);
    seen_at(seen, letter).zip(called).map_or(1.0, |(seen, called)| f64::from(seen.get()) / called)
}

/// The first program under an ET sensor whose percent is off, with what to change; the change is none where
/// both dials of the sensor are at their ends. Where the stations that were judged say otherwise the
/// percent is left alone: the ground decides.
pub(super) fn sensor_off<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    budget: Option<&YearBudget>,
    seen: &Seen,
) -> Option<(Option<Change>, Because)> {
    seen.percents.iter().find_map(|(letter, percent)| {
        let (sensor, setting) = controller.et_sensor_of(*letter)?;
        let called = called_under_sensor(situation, budget, *letter, seen.on, seen.recent_et0_mm_per_day)?;
        let correction = setting.correction(f64::from(percent.get()), called);
        let change = match correction {
            Correction::Right => return None,
            Correction::Offset(to) => Some(Change::Offset { sensor, letter: *letter, from: setting.offset, to }),
            Correction::Climate(to) => Some(Change::Climate { sensor, letter: *letter, from: setting.climate, to }),
            Correction::AtTheEnd => None,
        };
        let needs = if f64::from(percent.get()) < called { Judgement::Dry } else { Judgement::Wet };
        let own = |n: &u8| controller.station(*n).is_some_and(|s| s.program == *letter);
        let agrees = seen.stations.iter().filter(|(n, _)| own(n)).all(|(_, judged)| *judged == needs);
        agrees.then_some((change, Because::SensorOff { letter: *letter, seen: *percent, called: whole(called) }))
    })
}

/// A step of the dials of the sensor that sets a program: the offset, and from the end of it the climate step.
/// Nothing inside where both are at their ends, and nothing at all where no sensor sets the program.
pub(super) fn a_step(controller: &Controller, letter: ProgramLetter, way: Judgement) -> Option<Option<Change>> {
    let (sensor, setting) = controller.et_sensor_of(letter)?;
    // A higher offset waters more, and so does a cooler step.
    let [offset, climate] = match way {
        Judgement::Dry => [setting.offset.checked_add(1), setting.climate.checked_sub(1)],
        _ => [setting.offset.checked_sub(1), setting.climate.checked_add(1)],
    };
    let offset = offset.filter(|to| setting.sheet.offset(*to).is_some());
    let climate = climate.filter(|to| setting.sheet.climate(*to).is_some());
    let by_offset = offset.map(|to| Change::Offset { sensor, letter, from: setting.offset, to });
    Some(by_offset.or_else(|| climate.map(|to| Change::Climate { sensor, letter, from: setting.climate, to })))
}

/// A percent to name: whole, and no more than there are.
fn whole(percent: f64) -> Percent {
    // A cast ends at the ends of what it gives.
    Percent::literal(percent.round() as u16)
}
