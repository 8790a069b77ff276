//! Every finding and every repair in words, on a panel that shows times by its own clock face.

use chrono::{NaiveDate, NaiveDateTime, TimeDelta, Weekday};
use upland_core::controller::{DayMode, Days, ProgramLetter, Schedule, StartTime};
use upland_core::landscape::CycleSoak;
use upland_core::quantity::{MonthOfYear, Percent, RunTime};
use upland_core::schedule::{Finding, Problem, Repair, Severity, Stake, check};

use super::each;
use super::fixture::{Half, context};
use crate::pages::findings::{counts, finding_views, repair_words, words_of_findings};

const A: ProgramLetter = ProgramLetter::ALL[0];
const B: ProgramLetter = ProgramLetter::ALL[1];

fn start(text: &str) -> StartTime {
    StartTime::read(text).unwrap()
}

fn minutes(minutes: u32) -> RunTime {
    RunTime::from_seconds(minutes * 60)
}

/// What is wrong, at which station, and what is at stake.
type Case = (Problem, Option<u8>, Stake);

/// Where a problem stands in [`every_problem`]. A new one does not compile before it has its place here, and
/// [`no_problem_is_missed`] fails until it is in the list.
const fn place(problem: &Problem) -> usize {
    match problem {
        Problem::SecondStart { .. } => 0,
        Problem::TwoWaysOfSoak => 1,
        Problem::InTwoPrograms { .. } => 2,
        Problem::NotScheduled => 3,
        Problem::GhostProgram => 4,
        Problem::NoMinutes => 5,
        Problem::RunsOff { .. } => 6,
        Problem::TooFewStarts { .. } => 7,
        Problem::TooManyOpenings { .. } => 8,
        Problem::DaysAndMinutes { .. } => 9,
        Problem::RainCountedTwice => 10,
        Problem::PercentHeld { .. } => 11,
        Problem::RunHeld { .. } => 12,
        Problem::DeeperThanSoil { .. } => 13,
        Problem::DeeperThanReady { .. } => 14,
        Problem::FightsSensor => 15,
        Problem::ForbiddenWeekdays { .. } => 16,
        Problem::ForbiddenDate { .. } => 17,
        Problem::ForbiddenHour { .. } => 18,
        Problem::OutsideWindow { .. } => 19,
        Problem::SensorRequired => 20,
        Problem::LateAtHighest { .. } => 21,
        Problem::NotDone { .. } => 22,
        Problem::Waits { .. } => 23,
        Problem::OddNeighbours => 24,
        Problem::NeighbouringDays { .. } => 25,
    }
}

/// The number of problems that [`place`] knows.
const PROBLEMS: usize = 26;

fn every_problem(today: NaiveDate) -> Vec<Case> {
    let at = |hour, minute| today.and_hms_opt(hour, minute, 0).unwrap();
    let month = Some(MonthOfYear::of(today));
    let midnight = NaiveDateTime::from(today + TimeDelta::days(1));
    let volume = Stake::VolumeM3(1.34);
    let none = Stake::None;
    vec![
        (Problem::SecondStart { start: start("22:00") }, None, volume),
        (Problem::TwoWaysOfSoak, None, none),
        (Problem::InTwoPrograms { second: B }, Some(1), volume),
        (Problem::NotScheduled, None, Stake::VolumeM3(-4.6)),
        (Problem::GhostProgram, None, none),
        (Problem::NoMinutes, Some(4), none),
        (Problem::RunsOff { run: minutes(31), longest: 13.6, setting: None }, Some(2), Stake::DepthMm(8.2)),
        (Problem::TooFewStarts { there: 1, needed: 3 }, None, volume),
        (Problem::TooManyOpenings { date: today }, None, none),
        (Problem::DaysAndMinutes { scheduled: 3.5, meant: 3.0 }, None, Stake::DepthMm(-5.4)),
        (Problem::DaysAndMinutes { scheduled: 1.0, meant: 2.0 }, None, Stake::DepthMm(5.4)),
        (Problem::RainCountedTwice, None, none),
        (
            Problem::PercentHeld { month: MonthOfYear::of(today), wanted: 214.0, highest: Percent::new(200).unwrap() },
            None,
            Stake::DepthMm(-3.0),
        ),
        (Problem::RunHeld { wanted_minutes: 131.0, longest: minutes(99) }, Some(1), Stake::DepthMm(-6.5)),
        (Problem::DeeperThanSoil { net_mm: 61.0, taw_mm: 42.0 }, Some(1), Stake::DepthMm(19.0)),
        (Problem::DeeperThanReady { net_mm: 25.4, raw_mm: 21.0 }, Some(1), none),
        (Problem::FightsSensor, None, none),
        (Problem::ForbiddenWeekdays { days: Days::from_bits(0b100_0001) }, None, Stake::Rule),
        (Problem::ForbiddenDate { date: today }, None, Stake::Rule),
        (Problem::ForbiddenHour { from: at(10, 0), ends: at(11, 36) }, None, Stake::Rule),
        // At midnight it is the new day that is closed, not the hour.
        (Problem::ForbiddenHour { from: midnight, ends: midnight + TimeDelta::minutes(52) }, None, Stake::Rule),
        (Problem::OutsideWindow { from: at(6, 0), ends: at(6, 45), month: None }, None, none),
        (Problem::OutsideWindow { from: at(6, 0), ends: at(6, 45), month }, None, none),
        (Problem::SensorRequired, None, Stake::Rule),
        (
            Problem::LateAtHighest { from: at(10, 0), ends: at(10, 20), ends_now: Some(at(8, 5)), month },
            None,
            Stake::Rule,
        ),
        (Problem::LateAtHighest { from: at(10, 0), ends: at(10, 20), ends_now: None, month }, None, Stake::Rule),
        (Problem::NotDone { by: start("08:00"), ends: at(9, 12), month: None }, None, none),
        (Problem::NotDone { by: start("08:00"), ends: at(9, 12), month }, None, none),
        (Problem::Waits { other: B, minutes: 47, planned: start("04:30"), begins: at(5, 17) }, None, none),
        (Problem::OddNeighbours, None, none),
        (Problem::NeighbouringDays { first: Weekday::Sun, second: Weekday::Mon }, None, none),
    ]
}

