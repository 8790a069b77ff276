//! Small cases in which every schedule there is can be tried: none is better than the one that is proposed.

use chrono::Weekday::{Mon, Sat, Tue, Wed};
use upland_core::controller::*;
use upland_core::landscape::{Plant, Soil, SprinklerType};
use upland_core::place::{Allowed, Bound};
use upland_core::schedule::*;

use crate::builders::*;

const LETTERS: [ProgramLetter; 2] = [ProgramLetter::ALL[0], ProgramLetter::ALL[1]];

fn panel(step: u16) -> Capability {
    Capability { start_step: step, ..Preset::Monthly.capability() }
}

/// A program for each plant.
fn planted(plants: &[(Plant, SprinklerType, Soil)], capability: Capability) -> Controller {
    let mut c = Controller::new("Cabinet".into(), capability);
    c.stations = (1..)
        .zip(plants)
        .map(|(n, (plant, sprinkler, soil))| Station {
            program: LETTERS[usize::from(n - 1)],
            soil: *soil,
            ..Station::plain(n, "Station", *plant, *sprinkler)
        })
        .collect();
    c.normalise_programs();
    for program in &mut c.programs {
        program.schedule = Schedule::default();
    }
    follow_soil(&Controller { stations: Vec::new(), ..c.clone() }, &mut c);
    c
}

/// Every schedule of weekdays and one start a program.
fn every_schedule(c: &Controller, days: &[Days], starts: &[StartTime]) -> Vec<Controller> {
    let mut all = vec![c.clone()];
    for letter in LETTERS.into_iter().filter(|l| c.program(*l).is_some()) {
        let choices = days.iter().flat_map(|days| starts.iter().map(move |start| (*days, *start)));
        all = choices
            .flat_map(|(days, start)| {
                all.iter().map(move |c| {
                    let mut c = c.clone();
                    set(&mut c, letter, DayMode::Weekdays(days), &[&start.to_string()]);
                    c
                })
            })
            .collect();
    }
    all
}

/// Rules broken, faults, and mm a week off the need.
fn worth(candidate: &Candidate) -> (usize, usize, f64) {
    (candidate.breaks_rules, candidate.broken, candidate.deviation_mm.unwrap())
}

/// What whole minutes and steps of the percent come to in a week, mm: another count of days may round more kindly.
const ROUNDING_MM: f64 = 0.5;

fn none_is_better(rules: Allowed, c: &Controller, days: &[Days], starts: &[StartTime]) {
    let around = Surroundings { rules: Bound::all_year(rules), normals: Some(normals()) };
    let situation = around.situation();
    let best = worth(&candidates(&situation, c, Grouping::Keep, Pinned::default())[0]);
    let cost = |controller| costed(&situation, Wish::default(), Proposal { controller, shortfalls: Vec::new() });
    let all: Vec<_> = every_schedule(c, days, starts).into_iter().map(|c| worth(&cost(c))).collect();
    let least = all.iter().copied().min_by(|a, b| (a.0, a.1).cmp(&(b.0, b.1)).then(a.2.total_cmp(&b.2))).unwrap();
    assert!((best.0, best.1) <= (least.0, least.1), "{best:?} {least:?}");
    assert!(best.2 <= least.2 + ROUNDING_MM, "{best:?} {least:?}");
}

fn hours(step: usize) -> Vec<StartTime> {
    (0..1440).step_by(step).map(|m| StartTime::new(m as u16).unwrap()).collect()
}

#[test]
fn one_program_on_every_set_of_weekdays() {
    let days: Vec<Days> = (1..=127).map(Days::from_bits).collect();
    for (plant, sprinkler, soil) in [
        (Plant::CoolTurf, SprinklerType::Spray, Soil::Loam),
        (Plant::CoolTurf, SprinklerType::Rotor, Soil::Sand),
        (Plant::Shrubs, SprinklerType::Drip, Soil::Clay),
    ] {
        let c = planted(&[(plant, sprinkler, soil)], panel(240));
        none_is_better(Allowed::default(), &c, &days, &hours(240));
        let rules = Allowed { days: Days::of([Mon, Tue, Sat]), hours: vec![(600, 1080)], ..Allowed::default() };
        none_is_better(rules, &c, &days, &hours(240));
    }
}

#[test]
fn two_programs_on_the_days_of_a_rule() {
    let c = planted(
        &[(Plant::CoolTurf, SprinklerType::Spray, Soil::Loam), (Plant::Shrubs, SprinklerType::Drip, Soil::Loam)],
        panel(120),
    );
    let open = [Mon, Wed, Sat];
    let days: Vec<Days> =
        (1..8).map(|bits| Days::of((0..3).filter(|i| bits & (1 << i) != 0).map(|i| open[i]))).collect();
    let rules = Allowed { days: Days::of(open), hours: vec![(600, 1080)], ..Allowed::default() };
    none_is_better(rules, &c, &days, &hours(240));
}
