//! What two versions of a document disagree on, by the names that people use.

mod paths;

use std::collections::{BTreeMap, BTreeSet};

use serde_json::Value;
use upland_core::controller::{Capability, Controller, Program, Station, Temporary};
use upland_core::field::{Fields, Kind};
use upland_core::place::Place;
use upland_core::sensor::Sensor;

use crate::pages::field_form::{choice_key, label_key, with_unit};
use crate::show::Units;
use crate::words::Words;

/// A value that the two sides disagree on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Difference {
    pub(crate) what: String,
    pub(crate) theirs: String,
    pub(crate) mine: String,
}

/// A value in a document, and the members that lead to it; stations and programs go by their
/// numbers and letters, so that a removed one does not shift those after it.
type Leaf<'a> = (Vec<String>, &'a Value);

/// The members that name an entry of a list: a station, a program, a sensor or a temporary setting.
const NAMING: [&str; 3] = ["number", "letter", "id"];

/// The values that differ, in the order of their paths.
pub(crate) fn differences(theirs: &Value, mine: &Value, units: Units) -> Vec<Difference> {
    let (mut left, mut right) = (Vec::new(), Vec::new());
    flatten(&mut Vec::new(), theirs, &mut left);
    flatten(&mut Vec::new(), mine, &mut right);
    let (left, right): (BTreeMap<_, _>, BTreeMap<_, _>) = (left.into_iter().collect(), right.into_iter().collect());
    let paths: BTreeSet<&Vec<String>> = left.keys().chain(right.keys()).collect();
    paths
        .into_iter()
        .filter_map(|path| {
            let (theirs, mine) = (left.get(path), right.get(path));
            (theirs != mine).then(|| Difference {
                what: name(path),
                theirs: theirs.map_or_else(|| absent(path), |v| shown(path, v, units)),
                mine: mine.map_or_else(|| absent(path), |v| shown(path, v, units)),
            })
        })
        .collect()
}

/// What a member that is not there means; most often nothing.
fn absent(path: &[String]) -> String {
    if path == ["base_month"] { Words.t("base-peak") } else { String::new() }
}

fn flatten<'a>(path: &mut Vec<String>, value: &'a Value, out: &mut Vec<Leaf<'a>>) {
    let depth = path.len();
    let mut within = |name: Option<String>, inner: &'a Value| {
        path.extend(name);
        flatten(path, inner, out);
        path.truncate(depth);
    };
    match value {
        Value::Object(members) => {
            // What names an entry of a list is in its path already.
            for (key, inner) in members.iter().filter(|(key, _)| !NAMING.contains(&key.as_str())) {
                within((key != "controller").then(|| key.clone()), inner);
            }
        }
        // Weekdays, starts, settings: one value, not one a place in the list.
        Value::Array(items) if !items.is_empty() && items.iter().all(|i| !i.is_object() && !i.is_array()) => {
            out.push((path.clone(), value));
        }
        Value::Array(items) => {
            for (index, inner) in items.iter().enumerate() {
                let name = NAMING.iter().find_map(|key| inner.get(key)).map(plain);
                within(Some(name.unwrap_or_else(|| (index + 1).to_string())), inner);
            }
        }
        // What is null is not there.
        Value::Null => {}
        leaf => out.push((path.clone(), leaf)),
    }
}

/// A line of a field table, whatever its thing.
struct Line {
    name: &'static str,
    kind: Kind,
    label: String,
}

