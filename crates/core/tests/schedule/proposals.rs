use chrono::Weekday::{Mon, Sun, Thu};
use upland_core::controller::*;
use upland_core::landscape::{Plant, Slope, Soil, SprinklerType};
use upland_core::place::{Allowed, Bound};
use upland_core::schedule::*;

use crate::builders::*;

fn garden(capability: Capability) -> Controller {
    // Five stations, on the smallest panel too.
    let stations = capability.stations.max(5);
    let mut c = Controller::new("Cabinet".into(), Capability { stations, ..capability });
    let turf = |n, name: &str| Station::plain(n, name, Plant::CoolTurf, SprinklerType::Spray);
    c.stations = vec![
        turf(1, "Reading lawn"),
        Station { slope: Slope::Moderate, ..turf(2, "Steps bank") },
        Station::plain(3, "Rose parterre", Plant::Shrubs, SprinklerType::Drip),
        Station::plain(4, "Orchard walk", Plant::Trees, SprinklerType::Drip),
        Station { roofed: true, soil: Soil::Clay, ..turf(5, "Bocce court") },
    ];
    c
}

fn around() -> Surroundings {
    let rules =
        Bound::all_year(Allowed { days: Days::ALL.without(Sun), hours: vec![(600, 1080)], ..Allowed::default() });
    Surroundings { rules, normals: Some(normals()) }
}

#[test]
fn stations_are_grouped_by_need_and_a_roof_keeps_its_own_program() {
    for preset in Preset::ALL {
        let around = around();
        let proposal = propose(&around.situation(), &garden(preset.capability()), Grouping::ByNeed);
        let c = &proposal.controller;
        c.check().unwrap();
        let programs: Vec<char> = c.stations.iter().map(|s| s.program.get()).collect();
        let roofed = programs[4];
        assert!(programs[..4].iter().all(|p| *p != roofed), "{preset:?} {programs:?}");
        assert_eq!(programs[0], programs[1]);
        assert_ne!(programs[0], programs[2]);
    }
}

#[test]
fn a_proposal_keeps_the_rules_and_has_nothing_to_mend() {
    for preset in Preset::ALL {
        let around = around();
        let proposal = propose(&around.situation(), &garden(preset.capability()), Grouping::ByNeed);
        let found = around.check(&proposal.controller);
        assert!(found.iter().all(|f| f.severity == Severity::Note), "{preset:?}: {found:#?}");
        let hours = proposal.shortfalls.iter().filter(|s| matches!(s, Shortfall::Hours { .. })).count();
        assert_eq!(hours, 0, "{preset:?} {:?}", proposal.shortfalls);
    }
}

#[test]
fn what_cannot_be_fitted_is_said() {
    let mut c = garden(Preset::Plain.capability());
    for station in &mut c.stations {
        station.minutes = Some(min(200));
    }
    let around = around();
    let proposal = propose(&around.situation(), &c, Grouping::Keep);
    assert!(matches!(proposal.shortfalls[..], [.., Shortfall::Hours { needed, free }] if needed > free));
    proposal.controller.check().unwrap();
}

/// Closed from 10:00 to 18:00, what takes eleven hours fits into the sixteen of the night, and what begins after
/// midnight begins on the day after.
#[test]
fn what_takes_longer_than_a_morning_goes_through_the_night() {
    let around = Surroundings {
        rules: Bound::all_year(Allowed { hours: vec![(600, 1080)], ..Allowed::default() }),
        normals: None,
    };
    let stations = (1..=4).map(|n| station(n, ProgramLetter::ALL[usize::from(n > 2)], 165)).collect();
    let mut c = controller(stations);
    for program in &mut c.programs {
        program.waterings_per_week = Some(2);
    }
    let proposal = propose(&around.situation(), &c, Grouping::Keep);
    assert_eq!(proposal.shortfalls, []);
    let found = detect(&around.situation(), &proposal.controller);
    assert!(!found.iter().any(|f| matches!(f.code(), Code::ForbiddenHour | Code::ForbiddenDay)), "{found:#?}");
    // A day without its neighbour open: nothing may run past midnight.
    let rules =
        Bound::all_year(Allowed { days: Days::ALL.without(Sun), hours: vec![(600, 1080)], ..Allowed::default() });
    let closed = Surroundings { rules, normals: None };
    let tight = propose(&closed.situation(), &c, Grouping::Keep);
    let found = detect(&closed.situation(), &tight.controller);
    let hours = tight.shortfalls.iter().any(|s| matches!(s, Shortfall::Hours { .. }));
    assert!(hours || !found.iter().any(|f| f.code() == Code::ForbiddenHour));
}

