//! What every setting of a sensor would have done in the weather on record.

use upland_core::controller::ProgramLetter;
use upland_core::sensor::{Sensor, SensorKind};

use super::each;
use super::fixture::{Half, context, days};
use crate::context::ControllerContext;
use crate::pages::sensors::{ReplayInput, ReplayView, held_on};
use crate::show::Units;

/// The controller with a sensor of a kind instead of its own.
fn with(half: Half, kind: SensorKind) -> ControllerContext {
    let mut context = context(half);
    let c = &mut context.controller.value.controller;
    c.sensors.clear();
    let sensor = Sensor { jumper_removed: true, ..Sensor::proposed(kind, "Shed", c) };
    c.add_sensor(sensor);
    context
}

fn et() -> SensorKind {
    match SensorKind::of_word("et") {
        Some(SensorKind::Et { setting, .. }) => SensorKind::Et { setting, programs: vec![ProgramLetter::A] },
        other => panic!("{other:?}"),
    }
}

fn view(context: &ControllerContext, half: Half, with_weather: bool, units: Units) -> ReplayView {
    let days = if with_weather { days(half) } else { Vec::new() };
    let input = ReplayInput { context, days: &days, today: half.today(), units };
    ReplayView::of(&context.controller().sensors[0], &input)
}

#[test]
fn rain_freeze_and_et() {
    for (name, kind) in [
        ("sensor_rain", SensorKind::common_rain()),
        ("sensor_freeze", SensorKind::common_freeze()),
        ("sensor_et", et()),
    ] {
        each(name, |half, units| format!("{:#?}", view(&with(half, kind.clone()), half, true, units)));
    }
}

#[test]
fn without_weather_nothing_is_replayed() {
    let half = Half::North;
    for kind in [SensorKind::common_rain(), SensorKind::common_freeze()] {
        assert!(matches!(view(&with(half, kind), half, false, Units::Metric), ReplayView::NoWeather));
    }
    // An ET sensor follows the normals, which need no days.
    assert!(matches!(view(&with(half, et()), half, false, Units::Metric), ReplayView::Et(_)));
}

#[test]
fn what_held_on_a_day_is_told_by_the_weather_alone() {
    let half = Half::North;
    let mut record = days(half);
    // It pours after the watering of the morning: the next one is held.
    let wet = record[20].date;
    record[20].rain_mm = Some(40.0);
    let held = |kind, date| held_on(&with(half, kind), &record, date)[0].1;
    assert_eq!(held(SensorKind::common_rain(), wet + chrono::Days::new(1)), Some(true));
    // Nights of 8 °C hold nothing back.
    assert_eq!(held(SensorKind::common_freeze(), wet), Some(false));
    assert_eq!(held(et(), wet), None);
    assert_eq!(held(SensorKind::common_rain(), record[0].date - chrono::Days::new(1)), None, "not on record");
}
