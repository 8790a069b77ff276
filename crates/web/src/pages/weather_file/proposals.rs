//! Units that the values speak for, with the evidence in words.

use upland_formats::weather::{Column, Evidence, Proposal, Table, Unit, date_orders, propose_unit};

use super::columns::unit_key;
use crate::form::Form;
use crate::show::number;
use crate::words::Words;

/// Something that has to be chosen, and what the values say about it.
#[derive(Debug, Clone, Default)]
pub(crate) struct Open {
    pub(crate) text: String,
    pub(crate) evidence: String,
}

/// A unit proposed for a column that has none.
#[derive(Debug, Clone)]
pub(super) struct Proposed {
    pub(super) index: usize,
    /// None where the values can be read both ways.
    unit: Option<Unit>,
    pub(super) words: String,
}

/// What each column without a unit seems to be in.
pub(super) fn proposals(form: &Form, table: &Table) -> Vec<Proposed> {
    let columns: Vec<(usize, Column, Option<Unit>)> = (0..table.headers().len())
        .filter_map(|index| {
            let column = Column::from_name(form.get(&format!("as_{index}")))?;
            let unit = Unit::from_name(form.get(&format!("unit_{index}"))).filter(|u| column.units().contains(u));
            Some((index, column, unit))
        })
        .collect();
    let of = |index: usize, column: Column, metric: Option<bool>| propose_unit(column, &table.numbers(index), metric);
    // The wind goes by the temperatures, stated or proposed.
    let temperature = columns
        .iter()
        .filter(|(_, column, _)| matches!(column, Column::TMax | Column::TMin))
        .find_map(|(index, column, unit)| unit.or_else(|| of(*index, *column, None).map(|p| p.unit)));
    let metric = temperature.map(|unit| unit == Unit::Celsius);
    columns
        .into_iter()
        .filter(|(.., unit)| unit.is_none())
        .filter_map(|(index, column, _)| {
            if column == Column::Date {
                let both = date_orders(&table.texts(index)).len() > 1;
                return both.then(|| Proposed { index, unit: None, words: Words.t("propose-date") });
            }
            let proposal = of(index, column, metric)?;
            Some(Proposed { index, unit: Some(proposal.unit), words: words(&proposal) })
        })
        .collect()
}

/// Puts all proposed units into a form.
pub(crate) fn take_proposals(form: &mut Form, table: &Table) {
    for proposed in proposals(form, table) {
        if let Some(unit) = proposed.unit {
            form.set(&format!("unit_{}", proposed.index), unit.name());
        }
    }
}

/// How many units are proposed.
pub(super) fn proposed_units(form: &Form, table: &Table) -> usize {
    proposals(form, table).iter().filter(|p| p.unit.is_some()).count()
}

fn words(proposal: &Proposal) -> String {
    let w = Words;
    // "As in" would be misread.
    let unit = |unit: Unit| w.t(if unit == Unit::Inches { "unit-inches" } else { unit_key(unit) });
    let (key, other, value) = match proposal.evidence {
        Evidence::Hottest { other, celsius } => ("propose-hottest", other, number(celsius, 0)),
        Evidence::RainOfYear { other, mm } => ("propose-rain", other, number(mm, 0)),
        Evidence::MeanWind { other, ms } => ("propose-wind", other, number(ms, 1)),
        Evidence::StrongestSun { other, mj } => ("propose-sun", other, number(mj, 1)),
    };
    let [low, high] = proposal.ends.map(|value| number(value, 1));
    let range = w.with("propose-range", &[("low", &low), ("high", &high), ("unit", &unit(proposal.unit))]);
    format!("{range} {}", w.t2(key, ("unit", unit(other)), ("value", value)))
}
