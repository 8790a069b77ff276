//! The mapping that a form states.

use upland_formats::weather::{Assigned, Column, Mapping, MappingError, Table, Unit};

use super::columns::role_key;
use super::proposals::{Open, proposals};
use crate::form::Form;
use crate::words::Words;

/// The mapping that a form states, or what is still missing; a file that stands `beside` another station may be a
/// rain gauge's.
pub(super) fn mapping(form: &Form, table: &Table, beside: bool) -> Result<Mapping, Vec<Open>> {
    let proposals = proposals(form, table);
    let w = Words;
    let (mut assigned, mut open) = (Vec::new(), Vec::new());
    for (index, header) in table.headers().iter().enumerate() {
        let Some(column) = Column::from_name(form.get(&format!("as_{index}"))) else { continue };
        match Unit::from_name(form.get(&format!("unit_{index}"))).filter(|u| column.units().contains(u)) {
            Some(unit) => assigned.push(Assigned { index, column, unit }),
            None => open.push(Open {
                text: w.t2("file-open-unit", ("header", header), ("column", w.t(role_key(column)))),
                evidence: proposals.iter().find(|p| p.index == index).map_or_else(String::new, |p| p.words.clone()),
            }),
        }
    }
    let mapping = match Mapping::new(assigned.clone()) {
        Err(MappingError::Missing(Column::TMax | Column::TMin)) if beside => Mapping::of_gauge(assigned),
        other => other,
    };
    match mapping {
        Ok(mapping) if open.is_empty() => Ok(mapping),
        Ok(_) => Err(open),
        Err(error) => {
            let text = match error {
                MappingError::Missing(c) => w.t1("file-open-missing", w.t(role_key(c))),
                MappingError::Twice(c) => w.t1("file-open-twice", w.t(role_key(c))),
                MappingError::WrongUnit(c) | MappingError::NoSuchHeader { column: c, .. } => {
                    w.t1("file-open-missing", w.t(role_key(c)))
                }
            };
            // A column that waits for its unit is not missing.
            if open.is_empty() {
                open.push(Open { text, evidence: String::new() });
            }
            Err(open)
        }
    }
}
