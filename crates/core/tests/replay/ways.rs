//! Ways to water: a person who comes once a week, worked by hand, and what each way states for a week.

use chrono::Weekday;
use upland_core::budget::year_budget;
use upland_core::climate::normals::MonthNormal;
use upland_core::controller::*;
use upland_core::landscape::{Soil, SprinklerType};
use upland_core::place::{Allowed, Bound};
use upland_core::quantity::MonthOfYear;
use upland_core::replay::*;
use upland_core::schedule::Plan;

use crate::builders::*;

/// 12 mm/h, K_L 1, TAW 46.5 mm.
fn lawn() -> Controller {
    let mut c = controller(vec![station(1, A, 60)]);
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c
}

/// 5 mm a day: on Monday, 8 June, 35 mm less what slows the plants down once RAW, 23.25 mm, is gone. Nothing is lost.
#[test]
fn a_person_brings_back_what_a_week_has_used() {
    let season = season(28, &[]);
    let hand = run(&lawn(), &season, &Bound::open(), Kind::ByHand);
    assert_eq!(watered(&hand, 1), [8, 15, 22], "on 1 June nothing is missing");
    let totals = hand.totals(None);
    assert!(totals.lost_mm.abs() < 0.2, "{totals:?}");
    // Each visit brings back within half a step of the panel what the days before have taken.
    let daily = hand.station(1).unwrap().daily.clone().unwrap();
    let average = &daily[Part::Average.index()];
    let taken: f64 = average.et_actual_mm[..7].iter().sum();
    assert!((average.applied_mm[7] - taken).abs() < 0.11, "{} {taken}", average.applied_mm[7]);
    assert!(totals.adequacy < 1.0 && totals.adequacy > 0.85, "{totals:?}");
}

#[test]
fn a_person_comes_on_the_first_allowed_day_of_a_week() {
    let not_monday = Bound::all_year(Allowed { days: Days::of([Weekday::Wed, Weekday::Sat]), ..Allowed::default() });
    let hand = run(&lawn(), &season(21, &[]), &not_monday, Kind::ByHand);
    assert_eq!(watered(&hand, 1), [3, 10, 17]);
    assert_eq!(hand.rule_breaks, 0);
}

/// Spray at 40 mm/h on clay cannot give 20 mm at once: the cycles add up to the run, and a panel that makes no cycles
/// changes nothing, since it is started by hand.
#[test]
fn a_run_by_hand_is_cut_up_where_the_soil_asks_for_it() {
    let mut c = lawn();
    c.stations[0].soil = Soil::Clay;
    c.stations[0].sprinkler.kind = SprinklerType::Spray;
    c.stations[0].sprinkler.rate = Some(upland_core::quantity::RateMmPerHour::new(40.0).unwrap());
    let station = ReplayStation::of(&c.stations[0]);
    for cycle_soak in [true, false] {
        c.capability.cycle_soak = cycle_soak;
        let hand = HandRun::of(&c.capability, &station, 20.0);
        assert!((hand.run.minutes() - 30.0).abs() < 0.2, "{hand:?}");
        assert!(hand.cycles.len() > 1 && hand.soak.is_some());
        assert_eq!(hand.cycles.iter().map(|c| c.seconds()).sum::<u32>(), hand.run.seconds());
        let longest = c.stations[0].runoff().longest_minutes.unwrap();
        assert!(hand.cycles.iter().all(|c| c.minutes() <= longest + 1e-9));
    }
    assert_eq!(HandRun::of(&c.capability, &station, -3.0).run.seconds(), 0);
}

/// 5 mm a day and 12 mm of rain on the third: 35 less 12, all of it within the root zone.
#[test]
fn what_a_week_has_used_is_need_less_rain() {
    let used = used_without_water(&lawn(), &season(7, &[(3, 12.0)]));
    assert_eq!(used.len(), 1);
    assert!((used[0].1 - 23.0).abs() < 1e-9, "{used:?}");
    // Rain on a full soil stays nowhere.
    let first = used_without_water(&lawn(), &season(7, &[(0, 30.0)]));
    assert!((first[0].1 - 30.0).abs() < 0.5, "all but the first day's 5 mm is lost: {first:?}");
}

