//! Frozen documents of every version: what was written once is read for ever, and means the same.

use upland_core::balance::RootZone;
use upland_core::landscape::SprinklerType;
use upland_core::quantity::MonthOfYear;
use upland_formats::site::{FieldDoc, read_site, write_site};

/// Site files of every version, never changed.
const FILES: [&str; 3] = ["library-terraces", "hill-cemetery", "glasshouse"];

fn golden(version: &str, name: &str) -> String {
    let path = format!("{}/tests/golden/{version}/{name}.json", env!("CARGO_MANIFEST_DIR"));
    std::fs::read_to_string(path).expect(name)
}

#[test]
fn site_files_of_older_versions_mean_what_they_meant() {
    for name in FILES {
        let site = read_site(golden("v4", name).as_bytes()).unwrap_or_else(|e| panic!("{name}: {e}"));
        for version in ["v1", "v2", "v3"] {
            assert_eq!(read_site(golden(version, name).as_bytes()).unwrap(), site, "{version} {name}");
        }
        let written = write_site(&site);
        assert!(written.starts_with("{\n  \"version\": 4,"), "{name}");
        assert_eq!(read_site(written.as_bytes()).unwrap(), site, "{name}");
    }
}

/// Words of version 2 that are gone keep their figures.
#[test]
fn plants_and_exposures_of_version_2_keep_their_figures() {
    let site = read_site(golden("v2", "library-terraces").as_bytes()).unwrap();
    let stations = &site.controllers[0].stations;
    let named = |name: &str| stations.iter().find(|s| s.name == name).unwrap_or_else(|| panic!("{name}"));
    let july = MonthOfYear::ALL[6];
    let thrifty = named("Herb wall");
    assert!((thrifty.landscape_coefficient(july) - 0.20).abs() < 1e-12);
    assert_eq!(thrifty.zone(), RootZone::new(80.0, 0.60, 0.50));
    let terrace = named("Long terrace");
    assert!((terrace.landscape_coefficient(july) - 0.95 * 0.9).abs() < 1e-12);
    assert_eq!(terrace.sprinkler.kind, SprinklerType::MultiStream);
}

#[test]
fn a_fault_in_an_old_file_is_named_by_its_path() {
    let mut old: serde_json::Value = serde_json::from_str(&golden("v1", "glasshouse")).unwrap();
    old["controllers"][0]["stations"][0]["soil"] = "peat".into();
    let error = read_site(&serde_json::to_vec(&old).unwrap()).unwrap_err().to_string();
    assert!(error.contains("controllers[0].stations[0]") && error.contains("sandy_loam, loam, silt_loam"), "{error}");
}

#[test]
fn field_records_of_version_1_are_read() {
    for (name, stations) in [("field-round", 7), ("field-dialled", 0), ("field-found", 7)] {
        let old: serde_json::Value = serde_json::from_str(&golden("v1", name)).unwrap();
        let doc = FieldDoc::from_json(old).unwrap_or_else(|e| panic!("{name}: {e}"));
        match &doc {
            FieldDoc::Round(round) => assert_eq!(round.stations.len(), stations),
            FieldDoc::Found(panel) => assert_eq!(panel.stations.len(), stations),
            FieldDoc::Dialled(dialled) => assert_eq!(dialled.values.len(), 6),
            FieldDoc::Measured(_) => panic!("version 1 had no measurements"),
        }
        assert_eq!(FieldDoc::from_json(doc.to_json()).unwrap(), doc, "{name}");
    }
}

#[test]
fn a_measurement_on_record_is_read() {
    let doc = FieldDoc::from_json(serde_json::from_str(&golden("v2", "field-measured")).unwrap()).unwrap();
    let FieldDoc::Measured(measured) = &doc else { panic!("{doc:?}") };
    let measurement = measured.by.measurement().unwrap();
    assert!((measurement.rate().unwrap().get() - measured.rate_mm_h).abs() < 0.05);
    assert!((measurement.uniformity().unwrap() - measured.uniformity.unwrap()).abs() < 0.0005);
    assert_eq!(FieldDoc::from_json(doc.to_json()).unwrap(), doc);
}