#[test]
fn dates_by_the_house_number_are_proposed_where_the_panel_has_them() {
    for (odd, mode) in [(true, DayMode::Odd), (false, DayMode::Even)] {
        let dates = Some(upland_core::place::DateRule { odd, with_31st: true });
        let around =
            Surroundings { rules: Bound::all_year(Allowed { dates, ..Allowed::default() }), normals: Some(normals()) };
        let c = controller(vec![station(1, ProgramLetter::A, 20)]);
        let proposal = propose(&around.situation(), &c, Grouping::Keep);
        assert_eq!(proposal.controller.programs[0].schedule.days, mode);
        let found = detect(&around.situation(), &proposal.controller);
        assert!(!found.iter().any(|f| f.code() == Code::ForbiddenDay), "{found:#?}");
        // Weekdays break such a rule, and one press mends it.
        let mut weekdays = c;
        set(&mut weekdays, ProgramLetter::A, DayMode::Weekdays(Days::of([Mon, Thu])), &["04:00"]);
        let finding = around.check(&weekdays).into_iter().find(|f| f.code() == Code::ForbiddenDay).unwrap();
        let mended = finding.repair.unwrap().applied(&weekdays).unwrap();
        assert_eq!(mended.programs[0].schedule.days, mode);
    }
}

/// Spray on loam: 36 minutes would run off, so a new station has its cycles before anything is proposed.
#[test]
fn cycles_follow_the_soil_until_somebody_sets_them() {
    let before = controller(Vec::new());
    let mut c = before.clone();
    c.stations =
        vec![Station { slope: Slope::Gentle, ..Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray) }];
    follow_soil(&before, &mut c);
    let loam = c.stations[0].cycle.unwrap();
    assert_eq!(Some(loam), c.stations[0].runoff().setting(&c.capability));
    // Another soil, another limit.
    let mut clay = c.clone();
    clay.stations[0].soil = Soil::Clay;
    follow_soil(&c, &mut clay);
    assert!(clay.stations[0].cycle.unwrap().cycle < loam.cycle);
    // What somebody set stays, whatever the soil becomes.
    let mut own = c.clone();
    own.stations[0].cycle = None;
    let mut changed = own.clone();
    changed.stations[0].soil = Soil::Clay;
    follow_soil(&own, &mut changed);
    assert_eq!(changed.stations[0].cycle, None);
    // A panel without cycles has none.
    let mut plain = controller(Vec::new());
    plain.capability.cycle_soak = false;
    let mut stations = plain.clone();
    stations.stations = vec![Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray)];
    follow_soil(&plain, &mut stations);
    assert_eq!(stations.stations[0].cycle, None);
}

#[test]
fn every_way_that_the_panel_has_is_costed_and_the_best_comes_first() {
    for preset in Preset::ALL {
        let around = around();
        let situation = around.situation();
        let garden = garden(preset.capability());
        let found = candidates(&situation, &garden, Grouping::ByNeed, Pinned::default());
        let usual = propose(&situation, &garden, Grouping::ByNeed);
        assert!(found.iter().any(|c| c.proposal == usual), "{preset:?}: the usual one is among them");
        for c in &found {
            c.proposal.controller.check().unwrap();
            assert!(c.deviation_mm.is_some_and(|mm| mm >= 0.0), "{preset:?}");
            assert!((0.0..=7.0).contains(&c.days_a_week));
        }
        let fits = |c: &Candidate| (c.breaks_rules, c.broken, c.proposal.shortfalls.len());
        assert!(found.windows(2).all(|pair| fits(&pair[0]) <= fits(&pair[1])), "{preset:?}");
        assert_eq!(fits(&found[0]), (0, 0, 0), "{preset:?}");
        // No two are the same schedule.
        for (i, a) in found.iter().enumerate() {
            assert!(found[..i].iter().all(|b| b.proposal.controller != a.proposal.controller));
        }
        let odd = found.iter().any(|c| c.wish.days == DayWish::Odd);
        assert!(!odd || preset.capability().day_modes.odd_even, "{preset:?}");
    }
}

