//! Where the soil of a station stands, in words.

use chrono::NaiveDate;
use upland_core::replay::{SoilNow, SoilVerdict};

use crate::charts::SoilGauge;
use crate::show::{Measure, Units, date_short};
use crate::words::Words;

/// A line for a list: the gauge, and what is left before the plants feel the lack.
#[derive(Debug, Clone)]
pub(crate) struct SoilLine {
    pub(crate) gauge: SoilGauge,
    pub(crate) words: String,
    pub(crate) is_dry: bool,
}

impl SoilLine {
    pub(crate) fn of(soil: &SoilNow, units: Units) -> Self {
        let left = soil.before_stress_mm();
        let depth = Measure::Depth.show(left.abs(), units);
        let is_dry = left < 0.0;
        Self {
            gauge: SoilGauge::draw(soil),
            words: Words.t1(if is_dry { "soil-past" } else { "soil-left" }, depth),
            is_dry,
        }
    }
}

/// The account of a station: how it stands on a morning and how it came there.
#[derive(Debug, Clone)]
pub(crate) struct SoilView {
    pub(crate) title: String,
    pub(crate) line: SoilLine,
    /// A term of the account, its figure and what goes with it.
    pub(crate) rows: Vec<(String, String, String)>,
    pub(crate) verdict: String,
}

impl SoilView {
    /// `since` is the day from which it sums up, `last` the last day of the weather behind it.
    pub(crate) fn of(soil: &SoilNow, since: NaiveDate, last: NaiveDate, units: Units) -> Self {
        let w = Words;
        let depth = |mm: f64| Measure::Depth.show(mm, units);
        let row = |key: &str, mm: f64, more: String| (w.t(key), depth(mm), more);
        let days = w.count("soil-on-days", soil.watering_days);
        let last_watered = soil
            .last_watered
            .map_or_else(|| days.clone(), |on| w.t2("soil-last", ("days", &days), ("date", date_short(on))));
        let raw = depth(soil.zone.raw_mm());
        let felt = match soil.dry_since {
            Some(on) => w.t2("soil-of-raw-since", ("depth", &raw), ("date", date_short(on))),
            None => w.t1("soil-of-raw", &raw),
        };
        Self {
            title: w.t1("soil-title", date_short(last)),
            line: SoilLine::of(soil, units),
            rows: vec![
                row("soil-missing", soil.depletion_mm, felt),
                row("soil-wanted", soil.wanted_mm, w.t1("soil-since", date_short(since))),
                row("soil-rain", soil.rain_mm, if soil.covered { w.t("soil-roofed") } else { String::new() }),
                row("soil-watered", soil.watered_mm, last_watered),
                row("soil-drained", soil.lost_mm, String::new()),
            ],
            verdict: match soil.verdict() {
                SoilVerdict::Enough => w.t("soil-enough"),
                SoilVerdict::TooMuch(mm) => w.t1("soil-too-much", depth(mm)),
                SoilVerdict::NotWatered => w.t1("soil-not-watered", date_short(since)),
                SoilVerdict::Short(mm) => w.t1("soil-short", depth(mm)),
                SoilVerdict::DryBefore => w.t1("soil-dry-before", date_short(since)),
            },
        }
    }
}
