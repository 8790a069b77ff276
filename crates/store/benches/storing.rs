//! Storing a hundred years of days in one batch. Takes `UPLAND_TEST_SERVER`; see docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used, clippy::expect_used)]

use std::time::{Duration, Instant};

use chrono::{NaiveDate, TimeDelta, Utc};
use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::normals::MonthNormal;
use upland_core::place::Position;
use upland_store::{
    Action, DayHours, HoursOnRecord, NewRevision, NormalsVariant, Record, Role, SeriesRecord, Store, Write, testing,
};
use uuid::Uuid;

const DAYS: i64 = 36_525;
const HOUR_DAYS: i64 = 10_957;

fn revision(days: i64) -> NewRevision {
    let first = NaiveDate::from_ymd_opt(1920, 1, 1).unwrap();
    let days: Vec<DailyWeather> = (0..days)
        .map(|d| DailyWeather {
            t_max: Some(19.0),
            t_min: Some(8.0),
            rain: Some(1.0),
            ..DailyWeather::empty(first + TimeDelta::days(d))
        })
        .collect();
    NewRevision {
        hours: HoursOnRecord::new(),
        decisions: Vec::new(),
        id: Uuid::new_v4(),
        source: "bench".into(),
        input_hash: vec![0],
        method_version: 1,
        method: "hargreaves-samani".into(),
        et0: days.iter().map(|d| (d.date, 3.0, "hargreaves-samani".into())).collect(),
        days,
        normals: vec![NormalsVariant {
            variant: String::new(),
            normals: [MonthNormal { et0_mm_per_day: 3.0, rain_mm: None }; 12],
            temperatures: None,
        }],
    }
}

/// The same days with 24 hours each.
fn with_hours(revision: NewRevision) -> NewRevision {
    let day = |day: &DailyWeather| {
        let midnight = day.date.and_time(chrono::NaiveTime::MIN).and_utc().fixed_offset();
        let hour = |hour: i64| HourlyWeather {
            t: Some(8.0 + hour as f64 / 3.0),
            rh: Some(60.0),
            wind: Some(1.5),
            solar: Some(0.7),
            rain: Some(0.0),
            ..HourlyWeather::empty(midnight + TimeDelta::hours(hour))
        };
        (day.date, DayHours { brought_by: None, hours: (0..24).map(hour).collect() })
    };
    let hours: HoursOnRecord = revision.days.iter().map(day).collect();
    NewRevision { hours, ..revision }
}

fn storing(c: &mut Criterion) {
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build().unwrap();
    let (store, account, user) = runtime.block_on(async {
        let store = Store::new(&testing::fresh_database().await.expect("UPLAND_TEST_SERVER"), 2).unwrap();
        let account = store.account_named("Bench").await.unwrap();
        let user = store.account(account).add_user("bench@example.com", "Bench", "hash", Role::Lead).await.unwrap();
        (store, account, user)
    });
    let store_one = |revision: NewRevision| {
        let position = Position::new(47.5, 8.0, 400.0).unwrap();
        let record = SeriesRecord { name: "Bench".into(), position, wind_height_m: 2.0, revision_id: revision.id };
        let write = Write::new(Uuid::new_v4(), Record::Series(Some(record), Some(Box::new(revision))));
        let action = Action {
            id: Uuid::new_v4(),
            user_id: user,
            user_name: "Bench".into(),
            at: Utc::now(),
            why: "bench".into(),
            digest: Vec::new(),
            leads_to: String::new(),
            undoes: None,
            writes: vec![write],
            records: Vec::new(),
        };
        let started = Instant::now();
        runtime.block_on(store.account(account).apply(&action)).unwrap();
        started.elapsed()
    };
    let mut group = c.benchmark_group("stored in one batch");
    group.sample_size(10);
    group.throughput(Throughput::Elements(DAYS as u64)).bench_function("a hundred years of days", |b| {
        b.iter_custom(|rounds| (0..rounds).map(|_| store_one(revision(DAYS))).sum::<Duration>());
    });
    group.throughput(Throughput::Elements(HOUR_DAYS as u64)).bench_function("thirty years with their hours", |b| {
        b.iter_custom(|rounds| (0..rounds).map(|_| store_one(with_hours(revision(HOUR_DAYS)))).sum::<Duration>());
    });
    group.finish();
}

criterion_group!(benches, storing);
criterion_main!(benches);
