//! Storing a hundred years of days in one batch. Takes `UPLAND_TEST_SERVER`; see docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used, clippy::expect_used)]

use std::time::{Duration, Instant};

use chrono::{NaiveDate, TimeDelta, Utc};
use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::normals::MonthNormal;
use upland_core::place::Position;
use upland_store::{
    Action, HoursOnRecord, NewRevision, NormalsVariant, Record, Role, SeriesRecord, Store, Write, testing,
};
use uuid::Uuid;

const DAYS: i64 = 36_525;

fn revision() -> NewRevision {
    let first = NaiveDate::from_ymd_opt(1920, 1, 1).unwrap();
    let days: Vec<DailyWeather> = (0..DAYS)
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

fn storing(c: &mut Criterion) {
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build().unwrap();
    let (store, account, user) = runtime.block_on(async {
        let store = Store::new(&testing::fresh_database().await.expect("UPLAND_TEST_SERVER"), 2).unwrap();
        let account = store.account_named("Bench").await.unwrap();
        let user = store.account(account).add_user("bench@example.com", "Bench", "hash", Role::Lead).await.unwrap();
        (store, account, user)
    });
    let mut group = c.benchmark_group("a hundred years of days");
    group.sample_size(10).throughput(Throughput::Elements(DAYS as u64));
    group.bench_function("stored in one batch", |b| {
        b.iter_custom(|rounds| {
            let mut spent = Duration::ZERO;
            for _ in 0..rounds {
                let revision = revision();
                let position = Position::new(47.5, 8.0, 400.0).unwrap();
                let record =
                    SeriesRecord { name: "Bench".into(), position, wind_height_m: 2.0, revision_id: revision.id };
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
                spent += started.elapsed();
            }
            spent
        });
    });
    group.finish();
}

criterion_group!(benches, storing);
criterion_main!(benches);
