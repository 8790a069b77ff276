//! A controller's year in 176 by 44, all rows of a list to one scale.

use chrono::{Datelike, NaiveDate};
use upland_core::budget::Group;
use upland_core::climate::normals::Normals;
use upland_core::quantity::MonthOfYear;

use super::path::PathData;
use crate::show::Fixed;

#[derive(Debug, Clone)]
pub(crate) struct Tiny {
    /// What lies under the normal reference ET: hatched, four strokes a month.
    pub(crate) normal: String,
    pub(crate) steps: String,
    pub(crate) now: Fixed,
    pub(crate) flag: String,
}

const WIDTH: f64 = 176.0;
const BASE: f64 = 42.5;
const TOP: f64 = 7.0;

impl Tiny {
    /// `most` is the top of the list's common scale, mm a day.
    pub(crate) fn draw(normals: &Normals, group: &Group, today: NaiveDate, most: f64) -> Self {
        let width = WIDTH / 12.0;
        let x = |m: MonthOfYear| m.index() as f64 * width;
        let y = |mm: f64| BASE - (mm / most.max(0.1)).clamp(0.0, 1.0) * (BASE - TOP);
        let level = |m: MonthOfYear, mm: f64| (x(m), x(m) + width, y(mm));
        let normal = PathData::steps(MonthOfYear::ALL.map(|m| level(m, normals[m.index()].et0_mm_per_day)));
        let peak = normals[group.base_month.index()].et0_mm_per_day;
        let steps = MonthOfYear::ALL.map(|m| level(m, f64::from(group.month(m).dial.percent()) / 100.0 * peak));
        let now = f64::from(today.ordinal0()) / 366.0 * WIDTH;
        Self {
            normal: format!("{}V{BASE}H0Z", normal.into_string()),
            steps: PathData::steps(steps).into_string(),
            now: Fixed(now),
            flag: format!("M{} 0h7l-3.5 5z", Fixed(now - 3.5)),
        }
    }
}
