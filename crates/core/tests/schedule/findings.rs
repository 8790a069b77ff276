//! A hand-worked week for each finding, and what its repair leaves.

use chrono::Weekday::{Fri, Mon, Sat, Sun, Thu, Tue, Wed};
use upland_core::controller::*;
use upland_core::landscape::{CycleSoak, Slope, Soil};
use upland_core::place::{Allowed, Ban, Bound};
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::schedule::*;
use upland_core::sensor::{EtSetting, EtSheet, Sensor, SensorKind};

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::ALL[0];
const B: ProgramLetter = ProgramLetter::ALL[1];

fn mwf() -> DayMode {
    DayMode::Weekdays(Days::of([Mon, Wed, Fri]))
}

#[test]
fn a_sound_week_has_no_finding() {
    let mut c = controller(vec![station(1, A, 30), station(2, A, 30)]);
    set(&mut c, A, mwf(), &["04:30"]);
    assert_eq!(Surroundings::open().check(&c), []);
}

/// 30 min of 14.65 mm/h on 100 m² is 0.733 m³; three of them a week are at stake.
#[test]
fn a_second_start_doubles_the_water() {
    let mut c = controller(vec![station(1, A, 30)]);
    set(&mut c, A, mwf(), &["04:30", "22:00"]);
    let around = Surroundings::open();
    let found = around.check(&c);
    assert_eq!(codes(&found), [Code::SecondStart]);
    assert_eq!(
        (&found[0].problem, found[0].severity),
        (&Problem::SecondStart { start: time("22:00") }, Severity::Fault)
    );
    let Stake::VolumeM3(v) = found[0].stake else { panic!("{:?}", found[0].stake) };
    assert!((v - 3.0 * 0.5 * 14.653_846 * 100.0 / 1000.0).abs() < 1e-3, "{v}");
    assert_eq!(found[0].marks.len(), 3);
    assert_eq!(mended(&around, &c, Code::SecondStart).programs[0].schedule.starts, [time("04:30")]);
}

#[test]
fn a_second_start_that_is_the_soak_program_is_no_fault() {
    let mut c = controller(vec![station(1, A, 40)]);
    c.capability.cycle_soak = false;
    set(&mut c, A, mwf(), &["03:00", "04:30"]);
    c.programs[0].schedule.split = 2;
    assert_eq!(Surroundings::open().check(&c), []);
    // And each start then runs half of the minutes.
    let plan = Plan::of(&c, None);
    assert_eq!(plan.station(1).unwrap().panel, min(20));
}

#[test]
fn cycles_on_the_panel_and_divided_starts_are_two_ways_at_once() {
    let mut c = controller(vec![station(1, A, 40)]);
    c.stations[0].cycle = Some(CycleSoak { cycle: min(10), soak: min(30) });
    set(&mut c, A, mwf(), &["00:30", "04:30"]);
    c.programs[0].schedule.split = 2;
    let around = Surroundings::open();
    assert_eq!(codes(&around.check(&c)), [Code::TwoWaysOfSoak]);
    let after = mended(&around, &c, Code::TwoWaysOfSoak);
    assert_eq!((after.programs[0].schedule.split, after.programs[0].schedule.starts.len()), (1, 1));
}

#[test]
fn fewer_starts_than_the_watering_is_divided_over() {
    let mut c = controller(vec![station(1, A, 40)]);
    c.capability.cycle_soak = false;
    set(&mut c, A, mwf(), &["04:30"]);
    c.programs[0].schedule.split = 2;
    let around = Surroundings::open();
    let found = around.check(&c);
    assert_eq!(codes(&found), [Code::TooFewStarts]);
    assert_eq!(found[0].problem, Problem::TooFewStarts { there: 1, needed: 2 });
    assert_eq!(mended(&around, &c, Code::TooFewStarts).programs[0].schedule.starts.len(), 2);
}

