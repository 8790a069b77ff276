//! A station's application rate, measured: the sheet, what follows from it, and earlier measurements.

mod form;

use upland_core::controller::{Controller, Station};
use upland_core::landscape::{CanDoubt, CanTest, Measurement, gross_minutes, run_multiplier};
use upland_core::quantity::{RateMmPerHour, range};
use upland_formats::site::{FieldDoc, MeasuredDoc};

use super::Choice;
use super::shell::Shell;
use super::spine::Spine;
use crate::charts::{CanMap, Strip};
use crate::context::{ControllerContext, FieldRecord};
use crate::form::Form;
use crate::show::{Measure, Units, date_long, minutes, number};
use crate::words::Words;
use form::{WAYS, can_field, grid};

pub(crate) use form::{blank, read};

#[derive(askama::Template)]
#[template(path = "measure.html")]
pub(crate) struct MeasureTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) form: Form,
    pub(crate) href: String,
    pub(crate) back: String,
    pub(crate) version: i32,
    pub(crate) station: String,
    pub(crate) ways: Vec<Choice>,
    /// Rows of the fields of the cans.
    pub(crate) cans: Vec<Vec<CanField>>,
    pub(crate) parts: Parts,
    pub(crate) live: MeasureLive,
    pub(crate) earlier: Vec<EarlierRow>,
}

/// The live answer.
#[derive(askama::Template)]
#[template(path = "measure_live.html")]
pub(crate) struct MeasureLiveTemplate {
    pub(crate) w: Words,
    pub(crate) live: MeasureLive,
}

/// A field of a can.
#[derive(Debug, Clone)]
pub(crate) struct CanField {
    pub(crate) field: String,
    pub(crate) label: String,
}

/// Units of the fields.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Parts {
    pub(crate) meter: &'static str,
    pub(crate) area: &'static str,
    pub(crate) flow: &'static str,
    pub(crate) emitter: &'static str,
    pub(crate) spacing: &'static str,
    pub(crate) opening: &'static str,
    pub(crate) depth: &'static str,
}

impl Parts {
    pub(crate) fn of(units: Units) -> Self {
        Self {
            meter: Measure::Meter.unit(units),
            area: Measure::Area.unit(units),
            flow: Measure::Flow.unit(units),
            emitter: Measure::EmitterFlow.unit(units),
            spacing: Measure::Spacing.unit(units),
            opening: Measure::Opening.unit(units),
            depth: Measure::Depth.unit(units),
        }
    }
}

/// What follows from a measurement.
#[derive(Debug, Clone, Default)]
pub(crate) struct MeasureLive {
    /// The rate; empty while something is missing.
    pub(crate) rate: String,
    pub(crate) unit: &'static str,
    pub(crate) say: String,
    pub(crate) say_more: String,
    /// Name, value and a note of each figure.
    pub(crate) figures: Vec<[String; 3]>,
    pub(crate) doubts: Vec<String>,
    pub(crate) map: Option<CanMap>,
}

/// A measurement on record.
#[derive(Debug, Clone)]
pub(crate) struct EarlierRow {
    pub(crate) on: String,
    pub(crate) way: String,
    pub(crate) rate: String,
    pub(crate) uniformity: String,
    pub(crate) who: String,
    pub(crate) note: String,
}

/// The controller with what was measured; its area too where the station had none.
pub(crate) fn with_measurement(controller: &Controller, number: u8, measured: &Measurement) -> Controller {
    let mut changed = controller.clone();
    let Some(station) = changed.stations.iter_mut().find(|s| s.number == number) else { return changed };
    if let Ok(rate) = measured.rate() {
        station.sprinkler.rate = Some(rate);
    }
    if let Some(du) = measured.uniformity() {
        station.sprinkler.uniformity = Some(du);
    }
    if let Measurement::Meter { area_m2, .. } | Measurement::Flow { area_m2, .. } = measured {
        station.area_m2 = station.area_m2.or(Some(*area_m2));
    }
    changed
}

impl MeasureLive {
    /// What follows for a station; a form that gives nothing yet says what is missing.
    pub(crate) fn of(context: &ControllerContext, station: &Station, form: &mut Form, units: Units) -> Self {
        let w = Words;
        let unit = Measure::Rate.unit(units);
        let Some(measured) = read(form, units) else {
            let waits = ["cans", "rate"].map(|field| form.error(field)).into_iter().find(|e| !e.is_empty());
            let say = waits.map_or_else(|| w.t("measure-waits"), str::to_owned);
            return Self { unit, say, ..Self::default() };
        };
        let Ok(rate) = measured.rate() else { return Self::default() };
        let (before, _) = station.sprinkler.rate_mm_per_hour();
        let test = if let Measurement::Cans(test) = &measured { Some(test) } else { None };
        Self {
            rate: Measure::Rate.figure(rate.get(), units),
            unit,
            say: w.t("measure-rate"),
            say_more: w.t1("measure-instead", Measure::Rate.show(before, units)),
            figures: figures(context, station, &measured, rate, form, units),
            doubts: test.map_or_else(Vec::new, doubts),
            map: test.map(|t| CanMap::draw(t, units)),
        }
    }
}

