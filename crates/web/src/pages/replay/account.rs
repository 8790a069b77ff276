//! The account of a station's water under each strategy: the working behind the figures.

use upland_core::replay::{PartTotals, Replayed};

use crate::show::{Measure, Units};

/// A strategy's account, depths over the season.
#[derive(Debug, Clone)]
pub(crate) struct AccountRow {
    pub(crate) name: String,
    /// Rain, watering, used, wanted, run off, drained, gained by the soil.
    pub(crate) cells: [String; 7],
}

impl AccountRow {
    /// Of a part of a station; nothing for a station that was not replayed.
    pub(super) fn of(name: String, replayed: &Replayed, station: u8, part: usize, units: Units) -> Option<Self> {
        let sums: &PartTotals = &replayed.station(station)?.totals[part];
        let depth = |mm: f64| Measure::Depth.figure(mm, units);
        let terms = [
            sums.rain_mm,
            sums.applied_mm,
            sums.et_actual_mm,
            sums.et_l_mm,
            sums.runoff_mm,
            sums.percolation_mm,
            sums.gained_mm(),
        ];
        Some(Self { name, cells: terms.map(depth) })
    }
}
