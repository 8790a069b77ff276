//! Ten years of 24 stations under six strategies, and how that grows. See docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used)]

use std::hint::black_box;

use chrono::{NaiveDate, TimeDelta};
use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};
use upland_core::climate::normals::MonthNormal;
use upland_core::controller::{Controller, Days, Preset, ProgramLetter, Schedule, StartTime, Station};
use upland_core::landscape::{Plant, Slope, SprinklerType};
use upland_core::place::Bound;
use upland_core::quantity::RunTime;
use upland_core::replay::{
    BestInput, Candidate, Ground, Keep, Kind, REFILL_SHARE, Season, SeasonDay, best_setting, replay,
};
use upland_core::schedule::Plan;
use upland_core::sensor::RainSetting;

/// Weather of our own: a sine of ET through the year, a shower every fifth day.
fn season(years: i64) -> Season {
    let first = NaiveDate::from_ymd_opt(2010, 1, 1).unwrap();
    let days: Vec<SeasonDay> = (0..years * 365)
        .map(|i| {
            let et0 = 3.4 - 2.6 * (i as f64 / 365.25 * std::f64::consts::TAU).cos();
            SeasonDay {
                date: first + TimeDelta::days(i),
                et0_mm: Some(et0),
                rain_mm: Some(if i % 5 == 0 { (i % 23) as f64 } else { 0.0 }),
                air_c: Some((et0 * 2.0 - 3.0, et0 * 4.0 + 4.0)),
            }
        })
        .collect();
    Season::of(&days).unwrap()
}

fn park(stations: u8) -> Controller {
    let mut c = Controller::new("Park".into(), Preset::Fine.capability());
    c.stations = (1..=stations)
        .map(|n| Station {
            slope: Slope::ALL[usize::from(n % 4)],
            minutes: Some(RunTime::from_seconds(1200 + 60 * u32::from(n))),
            ..Station::plain(n, "Bed", Plant::KINDS[usize::from(n % 8)], SprinklerType::ALL[usize::from(n % 4)])
        })
        .collect();
    c.programs[0].schedule = Schedule {
        days: upland_core::controller::DayMode::Weekdays(Days::of([
            chrono::Weekday::Mon,
            chrono::Weekday::Wed,
            chrono::Weekday::Fri,
        ])),
        starts: vec![StartTime::new(180).unwrap()],
        ..Schedule::default()
    };
    c
}

const SIX: [Kind; 6] =
    [Kind::AsFound, Kind::ByMonth, Kind::EtSensor, Kind::RainSensor, Kind::SoilSensor, Kind::Deficit];

fn all(c: &Controller, season: &Season, kinds: &[Kind]) {
    let (plan, ground, open) = (Plan::of(c, None), Ground::of(c), Bound::open());
    let candidate = Candidate {
        controller: c,
        plan: &plan,
        ground: &ground,
        found: None,
        rules: &open,
        peak_et0_mm_per_day: 6.0,
        sunrise_hours: [6.0; 12],
        refill_share: REFILL_SHARE,
    };
    for kind in kinds {
        black_box(replay(&ground, season, &open, candidate.strategy(*kind).as_mut(), Keep::Sums));
    }
}

fn replays(criterion: &mut Criterion) {
    let mut group = criterion.benchmark_group("replay");
    group.sample_size(20);
    let (ten, full) = (season(10), park(24));
    group.bench_function("24 stations, 10 years, 6 strategies", |b| b.iter(|| all(&full, &ten, &SIX)));
    for years in [5, 10, 20] {
        let season = season(years);
        group.bench_with_input(BenchmarkId::new("years", years), &season, |b, s| b.iter(|| all(&full, s, &SIX)));
    }
    for stations in [6, 12, 24] {
        let c = park(stations);
        group.bench_with_input(BenchmarkId::new("stations", stations), &c, |b, c| b.iter(|| all(c, &ten, &SIX)));
    }
    for kinds in [1, 3, 6] {
        group.bench_with_input(BenchmarkId::new("strategies", kinds), &kinds, |b, n| {
            b.iter(|| all(&full, &ten, &SIX[..*n]));
        });
    }
    group.finish();
}

/// The search of the best setting over ten years, with a rain sensor of four thresholds and three delays.
fn best(criterion: &mut Criterion) {
    let mut group = criterion.benchmark_group("best setting");
    group.sample_size(10);
    let (season, open) = (season(10), Bound::open());
    let normals = [MonthNormal { et0_mm_per_day: 4.0, rain_mm: Some(40.0) }; 12];
    let rain: Vec<RainSetting> = [3.0, 6.0, 13.0, 19.0]
        .iter()
        .flat_map(|t| [0, 1, 2].map(|delay_days| RainSetting { threshold_mm: *t, delay_days, ..RainSetting::USUAL }))
        .collect();
    for stations in [6, 24] {
        let c = park(stations);
        let letters = [ProgramLetter::A];
        let input = BestInput {
            controller: &c,
            letters: &letters,
            season: &season,
            normals: Some(&normals),
            rules: &open,
            rain: &rain,
            adequacy: 0.95,
            sunrise_hours: [6.0; 12],
            progress: None,
        };
        group.bench_with_input(BenchmarkId::new("stations over 10 years", stations), &input, |b, input| {
            b.iter(|| best_setting(black_box(*input)));
        });
    }
    group.finish();
}

criterion_group!(benches, replays, best);
criterion_main!(benches);
