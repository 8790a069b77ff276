//! A series of weather month by month: temperatures from mean lowest to mean highest, rain hanging.

use std::collections::BTreeMap;

use chrono::{Datelike, NaiveDate};
use upland_core::climate::daily::DailyWeather;

use super::path::PathData;
use crate::show::{Fixed, number};

#[derive(Debug, Clone)]
pub(crate) struct YearMark {
    pub(crate) x: Fixed,
    pub(crate) label: String,
}

#[derive(Debug, Clone)]
pub(crate) struct FaultMark {
    pub(crate) x: Fixed,
    pub(crate) number: usize,
    pub(crate) diamond: String,
}

#[derive(Debug, Clone)]
pub(crate) struct SeriesPlate {
    pub(crate) years: Vec<YearMark>,
    pub(crate) temperatures: String,
    pub(crate) rain: String,
    pub(crate) faults: Vec<FaultMark>,
    pub(crate) zero_y: Option<Fixed>,
    pub(crate) high: (Fixed, String),
    pub(crate) low: (Fixed, String),
}

const LEFT: f64 = 96.0;
const RIGHT: f64 = 772.0;
const TOP: f64 = 26.0;
const MIDDLE: f64 = 84.0;

#[derive(Debug, Default)]
struct Month {
    max: (f64, u32),
    min: (f64, u32),
    rain: f64,
}

impl SeriesPlate {
    /// `faults` are the days of the lines with an error, those that have one.
    pub(crate) fn draw(days: &[DailyWeather], faults: &[(usize, NaiveDate)]) -> Option<Self> {
        let mut months: BTreeMap<(i32, u32), Month> = BTreeMap::new();
        for day in days {
            let month = months.entry((day.date.year(), day.date.month())).or_default();
            for (sum, value) in [(&mut month.max, day.t_max), (&mut month.min, day.t_min)] {
                if let Some(value) = value {
                    *sum = (sum.0 + value, sum.1 + 1);
                }
            }
            month.rain += day.rain.unwrap_or(0.0);
        }
        let ((first, _), (last, _)) = (*months.keys().next()?, *months.keys().next_back()?);
        let span = f64::from(last - first + 1) * 12.0;
        let x = |year: i32, month0: f64| LEFT + (f64::from(year - first) * 12.0 + month0) / span * (RIGHT - LEFT);
        let mean = |(sum, count): (f64, u32)| (count > 0).then(|| sum / f64::from(count));
        let lowest = months.values().filter_map(|m| mean(m.min)).fold(f64::INFINITY, f64::min);
        let highest = months.values().filter_map(|m| mean(m.max)).fold(f64::NEG_INFINITY, f64::max);
        if highest < lowest {
            return None;
        }
        let y = |t: f64| MIDDLE - (t - lowest) / (highest - lowest).max(1.0) * (MIDDLE - TOP);
        let wettest = months.values().map(|m| m.rain).fold(1.0, f64::max);
        let (mut temperatures, mut rain) = (PathData::default(), PathData::default());
        for ((year, month), sums) in &months {
            let at = x(*year, f64::from(*month) - 0.5);
            if let (Some(max), Some(min)) = (mean(sums.max), mean(sums.min)) {
                temperatures.stroke(at, y(min), y(max));
            }
            if sums.rain > 0.0 {
                rain.stroke(at, 98.0, 98.0 + sums.rain / wettest * 34.0);
            }
        }
        let every = ((last - first) / 12 + 1).max(1);
        Some(Self {
            years: (first..=last)
                .filter(|y| (y - first) % every == 0)
                .map(|year| YearMark { x: Fixed(x(year, 0.0)), label: year.to_string() })
                .collect(),
            temperatures: temperatures.into_string(),
            rain: rain.into_string(),
            faults: faults
                .iter()
                .filter(|(_, d)| (first..=last).contains(&d.year()))
                .take(12)
                .map(|(number, date)| {
                    let at = x(date.year(), f64::from(date.ordinal0()) / 366.0 * 12.0);
                    FaultMark { x: Fixed(at), number: *number, diamond: format!("M{} 1l9 9-9 9-9-9z", Fixed(at)) }
                })
                .collect(),
            zero_y: (lowest < 0.0 && highest > 0.0).then(|| Fixed(y(0.0))),
            high: (Fixed(TOP + 4.0), number(highest, 0)),
            low: (Fixed(MIDDLE + 4.0), number(lowest, 0)),
        })
    }
}
