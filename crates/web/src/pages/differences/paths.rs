//! Names of the members of a document that no field table has: the months and days of a program, lists of a sensor.

use serde_json::Value;
use upland_core::quantity::MonthOfYear;
use upland_formats::site::{DayDoc, days_of};

use crate::show::{day_list, month_long, percent};
use crate::words::Words;

/// `Program A, percent of June`; nothing for a member of another list.
pub(super) fn name(path: &[String]) -> Option<String> {
    let w = Words;
    let (list, key, rest) = match path {
        [list, key, rest @ ..] if !rest.is_empty() => (list.as_str(), key, rest),
        _ => return None,
    };
    let rest: Vec<&str> = rest.iter().map(String::as_str).collect();
    Some(match list {
        "programs" => w.t2("changed-of", ("thing", w.t1("changed-program", key)), ("field", program_member(&rest))),
        "sensors" => w.t2("changed-of", ("thing", w.t1("changed-sensor", key)), ("field", plain(&rest))),
        _ => return None,
    })
}

fn program_member(rest: &[&str]) -> String {
    let w = Words;
    match rest {
        ["months", month, member, ..] => {
            let key = if *member == "waterings" { "changed-month-waterings" } else { "changed-month" };
            let month = month.parse().ok().and_then(MonthOfYear::new);
            w.t1(key, month.map_or_else(String::new, month_long))
        }
        ["schedule", "days", ..] => w.t("changed-days"),
        ["schedule", "starts", ..] => w.t("changed-starts"),
        ["schedule", "never", ..] => w.t("changed-never"),
        ["schedule", "split", ..] => w.t("changed-split"),
        other => plain(other),
    }
}

/// A value that a program holds in a word of the document; nothing for what stands as it is.
pub(super) fn word(path: &[String], word: &str) -> Option<String> {
    let [list, _, rest @ ..] = path else { return None };
    if list != "programs" {
        return None;
    }
    let w = Words;
    let rest: Vec<&str> = rest.iter().map(String::as_str).collect();
    Some(match (&rest[..], word) {
        (["months", _, "dial", ..], "computed") => w.t("changed-computed"),
        (["months", _, "dial", ..], "off") => w.t("off"),
        (["months", _, "dial", ..], set) => percent(set.parse().ok()?),
        (["schedule", "days", "mode"], "weekdays") => w.t("changed-weekdays"),
        _ => return None,
    })
}

/// Weekdays as people write them; nothing for a list of something else.
pub(super) fn days(list: &Value) -> Option<String> {
    serde_json::from_value::<Vec<DayDoc>>(list.clone()).ok().map(|days| day_list(days_of(&days)))
}

fn plain(rest: &[&str]) -> String {
    rest.iter().map(|part| part.replace('_', " ")).collect::<Vec<_>>().join(", ")
}
