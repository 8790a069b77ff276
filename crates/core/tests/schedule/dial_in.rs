//! What must be on the panel: everything, in its order, with the end of what does not stay.

use chrono::{NaiveDate, Weekday};
use upland_core::controller::{
    Controller, DayMode, Days, MonthDial, PanelOrder, PercentScope, Preset, Program, ProgramLetter, Temporary,
    TemporaryKind,
};
use upland_core::dial_in::{Note, Section, Slot, Value, slots};
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::Plan;
use upland_core::sensor::{RainSetting, Sensor, SensorKind, Vent};

use crate::builders::{controller, day, set, station, time};

const A: ProgramLetter = ProgramLetter::ALL[0];
const B: ProgramLetter = ProgramLetter::ALL[1];

/// Two lawns of 20 and 12 minutes, programs A and B, on a panel of a kind.
fn panel(preset: Preset) -> Controller {
    let mut c = controller(vec![station(1, A, 20), station(2, B, 12)]);
    c.capability = preset.capability();
    let days = DayMode::Weekdays(Days::of([Weekday::Mon, Weekday::Thu]));
    set(&mut c, A, days, &["04:00"]);
    set(&mut c, B, days, &["05:00"]);
    c
}

fn on(c: &Controller, date: NaiveDate) -> Vec<Slot> {
    slots(c, &Plan::of(c, None), date)
}

fn find(c: &Controller, date: NaiveDate, section: Section) -> Slot {
    on(c, date).into_iter().rev().find(|s| s.section == section).unwrap()
}

fn off_in(program: &mut Program, months: &[usize]) {
    months.iter().for_each(|m| program.months[*m].dial = MonthDial::Off);
}

fn for_a_while(mut c: Controller, kind: TemporaryKind, since: NaiveDate, until: NaiveDate) -> Controller {
    let (reason, by) = ("seed".into(), "O. Marrick".into());
    c.add_temporary(Temporary { id: 0, kind, since, until, reason, by, left_standing: false });
    c
}

#[test]
fn programs_come_before_minutes_where_the_panel_asks_so() {
    let mut c = panel(Preset::Monthly);
    let first = |c: &Controller| on(c, day(2026, 6, 8))[2].section;
    assert_eq!(first(&c), Section::Minutes);
    let before = on(&c, day(2026, 6, 8)).len();
    c.capability.panel_order = PanelOrder::ProgramsFirst;
    assert_eq!(first(&c), Section::Program(A));
    assert_eq!(on(&c, day(2026, 6, 8)).len(), before, "the same slots in another order");
}

#[test]
fn what_is_set_for_a_while_has_its_end_beside_it() {
    let seventy = TemporaryKind::Percent { letter: Some(B), percent: Percent::new(70).unwrap() };
    let mut c = panel(Preset::Monthly);
    c.programs[1].months[6].dial = MonthDial::Set(Percent::new(90).unwrap());
    let c = for_a_while(c, seventy, day(2026, 6, 20), day(2026, 6, 30));
    let june = |date| {
        let of_june = |s: &Slot| s.section == Section::Program(B) && s.month == MonthOfYear::new(6);
        on(&c, date).into_iter().find(of_june).unwrap()
    };
    let slot = june(day(2026, 6, 22));
    assert_eq!(slot.value, Value::Percent(Percent::new(70).unwrap()));
    let then = Value::Percent(Percent::new(90).unwrap());
    assert_eq!(slot.note, Some(Note::Until { last: day(2026, 6, 30), then }), "July has its own percent");
    let july = on(&c, day(2026, 7, 2))
        .into_iter()
        .find(|s| s.month == MonthOfYear::new(7) && s.section == Section::Program(B));
    assert_eq!(july.unwrap().note, Some(Note::PutBack { ended: day(2026, 6, 30), temporary: 1 }));
}

#[test]
fn an_off_and_a_rain_delay_are_dialled_too() {
    let c = panel(Preset::Monthly);
    assert_eq!(find(&c, day(2026, 6, 8), Section::Switch).value, Value::SwitchOn);
    let off = for_a_while(c.clone(), TemporaryKind::Off, day(2026, 6, 7), day(2026, 6, 9));
    let slot = find(&off, day(2026, 6, 8), Section::Switch);
    assert_eq!(slot.value, Value::SwitchOff);
    assert_eq!(slot.note, Some(Note::Until { last: day(2026, 6, 9), then: Value::SwitchOn }));
    let over = find(&off, day(2026, 6, 10), Section::Switch);
    assert_eq!(
        (over.value, over.note),
        (Value::SwitchOn, Some(Note::PutBack { ended: day(2026, 6, 9), temporary: 1 }))
    );
    let delay = for_a_while(c, TemporaryKind::RainDelay, day(2026, 6, 7), day(2026, 6, 9));
    assert_eq!(find(&delay, day(2026, 6, 8), Section::RainDelay).value, Value::RainDelay(day(2026, 6, 9)));
    assert!(!on(&delay, day(2026, 6, 10)).iter().any(|s| s.section == Section::RainDelay), "it ends by itself");
}

