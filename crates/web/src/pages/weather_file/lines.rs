//! Lines of a file with an error, or to be checked, in words.

use upland_core::climate::quality::DayIssue;
use upland_formats::weather::{Fault, FaultKind, Note, NoteKind};

use super::columns::role_key;
use super::mends::MendLine;
use crate::show::{Measure, Units, number};
use crate::words::Words;

/// A line with an error, or one to check.
#[derive(Debug, Clone)]
pub(crate) struct LineRow {
    pub(crate) key: String,
    pub(crate) line: String,
    pub(crate) date: String,
    pub(crate) what: String,
    /// Its cells, where they can be mended.
    pub(crate) mend: Option<MendLine>,
}

pub(super) fn fault_row(fault: &Fault, n: usize, mend: Option<MendLine>, units: Units) -> LineRow {
    let w = Words;
    let what = match &fault.kind {
        FaultKind::Cells { found, expected } => {
            w.t2("fault-cells", ("found", found.to_string()), ("expected", expected.to_string()))
        }
        FaultKind::NotADate(text) => w.t1("fault-date", text),
        FaultKind::NotANumber(column, text) => w.t2("fault-number", ("column", w.t(role_key(*column))), ("text", text)),
        FaultKind::Day(issue) => day_words(issue, units),
        FaultKind::Duplicate { first_line } => w.t1("fault-duplicate", number(*first_line as f64, 0)),
    };
    LineRow {
        key: n.to_string(),
        line: number(fault.line as f64, 0),
        date: fault.date.map_or_else(String::new, |d| d.to_string()),
        what,
        mend,
    }
}

pub(super) fn note_row(note: &Note, units: Units) -> LineRow {
    let w = Words;
    let what = match &note.kind {
        NoteKind::Day(issue) => day_words(issue, units),
        NoteKind::NoTemperature => w.t("note-no-temperature"),
        NoteKind::Gap { days } => w.count("note-gap", usize::try_from(*days).unwrap_or(0)),
        NoteKind::OutOfOrder => w.t("note-out-of-order"),
        NoteKind::Stuck { days } => w.count("note-stuck", *days),
    };
    LineRow { key: String::new(), line: number(note.line as f64, 0), date: note.date.to_string(), what, mend: None }
}

fn day_words(issue: &DayIssue, units: Units) -> String {
    let w = Words;
    match issue {
        DayIssue::OutOfRange(out) => w.with(
            "day-out-of-range",
            &[
                ("what", &w.t(quantity_key(out.range.what))),
                ("value", &number(out.value, 1)),
                ("allowed", &Measure::Plain.allowed(out.range, units)),
            ],
        ),
        DayIssue::TminAboveTmax { t_min, t_max } => {
            w.t2("day-crossed", ("lowest", number(*t_min, 1)), ("highest", number(*t_max, 1)))
        }
        DayIssue::OverSaturation { rh } => w.t1("day-over-saturation", number(*rh, 1)),
        DayIssue::RhMinAboveMax => w.t("day-rh-crossed"),
        DayIssue::DewPointAboveTmax => w.t("day-dew-point"),
        DayIssue::SolarAboveClearSky { solar, clear_sky } => {
            w.t2("day-solar", ("measured", number(*solar, 1)), ("most", number(*clear_sky, 1)))
        }
    }
}

fn quantity_key(what: &str) -> &'static str {
    match what {
        "temperature" => "quantity-temperature",
        "humidity" => "quantity-humidity",
        "wind" => "quantity-wind",
        "solar" => "quantity-solar",
        _ => "quantity-rain",
    }
}