/// A runs 04:30 to 05:30, so B, due at 05:00, begins half an hour late.
#[test]
fn a_program_that_waits_for_another() {
    let mut c = controller(vec![station(1, A, 60), station(2, B, 20)]);
    set(&mut c, A, mwf(), &["04:30"]);
    set(&mut c, B, mwf(), &["05:00"]);
    let around = Surroundings::open();
    let found = around.check(&c);
    assert_eq!(codes(&found), [Code::Waits]);
    let Problem::Waits { other, minutes, planned, begins } = found[0].problem else { panic!() };
    assert_eq!((other, minutes, planned), (A, 30, time("05:00")));
    assert_eq!(begins.format("%H:%M").to_string(), "05:30");
    // The nearest start at which nobody waits.
    assert_eq!(mended(&around, &c, Code::Waits).programs[1].schedule.starts, [time("05:30")]);
}

#[test]
fn a_run_into_closed_hours_now_and_only_at_the_highest_percent() {
    let closed = Surroundings {
        rules: Bound::all_year(Allowed { hours: vec![(600, 1080)], ..Allowed::default() }),
        normals: None,
    };
    let mut c = controller(vec![station(1, A, 100)]);
    set(&mut c, A, mwf(), &["08:30"]);
    let found = closed.check(&c);
    assert_eq!(codes(&found), [Code::ForbiddenHour]);
    // 100 min must end by 10:00: 08:20, on a step of 15 min 08:15.
    assert_eq!(mended(&closed, &c, Code::ForbiddenHour).programs[0].schedule.starts, [time("08:15")]);

    // At June's 80 % it ends 09:50, at July's 120 % at 10:30.
    for month in MonthOfYear::ALL {
        let percent = if month.number() == 7 { 120 } else { 80 };
        c.programs[0].months[month.index()].dial = MonthDial::Set(Percent::new(percent).unwrap());
    }
    let found = closed.check(&c);
    assert_eq!(codes(&found), [Code::LateAtHighest]);
    let Problem::LateAtHighest { ends, ends_now, month, .. } = found[0].problem else { panic!() };
    assert_eq!(ends.format("%H:%M").to_string(), "10:30");
    assert_eq!(ends_now.unwrap().format("%H:%M").to_string(), "09:50");
    assert_eq!(month.unwrap().number(), 7);
    assert_eq!(mended(&closed, &c, Code::LateAtHighest).programs[0].schedule.starts, [time("08:00")]);
}

#[test]
fn a_closed_weekday_moves_to_the_nearest_open_one() {
    let rules = Surroundings {
        rules: Bound::all_year(Allowed { days: Days::ALL.without(Sun), ..Allowed::default() }),
        normals: None,
    };
    let mut c = controller(vec![station(1, A, 20)]);
    set(&mut c, A, DayMode::Weekdays(Days::of([Wed, Sun])), &["04:30"]);
    let found = rules.check(&c);
    assert_eq!(codes(&found), [Code::ForbiddenDay]);
    assert_eq!(found[0].problem, Problem::ForbiddenWeekdays { days: Days::of([Sun]) });
    assert_eq!(
        mended(&rules, &c, Code::ForbiddenDay).programs[0].schedule.days,
        DayMode::Weekdays(Days::of([Mon, Wed]))
    );
    // A program that waters every day can only give the day up.
    set(&mut c, A, DayMode::Weekdays(Days::ALL), &["04:30"]);
    assert_eq!(
        mended(&rules, &c, Code::ForbiddenDay).programs[0].schedule.days,
        DayMode::Weekdays(Days::ALL.without(Sun))
    );
    // Days by the date keep their count and skip it.
    set(&mut c, A, DayMode::Every { days: 3, next: monday() }, &["04:30"]);
    assert_eq!(mended(&rules, &c, Code::ForbiddenDay).programs[0].schedule.never, Days::of([Sun]));
}

#[test]
fn a_ban_closes_dates_and_no_day_of_the_week_mends_it() {
    let ban = Some(Ban { from: day(2026, 6, 10), to: day(2026, 6, 20), hours: None });
    let rules = Surroundings { rules: Bound { ban, ..Bound::open() }, normals: None };
    let mut c = controller(vec![station(1, A, 20)]);
    set(&mut c, A, mwf(), &["04:30"]);
    let found = rules.check(&c);
    assert_eq!(
        (codes(&found), &found[0].problem),
        (vec![Code::ForbiddenDay], &Problem::ForbiddenDate { date: day(2026, 6, 10) })
    );
    assert_eq!(found[0].repair, None);
}

