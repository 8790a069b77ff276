//! A new export joins a record that is there: what is new, what differs.

use upland_core::climate::daily::DailyWeather;
use upland_core::climate::merge::{Merged, merge};

use crate::context::Record;
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

impl JoinView {
    pub(super) fn of(name: &str, merged: &Merged, units: Units) -> Self {
        let w = Words;
        let text = |n: usize| number(n as f64, 0);
        let mut changed: Vec<_> = merged.differences.iter().map(|d| d.date).collect();
        changed.dedup();
        let mut lines = vec![w.count("join-added", merged.added)];
        if merged.same > 0 {
            lines.push(w.count("join-same", merged.same));
        }
        if merged.filled > 0 {
            lines.push(w.count("join-filled", merged.filled));
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
            name: name.to_owned(),
            lines,
            rows,
            more: if more > 0 { w.t1("join-more", text(more)) } else { String::new() },
            doubtful: merged.is_one_station() == Some(false),
            nothing_new: merged.changes_nothing(),
            days: merged.added + changed.len(),
        }
    }
}
