//! The history as a table: a row for every value that changed and everything that was seen.

use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use upland_core::tuning::Judgement;
use upland_formats::csv_of;
use upland_formats::site::FieldDoc;

use super::judged::word_key;
use super::record_entry;
use crate::context::{ChangeEntry, ControllerContext, FieldRecord};
use crate::pages::differences::differences;
use crate::show::Units;
use crate::words::Words;

const HEADER: [&str; 6] = ["at", "who", "what", "item", "old", "new"];

/// The history as CSV, newest first, times by the clock of the place.
pub(crate) fn as_csv(
    changes: &[ChangeEntry],
    records: &[FieldRecord],
    context: &ControllerContext,
    units: Units,
) -> String {
    let zone = context.at.zone;
    let mut rows: Vec<(DateTime<Utc>, Vec<Vec<String>>)> =
        changes.iter().map(|c| (c.at, of_change(c, zone, units))).collect();
    rows.extend(records.iter().map(|r| (r.at, of_record(r, context, units))));
    rows.sort_by_key(|(at, _)| std::cmp::Reverse(*at));
    csv_of(&HEADER, rows.into_iter().flat_map(|(_, rows)| rows))
}

fn row(at: DateTime<Utc>, zone: Tz, who: &str, what: &str, [item, old, new]: [String; 3]) -> Vec<String> {
    let at = at.with_timezone(&zone).format("%Y-%m-%dT%H:%M:%S%:z").to_string();
    vec![at, who.to_owned(), what.to_owned(), item, old, new]
}

fn of_change(change: &ChangeEntry, zone: Tz, units: Units) -> Vec<Vec<String>> {
    let what = Words.t(&change.why);
    let line = |cells| row(change.at, zone, &change.user_name, &what, cells);
    let (Some(before), Some(after)) = (&change.before, &change.after) else {
        return vec![line([String::new(), String::new(), String::new()])];
    };
    differences(before, after, units).into_iter().map(|d| line([d.what, d.theirs, d.mine])).collect()
}

fn of_record(record: &FieldRecord, context: &ControllerContext, units: Units) -> Vec<Vec<String>> {
    let controller = context.controller();
    let entry = record_entry(record, controller, "", units);
    let line = |cells| row(record.at, context.at.zone, &record.user_name, &entry.what, cells);
    let mut rows = vec![line([String::new(), String::new(), entry.more.join("; ")])];
    if let FieldDoc::Round(round) = &record.document {
        rows.extend(round.stations.iter().map(|(number, ground)| {
            let name = controller.station(*number).map_or_else(String::new, |s| s.name.clone());
            line([format!("{number} {name}"), String::new(), Words.t(word_key(Judgement::from(*ground)))])
        }));
    }
    rows
}
