use super::dose::Dose;
use super::ground::{Ground, Part};
use super::results::{Daily, PartTotals, Replayed, StationReplay};
use super::season::Season;
use super::state::{Day, State};
use super::strategy::Strategy;
use crate::balance::{DayEnd, Entering, day};
use crate::place::Bound;
use crate::quantity::MonthOfYear;

/// Of which stations every day is kept, beside the sums.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Keep {
    /// Of none.
    Sums,
    /// Of none, and the driest quarter is left out: for searches that ask often.
    Average,
    /// Of one, by its number.
    Station(u8),
    /// Of all of them.
    Days,
}

/// Runs a season again under a strategy.
///
/// Rules count days on which water fell on a date that they close; whether a strategy obeys them is its
/// own affair. The balance is that of [`crate::balance`], kept for the average and the driest quarter.
#[must_use]
pub fn replay(ground: &Ground, season: &Season, rules: &Bound, strategy: &mut dyn Strategy, keep: Keep) -> Replayed {
    let count = ground.stations.len();
    let mut depletions: Vec<[f64; 2]> = ground.stations.iter().map(|s| [s.depletion_start_mm; 2]).collect();
    let mut stations: Vec<StationReplay> = ground
        .stations
        .iter()
        .map(|s| StationReplay {
            number: s.number,
            totals: [PartTotals::default(); 2],
            waterings: 0.0,
            in_rain: 0.0,
            in_frost: 0.0,
            area_m2: s.area_m2,
            daily: (keep == Keep::Days || keep == Keep::Station(s.number))
                .then(|| std::array::from_fn(|_| Daily::of(season.counted().len()))),
        })
        .collect();
    let parts = if keep == Keep::Average { &Part::ALL[..1] } else { &Part::ALL[..] };
    let mut rule_breaks = 0;
    let (mut today, mut tomorrow) = (vec![Dose::default(); count], vec![Dose::default(); count]);
    for index in 0..season.len() {
        let state = State { ground, depletions: &depletions };
        strategy.water(&Day { season, index }, &state, &mut today, &mut tomorrow);
        let (et0, rain) = (season.et0_mm[index], season.rain_mm[index]);
        let month = MonthOfYear::of(season.dates[index]);
        let counts = index >= season.lead;
        let frost = season.air_c[index].is_some_and(|(low, _)| low < 0.0);
        for ((station, dose), (sums, before)) in
            ground.stations.iter().zip(&today).zip(stations.iter_mut().zip(&mut depletions))
        {
            if counts {
                sums.waterings += dose.waterings;
            }
            if counts && rain > StationReplay::WET_DAY_MM && !station.covered {
                sums.in_rain += dose.waterings;
            }
            if counts && frost {
                sums.in_frost += dose.waterings;
            }
            for part in parts.iter().map(|p| p.index()) {
                let entering = Entering {
                    rain_mm: if station.covered { 0.0 } else { rain },
                    applied_mm: dose.applied_mm[part],
                    runoff_mm: dose.runoff_mm[part],
                    et_l_mm: station.kl_in(month) * et0,
                };
                let end = day(&station.zone, before[part], &entering);
                before[part] = end.depletion_mm;
                if !counts {
                    continue;
                }
                sums.totals[part].add(&entering, &end);
                if let Some(daily) = &mut sums.daily {
                    daily[part].push(&entering, &end);
                }
            }
        }
        if counts && today.iter().any(|d| d.seconds > 0.0) && !rules.allows_day(season.dates[index]) {
            rule_breaks += 1;
        }
        std::mem::swap(&mut today, &mut tomorrow);
        tomorrow.fill(Dose::default());
    }
    Replayed { stations, rule_breaks }
}

impl PartTotals {
    fn add(&mut self, entering: &Entering, end: &DayEnd) {
        self.et_l_mm += entering.et_l_mm;
        self.et_actual_mm += end.et_mm;
        self.rain_mm += entering.rain_mm;
        self.applied_mm += entering.applied_mm;
        self.runoff_mm += entering.runoff_mm;
        self.percolation_mm += end.percolation_mm;
        self.stress_days += u32::from(end.ks < Self::STRESS);
    }
}

impl Daily {
    fn of(days: usize) -> Self {
        let empty = || Vec::with_capacity(days);
        Self {
            et_l_mm: empty(),
            et_actual_mm: empty(),
            rain_mm: empty(),
            applied_mm: empty(),
            runoff_mm: empty(),
            percolation_mm: empty(),
            depletion_mm: empty(),
            ks: empty(),
        }
    }

    fn push(&mut self, entering: &Entering, end: &DayEnd) {
        self.et_l_mm.push(entering.et_l_mm);
        self.et_actual_mm.push(end.et_mm);
        self.rain_mm.push(entering.rain_mm);
        self.applied_mm.push(entering.applied_mm);
        self.runoff_mm.push(entering.runoff_mm);
        self.percolation_mm.push(end.percolation_mm);
        self.depletion_mm.push(end.depletion_mm);
        self.ks.push(end.ks);
    }
}