fn figures(
    context: &ControllerContext,
    station: &Station,
    measured: &Measurement,
    rate: RateMmPerHour,
    form: &mut Form,
    units: Units,
) -> Vec<[String; 3]> {
    let w = Words;
    let mut rows = Vec::new();
    let (usual, _) = station.sprinkler.uniformity();
    let uniformity = measured.uniformity();
    if let (Some(du), Measurement::Cans(test)) = (uniformity, measured) {
        rows.push([
            w.t("measure-du"),
            number(du, 2),
            w.t2(
                "measure-du-note",
                ("dry", Measure::Depth.show(test.lowest_quarter_mm(), units)),
                ("mean", Measure::Depth.show(test.mean_mm(), units)),
            ),
        ]);
    }
    let du = uniformity.unwrap_or(usual);
    let multiplier = run_multiplier(du);
    rows.push([w.t("measure-multiplier"), number(multiplier, 2), w.t1("measure-multiplier-note", number(du, 2))]);
    if let Some(depth) = form.measure("depth", Measure::Depth, range::CATCH, units) {
        let all = gross_minutes(depth, rate.get(), multiplier);
        rows.push([
            w.t1("measure-minutes-for", Measure::Depth.show(depth, units)),
            format!("{}\u{a0}min", number(all, 0)),
            w.t("measure-minutes-note"),
        ]);
    }
    let base = |controller: &Controller| {
        let budget = context.budget_of(controller).ok()?;
        let base = budget.groups.iter().flat_map(|g| &g.stations).find(|s| s.number == station.number)?;
        Some(base.run)
    };
    let changed = with_measurement(context.controller(), station.number, measured);
    if let (Some(before), Some(after)) = (base(context.controller()), base(&changed)) {
        let note = if before == after {
            w.t("measure-base-same")
        } else {
            w.t1("measure-base-note", format!("{}\u{a0}min", minutes(before)))
        };
        rows.push([w.t("measure-base"), format!("{}\u{a0}min", minutes(after)), note]);
    }
    rows
}

fn doubts(test: &CanTest) -> Vec<String> {
    let w = Words;
    let place = |at: usize| {
        w.t2(
            "measure-can",
            ("row", (at / test.columns() + 1).to_string()),
            ("can", (at % test.columns() + 1).to_string()),
        )
    };
    test.doubts()
        .into_iter()
        .map(|doubt| match doubt {
            CanDoubt::FewCans => {
                w.t2("measure-doubt-few", ("cans", test.cans().to_string()), ("enough", CanTest::ENOUGH.to_string()))
            }
            CanDoubt::Empty { at } => w.t1("measure-doubt-empty", place(at)),
            CanDoubt::VeryFull { at } => w.t1("measure-doubt-full", place(at)),
            CanDoubt::ShortRun => w.t("measure-doubt-short"),
        })
        .collect()
}

/// Measurements of a station, newest first.
pub(crate) fn earlier(records: &[FieldRecord], station: u8, units: Units) -> Vec<EarlierRow> {
    records
        .iter()
        .filter_map(|record| match &record.document {
            FieldDoc::Measured(doc) if doc.station == station => Some(EarlierRow {
                on: date_long(doc.on),
                way: way_name(doc),
                rate: Measure::Rate.show(doc.rate_mm_h, units),
                uniformity: doc.uniformity.map_or_else(|| "·".to_owned(), |du| number(du, 2)),
                who: record.user_name.clone(),
                note: doc.note.clone(),
            }),
            _ => None,
        })
        .collect()
}

/// How a measurement on record was made.
pub(crate) fn way_name(doc: &MeasuredDoc) -> String {
    use upland_formats::site::MeasurementDoc as Doc;
    Words.t(match doc.by {
        Doc::Cans { .. } => "measure-cans",
        Doc::Meter { .. } => "measure-meter",
        Doc::Flow { .. } => "measure-flow",
        Doc::Emitters { .. } => "measure-emitters",
    })
}

/// The choices and fields of the form.
pub(crate) fn ways() -> Vec<Choice> {
    WAYS.iter().map(|(value, key)| Choice::new(*value, Words.t(key))).collect()
}

/// The fields of the cans, row by row.
pub(crate) fn can_fields(form: &Form) -> Vec<Vec<CanField>> {
    let [rows, columns] = grid(form);
    let cell = |row: usize, column: usize| CanField {
        field: can_field(row, column),
        label: Words.t2("measure-can", ("row", (row + 1).to_string()), ("can", (column + 1).to_string())),
    };
    (0..rows).map(|row| (0..columns).map(|column| cell(row, column)).collect()).collect()
}
