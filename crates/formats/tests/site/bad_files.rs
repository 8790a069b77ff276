//! Files that are no site: each is refused as a whole, with its place.

use serde_json::{Value, json};
use upland_formats::site::{SITE_BYTES, SiteError, read_site};

use crate::example;

/// Makes a sound file one that cannot be.
type Spoil = fn(&mut Value);

fn spoiled(change: impl FnOnce(&mut Value)) -> SiteError {
    let mut value: Value = serde_json::from_slice(&example("library-terraces")).unwrap();
    change(&mut value);
    read_site(&serde_json::to_vec(&value).unwrap()).unwrap_err()
}

#[test]
fn another_version_is_named_before_anything_else() {
    let error = spoiled(|v| {
        v["version"] = 5.into();
        v["place"] = json!("of another shape");
    });
    assert_eq!(error, SiteError::Version(5));
    assert!(error.to_string().contains("versions 1 to 4"), "{error}");
}

#[test]
fn a_truncated_file_says_where_it_ends() {
    let bytes = example("library-terraces");
    for end in [1, bytes.len() / 3, bytes.len() / 2, bytes.len() - 3] {
        let error = read_site(&bytes[..end]).unwrap_err();
        assert!(matches!(error, SiteError::Shape { at: Some((line, _)), .. } if line >= 1), "{error}");
    }
    assert!(read_site(b"").is_err());
    // Nothing may follow it either.
    assert!(read_site(&[&bytes[..], b"{}"].concat()).is_err());
}

#[test]
fn an_unknown_field_is_named_with_its_path() {
    let error = spoiled(|v| v["controllers"][0]["stations"][2]["colour"] = "blue".into());
    let text = error.to_string();
    assert!(text.contains("controllers[0].stations[2]") && text.contains("colour"), "{text}");
}

#[test]
fn a_million_stations_are_refused_by_size_or_by_number() {
    let mut value: Value = serde_json::from_slice(&example("glasshouse")).unwrap();
    let station = value["controllers"][0]["stations"][0].clone();
    value["controllers"][0]["stations"] = Value::Array(vec![station; 1000]);
    let error = read_site(&serde_json::to_vec(&value).unwrap()).unwrap_err();
    assert_eq!(error, SiteError::TooManyStations { index: 0, count: 1000 });
    let mut million = b"{\"version\":2,\"controllers\":[{\"stations\":[".to_vec();
    million.resize(SITE_BYTES + 1, b'0');
    assert_eq!(read_site(&million).unwrap_err(), SiteError::TooLarge);
}

#[test]
fn what_cannot_be_is_refused_with_its_place() {
    let cases: [(&str, Spoil); 9] = [
        ("place.time_zone", |v| v["place"]["time_zone"] = "Upland/Nowhere".into()),
        ("place", |v| v["place"]["latitude"] = 95.into()),
        ("place.rules", |v| v["place"]["rules"]["hours"] = json!([{"from": "25:00", "to": "26:00"}])),
        ("weather.normals", |v| v["weather"]["normals"] = json!([])),
        ("controllers[0]", |v| v["controllers"][0]["programs"][0]["schedule"]["starts"] = json!(["25:00"])),
        ("controllers[0]", |v| v["controllers"][0]["stations"][0]["number"] = 9.into()),
        ("as_found[0]", |v| v["as_found"][0]["controller"] = "Nobody".into()),
        ("as_found[0]", |v| v["as_found"][0]["panel"]["stations"][0]["number"] = 9.into()),
        ("as_found[0]", |v| v["as_found"][0]["panel"]["clock_date"] = "2026-02-31".into()),
    ];
    for (place, change) in cases {
        let text = spoiled(change).to_string();
        assert!(text.contains(place), "{place}: {text}");
    }
}

#[test]
fn two_controllers_of_one_name_are_refused() {
    let error = spoiled(|v| {
        let first = v["controllers"][0].clone();
        v["controllers"].as_array_mut().unwrap().push(first);
    });
    assert_eq!(error, SiteError::ControllerTwice("Boiler-room cabinet".into()));
}
