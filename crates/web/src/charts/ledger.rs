//! A ledger: one stroke a value in the order of the panel, full when it is done. A panel with many values has
//! several lines of them.

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
    /// The foot of its strokes.
    pub(crate) foot: Fixed,
    pub(crate) label_y: Fixed,
    pub(crate) label: String,
    pub(crate) current: bool,
}

/// The flag of the value in hand.
#[derive(Debug, Clone, Copy)]
pub(crate) struct LedgerFlag {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
}

#[derive(Debug, Clone)]
pub(crate) struct Ledger {
    pub(crate) strokes: Vec<LedgerStroke>,
    pub(crate) groups: Vec<LedgerGroup>,
    pub(crate) flag: Option<LedgerFlag>,
    pub(crate) height: Fixed,
    pub(crate) done: usize,
    pub(crate) all: usize,
}

/// Width of the drawing.
const WIDTH: f64 = 362.0;
/// Between two groups.
const GAP: f64 = 11.0;
/// Width of a character of a label.
const CHARACTER: f64 = 6.6;
/// Foot of the strokes in their line.
const FOOT: f64 = 39.0;
/// Height of a line.
const LINE: f64 = 56.0;
/// A value narrower than this cannot be told from its neighbours.
const NARROWEST: f64 = 5.0;
/// Width of a value where there are several lines.
const USUAL: f64 = 7.0;

type Group = (String, Vec<LedgerValue>);

fn label_width(label: &str) -> f64 {
    label.chars().count() as f64 * CHARACTER
}

/// Width of a value: as wide as the drawing allows while no group is narrower than its label.
fn pitch(groups: &[Group]) -> f64 {
    let room = WIDTH - GAP * groups.len().saturating_sub(1) as f64;
    let mut pitch = 12.0_f64;
    // A group that becomes as narrow as its label takes no more part in the sharing.
    for _ in 0..groups.len() {
        let narrow = |(label, values): &&Group| values.len() as f64 * pitch < label_width(label);
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

/// Where lines end: one line while its values can be told apart, else as many as it takes.
fn lines(groups: &[Group]) -> Vec<&[Group]> {
    if pitch(groups) >= NARROWEST {
        return vec![groups];
    }
    let width = |(label, values): &Group| (values.len() as f64 * USUAL).max(label_width(label)) + GAP;
    let (mut out, mut from, mut x) = (Vec::new(), 0, 0.0);
    for (i, group) in groups.iter().enumerate() {
        if i > from && x + width(group) - GAP > WIDTH {
            out.push(&groups[from..i]);
            (from, x) = (i, 0.0);
        }
        x += width(group);
    }
    out.push(&groups[from..]);
    out
}

impl Ledger {
    /// Draws the groups of values in their order.
    pub(crate) fn draw(groups: &[Group]) -> Self {
        let all: usize = groups.iter().map(|(_, values)| values.len()).sum();
        let groups: Vec<Group> = groups.iter().filter(|(_, values)| !values.is_empty()).cloned().collect();
        let lines = lines(&groups);
        let height = Fixed(LINE * lines.len() as f64);
        let mut out = Self { strokes: Vec::new(), groups: Vec::new(), flag: None, done: 0, all, height };
        // One width for all of them, so that a stroke means the same everywhere.
        let pitch = lines.iter().map(|line| pitch(line)).fold(12.0, f64::min);
        for (line, top) in lines.into_iter().zip((0..).map(|n| f64::from(n) * LINE)) {
            out.draw_line(line, pitch, top);
        }
        out
    }

    fn draw_line(&mut self, groups: &[Group], pitch: f64, top: f64) {
        let mut x = 0.0;
        for (label, values) in groups {
            let from = x;
            for value in values {
                let height = if value.short { 14.0 } else { 26.0 };
                let class = match value {
                    LedgerValue { current: true, .. } => "lg-cur",
                    LedgerValue { done: true, .. } => "lg-done",
                    _ => "lg-todo",
                };
                if value.current {
                    self.flag = Some(LedgerFlag { x: Fixed(x + pitch / 2.0), y: Fixed(top + 1.0) });
                }
                self.done += usize::from(value.done);
                self.strokes.push(LedgerStroke {
                    x: Fixed(x + pitch * 0.14),
                    y: Fixed(top + FOOT - height),
                    width: Fixed(pitch * 0.72),
                    height: Fixed(height),
                    class,
                });
                x += pitch;
            }
            self.groups.push(LedgerGroup {
                from: Fixed(from),
                to: Fixed(x),
                middle: Fixed((from + x.max(from + label_width(label))) / 2.0),
                foot: Fixed(top + FOOT + 1.0),
                label_y: Fixed(top + FOOT + 14.0),
                label: label.clone(),
                current: values.iter().any(|v| v.current),
            });
            x = x.max(from + label_width(label)) + GAP;
        }
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

    #[test]
    fn a_panel_of_many_values_has_several_lines_of_strokes_that_can_be_told_apart() {
        let value = LedgerValue { done: false, short: false, current: false };
        let group = |name: &str, n| (name.to_owned(), vec![value; n]);
        let groups = [
            group("clock", 2),
            group("minutes", 12),
            group("A", 17),
            group("B", 17),
            group("C", 17),
            group("sensor", 12),
        ];
        let ledger = Ledger::draw(&groups);
        assert!(ledger.height.0 > LINE && ledger.strokes.len() == 77);
        for stroke in &ledger.strokes {
            assert!(stroke.width.0 >= NARROWEST * 0.72 && stroke.x.0 + stroke.width.0 <= WIDTH, "{stroke:?}");
        }
        // Nothing stands on anything else.
        for (i, a) in ledger.strokes.iter().enumerate() {
            let over = |b: &LedgerStroke| (a.x.0 - b.x.0).abs() < a.width.0 && (a.y.0 - b.y.0).abs() < 30.0;
            assert!(!ledger.strokes[i + 1..].iter().any(over));
        }
        let few = Ledger::draw(&[group("clock", 2), group("A", 5)]);
        assert_eq!(few.height.0, LINE);
    }
}
