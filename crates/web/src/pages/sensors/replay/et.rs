//! An ET sensor: the percents it would set.

use upland_core::climate::normals::Normals;
use upland_core::controller::{Program, ProgramLetter};
use upland_core::quantity::MonthOfYear;
use upland_core::sensor::{EtSetting, recent_et0};

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
        setting: &EtSetting,
        programs: &[ProgramLetter],
        input: &ReplayInput<'_>,
        normals: &Normals,
    ) -> Self {
        let w = Words;
        let c = input.context.controller();
        let peak = normals.iter().map(|n| n.et0_mm_per_day).fold(0.0, f64::max);
        let proposed = setting.sheet.climate(setting.sheet.climate_for(peak));
        let month = month_of(input.today);
        let dial = |p: f64| c.capability.dial(p).get().to_string();
        let depth = |mm: f64| Measure::DepthADay.show(mm, input.units);
        Self {
            title: proposed.map_or_else(String::new, |step| {
                let (mark, reference) = (step.mark.to_string(), depth(step.reference_mm_per_day()));
                w.with("sensor-et-step", &[("step", &mark), ("peak", &depth(peak)), ("reference", &reference)])
            }),
            months: MonthOfYear::ALL
                .into_iter()
                .zip(setting.expected_by_month(normals))
                .map(|(m, p)| (month_short(m), number(p, 0), m == month))
                .collect(),
            today: match recent_et0(input.days, input.today) {
                None => w.t1("sensor-et-today-normal", dial(setting.percent(normals[month.index()].et0_mm_per_day))),
                Some(mean) => w.t2("sensor-et-today", ("depth", depth(mean)), ("percent", dial(setting.percent(mean)))),
            },
            fights: programs
                .iter()
                .filter(|l| c.program(**l).is_some_and(Program::has_percent_by_hand))
                .map(|l| w.t1("sensor-et-fights", l.get().to_string()))
                .collect(),
        }
    }
}
