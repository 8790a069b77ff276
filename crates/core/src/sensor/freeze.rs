//! A freeze sensor, replayed over the nights on record.

use std::f64::consts::PI;

use chrono::{Datelike, NaiveDate};

/// Hour of the warmest air, by the sun (common practice: mid-afternoon).
const WARMEST_HOUR: f64 = 15.0;

/// Air temperature at an hour of the day, °C: half a sine from the lowest at sunrise to the highest
/// at 15 h and back to the same lowest at the next sunrise. The model is ours.
#[must_use]
pub fn temperature_at(hour: f64, sunrise_hour: f64, tmin_c: f64, tmax_c: f64) -> f64 {
    let rise = (WARMEST_HOUR - sunrise_hour).clamp(1.0, 23.0);
    let since = (hour - sunrise_hour).rem_euclid(24.0);
    let share = if since <= rise { since / rise } else { 1.0 - (since - rise) / (24.0 - rise) };
    tmin_c + (tmax_c - tmin_c) * (1.0 - (PI * share).cos()) / 2.0
}

/// What a freeze setting would have done.
#[derive(Debug, Clone, PartialEq)]
pub struct FreezeNights {
    /// The setting, °C.
    pub threshold_c: f64,
    /// Nights whose lowest was under it, by month.
    pub nights_by_month: [u32; 12],
    /// Nights on which it would have been under the setting at the hour of the start.
    pub starts_blocked: u32,
    /// Hours under the setting on the coldest night.
    pub coldest_hours: f64,
}

impl FreezeNights {
    /// Nights in all.
    #[must_use]
    pub fn nights(&self) -> u32 {
        self.nights_by_month.iter().sum()
    }
}

/// Replays freeze settings over days of lowest and highest temperature, for a start at an hour.
#[must_use]
pub fn freeze_replay(
    days: &[(NaiveDate, f64, f64)],
    thresholds_c: &[f64],
    start_hour: f64,
    sunrise_hour: f64,
) -> Vec<FreezeNights> {
    thresholds_c
        .iter()
        .map(|&threshold_c| {
            let mut found =
                FreezeNights { threshold_c, nights_by_month: [0; 12], starts_blocked: 0, coldest_hours: 0.0 };
            let mut coldest = f64::INFINITY;
            for &(date, tmin, tmax) in days.iter().filter(|(_, tmin, _)| *tmin < threshold_c) {
                found.nights_by_month[date.month0() as usize] += 1;
                if temperature_at(start_hour, sunrise_hour, tmin, tmax) < threshold_c {
                    found.starts_blocked += 1;
                }
                if tmin < coldest {
                    coldest = tmin;
                    found.coldest_hours = hours_under(threshold_c, sunrise_hour, tmin, tmax);
                }
            }
            found
        })
        .collect()
}

/// Hours of a day under a temperature, to the quarter hour.
fn hours_under(threshold_c: f64, sunrise_hour: f64, tmin: f64, tmax: f64) -> f64 {
    let under = (0..96).filter(|q| temperature_at(f64::from(*q) / 4.0, sunrise_hour, tmin, tmax) < threshold_c);
    under.count() as f64 / 4.0
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_day_goes_from_its_lowest_at_sunrise_to_its_highest_at_three() {
        assert_eq!(temperature_at(6.0, 6.0, -1.0, 11.0), -1.0);
        assert!((temperature_at(15.0, 6.0, -1.0, 11.0) - 11.0).abs() < 1e-9);
        // Half way up, half way between.
        assert!((temperature_at(10.5, 6.0, -1.0, 11.0) - 5.0).abs() < 1e-9);
        assert!(temperature_at(5.0, 6.0, -1.0, 11.0) < temperature_at(22.0, 6.0, -1.0, 11.0));
    }

    #[test]
    fn a_higher_setting_never_blocks_fewer_nights() {
        let day = |d| NaiveDate::from_ymd_opt(2026, 1, d).unwrap();
        let days: Vec<_> = (1..=31).map(|d| (day(d), f64::from(d) / 4.0 - 3.0, f64::from(d) / 4.0 + 6.0)).collect();
        let found = freeze_replay(&days, &[1.0, 3.0, 5.0], 4.5, 7.5);
        assert_eq!(found.iter().map(FreezeNights::nights).collect::<Vec<_>>(), [15, 23, 31]);
        assert!(found.windows(2).all(|p| p[0].starts_blocked <= p[1].starts_blocked));
        assert!(found.iter().all(|f| f.starts_blocked <= f.nights()));
    }
}