/// A path within a thing that has a field table: what the thing is called, and the line that the path leads to.
fn tabled(path: &[String]) -> Option<(String, Line)> {
    fn line<T: Fields>(name: &str) -> Option<Line> {
        let field = T::field(name)?;
        Some(Line { name: field.name, kind: field.kind, label: Words.t(&label_key(field)) })
    }
    let w = Words;
    match path {
        [name] => line::<Place>(name).or_else(|| line::<Controller>(name)).map(|line| (String::new(), line)),
        [capability, name] if capability == "capability" => {
            line::<Capability>(name).map(|line| (w.t("changed-panel"), line))
        }
        [list, key, name] => {
            let (thing, line) = match list.as_str() {
                "stations" => ("changed-station", line::<Station>(name)),
                "programs" => ("changed-program", line::<Program>(name)),
                "sensors" => ("changed-sensor", line::<Sensor>(name)),
                "temporaries" => ("changed-temporary", line::<Temporary>(name)),
                _ => return None,
            };
            line.map(|line| (w.t1(thing, key), line))
        }
        _ => None,
    }
}

fn name(path: &[String]) -> String {
    match tabled(path) {
        Some((thing, line)) if thing.is_empty() => line.label,
        Some((thing, line)) => Words.t2("changed-of", ("thing", thing), ("field", line.label)),
        None => paths::name(path)
            .unwrap_or_else(|| path.iter().map(|part| part.replace('_', " ")).collect::<Vec<_>>().join(" · ")),
    }
}

/// A value as forms word it, with its unit.
fn shown(path: &[String], value: &Value, units: Units) -> String {
    let w = Words;
    let field = tabled(path).map(|(_, line)| line);
    match (field, value) {
        (_, Value::Bool(flag)) => w.t(if *flag { "yes" } else { "no" }),
        (Some(field), Value::String(word)) if matches!(field.kind, Kind::Choice(_)) => {
            w.t(&choice_key(field.name, word))
        }
        (Some(field), Value::Number(number)) => {
            number.as_f64().map_or_else(|| plain(value), |n| with_unit(&field.kind, n, units))
        }
        (Some(field), Value::Array(numbers)) if matches!(field.kind, Kind::Numbers { .. }) => {
            let figures = numbers.iter().filter_map(Value::as_f64).map(|n| with_unit(&field.kind, n, units));
            figures.collect::<Vec<_>>().join(", ")
        }
        (None, Value::String(word)) => paths::word(path, word).unwrap_or_else(|| word.clone()),
        _ => plain(value),
    }
}

