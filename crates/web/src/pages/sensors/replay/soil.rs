//! A soil-moisture sensor: its decision window and its calibration.

use chrono::NaiveDate;
use upland_core::quantity::RunTime;
use upland_core::replay::{Hold, Judged, Part, StationReplay};
use upland_core::schedule::{Level, Plan};
use upland_core::sensor::{CalibrationFault, Reading, Sensor, calibration_faults, decision_window, threshold_from};

use super::{ReplayInput, scheduled};
use crate::context::{ControllerContext, monday};
use crate::pages::replay::Field;
use crate::show::{Measure, clock, date_long, number};
use crate::words::Words;

/// The window and the calibration of a soil-moisture sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct SoilView {
    pub(crate) window: String,
    pub(crate) working: String,
    pub(crate) faults: Vec<String>,
    pub(crate) threshold: String,
    /// How it would have judged the waterings on record; empty where it cannot act or there is no weather.
    pub(crate) judged: Vec<String>,
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
            working: w.t2("sensor-window-working", ("cycle", hours(cycle)), ("window", hours(window))),
            judged: judged(sensor, input),
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

/// How it would have judged the waterings of the weather on record, by the balance of the station it stands in.
fn judged(sensor: &Sensor, input: &ReplayInput<'_>) -> Vec<String> {
    let account = || {
        let field = Field::of(input.context, input.days, None)?;
        let station = field.controller.stations.iter().find(|s| sensor.governs(s.number))?;
        Hold::of(sensor, &field.controller, [6.0; 12])?;
        let span = [input.days.first()?.date, input.days.last()?.date];
        let season = field.season(span)?;
        let [with, without] = field.with_and_without(&season, sensor.id, station.number);
        let part = Part::Average.index();
        let [with, without] = [&with, &without].map(|r| r.station(station.number));
        let (with, without) = (with?, without?);
        let days = |r: &StationReplay| r.daily.as_ref().map(|d| d[part].clone());
        let found = Judged::of(&days(with)?, &days(without)?, station.zone().raw_mm());
        let depth = |mm: f64| Measure::Depth.season(mm, input.units);
        let w = Words;
        let span = [date_long(span[0]), date_long(span[1])];
        Some(vec![
            w.with("sensor-soil-span", &[("from", &span[0]), ("to", &span[1]), ("station", &station.name)]),
            w.with(
                "sensor-soil-held",
                &[
                    ("held", &found.held.to_string()),
                    ("due", &found.due.to_string()),
                    ("rightly", &found.held_rightly().to_string()),
                    ("wrongly", &found.held_wrongly.to_string()),
                    ("missed", &found.missed.to_string()),
                ],
            ),
            w.t2(
                "sensor-soil-drained",
                ("with", depth(with.totals[part].percolation_mm)),
                ("without", depth(without.totals[part].percolation_mm)),
            ),
        ])
    };
    account().unwrap_or_default()
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
        let (start, stop) = (run.start().timestamp(), run.stop().timestamp());
        let span = spans.entry(run.date).or_insert((start, stop));
        *span = (span.0.min(start), span.1.max(stop));
    }
    let longest = spans.values().map(|(a, b)| b - a).max().unwrap_or(0);
    RunTime::from_seconds(u32::try_from(longest).unwrap_or(0))
}
