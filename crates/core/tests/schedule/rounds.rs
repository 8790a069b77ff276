//! The one next change, for each way in which ground can be wrong.

use chrono::Weekday::{Mon, Thu};
use upland_core::budget::YearBudget;
use upland_core::controller::*;
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::Situation;
use upland_core::tuning::*;

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::ALL[0];

pub(crate) fn lawns() -> Controller {
    let mut c = controller(vec![station(1, A, 24), station(2, A, 40), station(3, A, 40)]);
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Thu])), &["04:30"]);
    c.programs[0].waterings_per_week = Some(2);
    c.capability.percent_step = Percent::new(10).unwrap();
    c
}

pub(crate) fn around() -> Surroundings {
    Surroundings { normals: Some(normals()), ..Surroundings::open() }
}

fn ask(c: &Controller, stations: &[(u8, Judgement)], percent: Option<u16>, last_change: Option<u32>) -> Advice {
    let around = around();
    let situation: Situation<'_, _> = around.situation();
    let budget: Option<YearBudget> = situation.budget(c);
    let plan = situation.plan(c);
    let standing = plan.percent_on(c, A, monday(), upland_core::schedule::Level::Calendar);
    let seen_percent = percent.map(|p| Percent::new(p).unwrap()).or(standing);
    let seen = Seen {
        on: monday(),
        percents: seen_percent.into_iter().map(|p| (A, p)).collect(),
        stations: stations.to_vec(),
        before: Vec::new(),
        last_change: last_change.map(|d| day(2026, 6, d)),
        recent_et0_mm_per_day: None,
    };
    advise(&situation, c, budget.as_ref(), &seen)
}

/// As [`ask`], after a round on which stations were judged otherwise.
fn ask_after(c: &Controller, stations: &[(u8, Judgement)], before: &[(u8, Judgement)]) -> Advice {
    let around = around();
    let situation: Situation<'_, _> = around.situation();
    let seen = Seen {
        on: monday(),
        percents: Vec::new(),
        stations: stations.to_vec(),
        before: before.to_vec(),
        last_change: None,
        recent_et0_mm_per_day: None,
    };
    advise(&situation, c, situation.budget(c).as_ref(), &seen)
}

use Judgement::{Dry, Right, Wet};

/// Seen with the percent at half, and nothing judged: put back first.
#[test]
fn a_panel_that_stands_elsewhere_is_put_back_before_anything_is_judged() {
    let advice = ask(&lawns(), &[(1, Dry), (2, Dry), (3, Dry)], Some(50), None);
    assert_eq!(advice.because, Because::PanelDiffers);
    assert!(matches!(advice.change, Some(Change::PutBack { from, .. }) if from.get() == 50));
    let expected = advice.expected.unwrap();
    assert!(expected.before_mm < expected.after_mm && expected.more_m3 > 0.0);
}

/// The panel stands at 60, the plan asks for more, and all is wet: the plan goes down, not the panel up.
#[test]
fn advice_never_goes_against_the_ground() {
    let advice = ask(&lawns(), &[(1, Wet), (2, Wet), (3, Wet)], Some(60), None);
    assert_eq!(advice.because, Because::PanelIsNearer(Wet));
    let Some(Change::Percent { to, .. }) = advice.change else { panic!("{advice:?}") };
    assert_eq!(to.get(), 60);
    // Too dry at more than planned: the plan goes up.
    let up = ask(&lawns(), &[(1, Dry), (2, Dry), (3, Dry)], Some(150), None);
    assert!(matches!(up.change, Some(Change::Percent { to, .. }) if to.get() == 150), "{up:?}");
}

/// Minutes that somebody typed change by an eighth, a step of the panel at least, however long the run.
#[test]
fn one_dry_station_gets_an_eighth_more_minutes_and_a_wet_one_waits() {
    let advice = ask(&lawns(), &[(1, Dry), (2, Right), (3, Wet)], None, None);
    assert_eq!(advice.because, Because::OneWrong(Dry));
    assert_eq!(advice.change, Some(Change::Minutes { station: 1, from: min(24), to: min(27) }));
    assert_eq!((advice.waiting, advice.look_again), (vec![3], day(2026, 6, 15)));
    let wet = ask(&lawns(), &[(1, Right), (3, Wet)], None, None);
    assert_eq!(wet.change, Some(Change::Minutes { station: 3, from: min(40), to: min(35) }));
    for (minutes, to) in [(4, 5), (120, 135)] {
        let mut c = lawns();
        c.stations[0].minutes = Some(min(minutes));
        let advice = ask(&c, &[(1, Dry)], None, None);
        assert_eq!(advice.change, Some(Change::Minutes { station: 1, from: min(minutes), to: min(to) }));
    }
}