/// The rules close Sunday: every so many days comes to it sooner or later, and that is said.
#[test]
fn days_that_break_a_rule_stand_behind_those_that_keep_it() {
    let around = around();
    let found =
        candidates(&around.situation(), &garden(Preset::Monthly.capability()), Grouping::ByNeed, Pinned::default());
    let every = found.iter().find(|c| c.wish.days == DayWish::EveryN).unwrap();
    assert!(every.broken > 0);
    let weekdays = found.iter().position(|c| c.wish == Wish::default()).unwrap();
    let behind = found.iter().position(|c| c.wish == every.wish).unwrap();
    assert!(weekdays < behind);
}

#[test]
fn an_evening_lies_between_five_and_eleven() {
    // Closed from 10:00 to 18:00, it begins at six.
    let around = around();
    let mut garden = garden(Preset::Monthly.capability());
    garden.stations.truncate(3);
    let evening = Wish { time: TimeWish::Evening, ..Wish::default() };
    let proposal = propose_as(&around.situation(), &garden, Grouping::ByNeed, evening);
    assert_eq!(proposal.shortfalls, []);
    let starts = proposal.controller.programs.iter().flat_map(|p| &p.schedule.starts);
    let minutes: Vec<u16> = starts.map(|s| s.minute_of_day()).collect();
    assert!(!minutes.is_empty() && minutes.iter().all(|m| (1080..1380).contains(m)), "{minutes:?}");
    let late = detect(&around.situation(), &proposal.controller);
    assert!(!late.iter().any(|f| f.code() == Code::ForbiddenHour), "{late:#?}");
}

/// Two waterings of 60 min, 14.65 mm/h and 0.7 uniformity give 24.0 mm net: the deviation is what that is off the need.
#[test]
fn the_deviation_is_the_weeks_water_against_the_need() {
    let around = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = around.situation();
    let mut c = controller(vec![station(1, ProgramLetter::A, 60)]);
    c.programs[0].waterings_per_week = Some(2);
    let found = candidates(&situation, &c, Grouping::Keep, Pinned::default());
    let weekdays = found.iter().find(|c| c.wish == Wish::default()).unwrap();
    let own = &weekdays.proposal.controller;
    let plan = situation.plan(own);
    let given = week_work(&plan, &situation.week(own, &plan, Level::Calendar)).stations[0].net_mm;
    let budget = situation.budget(own).unwrap();
    let june = &budget.groups[0].month(upland_core::quantity::MonthOfYear::ALL[5]).stations[0];
    let need = june.demand.demand_mm / 30.0 * 7.0;
    assert!((weekdays.deviation_mm.unwrap() - (given - need).abs()).abs() < 1e-9, "{given} {need}");
}

/// What is pinned keeps its days, starts and stations; the others take the hours that it leaves.
#[test]
fn a_pinned_program_stays_as_it_is_and_the_others_go_round_it() {
    let around = around();
    let situation = around.situation();
    let mut c = garden(Preset::Monthly.capability());
    c.stations.truncate(3);
    for station in &mut c.stations[..2] {
        station.program = ProgramLetter::ALL[1];
    }
    c.normalise_programs();
    set(&mut c, ProgramLetter::ALL[1], DayMode::Weekdays(Days::of([Mon, Thu])), &["06:00"]);
    let wish = Wish { pinned: Pinned::of([ProgramLetter::ALL[1]]), ..Wish::default() };
    for grouping in [Grouping::Keep, Grouping::ByNeed] {
        let proposal = propose_as(&situation, &c, grouping, wish);
        assert_eq!(proposal.shortfalls, []);
        let made = proposal.controller;
        made.check().unwrap();
        assert_eq!(
            made.program(ProgramLetter::ALL[1]).unwrap().schedule,
            c.program(ProgramLetter::ALL[1]).unwrap().schedule
        );
        assert_eq!(made.stations[..2], c.stations[..2]);
        assert!(made.stations[2..].iter().all(|s| s.program != ProgramLetter::ALL[1]));
        let found = detect(&situation, &made);
        let waits: Vec<_> = found.iter().filter(|f| f.code() == Code::Waits).collect();
        assert!(waits.is_empty(), "{waits:#?} {:?}", made.programs.iter().map(|p| &p.schedule).collect::<Vec<_>>());
        let others = made.programs.iter().filter(|p| p.letter != ProgramLetter::ALL[1]);
        assert!(others.clone().count() > 0 && others.clone().all(|p| !p.schedule.is_idle()));
    }
    // With everything pinned there is nothing to propose.
    let all = Wish { pinned: Pinned::of(ProgramLetter::ALL), ..Wish::default() };
    assert_eq!(propose_as(&situation, &c, Grouping::ByNeed, all).controller, c);
}

