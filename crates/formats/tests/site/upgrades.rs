//! Frozen documents of every version: what was written once is read for ever, and means the same.

use upland_formats::site::{FieldDoc, read_site, write_site};

/// Site files of version 1, never changed.
const V1: [&str; 3] = ["library-terraces", "hill-cemetery", "glasshouse"];

fn golden(version: &str, name: &str) -> String {
    let path = format!("{}/tests/golden/{version}/{name}.json", env!("CARGO_MANIFEST_DIR"));
    std::fs::read_to_string(path).expect(name)
}

#[test]
fn site_files_of_version_1_mean_what_they_meant() {
    for name in V1 {
        let site = read_site(golden("v1", name).as_bytes()).unwrap_or_else(|e| panic!("{name}: {e}"));
        assert_eq!(read_site(golden("v2", name).as_bytes()).unwrap(), site, "{name}");
        let written = write_site(&site);
        assert!(written.starts_with("{\n  \"version\": 2,"), "{name}");
        assert_eq!(read_site(written.as_bytes()).unwrap(), site, "{name}");
    }
}

#[test]
fn a_fault_in_an_old_file_is_named_by_its_path() {
    let mut old: serde_json::Value = serde_json::from_str(&golden("v1", "glasshouse")).unwrap();
    old["controllers"][0]["stations"][0]["soil"] = "peat".into();
    let error = read_site(&serde_json::to_vec(&old).unwrap()).unwrap_err().to_string();
    assert!(error.contains("controllers[0].stations[0]") && error.contains("clay, loam, sand"), "{error}");
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
