//! A measurement as it is typed.

use upland_core::controller::Station;
use upland_core::landscape::{CanError, CanTest, Measurement, catch_mm, round_opening_cm2};
use upland_core::quantity::range;

use crate::form::Form;
use crate::show::{Measure, Units};
use crate::words::Words;

/// The ways of measuring, as the form names them.
pub(super) const WAYS: [(&str, &str); 4] =
    [("cans", "measure-cans"), ("meter", "measure-meter"), ("flow", "measure-flow"), ("emitters", "measure-emitters")];

/// Rows and columns of cans before anybody says otherwise: sixteen, which is enough.
const GRID: usize = 4;
/// Longest row or column of cans.
const MOST: usize = 8;

/// The field of a can.
pub(super) fn can_field(row: usize, column: usize) -> String {
    format!("can_{row}_{column}")
}

/// Rows and columns of the grid as the form says, or sixteen cans.
pub(super) fn grid(form: &Form) -> [usize; 2] {
    ["rows", "columns"].map(|field| form.get(field).parse().ok().filter(|n| (1..=MOST).contains(n)).unwrap_or(GRID))
}

/// An empty form for a station: what is known of it stands there.
pub(crate) fn blank(station: &Station, on: chrono::NaiveDate, units: Units) -> Form {
    let mut form = Form::default();
    form.set("by", "cans");
    form.set("on", on.to_string());
    form.set("rows", GRID.to_string());
    form.set("columns", GRID.to_string());
    form.set("depth", Measure::Depth.typed(12.7, units));
    if let Some(area) = station.area_m2 {
        form.set("area", Measure::Area.typed(area, units));
    }
    form
}

/// What was measured; none, with errors beside the fields, while something is missing or cannot be.
pub(crate) fn read(form: &mut Form, units: Units) -> Option<Measurement> {
    let measurement = match form.get("by") {
        "meter" => meter(form, units),
        "flow" => {
            let flow = form.needed("flow", Measure::Flow, range::FLOW, units);
            let area = form.needed("area", Measure::Area, range::AREA, units);
            Some(Measurement::Flow { litres_per_minute: flow?, area_m2: area? })
        }
        "emitters" => {
            let flow = form.needed("emitter", Measure::EmitterFlow, range::EMITTER_FLOW, units);
            let spacing = form.needed("spacing", Measure::Spacing, range::SPACING, units);
            let rows = form.needed("rows_apart", Measure::Spacing, range::SPACING, units);
            Some(Measurement::Emitters { litres_per_hour: flow?, spacing_m: spacing?, rows_m: rows? })
        }
        _ => cans(form, units),
    }?;
    if measurement.rate().is_err() {
        form.fail("rate", Words.t1("measure-no-rate", Measure::Rate.allowed(range::RATE, units)));
        return None;
    }
    if measurement.uniformity().is_some_and(|du| !range::UNIFORMITY.holds(du)) {
        form.fail("rate", Words.t("measure-no-uniformity"));
        return None;
    }
    Some(measurement)
}

fn meter(form: &mut Form, units: Units) -> Option<Measurement> {
    let before = form.needed("before", Measure::Meter, range::METER, units);
    let after = form.needed("after", Measure::Meter, range::METER, units);
    let minutes = form.needed("meter_minutes", Measure::Plain, range::TEST_MINUTES, units);
    let area = form.needed("area", Measure::Area, range::AREA, units);
    let litres = (after? - before?) * 1000.0;
    if litres <= 0.0 {
        form.fail("after", Words.t("measure-meter-back"));
        return None;
    }
    Some(Measurement::Meter { litres, minutes: minutes?, area_m2: area? })
}

fn cans(form: &mut Form, units: Units) -> Option<Measurement> {
    let minutes = form.needed("minutes", Measure::Plain, range::TEST_MINUTES, units);
    let opening = form.measure("opening", Measure::Opening, range::CAN_OPENING, units);
    let [rows, columns] = grid(form);
    let mut catches = Vec::with_capacity(rows * columns);
    for row in 0..rows {
        for column in 0..columns {
            let field = can_field(row, column);
            // Without the opening of the cans what they caught is a depth.
            catches.push(match opening {
                Some(cm) => form
                    .measure(&field, Measure::Plain, range::CATCH_VOLUME, units)
                    .map(|ml| catch_mm(ml, round_opening_cm2(cm))),
                None => form.measure(&field, Measure::Depth, range::CATCH, units),
            });
        }
    }
    let minutes = minutes?;
    if !form.is_sound() {
        return None;
    }
    match CanTest::new(catches, columns, minutes) {
        Ok(test) => Some(Measurement::Cans(test)),
        Err(error) => {
            let words = match error {
                CanError::TooFew { .. } => Words.t1("measure-few-cans", CanTest::LEAST.to_string()),
                CanError::AllDry => Words.t("measure-all-dry"),
                CanError::NotPositive => Words.t("measure-not-positive"),
            };
            form.fail("cans", words);
            None
        }
    }
}
