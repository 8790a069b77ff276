//! Trade rules without a publication: common practice.

use upland_core::controller::Preset;
use upland_core::landscape::{SprinklerType, minutes_for};
use upland_core::quantity::{Percent, RunTime};

/// 12.7 mm (half an inch) takes 24, 52, 50 and 75 minutes by type of sprinkler.
#[test]
fn minutes_for_half_an_inch() {
    for (kind, minutes) in SprinklerType::ALL.into_iter().zip([24.0, 52.0, 50.0, 75.0]) {
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
