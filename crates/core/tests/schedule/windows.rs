//! The panel's own water windows, and the hour by which a place wants watering done: found, mended, proposed. The
//! weeks are worked by hand.

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

/// A place that wants watering done by an hour.
fn done_by(hour: &str) -> Surroundings {
    Surroundings { rules: Bound { done_by: Some(time(hour)), ..Bound::open() }, normals: Some(normals()) }
}

#[test]
fn watering_past_the_hour_when_people_are_up_is_noted_and_moved_before_it() {
    let by_seven = done_by("07:00");
    let starting = |start| {
        let mut c = controller(vec![station(1, A, 105)]);
        set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &[start]);
        c.programs[0].months.iter_mut().for_each(|m| m.dial = MonthDial::Set(Percent::new(100).unwrap()));
        c
    };
    let noted = |c: &Controller| {
        let found = by_seven.check(c);
        found.into_iter().find(|f| f.code() == Code::NotDone).map(|f| {
            assert_eq!(f.severity, Severity::Note);
            let Problem::NotDone { by, ends, month } = f.problem else { panic!() };
            assert_eq!(by, time("07:00"));
            (ends.format("%H:%M").to_string(), month)
        })
    };
    // To 07:00 on the minute, and in the evening from 17:00.
    for start in ["05:15", "17:00", "22:30"] {
        assert_eq!(noted(&starting(start)), None, "{start}");
    }
    for (start, ends) in [("05:30", "07:15"), ("12:00", "13:45"), ("16:45", "18:30")] {
        assert_eq!(noted(&starting(start)), Some((ends.into(), None)), "{start}");
    }
    // The latest start on a step of 15 min that ends by 07:00.
    let late = starting("05:30");
    assert_eq!(mended(&by_seven, &late, Code::NotDone).programs[0].schedule.starts, [time("05:15")]);
    // At July's 120 % it takes 126 min: from 05:00 to 07:06, in June it is done at 06:45.
    let mut july = starting("05:00");
    july.programs[0].months[6].dial = MonthDial::Set(Percent::new(120).unwrap());
    assert_eq!(noted(&july), Some(("07:06".into(), MonthOfYear::new(7))));
    // Where nothing is stated, nothing is noted.
    assert!(!codes(&Surroundings::open().check(&late)).contains(&Code::NotDone));
}

/// What is proposed ends by the stated hour, by 08:00 where there is none.
#[test]
fn a_proposal_is_done_by_the_hour_of_the_place() {
    let starts = |around: &Surroundings| {
        let mut c = controller(vec![station(1, A, 0)]);
        c.stations[0].minutes = None;
        let proposal = propose(&around.situation(), &c, Grouping::Keep);
        assert_eq!(proposal.shortfalls, []);
        assert!(!codes(&detect(&around.situation(), &proposal.controller)).contains(&Code::NotDone));
        proposal.controller.programs[0].schedule.starts[0].minute_of_day()
    };
    let usual = starts(&Surroundings { rules: Bound::open(), normals: Some(normals()) });
    for (hour, earlier) in [("08:00", 0), ("06:30", 90), ("10:00", -120)] {
        assert_eq!(i32::from(starts(&done_by(hour))), i32::from(usual) - earlier, "{hour}");
    }
}
