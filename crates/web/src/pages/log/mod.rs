//! A controller's log: what was changed, found, dialled and seen, in one line of time.

mod judged;
mod table;

use crate::context::{ChangeEntry, ControllerContext, FieldRecord};
use chrono::{DateTime, Utc};
use upland_core::controller::Controller;
use upland_formats::site::{Answer, FieldDoc, PanelNextDoc};

use super::dial::next_words;
use super::differences::differences;
use super::measure::way_name;
use super::round::change_line;
use super::shell::Shell;
use super::spine::Spine;
use crate::charts::Strip;
use crate::show::{Measure, Units, clock, date_long, date_short};
use crate::words::Words;

pub(crate) use judged::JudgedTable;
pub(crate) use table::as_csv;

#[derive(askama::Template)]
#[template(path = "log.html")]
pub(crate) struct LogTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) days: Vec<LogDay>,
    pub(crate) judged: Option<JudgedTable>,
    pub(crate) csv_href: String,
}

/// The entries of a day.
#[derive(Debug, Clone)]
pub(crate) struct LogDay {
    pub(crate) date: String,
    pub(crate) entries: Vec<LogEntry>,
}

#[derive(Debug, Clone)]
pub(crate) struct LogEntry {
    pub(crate) mark: &'static str,
    pub(crate) time: String,
    pub(crate) who: String,
    pub(crate) what: String,
    pub(crate) more: Vec<String>,
    pub(crate) href: String,
}

/// Changes and records in one line of time, newest first.
pub(crate) fn days(
    changes: &[ChangeEntry],
    records: &[FieldRecord],
    context: &ControllerContext,
    href: &str,
    units: Units,
) -> Vec<LogDay> {
    let (controller, zone) = (context.controller(), context.at.zone);
    let mut all: Vec<(DateTime<Utc>, LogEntry)> = changes
        .iter()
        .map(|c| (c.at, change_entry(c, units)))
        .chain(records.iter().map(|r| (r.at, record_entry(r, controller, href, units))))
        .collect();
    all.sort_by_key(|(at, _)| std::cmp::Reverse(*at));
    let mut days: Vec<LogDay> = Vec::new();
    for (at, mut entry) in all {
        let local = at.with_timezone(&zone);
        entry.time = clock(local.naive_local());
        let date = date_long(local.date_naive());
        match days.last_mut() {
            Some(day) if day.date == date => day.entries.push(entry),
            _ => days.push(LogDay { date, entries: vec![entry] }),
        }
    }
    days
}

/// Values that an entry shows; the rest is counted.
const MOST_VALUES: usize = 4;

fn change_entry(c: &ChangeEntry, units: Units) -> LogEntry {
    let w = Words;
    let changed = match (&c.before, &c.after) {
        (Some(before), Some(after)) => differences(before, after, units),
        _ => Vec::new(),
    };
    let side = |text: &str| if text.is_empty() { w.t("log-nothing") } else { text.to_owned() };
    let mut more: Vec<String> = changed
        .iter()
        .take(MOST_VALUES)
        .map(|d| w.with("log-value", &[("what", &d.what), ("old", &side(&d.theirs)), ("new", &side(&d.mine))]))
        .collect();
    if changed.len() > MOST_VALUES {
        more.push(w.count("log-more-values", changed.len() - MOST_VALUES));
    }
    if more.is_empty() {
        more.push(w.t1("log-version", c.version.to_string()));
    }
    LogEntry {
        mark: "right",
        time: String::new(),
        who: c.user_name.clone(),
        what: w.t(&c.why),
        more,
        href: String::new(),
    }
}

fn record_entry(record: &FieldRecord, controller: &Controller, href: &str, units: Units) -> LogEntry {
    let w = Words;
    let (mark, what, more, href) = match &record.document {
        FieldDoc::Found(_) => ("flag", w.t("why-found"), Vec::new(), format!("{href}/as-found?of={}", record.id)),
        FieldDoc::Dialled(d) => {
            let mut more = vec![w.t1("log-look-again", date_short(d.look_again))];
            if !d.not_set.is_empty() {
                more.insert(0, w.count("log-not-set", d.not_set.len()));
            }
            let ours = next_words(d.our_next.as_ref());
            match &d.panel_next {
                PanelNextDoc::NotSeen => {}
                PanelNextDoc::Same => more.insert(0, w.t2("log-next", ("panel", &ours), ("ours", &ours))),
                PanelNextDoc::Words(words) => more.insert(0, w.t2("log-next", ("panel", words), ("ours", &ours))),
            }
            ("done", w.count("log-dialled", d.values.len()), more, String::new())
        }
        FieldDoc::Measured(d) => {
            let name = controller.station(d.station).map_or_else(|| d.station.to_string(), |s| s.name.clone());
            let mut more = vec![w.t1("log-measured-by", way_name(d))];
            if !d.note.is_empty() {
                more.push(d.note.clone());
            }
            let what = w.t2("log-measured", ("station", name), ("rate", Measure::Rate.show(d.rate_mm_h, units)));
            ("measured", what, more, String::new())
        }
        FieldDoc::Round(d) => {
            let answer = match d.answer {
                Answer::Accepted => w.t1("log-accepted", change_line(d.change.as_ref(), controller)),
                Answer::Rejected => {
                    w.t2("log-rejected", ("change", change_line(d.change.as_ref(), controller)), ("reason", &d.reason))
                }
                Answer::Nothing => w.t("round-no-change"),
            };
            let mut more = vec![answer, w.t1("log-look-again", date_short(d.look_again))];
            if !d.note.is_empty() {
                more.push(d.note.clone());
            }
            ("measured", w.count("log-round", d.stations.len()), more, String::new())
        }
    };
    LogEntry { mark, time: String::new(), who: record.user_name.clone(), what, more, href }
}
