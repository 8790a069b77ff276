//! Reading and checking a hundred years of daily weather, joining thirty of hours. See docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used)]

use std::fmt::Write;
use std::hint::black_box;

use chrono::{NaiveDate, TimeDelta};
use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use upland_formats::weather::{Mapping, Table, read, to_days};

const DAYS: i64 = 36_525;

fn file() -> String {
    let first = NaiveDate::from_ymd_opt(1920, 1, 1).unwrap();
    let mut text = String::from("date,tmax_c,tmin_c,rhmax_pct,rhmin_pct,wind_ms,solar_mj_m2,rain_mm\n");
    for d in 0..DAYS {
        let date = first + TimeDelta::days(d);
        writeln!(text, "{date},{}.4,{}.1,88,46,2.4,14.25,{}", 10 + d % 17, d % 9, d % 5).unwrap();
    }
    text
}

fn weather_csv(c: &mut Criterion) {
    let text = file();
    let mut group = c.benchmark_group("a hundred years of daily CSV");
    group.throughput(Throughput::Elements(DAYS as u64));
    group.bench_function("split, read and checked", |b| {
        b.iter(|| {
            let table = Table::parse(black_box(text.as_bytes())).unwrap();
            let mapping = Mapping::by_name(table.headers(), &[]).unwrap();
            read(&table, &mapping, None).rows.len()
        });
    });
    group.finish();
}

/// Thirty years of a logger's hours.
fn hours(c: &mut Criterion) {
    const HOURS: i64 = 262_980;
    let first = NaiveDate::from_ymd_opt(1990, 1, 1).unwrap().and_hms_opt(0, 0, 0).unwrap();
    let mut text = String::from("Timestamp,Air temp (°C),RH (%),Wind (m/s),Solar (W/m²),Rain (mm)\n");
    for h in 0..HOURS {
        let at = first + TimeDelta::hours(h);
        writeln!(text, "{at},{}.4,{},2.4,{},0.{}", 10 + h % 17, 40 + h % 50, 20 * (h % 24), h % 3).unwrap();
    }
    let mut group = c.benchmark_group("thirty years of hourly CSV");
    group.sample_size(10);
    group.throughput(Throughput::Elements(HOURS as u64));
    group.bench_function("joined to days", |b| {
        b.iter(|| to_days(black_box(text.as_bytes()), chrono_tz::UTC).unwrap().into_bytes().len())
    });
    group.finish();
}

criterion_group!(benches, weather_csv, hours);
criterion_main!(benches);
