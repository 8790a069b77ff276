//! What holds for any schedule.

use proptest::prelude::*;
use upland_core::controller::*;
use upland_core::landscape::{Plant, Slope, Soil, SprinklerType};
use upland_core::place::{Allowed, Bound};
use upland_core::quantity::RunTime;
use upland_core::schedule::*;

use crate::builders::*;

fn schedule(step: u16) -> impl Strategy<Value = Schedule> {
    let days = prop_oneof![
        4 => any::<u8>().prop_map(|b| DayMode::Weekdays(Days::from_bits(b))),
        1 => Just(DayMode::Odd),
        1 => Just(DayMode::Even),
        1 => (1u8..=7).prop_map(|days| DayMode::Every { days, next: monday() }),
    ];
    let starts = prop::collection::btree_set(0u16..(1440 / step), 0..=3);
    (days, starts, any::<bool>()).prop_map(move |(days, starts, split)| {
        let starts: Vec<StartTime> = starts.into_iter().map(|s| StartTime::new(s * step).unwrap()).collect();
        let split = if split && starts.len() > 1 { 2 } else { 1 };
        Schedule { days, never: Days::NONE, starts, split }
    })
}

fn a_station() -> impl Strategy<Value = (u8, u32, usize, usize, usize, bool)> {
    (0u8..3, 0u32..90, 0usize..3, 0usize..4, 0usize..4, any::<bool>())
}

fn any_controller() -> impl Strategy<Value = Controller> {
    let capability = prop::sample::select(&Preset::ALL[..]).prop_map(|p| p.capability());
    // Six stations, on the smallest panel too.
    let capability = capability.prop_map(|c| Capability { stations: c.stations.max(6), ..c });
    (
        capability,
        prop::collection::vec(a_station(), 1..7),
        [schedule(15), schedule(15), schedule(15)],
        1u16..=20,
        any::<bool>(),
    )
        .prop_map(|(capability, stations, schedules, tenth, cycles)| {
            let mut c = Controller::new("Cabinet".into(), capability);
            for (number, (program, minutes, soil, slope, kind, roofed)) in (1u8..).zip(stations) {
                let mut s =
                    Station::plain(number, &format!("Station {number}"), Plant::CoolTurf, SprinklerType::ALL[kind]);
                s.program = ProgramLetter::ALL[usize::from(program)];
                s.minutes = (minutes % 7 != 0).then(|| min(minutes));
                s.soil = Soil::ALL[soil];
                s.slope = Slope::ALL[slope];
                s.roofed = roofed;
                s.cycle = s.runoff().setting(&c.capability).filter(|_| cycles && c.capability.cycle_soak);
                c.stations.push(s);
            }
            c.normalise_programs();
            for (program, schedule) in c.programs.iter_mut().zip(schedules) {
                program.schedule = schedule;
                if capability.day_modes.every_max == 0 && matches!(program.schedule.days, DayMode::Every { .. }) {
                    program.schedule.days = DayMode::Even;
                }
                if !capability.day_modes.odd_even && matches!(program.schedule.days, DayMode::Odd | DayMode::Even) {
                    program.schedule.days = DayMode::Weekdays(Days::ALL);
                }
                program.months[5].dial = MonthDial::Set(capability.dial(f64::from(tenth * 10)));
            }
            c
        })
}

fn any_rules() -> impl Strategy<Value = Bound> {
    let done_by = prop::option::of((10u16..=24).prop_map(|halves| StartTime::new(30 * halves).unwrap()));
    (1u8..=127, prop::option::of((0u16..20, 1u16..10)), any::<bool>(), done_by).prop_map(
        |(days, hours, both, done_by)| {
            let mut closed: Vec<(u16, u16)> =
                hours.map(|(from, long)| (from * 60, ((from + long) * 60).min(1440))).into_iter().collect();
            if both {
                closed.push((600, 1080));
            }
            if (Allowed { hours: closed.clone(), ..Allowed::default() }).free_minutes().is_empty() {
                closed.clear();
            }
            let usual = Allowed { days: Days::from_bits(days), hours: closed, ..Allowed::default() };
            Bound { done_by, ..Bound::all_year(usual) }
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 96, ..ProptestConfig::default() })]

    #[test]
    fn runs_never_overlap_and_minutes_add_up(c in any_controller()) {
        c.check().unwrap();
        let plan = Plan::of(&c, None);
        let week = expand(&c, &plan, &ZONE, [monday(), day(2026, 6, 14)], Level::Calendar);
        for pair in week.runs.windows(2) {
            prop_assert!(pair[0].stop() <= pair[1].start(), "{pair:?}");
        }
        for start in &week.starts {
            let percent = plan.percent_on(&c, start.letter, start.date, Level::Calendar).unwrap();
            for station in plan.of_program(start.letter) {
                let ran: u32 = week.runs.iter()
                    .filter(|r| r.station == station.number && r.letter == start.letter && r.date == start.date && r.by == start.by)
                    .map(|r| r.length.seconds())
                    .sum();
                prop_assert_eq!(ran, c.capability.scaled(station.panel, percent).seconds());
            }
        }
        for run in &week.runs {
            prop_assert!(run.length > RunTime::ZERO && run.cycle >= 1 && run.cycle <= run.of_cycles);
        }
    }

    #[test]
    fn a_repair_takes_its_finding_away_and_adds_none(c in any_controller(), rules in any_rules()) {
        let around = Surroundings { rules, normals: Some(normals()) };
        let before = around.check(&c);
        let kinds: Vec<_> = before.iter().map(|f| (f.code(), f.letter, f.station)).collect();
        for finding in &before {
            let Some(repair) = &finding.repair else { continue };
            let after = repair.applied(&c).unwrap();
            after.check().unwrap();
            let left = detect(&around.situation(), &after);
            // Late in the peak month alone is less than late now; water that comes too seldom is less than
            // water that sinks away, or none.
            let known = |f: &Finding| {
                let was = |code| kinds.contains(&(code, f.letter, f.station));
                was(f.code()) || match f.code() {
                    Code::LateAtHighest => was(Code::ForbiddenHour),
                    Code::DeeperThanReady => was(Code::DeeperThanSoil) || was(Code::NoMinutes),
                    _ => false,
                }
            };
            prop_assert!(left.iter().all(known));
            prop_assert!(!left.iter().any(|f| f.code() == finding.code() && f.letter == finding.letter && f.station == finding.station));
            if finding.code() == Code::ForbiddenHour {
                let plan = around.situation().plan(&after);
                let week = around.situation().week(&after, &plan, Level::Calendar);
                for run in week.runs.iter().filter(|r| Some(r.letter) == finding.letter) {
                    prop_assert_eq!(around.rules.first_forbidden(run.date, run.local_start, run.local_stop()), None);
                }
            }
        }
    }

    #[test]
    fn a_proposal_never_exceeds_the_capability_or_the_rules(c in any_controller(), rules in any_rules(), keep in any::<bool>()) {
        let around = Surroundings { rules, normals: Some(normals()) };
        let grouping = if keep { Grouping::Keep } else { Grouping::ByNeed };
        let proposal = propose(&around.situation(), &c, grouping);
        prop_assert_eq!(proposal.controller.check(), Ok(()));
        let found = detect(&around.situation(), &proposal.controller);
        prop_assert!(!found.iter().any(|f| f.code() == Code::ForbiddenDay));
        if !proposal.shortfalls.iter().any(|s| matches!(s, Shortfall::Hours { .. })) {
            prop_assert!(!found.iter().any(|f| f.code() == Code::ForbiddenHour), "{:#?}", found);
        }
    }
}
