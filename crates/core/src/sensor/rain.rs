//! A rain shut-off, replayed over the weather on record.
//!
//! The model is ours: a store gains the day's rain and holds no more than the threshold; full, it
//! trips; it dries at reference ET times the factor of the vent and lets go when it is empty;
//! the delay in days comes after that. Watering in the small hours of a day meets the sensor as
//! the day before left it.

use chrono::{Datelike, NaiveDate};

use super::model::Vent;

/// A day as the replay needs it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RainDay {
    /// The local day.
    pub date: NaiveDate,
    /// Rain, mm.
    pub rain_mm: f64,
    /// Reference ET, mm.
    pub et0_mm: f64,
    /// Net depth that the schedule would give on this day, mm; 0 on a day without watering.
    pub water_mm: f64,
    /// What the plants use on this day while they have enough, mm.
    pub etl_mm: f64,
}

/// What one setting would have done.
#[derive(Debug, Clone, PartialEq)]
pub struct RainCell {
    /// Threshold, mm.
    pub threshold_mm: f64,
    /// Days of delay.
    pub delay_days: u8,
    /// Days on which rain tripped it.
    pub trips: Vec<NaiveDate>,
    /// Days held, by month, January first.
    pub held_by_month: [u32; 12],
    /// Waterings held back.
    pub runs_held: u32,
    /// Net depth held back, mm.
    pub held_mm: f64,
    /// Days on which the root zone was drier than its allowed depletion because of the holding.
    pub dry_days_added: u32,
}

impl RainCell {
    /// Days held in all.
    #[must_use]
    pub fn days_held(&self) -> u32 {
        self.held_by_month.iter().sum()
    }
}

/// Every setting replayed.
#[derive(Debug, Clone, PartialEq)]
pub struct RainReplay {
    /// A cell for each threshold and delay, thresholds outermost.
    pub cells: Vec<RainCell>,
    /// Net depth that the schedule gives with no sensor, mm.
    pub scheduled_mm: f64,
    /// Rain on record, mm.
    pub rain_mm: f64,
    /// Dry days with no sensor.
    pub dry_days: u32,
}

/// On which days a setting holds watering: one answer a day, and the days on which it tripped.
#[must_use]
pub fn rain_holds(days: &[RainDay], threshold_mm: f64, delay_days: u8, vent: Vent) -> (Vec<bool>, Vec<NaiveDate>) {
    let (mut store, mut tripped, mut delay) = (0.0_f64, false, 0_u8);
    let (mut held, mut trips) = (Vec::with_capacity(days.len()), Vec::new());
    for day in days {
        held.push(tripped || delay > 0);
        store = (store + day.rain_mm).min(threshold_mm);
        // Rain that fills it again while it holds starts the delay anew.
        if store >= threshold_mm {
            if !tripped {
                trips.push(day.date);
            }
            tripped = true;
            delay = delay_days;
        } else if !tripped {
            delay = delay.saturating_sub(1);
        }
        store = (store - day.et0_mm.max(0.0) * vent.factor()).max(0.0);
        if store == 0.0 {
            tripped = false;
        }
    }
    (held, trips)
}

/// Replays every threshold with every delay.
///
/// `raw_mm` is what the root zone may lose before the plants feel it. The root zone is kept as in
/// \[FAO-56\] eq. 85 with rain and water first, full ET and the excess lost: dry days are those on
/// which it ends beyond `raw_mm`.
#[must_use]
pub fn rain_replay(days: &[RainDay], thresholds_mm: &[f64], delays: &[u8], vent: Vent, raw_mm: f64) -> RainReplay {
    let open = dry_days(days, raw_mm, |_| false);
    let mut cells = Vec::with_capacity(thresholds_mm.len() * delays.len());
    for &threshold_mm in thresholds_mm {
        for &delay_days in delays {
            let (held, trips) = rain_holds(days, threshold_mm, delay_days, vent);
            let mut cell = RainCell {
                threshold_mm,
                delay_days,
                trips,
                held_by_month: [0; 12],
                runs_held: 0,
                held_mm: 0.0,
                dry_days_added: 0,
            };
            for (day, _) in days.iter().zip(&held).filter(|(_, held)| **held) {
                cell.held_by_month[day.date.month0() as usize] += 1;
                if day.water_mm > 0.0 {
                    cell.runs_held += 1;
                    cell.held_mm += day.water_mm;
                }
            }
            cell.dry_days_added = dry_days(days, raw_mm, |i| held[i]).saturating_sub(open);
            cells.push(cell);
        }
    }
    RainReplay {
        cells,
        scheduled_mm: days.iter().map(|d| d.water_mm).sum(),
        rain_mm: days.iter().map(|d| d.rain_mm).sum(),
        dry_days: open,
    }
}

