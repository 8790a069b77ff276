//! A year of runs, all findings, a proposal, and sensors over 30 years. See docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used)]

use std::hint::black_box;

use chrono::{FixedOffset, NaiveDate, TimeDelta};
use criterion::{Criterion, criterion_group, criterion_main};
use rayon::prelude::*;
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::{
    Controller, DayMode, Days, Preset, ProgramLetter, Schedule, StartTime, Station, Temporary, TemporaryKind,
};
use upland_core::dial_in::changes_ahead;
use upland_core::in_force::in_force;
use upland_core::landscape::{CycleSoak, Plant, Slope, SprinklerType};
use upland_core::place::{Allowed, Bound};
use upland_core::quantity::RunTime;
use upland_core::schedule::{Grouping, Level, Pinned, Situation, candidates, check, detect, expand, propose};
use upland_core::sensor::{RainDay, RainSetting, Sensor, SensorKind, Vent, freeze_replay, rain_replay};

fn normals() -> Normals {
    let et0 = [0.8, 1.3, 2.2, 3.2, 4.3, 5.4, 6.0, 5.2, 3.6, 2.1, 1.1, 0.7];
    std::array::from_fn(|i| MonthNormal { et0_mm_per_day: et0[i], rain_mm: Some(30.0) })
}

fn park() -> Controller {
    let mut c = Controller::new("Park".into(), Preset::Fine.capability());
    c.stations = (1..=24u8)
        .map(|n| Station {
            slope: Slope::ALL[usize::from(n % 4)],
            area_m2: Some(120.0),
            roofed: n % 11 == 0,
            ..Station::plain(
                n,
                &format!("Station {n}"),
                Plant::KINDS[usize::from(n % 8)],
                SprinklerType::ALL[usize::from(n % 4)],
            )
        })
        .collect();
    c
}

fn schedule(criterion: &mut Criterion) {
    let (normals, zone) = (normals(), FixedOffset::east_opt(7200).unwrap());
    let rules = Bound::all_year(Allowed { hours: vec![(600, 1080)], ..Allowed::default() });
    let first = NaiveDate::from_ymd_opt(2026, 6, 8).unwrap();
    let situation = Situation { rules: &rules, normals: Some(&normals), zone: &zone, first };
    let bare = park();
    criterion.bench_function("proposal for 24 stations", |b| {
        b.iter(|| propose(&situation, black_box(&bare), Grouping::ByNeed));
    });
    criterion.bench_function("six proposals side by side", |b| {
        b.iter(|| candidates(&situation, black_box(&bare), Grouping::ByNeed, Pinned::default()));
    });
    let mut c = propose(&situation, &bare, Grouping::ByNeed).controller;
    let plan = situation.plan(&c);
    let year = [first, first + TimeDelta::days(364)];
    criterion.bench_function("a year of runs of 24 stations", |b| {
        b.iter(|| expand(black_box(&c), &plan, &zone, year, Level::Calendar));
    });
    // Something to find: a second start, odd days, a start in the middle of another program.
    let extra = c.programs[0].schedule.starts[0];
    if let Some(p) = c.program_mut(ProgramLetter::ALL[1]) {
        p.schedule.days = DayMode::Odd;
        p.schedule.starts = vec![extra];
    }
    if let Some(p) = c.program_mut(ProgramLetter::A) {
        p.schedule.starts.extend(upland_core::controller::StartTime::new(1320));
    }
    criterion.bench_function("findings on 24 stations", |b| b.iter(|| detect(&situation, black_box(&c))));
    criterion
        .bench_function("findings with their repairs on 24 stations", |b| b.iter(|| check(&situation, black_box(&c))));
}

