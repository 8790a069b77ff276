//! Panels as they are found.

use chrono::Weekday::{Fri, Mon, Sat, Tue, Wed};
use upland_core::controller::*;
use upland_core::found::*;
use upland_core::quantity::Percent;

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::ALL[0];
const B: ProgramLetter = ProgramLetter::ALL[1];
const C: ProgramLetter = ProgramLetter::ALL[2];

fn known() -> Controller {
    let mut c = controller(vec![station(1, A, 30), station(2, B, 20)]);
    c.programs.iter_mut().for_each(|p| p.waterings_per_week = Some(3));
    c
}

fn panel() -> Panel {
    let found = |number, minutes, programs: &[ProgramLetter]| FoundStation {
        number,
        minutes: min(minutes),
        programs: programs.to_vec(),
    };
    let program = |letter, days, starts: &[&str], percent| FoundProgram {
        letter,
        days: DayMode::Weekdays(Days::of(days)),
        starts: starts.iter().map(|s| time(s)).collect(),
        percent: Percent::new(percent).unwrap(),
    };
    Panel {
        seen_at: day(2026, 6, 10).and_hms_opt(9, 12, 0).unwrap(),
        clock: PanelClock { date: day(2026, 6, 10), weekday: Some(Wed), time: time("09:12") },
        switch: Switch::On,
        sensor: SensorSwitch::Active,
        stations: vec![found(1, 30, &[A]), found(2, 20, &[B])],
        programs: vec![program(A, vec![Mon, Wed, Fri], &["04:30"], 90), program(B, vec![Tue, Sat], &["04:30"], 90)],
        note: String::new(),
    }
}

fn findings(panel: &Panel) -> Vec<&'static str> {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let c = known();
    panel.check(&c.capability).unwrap();
    let budget = situation.budget(&c);
    panel_findings(panel, &c, &situation, budget.as_ref()).iter().map(PanelFinding::code).collect()
}

#[test]
fn a_sound_panel_has_no_finding() {
    assert_eq!(findings(&panel()), [""; 0]);
}

#[test]
fn the_classic_faults_are_found_at_once() {
    let mut p = panel();
    p.switch = Switch::Off;
    p.sensor = SensorSwitch::Bypassed;
    p.programs[0].starts.push(time("22:00"));
    p.stations[1].programs.push(A);
    p.programs.push(FoundProgram { letter: C, starts: vec![time("18:00")], ..p.programs[1].clone() });
    p.programs[1].percent = Percent::new(20).unwrap();
    assert_eq!(
        findings(&p),
        [
            "left_off",
            "sensor_bypassed",
            "found_in_two_programs",
            "found_second_start",
            "leftover_percent",
            "leftover_program"
        ]
    );
}

/// 30 min of 14.65 mm/h three times a week is 22.0 mm at 100 %, 19.8 at 90 %, gross; 0.7 uniformity
/// takes it to net.
#[test]
fn the_weeks_water_stands_beside_the_need() {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let (c, p) = (known(), panel());
    let budget = situation.budget(&c);
    let water = panel_water(&p, &c, &situation, budget.as_ref());
    let gross = 3.0 * 27.0 / 60.0 * 12.7 * 60.0 / 52.0;
    assert!((water[0].found_m3.unwrap() - gross * 100.0 / 1000.0).abs() < 1e-9);
    assert!((water[0].found_mm - gross * (0.4 + 0.6 * 0.7)).abs() < 1e-9);
    assert!(water[0].need_mm.unwrap() > 20.0);
    let off = panel_water(&Panel { switch: Switch::Off, ..p }, &c, &situation, budget.as_ref());
    assert_eq!(off[0].found_mm, 0.0);
}

#[test]
fn a_panel_that_cannot_be_is_refused() {
    let capability = known().capability;
    let mut p = panel();
    p.stations[0].number = 13;
    assert_eq!(p.check(&capability), Err(PanelError::NoSuchTerminal { number: 13, stations: 12 }));
    let mut p = panel();
    p.programs[0].starts = ["01:00", "02:00", "03:00", "04:00", "05:00"].map(time).to_vec();
    assert_eq!(p.check(&capability), Err(PanelError::TooManyStarts(A)));
    let mut p = panel();
    p.stations[1].number = 1;
    assert_eq!(p.check(&capability), Err(PanelError::Twice("a station")));
}