#[test]
fn the_31st_and_the_1st_and_the_odd_fourth_day() {
    let mut c = controller(vec![station(1, A, 20)]);
    let around = Surroundings::open();
    set(&mut c, A, DayMode::Odd, &["04:30"]);
    assert_eq!(codes(&around.check(&c)), [Code::OddNeighbours]);
    assert_eq!(
        mended(&around, &c, Code::OddNeighbours).programs[0].schedule.days,
        DayMode::Every { days: 2, next: monday() }
    );
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri, Sun])), &["04:30"]);
    let found = around.check(&c);
    assert_eq!(
        (codes(&found), &found[0].problem),
        (vec![Code::NeighbouringDays], &Problem::NeighbouringDays { first: Sun, second: Mon })
    );
    // Four days that keep their distance as well as seven allow are meant so by nobody either,
    // but Monday, Tuesday, Thursday and Friday are two pairs, and that is a plan.
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Tue, Thu, Fri])), &["04:30"]);
    assert_eq!(around.check(&c), []);
}

/// Loam at 7 to 12 %: 5.33 mm may lie; at 33.6 mm/h against 8.89 it is there in 12.9 min.
#[test]
fn a_run_longer_than_the_soil_takes() {
    let bank = |cycle_soak: bool| {
        let mut c = controller(vec![station(1, A, 24)]);
        c.capability.cycle_soak = cycle_soak;
        c.stations[0].sprinkler.rate = upland_core::quantity::RateMmPerHour::new(33.6).ok();
        c.stations[0].soil = Soil::Loam;
        c.stations[0].slope = Slope::Moderate;
        set(&mut c, A, mwf(), &["04:30"]);
        c
    };
    let around = Surroundings::open();
    let c = bank(true);
    let found = around.check(&c);
    assert_eq!(codes(&found), [Code::RunsOff]);
    let Problem::RunsOff { run, longest, setting } = &found[0].problem else { panic!() };
    assert_eq!((*run, (longest * 10.0).round() / 10.0), (min(24), 12.9));
    assert_eq!(*setting, Some(CycleSoak { cycle: min(12), soak: min(36) }));
    let after = mended(&around, &c, Code::RunsOff);
    let runs = around.situation().week(&after, &Plan::of(&after, None), Level::Calendar).runs;
    assert_eq!(runs.iter().filter(|r| r.date == monday()).map(|r| r.length).collect::<Vec<_>>(), [min(12), min(12)]);
    // A panel without cycles divides the minutes over its starts instead.
    let after = mended(&around, &bank(false), Code::RunsOff);
    assert_eq!((after.programs[0].schedule.split, after.programs[0].schedule.starts.len()), (2, 2));
    assert_eq!(Plan::of(&after, None).station(1).unwrap().panel, min(12));
}

#[test]
fn stations_without_minutes_or_in_two_programs() {
    let mut c = controller(vec![station(1, A, 0), station(2, A, 30), station(3, B, 10)]);
    set(&mut c, A, mwf(), &["04:30"]);
    set(&mut c, B, DayMode::Weekdays(Days::of([Tue, Sat])), &["04:30"]);
    c.stations[1].also = Some(B);
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    c.programs.iter_mut().for_each(|p| p.waterings_per_week = Some(if p.letter == A { 3 } else { 2 }));
    let found = around.check(&c);
    assert_eq!(codes(&found), [Code::InTwoPrograms, Code::NoMinutes]);
    assert_eq!((found[0].station, &found[0].problem), (Some(2), &Problem::InTwoPrograms { second: B }));
    assert_eq!(mended(&around, &c, Code::InTwoPrograms).stations[1].also, None);
    assert_eq!(mended(&around, &c, Code::NoMinutes).stations[0].minutes, None);
}

#[test]
fn programs_without_stations_and_stations_without_a_schedule() {
    let mut c = controller(vec![station(1, A, 20)]);
    c.programs.push(Program::proposed(B));
    set(&mut c, B, mwf(), &["21:00"]);
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    assert_eq!(codes(&around.check(&c)), [Code::NotScheduled, Code::GhostProgram]);
    assert!(mended(&around, &c, Code::GhostProgram).programs[1].schedule.is_idle());
    assert!(!mended(&around, &c, Code::NotScheduled).programs[0].schedule.is_idle());
}