/// A company of 1,000 controllers of 24 stations, as their proposals set them; one in ten with a start too many, one in
/// ten with a bypass on record.
fn company(criterion: &mut Criterion) {
    let normals = normals();
    let zone = chrono_tz::Europe::Vienna;
    let rules = Bound::all_year(Allowed { hours: vec![(600, 1080)], ..Allowed::default() });
    let first = NaiveDate::from_ymd_opt(2026, 6, 8).unwrap();
    let situation = Situation { rules: &rules, normals: Some(&normals), zone: &zone, first };
    let proposed = propose(&situation, &park(), Grouping::ByNeed).controller;
    let controllers: Vec<Controller> = (0..1000_u16)
        .map(|n| {
            let mut c = proposed.clone();
            for station in &mut c.stations {
                station.minutes = RunTime::from_minutes(f64::from(6 + (u16::from(station.number) + n) % 9)).ok();
            }
            if n % 10 == 0 {
                c.programs[0].schedule.starts.extend(StartTime::new(1320));
            }
            if n % 10 == 5 {
                c.add_sensor(Sensor::proposed(SensorKind::common_rain(), "Shed", &c));
                let kind = TemporaryKind::Bypass { sensor: 1 };
                let (reason, by) = ("overseeding".into(), "Oda".into());
                let until = first + TimeDelta::days(9);
                c.add_temporary(Temporary { id: 0, kind, since: first, until, reason, by, left_standing: false });
            }
            c
        })
        .collect();
    let mut group = criterion.benchmark_group("1,000 controllers of 24 stations");
    group.sample_size(10);
    group.bench_function("their findings", |b| {
        b.iter(|| controllers.iter().map(|c| detect(&situation, c).len()).sum::<usize>());
    });
    // As the application does on the first visit of a morning.
    group.bench_function("their findings, on every core", |b| {
        b.iter(|| controllers.par_iter().map(|c| detect(&situation, c).len()).sum::<usize>());
    });
    let in_force_at = |c: &Controller| in_force(c, &situation.plan(c), None, first).programs.len();
    group.bench_function("what is in force", |b| {
        b.iter(|| controllers.iter().map(in_force_at).sum::<usize>());
    });
    // Of Today's list: what is to be set by hand within a week, which asks for every slot of the panel.
    let week = [first, first + TimeDelta::days(7)];
    let ahead_at = |c: &Controller| changes_ahead(c, &situation.plan(c), week).len();
    group.bench_function("what comes within a week, on every core", |b| {
        b.iter(|| controllers.par_iter().map(ahead_at).sum::<usize>());
    });
    group.bench_function("what is in force, on every core", |b| {
        b.iter(|| controllers.par_iter().map(in_force_at).sum::<usize>());
    });
    group.finish();
}

/// 48 stations in 4 programs of 4 starts, an hour each in cycles of five minutes: as much as any panel is
/// set to.
fn large_panel(criterion: &mut Criterion) {
    let (normals, zone) = (normals(), FixedOffset::east_opt(7200).unwrap());
    let rules = Bound::open();
    let first = NaiveDate::from_ymd_opt(2026, 6, 8).unwrap();
    let situation = Situation { rules: &rules, normals: Some(&normals), zone: &zone, first };
    let mut c = park();
    c.capability.stations = 48;
    c.stations = (1..=48u8)
        .map(|n| Station {
            program: ProgramLetter::ALL[usize::from(n % 4)],
            minutes: Some(RunTime::from_seconds(3600)),
            cycle: Some(CycleSoak { cycle: RunTime::from_seconds(300), soak: RunTime::from_seconds(1800) }),
            ..Station::plain(n, "Bed", Plant::CoolTurf, SprinklerType::Spray)
        })
        .collect();
    c.normalise_programs();
    for (index, program) in (0u16..).zip(&mut c.programs) {
        program.schedule = Schedule {
            days: DayMode::Weekdays(Days::ALL),
            starts: (0..4).filter_map(|n| StartTime::new(n * 360 + index * 60).ok()).collect(),
            ..Schedule::default()
        };
    }
    c.check().unwrap();
    criterion.bench_function("a week of 48 stations, 16 starts, 12 cycles, with all findings", |b| {
        b.iter(|| detect(&situation, black_box(&c)));
    });
}

fn sensors(criterion: &mut Criterion) {
    let first = NaiveDate::from_ymd_opt(1990, 1, 1).unwrap();
    let days: Vec<RainDay> = (0..30 * 365)
        .map(|i| RainDay {
            date: first + TimeDelta::days(i),
            rain_mm: if i % 5 == 0 { (i % 23) as f64 } else { 0.0 },
            et0_mm: 2.0 + (i % 365) as f64 / 100.0,
            water_mm: if i % 3 == 0 { 8.0 } else { 0.0 },
            etl_mm: 3.0,
        })
        .collect();
    let zone = upland_core::balance::RootZone { taw_mm: 45.0, p: 0.4 };
    let setting = RainSetting { vent: Vent::Open, ..RainSetting::USUAL };
    criterion.bench_function("4 thresholds x 8 delays over 30 years", |b| {
        b.iter(|| rain_replay(black_box(&days), &[3.0, 6.0, 13.0, 19.0], &[0, 1, 2, 3, 4, 5, 6, 7], setting, &zone));
    });
    let nights: Vec<_> = days.iter().map(|d| (d.date, d.et0_mm - 2.0, d.et0_mm + 9.0)).collect();
    criterion.bench_function("3 freeze settings over 30 years", |b| {
        b.iter(|| freeze_replay(black_box(&nights), &[1.0, 3.0, 5.0], 4.5, 6.5));
    });
}

criterion_group!(benches, schedule, company, large_panel, sensors);
criterion_main!(benches);