#[test]
fn every_way_states_the_same_week_for_the_same_plants() {
    let mut c = lawn();
    c.stations[0].minutes = None;
    let normals = [MonthNormal { et0_mm_per_day: 5.0, rain_mm: Some(0.0) }; 12];
    let july = MonthOfYear::new(7).unwrap();
    let plan = Plan::of(&c, year_budget(&c, &normals).ok().as_ref());
    for way in Way::ALL {
        let tried = way.applied(&c, &plan, &Bound::open(), &[A]);
        let budget = year_budget(&tried, &normals).unwrap();
        let week = way.week(&tried, &budget, A, july).unwrap();
        assert!((week.need_mm - 35.0).abs() < 1e-9, "{way:?} {week:?}");
        // Within the panel's rounding of minutes and days of the month.
        assert!((week.week_mm - 35.0).abs() < 0.7, "{way:?} {week:?}");
        assert!((week.depth_mm * week.waterings - week.week_mm).abs() < 1e-9);
        let expected = match way {
            Way::OnceAWeek | Way::ByHand => 1.0,
            Way::EveryAllowedDay => f64::from(c.capability.watering_days),
            Way::SetDays => 2.0,
            // RAW is 23.25 mm.
            Way::Refill => 35.0 / 23.25,
        };
        assert!((week.waterings - expected).abs() < 1e-6, "{way:?} {week:?}");
    }
    assert_eq!(Way::ByHand.week(&c, &year_budget(&c, &normals).unwrap(), B, july), None);
}

/// Two rules forbid all but Tuesday: every allowed day is one day.
#[test]
fn every_allowed_day_keeps_to_the_rules() {
    let tuesday = Bound::all_year(Allowed { days: Days::of([Weekday::Tue]), ..Allowed::default() });
    assert_eq!(Way::EveryAllowedDay.days(&lawn(), &tuesday), Some(1));
    let plan = Plan::of(&lawn(), None);
    let tried = Way::EveryAllowedDay.applied(&lawn(), &plan, &tuesday, &[A]);
    let DayMode::Weekdays(days) = tried.programs[0].schedule.days else { panic!("weekdays") };
    assert_eq!(days, Days::of([Weekday::Tue]));
}

/// A program that is left to a person is replayed as that person waters it, under every strategy of the panel, and the
/// other one as the panel does; the balance of the last weeks says the same.
#[test]
fn a_program_that_is_left_to_a_person_is_watered_by_that_person() {
    let mut c = controller(vec![station(1, A, 60), station(2, B, 60)]);
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    set(&mut c, B, mondays_and_thursdays(), &["06:30"]);
    let (season, open) = (season(28, &[(9, 12.0)]), Bound::open());
    let (by_person, by_panel) = (run(&c, &season, &open, Kind::ByHand), run(&c, &season, &open, Kind::ByMonth));
    c.program_mut(A).unwrap().hand_over();
    for kind in [Kind::AsFound, Kind::Fixed, Kind::ByMonth, Kind::RainSensor] {
        let shared = run(&c, &season, &open, kind);
        let daily = |r: &Replayed, n| r.station(n).unwrap().daily.clone().unwrap();
        assert_eq!(daily(&shared, 1), daily(&by_person, 1), "{kind:?}");
        if kind != Kind::RainSensor {
            assert_eq!(daily(&shared, 2), daily(&by_panel, 2), "{kind:?}");
        }
    }
    let plan = Plan::of(&c, None);
    let recent = Recent {
        controller: &c,
        plan: &plan,
        rules: &open,
        season: &season,
        sunrise_hours: [6.0; 12],
        since: monday(),
    };
    let now = recent.soil_of(1).unwrap();
    let days = by_person.station(1).unwrap().daily.clone().unwrap();
    assert_eq!(now.depletion_mm, *days[Part::Average.index()].depletion_mm.last().unwrap());
    assert_eq!(now.watering_days, watered(&by_person, 1).len());
}

/// July is off: nobody comes in the four weeks of it, and on the first Monday of August everything is given at once.
#[test]
fn a_month_that_is_off_is_off_for_the_person_too() {
    let mut c = lawn();
    c.program_mut(A).unwrap().hand_over();
    c.programs[0].months[6].dial = MonthDial::Off;
    let hand = run(&c, &season(70, &[]), &Bound::open(), Kind::ByMonth);
    // 1 June is day 1: July is days 31 to 61, counted from 1 June as the 1st.
    let days = watered(&hand, 1);
    assert_eq!(days[..4], [8, 15, 22, 29], "{days:?}");
    assert_eq!(days[4..], [64], "3 August: {days:?}");
}
