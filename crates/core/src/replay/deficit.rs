//! A controller that keeps the balance of each station.

use std::collections::HashMap;

use chrono::NaiveDate;

use super::dose::Dose;
use super::ground::Ground;
use super::state::{Day, State};
use super::strategy::Strategy;
use crate::controller::Controller;
use crate::landscape::gross_minutes;
use crate::place::Bound;
use crate::quantity::MonthOfYear;

/// Days that a deficit controller looks back on for what tomorrow will use.
const OUTLOOK_DAYS: usize = 7;

/// A deficit controller: it keeps the balance itself and fills a station up when its plants would feel
/// the lack before the next allowed day.
#[derive(Debug)]
pub struct Deficit<'a> {
    controller: &'a Controller,
    ground: &'a Ground,
    rules: &'a Bound,
    /// Refill point as a share of RAW.
    refill: f64,
    /// Doses already worked out, by station and seconds.
    known: HashMap<(usize, u32), Dose>,
}

impl<'a> Deficit<'a> {
    /// A deficit controller with a refill point, as a share of RAW.
    #[must_use]
    pub fn new(controller: &'a Controller, ground: &'a Ground, rules: &'a Bound, refill: f64) -> Self {
        Self { controller, ground, rules, refill, known: HashMap::new() }
    }

    /// Days until the next one on which it may water, 1 at least; a week where no day is allowed.
    fn days_to_next(&self, date: NaiveDate) -> u32 {
        (1..=7).find(|n| date.checked_add_days(chrono::Days::new(*n)).is_some_and(|d| self.rules.allows_day(d))).map_or(
            7,
            // 1 to 7.
            |n| n as u32,
        )
    }
}

impl Strategy for Deficit<'_> {
    fn water(&mut self, day: &Day<'_>, state: &State<'_>, today: &mut [Dose], _: &mut [Dose]) {
        if !self.rules.allows_day(day.date()) {
            return;
        }
        let month = MonthOfYear::of(day.date());
        let ahead = day.season.et0_before(day.index, OUTLOOK_DAYS) * f64::from(self.days_to_next(day.date()));
        for (index, station) in self.ground.stations.iter().enumerate() {
            let standing = state.at(index);
            let missing = standing.depletion_mm;
            if missing <= 0.0 || missing + station.kl_in(month) * ahead <= self.refill * station.zone.raw_mm() {
                continue;
            }
            let wanted = gross_minutes(missing, station.rate_mm_per_hour, station.multiplier);
            let run = self.controller.capability.run(wanted);
            if run.seconds() == 0 {
                continue;
            }
            let capability = &self.controller.capability;
            let dose = *self.known.entry((index, run.seconds())).or_insert_with(|| {
                let setting = station.surface.setting(capability).filter(|_| capability.cycle_soak);
                Dose::of_run(station, run, setting, capability.run_step)
            });
            today[index].add(&dose);
        }
    }
}
