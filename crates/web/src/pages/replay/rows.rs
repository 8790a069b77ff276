//! Rows of a replay: strategies side by side, other years, and the days as a file.

use chrono::NaiveDate;
use upland_core::controller::Controller;
use upland_core::replay::{Daily, WholeTotals};
use upland_core::schedule::Plan;

use super::asked::Asked;
use super::beside::Beside;
use super::seasons::Field;
use crate::show::{Measure, Units, number, signed};
use crate::words::Words;

/// A strategy of the table.
#[derive(Debug, Clone)]
pub(crate) struct StrategyRow {
    pub(crate) name: String,
    pub(crate) note: String,
    pub(crate) mark: &'static str,
    pub(crate) applied: String,
    pub(crate) volume: String,
    pub(crate) lost: String,
    pub(crate) stress: String,
    pub(crate) waterings: String,
    pub(crate) adequacy: String,
    pub(crate) short: bool,
    pub(crate) money: String,
    pub(crate) saves: String,
}

/// What rows are written with.
#[derive(Debug, Clone, Copy)]
pub(super) struct Manner {
    pub(super) units: Units,
    pub(super) price: Option<f64>,
    pub(super) enough: f64,
}

impl StrategyRow {
    pub(super) fn of(
        name: String,
        note: String,
        mark: &'static str,
        totals: &WholeTotals,
        base: &WholeTotals,
        manner: Manner,
    ) -> Self {
        let Manner { units, price, enough } = manner;
        let depth = |mm: f64| Measure::Depth.season_figure(mm, units);
        let none = || "·".to_owned();
        let volume = totals.volume_m3;
        let saved = volume.zip(base.volume_m3).map(|(own, base)| base - own);
        Self {
            name,
            note,
            mark,
            applied: depth(totals.applied_mm),
            volume: volume.map_or_else(none, |v| Measure::Volume.season_figure(v, units)),
            lost: depth(totals.lost_mm),
            stress: totals.stress_days.to_string(),
            waterings: number(totals.waterings, 0),
            adequacy: number(totals.adequacy, 2),
            short: totals.adequacy < enough,
            money: volume.zip(price).map_or_else(none, |(v, p)| number(v * p, 0)),
            saves: match (saved, price) {
                _ if mark == "present" => Words.t("replay-base"),
                (Some(saved), Some(price)) => signed(saved * price, 0),
                (Some(saved), None) => signed(Measure::Volume.in_units(saved, units), 0),
                (None, _) => none(),
            },
        }
    }
}

/// The strategy that needs least water of those that meet enough of the demand, and why; empty where none does. What
/// stands last counts first among equals: it is what can be dialled in.
pub(super) fn best_named(strategies: &[(String, &WholeTotals)], manner: Manner) -> String {
    let w = Words;
    let enough = strategies.iter().rev().filter(|(_, totals)| totals.adequacy >= manner.enough);
    let Some((name, totals)) = enough.min_by(|a, b| a.1.applied_mm.total_cmp(&b.1.applied_mm)) else {
        return w.t1("replay-best-none", number(manner.enough, 2));
    };
    let water = totals.volume_m3.map_or_else(
        || Measure::Depth.season(totals.applied_mm, manner.units),
        |v| Measure::Volume.season(v, manner.units),
    );
    w.with(
        "replay-best-named",
        &[
            ("name", name),
            ("water", &water),
            ("adequacy", &number(totals.adequacy, 2)),
            ("limit", &number(manner.enough, 2)),
        ],
    )
}

/// Another year under what is tried.
#[derive(Debug, Clone)]
pub(crate) struct YearRow {
    pub(crate) name: String,
    pub(crate) volume: String,
    pub(crate) saves: String,
    pub(crate) adequacy: String,
    pub(crate) short: bool,
}

impl YearRow {
    /// What is tried, or the plan, against the present.
    pub(super) fn of(name: String, [own, present]: [&WholeTotals; 2], enough: f64, units: Units) -> Self {
        let none = || "·".to_owned();
        let saved = present.volume_m3.zip(own.volume_m3).map(|(present, own)| present - own);
        Self {
            name,
            volume: own.volume_m3.map_or_else(none, |v| Measure::Volume.season_figure(v, units)),
            saves: saved.map_or_else(none, |s| signed(Measure::Volume.in_units(s, units), 0)),
            adequacy: number(own.adequacy, 2),
            short: own.adequacy < enough,
        }
    }
}

/// What is tried in a dry, a middle and a wet year.
pub(super) fn year_rows(
    field: &Field<'_>,
    asked: &Asked,
    changed: (&Controller, &Plan),
    beside: &Beside,
    units: Units,
) -> Vec<YearRow> {
    let years = beside.years.iter();
    years
        .filter_map(|(key, year, rain, present)| {
            let span = [NaiveDate::from_ymd_opt(*year, 1, 1)?, NaiveDate::from_ymd_opt(*year, 12, 31)?];
            let tried = field.tried_sums(&field.season(span)?, asked, changed);
            let name = Words.with(key, &[("year", &year.to_string()), ("rain", &Measure::Depth.season(*rain, units))]);
            Some(YearRow::of(name, [&tried, present], asked.enough, units))
        })
        .collect()
}

/// The days of a station under what is tried and as present, in full precision and SI.
pub(crate) fn daily_csv(dates: &[NaiveDate], tried: &Daily, present: &Daily) -> String {
    use std::fmt::Write;
    let mut out = String::from("date,rain_mm,et_l_mm");
    for name in ["tried", "present"] {
        for column in ["applied", "runoff", "percolation", "et_actual", "depletion"] {
            // Writing to a string does not fail.
            let _ = write!(out, ",{name}_{column}_mm");
        }
        let _ = write!(out, ",{name}_ks");
    }
    out.push_str("\r\n");
    for (i, date) in dates.iter().enumerate() {
        let _ = write!(out, "{date},{},{}", tried.rain_mm[i], tried.et_l_mm[i]);
        for d in [tried, present] {
            let _ = write!(
                out,
                ",{},{},{},{},{},{}",
                d.applied_mm[i], d.runoff_mm[i], d.percolation_mm[i], d.et_actual_mm[i], d.depletion_mm[i], d.ks[i]
            );
        }
        out.push_str("\r\n");
    }
    out
}
