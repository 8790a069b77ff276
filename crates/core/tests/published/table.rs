//! Reading the tables of published values.

use std::collections::HashMap;

/// A row of a table by its headers.
pub(crate) type Row = HashMap<String, String>;

pub(crate) fn rows(file: &str) -> Vec<Row> {
    let path = format!("{}/tests/published/tables/{file}", env!("CARGO_MANIFEST_DIR"));
    csv::Reader::from_path(path).unwrap().deserialize().map(Result::unwrap).collect()
}

/// The printed values of an example, by quantity; a test asks for each and compares.
pub(crate) struct Example {
    name: String,
    rows: Vec<Row>,
}

impl Example {
    pub(crate) fn of(publication: &str, example: &str) -> Self {
        let rows: Vec<Row> = rows("published_examples.csv")
            .into_iter()
            .filter(|r| r["publication"] == publication && r["example"] == example)
            .collect();
        assert!(!rows.is_empty(), "no rows for {publication} {example}");
        Self { name: format!("{publication} {example}"), rows }
    }

    /// Asserts that a figure equals the printed one within the printed precision.
    pub(crate) fn agrees(&self, quantity: &str, figure: f64) {
        let row = self
            .rows
            .iter()
            .find(|r| r["quantity"] == quantity)
            .unwrap_or_else(|| panic!("{}: no {quantity}", self.name));
        let (printed, unit): (f64, f64) = (row["printed"].parse().unwrap(), row["tolerance"].parse().unwrap());
        // Printed by hand from rounded steps: such a row is off by up to 1.5 units of its last digit.
        let tolerance = if row["agrees"] == "last_digit" { 3.0 * unit } else { unit };
        assert!(
            (figure - printed).abs() <= tolerance + 1e-9,
            "{} {quantity}: {figure} against {printed} ± {tolerance} ({}; {})",
            self.name,
            row["source"],
            row["confidence"]
        );
    }

    /// A number of the example's `inputs` column.
    pub(crate) fn input(&self, key: &str) -> f64 {
        let pair = self.rows[0]["inputs"]
            .split(';')
            .find_map(|p| p.strip_prefix(&format!("{key}=")))
            .unwrap_or_else(|| panic!("{}: no input {key} in {}", self.name, self.rows[0]["inputs"]));
        pair.parse().unwrap_or_else(|_| panic!("{}: {key} is {pair}", self.name))
    }
}
