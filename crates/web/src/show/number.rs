use upland_core::budget::Dial;
use upland_core::quantity::RunTime;

use crate::words::Words;

/// A number with so many decimals, a true minus and a thin space between thousands.
pub(crate) fn number(value: f64, decimals: usize) -> String {
    let plain = format!("{:.decimals$}", value.abs());
    let (whole, fraction) = plain.split_once('.').map_or((plain.as_str(), None), |(w, f)| (w, Some(f)));
    let mut out = String::new();
    let zero = plain.bytes().all(|b| matches!(b, b'0' | b'.'));
    if value < 0.0 && !zero {
        out.push('\u{2212}');
    }
    for (index, digit) in whole.chars().enumerate() {
        let left = whole.len() - index;
        if index > 0 && left.is_multiple_of(3) && whole.len() > 4 {
            out.push('\u{202f}');
        }
        out.push(digit);
    }
    if let Some(fraction) = fraction {
        out.push('.');
        out.push_str(fraction);
    }
    out
}

/// A number with its sign, plus included; nothing before zero.
pub(crate) fn signed(value: f64, decimals: usize) -> String {
    let text = number(value, decimals);
    if value > 0.0 && text.chars().any(|c| matches!(c, '1'..='9')) { format!("+{text}") } else { text }
}

/// Waterings a week: whole where they are, else to a tenth, and to a hundredth under one.
pub(crate) fn times(a_week: f64) -> String {
    let decimals = if (a_week - a_week.round()).abs() < 1e-9 { 0 } else { 1 + usize::from(a_week < 1.0) };
    number(a_week, decimals)
}

/// `90 %` with a space that does not break.
pub(crate) fn percent(value: u16) -> String {
    format!("{value}\u{a0}%")
}

/// `90 %`, or off.
pub(crate) fn dial(dial: Dial) -> String {
    match dial {
        Dial::Off => Words.t("off"),
        Dial::Percent(p) => percent(p.get()),
    }
}

/// `90`, or off: where the unit stands beside it.
pub(crate) fn dial_figure(dial: Dial) -> String {
    match dial {
        Dial::Off => Words.t("off"),
        Dial::Percent(p) => p.get().to_string(),
    }
}

/// Minutes of a run, with a decimal only where it has seconds.
pub(crate) fn minutes(run: RunTime) -> String {
    number(run.minutes(), usize::from(!run.seconds().is_multiple_of(60)))
}

/// A coordinate of a drawing: one decimal, without a trailing zero.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct Fixed(pub(crate) f64);

impl std::fmt::Display for Fixed {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        // Whole numbers are written several times faster than fractions, and a chart has thousands of them.
        let tenths = (self.0 * 10.0).round() as i64;
        let sign = if tenths < 0 { "-" } else { "" };
        let (whole, tenth) = (tenths.unsigned_abs() / 10, tenths.unsigned_abs() % 10);
        if tenth == 0 { write!(f, "{sign}{whole}") } else { write!(f, "{sign}{whole}.{tenth}") }
    }
}

// Drawn numbers hold nothing that HTML could misread.
impl askama::filters::HtmlSafe for Fixed {}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_read_well() {
        assert_eq!(number(-3.25, 1), "\u{2212}3.2");
        assert_eq!(number(-0.04, 1), "0.0");
        assert_eq!(number(3814.0, 0), "3814");
        assert_eq!(number(36525.0, 0), "36\u{202f}525");
        assert_eq!(signed(1.6, 1), "+1.6");
        assert_eq!(signed(0.01, 1), "0.0");
        assert_eq!(Fixed(12.04).to_string(), "12");
        assert_eq!(Fixed(12.06).to_string(), "12.1");
        assert_eq!(Fixed(-0.52).to_string(), "-0.5");
        assert_eq!(Fixed(-3.0).to_string(), "-3");
        assert_eq!(Fixed(-0.04).to_string(), "0");
        assert_eq!(Fixed(f64::NAN).to_string(), "0");
    }
}