#[test]
fn minutes_for_three_waterings_on_two_days() {
    let mut c = controller(vec![station(1, A, 20)]);
    c.programs[0].waterings_per_week = Some(3);
    set(&mut c, A, DayMode::Weekdays(Days::of([Tue, Sat])), &["04:30"]);
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let found = around.check(&c);
    assert_eq!(
        (codes(&found), &found[0].problem),
        (vec![Code::DaysAndMinutes], &Problem::DaysAndMinutes { scheduled: 2.0, meant: 3.0 })
    );
    let after = mended(&around, &c, Code::DaysAndMinutes);
    assert_eq!(after.programs[0].schedule.days, DayMode::Weekdays(Days::of([Mon, Wed, Fri])));
}

#[test]
fn a_percent_by_hand_that_fights_the_sensor() {
    let mut c = controller(vec![station(1, A, 20)]);
    set(&mut c, A, mwf(), &["04:30"]);
    let kind = SensorKind::Et { setting: EtSetting::for_peak(EtSheet::example(), 5.0), programs: vec![A] };
    c.add_sensor(Sensor::proposed(kind, "Roof ridge", &c));
    let around = Surroundings::open();
    assert_eq!(around.check(&c), []);
    c.programs[0].months[6].dial = MonthDial::Set(Percent::new(120).unwrap());
    assert_eq!(codes(&around.check(&c)), [Code::FightsSensor]);
    assert_eq!(mended(&around, &c, Code::FightsSensor).programs[0].months[6].dial, MonthDial::Computed);
}

/// A rain sensor holds A back, and A's months have rain taken off as well.
#[test]
fn rain_is_counted_once() {
    let mut c = controller(vec![station(1, A, 20)]);
    set(&mut c, A, mwf(), &["04:30"]);
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    c.programs[0].waterings_per_week = Some(3);
    assert_eq!(around.check(&c), []);
    let sensor = Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::common_rain(), "Shed", &c) };
    c.add_sensor(sensor);
    assert_eq!(codes(&around.check(&c)), [Code::RainCountedTwice]);
    assert!(!mended(&around, &c, Code::RainCountedTwice).programs[0].count_rain);
    c.sensors[0].jumper_removed = false;
    assert_eq!(around.check(&c), [], "a sensor behind its jumper counts nothing");
}

/// Turf on sand holds 24 mm in 0.3 m of roots and may use 9.6; July asks 39.9 mm a week.
#[test]
fn one_watering_a_week_is_more_than_sand_holds() {
    let mut c = controller(vec![station(1, A, 20)]);
    c.stations[0].minutes = None;
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon])), &["04:30"]);
    c.programs[0].waterings_per_week = Some(1);
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let found = around.check(&c);
    assert_eq!(codes(&found), [Code::DeeperThanSoil]);
    let Problem::DeeperThanSoil { net_mm, taw_mm } = found[0].problem else { panic!() };
    assert!((net_mm - 39.9).abs() < 0.3 && (taw_mm - 24.0).abs() < 1e-9, "{net_mm}");
    assert_eq!(found[0].severity, Severity::Fault);
    // Twice a week none sinks away, and the plants still wait too long. Four days would leave two side
    // by side, so five mend it.
    let twice = mended(&around, &c, Code::DeeperThanSoil);
    assert_eq!(twice.programs[0].waterings_per_week, Some(2));
    assert_eq!(codes(&around.check(&twice)), [Code::DeeperThanReady]);
    assert_eq!(mended(&around, &twice, Code::DeeperThanReady).programs[0].waterings_per_week, Some(5));
}

