//! Documents of older versions, brought to the present one.
//!
//! One function a kind of document and one step a version. A step is never changed once documents
//! of its version exist; `tests/golden` holds frozen documents of every version.

use serde_json::{Map, Value, json};

use super::{DocError, VERSION};

/// What a step changes in the members of a document.
type Step = fn(&mut Map<String, Value>);

/// The steps of a kind of document: from version 1, from version 2, and so on.
type Steps = [Step; VERSION as usize - 1];

const CONTROLLER: Steps = [controller_from_1, controller_from_2, controller_from_3];
const FIELD_RECORD: Steps = [field_record_from_1, unchanged, unchanged];
const SITE: Steps = [|site| each_controller(site, 0), |site| each_controller(site, 1), |site| each_controller(site, 2)];
const UNCHANGED: Steps = [unchanged; 3];

/// A controller's document as the present version has it.
///
/// # Errors
/// [`DocError::Version`] for a version that is not known.
pub fn controller(document: Value) -> Result<Value, DocError> {
    stepped("version", document, &CONTROLLER)
}

/// A place's document as the present version has it.
///
/// # Errors
/// [`DocError::Version`] for a version that is not known.
pub fn place(document: Value) -> Result<Value, DocError> {
    stepped("version", document, &UNCHANGED)
}

/// The document of a series of weather as the present version has it.
///
/// # Errors
/// [`DocError::Version`] for a version that is not known.
pub fn series(document: Value) -> Result<Value, DocError> {
    stepped("version", document, &UNCHANGED)
}

/// A field record as the present version has it.
///
/// # Errors
/// [`DocError::Version`] for a version that is not known.
pub fn field_record(document: Value) -> Result<Value, DocError> {
    // A dialling in has a `version` of its own, the controller's: the document's is its `format`.
    stepped("format", document, &FIELD_RECORD)
}

/// A site file as the present version has it, its controllers included.
///
/// # Errors
/// [`DocError::Version`] for a version that is not known.
pub fn site(document: Value) -> Result<Value, DocError> {
    stepped("version", document, &SITE)
}

fn unchanged(_: &mut Map<String, Value>) {}

/// Takes every controller of a site file one version on.
fn each_controller(site: &mut Map<String, Value>, step: usize) {
    for controller in site.get_mut("controllers").and_then(Value::as_array_mut).into_iter().flatten() {
        if let Some(fields) = controller.as_object_mut() {
            CONTROLLER[step](fields);
            fields.insert("version".into(), json!(step + 2));
        }
    }
}

/// Takes a document from its version to the present one; without a version it is of version 1.
fn stepped(key: &str, mut document: Value, steps: &Steps) -> Result<Value, DocError> {
    let Some(fields) = document.as_object_mut() else { return Ok(document) };
    let version = fields.get(key).map_or(Some(1), Value::as_u64).unwrap_or(0);
    let known = usize::try_from(version).ok().filter(|v| (1..=steps.len() + 1).contains(v));
    let first = known.ok_or(DocError::Version(version))? - 1;
    for step in &steps[first..] {
        step(fields);
    }
    fields.insert(key.into(), json!(VERSION));
    Ok(document)
}

/// Version 2 gathers what a panel can be set to in one object, and gives sensors and temporary
/// settings an id. A bypass named its sensor by its place in the list, from 1: those become the ids.
fn controller_from_1(fields: &mut Map<String, Value>) {
    let mut capability = match fields.remove("ability") {
        Some(Value::Object(ability)) => ability,
        _ => Map::new(),
    };
    for (old, new) in [
        ("station_count", "stations"),
        ("run_step_s", "run_step_s"),
        ("run_max_s", "run_max_s"),
        ("watering_days", "watering_days"),
    ] {
        if let Some(value) = fields.remove(old) {
            capability.insert(new.into(), value);
        }
    }
    if let Some(Value::Object(percent)) = fields.remove("percent") {
        capability.extend(percent.into_iter().map(|(key, value)| (format!("percent_{key}"), value)));
    }
    fields.insert("capability".into(), Value::Object(capability));
    for list in ["sensors", "temporaries"] {
        let entries = fields.get_mut(list).and_then(Value::as_array_mut).into_iter().flatten();
        for (id, entry) in (1..).zip(entries) {
            if let Some(entry) = entry.as_object_mut() {
                entry.insert("id".into(), json!(id));
            }
        }
    }
}

