//! The account of a station's water under each strategy: the working behind the figures.

use upland_core::controller::Controller;
use upland_core::replay::{Part, PartTotals, Replayed, SoilNow};

use crate::show::{Measure, Units, number};
use crate::words::Words;

/// A strategy's account, depths over the season.
#[derive(Debug, Clone)]
pub(crate) struct AccountRow {
    pub(crate) name: String,
    /// Rain, watering, used, wanted, run off, drained, gained by the soil; then waterings on wet days and in frost,
    /// and days on which the rules were broken.
    pub(crate) cells: Vec<String>,
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
        let own = replayed.station(station)?;
        let counts = [own.in_rain, own.in_frost, f64::from(replayed.rule_breaks)].map(|n| number(n, 0));
        Some(Self { name, cells: terms.map(depth).into_iter().chain(counts).collect() })
    }
}

/// A station under what is tried: how it fares, and what limits it.
#[derive(Debug, Clone)]
pub(crate) struct StationRow {
    pub(crate) name: String,
    pub(crate) adequacy: String,
    pub(crate) stress: String,
    pub(crate) lost: String,
    pub(crate) limit: String,
}

impl StationRow {
    /// The stations of a list, by number. The one whose driest quarter fares worst sets the percents of them all.
    pub(super) fn all(controller: &Controller, replayed: &Replayed, numbers: &[u8], units: Units) -> Vec<Self> {
        let own: Vec<_> = replayed.stations.iter().filter(|s| numbers.contains(&s.number)).collect();
        let met = |s: &upland_core::replay::StationReplay| s.part(Part::DriestQuarter).adequacy();
        let worst = own.iter().copied().min_by(|a, b| met(a).total_cmp(&met(b))).map(|s| s.number);
        let row = |s: &&upland_core::replay::StationReplay| {
            let (average, driest) = (s.part(Part::Average), s.part(Part::DriestQuarter));
            let key = match () {
                () if own.len() > 1 && worst == Some(s.number) => "replay-limit-sets",
                () if driest.stress_days > 0 => "replay-limit-dry",
                () if average.lost_mm() > SoilNow::MUCH_LOST * average.applied_mm.max(1.0) => "replay-limit-much",
                () => "replay-limit-none",
            };
            let name = controller.station(s.number).map_or_else(String::new, |own| own.name.clone());
            Self {
                name: format!("{} {name}", s.number),
                adequacy: number(driest.adequacy(), 2),
                stress: driest.stress_days.to_string(),
                lost: Measure::Depth.season_figure(average.lost_mm(), units),
                limit: Words.t(key),
            }
        };
        own.iter().map(row).collect()
    }
}