fn plain(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Null => String::new(),
        Value::Array(items) => {
            paths::days(value).unwrap_or_else(|| items.iter().map(plain).collect::<Vec<_>>().join(", "))
        }
        other => other.to_string(),
    }
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    fn lines(theirs: &Value, mine: &Value, units: Units) -> Vec<String> {
        differences(theirs, mine, units).into_iter().map(|d| format!("{}: {} | {}", d.what, d.theirs, d.mine)).collect()
    }

    #[test]
    fn only_what_differs_is_shown_by_the_names_people_use() {
        let theirs =
            json!({"controller": {"name": "A", "stations": [{"number": 3, "soil": "loam", "rate_mm_h": 25.4}]}});
        let mine = json!({"controller": {"name": "A", "stations": [
            {"number": 3, "soil": "clay", "rate_mm_h": 12.7}, {"number": 4, "roofed": true}]}});
        assert_eq!(
            lines(&theirs, &mine, Units::Metric),
            [
                "Station 3, Rate: 25.4\u{a0}mm/h | 12.7\u{a0}mm/h",
                "Station 3, Soil: loam | clay",
                "Station 4, Roof:  | yes",
            ]
        );
        assert!(
            lines(&theirs, &mine, Units::Us).contains(&"Station 3, Rate: 1.00\u{a0}in/h | 0.50\u{a0}in/h".to_owned())
        );
    }

    #[test]
    fn an_entry_that_is_gone_is_told_by_its_values_and_not_by_its_number() {
        let theirs = json!({"temporaries": [{"id": 7, "reason": "wet week"}]});
        assert_eq!(
            lines(&theirs, &json!({"temporaries": []}), Units::Metric),
            ["Temporary setting 7, Reason: wet week | "]
        );
    }

    #[test]
    fn lengths_of_time_are_told_in_minutes_unless_they_are_shorter_than_half_of_one() {
        let station = |seconds: u32| json!({"stations": [{"number": 1, "cycle_s": seconds}]});
        assert_eq!(lines(&station(840), &station(90), Units::Us), ["Station 1, Cycle: 14\u{a0}min | 1.5\u{a0}min"]);
        let now = |seconds: u32| json!({"station_delay_s": seconds});
        assert_eq!(lines(&now(0), &now(20), Units::Metric), ["Station delay now: 0\u{a0}s | 20\u{a0}s"]);
        let delay = |seconds: u32| json!({"capability": {"station_delay_max_s": seconds}});
        let told = lines(&delay(5), &delay(3600), Units::Metric);
        assert!(told[0].ends_with(": 5\u{a0}s | 60\u{a0}min"), "{told:?}");
    }

    #[test]
    fn no_month_of_base_minutes_means_the_peak_whether_it_is_null_or_left_out() {
        let july = json!({"base_month": 7});
        for peak in [json!({}), json!({"base_month": null})] {
            assert_eq!(lines(&peak, &july, Units::Metric), ["Base minutes are for: the peak month | July"]);
            assert_eq!(lines(&peak, &json!({}), Units::Metric), [""; 0]);
        }
    }

    #[test]
    fn a_program_is_told_by_its_days_starts_and_months() {
        let program = |dial: Value, days: &[&str], starts: &[&str]| {
            json!({"programs": [{"letter": "A", "months": [{"dial": dial, "waterings": null}],
                "schedule": {"days": {"mode": "weekdays", "days": days}, "starts": starts, "split": 1}}]})
        };
        let before = program(json!("computed"), &["mon", "fri"], &["04:30"]);
        let after = program(json!("80"), &["mon", "wed", "fri"], &["04:30", "22:00"]);
        assert_eq!(
            lines(&before, &after, Units::Metric),
            [
                "Program A, percent of January: as worked out | 80\u{a0}%",
                "Program A, days: Mon, Fri | Mon, Wed, Fri",
                "Program A, starts: 04:30 | 04:30, 22:00",
            ]
        );
    }

    #[test]
    fn sensors_temporary_settings_and_places_are_told_in_their_words_and_units() {
        let sensor = |mm: f64, vent: &str| json!({"sensors": [{"id": 1, "threshold_mm": mm, "vent": vent, "thresholds_mm": [6.35, mm]}]});
        assert_eq!(
            lines(&sensor(12.7, "half"), &sensor(19.05, "open"), Units::Us),
            [
                "Sensor 1, Set to: 0.50\u{a0}in | 0.75\u{a0}in",
                "Sensor 1, Its settings: 0.25\u{a0}in, 0.50\u{a0}in | 0.25\u{a0}in, 0.75\u{a0}in",
                "Sensor 1, Vent ring: half open | open, dries fast",
            ]
        );
        let percent = |pct: u16| json!({"temporaries": [{"id": 2, "kind": "percent", "percent": pct}]});
        assert_eq!(
            lines(&percent(80), &percent(90), Units::Metric),
            ["Temporary setting 2, Percent: 80\u{a0}% | 90\u{a0}%"]
        );
        let place = |m: f64| json!({"name": "Hill", "elevation_m": m});
        assert_eq!(lines(&place(214.0), &place(300.0), Units::Metric), ["Elevation: 214\u{a0}m | 300\u{a0}m"]);
    }

    #[test]
    fn a_station_that_is_gone_does_not_shift_the_others() {
        let theirs = json!({"stations": [{"number": 1, "name": "Lawn"}, {"number": 2, "name": "Beds"}]});
        let mine = json!({"stations": [{"number": 2, "name": "Beds"}]});
        let found = lines(&theirs, &mine, Units::Metric);
        assert!(found.iter().all(|line| line.contains('1')), "{found:?}");
        assert!(lines(&theirs, &theirs, Units::Metric).is_empty());
    }
}