fn dry_days(days: &[RainDay], raw_mm: f64, held: impl Fn(usize) -> bool) -> u32 {
    let (mut depletion, mut dry) = (0.0_f64, 0);
    for (i, day) in days.iter().enumerate() {
        let water = if held(i) { 0.0 } else { day.water_mm };
        depletion = (depletion - day.rain_mm - water).max(0.0) + day.etl_mm;
        if depletion > raw_mm + 1e-9 {
            dry += 1;
        }
        // Beyond twice the allowed depletion the plants hold back what is left.
        depletion = depletion.min(2.0 * raw_mm.max(1e-9));
    }
    dry
}

/// The setting that holds back most water among those that add fewest dry days; of equals the
/// higher threshold, then the shorter delay.
#[must_use]
pub fn best_setting(replay: &RainReplay) -> Option<&RainCell> {
    let fewest = replay.cells.iter().map(|c| c.dry_days_added).min()?;
    replay.cells.iter().filter(|c| c.dry_days_added == fewest).max_by(|a, b| {
        a.held_mm
            .total_cmp(&b.held_mm)
            .then(a.threshold_mm.total_cmp(&b.threshold_mm))
            .then(b.delay_days.cmp(&a.delay_days))
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn days(rain: &[f64]) -> Vec<RainDay> {
        let first = NaiveDate::from_ymd_opt(2026, 6, 1).unwrap();
        rain.iter()
            .enumerate()
            .map(|(i, rain_mm)| RainDay {
                date: first + chrono::TimeDelta::days(i as i64),
                rain_mm: *rain_mm,
                et0_mm: 4.0,
                water_mm: 5.0,
                etl_mm: 4.0,
            })
            .collect()
    }

    /// By hand: 13 mm fall on day 2 and fill a 13 mm store, which dries at 4 mm a day and is
    /// empty on day 5 (13, 9, 5, 1, 0): days 3, 4 and 5 are held, day 6 is free.
    #[test]
    fn a_full_store_holds_until_it_is_dry() {
        let (held, trips) = rain_holds(&days(&[0.0, 13.0, 0.0, 0.0, 0.0, 0.0, 0.0]), 13.0, 0, Vent::Half);
        assert_eq!(held, [false, false, true, true, true, false, false]);
        assert_eq!(trips.len(), 1);
        let (quick, _) = rain_holds(&days(&[0.0, 13.0, 0.0, 0.0, 0.0, 0.0, 0.0]), 13.0, 0, Vent::Open);
        assert_eq!(quick, [false, false, true, false, false, false, false]);
    }

    #[test]
    fn a_delay_comes_after_it_is_dry() {
        let (held, _) = rain_holds(&days(&[0.0, 13.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]), 13.0, 2, Vent::Half);
        assert_eq!(held, [false, false, true, true, true, true, true, false, false]);
    }

    #[test]
    fn a_drizzle_under_the_threshold_never_trips_unless_it_adds_up() {
        let (held, trips) = rain_holds(&days(&[2.0, 0.0, 2.0, 0.0]), 3.0, 0, Vent::Half);
        assert!(trips.is_empty() && !held.contains(&true));
        let (_, trips) = rain_holds(&days(&[5.0, 5.0, 5.0]), 6.0, 0, Vent::Closed);
        assert_eq!(trips.len(), 1, "5 mm less 2 dried, and 5 more: over 6");
    }

    #[test]
    fn a_lower_threshold_never_holds_fewer_days_and_never_less_water() {
        let mut seed = 7_u32;
        let rain: Vec<f64> = (0..400)
            .map(|_| {
                seed = seed.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
                if seed >> 30 == 0 { f64::from(seed % 25) } else { 0.0 }
            })
            .collect();
        let replay = rain_replay(&days(&rain), &[3.0, 6.0, 13.0, 19.0], &[0, 1, 2, 3], Vent::Half, 20.0);
        for delay in 0..4 {
            let trips: Vec<usize> = (0..4).map(|t| replay.cells[t * 4 + delay].trips.len()).collect();
            assert!(trips.windows(2).all(|p| p[0] >= p[1]), "{trips:?}");
        }
        for cells in replay.cells.chunks(4) {
            assert!(cells.windows(2).all(|p| p[0].held_mm <= p[1].held_mm && p[0].days_held() <= p[1].days_held()));
        }
        let best = best_setting(&replay).unwrap();
        assert!(replay.cells.iter().all(|c| c.dry_days_added >= best.dry_days_added));
    }
}
