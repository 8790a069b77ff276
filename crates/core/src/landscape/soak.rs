//! How fast soil takes water in, and how a run is cut into cycles so that none of it runs off.

use super::Soil;
use crate::controller::Capability;
use crate::quantity::{RunTime, limit};

/// Slope of a station, by the classes of the table of surface accumulation.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Slope {
    /// 0 to 3 %.
    #[default]
    Level,
    /// 4 to 6 %.
    Gentle,
    /// 7 to 12 %.
    Moderate,
    /// Over 12 %.
    Steep,
}

impl Slope {
    /// All of them, flattest first.
    pub const ALL: [Self; 4] = [Self::Level, Self::Gentle, Self::Moderate, Self::Steep];
}

/// The texture whose intake stands for a soil's: that table has seven of the twelve textures. The others take the
/// next heavier one that it has, which shortens cycles rather than lengthens them (ours).
const fn intake_class(soil: Soil) -> Soil {
    match soil {
        Soil::SiltLoam | Soil::Silt | Soil::SandyClayLoam => Soil::ClayLoam,
        Soil::SiltyClayLoam | Soil::SandyClay => Soil::SiltyClay,
        tabled => tabled,
    }
}

/// Basic intake rate of a soil, mm/h. Source: \[IA-LIS\], from memory: 0.60, 0.50, 0.40, 0.35, 0.20, 0.15 and
/// 0.10 in/h from sand to clay; textures that it lacks take the next heavier one.
#[must_use]
pub const fn basic_intake_mm_per_hour(soil: Soil) -> f64 {
    match intake_class(soil) {
        Soil::Sand => 15.24,
        Soil::LoamySand => 12.70,
        Soil::SandyLoam => 10.16,
        Soil::Loam => 8.89,
        Soil::ClayLoam => 5.08,
        Soil::SiltyClay => 3.81,
        _ => 2.54,
    }
}

/// Allowable surface accumulation, mm: water that may lie on the ground before it runs off.
/// Source: \[IA-LIS\], by texture and slope, from memory.
#[must_use]
pub const fn surface_accumulation_mm(soil: Soil, slope: Slope) -> f64 {
    let by_slope = match intake_class(soil) {
        Soil::Sand => [10.16, 8.89, 7.62, 6.35],
        Soil::LoamySand => [9.14, 7.62, 6.60, 5.59],
        Soil::SandyLoam => [8.38, 7.37, 6.10, 5.08],
        Soil::Loam => [7.62, 6.35, 5.33, 4.32],
        Soil::ClayLoam => [6.60, 5.59, 4.57, 3.81],
        Soil::SiltyClay => [5.84, 4.83, 4.06, 3.30],
        _ => [5.08, 3.81, 2.54, 2.54],
    };
    match slope {
        Slope::Level => by_slope[0],
        Slope::Gentle => by_slope[1],
        Slope::Moderate => by_slope[2],
        Slope::Steep => by_slope[3],
    }
}

/// A limit on the run and the rest between two of them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CycleSoak {
    /// Longest run at a time.
    pub cycle: RunTime,
    /// Least rest before the next one.
    pub soak: RunTime,
}

/// The limit and the rest that soil and slope ask for, with what they were made from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Runoff {
    /// Basic intake, mm/h.
    pub intake_mm_per_hour: f64,
    /// Allowable surface accumulation, mm.
    pub accumulation_mm: f64,
    /// Application rate, mm/h.
    pub rate_mm_per_hour: f64,
    /// Longest run before runoff, min; nothing where the soil takes it as it comes.
    pub longest_minutes: Option<f64>,
    /// Minutes until a full accumulation has gone in.
    pub soak_minutes: f64,
}

/// Longest run before runoff `60 ASA / (rate - intake)` and soak `60 ASA / intake`, minutes.
///
/// Source: \[IA-LIS\]. Where the rate is no faster than the intake there is no limit.
///
/// ```
/// use upland_core::landscape::{Slope, Soil, runoff};
/// let bank = runoff(Soil::Loam, Slope::Moderate, 33.6);
/// assert_eq!((bank.longest_minutes.unwrap() * 10.0).round() / 10.0, 12.9);
/// assert_eq!(bank.soak_minutes.round(), 36.0);
/// ```
#[must_use]
pub fn runoff(soil: Soil, slope: Slope, rate_mm_per_hour: f64) -> Runoff {
    let intake = basic_intake_mm_per_hour(soil);
    let asa = surface_accumulation_mm(soil, slope);
    let excess = rate_mm_per_hour - intake;
    Runoff {
        intake_mm_per_hour: intake,
        accumulation_mm: asa,
        rate_mm_per_hour,
        longest_minutes: (excess > 0.0).then(|| 60.0 * asa / excess),
        soak_minutes: 60.0 * asa / intake,
    }
}

