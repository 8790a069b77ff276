//! The one next change, for each way in which ground can be wrong.

use chrono::Weekday::{Fri, Mon, Thu, Wed};
use upland_core::budget::YearBudget;
use upland_core::controller::*;
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::Situation;
use upland_core::tuning::*;

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::ALL[0];

fn lawns() -> Controller {
    let mut c = controller(vec![station(1, A, 24), station(2, A, 40), station(3, A, 40)]);
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Thu])), &["04:30"]);
    c.programs[0].waterings_per_week = Some(2);
    c.capability.percent_step = Percent::new(10).unwrap();
    c
}

fn around() -> Surroundings {
    Surroundings { normals: Some(normals()), ..Surroundings::open() }
}

fn ask(c: &Controller, stations: &[(u8, Judgement)], percent: Option<u16>, last_change: Option<u32>) -> Advice {
    let around = around();
    let situation: Situation<'_, _> = around.situation();
    let budget: Option<YearBudget> = situation.budget(c);
    let plan = situation.plan(c);
    let standing = plan.percent_on(c, A, monday(), upland_core::schedule::Level::Calendar).unwrap();
    let seen = Seen {
        on: monday(),
        percents: vec![(A, percent.map_or(standing, |p| Percent::new(p).unwrap()))],
        stations: stations.to_vec(),
        last_change: last_change.map(|d| day(2026, 6, d)),
    };
    advise(&situation, c, budget.as_ref(), &seen)
}

use Judgement::{Dry, Right, Wet};

#[test]
fn a_panel_that_stands_elsewhere_is_put_back_before_anything_is_judged() {
    let advice = ask(&lawns(), &[(1, Dry), (2, Dry), (3, Dry)], Some(50), None);
    assert_eq!(advice.because, Because::PanelDiffers);
    assert!(matches!(advice.change, Some(Change::PutBack { from, .. }) if from.get() == 50));
    let expected = advice.expected.unwrap();
    assert!(expected.before_mm < expected.after_mm && expected.more_m3 > 0.0);
}

#[test]
fn one_dry_station_gets_an_eighth_more_minutes_and_a_wet_one_waits() {
    let advice = ask(&lawns(), &[(1, Dry), (2, Right), (3, Wet)], None, None);
    assert_eq!(advice.because, Because::OneWrong(Dry));
    assert_eq!(advice.change, Some(Change::Minutes { station: 1, from: min(24), to: min(27) }));
    assert_eq!((advice.waiting, advice.look_again), (vec![3], day(2026, 6, 15)));
    let wet = ask(&lawns(), &[(1, Right), (3, Wet)], None, None);
    assert_eq!(wet.change, Some(Change::Minutes { station: 3, from: min(40), to: min(35) }));
}

#[test]
fn all_dry_at_the_right_percent_gets_a_watering_day_and_keeps_its_minutes() {
    let c = lawns();
    let advice = ask(&c, &[(1, Dry), (2, Dry), (3, Dry)], None, None);
    assert_eq!(advice.because, Because::AllWrongPercentRight(Dry));
    let change = advice.change.unwrap();
    assert_eq!(change, Change::Day { letter: A, from: Days::of([Mon, Thu]), to: Days::of([Mon, Wed, Fri]) });
    let expected = advice.expected.unwrap();
    assert!((expected.after_mm / expected.before_mm - 1.5).abs() < 0.01, "{expected:?}");
    let june = MonthOfYear::new(6).unwrap();
    let changed = change.applied_keeping_minutes(&c, &around().situation().plan(&c), june);
    changed.check().unwrap();
    assert_eq!(changed.stations[0].minutes, Some(min(24)));
}

#[test]
fn all_dry_under_what_the_weather_calls_for_gets_a_step_of_percent() {
    let mut c = lawns();
    c.programs[0].months[5].dial = MonthDial::Set(Percent::new(60).unwrap());
    let advice = ask(&c, &[(1, Dry), (2, Dry)], None, None);
    assert_eq!(advice.because, Because::AllWrongPercentOff(Dry));
    assert!(matches!(advice.change, Some(Change::Percent { from, to, .. }) if (from.get(), to.get()) == (60, 70)));
}

#[test]
fn a_change_is_given_its_week() {
    let advice = ask(&lawns(), &[(1, Dry)], None, Some(4));
    assert_eq!((advice.change, advice.because), (None, Because::TooSoon { changed: day(2026, 6, 4) }));
    assert_eq!(advice.look_again, day(2026, 6, 11));
    assert_eq!(ask(&lawns(), &[(1, Right), (2, Right)], None, Some(4)).because, Because::AllRight);
    assert_eq!(ask(&lawns(), &[], None, None).because, Because::NothingSeen);
}