#[test]
fn what_the_panel_cuts_off_is_said() {
    let mut c = controller(vec![station(1, A, 20)]);
    c.stations[0].minutes = None;
    set(&mut c, A, mwf(), &["04:30"]);
    c.programs[0].waterings_per_week = Some(3);
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    // Base set in January at 0.8 mm: July's 6.0 calls for 750 %, the panel ends at 200.
    c.base_month = BaseMonth::Month(MonthOfYear::ALL[0]);
    let found = around.check(&c);
    assert!(codes(&found).contains(&Code::PercentHeld), "{found:?}");
    c.base_month = BaseMonth::Peak;
    c.capability.run_max = min(60);
    c.stations[0].sprinkler.rate = upland_core::quantity::RateMmPerHour::new(5.0).ok();
    let found = around.check(&c);
    assert!(codes(&found).contains(&Code::RunHeld), "{found:?}");
}

/// The week of the handbook's picture: everything at once, and one press mends it all.
#[test]
fn all_repairs_leave_nothing() {
    let rules =
        Bound::all_year(Allowed { days: Days::ALL.without(Sun), hours: vec![(600, 1080)], ..Allowed::default() });
    let around = Surroundings { rules, normals: None };
    let c = ProgramLetter::ALL[2];
    let mut all =
        controller(vec![station(1, A, 50), station(2, A, 47), station(4, B, 49), station(5, B, 51), station(7, c, 14)]);
    set(&mut all, A, mwf(), &["04:30", "22:00"]);
    set(&mut all, B, DayMode::Weekdays(Days::of([Tue, Sat])), &["08:45"]);
    set(&mut all, c, DayMode::Weekdays(Days::ALL), &["05:00"]);
    assert_eq!(codes(&around.check(&all)), [Code::SecondStart, Code::ForbiddenDay, Code::ForbiddenHour, Code::Waits]);
    let (after, done) = repair_all(&around.situation(), &all);
    assert_eq!(around.check(&after), []);
    assert_eq!(done.len(), 4);
}

/// An hour from 23:30 on an evening before a closed day: the last half hour is on it.
#[test]
fn a_program_that_runs_past_midnight_into_a_closed_day_is_found() {
    let around = Surroundings {
        rules: Bound::all_year(Allowed { days: Days::ALL.without(Thu), ..Allowed::default() }),
        normals: None,
    };
    let mut c = controller(vec![station(1, ProgramLetter::A, 30), station(2, ProgramLetter::A, 30)]);
    set(&mut c, ProgramLetter::A, DayMode::Weekdays(Days::of([Wed])), &["23:30"]);
    let found = around.check(&c);
    let midnight = day(2026, 6, 11).and_hms_opt(0, 0, 0).unwrap();
    let hour = found.iter().find(|f| f.code() == Code::ForbiddenHour).unwrap();
    assert!(matches!(hour.problem, Problem::ForbiddenHour { from, .. } if from == midnight), "{hour:#?}");
    let mended = hour.repair.clone().unwrap().applied(&c).unwrap();
    assert!(!around.check(&mended).iter().any(|f| f.code() == Code::ForbiddenHour));
    // On an evening before an open day nothing is wrong with it.
    set(&mut c, ProgramLetter::A, DayMode::Weekdays(Days::of([Tue])), &["23:30"]);
    assert!(!around.check(&c).iter().any(|f| f.code() == Code::ForbiddenHour));
}

#[test]
fn a_required_sensor_has_to_be_at_work() {
    let around = Surroundings { rules: Bound { needs_sensor: true, ..Bound::open() }, normals: None };
    let mut c = controller(vec![station(1, ProgramLetter::A, 20)]);
    set(&mut c, ProgramLetter::A, DayMode::Weekdays(Days::of([Mon])), &["04:00"]);
    let lacks = |c: &Controller| around.check(c).iter().any(|f| f.code() == Code::SensorRequired);
    assert!(lacks(&c));
    let id = c.add_sensor(Sensor::proposed(SensorKind::common_rain(), "Shed", &c));
    assert!(lacks(&c), "with its jumper in it never acts");
    c.sensors[0].jumper_removed = true;
    assert!(!lacks(&c));
    let (since, until) = (monday(), day(2026, 6, 10));
    let (kind, reason, by) = (TemporaryKind::Bypass { sensor: id }, "seed".into(), "O. Marrick".into());
    c.add_temporary(Temporary { id: 0, kind, since, until, reason, by, left_standing: false });
    assert!(lacks(&c), "bypassed it is not at work");
}