impl Runoff {
    /// What a panel with cycle and soak would be set to: the limit down to its run-time step (one
    /// step at least), the soak up to whole minutes. Nothing where the soil sets no limit.
    #[must_use]
    pub fn setting(&self, capability: &Capability) -> Option<CycleSoak> {
        // What the panel's longest run stays under needs no limit.
        let longest = self.longest_minutes.filter(|l| *l < capability.run_max.minutes())?;
        let step = capability.run_step.seconds().max(1);
        let steps = ((longest * 60.0 + 1e-6) / f64::from(step)).floor().max(1.0);
        Some(CycleSoak {
            // Held at a day; steps are at least one.
            cycle: RunTime::from_seconds((steps * f64::from(step)).min(86_400.0) as u32),
            soak: RunTime::from_seconds(((self.soak_minutes - 1e-6).ceil().max(0.0) * 60.0).min(86_400.0) as u32),
        })
    }
}

/// Cuts a run into the fewest cycles no longer than a limit, the total kept and the cycles to the
/// step, longer ones first: `cycles = ceil(minutes / limit)`. Source: \[IA-LIS\]. Never more than
/// [`limit::CYCLES`]: with a shorter limit than that the cycles are as many, and longer than it.
///
/// ```
/// use upland_core::{landscape::cycles, quantity::RunTime};
/// let min = |m: u32| RunTime::from_seconds(m * 60);
/// // Common practice: 24 minutes of spray as 4 x 6.
/// assert_eq!(cycles(min(24), Some(min(6)), min(1)), [min(6); 4]);
/// assert_eq!(cycles(min(22), Some(min(8)), min(1)), [min(8), min(7), min(7)]);
/// ```
#[must_use]
pub fn cycles(run: RunTime, longest: Option<RunTime>, step: RunTime) -> Vec<RunTime> {
    let total = run.seconds();
    if total == 0 {
        return Vec::new();
    }
    let step = step.seconds().max(1);
    let longest = longest.map_or(total, |l| l.seconds().max(step).max(1)).min(total);
    let count = total.div_ceil(longest).min(limit::CYCLES);
    // Whole steps are shared out; what is under a step goes with the last cycle.
    let (steps, rest) = (total / step, total % step);
    if steps < count {
        return vec![run];
    }
    let (each, more) = (steps / count, steps % count);
    (0..count)
        .map(|i| {
            let own = each + u32::from(i < more);
            RunTime::from_seconds(own * step + if i + 1 == count { rest } else { 0 })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::Preset;

    #[test]
    fn a_slow_sprinkler_on_sand_has_no_limit() {
        let slow = runoff(Soil::Sand, Slope::Steep, 10.2);
        assert_eq!((slow.longest_minutes, slow.setting(&Preset::Plain.capability())), (None, None));
    }

    #[test]
    fn a_setting_never_runs_longer_than_the_soil_takes() {
        for soil in Soil::ALL {
            for slope in Slope::ALL {
                for rate in [12.0, 31.75, 60.0, 150.0] {
                    let found = runoff(soil, slope, rate);
                    let Some(set) = found.setting(&Preset::Fine.capability()) else { continue };
                    let longest = found.longest_minutes.unwrap();
                    assert!(set.cycle.minutes() <= longest.max(0.5), "{soil:?} {slope:?} {rate}");
                    assert!(set.soak.minutes() >= found.soak_minutes - 1e-6);
                }
            }
        }
    }

    #[test]
    fn cycles_keep_the_total_and_the_limit() {
        let step = RunTime::from_seconds(30);
        for seconds in (30..3000).step_by(30) {
            for limit in [30, 90, 480, 1800] {
                let cut = cycles(RunTime::from_seconds(seconds), Some(RunTime::from_seconds(limit)), step);
                assert_eq!(cut.iter().map(|c| c.seconds()).sum::<u32>(), seconds);
                assert!(cut.iter().all(|c| c.seconds() <= limit && c.seconds() > 0), "{seconds} {limit}");
            }
        }
    }

    #[test]
    fn no_limit_makes_more_cycles_than_there_may_be() {
        let day = RunTime::from_seconds(86_400);
        let cut = cycles(day, Some(RunTime::from_seconds(1)), RunTime::from_seconds(1));
        assert_eq!((cut.len(), cut.iter().map(|c| c.seconds()).sum::<u32>()), (100, 86_400));
    }
}
