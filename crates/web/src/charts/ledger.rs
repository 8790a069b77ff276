//! A ledger: one stroke a value in the order of the panel, full when it is done.

use crate::show::Fixed;

/// A value of the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct LedgerValue {
    /// Whether it is written down, or dialled.
    pub(crate) done: bool,
    /// Whether the slot must be off, which is drawn short.
    pub(crate) short: bool,
    /// Whether it is the one in hand.
    pub(crate) current: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct LedgerStroke {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) width: Fixed,
    pub(crate) height: Fixed,
    pub(crate) class: &'static str,
}

#[derive(Debug, Clone)]
pub(crate) struct LedgerGroup {
    pub(crate) from: Fixed,
    pub(crate) to: Fixed,
    pub(crate) middle: Fixed,
    pub(crate) label: String,
    pub(crate) current: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct Ledger {
    pub(crate) strokes: Vec<LedgerStroke>,
    pub(crate) groups: Vec<LedgerGroup>,
    /// Where the flag of the value in hand stands.
    pub(crate) flag: Option<Fixed>,
    pub(crate) done: usize,
    pub(crate) all: usize,
}

/// Width of the drawing.
const WIDTH: f64 = 362.0;
/// Between two groups.
const GAP: f64 = 11.0;
/// Width of a character of a label.
const CHARACTER: f64 = 6.6;
/// Foot of the strokes.
const FOOT: f64 = 39.0;

fn label_width(label: &str) -> f64 {
    label.chars().count() as f64 * CHARACTER
}

/// Width of a value: as wide as the drawing allows while no group is narrower than its label.
fn pitch(groups: &[(String, Vec<LedgerValue>)]) -> f64 {
    let room = WIDTH - GAP * groups.len().saturating_sub(1) as f64;
    let mut pitch = 12.0_f64;
    // A group that becomes as narrow as its label takes no more part in the sharing.
    for _ in 0..groups.len() {
        let narrow = |(label, values): &&(String, Vec<LedgerValue>)| values.len() as f64 * pitch < label_width(label);
        let taken: f64 = groups.iter().filter(narrow).map(|(label, _)| label_width(label)).sum();
        let values: usize = groups.iter().filter(|g| !narrow(g)).map(|(_, v)| v.len()).sum();
        let next = ((room - taken) / values.max(1) as f64).clamp(1.0, 12.0);
        if (next - pitch).abs() < 1e-6 {
            break;
        }
        pitch = next;
    }
    pitch
}

impl Ledger {
    /// Draws the groups of values in their order.
    pub(crate) fn draw(groups: &[(String, Vec<LedgerValue>)]) -> Self {
        let all: usize = groups.iter().map(|(_, values)| values.len()).sum();
        let pitch = pitch(groups);
        let mut out = Self { strokes: Vec::new(), groups: Vec::new(), flag: None, done: 0, all };
        let mut x = 0.0;
        for (label, values) in groups.iter().filter(|(_, values)| !values.is_empty()) {
            let from = x;
            for value in values {
                let height = if value.short { 14.0 } else { 26.0 };
                let class = match value {
                    LedgerValue { current: true, .. } => "lg-cur",
                    LedgerValue { done: true, .. } => "lg-done",
                    _ => "lg-todo",
                };
                if value.current {
                    out.flag = Some(Fixed(x + pitch / 2.0));
                }
                out.done += usize::from(value.done);
                out.strokes.push(LedgerStroke {
                    x: Fixed(x + pitch * 0.14),
                    y: Fixed(FOOT - height),
                    width: Fixed(pitch * 0.72),
                    height: Fixed(height),
                    class,
                });
                x += pitch;
            }
            out.groups.push(LedgerGroup {
                from: Fixed(from),
                to: Fixed(x),
                middle: Fixed((from + x.max(from + label_width(label))) / 2.0),
                label: label.clone(),
                current: values.iter().any(|v| v.current),
            });
            x = x.max(from + label_width(label)) + GAP;
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_largest_panel_fits_and_the_value_in_hand_is_flagged() {
        let value = LedgerValue { done: true, short: false, current: false };
        let groups = vec![
            ("clock".to_owned(), vec![value; 2]),
            ("minutes".to_owned(), vec![value; 48]),
            ("A".to_owned(), vec![value, LedgerValue { done: false, current: true, short: true }]),
        ];
        let ledger = Ledger::draw(&groups);
        assert_eq!((ledger.done, ledger.all), (51, 52));
        let right = ledger.strokes.iter().map(|s| s.x.0 + s.width.0).fold(0.0, f64::max);
        assert!(right <= WIDTH, "{right}");
        assert!(ledger.flag.is_some() && ledger.groups[2].current);
    }
}
