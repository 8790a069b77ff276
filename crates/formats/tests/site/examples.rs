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
        ("another version", |v| v["version"] = 5.into()),
        ("an unknown field", |v| v["place"]["owner"] = "x".into()),
        ("a latitude of 95", |v| v["place"]["latitude"] = 95.into()),
        ("a name of 61 characters", |v| v["place"]["name"] = "x".repeat(61).into()),
        ("a rate of 900 mm/h", |v| v["controllers"][0]["stations"][0]["rate_mm_h"] = 900.into()),
        ("33 sensors", |v| {
            let sensor = serde_json::json!({"id": 1, "kind": "freeze", "thresholds_c": [3.0], "threshold_c": 3.0,
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

/// Sensors, temporary settings and programs have their ranges from the same tables.
#[test]
fn the_schema_and_the_reader_know_the_same_ranges() {
    let schema = site_schema();
    let validator = jsonschema::validator_for(&schema).unwrap();
    let mut sound: serde_json::Value = serde_json::from_slice(&example("library-terraces")).unwrap();
    sound["controllers"][0]["temporaries"] = serde_json::json!([{"id": 1, "kind": "grow_in", "program": "A", "percent": 40,
        "starts": 3, "from": "06:00", "to": "14:00", "since": "2026-06-01", "until": "2026-06-20", "reason": "new turf"}]);
    assert!(validator.is_valid(&sound));
    read_site(&serde_json::to_vec(&sound).unwrap()).unwrap();
    let spoil: [(&str, &str, &str, serde_json::Value); 10] = [
        ("sensors", "input", "an input of 17", 17.into()),
        ("sensors", "delay_days", "15 days of delay", 15.into()),
        ("sensors", "thresholds_mm", "a setting of 900 mm", vec![6, 900].into()),
        ("sensors", "exempt", "a station of 49", vec![49].into()),
        ("sensors", "battery_on", "a battery of no date", "spring".into()),
        ("temporaries", "percent", "401 %", 401.into()),
        ("temporaries", "starts", "17 starts", 17.into()),
        ("temporaries", "from", "a start of no time", "dawn".into()),
        ("programs", "waterings_per_week", "8 waterings a week", 8.into()),
        ("programs", "name", "a name of 21 characters", "x".repeat(21).into()),
    ];
    for (list, field, what, value) in spoil {
        let mut spoilt = sound.clone();
        spoilt["controllers"][0][list][0][field] = value;
        assert!(!validator.is_valid(&spoilt), "{what}: the schema takes it");
        let error = read_site(&serde_json::to_vec(&spoilt).unwrap()).unwrap_err().to_string();
        assert!(error.contains(field), "{what}: {error}");
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
