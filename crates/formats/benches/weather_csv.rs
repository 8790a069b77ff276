//! Reading and checking a hundred years of daily weather. See docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used)]

use std::fmt::Write;
use std::hint::black_box;

use chrono::{NaiveDate, TimeDelta};
use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use upland_formats::weather::{Mapping, Table, read};

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

criterion_group!(benches, weather_csv);
criterion_main!(benches);
