//! Doubtful values and what was decided about them, in words.

use std::collections::BTreeMap;

use upland_core::climate::element::Element;
use upland_core::climate::flags::{Doubt, Flag};
use upland_core::climate::review::{Decision, Verdict};

use crate::charts::PlateFlag;
use crate::form::Form;
use crate::show::{Measure, Units, date_long, date_short, number};
use crate::words::Words;

/// A doubtful value that nobody has decided about.
#[derive(Debug, Clone)]
pub(crate) struct FlagRow {
    pub(crate) number: usize,
    pub(crate) title: String,
    pub(crate) fact: String,
    pub(crate) from: String,
    pub(crate) to: String,
    pub(crate) element: &'static str,
    /// What the evidence favours is accepting; else excluding.
    pub(crate) accept_favoured: bool,
    pub(crate) unit: &'static str,
    /// What would be typed as the right value.
    pub(crate) value: String,
    pub(crate) reason: String,
    pub(crate) error: String,
    /// The kind of doubt, where all flags of it stand in this row.
    pub(crate) all: &'static str,
    /// One value, which can be corrected.
    pub(crate) single: bool,
}

/// A decision that stands.
#[derive(Debug, Clone)]
pub(crate) struct DecisionRow {
    pub(crate) date: String,
    pub(crate) day: String,
    pub(crate) element: &'static str,
    pub(crate) name: String,
    pub(crate) was: String,
    pub(crate) counts: String,
    pub(crate) reason: String,
}

/// The key of an element's word.
pub(crate) const fn element_key(element: Element) -> &'static str {
    match element {
        Element::TMax => "column-tmax",
        Element::TMin => "column-tmin",
        Element::RhMax => "column-rhmax",
        Element::RhMin => "column-rhmin",
        Element::RhMean => "column-rhmean",
        Element::DewPoint => "column-dewpoint",
        Element::Wind => "column-wind",
        Element::Solar => "column-solar",
        Element::Rain => "column-rain",
    }
}

/// The element in the words of a table.
pub(crate) fn element_name(element: Element) -> String {
    Words.t(element_key(element))
}

/// What an element is measured in.
pub(crate) const fn measure(element: Element) -> Measure {
    match element {
        Element::TMax | Element::TMin | Element::DewPoint => Measure::Temperature,
        Element::Wind => Measure::Wind,
        Element::Rain => Measure::Depth,
        Element::RhMax | Element::RhMin | Element::RhMean | Element::Solar => Measure::Plain,
    }
}

fn unit(element: Element, units: Units) -> &'static str {
    match element {
        Element::RhMax | Element::RhMin | Element::RhMean => "%",
        Element::Solar => "MJ/m²",
        other => measure(other).unit(units),
    }
}

/// A value with a decimal, which a doubt is often about, and its unit.
pub(crate) fn value_text(element: Element, value: f64, units: Units) -> String {
    let shown = measure(element).in_units(value, units);
    let decimals = if element == Element::Rain && units == Units::Us { 2 } else { 1 };
    format!("{}\u{a0}{}", number(shown, decimals), unit(element, units))
}

/// Flags of one kind that are decided one by one; more of them stand in one row and are decided together.
const SINGLY: usize = 4;

