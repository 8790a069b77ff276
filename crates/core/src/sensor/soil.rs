//! A soil-moisture sensor that holds runs back, and its calibration over 24 hours.

use chrono::{NaiveDateTime, TimeDelta};

use super::model::Reading;
use crate::quantity::RunTime;

/// The time in which the sensor decides: the daily cycle and an hour (common practice).
///
/// ```
/// use upland_core::{quantity::RunTime, sensor::decision_window};
/// // Common practice: 6 h of watering take a window of 7 h.
/// assert_eq!(decision_window(RunTime::from_seconds(6 * 3600)).minutes(), 420.0);
/// ```
#[must_use]
pub fn decision_window(daily_cycle: RunTime) -> RunTime {
    RunTime::from_seconds(daily_cycle.seconds() + 3600)
}

/// Why a calibration does not count.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum CalibrationFault {
    /// Under two readings.
    TooFew,
    /// Under 24 hours from the first to the last.
    TooShort {
        /// Hours so far.
        hours: f64,
    },
    /// A reading rose by more than noise: it rained, or something watered.
    Rose {
        /// When it had risen.
        at: NaiveDateTime,
    },
    /// It fell no slower at the end than at the beginning: the soil was not soaked.
    NotFlattening,
    /// It did not fall at all.
    DidNotFall,
}

/// A rise up to this many points is noise (common practice: half a point).
const NOISE_POINTS: f64 = 0.5;

/// What speaks against a calibration: a falling, flattening curve over 24 hours is wanted.
/// The rule is ours.
#[must_use]
pub fn calibration_faults(readings: &[Reading]) -> Vec<CalibrationFault> {
    let ([first, .., last], true) = (readings, readings.len() >= 2) else { return vec![CalibrationFault::TooFew] };
    let mut faults = Vec::new();
    let span = last.at - first.at;
    if span < TimeDelta::hours(24) {
        faults.push(CalibrationFault::TooShort { hours: span.num_minutes() as f64 / 60.0 });
    }
    if let Some(pair) = readings.windows(2).find(|p| p[1].percent > p[0].percent + NOISE_POINTS) {
        faults.push(CalibrationFault::Rose { at: pair[1].at });
    }
    if last.percent >= first.percent {
        faults.push(CalibrationFault::DidNotFall);
    } else if readings.len() >= 3 {
        let slope = |a: &Reading, b: &Reading| (b.percent - a.percent) / ((b.at - a.at).num_minutes().max(1) as f64);
        let (early, late) = (slope(&readings[0], &readings[1]), slope(&readings[readings.len() - 2], last));
        if late < early {
            faults.push(CalibrationFault::NotFlattening);
        }
    }
    faults
}

/// The threshold from the reading at 24 hours, percent: that reading less a share that the plants
/// may use. The share of the reading follows the allowed depletion of the soil's water, of which
/// about half of the reading at 24 hours is available (common practice, from memory).
#[must_use]
pub fn threshold_from(reading_at_24_h: f64, depletion_share: f64) -> f64 {
    reading_at_24_h * (1.0 - 0.5 * depletion_share.clamp(0.0, 1.0))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn readings(points: &[(i64, f64)]) -> Vec<Reading> {
        let start = NaiveDateTime::parse_from_str("2026-06-10 09:00", "%Y-%m-%d %H:%M").unwrap();
        points.iter().map(|(h, percent)| Reading { at: start + TimeDelta::hours(*h), percent: *percent }).collect()
    }

    #[test]
    fn a_falling_flattening_day_counts() {
        assert!(calibration_faults(&readings(&[(0, 42.0), (4, 37.0), (12, 34.0), (24, 33.0)])).is_empty());
    }

    #[test]
    fn what_spoils_a_calibration_is_said() {
        assert_eq!(calibration_faults(&readings(&[(0, 42.0)])), [CalibrationFault::TooFew]);
        let short = calibration_faults(&readings(&[(0, 42.0), (6, 36.0)]));
        assert_eq!(short, [CalibrationFault::TooShort { hours: 6.0 }]);
        let rose = calibration_faults(&readings(&[(0, 42.0), (8, 36.0), (16, 39.0), (24, 38.5)]));
        assert!(matches!(rose[..], [CalibrationFault::Rose { .. }]), "{rose:?}");
        let dry = calibration_faults(&readings(&[(0, 30.0), (12, 29.5), (24, 27.0)]));
        assert_eq!(dry, [CalibrationFault::NotFlattening]);
        assert_eq!(calibration_faults(&readings(&[(0, 30.0), (24, 30.0)])), [CalibrationFault::DidNotFall]);
    }

    #[test]
    fn a_thirstier_share_gives_a_lower_threshold() {
        assert_eq!(threshold_from(32.0, 0.5), 24.0);
        assert!(threshold_from(32.0, 0.4) > threshold_from(32.0, 0.5));
    }
}
