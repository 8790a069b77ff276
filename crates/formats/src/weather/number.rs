//! Numbers as loggers write them.

/// Words and numbers by which loggers say that a value is missing.
const MISSING: [&str; 9] = ["na", "n/a", "nan", "null", "none", "m", "-", "--", "---"];
const MISSING_NUMBERS: [f64; 6] = [-999.0, -9999.0, -999.9, -99.9, -6999.0, -7999.0];

/// The number of a cell; `Some(None)` for a missing value, `None` for what is no number.
pub(super) fn number(cell: &str, decimal_comma: bool) -> Option<Option<f64>> {
    let cell = cell.trim();
    let value = if decimal_comma { cell.replacen(',', ".", 1).parse() } else { cell.parse::<f64>() };
    match value.ok().filter(|v| v.is_finite()) {
        Some(value) => Some(Some(value).filter(|v| !MISSING_NUMBERS.contains(v))),
        None if cell.is_empty() || MISSING.iter().any(|word| cell.eq_ignore_ascii_case(word)) => Some(None),
        None => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_are_read_as_loggers_write_them() {
        let read = |cell: &str, comma: bool| number(cell, comma);
        for missing in ["", " ", "NA", "n/a", "NaN", "null", "-", "---", "-999", "-9999.0", "-6999"] {
            assert_eq!(read(missing, false), Some(None), "{missing:?}");
        }
        for wrong in ["x", "1,5", "inf", "1.5.2", "0x10", "12 C"] {
            assert_eq!(read(wrong, false), None, "{wrong:?}");
        }
        assert_eq!([read(" -3.25 ", false), read("1e-3", false)], [Some(Some(-3.25)), Some(Some(0.001))]);
        assert_eq!(
            [read("1,5", true), read("1.5", true), read("1,500,2", true)],
            [Some(Some(1.5)), Some(Some(1.5)), None]
        );
    }
}
