//! A sensor as a form.

use chrono::NaiveDateTime;
use upland_core::controller::Controller;
use upland_core::field::{Field, Fields};
use upland_core::quantity::{Range, range};
use upland_core::sensor::{EtSetting, Reading, Sensor, SensorError, SensorKind};

use super::et_form;
use crate::context::ControllerContext;
use crate::form::{Form, new_key, parse_number};
use crate::pages::controller_error::not_at_sensor;
use crate::pages::field_form;
use crate::show::{Measure, Units, fraction, rain_text};
use crate::words::Words;

/// Rows for readings of a calibration.
pub(crate) const READINGS: usize = 8;

/// A new sensor of a kind, proposed for a controller; rain where the kind is none.
pub(crate) fn proposed(kind: &str, context: &ControllerContext) -> Sensor {
    let c = context.controller();
    let peak = context.normals().ok().map(|n| n.iter().map(|m| m.et0_mm_per_day).fold(0.0, f64::max));
    let kind = match SensorKind::of_word(kind) {
        Some(SensorKind::Et { setting, .. }) => SensorKind::Et {
            setting: EtSetting::for_peak(setting.sheet, peak.unwrap_or(5.0)),
            programs: c.programs.iter().map(|p| p.letter).take(1).collect(),
        },
        kind => kind.unwrap_or_else(SensorKind::common_rain),
    };
    Sensor::proposed(kind, "", c)
}

fn list(values: &[f64], measure: Measure, units: Units) -> String {
    values.iter().map(|v| measure.typed(*v, units)).collect::<Vec<_>>().join("; ")
}

/// The fields of the form and those of the table that they enter. Settings and the share at which the disc lets go
/// are typed in ways of their own, as fractions and in percent.
const ENTERED: [(&str, &str); 11] = [
    ("delay", "delay_days"),
    ("vent", "vent"),
    ("capacity", "disc_capacity_mm"),
    ("soil_threshold", "threshold_pct"),
    ("place", "place"),
    ("input", "input"),
    ("contact", "contact"),
    ("battery", "battery"),
    ("battery_on", "battery_on"),
    ("proven_on", "proven_on"),
    ("proven_how", "proven_how"),
];

/// The form of a saved sensor.
pub(crate) fn filled(sensor: &Sensor, units: Units) -> Form {
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("kind", sensor.kind.word());
    field_form::fill(&mut form, &ENTERED, sensor, units);
    form.set("jumper", if sensor.jumper_removed { "yes" } else { "no" });
    for number in &sensor.exempt {
        form.set(&format!("exempt{number}"), "1");
    }
    match &sensor.kind {
        SensorKind::Rain { thresholds_mm, setting } => {
            let texts: Vec<String> = thresholds_mm.iter().map(|t| rain_text(*t, units)).collect();
            form.set("settings", texts.join("; "));
            form.set("threshold", rain_text(setting.threshold_mm, units));
            form.set("release", Measure::Plain.typed(100.0 * setting.disc.release_share, units));
        }
        SensorKind::Freeze { thresholds_c, threshold_c } => {
            form.set("settings", list(thresholds_c, Measure::Temperature, units));
            form.set("threshold", Measure::Temperature.typed(*threshold_c, units));
        }
        SensorKind::SoilMoisture { readings, .. } => {
            for (i, reading) in readings.iter().enumerate() {
                form.set(&format!("r{i}at"), reading.at.format("%Y-%m-%d %H:%M").to_string());
                form.set(&format!("r{i}pct"), Measure::Plain.typed(reading.percent, units));
            }
        }
        SensorKind::Et { setting, programs } => et_form::fill(&mut form, setting, programs, units),
    }
    form
}

/// Reads a sensor; errors stand beside their fields. `before` is the sensor as it is stored, so that
/// settings that come back as they were shown stay as they were.
pub(crate) fn read(form: &mut Form, controller: &Controller, before: &Sensor, units: Units) -> Option<Sensor> {
    let w = Words;
    let mut sensor = before.clone();
    if !form.is("kind", before.kind.word()) {
        let Some(kind) = SensorKind::of_word(form.get("kind")) else {
            form.fail("place", w.t("field-choice"));
            return None;
        };
        sensor.kind = kind;
    }
    let inputs = controller.capability.sensor_inputs;
    if !form.get("input").parse::<u8>().is_ok_and(|input| (1..=inputs).contains(&input)) {
        form.fail("input", w.t1("sensor-input-bad", inputs.to_string()));
    }
    if !form.get("proven_on").is_empty() && form.get("proven_how").is_empty() {
        form.fail("proven_how", w.t("sensor-proof-how"));
    }
    read_kind(form, controller, &mut sensor, units);
    field_form::read_all(form, &ENTERED, &mut sensor, units);
    sensor.jumper_removed = form.is("jumper", "yes");
    let exempt = controller.stations.iter().map(|s| s.number);
    sensor.exempt = exempt.filter(|n| form.is_ticked("exempt", n)).collect();
    if let Err(error) = sensor.check(controller) {
        let (field, message) = error_at(&error, units);
        form.fail(field, message);
    }
    form.is_sound().then_some(sensor)
}

