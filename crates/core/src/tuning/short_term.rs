//! A percent for a wet or a hot week, from the daily balance.

use chrono::{NaiveDate, TimeDelta};

use crate::controller::ProgramLetter;
use crate::quantity::{MonthOfYear, Percent};
use crate::replay::{Ground, Recent};

/// Days ahead that a percent is set for.
const AHEAD_DAYS: i64 = 7;

/// A percent for the coming days.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ShortTerm {
    /// The station that speaks for its program: the thirstiest one that lies open to rain.
    pub station: u8,
    /// Rain since then, mm.
    pub rain_mm: f64,
    /// What its plants used since then, mm.
    pub used_mm: f64,
    /// What was watered since then, mean over the station, mm.
    pub watered_mm: f64,
    /// What is missing in its root zone this morning, mm.
    pub missing_mm: f64,
    /// What its plants use a day in this month, mm.
    pub use_mm_per_day: f64,
    /// Days up to that of the last watering ahead, that day included.
    pub days: i64,
    /// Waterings in the days ahead.
    pub waterings: u32,
    /// Net depth of a watering at 100 %, mm.
    pub base_mm: f64,
    /// The percent to dial, exact.
    pub percent_exact: f64,
    /// The percent to dial; nothing when off is nearer.
    pub percent: Option<Percent>,
    /// Until when: then back to the month's.
    pub until: NaiveDate,
}

/// The percent of a program until a week from now.
///
/// The root zone is kept by the daily balance from the beginning of the season to this morning; then
/// `percent = (missing + ET_L x days up to the last watering) / (base net depth x waterings) x 100`. So the
/// order of days matters: what fell a week ago is partly used, what fell yesterday is not. Rain to come is
/// not counted on. Source: own method on \[FAO-56\] eq. 85 to 88.
///
/// `et0_mm_per_day`: the month's normal. Nothing where the program has no station in the open, is off in this
/// month, or does not water in the days ahead.
#[must_use]
pub fn short_term(
    recent: &Recent<'_>,
    letter: ProgramLetter,
    today: NaiveDate,
    et0_mm_per_day: f64,
) -> Option<ShortTerm> {
    let c = recent.controller;
    let program = c.program(letter)?;
    // A month that is off is not woken by rain.
    let month = MonthOfYear::of(today);
    recent.plan.percent_of_month(letter, month)?;
    let ground = Ground::of(c);
    let open =
        ground.stations.iter().filter(|s| !s.covered && c.station(s.number).is_some_and(|own| own.program == letter));
    let station = *open.max_by(|a, b| a.kl_in(month).total_cmp(&b.kl_in(month)))?;
    let soil = recent.soil_of(station.number)?;
    let ahead: Vec<i64> = (0..AHEAD_DAYS).filter(|n| c.waters_on(program, today + TimeDelta::days(*n))).collect();
    // Water enters before the plants drink, so the day of the last watering counts too.
    let days = ahead.last()? + 1;
    let use_mm_per_day = station.kl_in(month) * et0_mm_per_day.max(0.0);
    let base_mm = recent.plan.station(station.number).map(|s| s.net_mm(s.base))?;
    // A week has at most seven waterings.
    let waterings = ahead.len() as u32;
    let given = base_mm * f64::from(waterings);
    if given <= 0.0 {
        return None;
    }
    let percent_exact = 100.0 * (soil.depletion_mm + use_mm_per_day * days as f64) / given;
    let off = percent_exact < f64::from(c.capability.percent_min.get()) / 2.0;
    Some(ShortTerm {
        station: station.number,
        rain_mm: soil.rain_mm,
        used_mm: soil.used_mm,
        watered_mm: soil.watered_mm,
        missing_mm: soil.depletion_mm,
        use_mm_per_day,
        days,
        waterings,
        base_mm,
        percent_exact,
        percent: (!off).then(|| c.capability.dial(percent_exact)),
        until: today + TimeDelta::days(AHEAD_DAYS - 1),
    })
}
