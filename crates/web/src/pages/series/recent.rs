//! The last thirty days: did it rain here, how much, and what the schedule gave.

use std::collections::BTreeMap;

use chrono::NaiveDate;

use super::period::Period;
use crate::charts::PlateFlag;
use crate::context::RecordDay;
use crate::pages::Choice;
use crate::show::{Fixed, Measure, Units, date_tiny, day_short, number};
use crate::words::Words;

/// What a station's schedule gives on each day.
#[derive(Debug, Clone, Default)]
pub(crate) struct Scheduled {
    pub(crate) station: String,
    pub(crate) mm: BTreeMap<NaiveDate, f64>,
}

/// A day of the table.
#[derive(Debug, Clone)]
pub(crate) struct RecentRow {
    pub(crate) day: String,
    pub(crate) date: String,
    /// The day of the address of its hours.
    pub(crate) hours_of: Option<String>,
    pub(crate) high: String,
    pub(crate) low: String,
    pub(crate) rain: String,
    /// Width of the rain's bar; none on a dry day.
    pub(crate) bar: Option<Fixed>,
    pub(crate) et0: String,
    pub(crate) scheduled: String,
    pub(crate) flags: Vec<usize>,
    pub(crate) week_ends: bool,
}

/// The last thirty days on record.
#[derive(Debug, Clone, Default)]
pub(crate) struct RecentView {
    pub(crate) sub: String,
    pub(crate) rain: String,
    pub(crate) et0: String,
    /// The sum that was scheduled and the name of its station.
    pub(crate) scheduled: Option<(String, String)>,
    pub(crate) depth_unit: &'static str,
    pub(crate) rows: Vec<RecentRow>,
    pub(crate) controllers: Vec<Choice>,
    pub(crate) stations: Vec<Choice>,
}

const BAR: f64 = 26.0;

impl RecentView {
    /// Days of the record of which `days` are those in `period`, newest first.
    pub(crate) fn of(
        days: &[RecordDay],
        period: Period,
        scheduled: Option<&Scheduled>,
        marks: &[PlateFlag],
        units: Units,
    ) -> Self {
        use chrono::Datelike;
        let known: BTreeMap<NaiveDate, &RecordDay> = days.iter().map(|d| (d.weather.date, d)).collect();
        let wettest = days.iter().filter_map(|d| d.weather.rain).fold(5.0, f64::max);
        let dot = || "·".to_owned();
        let air = |t: Option<f64>| {
            t.map_or_else(dot, |t| number(Measure::Temperature.in_units(t, units), usize::from(units == Units::Metric)))
        };
        // A decimal less than where ET is worked with: the table is read at a glance.
        let et0 = |mm: f64| number(Measure::DepthADay.in_units(mm, units), if units == Units::Us { 2 } else { 1 });
        let rows = period
            .from
            .iter_days()
            .take_while(|date| *date <= period.to)
            .map(|date| {
                let day = known.get(&date);
                let weather = day.map(|d| d.weather);
                let rain = weather.and_then(|w| w.rain);
                let mm = scheduled.and_then(|s| s.mm.get(&date)).copied().unwrap_or_default();
                RecentRow {
                    day: day_short(date.weekday()),
                    date: date_tiny(date),
                    hours_of: day.filter(|d| d.has_hours).map(|_| date.to_string()),
                    high: air(weather.and_then(|w| w.t_max)),
                    low: air(weather.and_then(|w| w.t_min)),
                    rain: rain
                        .map_or_else(dot, |mm| if mm > 0.0 { Measure::Depth.figure(mm, units) } else { "0".into() }),
                    bar: rain.filter(|mm| *mm > 0.0).map(|mm| Fixed((mm / wettest * BAR).max(2.0))),
                    et0: day.and_then(|d| d.et0_mm).map_or_else(dot, et0),
                    scheduled: if mm > 0.0 { Measure::Depth.figure(mm, units) } else { dot() },
                    flags: marks.iter().filter(|m| m.date == date).map(|m| m.number).collect(),
                    week_ends: date.weekday().num_days_from_monday() == 0,
                }
            })
            .collect::<Vec<_>>();
        let sum = |of: fn(&RecordDay) -> Option<f64>| {
            let known: Vec<f64> = days.iter().filter_map(of).collect();
            if known.is_empty() { dot() } else { Measure::Depth.season_figure(known.into_iter().sum(), units) }
        };
        Self {
            sub: Words.t2("record-recent-sub", ("first", date_tiny(period.from)), ("last", date_tiny(period.to))),
            rain: sum(|d| d.weather.rain),
            et0: sum(|d| d.et0_mm),
            scheduled: scheduled.map(|s| (Measure::Depth.season_figure(s.mm.values().sum(), units), s.station.clone())),
            depth_unit: Measure::Depth.unit(units),
            rows: rows.into_iter().rev().collect(),
            controllers: Vec::new(),
            stations: Vec::new(),
        }
    }
}