/// The field of the form at which an error stands, and what it says.
fn error_at(error: &SensorError, units: Units) -> (&'static str, String) {
    let w = Words;
    match error {
        SensorError::Field(fault) => {
            let entered = match fault.field {
                "threshold_mm" | "threshold_c" => "threshold",
                "release_share" => "release",
                field => ENTERED.iter().find(|(_, entered)| *entered == field).map_or("settings", |(name, _)| *name),
            };
            let words = |field: &Field<Sensor>| field_form::error_words(&fault.error, &field.kind, units);
            (entered, Sensor::field(fault.field).map_or_else(|| fault.to_string(), words))
        }
        SensorError::NoSuchSetting => ("threshold", w.t("sensor-no-setting")),
        SensorError::Settings => ("settings", w.t("sensor-settings-bad")),
        SensorError::NoSuchInput { inputs, .. } => ("input", w.t1("sensor-input-bad", inputs.to_string())),
        SensorError::Reading(out) => ("r0pct", Measure::Plain.allowed(out.range, units)),
        SensorError::ReadingDate(_) => ("r0at", w.t("field-date")),
        SensorError::Readings => ("r0at", w.t("sensor-readings-order")),
        SensorError::Sheet(error) => et_form::sheet_error(error, units),
        SensorError::NoSuchStation(_) | SensorError::NoSuchProgram(_) => {
            ("place", w.t1("cannot", not_at_sensor(error)))
        }
    }
}

/// Reads what a sensor is set to, but for what stands in [`ENTERED`].
fn read_kind(form: &mut Form, c: &Controller, sensor: &mut Sensor, units: Units) {
    match &mut sensor.kind {
        SensorKind::Rain { thresholds_mm, setting } => {
            if let Some((list, set)) = read_settings(form, thresholds_mm, Measure::Depth, units) {
                (*thresholds_mm, setting.threshold_mm) = (list, set);
            }
            let stored = 100.0 * setting.disc.release_share;
            let release = form.kept("release", Measure::Plain, RELEASE_PERCENT, units, Some(stored));
            // Dividing what was not touched could move its last digit.
            if let Some(release) = release.filter(|percent| *percent != stored) {
                setting.disc.release_share = release / 100.0;
            }
        }
        SensorKind::Freeze { thresholds_c, threshold_c } => {
            if let Some((list, set)) = read_settings(form, thresholds_c, Measure::Temperature, units) {
                (*thresholds_c, *threshold_c) = (list, set);
            }
        }
        SensorKind::SoilMoisture { readings, .. } => *readings = read_readings(form, readings, units),
        SensorKind::Et { setting, programs } => {
            if let Some(read) = et_form::read(form, c, &setting.sheet, units) {
                (*setting, *programs) = read;
            }
        }
    }
}

/// [`range::DISC_RELEASE`] as it is typed.
const RELEASE_PERCENT: Range = Range {
    what: "disc-release",
    unit: "%",
    min: 100.0 * range::DISC_RELEASE.min,
    max: 100.0 * range::DISC_RELEASE.max,
};

/// The sensor's own list of settings, and the one it is set to.
fn read_settings(form: &mut Form, stored: &[f64], measure: Measure, units: Units) -> Option<(Vec<f64>, f64)> {
    let w = Words;
    let value = |text: &str| -> Option<f64> {
        let text = text.trim();
        let shown = |v: &f64| if measure == Measure::Depth { rain_text(*v, units) } else { measure.typed(*v, units) };
        let same = stored.iter().find(|v| shown(v) == text);
        let number = || fraction(text).or_else(|| parse_number(text));
        same.copied().or_else(|| number().map(|n| measure.to_si(n, units)))
    };
    let typed = form.get("settings").to_owned();
    let list: Option<Vec<f64>> = typed.split(';').filter(|t| !t.trim().is_empty()).map(value).collect();
    let threshold = value(form.get("threshold"));
    if list.is_none() {
        form.fail("settings", w.t("sensor-settings-bad"));
    }
    if threshold.is_none() {
        form.fail("threshold", w.t("sensor-no-setting"));
    }
    Some((list?, threshold?))
}

fn read_readings(form: &mut Form, stored: &[Reading], units: Units) -> Vec<Reading> {
    let mut readings = Vec::new();
    for i in 0..READINGS {
        let (at_field, pct_field) = (format!("r{i}at"), format!("r{i}pct"));
        let typed = form.get(&at_field).to_owned();
        if typed.is_empty() && form.get(&pct_field).is_empty() {
            continue;
        }
        let at = NaiveDateTime::parse_from_str(&typed, "%Y-%m-%d %H:%M").ok();
        if at.is_none() {
            form.fail(&at_field, Words.t("sensor-reading-at"));
        }
        let known = at.and_then(|at| stored.iter().find(|reading| reading.at == at));
        let percent =
            form.kept(&pct_field, Measure::Plain, range::SOIL_READING, units, known.map(|reading| reading.percent));
        if let (Some(at), Some(percent)) = (at, percent) {
            readings.push(Reading { at, percent });
        }
    }
    readings
}
