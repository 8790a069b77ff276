//! The last two weeks at a place: reference ET as bars, rain hanging from the top, yesterday framed.

use chrono::{Datelike, NaiveDate, TimeDelta};

use super::path::PathData;
use crate::context::WeatherDay;
use crate::show::Fixed;

#[derive(Debug, Clone)]
pub(crate) struct TwoWeeks {
    /// Bars of the reference ET with serifs at their ends.
    pub(crate) demand: String,
    pub(crate) rain: String,
    /// The last day of the plate, yesterday.
    pub(crate) frame: Fixed,
    /// Place, day of the month, and whether it is yesterday.
    pub(crate) labels: Vec<(Fixed, u32, bool)>,
}

/// Days on the plate.
pub(crate) const DAYS: i64 = 14;
const STEP: f64 = 16.0;
const BASE: f64 = 104.0;
const TOP: f64 = 22.0;
/// Height of the whole scale of rain, mm; more rain hangs as deep.
const MOST_RAIN_MM: f64 = 25.0;

impl TwoWeeks {
    /// Nothing where no day of the two weeks is on record.
    pub(crate) fn draw(days: &[WeatherDay], today: NaiveDate) -> Option<Self> {
        let first = today - TimeDelta::days(DAYS);
        let shown: Vec<&WeatherDay> = days.iter().filter(|d| (first..today).contains(&d.date)).collect();
        let most = shown.iter().filter_map(|d| d.et0_mm).fold(f64::NAN, f64::max);
        if shown.is_empty() {
            return None;
        }
        // Days are few.
        let x = |date: NaiveDate| (date - first).num_days() as f64 * STEP + STEP / 2.0;
        let (mut demand, mut rain) = (PathData::default(), PathData::default());
        for day in shown {
            let at = x(day.date);
            if let Some(et0) = day.et0_mm.filter(|mm| *mm > 0.0) {
                let top = BASE - (et0 / most.max(1.0)) * (BASE - TOP - 28.0);
                demand.bar(at - 5.0, at + 5.0, BASE, top);
            }
            if let Some(mm) = day.rain_mm.filter(|mm| *mm > 0.0) {
                rain.stroke(at, TOP, TOP + (mm / MOST_RAIN_MM).clamp(0.06, 1.0) * (BASE - TOP));
            }
        }
        let dates = (0..DAYS).map(|n| first + TimeDelta::days(n));
        let yesterday = today - TimeDelta::days(1);
        Some(Self {
            demand: demand.into_string(),
            rain: rain.into_string(),
            frame: Fixed(x(yesterday) - STEP / 2.0),
            labels: dates
                .filter(|d| (yesterday - *d).num_days() % 2 == 0)
                .map(|d| (Fixed(x(d)), d.day(), d == yesterday))
                .collect(),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(d: u32, et0_mm: Option<f64>, rain_mm: Option<f64>) -> WeatherDay {
        let date = NaiveDate::from_ymd_opt(2026, 6, d).unwrap();
        WeatherDay { date, et0_mm, rain_mm, tmin_c: None, tmax_c: None }
    }

    #[test]
    fn yesterday_is_the_last_day_and_days_outside_are_left_out() {
        let today = NaiveDate::from_ymd_opt(2026, 6, 20).unwrap();
        let days = [day(5, Some(9.0), Some(9.0)), day(19, Some(4.0), Some(0.0)), day(20, Some(9.0), Some(9.0))];
        let plate = TwoWeeks::draw(&days, today).unwrap();
        assert_eq!(plate.rain, "");
        assert_eq!(plate.labels.last().map(|l| (l.1, l.2)), Some((19, true)));
        assert_eq!(plate.labels.len(), 7);
        assert!(TwoWeeks::draw(&days[..1], today).is_none());
        // A day that was not measured has no bar.
        let dry = TwoWeeks::draw(&[day(19, None, None)], today).unwrap();
        assert_eq!(dry.demand, "");
    }
}