/// Worked-out minutes are not frozen: the station's trim changes, and the minutes follow.
#[test]
fn minutes_that_are_worked_out_stay_so() {
    let mut c = lawns();
    c.stations[0].minutes = None;
    let advice = ask(&c, &[(1, Dry)], None, None);
    let Some(change @ Change::Trim { station: 1, from_pct: 0, to_pct: 13, run: [from, to] }) = advice.change else {
        panic!("{advice:?}")
    };
    assert!((to.minutes() / from.minutes() - 1.125).abs() < 0.03, "{from:?} {to:?}");
    let changed = change.applied(&c, MonthOfYear::new(6).unwrap());
    assert_eq!((changed.stations[0].minutes, changed.stations[0].trim_pct), (None, 13.0));
    assert_eq!(around().situation().plan(&changed).station(1).unwrap().base, to);
    // Never beyond the limits of the trim.
    c.stations[0].trim_pct = 29.0;
    assert_eq!(ask(&c, &[(1, Dry)], None, None).because, Because::AtTheLimit(Dry));
    assert!(ask(&c, &[(1, Wet)], None, None).change.is_some());
}

/// Too wet on the last round, too dry on this one: half of the step.
#[test]
fn a_station_that_turned_moves_by_half() {
    let c = lawns();
    let advice = ask_after(&c, &[(2, Dry)], &[(2, Wet)]);
    assert_eq!(advice.change, Some(Change::Minutes { station: 2, from: min(40), to: min(43) }));
    let again = ask_after(&c, &[(2, Dry)], &[(2, Dry)]);
    assert_eq!(again.change, Some(Change::Minutes { station: 2, from: min(40), to: min(45) }));
}

/// All dry where the weather calls for no more: an eighth more of the whole program, by its percent.
#[test]
fn all_dry_at_the_right_percent_gets_an_eighth_more() {
    let c = lawns();
    let advice = ask(&c, &[(1, Dry), (2, Dry), (3, Dry)], None, None);
    assert_eq!(advice.because, Because::AllWrongPercentRight(Dry));
    let Some(Change::Percent { from, to, .. }) = advice.change else { panic!("{advice:?}") };
    let share = f64::from(to.get()) / f64::from(from.get());
    assert!((1.05..=1.2).contains(&share), "{from:?} {to:?}");
    let expected = advice.expected.unwrap();
    assert!((expected.after_mm / expected.before_mm - share).abs() < 0.05, "{expected:?}");
    // One of three is not two thirds, and two that differ are no whole.
    assert_eq!(ask(&c, &[(1, Dry)], None, None).because, Because::OneWrong(Dry));
    assert_eq!(ask(&c, &[(1, Dry), (2, Wet), (3, Dry)], None, None).because, Because::OneWrong(Dry));
}

/// June calls for 90 % and stands at 60: it is brought there at once.
#[test]
fn all_dry_under_what_the_weather_calls_for_is_brought_there() {
    let mut c = lawns();
    c.programs[0].months[5].dial = MonthDial::Set(Percent::new(60).unwrap());
    let called = around().situation().budget(&c).unwrap().groups[0].months[5].percent_exact;
    let advice = ask(&c, &[(1, Dry), (2, Dry)], None, None);
    assert_eq!(advice.because, Because::AllWrongPercentOff(Dry));
    let to = c.capability.dial(called);
    assert!(to.get() >= 80);
    assert_eq!(advice.change, Some(Change::Percent { letter: A, from: Percent::new(60).unwrap(), to }));
}

/// One percent for all: what is judged on any program changes the percent of all.
#[test]
fn one_percent_for_all_programs_is_changed_for_all() {
    let mut c = lawns();
    c.capability.percent_scope = PercentScope::AllPrograms;
    c.stations[2].program = ProgramLetter::ALL[1];
    c.normalise_programs();
    set(&mut c, ProgramLetter::ALL[1], DayMode::Weekdays(Days::of([Mon, Thu])), &["08:00"]);
    let advice = ask(&c, &[(1, Wet), (2, Wet), (3, Wet)], None, None);
    let change = advice.change.unwrap();
    let Change::Percent { from, to, .. } = change else { panic!("{change:?}") };
    assert!(to < from && change.concerns(&c, 3));
    let june = MonthOfYear::new(6).unwrap();
    let plan = around().situation().plan(&change.applied(&c, june));
    for letter in [A, ProgramLetter::ALL[1]] {
        assert_eq!(plan.percent_of_month(letter, june), Some(to));
    }
}

/// In a month that is off minutes would change nothing.
#[test]
fn a_month_that_is_off_has_an_answer_of_its_own() {
    let mut c = lawns();
    c.programs[0].months[5].dial = MonthDial::Off;
    let wet = ask(&c, &[(1, Wet)], None, None);
    assert_eq!((wet.change, wet.because), (None, Because::MonthOff(Wet)));
    let dry = ask(&c, &[(1, Dry), (2, Dry), (3, Dry)], None, None);
    assert!(
        matches!(dry.change, Some(Change::Percent { from, to, .. }) if from.get() == 0 && to.get() >= 80),
        "{dry:?}"
    );
}

#[test]
fn a_change_is_given_its_week() {
    let advice = ask(&lawns(), &[(1, Dry)], None, Some(4));
    assert_eq!((advice.change, advice.because), (None, Because::TooSoon { changed: day(2026, 6, 4) }));
    assert_eq!(advice.look_again, day(2026, 6, 11));
    assert_eq!(ask(&lawns(), &[(1, Right), (2, Right)], None, Some(4)).because, Because::AllRight);
    assert_eq!(ask(&lawns(), &[], None, None).because, Because::NothingSeen);
}
