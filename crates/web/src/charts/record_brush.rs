//! The whole record by month, with the period that is shown framed in it.

use chrono::NaiveDate;
use upland_core::climate::record::MonthOnRecord;

use super::path::PathData;
use super::time_axis::{Tick, TimeAxis};
use crate::show::Fixed;

#[derive(Debug, Clone)]
pub(crate) struct RecordBrush {
    pub(crate) rain: String,
    pub(crate) et0: String,
    pub(crate) years: Vec<Tick>,
    /// Edges of the frame.
    pub(crate) from: Fixed,
    pub(crate) to: Fixed,
    pub(crate) frame: Fixed,
    pub(crate) left: Fixed,
    pub(crate) right: Fixed,
    pub(crate) first: NaiveDate,
    pub(crate) days: i64,
}

const LEFT: f64 = 46.0;
const RIGHT: f64 = 778.0;
const ROOM: f64 = 17.0;
const BASE: f64 = 38.0;
/// Least width of the frame, so that both its handles can be taken.
const LEAST: f64 = 12.0;

impl RecordBrush {
    /// Draws a record; nothing where it has no day.
    pub(crate) fn draw(
        months: &[MonthOnRecord],
        [first, last]: [NaiveDate; 2],
        [from, to]: [NaiveDate; 2],
    ) -> Option<Self> {
        let wettest = months.iter().map(|m| m.rain_mm).fold(1.0, f64::max);
        let most = months.iter().map(|m| m.et0_mm).fold(1.0, f64::max);
        let axis = TimeAxis { first, last, left: LEFT, right: RIGHT };
        let (mut rain, mut et0) = (PathData::default(), PathData::default());
        for month in months {
            let middle = NaiveDate::from_ymd_opt(month.year, u32::from(month.month.number()), 15)?;
            let x = axis.middle(middle).clamp(LEFT + 1.0, RIGHT - 1.0);
            if month.rain_mm > 0.0 {
                rain.stroke(x, 1.0, 1.0 + month.rain_mm / wettest * ROOM);
            }
            if month.et0_mm > 0.0 {
                et0.stroke(x, BASE, BASE - month.et0_mm / most * ROOM);
            }
        }
        let (start, end) = (axis.start(from), axis.start(to) + axis.day());
        let end = end.max(start + LEAST).min(RIGHT);
        let start = start.min(end - LEAST);
        Some(Self {
            rain: rain.into_string(),
            et0: et0.into_string(),
            years: axis.ticks(),
            from: Fixed(start),
            to: Fixed(end),
            frame: Fixed(end - start),
            left: Fixed(LEFT),
            right: Fixed(RIGHT),
            first,
            days: (last - first).num_days() + 1,
        })
    }
}