/// Two programs of four hours and a half each, on the same days: a morning of five hours holds one, the evening the
/// other.
#[test]
fn what_does_not_fit_into_the_morning_goes_into_the_evening() {
    let hours = vec![(0, 300), (600, 1080), (1410, 1440)];
    let days = Days::of([Mon, Thu]);
    let around = Surroundings { rules: Bound::all_year(Allowed { days, hours, ..Allowed::default() }), normals: None };
    let [a, b] = [0, 1].map(|i| ProgramLetter::ALL[i]);
    let mut c = controller(vec![station(1, a, 135), station(2, a, 135), station(3, b, 135), station(4, b, 135)]);
    for program in &mut c.programs {
        program.waterings_per_week = Some(2);
    }
    let situation = around.situation();
    let as_wished = |time| propose_as(&situation, &c, Grouping::Keep, Wish { time, ..Wish::default() });
    assert!(matches!(as_wished(TimeWish::Morning).shortfalls[..], [Shortfall::Hours { .. }]));
    let both = as_wished(TimeWish::Both);
    assert_eq!(both.shortfalls, []);
    assert!(detect(&situation, &both.controller).iter().all(|f| f.severity == Severity::Note));
    let starts: Vec<u16> = both.controller.programs.iter().map(|p| p.schedule.starts[0].minute_of_day()).collect();
    assert_eq!(starts, [1110, 330], "B in the morning, A in the evening");
    assert_eq!(candidates(&situation, &c, Grouping::Keep, Pinned::default())[0].wish.time, TimeWish::Both);
}

/// One day a week where the soil asks for more: another day helps, and nothing is asked for where all fits.
#[test]
fn what_would_help_is_tried_and_ranked() {
    let days = Days::of([Mon]);
    let sandy = || Station { soil: Soil::Sand, ..Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Rotor) };
    let c = controller(vec![sandy(), Station { number: 2, ..sandy() }]);
    let around =
        Surroundings { rules: Bound::all_year(Allowed { days, ..Allowed::default() }), normals: Some(normals()) };
    let situation = around.situation();
    let best = &candidates(&situation, &c, Grouping::Keep, Pinned::default())[0];
    assert!(matches!(best.proposal.shortfalls[..], [Shortfall::Days { allowed: 1, .. }]));
    let found = helps(&situation, &c, best, Grouping::Keep);
    assert!(found.iter().any(|h| matches!(h.help, Help::Day(_))), "{found:#?}");
    // A panel that waters on more days does not help where the rules leave one.
    assert!(!found.iter().any(|h| matches!(h.help, Help::PanelDays(_))), "{found:#?}");
    let open = Surroundings { normals: Some(normals()), ..Surroundings::open() };
    let situation = open.situation();
    let best = &candidates(&situation, &c, Grouping::Keep, Pinned::default())[0];
    assert_eq!(helps(&situation, &c, best, Grouping::Keep), []);
}

/// Ten hours in one program, five hours a day free: in two programs on other days each half fits.
#[test]
fn a_program_that_is_too_long_is_split() {
    let hours = vec![(0, 300), (600, 1440)];
    let around = Surroundings { rules: Bound::all_year(Allowed { hours, ..Allowed::default() }), normals: None };
    let mut c = controller((1..=4).map(|n| station(n, ProgramLetter::A, 70)).collect());
    c.programs[0].waterings_per_week = Some(2);
    let situation = around.situation();
    let fits = &candidates(&situation, &c, Grouping::Keep, Pinned::default())[0];
    assert_eq!(fits.proposal.shortfalls, [], "four times 70 minutes fit");
    for station in &mut c.stations {
        station.minutes = Some(min(140));
    }
    let best = &candidates(&situation, &c, Grouping::Keep, Pinned::default())[0];
    assert!(matches!(best.proposal.shortfalls[..], [Shortfall::Hours { .. }]));
    let found = helps(&situation, &c, best, Grouping::Keep);
    let split = Help::Split { letter: ProgramLetter::A, into: ProgramLetter::ALL[1] };
    assert_eq!((found[0].help, &found[0].candidate.proposal.shortfalls[..]), (split, &[][..]));
    assert!(found.iter().any(|h| matches!(h.help, Help::Hours { from: 600, .. })), "{found:#?}");
}