#[test]
fn the_sensor_and_who_obeys_it_are_dialled() {
    let mut c = panel(Preset::Monthly);
    let rain = SensorKind::Rain {
        thresholds_mm: vec![3.0, 13.0],
        setting: RainSetting { delay_days: 2, ..RainSetting::USUAL },
    };
    let mut sensor = Sensor::proposed(rain, "Shed", &c);
    sensor.exempt = vec![2];
    let id = c.add_sensor(sensor);
    let all = on(&c, day(2026, 6, 8));
    let own: Vec<Value> = all.iter().filter(|s| s.section == Section::SensorSetting(id)).map(|s| s.value).collect();
    assert_eq!(own, [Value::RainSetting(13.0), Value::Vent(Vent::Half), Value::DaysAfterRain(2)]);
    let obeys = |c: &Controller| -> Vec<(u8, Value)> {
        on(c, day(2026, 6, 8)).iter().filter(|s| s.section == Section::Obeys).map(|s| (s.index, s.value)).collect()
    };
    assert_eq!(obeys(&c), [(1, Value::Obeys), (2, Value::Ignores)]);
    c.capability.sensor_by_station = false;
    assert_eq!(obeys(&c), [(2, Value::Ignores)], "the station that is wired past the sensor");
    let keys: Vec<String> = all.iter().map(Slot::key).collect();
    let mut unique = keys.clone();
    unique.sort();
    unique.dedup();
    assert_eq!(unique.len(), keys.len(), "every slot has a key of its own");
}

/// January and February off: on a panel that can hold it, the months; else the switch, with its return.
#[test]
fn a_month_that_is_off_is_done_by_hand_where_the_panel_cannot_hold_it() {
    let mut c = panel(Preset::Monthly);
    c.programs.iter_mut().for_each(|p| off_in(p, &[0, 1, 11]));
    let january = day(2026, 1, 10);
    assert_eq!(find(&c, january, Section::Switch).value, Value::SwitchOn);
    assert_eq!(on(&c, january).iter().filter(|s| s.value == Value::PercentOff).count(), 6);
    c.capability.months_off = false;
    let slot = find(&c, january, Section::Switch);
    assert_eq!(slot.value, Value::SwitchOff);
    assert_eq!(slot.note, Some(Note::Until { last: day(2026, 2, 28), then: Value::SwitchOn }));
    assert!(!on(&c, january).iter().any(|s| s.value == Value::PercentOff));
    // Over the end of the year.
    let note = find(&c, day(2026, 12, 31), Section::Switch).note;
    assert_eq!(note, Some(Note::Until { last: day(2027, 2, 28), then: Value::SwitchOn }));
    assert_eq!(find(&c, day(2026, 3, 1), Section::Switch).value, Value::SwitchOn);
}

#[test]
fn one_program_that_is_off_loses_its_starts_while_the_others_go_on() {
    let mut c = panel(Preset::Monthly);
    c.capability.months_off = false;
    off_in(&mut c.programs[1], &[0]);
    let start =
        on(&c, day(2026, 1, 10)).into_iter().find(|s| s.section == Section::Program(B) && s.index == 1).unwrap();
    assert_eq!(start.value, Value::StartOff);
    assert_eq!(start.note, Some(Note::Until { last: day(2026, 1, 31), then: Value::Start(time("05:00")) }));
    assert_eq!(find(&c, day(2026, 1, 10), Section::Switch).value, Value::SwitchOn);
    let of_a = on(&c, day(2026, 1, 10)).into_iter().find(|s| s.section == Section::Program(A) && s.index == 1).unwrap();
    assert_eq!((of_a.value, of_a.note), (Value::Start(time("04:00")), None));
}

#[test]
fn a_single_percent_is_not_asked_for_while_everything_is_off() {
    let mut c = panel(Preset::Plain);
    assert_eq!(c.capability.percent_scope, PercentScope::AllPrograms);
    c.programs.iter_mut().for_each(|p| off_in(p, &[0]));
    assert!(!on(&c, day(2026, 1, 10)).iter().any(|s| s.section == Section::Percent));
    assert!(on(&c, day(2026, 2, 1)).iter().any(|s| s.section == Section::Percent));
}
