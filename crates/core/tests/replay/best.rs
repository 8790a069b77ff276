//! The best setting against every setting there is, on cases small enough to try them all.

use chrono::NaiveDate;
use upland_core::budget::Dial;
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::*;
use upland_core::place::Bound;
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::replay::*;
use upland_core::sensor::RainSetting;

use crate::builders::*;

/// June and July of a year of our own: ET0 around 5 mm, showers by a small generator.
fn weather(seed: u32) -> Season {
    let mut seed = seed.wrapping_mul(747_796_405).wrapping_add(2_891_336_453);
    let mut next = || {
        seed = seed.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
        f64::from(seed >> 16) / 65_536.0
    };
    let mut season = season(61, &[]);
    for i in 0..61 {
        season.et0_mm[i] = 3.5 + 3.0 * next();
        season.rain_mm[i] = if next() < 0.15 { 25.0 * next() } else { 0.0 };
    }
    season
}

fn normals() -> Normals {
    [MonthNormal { et0_mm_per_day: 5.0, rain_mm: Some(30.0) }; 12]
}

/// A panel in steps of 50 %, two programs' worth of stations, all days open.
fn panel() -> Controller {
    let mut uneven = station(2, A, 0);
    uneven.minutes = None;
    uneven.sprinkler.uniformity = Some(0.8);
    let mut first = station(1, A, 0);
    first.minutes = None;
    let mut c = controller(vec![first, uneven]);
    c.capability = Capability {
        percent_step: Percent::new(50).unwrap(),
        percent_min: Percent::new(50).unwrap(),
        percent_max: Percent::new(150).unwrap(),
        watering_days: 3,
        ..c.capability
    };
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c
}

const SETTINGS: [RainSetting; 2] =
    [RainSetting { threshold_mm: 6.0, ..RainSetting::USUAL }, RainSetting { delay_days: 1, ..RainSetting::USUAL }];

fn input<'a>(c: &'a Controller, season: &'a Season, normals: &'a Normals, rules: &'a Bound) -> BestInput<'a> {
    BestInput {
        controller: c,
        letters: &[A],
        season,
        normals: Some(normals),
        rules,
        rain: &SETTINGS,
        adequacy: 0.95,
        sunrise_hours: [6.0; 12],
        progress: None,
    }
}

/// Every setting of June's and July's percent, the days and the sensor.
fn exhaustive(search: &Search<'_>) -> Best {
    let dials: Vec<Dial> =
        std::iter::once(Dial::Off).chain([50, 100, 150].map(|p| Dial::Percent(Percent::new(p).unwrap()))).collect();
    let mut best: Option<Best> = None;
    for days in [None, Some(1), Some(2), Some(3)] {
        let settings = SETTINGS.iter().map(|s| RainChange::Set(*s));
        for rain in std::iter::once(RainChange::Keep).chain(settings) {
            for june in &dials {
                for july in &dials {
                    let mut percents = [Dial::Off; 12];
                    (percents[5], percents[6]) = (*june, *july);
                    let asked = search.ask(&WhatIf { percents: Some(percents), days, rain, ..WhatIf::default() });
                    if asked.enough && best.as_ref().is_none_or(|b| asked.applied_mm < b.applied_mm) {
                        best = Some(asked);
                    }
                }
            }
        }
    }
    best.unwrap()
}

#[test]
fn the_search_finds_what_trying_everything_finds() {
    let (c, normals, open) = (panel(), normals(), Bound::open());
    for seed in 1..=12 {
        let season = weather(seed);
        let search = Search::of(input(&c, &season, &normals, &open)).unwrap();
        let (found, all) = (search.best().unwrap(), exhaustive(&search));
        assert!(found.enough && found.adequacy >= 0.95, "{seed}: {found:?}");
        assert!((found.applied_mm - all.applied_mm).abs() < 1e-6, "{seed}: {found:?} against {all:?}");
    }
}

/// A panel that cannot give enough gives the most it can, and says so.
#[test]
fn what_is_not_enough_is_said() {
    let (mut c, normals, open) = (panel(), normals(), Bound::open());
    c.stations[0].minutes = Some(min(5));
    c.stations[1].minutes = Some(min(5));
    let dry = season(61, &[]);
    let found = best_setting(input(&c, &dry, &normals, &open)).unwrap();
    assert!(!found.enough && found.adequacy < 0.95, "{found:?}");
}

#[test]
fn what_is_found_can_be_dialled_and_is_no_more_than_before() {
    let (c, normals, open) = (panel(), normals(), Bound::open());
    let season = weather(5);
    let search = Search::of(input(&c, &season, &normals, &open)).unwrap();
    let best = search.best().unwrap();
    let plan = upland_core::schedule::Plan::of(&c, None);
    assert_eq!(best.setting.applied(&c, &plan, &open, &[A]).check(), Ok(()));
    let before = search.ask(&WhatIf::default());
    assert!(!before.enough || best.applied_mm <= before.applied_mm + 1e-9, "{best:?} against {before:?}");
    let dials = best.setting.percents.unwrap();
    assert!(MonthOfYear::ALL.into_iter().all(|m| match dials[m.index()] {
        Dial::Off => true,
        Dial::Percent(p) => c.capability.can_dial(p),
    }));
    assert_eq!(season.dates[0], NaiveDate::from_ymd_opt(2026, 6, 1).unwrap());
}

/// A search tells how far it is; stopped, it ends at once and finds nothing.
#[test]
fn a_search_can_be_watched_and_stopped() {
    let (c, normals, open) = (panel(), normals(), Bound::open());
    let season = weather(7);
    let progress = Progress::default();
    let asked = BestInput { progress: Some(&progress), ..input(&c, &season, &normals, &open) };
    let found = best_setting(asked);
    assert_eq!(found, best_setting(input(&c, &season, &normals, &open)), "watching changes nothing");
    let all = progress.tried();
    assert!(found.is_some() && all > 50, "{all}");
    let stopped = Progress::default();
    stopped.stop();
    assert_eq!(best_setting(BestInput { progress: Some(&stopped), ..asked }), None);
    assert!(stopped.is_stopped() && stopped.tried() < all * 2);
}
