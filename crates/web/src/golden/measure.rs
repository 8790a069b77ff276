//! What follows from a measured rate, in each of the four ways of measuring.

use upland_core::landscape::Measurement;

use super::each;
use super::fixture::{Half, context};
use crate::form::Form;
use crate::pages::measure::{MeasureLive, blank, read, with_measurement};
use crate::show::Units;

/// The form of the lawn with what was typed on top.
fn form(units: Units, typed: &[(&str, &str)]) -> Form {
    let context = context(Half::North);
    let mut form = blank(context.controller().station(1).unwrap(), Half::North.today(), units);
    for (field, value) in typed {
        form.set(field, *value);
    }
    form
}

/// Sixteen cans, the corner ones short of water.
fn cans(form: &mut Form, depths: [&str; 2]) {
    for row in 0..4 {
        for column in 0..4 {
            let corner = [0, 3].contains(&row) && [0, 3].contains(&column);
            form.set(&format!("can_{row}_{column}"), depths[usize::from(corner)]);
        }
    }
}

fn live(half: Half, mut form: Form, units: Units) -> MeasureLive {
    let context = context(half);
    MeasureLive::of(&context, context.controller().station(1).unwrap(), &mut form, units)
}

#[test]
fn each_way_of_measuring() {
    each("measure", |half, units| {
        let us = units == Units::Us;
        let pick = |metric: &'static str, american: &'static str| if us { american } else { metric };
        let mut with_cans = form(units, &[("minutes", "15")]);
        cans(&mut with_cans, [pick("6.1", "0.24"), pick("3.9", "0.15")]);
        let forms = [
            with_cans,
            form(
                units,
                &[
                    ("by", "meter"),
                    ("before", pick("812.40", "214600")),
                    ("after", pick("813.15", "214798")),
                    ("meter_minutes", "12"),
                    ("area", pick("310", "3337")),
                ],
            ),
            form(units, &[("by", "flow"), ("flow", pick("62", "16.4")), ("area", pick("310", "3337"))]),
            form(
                units,
                &[
                    ("by", "emitters"),
                    ("emitter", pick("2.3", "0.61")),
                    ("spacing", pick("0.33", "13")),
                    ("rows_apart", pick("0.4", "15.7")),
                ],
            ),
            form(units, &[]),
        ];
        forms.map(|form| format!("{:#?}", live(half, form, units))).join("\n\n")
    });
}

#[test]
fn volumes_in_cans_are_the_depths_over_their_opening() {
    // A can of 10 cm holds 78.5 cm²: 7.854 ml are a millimetre.
    let mut volumes = form(Units::Metric, &[("minutes", "10"), ("opening", "10")]);
    cans(&mut volumes, ["39.27", "39.27"]);
    let mut depths = form(Units::Metric, &[("minutes", "10")]);
    cans(&mut depths, ["5", "5"]);
    let rate = |form: &mut Form| read(form, Units::Metric).unwrap().rate().unwrap().get();
    assert!((rate(&mut volumes) - rate(&mut depths)).abs() < 0.01);
    assert!((rate(&mut depths) - 30.0).abs() < 1e-9, "5 mm in ten minutes");
}

#[test]
fn what_is_missing_or_cannot_be_is_said_at_its_field() {
    let error = |typed: &[(&str, &str)], field: &str| {
        let mut form = form(Units::Metric, typed);
        assert!(read(&mut form, Units::Metric).is_none(), "{typed:?}");
        let words = form.error(field).to_owned();
        assert!(!words.is_empty(), "{typed:?} {form:?}");
        words
    };
    error(&[("by", "flow"), ("area", "310")], "flow");
    error(&[("by", "flow"), ("flow", "62"), ("area", "")], "area");
    error(&[("by", "meter"), ("before", "10"), ("after", "9"), ("meter_minutes", "5")], "after");
    error(&[("by", "emitters"), ("emitter", "2.3"), ("spacing", "0.33")], "rows_apart");
    error(&[("minutes", "15")], "cans");
    error(&[("minutes", "fifteen")], "minutes");
    // More water than any sprinkler lays down is a slip of the pen.
    error(&[("by", "flow"), ("flow", "900"), ("area", "2")], "rate");
    assert_eq!(live(Half::North, form(Units::Metric, &[]), Units::Metric).rate, "");
}

#[test]
fn a_measurement_changes_its_station_alone() {
    let context = context(Half::North);
    let before = context.controller();
    let flow = Measurement::Flow { litres_per_minute: 62.0, area_m2: 120.0 };
    let after = with_measurement(before, 4, &flow);
    assert_eq!(after.station(4).unwrap().area_m2, Some(120.0), "it had no area");
    // 62 l/min over 120 m² is 31 mm/h.
    assert!((after.station(4).unwrap().sprinkler.rate.unwrap().get() - 31.0).abs() < 1e-9);
    assert_eq!((after.station(1), after.station(2)), (before.station(1), before.station(2)));
    let again = with_measurement(&after, 1, &flow);
    assert_eq!(again.station(1).unwrap().area_m2, Some(310.0), "a stated area stays");
    assert_eq!(&with_measurement(before, 30, &flow), before);
}
