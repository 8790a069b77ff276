//! Reference ET of a hundred years of days, and the budget from them. See docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used)]

use std::hint::black_box;

use chrono::{DateTime, Datelike, NaiveDate, TimeDelta};
use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use upland_core::budget::{PercentRule, base_minutes_if, monthly_percents, year_budget};
use upland_core::climate::blend::{Preference, WeatherDay, blend};
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::normals::{MonthNormal, NormalDay, monthly_normals};
use upland_core::climate::reference_et::Reference;
use upland_core::controller::{Controller, Preset, ProgramLetter, Station};
use upland_core::landscape::{Plant, SprinklerType};
use upland_core::place::Position;
use upland_core::quantity::Percent;

const DAYS: i64 = 36_525;

/// A hundred years in which every input is measured.
fn days() -> Vec<DailyWeather> {
    let first = NaiveDate::from_ymd_opt(1920, 1, 1).unwrap();
    (0..DAYS)
        .map(|d| {
            let date = first + TimeDelta::days(d);
            let season = (f64::from(date.ordinal()) / 58.0).sin();
            DailyWeather {
                t_max: Some(18.0 + 9.0 * season),
                t_min: Some(7.0 + 6.0 * season),
                rh_max: Some(88.0),
                rh_min: Some(46.0),
                wind: Some(2.4),
                solar: Some(9.0 + 4.0 * season),
                rain: Some(if d % 4 == 0 { 6.0 } else { 0.0 }),
                ..DailyWeather::empty(date)
            }
        })
        .collect()
}

fn lawns(count: u8) -> Controller {
    let lawn = |number| Station {
        program: ProgramLetter::ALL[usize::from(number) % 4],
        ..Station::plain(number, &format!("Lawn {number}"), Plant::CoolTurf, SprinklerType::Rotor)
    };
    let mut controller = Controller::new("Cabinet".into(), Preset::Fine.capability());
    controller.stations = (1..=count).map(lawn).collect();
    controller.normalise_programs();
    controller
}

fn climate(c: &mut Criterion) {
    let days = days();
    let site = Site::new(&Position::new(47.5, 8.0, 400.0).unwrap(), 10.0, Guesses::default()).unwrap();
    let mut group = c.benchmark_group("a hundred years");
    group.throughput(Throughput::Elements(DAYS as u64));
    group.bench_function("daily Penman-Monteith", |b| {
        b.iter(|| days.iter().filter_map(|d| site.et0_mm(black_box(d), Reference::Short)).sum::<f64>());
    });
    group.bench_function("the same with its working", |b| {
        b.iter(|| {
            days.iter()
                .filter_map(|d| site.et0(black_box(d), Reference::Short))
                .map(|e| black_box(e).et0_mm)
                .sum::<f64>()
        });
    });
    let rule = PercentRule {
        step: Percent::new(10).unwrap(),
        min: Percent::new(10).unwrap(),
        max: Percent::new(200).unwrap(),
    };
    group.bench_function("the twelve percents from daily weather", |b| {
        b.iter(|| {
            let normals = monthly_normals(days.iter().map(|d| NormalDay {
                date: d.date,
                et0_mm: site.et0_mm(d, Reference::Short),
                rain_mm: d.rain,
            }));
            monthly_percents(&normals.unwrap(), rule)
        });
    });
    group.finish();
}

/// Ten years of hours in which every input is measured.
fn hours(c: &mut Criterion) {
    let site = Site::new(&Position::new(47.5, 8.0, 400.0).unwrap(), 10.0, Guesses::default()).unwrap();
    let first = DateTime::parse_from_rfc3339("2010-01-01T00:00:00+01:00").unwrap();
    let hours: Vec<HourlyWeather> = (0..87_660)
        .map(|h| {
            let start = first + TimeDelta::hours(h);
            let wave = (h as f64 / 24.0 * std::f64::consts::TAU).sin();
            HourlyWeather {
                t: Some(14.0 + 6.0 * wave),
                rh: Some(65.0 - 25.0 * wave),
                wind: Some(2.4),
                solar: Some(0.7 * site.clear_sky_hour(start.to_utc())),
                ..HourlyWeather::empty(start)
            }
        })
        .collect();
    let mut group = c.benchmark_group("ten years of hours");
    group.throughput(Throughput::Elements(hours.len() as u64));
    group.bench_function("hourly Penman-Monteith", |b| {
        b.iter(|| site.hourly_et0(black_box(&hours), Reference::Short));
    });
    group.finish();
}

/// A hundred years of an airfield with a day a week missing, a gauge that began half-way, and an archive.
fn stations(c: &mut Criterion) {
    let day = |d: &DailyWeather| WeatherDay {
        date: d.date,
        et0_mm: Some(3.0),
        rain_mm: d.rain,
        tmin_c: d.t_min,
        tmax_c: d.t_max,
    };
    let archive: Vec<WeatherDay> = days().iter().map(day).collect();
    let airfield: Vec<WeatherDay> = archive.iter().copied().filter(|d| d.date.ordinal() % 7 != 0).collect();
    let gauge: Vec<WeatherDay> = archive[archive.len() / 2..]
        .iter()
        .map(|d| WeatherDay { et0_mm: None, tmin_c: None, tmax_c: None, ..*d })
        .collect();
    let order = Preference { et0: vec![0, 2], rain: vec![1, 0, 2] };
    c.bench_function("three stations of a hundred years blended", |b| {
        b.iter(|| blend(black_box(&[&airfield, &gauge, &archive]), &order));
    });
}

fn budget(c: &mut Criterion) {
    let normals = [1.0, 1.2, 1.8, 2.6, 3.6, 4.5, 5.0, 4.4, 3.1, 1.9, 1.1, 0.9]
        .map(|et0_mm_per_day| MonthNormal { et0_mm_per_day, rain_mm: Some(55.0) });
    let controller = lawns(24);
    c.bench_function("a controller's year, 24 stations", |b| b.iter(|| year_budget(black_box(&controller), &normals)));
    // What a change in the worksheet asks for: every station's figures, and the guesses of the one that is open.
    let sheet = lawns(48);
    c.bench_function("a worksheet of 48 stations, one of them open", |b| {
        b.iter(|| (year_budget(black_box(&sheet), &normals), base_minutes_if(&sheet, &normals, 1)))
    });
}

criterion_group!(benches, climate, hours, stations, budget);
criterion_main!(benches);
