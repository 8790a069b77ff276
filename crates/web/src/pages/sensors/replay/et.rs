//! An ET sensor: the percents it would set.

use upland_core::climate::normals::Normals;
use upland_core::controller::{Program, ProgramLetter};
use upland_core::quantity::MonthOfYear;
use upland_core::sensor::{EtClass, class_for, et_percent, expected_by_month};

use super::ReplayInput;
use crate::show::{Measure, month_of, month_short, number};
use crate::words::Words;

/// The percents of an ET sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct EtView {
    pub(crate) title: String,
    pub(crate) months: Vec<(String, String, bool)>,
    pub(crate) today: String,
    pub(crate) fights: Vec<String>,
}

impl EtView {
    pub(super) fn of(
        (class, trim): (EtClass, u8),
        programs: &[ProgramLetter],
        input: &ReplayInput<'_>,
        normals: &Normals,
    ) -> Self {
        let w = Words;
        let c = input.context.controller();
        let peak = normals.iter().map(|n| n.et0_mm_per_day).fold(0.0, f64::max);
        let proposed = class_for(peak);
        let month = month_of(input.today);
        let recent: Vec<f64> = input
            .days
            .iter()
            .filter(|d| d.date < input.today && (input.today - d.date).num_days() <= 7)
            .filter_map(|d| d.et0_mm)
            .collect();
        let dial = |p: f64| c.capability.dial(p).get().to_string();
        let mean = recent.iter().sum::<f64>() / recent.len().max(1) as f64;
        let depth = |mm: f64| Measure::DepthADay.show(mm, input.units);
        Self {
            title: w.with(
                "sensor-et-class",
                &[
                    ("class", &proposed.number().to_string()),
                    ("peak", &depth(peak)),
                    ("reference", &depth(proposed.reference_mm_per_day())),
                ],
            ),
            months: MonthOfYear::ALL
                .into_iter()
                .zip(expected_by_month(normals, class, trim))
                .map(|(m, p)| (month_short(m), number(p, 0), m == month))
                .collect(),
            today: if recent.is_empty() {
                w.t1("sensor-et-today-normal", dial(et_percent(normals[month.index()].et0_mm_per_day, class, trim)))
            } else {
                w.t2("sensor-et-today", depth(mean), dial(et_percent(mean, class, trim)))
            },
            fights: programs
                .iter()
                .filter(|l| c.program(**l).is_some_and(Program::has_percent_by_hand))
                .map(|l| w.t1("sensor-et-fights", l.get().to_string()))
                .collect(),
        }
    }
}
