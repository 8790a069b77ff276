use chrono::Weekday::{Fri, Mon, Wed};
use upland_core::controller::*;
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::*;
use upland_core::sensor::{Sensor, SensorKind};

use crate::builders::*;

fn lawn() -> Controller {
    let mut c = controller(vec![station(1, ProgramLetter::A, 20)]);
    set(&mut c, ProgramLetter::A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &["04:30"]);
    c
}

fn ask(c: &Controller, known: &Known, station: u8, d: u32) -> Why {
    why_dry(c, &Plan::of(c, None), &ZONE, known, station, day(2026, 6, d))
}

#[test]
fn on_its_day_it_should_have_run_and_what_cannot_be_known_is_said() {
    let why = ask(&lawn(), &Known::default(), 1, 8);
    assert_eq!((why.obstacles, why.due.len()), (vec![], 1));
    assert_eq!(why.unknown, [Unknown::Power, Unknown::Clock, Unknown::Hand, Unknown::Valve]);
}

#[test]
fn the_next_and_the_last_day_are_named() {
    let why = ask(&lawn(), &Known::default(), 1, 9);
    let wanted =
        Obstacle::NotItsDay { letter: ProgramLetter::A, last: Some(day(2026, 6, 8)), next: Some(day(2026, 6, 10)) };
    assert_eq!(why.obstacles, [wanted]);
}

#[test]
fn everything_in_the_way_is_named_first_cause_first() {
    let mut c = lawn();
    c.add_sensor(Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::common_rain(), "Shed", &c) });
    let mut c = with_off(c);
    c.programs[0].months[5].dial = MonthDial::Off;
    let known = Known { held: vec![(1, Some(true))], ..Known::default() };
    // The Off was to end on the 5th, and on the 8th nobody has put it back.
    let why = ask(&c.as_of(day(2026, 6, 8)), &known, 1, 8);
    let off = Obstacle::Off { since: day(2026, 6, 1), reason: "Rain all week".into(), overdue: true };
    let june = MonthOfYear::new(6).unwrap();
    assert_eq!(why.obstacles, [off, Obstacle::MonthOff(june), Obstacle::SensorHeld { sensor: 1 }]);
}

#[test]
fn a_sensor_with_its_jumper_in_never_holds_and_a_bypass_is_not_known_from_here() {
    let mut c = lawn();
    c.add_sensor(Sensor::proposed(SensorKind::common_rain(), "Shed", &c));
    let known = Known { held: vec![(1, Some(true))], ..Known::default() };
    assert_eq!(ask(&c, &known, 1, 8).obstacles, []);
    c.sensors[0].jumper_removed = true;
    let until = day(2026, 6, 9);
    c.add_temporary(Temporary {
        id: 0,
        kind: TemporaryKind::Bypass { sensor: 1 },
        since: monday(),
        until,
        reason: "Overseeding".into(),
        by: "O. Marrick".into(),
        left_standing: false,
    });
    let why = ask(&c, &known, 1, 8);
    assert_eq!(why.obstacles, []);
    assert!(why.unknown.contains(&Unknown::Bypass(1)));
}

#[test]
fn zero_minutes_no_start_and_a_percent_that_makes_nothing_of_them() {
    let mut c = lawn();
    c.stations[0].minutes = Some(min(0));
    assert_eq!(ask(&c, &Known::default(), 1, 8).obstacles, [Obstacle::NoMinutes]);
    c.stations[0].minutes = Some(min(4));
    c.programs[0].months[5].dial = MonthDial::Set(Percent::new(10).unwrap());
    let nothing = Obstacle::PercentToNothing { percent: 10, minutes: 4.0 };
    assert_eq!(ask(&c, &Known::default(), 1, 8).obstacles, [nothing]);
    c.programs[0].schedule.starts.clear();
    assert!(ask(&c, &Known::default(), 1, 8).obstacles.contains(&Obstacle::NoStart(ProgramLetter::A)));
    // Or a person starts it.
    c.program_mut(ProgramLetter::A).unwrap().hand_over();
    assert!(ask(&c, &Known::default(), 1, 8).obstacles.contains(&Obstacle::ByHand(ProgramLetter::A)));
    assert_eq!(ask(&c, &Known::default(), 5, 8).obstacles, [Obstacle::NoStation]);
}

/// What was dialled runs until somebody dials again, whatever was planned meanwhile; a panel as it was found
/// comes before both.
#[test]
fn what_stood_on_the_panel_is_what_was_found_or_dialled_last() {
    let planned = with_off(lawn());
    assert_eq!(on_panel(&planned, None, None), (planned.clone(), Stood::Planned));
    let mut dialled = lawn();
    dialled.programs[0].schedule.starts = vec![time("06:00")];
    let (on, stood) = on_panel(&planned, Some((day(2026, 6, 1), &dialled)), None);
    assert_eq!((on.programs[0].schedule.starts[0], stood), (time("06:00"), Stood::Dialled { on: day(2026, 6, 1) }));
    assert_eq!(on.temporaries, planned.temporaries, "an Off of that day holds on any program");
    let panel = Panel {
        seen_at: day(2026, 6, 5).and_hms_opt(9, 0, 0).unwrap(),
        clock: PanelClock { date: day(2026, 6, 5), weekday: None, time: time("09:00") },
        switch: Switch::On,
        sensor: SensorSwitch::None,
        stations: vec![FoundStation { number: 1, minutes: min(5), programs: vec![ProgramLetter::A], cycle: None }],
        windows: Vec::new(),
        programs: vec![FoundProgram {
            letter: ProgramLetter::A,
            days: DayMode::Weekdays(Days::ALL),
            never: Days::NONE,
            starts: vec![time("22:00")],
            percent: Percent::FULL,
            months: None,
        }],
        note: String::new(),
    };
    let (on, stood) = on_panel(&planned, Some((day(2026, 6, 1), &dialled)), Some(&panel));
    assert_eq!((on.stations[0].minutes, stood), (Some(min(5)), Stood::Found { on: day(2026, 6, 5) }));
    assert_eq!((on.programs[0].schedule.starts[0], on.temporaries), (time("22:00"), planned.temporaries));
}

fn with_off(mut c: Controller) -> Controller {
    let (since, until) = (day(2026, 6, 1), day(2026, 6, 5));
    let (reason, by) = ("Rain all week".into(), "O. Marrick".into());
    c.add_temporary(Temporary { id: 0, kind: TemporaryKind::Off, since, until, reason, by, left_standing: false });
    c
}

#[test]
fn a_sensor_switch_found_at_bypass_and_slots_that_could_not_be_set_are_not_known_from_here() {
    let mut c = lawn();
    c.add_sensor(Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::common_rain(), "Shed", &c) });
    let known = Known { held: vec![(1, Some(true))], found_bypassed: true, not_all_set: true, ..Known::default() };
    let why = ask(&c, &known, 1, 8);
    assert_eq!(why.obstacles, []);
    assert!(why.unknown.contains(&Unknown::Bypass(1)) && why.unknown.contains(&Unknown::NotSet));
}
