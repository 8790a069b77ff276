//! A weather file while it is looked at: columns, units, errors, and what it is good for.

use upland_formats::weather::Table;

use super::each;
use crate::form::Form;
use crate::pages::weather_file::{FilePreview, Importable, column_rows, guess, preview, take_proposals};
use crate::show::Units;

/// Days of a spring, rain in tenths of an inch or in millimetres, whatever the form says.
fn file(change: impl Fn(usize, &mut String)) -> Vec<u8> {
    let mut text = "date,temperature max,temperature min,rain,wind\n".to_owned();
    for (n, date) in chrono::NaiveDate::from_ymd_opt(2024, 1, 1).unwrap().iter_days().take(400).enumerate() {
        let wave = (n % 9) as f64;
        let mut line = format!("{date},{:.1},{:.1},{:.1},{:.1}", 14.0 + wave, 3.0 + wave / 2.0, wave / 3.0, 2.1);
        change(n, &mut line);
        text.push_str(&line);
        text.push('\n');
    }
    text.into_bytes()
}

fn looked_at(bytes: &[u8], typed: &[(&str, &str)], units: Units) -> (Form, FilePreview, Option<Importable>) {
    let table = Table::parse(bytes).unwrap();
    let mut form = Form::default();
    for (field, value) in [("name", "Airfield"), ("latitude", "47.5"), ("longitude", "12.2"), ("wind_height", "10")] {
        form.set(field, value);
    }
    form.set("elevation", if units == Units::Us { "702" } else { "214" });
    guess(&mut form, &table);
    take_proposals(&mut form, &table);
    for (field, value) in typed {
        form.set(field, *value);
    }
    let (view, importable) = preview(&mut form, &table, None, false, units);
    (form, view, importable)
}

fn sound() -> Vec<u8> {
    file(|_, _| {})
}

/// A high under its low, a word for a number, and a day too hot to be true.
fn faulty() -> Vec<u8> {
    file(|n, line| match n {
        12 => *line = "2024-01-13,2.0,9.0,0.0,2.1".into(),
        40 => *line = "2024-02-10,warm,3.0,0.0,2.1".into(),
        90 => *line = "2024-03-31,71.0,3.0,0.0,2.1".into(),
        _ => {}
    })
}

#[test]
fn a_file_with_errors_and_one_without() {
    each("weather_file", |_, units| {
        let told = [sound(), faulty()].map(|bytes| {
            let (form, view, importable) = looked_at(&bytes, &[], units);
            let table = Table::parse(&bytes[..]).unwrap();
            let view = FilePreview { plate: None, ..view };
            format!("{:#?}\n{view:#?}\ncan be imported: {}", column_rows(&form, &table), importable.is_some())
        });
        told.join("\n\n")
    });
}

#[test]
fn what_is_said_to_be_importable_can_be_imported() {
    for (bytes, expected) in [(sound(), true), (faulty(), false)] {
        let (_, view, importable) = looked_at(&bytes, &[], Units::Metric);
        assert_eq!((view.can_import, importable.is_some()), (expected, expected), "{view:#?}");
    }
}

#[test]
fn a_column_without_a_unit_or_a_station_without_a_name_is_not_imported() {
    for (field, value) in [("name", ""), ("latitude", "95"), ("wind_height", "0.1")] {
        let (form, view, importable) = looked_at(&sound(), &[(field, value)], Units::Metric);
        assert!(!form.error(field).is_empty(), "{field} {form:?}");
        assert!(!view.can_import && importable.is_none(), "{field}");
    }
    let (_, view, importable) = looked_at(&sound(), &[("unit_3", "")], Units::Metric);
    assert!(importable.is_none(), "{view:#?}");
    assert!(!view.open.is_empty(), "it says which column lacks its unit");
}

#[test]
fn the_same_file_is_the_same_days_whatever_the_reader_prefers() {
    let days = |units| looked_at(&sound(), &[], units).2.unwrap().record.read;
    assert_eq!(days(Units::Metric), days(Units::Us));
    assert_eq!(days(Units::Metric).len(), 400);
}
