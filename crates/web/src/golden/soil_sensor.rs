//! What a soil-moisture sensor would have done in the weather on record.

use chrono::{NaiveDate, TimeDelta};
use upland_core::sensor::{Reading, Sensor, SensorKind};

use super::fixture::{Half, context, days};
use crate::pages::sensors::{ReplayInput, ReplayView};
use crate::show::Units;

/// A sensor that was read 24 hours after soaking and lets water under a threshold.
fn judged(threshold_pct: Option<f64>, with_weather: bool) -> Vec<String> {
    let half = Half::North;
    let mut context = context(half);
    let soaked = NaiveDate::from_ymd_opt(2026, 5, 4).unwrap().and_hms_opt(8, 0, 0).unwrap();
    let reading = |hours, percent| Reading { at: soaked + TimeDelta::hours(hours), percent };
    let readings = vec![reading(0, 44.0), reading(12, 35.0), reading(24, 32.0)];
    let kind = SensorKind::SoilMoisture { readings, threshold_pct };
    let c = &mut context.controller.value.controller;
    let sensor = Sensor { jumper_removed: true, ..Sensor::proposed(kind, "Reading lawn", c) };
    let id = c.add_sensor(sensor);
    let days = if with_weather { days(half) } else { Vec::new() };
    let input = ReplayInput { context: &context, days: &days, today: half.today(), units: Units::Metric };
    match ReplayView::of(context.controller().sensor(id).unwrap(), &input) {
        ReplayView::Soil(view) => view.judged,
        other => panic!("{other:?}"),
    }
}

#[test]
fn a_lower_threshold_holds_more() {
    let held = |threshold| -> u32 {
        let lines = judged(Some(threshold), true);
        assert_eq!(lines.len(), 3, "{lines:?}");
        lines[1].split_whitespace().nth(1).unwrap().parse().unwrap()
    };
    let (low, high) = (held(12.0), held(31.0));
    assert!(low > high, "{low} and {high}");
}

#[test]
fn without_a_threshold_or_weather_nothing_is_said() {
    assert_eq!(judged(None, true), [""; 0]);
    assert_eq!(judged(Some(20.0), false), [""; 0]);
}
