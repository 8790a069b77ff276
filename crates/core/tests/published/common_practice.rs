//! Trade rules without a publication: common practice.

use upland_core::controller::Preset;
use upland_core::landscape::{SprinklerType, cycles, minutes_for};
use upland_core::quantity::{Percent, RunTime};
use upland_core::sensor::{SensorKind, decision_window};

/// 12.7 mm (half an inch) takes 24, 52, 50 and 75 minutes by type of sprinkler.
#[test]
fn minutes_for_half_an_inch() {
    let types = [SprinklerType::Spray, SprinklerType::Rotor, SprinklerType::MultiStream, SprinklerType::Drip];
    for (kind, minutes) in types.into_iter().zip([24.0, 52.0, 50.0, 75.0]) {
        assert!((minutes_for(12.7, kind.rate_mm_per_hour()) - minutes).abs() < 1e-9);
    }
}

/// 90 % of 10 min is 9; 200 % of 8 is 16; 15 and 30 at 50 % are 7.5 and 15.
#[test]
fn percent_of_minutes() {
    let half_minutes = Preset::Fine.capability();
    for (base, percent, result) in [(10.0, 90, 9.0), (8.0, 200, 16.0), (15.0, 50, 7.5), (30.0, 50, 15.0)] {
        let run = half_minutes.scaled(RunTime::from_minutes(base).unwrap(), Percent::new(percent).unwrap());
        assert_eq!(run.minutes(), result);
    }
}

/// Rain sensors are set to 1/8, 1/4, 1/2 and 3/4 in: 3, 6, 13 and 19 mm; 13 mm is the usual choice.
#[test]
fn settings_of_a_rain_sensor() {
    for (mm, inches) in SensorKind::COMMON_RAIN_MM.into_iter().zip([0.125_f64, 0.25, 0.5, 0.75]) {
        assert_eq!(mm, (inches * 25.4).round());
    }
    assert!(matches!(SensorKind::common_rain(), SensorKind::Rain { setting, .. } if setting.threshold_mm == 13.0));
}

/// Freeze sensors block under about 37 to 38 °F.
#[test]
fn settings_of_a_freeze_sensor() {
    let SensorKind::Freeze { threshold_c, .. } = SensorKind::common_freeze() else { panic!("another kind") };
    assert!((37.0..=38.0).contains(&(threshold_c * 1.8 + 32.0)));
}

/// The decision window is the daily cycle and an hour: 7 h for 6 h.
#[test]
fn decision_window_of_a_soil_moisture_sensor() {
    assert_eq!(decision_window(RunTime::from_seconds(6 * 3600)).seconds(), 7 * 3600);
}

/// 24 min of spray as 4 x 6.
#[test]
fn cycles_of_a_spray_run() {
    let minutes = |m: u32| RunTime::from_seconds(m * 60);
    assert_eq!(cycles(minutes(24), Some(minutes(6)), minutes(1)), [minutes(6); 4]);
}
