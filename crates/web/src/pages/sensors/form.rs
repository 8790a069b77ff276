//! A sensor as a form.

use chrono::NaiveDateTime;
use upland_core::controller::Controller;
use upland_core::quantity::{Range, range};
use upland_core::sensor::{Disc, EtSetting, EtSheet, Proof, RainSetting, Reading, Sensor, SensorError, SensorKind};
use upland_core::word::Word;

use super::et_form;
use crate::context::ControllerContext;
use crate::form::{Form, new_key, parse_number};
use crate::pages::days_form::read_date;
use crate::show::{Measure, Units, fraction, rain_text};
use crate::words::Words;

/// Rows for readings of a calibration.
pub(crate) const READINGS: usize = 8;

/// The word of a kind in forms and addresses.
pub(crate) const fn kind_word(kind: &SensorKind) -> &'static str {
    match kind {
        SensorKind::Rain { .. } => "rain",
        SensorKind::Freeze { .. } => "freeze",
        SensorKind::SoilMoisture { .. } => "soil",
        SensorKind::Et { .. } => "et",
    }
}

/// A new sensor of a kind, proposed for a controller; rain where the kind is none.
pub(crate) fn proposed(kind: &str, context: &ControllerContext) -> Sensor {
    let c = context.controller();
    let peak = context.normals().ok().map(|n| n.iter().map(|m| m.et0_mm_per_day).fold(0.0, f64::max));
    let kind = match kind {
        "freeze" => SensorKind::common_freeze(),
        "soil" => SensorKind::SoilMoisture { readings: Vec::new(), threshold_pct: None },
        "et" => SensorKind::Et {
            setting: EtSetting::for_peak(EtSheet::example(), peak.unwrap_or(5.0)),
            programs: c.programs.iter().map(|p| p.letter).take(1).collect(),
        },
        _ => SensorKind::common_rain(),
    };
    Sensor::proposed(kind, "", c)
}

/// The measure of a kind's settings.
const fn setting(kind: &SensorKind) -> (Measure, Range) {
    match kind {
        SensorKind::Freeze { .. } => (Measure::Temperature, range::FREEZE_THRESHOLD),
        _ => (Measure::Depth, range::RAIN_THRESHOLD),
    }
}

fn list(values: &[f64], measure: Measure, units: Units) -> String {
    values.iter().map(|v| measure.typed(*v, units)).collect::<Vec<_>>().join("; ")
}

/// The form of a saved sensor.
pub(crate) fn filled(sensor: &Sensor, units: Units) -> Form {
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("kind", kind_word(&sensor.kind));
    form.set("place", &sensor.place);
    form.set("input", sensor.input.to_string());
    form.set("contact", sensor.contact.word());
    form.set("jumper", if sensor.jumper_removed { "yes" } else { "no" });
    form.set("battery", &sensor.battery);
    form.set("battery_on", sensor.battery_on.map_or_else(String::new, |d| d.to_string()));
    for number in &sensor.exempt {
        form.set(&format!("exempt{number}"), "1");
    }
    if let Some(proof) = &sensor.proven {
        form.set("proven_on", proof.on.to_string());
        form.set("proven_how", &proof.how);
    }
    let (measure, _) = setting(&sensor.kind);
    match &sensor.kind {
        SensorKind::Rain { thresholds_mm, setting } => {
            let texts: Vec<String> = thresholds_mm.iter().map(|t| rain_text(*t, units)).collect();
            form.set("settings", texts.join("; "));
            form.set("threshold", rain_text(setting.threshold_mm, units));
            form.set("delay", setting.delay_days.to_string());
            form.set("vent", setting.vent.word());
            let [capacity, release] = disc_texts(setting.disc, units);
            form.set("capacity", capacity);
            form.set("release", release);
        }
        SensorKind::Freeze { thresholds_c, threshold_c } => {
            form.set("settings", list(thresholds_c, measure, units));
            form.set("threshold", measure.typed(*threshold_c, units));
        }
        SensorKind::SoilMoisture { readings, threshold_pct } => {
            for (i, reading) in readings.iter().enumerate() {
                form.set(&format!("r{i}at"), reading.at.format("%Y-%m-%d %H:%M").to_string());
                form.set(&format!("r{i}pct"), Measure::Plain.typed(reading.percent, units));
            }
            form.set("soil_threshold", threshold_pct.map_or_else(String::new, |t| Measure::Plain.typed(t, units)));
        }
        SensorKind::Et { setting, programs } => et_form::fill(&mut form, setting, programs, units),
    }
    form
}

