//! Twelve situations, each asked of everything that answers what is in force: the runs, the values to dial,
//! the question why it did not water. Expectations are worked by hand.

use chrono::NaiveDate;
use chrono::Weekday::{Fri, Mon, Wed};
use upland_core::budget::Dial;
use upland_core::controller::*;
use upland_core::dial_in::{Note, Section, Value, slots};
use upland_core::in_force::{OffBy, SetBy, in_force};
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::*;
use upland_core::sensor::{EtSetting, EtSheet, Sensor, SensorKind};

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::A;

/// Program A runs station 1 for 20 min on Monday, Wednesday and Friday at 04:30; June stands at 80 %.
fn lawn() -> Controller {
    let mut c = controller(vec![station(1, A, 20)]);
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &["04:30"]);
    c.programs[0].months[5].dial = MonthDial::Set(percent(80));
    c
}

fn percent(p: u16) -> Percent {
    Percent::new(p).unwrap()
}

fn with(mut c: Controller, kind: TemporaryKind, since: u32, until: u32) -> Controller {
    let (since, until) = (day(2026, 6, since), day(2026, 6, until));
    let (reason, by) = ("a storm".into(), "O. Marrick".into());
    c.add_temporary(Temporary { id: 0, kind, since, until, reason, by, left_standing: false });
    c
}

/// What each of them says about Monday, 8 June, as that day knows it.
struct Answers {
    minutes_run: Option<f64>,
    dialled: Option<Value>,
    is_on: bool,
    by: SetBy,
    obstacles: Vec<Obstacle>,
}

fn ask(c: &Controller, found_off: Option<NaiveDate>) -> Answers {
    let today = day(2026, 6, 8);
    let c = c.clone().as_of(today);
    let plan = Plan::of(&c, None);
    let force = in_force(&c, &plan, found_off, today);
    let runs = expand(&c, &plan, &ZONE, [today, today], Level::Calendar).runs;
    let is_percent = |s: &upland_core::dial_in::Slot| {
        matches!(s.section, Section::Program(_) | Section::Percent)
            && matches!(s.value, Value::Percent(_) | Value::PercentOff)
    };
    let of_june = |s: &&upland_core::dial_in::Slot| s.month.is_none_or(|m| m == MonthOfYear::new(6).unwrap());
    let dialled = slots(&c, &plan, today).into_iter().filter(is_percent).collect::<Vec<_>>();
    let known = Known { found_off, ..Known::default() };
    // One rule: what runs is what is in force, and what is dialled says the same.
    if let Some(run) = runs.first() {
        let Dial::Percent(p) = force.dial(A) else { panic!("a run of a program that is off") };
        assert_eq!(run.length, c.capability.scaled(min(20), p));
    }
    let slot = dialled.iter().find(of_june);
    let value = slot.map(|s| s.value);
    // What is over is put back by whoever dials in: that slot alone asks for something else than what is in force.
    let puts_back = slot.is_some_and(|s| matches!(s.note, Some(Note::PutBack { .. })));
    if let Some(value) = value.filter(|_| !puts_back) {
        assert_eq!(
            value,
            match force.dial(A) {
                Dial::Off => Value::PercentOff,
                Dial::Percent(p) => Value::Percent(p),
            }
        );
    }
    let why = why_dry(&c, &plan, &ZONE, &known, 1, today);
    let stopped = why
        .obstacles
        .iter()
        .any(|o| matches!(o, Obstacle::Off { .. } | Obstacle::RainDelay { .. } | Obstacle::FoundOff { .. }));
    assert_eq!(stopped, !force.is_on(), "the question why says the same: {:?}", why.obstacles);
    Answers {
        minutes_run: runs.first().map(|r| r.length.minutes()),
        dialled: value,
        is_on: force.is_on(),
        by: force.program(A).unwrap().by.clone(),
        obstacles: why.obstacles,
    }
}

fn seventy() -> TemporaryKind {
    TemporaryKind::Percent { letter: None, percent: percent(70) }
}

#[test]
fn one_the_months_value() {
    let a = ask(&lawn(), None);
    assert_eq!((a.minutes_run, a.dialled, a.by), (Some(16.0), Some(Value::Percent(percent(80))), SetBy::Month));
}

#[test]
fn two_a_percent_for_a_while_runs_and_is_dialled() {
    let a = ask(&with(lawn(), seventy(), 7, 10), None);
    assert_eq!((a.minutes_run, a.dialled), (Some(14.0), Some(Value::Percent(percent(70)))));
    assert!(matches!(a.by, SetBy::ForAWhile(t) if t.id == 1));
}

#[test]
fn three_a_percent_that_nobody_put_back_goes_on_and_dialling_in_puts_it_back() {
    let a = ask(&with(lawn(), seventy(), 1, 5), None);
    assert_eq!((a.minutes_run, a.dialled), (Some(14.0), Some(Value::Percent(percent(80)))));
}

#[test]
fn four_a_percent_that_begins_tomorrow_does_not_count_today() {
    let a = ask(&with(lawn(), seventy(), 9, 12), None);
    assert_eq!((a.minutes_run, a.dialled, a.by), (Some(16.0), Some(Value::Percent(percent(80))), SetBy::Month));
}

#[test]
fn five_of_two_percents_the_later_one_holds() {
    let sixty = TemporaryKind::Percent { letter: Some(A), percent: percent(60) };
    let a = ask(&with(with(lawn(), seventy(), 6, 10), sixty, 7, 10), None);
    assert_eq!((a.minutes_run, a.dialled), (Some(12.0), Some(Value::Percent(percent(60)))));
}

