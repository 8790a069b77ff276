//! Strategies on plain cases, worked by hand.

use chrono::Weekday;
use upland_core::controller::*;
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::place::{Allowed, Bound};
use upland_core::quantity::Percent;
use upland_core::replay::*;
use upland_core::schedule::Plan;
use upland_core::sensor::{Sensor, SensorKind};

use crate::builders::*;

fn plain(minutes: u32) -> Controller {
    let mut c = controller(vec![station(1, A, minutes)]);
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c
}

/// 5 mm a day are 35 a week; 87.5 min give 17.5 mm on each of two days. All of it is used.
#[test]
fn what_is_needed_is_enough_and_twice_as_much_is_lost() {
    let season = season(70, &[]);
    let enough = run(&plain(88), &season, &Bound::open(), Kind::ByMonth).totals(None);
    assert!(enough.adequacy > 0.995 && enough.lost_mm < 20.0, "{enough:?}");
    let twice = run(&plain(176), &season, &Bound::open(), Kind::ByMonth).totals(None);
    assert!((twice.applied_mm - 2.0 * enough.applied_mm).abs() < 1e-9);
    assert!(twice.lost_mm > 300.0);
    let nothing = run(&plain(88), &season, &Bound::open(), Kind::Nothing).totals(None);
    // All that the soil held, 46.5 mm, less what nobody could take at the end.
    assert!((45.0..46.5).contains(&(nothing.adequacy * 350.0)), "{nothing:?}");
    assert_eq!((nothing.applied_mm, nothing.waterings), (0.0, 0.0));
}

/// The order that plain cases have: no water, a sensor that waits, by month, always 100 %.
#[test]
fn the_order_of_strategies() {
    let mut c = plain(88);
    for month in &mut c.programs[0].months {
        month.dial = MonthDial::Set(Percent::new(80).unwrap());
    }
    let season = season(120, &[(3, 30.0), (20, 25.0), (21, 18.0), (40, 30.0), (41, 12.0), (70, 40.0), (90, 26.0)]);
    let applied = |kind| run(&c, &season, &Bound::open(), kind).totals(None).applied_mm;
    let [nothing, held, by_month, fixed] = [Kind::Nothing, Kind::RainSensor, Kind::ByMonth, Kind::Fixed].map(applied);
    assert!(nothing < held && held < by_month && by_month < fixed, "{nothing} {held} {by_month} {fixed}");
    let deficit = run(&c, &season, &Bound::open(), Kind::Deficit).totals(None);
    assert!(deficit.adequacy > 0.999 && deficit.applied_mm < fixed, "{deficit:?}");
}

/// 30 mm on Wednesday, 3 June: the disc holds 25 at noon and 22.5 at midnight, and loses 5 mm a day. It
/// lets go under 6.5 mm: 17.5, 12.5, 7.5 on Saturday, 2.5 on Sunday. Thursday's run is held, Monday's not.
#[test]
fn a_rain_sensor_holds_what_starts_while_it_is_wet() {
    let season = season(14, &[(2, 30.0)]);
    let held = run(&plain(60), &season, &Bound::open(), Kind::RainSensor);
    assert_eq!(watered(&held, 1), [1, 8, 11]);
    assert_eq!(watered(&run(&plain(60), &season, &Bound::open(), Kind::ByMonth), 1), [1, 4, 8, 11]);
    // A roofed station does not obey it.
    let mut c = plain(60);
    c.stations[0].roofed = true;
    assert_eq!(watered(&run(&c, &season, &Bound::open(), Kind::RainSensor), 1), [1, 4, 8, 11]);
}

#[test]
fn sensors_on_the_controller_act_in_the_present_and_only_when_they_can() {
    let season = season(14, &[(2, 30.0)]);
    let mut c = plain(60);
    let sensor = Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::common_rain(), "Shed", &c) };
    c.add_sensor(sensor);
    assert_eq!(watered(&run(&c, &season, &Bound::open(), Kind::AsFound), 1), [1, 8, 11]);
    c.sensors[0].jumper_removed = false;
    assert_eq!(watered(&run(&c, &season, &Bound::open(), Kind::AsFound), 1), [1, 4, 8, 11]);
    c.sensors[0].kind = SensorKind::Freeze { thresholds_c: vec![15.0], threshold_c: 15.0 };
    c.sensors[0].jumper_removed = true;
    // Nights of 8 °C are under 15 at half past four.
    assert_eq!(watered(&run(&c, &season, &Bound::open(), Kind::AsFound), 1), [0usize; 0]);
}

/// The running mean of 5 mm against a reference of 5 is 100 %: 60 min. At 2.5 mm it would be half.
#[test]
fn an_et_sensor_follows_the_weather() {
    let c = plain(60);
    let even = run(&c, &season(14, &[]), &Bound::open(), Kind::EtSensor);
    assert_eq!(applied(&even, 1)[0], 12.0);
    let cool = Season { et0_mm: vec![2.5; 14], ..season(14, &[]) };
    assert_eq!(applied(&run(&c, &cool, &Bound::open(), Kind::EtSensor), 1)[0], 6.0);
}

