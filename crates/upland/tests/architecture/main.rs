//! The arrows of ARCHITECTURE.md, from Cargo's own metadata.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod front;
mod modules;

use std::collections::BTreeMap;
use std::process::Command;

use serde_json::Value;

/// What each package may depend on, of ours and of others that would break its promise.
const ARROWS: [(&str, &[&str]); 6] = [
    ("upland-core", &[]),
    ("upland-formats", &["upland-core"]),
    ("upland-store", &["upland-core", "upland-formats"]),
    ("upland-web", &["upland-core", "upland-formats", "upland-store"]),
    ("upland", &["upland-core", "upland-formats", "upland-store", "upland-web"]),
    ("upland-journeys", &["upland-store"]),
];

fn dependencies() -> BTreeMap<String, Vec<(String, Value)>> {
    let out = Command::new(env!("CARGO"))
        .args(["metadata", "--format-version", "1", "--no-deps", "--offline"])
        .current_dir(env!("CARGO_MANIFEST_DIR"))
        .output()
        .unwrap();
    let metadata: Value = serde_json::from_slice(&out.stdout).unwrap();
    let packages = metadata["packages"].as_array().unwrap();
    packages
        .iter()
        .map(|p| {
            let normal = p["dependencies"].as_array().unwrap().iter().filter(|d| d["kind"].is_null());
            let named = normal.map(|d| (d["name"].as_str().unwrap().to_owned(), d.clone())).collect();
            (p["name"].as_str().unwrap().to_owned(), named)
        })
        .collect()
}

#[test]
fn arrows_point_one_way() {
    let found = dependencies();
    assert_eq!(found.len(), ARROWS.len(), "a package without arrows: {:?}", found.keys());
    for (package, allowed) in ARROWS {
        let ours: Vec<&str> =
            found[package].iter().map(|(n, _)| n.as_str()).filter(|n| n.starts_with("upland")).collect();
        assert_eq!(ours, allowed, "{package}");
    }
}

#[test]
fn the_core_depends_on_nothing_that_looks_at_the_world() {
    let core = &dependencies()["upland-core"];
    let (testing, core): (Vec<_>, Vec<_>) = core.iter().partition(|(_, d)| d["optional"] == true);
    assert_eq!(testing.iter().map(|(n, _)| n.as_str()).collect::<Vec<_>>(), ["proptest"], "of the feature testing");
    let names: Vec<&str> = core.iter().map(|(n, _)| n.as_str()).collect();
    // Short texts that can be copied, the calendar without a clock, the zones as data, messages of errors.
    assert_eq!(names, ["arrayvec", "chrono", "chrono-tz", "thiserror"]);
    let chrono = &core[1].1;
    assert_eq!(chrono["uses_default_features"], false);
    assert_eq!(chrono["features"], serde_json::json!(["std"]), "without `clock` nobody can ask for the time");
}

#[test]
fn only_the_store_knows_the_database() {
    for (package, dependencies) in dependencies() {
        let database = dependencies.iter().any(|(n, _)| n.starts_with("diesel"));
        assert_eq!(database, package == "upland-store", "{package}");
    }
}