/// Version 3 tells plantings, exposures and sprinklers by a grain of its own. Each old word becomes what it stood
/// for, so that no figure changes: plants native to the place were shrubs of low need with deep roots.
fn controller_from_2(fields: &mut Map<String, Value>) {
    for station in fields.get_mut("stations").and_then(Value::as_array_mut).into_iter().flatten() {
        let Some(station) = station.as_object_mut() else { continue };
        if station.get("plant") == Some(&json!("natives")) {
            station.insert("plant".into(), json!("shrubs"));
            station.insert("need".into(), json!("low"));
            let roots = station.entry("root_depth_m").or_insert(Value::Null);
            if roots.is_null() {
                *roots = json!(0.6);
            }
        }
        if station.get("sprinkler") == Some(&json!("rotary_nozzle")) {
            station.insert("sprinkler".into(), json!("multi_stream"));
        }
        if let Some(sun) = station.remove("sun") {
            let exposure = match sun.as_str() {
                Some("quarter_shade") => json!("dappled"),
                Some("half_shade") => json!("shaded"),
                Some("reflected_heat") => json!("warm"),
                _ => sun,
            };
            station.insert("exposure".into(), exposure);
        }
    }
}

/// Version 4 keeps what a sensor or a temporary setting is set to among its other fields, and calls the two dials
/// of an ET sensor what they are called everywhere.
fn controller_from_3(fields: &mut Map<String, Value>) {
    for list in ["sensors", "temporaries"] {
        let entries = fields.get_mut(list).and_then(Value::as_array_mut).into_iter().flatten();
        for entry in entries.filter_map(Value::as_object_mut) {
            if let Some(Value::Object(setting)) = entry.remove("setting") {
                entry.extend(setting);
            }
            for (old, new) in [("class", "climate"), ("trim", "offset")] {
                if let Some(value) = entry.remove(old) {
                    entry.insert(new.into(), value);
                }
            }
            if let Some(Value::Object(proof)) = entry.remove("proven") {
                entry.extend(proof.into_iter().map(|(key, value)| (format!("proven_{key}"), value)));
            }
        }
    }
}

/// Version 2 keeps values as values. Version 1 kept the words that were shown: minutes, starts and
/// percents read back from them; days do not, so those slots count as not dialled. A change that
/// was proposed on a round stays in its words.
fn field_record_from_1(fields: &mut Map<String, Value>) {
    if let Some(Value::Array(values)) = fields.get_mut("values") {
        let typed = values
            .iter()
            .filter_map(|pair| Some(json!([pair[0], dialled_value(pair[0].as_str()?, pair[1].as_str()?)?])));
        *values = typed.collect();
    }
    if let Some(Value::String(words)) = fields.get("change").cloned() {
        let change = if words.is_empty() { Value::Null } else { json!({ "words": words }) };
        fields.insert("change".into(), change);
    }
    if fields.contains_key("our_next") {
        fields.insert("our_next".into(), Value::Null);
    }
    if let Some(Value::String(words)) = fields.get("panel_next").cloned() {
        let next = if words.is_empty() { json!("not_seen") } else { json!({ "words": words }) };
        fields.insert("panel_next".into(), next);
    }
}

fn dialled_value(slot: &str, words: &str) -> Option<Value> {
    let kind = slot.split('.').find(|part| part.len() > 1)?;
    match kind {
        "minutes" | "cycle" | "soak" => {
            let minutes: f64 = words.parse().ok()?;
            Some(json!({ "run_s": (minutes * 60.0).round() as i64 }))
        }
        "start" if words == "off" => Some(json!("off")),
        "start" => Some(json!({ "start": words })),
        "percent" if words == "off" => Some(json!("off")),
        "percent" => Some(json!({ "percent": words.parse::<u16>().ok()? })),
        "sensor" => Some(json!(if words == "active" { "sensor_active" } else { "sensor_bypassed" })),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_version_that_is_not_known_is_refused() {
        assert_eq!(controller(json!({ "version": 5 })), Err(DocError::Version(5)));
        assert_eq!(controller(json!({ "version": "x" })), Err(DocError::Version(0)));
    }

    #[test]
    fn words_of_a_dialled_panel_become_values() {
        let old = json!({ "record": "dialled", "values": [["minutes.3", "12.5"], ["A.start.1", "04:30"],
            ["A.start.2", "off"], ["B.percent.3", "85"], ["percent", "off"], ["sensor", "active"], ["A.days", "Mon"]] });
        let new = field_record(old).unwrap();
        assert_eq!(
            new["values"],
            json!([["minutes.3", {"run_s": 750}], ["A.start.1", {"start": "04:30"}], ["A.start.2", "off"],
                ["B.percent.3", {"percent": 85}], ["percent", "off"], ["sensor", "sensor_active"]])
        );
        assert_eq!(new["format"], json!(VERSION));
    }
}
