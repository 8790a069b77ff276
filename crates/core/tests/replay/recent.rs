//! Where the soil stands on a morning, and the nights on which a schedule would have watered in frost.

use chrono::TimeDelta;
use upland_core::controller::*;
use upland_core::place::Bound;
use upland_core::replay::*;
use upland_core::schedule::Plan;
use upland_core::sensor::{Sensor, SensorKind};

use crate::builders::*;

/// 12 mm on Monday and on Thursday, where 5 mm are used a day.
fn lawn() -> Controller {
    let mut c = controller(vec![station(1, A, 60), station(2, A, 0)]);
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c
}

fn soil(c: &Controller, season: &Season, since_day: i64) -> Vec<SoilNow> {
    let plan = Plan::of(c, None);
    let rules = Bound::open();
    let since = monday() + TimeDelta::days(since_day);
    Recent { controller: c, plan: &plan, rules: &rules, season, sunrise_hours: [6.0; 12], since }.soil()
}

/// By hand, from full on Monday: 12 mm sink in part, then 5 a day; Thursday's water goes in before the plants drink.
/// Monday 0 missing, 12 come, 5 used, 7 lost; Tuesday 5, Wednesday 10; Thursday 10 - 12 + 5 = 3; Friday 8.
#[test]
fn a_week_by_hand() {
    let found = soil(&lawn(), &season(5, &[]), 1);
    let lawn = found[0];
    assert_eq!((lawn.station, lawn.watering_days), (1, 1));
    assert!((lawn.depletion_mm - 8.0).abs() < 1e-9, "{lawn:?}");
    // From Tuesday on: 20 mm used, Thursday's 12 watered, nothing lost.
    assert!((lawn.used_mm - 20.0).abs() < 1e-9 && (lawn.watered_mm - 12.0).abs() < 1e-9);
    assert_eq!((lawn.lost_mm, lawn.dry_since), (0.0, None));
    assert_eq!(lawn.last_watered, Some(monday() + TimeDelta::days(3)));
    // RAW is 0.5 of 46.5 mm.
    assert!((lawn.before_stress_mm() - (23.25 - 8.0)).abs() < 1e-9 && (lawn.refill_share() - 0.5).abs() < 1e-9);
}

/// A station without minutes passes RAW of 23.25 mm on the fifth day, and has felt it since.
#[test]
fn a_dry_station_says_since_when() {
    let found = soil(&lawn(), &season(9, &[]), 0);
    let dry = found[1];
    assert_eq!((dry.watering_days, dry.last_watered), (0, None));
    assert!(dry.before_stress_mm() < 0.0 && dry.share_left() < 0.5);
    // Full on Monday; Friday's 25 mm are beyond RAW, and K_s is that of the depletion before the day's use.
    assert_eq!(dry.dry_since, Some(monday() + TimeDelta::days(5)));
    assert!(dry.used_mm < dry.wanted_mm);
    // The lawn drained 7 mm of 36 on the first day, and nothing since.
    assert_eq!((dry.verdict(), found[0].verdict()), (SoilVerdict::NotWatered, SoilVerdict::Enough));
    // Watered daily with 12 mm it drains more than half.
    let mut soaked = lawn();
    set(&mut soaked, A, DayMode::Weekdays(Days::ALL), &["04:30"]);
    let SoilVerdict::TooMuch(mm) = soil(&soaked, &season(9, &[]), 0)[0].verdict() else { panic!() };
    assert!((mm - 9.0 * 7.0).abs() < 1e-9, "{mm}");
    // At a tenth of its minutes it gets 1.2 mm a watering, where 5 mm are used a day.
    let mut c = lawn();
    c.stations[1].minutes = Some(min(6));
    let short = soil(&c, &season(9, &[]), 0)[1];
    let SoilVerdict::Short(mm) = short.verdict() else { panic!("{short:?}") };
    assert!((mm - (9.0 * 5.0 - 3.0 * 1.2)).abs() < 1e-9, "{mm}");
    // Since yesterday nothing was short: it was dry before, and a storm has not filled it.
    let wetted = soil(&c, &season(9, &[(8, 8.0)]), 8)[1];
    assert_eq!(wetted.verdict(), SoilVerdict::DryBefore);
}

/// The one balance: what a replay of the same days ends with.
#[test]
fn the_soil_is_that_of_the_replay() {
    let (c, season) = (lawn(), season(40, &[(8, 20.0), (30, 4.0)]));
    let replayed = run(&c, &season, &Bound::open(), Kind::ByMonth);
    for found in soil(&c, &season, 0) {
        let [average, _] = replayed.station(found.station).unwrap().daily.clone().unwrap();
        assert_eq!(average.depletion_mm.last(), Some(&found.depletion_mm));
        let sum: f64 = average.percolation_mm.iter().sum();
        assert!((found.lost_mm - sum).abs() < 1e-9);
    }
}

/// A rain sensor holds what follows a storm; bypassed on those days it holds nothing.
#[test]
fn a_bypassed_sensor_holds_nothing() {
    let mut c = lawn();
    let own = Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::common_rain(), "Shed", &c) };
    let sensor = c.add_sensor(own);
    let season = season(9, &[(6, 25.0)]);
    // Monday's watering comes the day after 25 mm.
    assert_eq!(soil(&c, &season, 7)[0].watering_days, 0);
    c.add_temporary(Temporary {
        id: 0,
        kind: TemporaryKind::Bypass { sensor },
        since: monday() + TimeDelta::days(5),
        until: monday() + TimeDelta::days(9),
        reason: "test".into(),
        by: "Oda".into(),
        left_standing: false,
    });
    assert_eq!(soil(&c, &season, 7)[0].watering_days, 1);
}

/// Air of -1 to 11 °C with sunrise at 6: by the half sine about 1.4 °C at 04:30 and 11 at 15:00, so the one night is
/// under 3 °C for a program before sunrise and for none after noon.
#[test]
fn frost_counts_where_something_was_due() {
    let mut cold = season(14, &[]);
    cold.air_c.fill(Some((-1.0, 11.0)));
    let nights = |c: &Controller, season: &Season| {
        let (plan, ground) = (Plan::of(c, None), Ground::of(c));
        let schedule = Scheduled::new(c, &plan, &ground, PercentBy::Month);
        frost_nights(&schedule, season, &[A], &[-2.0, 3.0, 20.0], &[6.0; 12])
    };
    let mut c = lawn();
    // Two weeks of Mondays and Thursdays.
    assert_eq!(nights(&c, &cold), [0, 4, 4]);
    set(&mut c, A, mondays_and_thursdays(), &["15:00"]);
    assert_eq!(nights(&c, &cold), [0, 0, 4]);
    // Another program's nights are not counted.
    let (plan, ground) = (Plan::of(&c, None), Ground::of(&c));
    let schedule = Scheduled::new(&c, &plan, &ground, PercentBy::Month);
    assert_eq!(frost_nights(&schedule, &cold, &[B], &[20.0], &[6.0; 12]), [0]);
    // A month that is off waters on no night, and neither does air that nobody measured.
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c.programs[0].months[5].dial = MonthDial::Off;
    assert_eq!(nights(&c, &cold), [0, 0, 0]);
    c.programs[0].months[5].dial = MonthDial::Set(upland_core::quantity::Percent::FULL);
    cold.air_c.fill(None);
    assert_eq!(nights(&c, &cold), [0, 0, 0]);
}