/// Rows of the flags that are still open, and their marks on the plate.
pub(crate) fn flag_rows(open: &[Flag], form: &Form, units: Units) -> (Vec<FlagRow>, Vec<PlateFlag>) {
    let mut kinds: BTreeMap<(&str, Element), Vec<&Flag>> = BTreeMap::new();
    for flag in open {
        kinds.entry((flag.doubt.word(), flag.element)).or_default().push(flag);
    }
    let mut groups: Vec<&[&Flag]> = Vec::new();
    for flags in kinds.values() {
        groups.extend(flags.chunks(if flags.len() > SINGLY { flags.len() } else { 1 }));
    }
    groups.sort_by_key(|flags| flags.first().map(|f| (f.from, f.element)));
    let (mut rows, mut marks) = (Vec::new(), Vec::new());
    for (flags, number) in groups.into_iter().zip(1..) {
        marks.extend(flags.iter().map(|flag| PlateFlag { number, date: flag.from, element: flag.element }));
        let (Some(first), Some(last)) = (flags.first(), flags.last()) else { continue };
        let mut row = flag_row(first, number, form, units);
        if flags.len() > 1 {
            row.title = Words.t2("flag-many", ("days", flags.len().to_string()), ("what", &row.title));
            row.fact = Words.t2("flag-many-fact", ("first", date_long(first.from)), ("last", date_long(last.to)));
            row.to = last.to.to_string();
            row.all = first.doubt.word();
            row.single = false;
        }
        rows.push(row);
    }
    (rows, marks)
}

fn flag_row(flag: &Flag, number: usize, form: &Form, units: Units) -> FlagRow {
    let w = Words;
    let text = |value| value_text(flag.element, value, units);
    let date = date_long(flag.from);
    let (title, fact) = match flag.doubt {
        Doubt::AboveClearSky { clear_sky } => (
            w.t("flag-clear-sky"),
            w.with(
                "flag-clear-sky-fact",
                &[("date", &date), ("value", &text(flag.value)), ("clear", &text(clear_sky))],
            ),
        ),
        Doubt::OverSaturation => {
            (w.t("flag-saturation"), w.t2("flag-saturation-fact", ("date", &date), ("value", text(flag.value))))
        }
        Doubt::AboveTMax { t_max } => (
            w.t("flag-dew-point"),
            w.with("flag-dew-point-fact", &[("date", &date), ("value", &text(flag.value)), ("high", &text(t_max))]),
        ),
        Doubt::Stuck { days } => (
            w.t1("flag-stuck", text(flag.value)),
            w.with(
                "flag-stuck-fact",
                &[("from", &date_short(flag.from)), ("to", &date_long(flag.to)), ("days", &days.to_string())],
            ),
        ),
        Doubt::UnlikeNeighbours { before, after } => (
            w.t2("flag-neighbours", ("element", element_name(flag.element)), ("value", text(flag.value))),
            w.with("flag-neighbours-fact", &[("date", &date), ("before", &text(before)), ("after", &text(after))]),
        ),
    };
    let sent = form.get("from") == flag.from.to_string() && form.is("element", flag.element.word());
    let kept = |field: &str, else_: String| if sent && form.has(field) { form.get(field).to_owned() } else { else_ };
    let suggested = flag.suggestion().map_or_else(String::new, |v| measure(flag.element).typed(v, units));
    FlagRow {
        number,
        title,
        fact,
        from: flag.from.to_string(),
        to: flag.to.to_string(),
        element: flag.element.word(),
        accept_favoured: flag.favoured() == Verdict::Accepted,
        unit: unit(flag.element, units),
        value: kept("value", suggested),
        reason: kept("reason", String::new()),
        error: if sent { form.error("value").to_owned() } else { String::new() },
        all: "",
        single: flag.from == flag.to,
    }
}

/// The decisions, newest day first.
pub(crate) fn decision_rows(decisions: &[Decision], units: Units) -> Vec<DecisionRow> {
    let w = Words;
    decisions
        .iter()
        .rev()
        .map(|d| {
            let text = |value: Option<f64>| {
                value.map_or_else(|| w.t("decision-nothing"), |value| value_text(d.element, value, units))
            };
            DecisionRow {
                date: date_long(d.date),
                day: d.date.to_string(),
                element: d.element.word(),
                name: element_name(d.element),
                was: text(d.original),
                counts: match d.verdict {
                    Verdict::Accepted => w.t("decision-accepted"),
                    Verdict::Excluded => w.t("decision-excluded"),
                    Verdict::Corrected(value) => text(Some(value)),
                },
                reason: d.reason.clone(),
            }
        })
        .collect()
}