fn every_repair(today: NaiveDate) -> Vec<Repair> {
    let schedule = Schedule { starts: vec![start("05:00")], ..Schedule::default() };
    vec![
        Repair::RemoveStart(A, start("22:00")),
        Repair::MoveStart { letter: A, from: start("04:30"), to: start("03:10") },
        // Days that only fall away are named; otherwise all that are left.
        Repair::SetDays(A, DayMode::Weekdays(Days::from_bits(0b000_0101))),
        Repair::SetDays(A, DayMode::Weekdays(Days::from_bits(0b010_0101))),
        Repair::SetDays(A, DayMode::Odd),
        Repair::SetDays(A, DayMode::Even),
        Repair::SetDays(A, DayMode::Every { days: 3, next: today }),
        Repair::NeverOn(A, Days::from_bits(0b100_0000)),
        Repair::SetCycle(2, CycleSoak { cycle: minutes(7), soak: minutes(40) }),
        Repair::Divide(A, ["03:00", "04:00", "05:00"].map(start).to_vec()),
        Repair::WholeStart(A, start("04:30")),
        Repair::ClearSchedule(B),
        Repair::TakeProposal(B, schedule),
        Repair::WorkOutMinutes(4, minutes(38)),
        Repair::LeaveProgram(1, B),
        Repair::MinutesFor(A, 3),
        Repair::WaterMoreOften(A, Days::from_bits(0b101_0101)),
        Repair::LeaveRainToSensor(A),
        Repair::FreePercent(A),
    ]
}

fn findings(today: NaiveDate) -> Vec<Finding> {
    let finding = |(problem, station, stake): Case| {
        let severity = match stake {
            Stake::Rule => Severity::Rule,
            Stake::None => Severity::Note,
            Stake::VolumeM3(_) | Stake::DepthMm(_) => Severity::Fault,
        };
        Finding { problem, severity, letter: Some(A), station, stake, marks: Vec::new(), repair: None }
    };
    every_problem(today).into_iter().map(finding).collect()
}

#[test]
fn no_problem_is_missed() {
    let mut places: Vec<usize> = findings(Half::North.today()).iter().map(|f| place(&f.problem)).collect();
    places.dedup();
    assert_eq!(places, (0..PROBLEMS).collect::<Vec<_>>());
}

#[test]
fn every_finding() {
    each("findings_every", |half, units| {
        let context = context(half);
        let all = findings(half.today());
        let views = finding_views(context.controller(), &all, "Water office", units);
        let text = views.iter().map(|f| {
            format!("{} [{}] {}\n  {}\n  {}: {}\n  {}\n", f.key, f.kind, f.title, f.fact, f.stake_label, f.stake, f.why)
        });
        format!("{}\n\n{}", counts(&all), text.collect::<Vec<_>>().join("\n"))
    });
}

#[test]
fn every_repair_on_its_button() {
    each("repairs_every", |half, _| {
        let context = context(half);
        let words =
            every_repair(half.today()).iter().map(|r| repair_words(context.controller(), r)).collect::<Vec<_>>();
        words.join("\n")
    });
}

#[test]
fn findings_for_files() {
    let context = context(Half::North);
    let found = check(&context.week_of(Half::North.today()), context.controller());
    insta::assert_snapshot!("findings", format!("{:#?}", words_of_findings(context.controller(), &found, "")));
}
