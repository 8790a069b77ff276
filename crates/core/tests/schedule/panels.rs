//! Panels as they are found.

use chrono::Weekday::{Fri, Mon, Sat, Tue, Wed};
use upland_core::controller::*;
use upland_core::found::*;
use upland_core::quantity::Percent;

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::ALL[0];
const B: ProgramLetter = ProgramLetter::ALL[1];
const C: ProgramLetter = ProgramLetter::ALL[2];

pub(crate) fn known() -> Controller {
    let mut c = controller(vec![station(1, A, 60), station(2, B, 90)]);
    c.programs.iter_mut().for_each(|p| p.waterings_per_week = Some(3));
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &["04:30"]);
    set(&mut c, B, DayMode::Weekdays(Days::of([Tue, Sat])), &["04:30"]);
    c
}

pub(crate) fn panel() -> Panel {
    let found = |number, minutes, programs: &[ProgramLetter]| FoundStation {
        number,
        minutes: min(minutes),
        programs: programs.to_vec(),
        cycle: None,
    };
    let program = |letter, days, starts: &[&str], percent| FoundProgram {
        letter,
        days: DayMode::Weekdays(Days::of(days)),
        never: Days::NONE,
        starts: starts.iter().map(|s| time(s)).collect(),
        percent: Percent::new(percent).unwrap(),
        months: None,
    };
    Panel {
        seen_at: day(2026, 6, 10).and_hms_opt(9, 12, 0).unwrap(),
        clock: PanelClock { date: day(2026, 6, 10), weekday: Some(Wed), time: time("09:12") },
        switch: Switch::On,
        sensor: SensorSwitch::Active,
        stations: vec![found(1, 60, &[A]), found(2, 90, &[B])],
        windows: Vec::new(),
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
    p.programs.push(FoundProgram { letter: C, starts: vec![time("18:00")], ..p.programs[1].clone() });
    p.programs[1].percent = Percent::new(20).unwrap();
    assert_eq!(
        findings(&p),
        ["left_off", "sensor_bypassed", "found_second_start", "leftover_percent", "leftover_program"]
    );
    let mut p = panel();
    p.stations[1].programs.push(A);
    p.stations.push(FoundStation { number: 9, ..p.stations[1].clone() });
    assert_eq!(findings(&p), ["found_in_two_programs", "found_unknown_station"]);
}

/// June of a dry upland year asks 34.8 mm a week of cool turf; the sound panel gives 32.4 net, by three waterings of
/// 60 min or two of 90 min at 90 %. A program is judged by the whole, not by its parts.
fn judged(change: impl Fn(&mut Panel)) -> Vec<ProgramWater> {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let c = known();
    let mut p = panel();
    change(&mut p);
    program_water(&p, &c, &situation, situation.budget(&c).as_ref())
}

/// What a program of the sound panel gives, so that changes can be worked from it.
fn sound_mm() -> f64 {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    panel_water(&panel(), &known(), &situation, situation.budget(&known()).as_ref())[0].found_mm
}

#[test]
fn twice_the_starts_at_half_the_percent_is_the_soak_program_and_no_fault() {
    let soaked = judged(|p| {
        p.programs[0].starts.push(time("06:30"));
        p.programs[0].percent = Percent::new(45).unwrap();
    });
    assert_eq!(soaked, []);
    let doubled = judged(|p| p.programs[0].starts.push(time("22:00")));
    let [water] = doubled[..] else { panic!("{doubled:?}") };
    // 3 x 54 min of 14.65 mm/h on 100 m².
    let Cause::SecondStart { start, volume_m3 } = water.cause else { panic!("{water:?}") };
    assert_eq!(start, time("22:00"));
    assert!((volume_m3 - 3.0 * 54.0 / 60.0 * 12.7 * 60.0 / 52.0 / 10.0).abs() < 1e-9, "{volume_m3}");
    assert!((water.found_mm - 2.0 * sound_mm()).abs() < 1e-9);
    assert!(water.surplus_m3 > 0.0);
}

#[test]
fn the_cause_is_the_one_thing_that_mends_the_week() {
    let by = |change: &dyn Fn(&mut Panel)| judged(|p| change(p)).first().map(|w| w.cause);
    // January's percent in June: too little, and the month that it fits is named.
    let left = by(&|p| p.programs[0].percent = Percent::new(20).unwrap());
    assert!(
        matches!(left, Some(Cause::Percent { right, fits: Some(month), .. }) if right > 60.0 && month.number() != 6),
        "{left:?}"
    );
    let every_day = by(&|p| p.programs[0].days = DayMode::Weekdays(Days::ALL));
    assert_eq!(every_day, Some(Cause::Days { found: 7.0, planned: 3.0 }));
    let minutes = by(&|p| p.stations[0].minutes = min(90));
    let Some(Cause::Minutes { right }) = minutes else { panic!("{minutes:?}") };
    let found = 1.5 * sound_mm();
    let need = judged(|p| p.stations[0].minutes = min(90))[0].need_mm;
    assert!((right - 90.0 * need / found).abs() < 1e-9);
    // What is off is judged by what it would run.
    assert!(judged(|p| p.switch = Switch::Off).is_empty());
}

#[test]
fn days_by_the_date_are_judged_by_their_mean_week() {
    let every = |days| {
        let change = |p: &mut Panel| p.programs[0].days = DayMode::Every { days, next: day(2026, 6, 12) };
        judged(change).first().map(|w| w.found_mm)
    };
    // Every other day is 3.5 of the panel's 3 waterings a week; every 14 days is half a watering.
    assert_eq!(every(2), None);
    assert!((every(14).unwrap() - sound_mm() / 3.0 / 2.0).abs() < 1e-9);
}

#[test]
fn every_day_the_same_minutes_is_the_factory_state() {
    let mut p = panel();
    p.stations.iter_mut().for_each(|s| s.minutes = min(10));
    p.programs.iter_mut().for_each(|f| f.days = DayMode::Weekdays(Days::ALL));
    assert!(findings(&p).contains(&"factory_state"));
    p.stations[0].minutes = min(11);
    assert!(!findings(&p).contains(&"factory_state"));
}

#[test]
fn a_display_that_says_off_while_a_sensor_holds_is_not_off() {
    assert_eq!(findings(&Panel { switch: Switch::Held, ..panel() }), [""; 0]);
}

#[test]
fn what_differs_can_be_taken_over_and_then_differs_no_more() {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let mut c = known();
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &["05:00"]);
    set(&mut c, B, DayMode::Every { days: 3, next: day(2026, 5, 3) }, &["04:30"]);
    let mut p = panel();
    // Every three days, counted from another day: 8, 11, 14 June and 2, 5, ... are not the same days; 9, 12 are.
    p.programs[1].days = DayMode::Every { days: 3, next: day(2026, 6, 14) };
    p.programs.push(FoundProgram { letter: C, ..p.programs[0].clone() });
    p.stations.push(FoundStation { number: 9, ..p.stations[1].clone() });
    p.stations[0].minutes = min(25);
    let differ = |c: &Controller| differences(&p, c, &situation.plan(c));
    let keys = |d: &[Difference]| d.iter().map(|d| d.part.key()).collect::<Vec<_>>();
    let found = differ(&c);
    assert_eq!(
        keys(&found),
        ["minutes.1", "minutes.9", "A.starts", "C.starts", "A.percent.6", "B.percent.6"],
        "{found:?}"
    );
    let open: Vec<Part> = found.iter().filter(|d| d.can_adopt).map(|d| d.part).collect();
    assert_eq!(open.len(), found.len() - 2, "neither the unknown station nor the ghost");
    let adopted = adopt(&p, &c, &open);
    adopted.check().unwrap();
    assert_eq!(keys(&differ(&adopted)), ["minutes.9", "C.starts"]);
    assert_eq!(adopted.station(1).unwrap().minutes, Some(min(25)));
    assert_eq!(adopt(&p, &c, &[]), c, "nothing ticked changes nothing");
}

#[test]
fn twelve_percents_are_compared_only_where_they_were_written_down() {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let c = known();
    let mut p = panel();
    let of_a = |p: &Panel| {
        let all = differences(p, &c, &situation.plan(&c));
        all.iter().filter(|d| matches!(d.part, Part::Percent(l, _) if l == A)).count()
    };
    assert!(of_a(&p) <= 1);
    p.programs[0].months = Some([Some(Percent::new(7).unwrap()); 12]);
    assert_eq!(of_a(&p), 12);
}

/// 60 min of 14.65 mm/h three times a week is 44.0 mm at 100 %, 39.6 at 90 %, gross; 0.7 uniformity
/// takes it to net.
#[test]
fn the_weeks_water_stands_beside_the_need() {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let (c, p) = (known(), panel());
    let budget = situation.budget(&c);
    let water = panel_water(&p, &c, &situation, budget.as_ref());
    let gross = 3.0 * 54.0 / 60.0 * 12.7 * 60.0 / 52.0;
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
