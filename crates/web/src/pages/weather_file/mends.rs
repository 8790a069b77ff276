//! Lines that are mended on the page, before the file is imported.

use std::collections::{BTreeMap, HashSet};

use upland_formats::weather::{Amendments, Column, Table};

use crate::form::Form;
use crate::show::number;

/// A line whose cells can be typed anew, or that can be left out.
#[derive(Debug, Clone)]
pub(crate) struct MendLine {
    pub(crate) line: String,
    pub(crate) out_field: String,
    pub(crate) is_out: bool,
    pub(crate) cells: Vec<MendCell>,
}

#[derive(Debug, Clone)]
pub(crate) struct MendCell {
    pub(crate) field: String,
    pub(crate) header: String,
    pub(crate) value: String,
    /// Whether it is not what the file says.
    pub(crate) is_changed: bool,
}

const CELL: &str = "mend_";
const OUT: &str = "out_";

fn cell_field(line: u64, column: usize) -> String {
    format!("{CELL}{line}_{column}")
}

/// What a form changes of a file.
pub(crate) fn amendments(form: &Form) -> Amendments {
    let mut found = Amendments::default();
    for (field, text) in form.beginning(CELL) {
        let place = field.split_once('_').and_then(|(l, c)| Some((l.parse::<u64>().ok()?, c.parse::<usize>().ok()?)));
        if let Some((line, column)) = place {
            let cells: &mut BTreeMap<usize, String> = found.cells.entry(line).or_default();
            cells.insert(column, text.trim().to_owned());
        }
    }
    let lines = form.beginning(OUT).filter_map(|(line, _)| line.parse().ok());
    found.left_out = lines.collect::<HashSet<u64>>();
    found
}

/// The cells of some lines that the form has made something of.
pub(super) fn mend_lines(form: &Form, table: &Table, lines: &[u64]) -> BTreeMap<u64, MendLine> {
    let used: Vec<(usize, &String)> = table
        .headers()
        .iter()
        .enumerate()
        .filter(|(index, _)| Column::from_name(form.get(&format!("as_{index}"))).is_some())
        .collect();
    let changed = table.amendments();
    let mend = |line: u64, cells: &[String]| MendLine {
        line: number(line as f64, 0),
        out_field: format!("{OUT}{line}"),
        is_out: changed.left_out.contains(&line),
        cells: used
            .iter()
            .map(|(index, header)| MendCell {
                field: cell_field(line, *index),
                header: (*header).clone(),
                value: cells.get(*index).cloned().unwrap_or_default(),
                is_changed: changed.cells.get(&line).is_some_and(|own| own.contains_key(index)),
            })
            .collect(),
    };
    table.cells_of(lines).into_iter().map(|(line, cells)| (line, mend(line, &cells))).collect()
}
