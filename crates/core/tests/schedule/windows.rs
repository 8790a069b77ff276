//! The panel's own water windows: found, mended, proposed and dialled in. The weeks are worked by hand.

use chrono::Weekday::{Fri, Mon, Wed};
use upland_core::controller::*;
use upland_core::dial_in::{Section, Value, slots};
use upland_core::place::{Allowed, Bound};
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::*;

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::ALL[0];

/// A hundred minutes at a panel that waters from 04:00 to 08:00 and from 22:00 over midnight to 01:00.
fn windowed(start: &str) -> Controller {
    let mut c = controller(vec![station(1, A, 100)]);
    c.capability.water_windows = 2;
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &[start]);
    let window = |from, to| Hours { from: time(from), to: time(to) };
    c.windows = vec![window("04:00", "08:00"), window("22:00", "01:00")];
    c.check().unwrap();
    c
}

#[test]
fn a_run_that_leaves_its_window_is_found_and_moved_into_one() {
    let around = Surroundings::open();
    // 04:30 to 06:10 and 23:15 to 00:55 lie inside.
    for inside in ["04:30", "23:15"] {
        assert_eq!(codes(&around.check(&windowed(inside))), [], "{inside}");
    }
    // 06:30 to 08:10 is ten minutes too long.
    let found = around.check(&windowed("06:30"));
    assert_eq!(codes(&found), [Code::OutsideWindow]);
    let Problem::OutsideWindow { from, ends, month } = found[0].problem else { panic!() };
    let clock = |at: chrono::NaiveDateTime| at.format("%H:%M").to_string();
    assert_eq!((clock(from).as_str(), clock(ends).as_str(), month), ("08:00", "08:10", None));
    // The latest start on a step of 15 min that ends by 08:00.
    assert_eq!(mended(&around, &windowed("06:30"), Code::OutsideWindow).programs[0].schedule.starts, [time("06:15")]);
    // A start outside is not made at all.
    let noon = around.check(&windowed("12:00"));
    assert!(matches!(noon[0].problem, Problem::OutsideWindow { from, .. } if clock(from) == "12:00"), "{noon:#?}");
    // Past 01:00 on the next morning.
    assert_eq!(codes(&around.check(&windowed("23:30"))), [Code::OutsideWindow]);
}

/// At 100 % it ends at 07:40, at July's 130 % at 08:10.
#[test]
fn the_years_highest_percent_is_asked_too() {
    let mut c = windowed("06:00");
    for month in MonthOfYear::ALL {
        let percent = if month.number() == 7 { 130 } else { 100 };
        c.programs[0].months[month.index()].dial = MonthDial::Set(Percent::new(percent).unwrap());
    }
    let found = Surroundings::open().check(&c);
    assert_eq!(codes(&found), [Code::OutsideWindow]);
    let july = MonthOfYear::new(7);
    assert!(matches!(found[0].problem, Problem::OutsideWindow { month, .. } if month == july), "{found:#?}");
}

/// The rules close 05:00 to 09:00, the panel waters from 04:00 to 08:00 and in the night: only the night is left
/// for a hundred minutes.
#[test]
fn a_proposal_keeps_to_the_rules_and_to_the_windows() {
    let rules = Bound::all_year(Allowed { hours: vec![(300, 540)], ..Allowed::default() });
    let around = Surroundings { rules, normals: Some(normals()) };
    let mut c = windowed("06:30");
    assert_eq!(around.rules.within(&c.windows).usual.hours, [(60, 240), (300, 1320)]);
    c.stations[0].minutes = None;
    let proposal = propose(&around.situation(), &c, Grouping::Keep);
    assert_eq!(proposal.shortfalls, []);
    assert_eq!(proposal.controller.windows, c.windows);
    let found = detect(&around.situation(), &proposal.controller);
    assert!(!found.iter().any(|f| matches!(f.code(), Code::OutsideWindow | Code::ForbiddenHour)), "{found:#?}");
}

#[test]
fn every_window_of_the_panel_is_dialled_in_and_the_unused_one_is_off() {
    let mut c = windowed("04:30");
    c.windows.truncate(1);
    let all = slots(&c, &Plan::of(&c, None), monday());
    let own: Vec<(String, Value)> =
        all.iter().filter(|s| s.section == Section::WaterWindows).map(|s| (s.key(), s.value)).collect();
    assert_eq!(
        own,
        [
            ("window.1.from".to_owned(), Value::WindowFrom(time("04:00"))),
            ("window.1.to".to_owned(), Value::WindowTo(time("08:00"))),
            ("window.2.from".to_owned(), Value::WindowOff)
        ]
    );
}

#[test]
fn a_panel_keeps_no_more_windows_than_it_has() {
    let mut c = windowed("04:30");
    c.capability.water_windows = 1;
    assert_eq!(c.check(), Err(ControllerError::WaterWindows(1)));
    c.windows = vec![Hours { from: time("04:00"), to: time("04:00") }];
    assert_eq!(c.check(), Err(ControllerError::WaterWindows(1)));
}

/// A window that somebody left on a panel: what it shuts out is found, and the plan can take it over.
#[test]
fn a_window_that_was_left_on_a_panel_is_found() {
    use upland_core::found::*;
    let mut known = windowed("04:30");
    known.windows.clear();
    let panel = Panel {
        seen_at: monday().and_hms_opt(9, 0, 0).unwrap(),
        clock: PanelClock { date: monday(), weekday: Some(Mon), time: time("09:00") },
        switch: Switch::On,
        sensor: SensorSwitch::None,
        stations: vec![FoundStation { number: 1, minutes: min(100), programs: vec![A], cycle: None }],
        programs: vec![FoundProgram {
            letter: A,
            days: known.programs[0].schedule.days,
            starts: vec![time("04:30")],
            never: Days::NONE,
            percent: Percent::new(100).unwrap(),
            months: None,
        }],
        windows: vec![Hours { from: time("05:00"), to: time("09:00") }],
        note: String::new(),
    };
    panel.check(&known.capability).unwrap();
    let around = Surroundings::open();
    let found = panel_findings(&panel, &known, &around.situation(), None);
    let half_past_four = monday().and_hms_opt(4, 30, 0).unwrap();
    assert!(found.contains(&PanelFinding::OutsideWindow { letter: A, from: half_past_four }), "{found:?}");
    let differ = differences(&panel, &known, &around.situation().plan(&known));
    assert!(differ.iter().any(|d| d.part == Part::Windows && d.can_adopt), "{differ:?}");
    assert_eq!(adopt(&panel, &known, &[Part::Windows]).windows, panel.windows);
    let three = Panel { windows: panel.windows.repeat(3), ..panel };
    assert_eq!(three.check(&known.capability), Err(PanelError::WaterWindows(2)));
}

/// A start outside makes nothing, and that is why the ground is dry; a run that is cut short waters something.
#[test]
fn a_run_outside_of_its_window_is_why_the_ground_is_dry() {
    let ask = |start: &str| {
        let c = windowed(start);
        why_dry(&c, &Plan::of(&c, None), &ZONE, &Known::default(), 1, monday()).obstacles
    };
    assert_eq!(ask("04:30"), []);
    assert_eq!(ask("06:30"), [], "ninety of its hundred minutes lie inside");
    assert_eq!(ask("12:00"), [Obstacle::OutsideWindow(A)]);
}