#[test]
fn six_a_month_that_is_off() {
    let mut c = lawn();
    c.programs[0].months[5].dial = MonthDial::Off;
    let a = ask(&c, None);
    assert_eq!((a.minutes_run, a.dialled, a.is_on), (None, Some(Value::PercentOff), true));
    assert_eq!(a.obstacles, [Obstacle::MonthOff(MonthOfYear::new(6).unwrap())]);
}

#[test]
fn seven_off_for_a_while() {
    let a = ask(&with(lawn(), TemporaryKind::Off, 7, 9), None);
    assert_eq!((a.minutes_run, a.is_on), (None, false));
    assert!(matches!(&a.obstacles[..], [Obstacle::Off { overdue: false, .. }]));
}

#[test]
fn eight_an_off_that_nobody_ended() {
    let a = ask(&with(lawn(), TemporaryKind::Off, 1, 3), None);
    assert_eq!((a.minutes_run, a.is_on), (None, false));
    assert!(matches!(&a.obstacles[..], [Obstacle::Off { overdue: true, .. }]));
}

#[test]
fn nine_a_rain_delay_holds() {
    let a = ask(&with(lawn(), TemporaryKind::RainDelay, 7, 8), None);
    assert_eq!((a.minutes_run, a.is_on), (None, false));
}

#[test]
fn ten_a_rain_delay_ends_by_itself() {
    let a = ask(&with(lawn(), TemporaryKind::RainDelay, 4, 7), None);
    assert_eq!((a.minutes_run, a.is_on, a.obstacles), (Some(16.0), true, vec![]));
}

#[test]
fn eleven_a_panel_that_was_found_off() {
    let c = lawn();
    let a = ask(&c, Some(day(2026, 6, 6)));
    assert!(!a.is_on && a.obstacles == [Obstacle::FoundOff { on: day(2026, 6, 6) }]);
    let force = in_force(&c, &Plan::of(&c, None), Some(day(2026, 6, 6)), day(2026, 6, 5));
    assert!(force.is_on(), "the day before it was found so nobody knows");
    assert_eq!(in_force(&c, &Plan::of(&c, None), Some(day(2026, 6, 6)), day(2026, 6, 7)).off.len(), 1);
    assert!(matches!(OffBy::Found { on: day(2026, 6, 6) }, OffBy::Found { .. }));
}

#[test]
fn twelve_an_et_sensor_sets_the_percent_and_a_bypass_silences_the_rain_sensor() {
    let mut c = lawn();
    let kind = SensorKind::Et { setting: EtSetting::for_peak(EtSheet::example(), 5.0), programs: vec![A] };
    c.add_sensor(Sensor::proposed(kind, "Roof", &c));
    let rain = c.add_sensor(Sensor::proposed(SensorKind::common_rain(), "Shed", &c));
    let a = ask(&c, None);
    assert_eq!((a.by, a.dialled), (SetBy::EtSensor, None), "nobody dials what the sensor sets");
    let switch = |c: &Controller| {
        let c = c.clone().as_of(day(2026, 6, 8));
        slots(&c, &Plan::of(&c, None), day(2026, 6, 8))
            .into_iter()
            .find(|s| s.section == Section::Sensor)
            .map(|s| s.value)
    };
    assert_eq!(switch(&c), Some(Value::SensorActive));
    // A bypass that was to end on the 4th and was not.
    let bypassed = with(c.clone(), TemporaryKind::Bypass { sensor: rain }, 1, 4);
    assert_eq!(switch(&bypassed), Some(Value::SensorActive), "dialling in puts it back");
    let open = with(c.clone(), TemporaryKind::Bypass { sensor: rain }, 1, 9);
    assert_eq!(switch(&open), Some(Value::SensorBypassed));
    assert_eq!(switch(&with(c, TemporaryKind::Bypass { sensor: rain }, 9, 12)), Some(Value::SensorActive));
}

/// 80 % and 50 % of it more in the first week, 25 % less of that each week: on 8 June the second week of a weaning
/// that began on the 1st stands at 80 x 1.25 = 100 %, the first one at 120 %.
#[test]
fn thirteen_a_weaning_runs_and_is_dialled_by_its_week() {
    let weaning = TemporaryKind::Weaning { letter: Some(A), extra_pct: 50, step_pct: 25 };
    let second = with(lawn(), weaning, 1, 14);
    assert_eq!(second.check(), Ok(()));
    let a = ask(&second, None);
    assert_eq!((a.minutes_run, a.dialled), (Some(20.0), Some(Value::Percent(percent(100)))));
    let a = ask(&with(lawn(), weaning, 8, 21), None);
    assert_eq!((a.minutes_run, a.dialled), (Some(24.0), Some(Value::Percent(percent(120)))));
    // Dialling in says until when, and what then.
    let first = with(lawn(), weaning, 8, 21);
    let plan = Plan::of(&first, None);
    let notes: Vec<Note> = slots(&first, &plan, day(2026, 6, 8)).into_iter().filter_map(|s| s.note).collect();
    assert!(notes.contains(&Note::Until { last: day(2026, 6, 14), then: Value::Percent(percent(100)) }), "{notes:?}");
    // A month that is off stays off, and a weaning that goes on when nothing is left is refused.
    let mut off = with(lawn(), weaning, 8, 21);
    off.programs[0].months[5].dial = MonthDial::Off;
    assert_eq!(ask(&off, None).dialled, Some(Value::PercentOff));
    assert!(with(lawn(), weaning, 8, 22).check().is_err());
}
