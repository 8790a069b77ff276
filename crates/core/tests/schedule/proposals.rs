use chrono::Weekday::Sun;
use upland_core::controller::*;
use upland_core::landscape::{Plant, Slope, Soil, SprinklerType};
use upland_core::place::Bound;
use upland_core::schedule::*;

use crate::builders::*;

fn garden(capability: Capability) -> Controller {
    let mut c = Controller::new("Cabinet".into(), capability);
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
    let rules = Bound { days: Days::ALL.without(Sun), hours: vec![(600, 1080)], ban: None };
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
