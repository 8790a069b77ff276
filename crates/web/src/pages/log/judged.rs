//! How the stations were judged, round by round.

use upland_core::controller::Controller;
use upland_core::tuning::Judgement;
use upland_formats::site::FieldDoc;

use crate::context::FieldRecord;
use crate::show::date_tiny;
use crate::words::Words;

/// The ground of a station on a round.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct JudgedCell {
    /// Class of the cell: `dry`, `right`, `wet`, or nothing where it was not judged.
    pub(crate) class: &'static str,
    pub(crate) word: String,
}

/// Stations down, rounds across, the newest at the right.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub(crate) struct JudgedTable {
    pub(crate) rounds: Vec<String>,
    pub(crate) rows: Vec<(String, Vec<JudgedCell>)>,
}

/// Rounds that have room beside each other.
const MOST: usize = 6;

pub(crate) const fn word_key(judgement: Judgement) -> &'static str {
    match judgement {
        Judgement::Dry => "ground-dry",
        Judgement::Right => "ground-right",
        Judgement::Wet => "ground-wet",
    }
}

const fn class(judgement: Judgement) -> &'static str {
    match judgement {
        Judgement::Dry => "dry",
        Judgement::Right => "right",
        Judgement::Wet => "wet",
    }
}

impl JudgedTable {
    /// The last rounds of a controller; `records` are newest first. Nothing before the first round.
    pub(crate) fn of(records: &[FieldRecord], controller: &Controller) -> Option<Self> {
        let mut rounds: Vec<_> = records
            .iter()
            .filter_map(|record| match &record.document {
                FieldDoc::Round(doc) => Some(doc),
                _ => None,
            })
            .take(MOST)
            .collect();
        rounds.reverse();
        let judged = |number: u8| rounds.iter().any(|r| r.stations.iter().any(|(n, _)| *n == number));
        let rows: Vec<_> = controller
            .stations
            .iter()
            .filter(|s| judged(s.number))
            .map(|s| {
                let cells = rounds.iter().map(|round| {
                    let ground = round.stations.iter().find(|(n, _)| *n == s.number).map(|(_, g)| Judgement::from(*g));
                    match ground {
                        Some(j) => JudgedCell { class: class(j), word: Words.t(word_key(j)) },
                        None => JudgedCell { class: "", word: "·".into() },
                    }
                });
                (format!("{} {}", s.number, s.name), cells.collect())
            })
            .collect();
        (!rows.is_empty()).then(|| Self { rounds: rounds.iter().map(|r| date_tiny(r.on)).collect(), rows })
    }
}
