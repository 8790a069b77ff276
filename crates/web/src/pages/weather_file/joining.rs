//! A new export joins a record that is there: what is new, what differs.

use std::collections::BTreeSet;

use chrono::{Datelike, NaiveDate};
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::element::Element;
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::merge::{Difference, Merged, merge};
use upland_formats::weather::Reading;

use crate::context::{DayHours, HoursOnRecord, Record};
use crate::pages::series::{element_name, value_text};
use crate::show::{Units, date_long, number};
use crate::words::Words;

/// A value that reads otherwise in the file.
#[derive(Debug, Clone)]
pub(crate) struct DifferenceRow {
    pub(crate) date: String,
    pub(crate) what: String,
    pub(crate) was: String,
    pub(crate) is: String,
}

/// What joining brings.
#[derive(Debug, Clone)]
pub(crate) struct JoinView {
    pub(crate) name: String,
    pub(crate) lines: Vec<String>,
    pub(crate) rows: Vec<DifferenceRow>,
    pub(crate) more: String,
    /// Most values on days of both differ: perhaps another station.
    pub(crate) doubtful: bool,
    pub(crate) nothing_new: bool,
    /// Days that are added or changed.
    pub(crate) days: usize,
}

/// Differences that are listed; the rest is counted.
const MOST: usize = 12;

/// How near a new export must follow the record to be taken for its next part, days.
const NEXT_DAYS: i64 = 31;

pub(super) fn joined(record: &Record, days: &[DailyWeather]) -> Merged {
    merge(&record.read(), &record.decisions, days)
}

/// Whether a file seems to go on with a record: the days of both agree, or it follows the last one. A rain gauge goes
/// on with a rain gauge: in dry weather every gauge agrees with every station.
pub(crate) fn goes_on(record: &Record, days: &[DailyWeather]) -> bool {
    let Some([_, last]) = record.span() else { return false };
    let has_temperature = |day: &DailyWeather| day.t_max.is_some() || day.t_min.is_some();
    if days.iter().any(has_temperature) != record.days.iter().any(|d| has_temperature(&d.weather)) {
        return false;
    }
    let first = days.iter().map(|d| d.date).min();
    let follows = first.is_some_and(|first| first > last && (first - last).num_days() <= NEXT_DAYS);
    joined(record, days).is_one_station().unwrap_or(follows)
}

/// Whether days have temperatures, but not of all twelve months: not enough for normals of their own, and something
/// for typed normals to give way to.
pub(crate) fn is_part_of_a_year(days: &[DailyWeather]) -> bool {
    let with_temperatures = days.iter().filter(|day| day.t_max.is_some() && day.t_min.is_some());
    let months: BTreeSet<u32> = with_temperatures.map(|day| day.date.month0()).collect();
    (1..12).contains(&months.len())
}

/// Takes the hours that a file brings out of it.
pub(super) fn take_hours(reading: &mut Reading) -> HoursOnRecord {
    let rows = reading.rows.iter_mut().filter(|row| !row.hours.is_empty());
    rows.map(|row| (row.day.date, DayHours { brought_by: None, hours: std::mem::take(&mut row.hours) })).collect()
}

/// The hours of a record and of a new export together.
#[derive(Debug, Clone)]
pub(super) struct JoinedHours {
    pub(super) all: HoursOnRecord,
    /// Days whose hours are new, or other ones than on record.
    pub(super) new: BTreeSet<NaiveDate>,
}

impl JoinedHours {
    /// The export's hours count on the days of which it has some. The record's do on the others, but for days of which
    /// the export gives another value than the hours had: it is from the day's own row then.
    pub(super) fn new(known: HoursOnRecord, export: &HoursOnRecord, differences: &[Difference]) -> Self {
        let mut all = known;
        for difference in differences.iter().filter(|d| d.element != Element::Rain) {
            all.remove(&difference.date);
        }
        let mut new = BTreeSet::new();
        for (date, of_day) in export {
            if !all.get(date).is_some_and(|known| are_same(&known.hours, &of_day.hours)) {
                all.insert(*date, of_day.clone());
                new.insert(*date);
            }
        }
        Self { all, new }
    }
}

/// Whether hours are the same but for what units lose on their way to and fro.
fn are_same(a: &[HourlyWeather], b: &[HourlyWeather]) -> bool {
    let values = |h: &HourlyWeather| [h.t, h.rh, h.wind, h.solar, h.rain];
    let is_same = |pair: (Option<f64>, Option<f64>)| match pair {
        (Some(a), Some(b)) => (a - b).abs() <= 1e-6,
        (a, b) => a == b,
    };
    let hour = |(a, b): (&HourlyWeather, &HourlyWeather)| {
        a.start == b.start && values(a).into_iter().zip(values(b)).all(is_same)
    };
    a.len() == b.len() && a.iter().zip(b).all(hour)
}

impl JoinView {
    /// What a file brings to a record; `hours` are the days whose hours are new.
    pub(super) fn of(record: &Record, merged: &Merged, hours: &BTreeSet<NaiveDate>, units: Units) -> Self {
        let w = Words;
        let text = |n: usize| number(n as f64, 0);
        let mut changed: BTreeSet<NaiveDate> = merged.differences.iter().map(|d| d.date).collect();
        changed.extend(record.days.iter().map(|d| d.weather.date).filter(|date| hours.contains(date)));
        let mut lines = vec![w.count("join-added", merged.added)];
        if let Some(typed) = record.weather.typed() {
            lines.push(w.count("normals-give-way", typed.years() as usize));
        }
        if merged.same > 0 {
            lines.push(w.count("join-same", merged.same));
        }
        if merged.filled > 0 {
            lines.push(w.count("join-filled", merged.filled));
        }
        if !hours.is_empty() {
            lines.push(w.count("join-hours", hours.len()));
        }
        if !merged.differences.is_empty() {
            lines.push(w.count("join-differs", merged.differences.len()));
        }
        if merged.dropped > 0 {
            lines.push(w.count("join-dropped", merged.dropped));
        }
        let rows = merged
            .differences
            .iter()
            .take(MOST)
            .map(|d| DifferenceRow {
                date: date_long(d.date),
                what: element_name(d.element),
                was: value_text(d.element, d.was, units),
                is: value_text(d.element, d.is, units),
            })
            .collect();
        let more = merged.differences.len().saturating_sub(MOST);
        Self {
            name: record.weather.series.value.name.clone(),
            lines,
            rows,
            more: if more > 0 { w.t1("join-more", text(more)) } else { String::new() },
            doubtful: merged.is_one_station() == Some(false),
            nothing_new: merged.changes_nothing() && hours.is_empty(),
            days: merged.added + changed.len(),
        }
    }
}
