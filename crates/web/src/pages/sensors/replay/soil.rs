//! A soil-moisture sensor: its decision window and its calibration.

use chrono::NaiveDate;
use upland_core::quantity::RunTime;
use upland_core::schedule::{Level, Plan};
use upland_core::sensor::{CalibrationFault, Reading, Sensor, calibration_faults, decision_window, threshold_from};

use super::{ReplayInput, scheduled};
use crate::context::{ControllerContext, monday};
use crate::show::{clock, number};
use crate::words::Words;

/// The window and the calibration of a soil-moisture sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct SoilView {
    pub(crate) window: String,
    pub(crate) working: String,
    pub(crate) faults: Vec<String>,
    pub(crate) threshold: String,
}

impl SoilView {
    /// `is_set`: whether a threshold is set.
    pub(super) fn of(sensor: &Sensor, readings: &[Reading], is_set: bool, input: &ReplayInput<'_>) -> Self {
        let w = Words;
        let cycle = daily_cycle(input.context, input.today);
        let window = decision_window(cycle);
        let faults = calibration_faults(readings);
        let depletion = input.context.budget().ok().and_then(|b| {
            let bases = b.groups.iter().flat_map(|g| &g.stations).filter(|s| sensor.governs(s.number));
            bases.map(|s| s.depletion_share.0).min_by(f64::total_cmp)
        });
        let share = depletion.unwrap_or(0.5);
        let at_24 = readings
            .first()
            .and_then(|first| readings.iter().rev().find(|r| r.at - first.at >= chrono::TimeDelta::hours(24)));
        let proposal = at_24.filter(|_| faults.is_empty()).map(|r| (r.percent, threshold_from(r.percent, share)));
        Self {
            window: w.t1("sensor-window", hours(window)),
            working: w.t2("sensor-window-working", hours(cycle), hours(window)),
            faults: if readings.is_empty() {
                vec![w.t("sensor-not-calibrated")]
            } else {
                faults.iter().map(fault).collect()
            },
            threshold: match (proposal, is_set) {
                (Some((reading, t)), _) => w.with(
                    "sensor-soil-threshold",
                    &[
                        ("reading", &number(reading, 1)),
                        ("share", &number(share * 100.0, 0)),
                        ("threshold", &number(t, 1)),
                    ],
                ),
                (None, true) => w.t("sensor-soil-unproven"),
                (None, false) => String::new(),
            },
        }
    }
}

fn fault(f: &CalibrationFault) -> String {
    use CalibrationFault as F;
    let w = Words;
    match f {
        F::TooFew => w.t("cal-few"),
        F::TooShort { hours } => w.t1("cal-short", number(*hours, 1)),
        F::Rose { at } => w.t1("cal-rose", clock(*at)),
        F::NotFlattening => w.t("cal-not-flat"),
        F::DidNotFall => w.t("cal-not-fall"),
    }
}

fn hours(run: RunTime) -> String {
    let minutes = (run.seconds() / 60) % 60;
    if minutes == 0 {
        format!("{}\u{a0}h", run.seconds() / 3600)
    } else {
        format!("{}\u{a0}h {minutes}\u{a0}min", run.seconds() / 3600)
    }
}

/// From the first valve that opens on a day to the last that shuts, the longest of the week.
fn daily_cycle(context: &ControllerContext, today: NaiveDate) -> RunTime {
    let first = monday(today);
    let c = scheduled(context, first);
    let situation = context.situation(first);
    let plan: Plan = situation.plan(&c);
    let week = situation.week(&c, &plan, Level::Calendar);
    let mut spans = std::collections::BTreeMap::<NaiveDate, (i64, i64)>::new();
    for run in &week.runs {
        let (start, stop) = (run.start.timestamp(), run.stop.timestamp());
        let span = spans.entry(run.date).or_insert((start, stop));
        *span = (span.0.min(start), span.1.max(stop));
    }
    let longest = spans.values().map(|(a, b)| b - a).max().unwrap_or(0);
    RunTime::from_seconds(u32::try_from(longest).unwrap_or(0))
}