/// A soil sensor lets water from half of RAW on, 11.6 mm: after Monday (nothing missing) it is there by
/// Thursday (15 mm), and 15 less 12 and 20 more are missing on the next Monday.
#[test]
fn a_soil_sensor_waits_for_the_root_zone() {
    let found = run(&plain(60), &season(14, &[]), &Bound::open(), Kind::SoilSensor);
    assert_eq!(watered(&found, 1), [4, 8, 11]);
    let wet = run(&plain(60), &season(14, &[(2, 12.0)]), &Bound::open(), Kind::SoilSensor);
    assert_eq!(watered(&wet, 1), [8, 11], "12 mm of rain leave too little missing on Thursday");
}

#[test]
fn a_deficit_controller_waters_on_allowed_days_and_fills_up() {
    let rules = Bound::all_year(Allowed { days: Days::of([Weekday::Tue]), ..Allowed::default() });
    let season = season(28, &[]);
    let found = run(&plain(60), &season, &rules, Kind::Deficit);
    assert!(watered(&found, 1).iter().all(|d| weekday_of(&season, *d) == Weekday::Tue));
    assert_eq!(found.rule_breaks, 0);
    let open = run(&plain(60), &season, &Bound::open(), Kind::Deficit);
    assert!(open.totals(None).adequacy > 0.9999 && open.totals(None).lost_mm < 1.0, "{:?}", open.totals(None));
}

#[test]
fn rules_close_days_to_every_strategy_but_the_panel_as_it_is() {
    let rules = Bound::all_year(Allowed { days: Days::ALL.without(Weekday::Thu), ..Allowed::default() });
    let season = season(28, &[]);
    for kind in Kind::ALL {
        let found = run(&plain(88), &season, &rules, kind);
        assert_eq!(found.rule_breaks, if kind == Kind::AsFound { 4 } else { 0 }, "{kind:?}");
        assert_eq!(kind.obeys_rules(), kind != Kind::AsFound);
    }
    // A run that goes on into the closed day is left out too by who obeys.
    let mut c = plain(120);
    set(&mut c, A, DayMode::Weekdays(Days::of([Weekday::Wed])), &["23:00"]);
    let by_month = run(&c, &season, &rules, Kind::ByMonth);
    assert_eq!((by_month.rule_breaks, applied(&by_month, 1)[2]), (0, 12.0));
    assert_eq!(run(&c, &season, &rules, Kind::AsFound).rule_breaks, 4);
}

fn panel(switch: Switch, sensor: SensorSwitch) -> Panel {
    let at = monday().and_hms_opt(9, 0, 0).unwrap();
    Panel {
        seen_at: at,
        clock: PanelClock { date: monday(), weekday: None, time: StartTime::of(at.time()) },
        switch,
        sensor,
        stations: vec![FoundStation { number: 1, minutes: min(30), programs: vec![A], cycle: None }],
        windows: Vec::new(),
        programs: vec![FoundProgram {
            letter: A,
            days: DayMode::Weekdays(Days::ALL),
            never: Days::NONE,
            starts: vec![StartTime::read("06:00").unwrap()],
            percent: Percent::FULL,
            months: None,
        }],
        note: String::new(),
    }
}

/// The panel as found waters every day for 30 min, whatever the plan says; off, it waters nothing.
#[test]
fn as_found_is_the_panel_and_not_the_plan() {
    let mut known = plain(88);
    known.stations.push(station(2, A, 40));
    let ground = Ground::of(&known);
    let plan = Plan::of(&known, None);
    let open = Bound::open();
    let season = season(14, &[]);
    let replayed = |panel: &Panel| {
        let candidate = Candidate {
            controller: &known,
            plan: &plan,
            ground: &ground,
            found: Some(Found::of(panel, &known)),
            rules: &open,
            peak_et0_mm_per_day: 5.0,
            sunrise_hours: [6.0; 12],
            refill_share: REFILL_SHARE,
        };
        replay(&ground, &season, &open, candidate.strategy(Kind::AsFound).as_mut(), Keep::Days)
    };
    let on = replayed(&panel(Switch::On, SensorSwitch::None));
    assert_eq!((applied(&on, 1), applied(&on, 2)), (vec![6.0; 14], vec![0.0; 14]));
    assert_eq!(applied(&replayed(&panel(Switch::Off, SensorSwitch::None)), 1), vec![0.0; 14]);
}

/// "Every 3 days" from a date that is yet to come waters a season that is long past all the same.
#[test]
fn a_count_of_days_goes_back_before_its_next_date() {
    let mut c = plain(60);
    let next = monday() + chrono::TimeDelta::days(3000);
    set(&mut c, A, DayMode::Every { days: 3, next }, &["04:30"]);
    assert_eq!(watered(&run(&c, &season(9, &[]), &Bound::open(), Kind::ByMonth), 1), [1, 4, 7]);
}

/// April at one watering a week, beside a month that keeps both days.
#[test]
fn a_month_with_days_of_its_own() {
    let mut c = plain(60);
    c.programs[0].months[5].waterings = Some(1);
    assert_eq!(
        watered(&run(&c, &season(44, &[]), &Bound::open(), Kind::ByMonth), 1),
        [1, 8, 15, 22, 29, 32, 36, 39, 43]
    );
}
