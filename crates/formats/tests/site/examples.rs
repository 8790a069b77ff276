//! The examples against the published schema, by a validator that is not ours.

use upland_formats::site::{read_site, site_schema, write_site};

use crate::{EXAMPLES, example};

#[test]
fn every_example_is_valid_by_the_schema() {
    let schema = site_schema();
    let validator = jsonschema::validator_for(&schema).unwrap();
    for name in EXAMPLES {
        let value = serde_json::from_slice(&example(name)).unwrap();
        let errors: Vec<String> =
            validator.iter_errors(&value).map(|e| format!("{}: {e}", e.instance_path())).collect();
        assert!(errors.is_empty(), "{name}: {errors:?}");
    }
}

/// Makes a sound file one that cannot be.
type Spoil = fn(&mut serde_json::Value);

/// What the reader refuses as a wrong shape, the schema refuses too.
#[test]
fn the_schema_refuses_what_the_reader_refuses() {
    let schema = site_schema();
    let validator = jsonschema::validator_for(&schema).unwrap();
    let sound: serde_json::Value = serde_json::from_slice(&example("glasshouse")).unwrap();
    let spoil: [(&str, Spoil); 8] = [
        ("another version", |v| v["version"] = 4.into()),
        ("an unknown field", |v| v["place"]["owner"] = "x".into()),
        ("a latitude of 95", |v| v["place"]["latitude"] = 95.into()),
        ("a name of 61 characters", |v| v["place"]["name"] = "x".repeat(61).into()),
        ("a rate of 900 mm/h", |v| v["controllers"][0]["stations"][0]["rate_mm_h"] = 900.into()),
        ("33 sensors", |v| {
            let sensor = serde_json::json!({"id": 1, "setting": {"kind": "freeze", "thresholds_c": [3.0], "threshold_c": 3.0},
                "place": "Shed", "contact": "normally_closed", "jumper_removed": true, "input": 1});
            v["controllers"][0]["sensors"] = vec![sensor; 33].into();
        }),
        ("a latitude of text", |v| v["place"]["latitude"] = "north".into()),
        ("no place", |v| {
            v.as_object_mut().unwrap().remove("place");
        }),
    ];
    for (what, change) in spoil {
        let mut value = sound.clone();
        change(&mut value);
        assert!(!validator.is_valid(&value), "{what}: the schema takes it");
        assert!(read_site(&serde_json::to_vec(&value).unwrap()).is_err(), "{what}: the reader takes it");
    }
}

#[test]
fn every_example_reads_back_the_same() {
    for name in EXAMPLES {
        let site = read_site(&example(name)).unwrap();
        let written = write_site(&site);
        assert_eq!(read_site(written.as_bytes()).unwrap(), site, "{name}");
    }
}
