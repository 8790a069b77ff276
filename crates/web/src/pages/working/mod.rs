//! The working of a figure: the formula with the numbers in it, its source, what was measured and
//! what was guessed, and whether a guess would change the answer.

mod compare;
mod month;
mod station;
mod weather;

use upland_core::landscape::Provenance;

use super::provenance::mark;
use crate::words::Words;

pub(crate) use compare::{CompareTemplate, CompareView, MOST};
pub(crate) use month::{Figure, MonthWorking};
pub(crate) use station::StationWorking;
pub(crate) use weather::Provenances;

/// A step of a working, one line.
#[derive(Debug, Clone)]
pub(crate) struct WorkStep {
    pub(crate) text: String,
    pub(crate) source: &'static str,
    pub(crate) expression: String,
    pub(crate) result: String,
    pub(crate) last: bool,
}

impl WorkStep {
    fn new(text: String, source: &'static str, expression: String, result: String) -> Self {
        Self { text, source, expression, result, last: false }
    }
}

/// How an input is known.
#[derive(Debug, Clone)]
pub(crate) struct Prov {
    pub(crate) name: String,
    pub(crate) value: String,
    pub(crate) mark: &'static str,
    pub(crate) how: String,
    pub(crate) note: String,
}

fn prov(name: &str, value: String, how: Provenance, note: String) -> Prov {
    let w = Words;
    let word = w.t(match how {
        Provenance::Measured => "how-measured",
        Provenance::Table => "how-table",
        Provenance::Guessed => "how-guessed",
    });
    Prov { name: w.t(name), value, mark: mark(how), how: word, note }
}
