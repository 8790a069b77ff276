//! A season of one station: rain from the top, water in the root zone between field capacity and wilting,
//! and a lane of runs and losses for each of two strategies.

use chrono::NaiveDate;
use upland_core::balance::RootZone;
use upland_core::replay::Daily;

use super::path::PathData;
use super::time_axis::{Tick, TimeAxis};
use crate::show::{Fixed, Measure, Units};

/// A season, ready to be written down.
#[derive(Debug, Clone)]
pub(crate) struct SeasonPlate {
    pub(crate) rain: String,
    pub(crate) tried: String,
    pub(crate) present: String,
    /// Between the curve of what is tried and the refill point.
    pub(crate) stress: String,
    pub(crate) lanes: [Lane; 2],
    /// Month or year lines: x, middle of the label, label.
    pub(crate) ticks: Vec<Tick>,
    pub(crate) capacity_y: Fixed,
    pub(crate) refill_y: Fixed,
    pub(crate) wilting_y: Fixed,
    pub(crate) capacity: String,
    pub(crate) refill: String,
    pub(crate) left: Fixed,
    pub(crate) right: Fixed,
    pub(crate) width: u32,
    /// For the reading line: the first day, and what is left on each, in tenths of the unit.
    pub(crate) first: NaiveDate,
    pub(crate) tried_values: String,
    pub(crate) present_values: String,
}

/// The runs of a strategy, and what it loses.
#[derive(Debug, Clone)]
pub(crate) struct Lane {
    pub(crate) runs: String,
    pub(crate) lost: String,
    pub(crate) base: Fixed,
}

/// What a plate is drawn from.
#[derive(Debug, Clone, Copy)]
pub(crate) struct SeasonPlateInput<'a> {
    pub(crate) dates: &'a [NaiveDate],
    pub(crate) zone: RootZone,
    pub(crate) tried: &'a Daily,
    pub(crate) present: &'a Daily,
    pub(crate) units: Units,
}

const WIDTH: f64 = 884.0;
const LEFT: f64 = 60.0;
const RIGHT: f64 = 752.0;
const RAIN_TOP: f64 = 3.0;
const RAIN_ROOM: f64 = 44.0;
/// Rain that hangs all the way down, mm.
const RAIN_FULL_MM: f64 = 40.0;
const CAPACITY_Y: f64 = 58.0;
const WILTING_Y: f64 = 188.0;
const LANES: [f64; 2] = [222.0, 268.0];
const RUN_ROOM: f64 = 24.0;
const LOST_ROOM: f64 = 15.0;

impl SeasonPlate {
    /// Draws a season; nothing where it has no day.
    pub(crate) fn draw(input: SeasonPlateInput<'_>) -> Option<Self> {
        let (first, last) = (*input.dates.first()?, *input.dates.last()?);
        let count = input.dates.len();
        let step = (RIGHT - LEFT) / count as f64;
        let x = |index: usize| LEFT + step * (index as f64 + 0.5);
        let taw = input.zone.taw_mm.max(0.1);
        let y = |left_mm: f64| WILTING_Y - (WILTING_Y - CAPACITY_Y) * (left_mm / taw).clamp(0.0, 1.0);
        let left = |daily: &Daily| -> Vec<f64> { daily.depletion_mm.iter().map(|d| taw - d).collect() };
        let (tried, present) = (left(input.tried), left(input.present));
        let curve =
            |values: &[f64]| PathData::line(values.iter().enumerate().map(|(i, mm)| (x(i), y(*mm)))).into_string();
        let refill_mm = taw - input.zone.raw_mm();
        let mut rain = PathData::default();
        for (i, mm) in input.tried.rain_mm.iter().enumerate().filter(|(_, mm)| **mm > 0.2) {
            rain.stroke(x(i), RAIN_TOP, RAIN_TOP + (mm / RAIN_FULL_MM * RAIN_ROOM).clamp(1.5, RAIN_ROOM));
        }
        let most = [input.tried, input.present].into_iter().flat_map(|d| &d.applied_mm).copied().fold(1.0, f64::max);
        let lane = |daily: &Daily, base: f64| {
            let (mut runs, mut lost) = (PathData::default(), PathData::default());
            for i in 0..count {
                let (applied, gone) = (daily.applied_mm[i], daily.runoff_mm[i] + daily.percolation_mm[i]);
                if applied > 0.0 {
                    runs.stroke(x(i), base, base - (applied / most * RUN_ROOM).max(2.0));
                }
                if gone > 0.3 {
                    lost.stroke(x(i), base + 1.0, base + 1.0 + (gone / most * RUN_ROOM).clamp(1.5, LOST_ROOM));
                }
            }
            Lane { runs: runs.into_string(), lost: lost.into_string(), base: Fixed(base) }
        };
        let depth = |mm: f64| Measure::Depth.show(mm, input.units);
        Some(Self {
            rain: rain.into_string(),
            stress: stress(&tried, refill_mm, &x, &y),
            tried: curve(&tried),
            present: curve(&present),
            lanes: [lane(input.tried, LANES[0]), lane(input.present, LANES[1])],
            ticks: TimeAxis { first, last, left: LEFT, right: RIGHT }.ticks(),
            capacity_y: Fixed(CAPACITY_Y),
            refill_y: Fixed(y(refill_mm)),
            wilting_y: Fixed(WILTING_Y),
            capacity: depth(taw),
            refill: depth(refill_mm),
            left: Fixed(LEFT),
            right: Fixed(RIGHT),
            width: WIDTH as u32,
            first,
            tried_values: values(&tried, input.units),
            present_values: values(&present, input.units),
        })
    }
}

/// What is left on each day, as the page shows it.
fn values(left_mm: &[f64], units: Units) -> String {
    let texts: Vec<String> = left_mm.iter().map(|mm| Measure::Depth.figure(*mm, units)).collect();
    texts.join(",")
}

/// The ground between a curve and the refill point, where the curve is under it.
fn stress(left_mm: &[f64], refill_mm: f64, x: &impl Fn(usize) -> f64, y: &impl Fn(f64) -> f64) -> String {
    let mut path = String::new();
    let mut at = 0;
    while at < left_mm.len() {
        if left_mm[at] >= refill_mm {
            at += 1;
            continue;
        }
        let from = at;
        while at < left_mm.len() && left_mm[at] < refill_mm {
            at += 1;
        }
        let top = [(x(from), y(refill_mm))].into_iter();
        let under = (from..at).map(|i| (x(i), y(left_mm[i])));
        let back = [(x(at - 1), y(refill_mm))].into_iter();
        path.push_str(&PathData::line(top.chain(under).chain(back)).into_string());
        path.push('Z');
    }
    path
}