/// Reads a sensor; errors stand beside their fields. `before` is the sensor as it is stored, so that
/// settings that come back as they were shown stay as they were.
pub(crate) fn read(form: &mut Form, controller: &Controller, before: &Sensor, units: Units) -> Option<Sensor> {
    let w = Words;
    let kind = read_kind(form, controller, before, units);
    let whole = |form: &Form, field: &str| form.get(field).parse::<u8>().ok();
    let input = whole(form, "input");
    if input.is_none() {
        form.fail("input", w.t1("sensor-input-bad", controller.capability.sensor_inputs.to_string()));
    }
    let contact = form.chosen("contact");
    let (battery_on, proven_on) = (read_date(form, "battery_on"), read_date(form, "proven_on"));
    let how = form.get("proven_how").to_owned();
    if proven_on.is_some() && how.is_empty() {
        form.fail("proven_how", w.t("sensor-proof-how"));
    }
    let exempt = controller.stations.iter().map(|s| s.number);
    let exempt = exempt.filter(|n| form.is_ticked("exempt", n)).collect();
    let sensor = Sensor {
        id: before.id,
        kind: kind?,
        place: form.get("place").to_owned(),
        battery: form.get("battery").to_owned(),
        battery_on,
        contact: contact?,
        jumper_removed: form.is("jumper", "yes"),
        input: input?,
        exempt,
        proven: proven_on.map(|on| Proof { on, how }),
    };
    if let Err(error) = sensor.check(controller) {
        let (measure, range) = setting(&sensor.kind);
        let (field, message) = match error {
            SensorError::Place(_) => ("place", w.t("field-name")),
            SensorError::Battery(_) => ("battery", w.t("field-name")),
            SensorError::Proof(_) => ("proven_how", w.t("field-name")),
            SensorError::Date(_) => ("battery_on", w.t("field-date")),
            SensorError::NoSuchSetting => ("threshold", w.t("sensor-no-setting")),
            SensorError::Settings => ("settings", w.t("sensor-settings-bad")),
            SensorError::OutOfRange(_) => ("settings", measure.allowed(range, units)),
            SensorError::NoSuchInput { inputs, .. } => ("input", w.t1("sensor-input-bad", inputs.to_string())),
            SensorError::Disc(out) => ("capacity", out.to_string()),
            SensorError::Readings => ("r0at", w.t("sensor-readings-order")),
            SensorError::Sheet(error) => et_form::sheet_error(&error, units),
            SensorError::NoSuchStation(_) | SensorError::NoSuchProgram(_) => ("place", error.to_string()),
        };
        form.fail(field, message);
    }
    form.is_sound().then_some(sensor)
}

fn read_kind(form: &mut Form, c: &Controller, before: &Sensor, units: Units) -> Option<SensorKind> {
    let w = Words;
    match form.get("kind") {
        "rain" => {
            let (thresholds_mm, threshold_mm) = read_settings(form, before, units)?;
            let delay = form.get("delay").parse::<u8>().ok().filter(|d| range::RAIN_SENSOR_DELAY.holds(f64::from(*d)));
            if delay.is_none() {
                form.fail("delay", Measure::Plain.allowed(range::RAIN_SENSOR_DELAY, units));
            }
            let vent = form.chosen("vent");
            let disc = read_disc(form, before, units);
            let setting = RainSetting { threshold_mm, delay_days: delay?, vent: vent?, disc: disc? };
            Some(SensorKind::Rain { thresholds_mm, setting })
        }
        "freeze" => {
            let (thresholds_c, threshold_c) = read_settings(form, before, units)?;
            Some(SensorKind::Freeze { thresholds_c, threshold_c })
        }
        "soil" => {
            let readings = read_readings(form, units);
            let threshold_pct = form.measure("soil_threshold", Measure::Plain, range::SOIL_READING, units);
            Some(SensorKind::SoilMoisture { readings, threshold_pct })
        }
        "et" => et_form::read(form, c, &before.kind, units),
        _ => {
            form.fail("place", w.t("field-choice"));
            None
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

/// What a disc holds and the percent at which it lets go, as they are typed.
fn disc_texts(disc: Disc, units: Units) -> [String; 2] {
    [Measure::Depth.typed(disc.capacity_mm, units), Measure::Plain.typed(100.0 * disc.release_share, units)]
}

fn read_disc(form: &mut Form, before: &Sensor, units: Units) -> Option<Disc> {
    let stored = match &before.kind {
        SensorKind::Rain { setting, .. } => setting.disc,
        _ => Disc::USUAL,
    };
    if disc_texts(stored, units) == [form.get("capacity"), form.get("release")] {
        return Some(stored);
    }
    let capacity = form.needed("capacity", Measure::Depth, range::DISC_CAPACITY, units);
    let release = form.needed("release", Measure::Plain, RELEASE_PERCENT, units);
    Some(Disc { capacity_mm: capacity?, release_share: release? / 100.0 })
}

/// The sensor's own list of settings, and the one it is set to.
fn read_settings(form: &mut Form, before: &Sensor, units: Units) -> Option<(Vec<f64>, f64)> {
    let w = Words;
    let (measure, _) = setting(&before.kind);
    let stored: &[f64] = match &before.kind {
        SensorKind::Rain { thresholds_mm, .. } => thresholds_mm,
        SensorKind::Freeze { thresholds_c, .. } => thresholds_c,
        _ => &[],
    };
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

fn read_readings(form: &mut Form, units: Units) -> Vec<Reading> {
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
        let percent = form.needed(&pct_field, Measure::Plain, range::SOIL_READING, units);
        if let (Some(at), Some(percent)) = (at, percent) {
            readings.push(Reading { at, percent });
        }
    }
    readings
}
