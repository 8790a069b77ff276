//! Rounds of programs whose percent an ET sensor sets: its dials move, and the percent is never put back.

use upland_core::controller::*;
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::Situation;
use upland_core::sensor::{EtSetting, EtSheet, Sensor, SensorKind};
use upland_core::tuning::*;

use crate::builders::*;
use crate::rounds::{around, lawns};
use Judgement::{Dry, Right, Wet};

const A: ProgramLetter = ProgramLetter::ALL[0];

/// Lawns under an ET sensor at a climate step and an offset of the example sheet.
fn sensed(climate: u8, offset: u8) -> Controller {
    let mut c = lawns();
    let setting = EtSetting { sheet: EtSheet::example(), climate, minutes_for: None, offset };
    c.add_sensor(Sensor::proposed(SensorKind::Et { setting, programs: vec![A] }, "Roof ridge", &c));
    c
}

/// The percent that the weather calls for in the week's month, exact.
fn called(c: &Controller) -> f64 {
    let around = around();
    let month = MonthOfYear::of(monday());
    around.situation().budget(c).unwrap().group(A).unwrap().month(month).percent_exact
}

/// The answer to a share of what the weather calls for, at the reference ET of the last days.
fn ask(c: &Controller, share: f64, stations: &[(u8, Judgement)], recent: Option<f64>) -> Advice {
    let around = around();
    let situation: Situation<'_, _> = around.situation();
    let percent = Percent::new((called(c) * share).round() as u16).unwrap();
    let seen = Seen {
        on: monday(),
        percents: vec![(A, percent)],
        stations: stations.to_vec(),
        before: Vec::new(),
        last_change: None,
        recent_et0_mm_per_day: recent,
    };
    advise(&situation, c, situation.budget(c).as_ref(), &seen)
}

fn setting(c: &Controller) -> &EtSetting {
    c.et_sensor_of(A).unwrap().1
}

#[test]
fn a_percent_that_is_right_says_nothing() {
    assert_eq!(ask(&sensed(4, 3), 1.0, &[], None).because, Because::NothingSeen);
    assert_eq!(ask(&sensed(4, 3), 1.03, &[(1, Right)], None).because, Because::AllRight);
}

/// 80 % of what it should be: two steps of a tenth come nearest to a quarter more.
#[test]
fn a_percent_that_is_low_raises_the_offset_by_as_many_steps_as_it_takes() {
    let c = sensed(4, 3);
    let advice = ask(&c, 0.8, &[], None);
    assert!(matches!(advice.because, Because::SensorOff { seen, called, .. } if seen < called), "{advice:?}");
    assert_eq!(advice.change, Some(Change::Offset { sensor: 1, letter: A, from: 3, to: 5 }));
    // What follows is a fifth more than what stands there now.
    let expected = advice.expected.unwrap();
    assert!((expected.after_mm / expected.before_mm - 1.2).abs() < 1e-9, "{expected:?}");
    let high = ask(&c, 1.12, &[], None);
    assert_eq!(high.change, Some(Change::Offset { sensor: 1, letter: A, from: 3, to: 2 }));
}

/// From the end of the offset the climate step goes cooler. The base minutes stay as they are: fitted to
/// the cooler step they would take back what it gives.
#[test]
fn at_the_end_of_the_offset_the_climate_step_goes_and_the_minutes_stay() {
    let c = sensed(4, 5);
    let advice = ask(&c, 0.85, &[], None);
    let change = advice.change.unwrap();
    assert_eq!(change, Change::Climate { sensor: 1, letter: A, from: 4, to: 3 });
    let changed = change.applied(&c, MonthOfYear::of(monday()));
    changed.check().unwrap();
    assert_eq!((setting(&changed).climate, setting(&changed).minutes_for), (3, Some(4)));
    let situation = around();
    let base = |c: &Controller| situation.situation().plan(c).station(1).unwrap().base;
    assert_eq!(base(&changed), base(&c));
    // Step 4 sets 100 % at 6 mm a day, step 3 at 5.
    let expected = advice.expected.unwrap();
    assert!((expected.after_mm / expected.before_mm - 6.0 / 5.0).abs() < 1e-9, "{expected:?}");
}

#[test]
fn at_the_end_of_both_dials_it_is_said() {
    let advice = ask(&sensed(1, 5), 0.8, &[], None);
    assert!(matches!((advice.change, advice.because), (None, Because::SensorOff { .. })), "{advice:?}");
}

/// A cool week sets a low percent, and that is right.
#[test]
fn the_percent_is_judged_by_the_weather_of_the_last_days() {
    let c = sensed(4, 3);
    let normal = normals()[MonthOfYear::of(monday()).index()].et0_mm_per_day;
    assert_eq!(ask(&c, 0.8, &[], Some(0.8 * normal)).because, Because::NothingSeen);
    assert!(ask(&c, 1.0, &[], Some(0.8 * normal)).change.is_some());
}

/// What the plants show goes before what is worked out: a low percent over wet ground is not raised.
#[test]
fn the_ground_decides() {
    let c = sensed(4, 3);
    assert_eq!(ask(&c, 0.8, &[(1, Right), (2, Right)], None).because, Because::AllRight);
    let wet = ask(&c, 0.8, &[(1, Wet), (2, Wet)], None);
    assert_eq!(wet.change, Some(Change::Offset { sensor: 1, letter: A, from: 3, to: 2 }));
    let dry = ask(&c, 0.8, &[(1, Dry), (2, Dry)], None);
    assert_eq!(dry.change, Some(Change::Offset { sensor: 1, letter: A, from: 3, to: 5 }));
    // Right for the weather, and everything is dry: a step more; from the end a cooler step.
    assert_eq!(
        ask(&c, 1.0, &[(1, Dry), (2, Dry)], None).change,
        Some(Change::Offset { sensor: 1, letter: A, from: 3, to: 4 })
    );
    assert_eq!(
        ask(&sensed(4, 5), 1.0, &[(1, Dry), (2, Dry)], None).change,
        Some(Change::Climate { sensor: 1, letter: A, from: 4, to: 3 })
    );
}
