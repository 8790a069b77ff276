use std::fmt::Write;

use crate::show::Fixed;

/// The `d` of a path, written piece by piece.
#[derive(Debug, Clone, Default)]
pub(crate) struct PathData(String);

impl PathData {
    /// A stroke from one height to another.
    pub(crate) fn stroke(&mut self, x: f64, from: f64, to: f64) {
        // Writing into a string cannot fail.
        let _ = write!(self.0, "M{} {}V{}", Fixed(x), Fixed(from), Fixed(to));
    }

    /// A level stroke.
    pub(crate) fn across(&mut self, from: f64, to: f64, y: f64) {
        let _ = write!(self.0, "M{} {}H{}", Fixed(from), Fixed(y), Fixed(to));
    }

    /// A bar from one height to another, open below, as a closed outline.
    pub(crate) fn bar(&mut self, left: f64, right: f64, from: f64, to: f64) {
        let [left, right, from, to] = [left, right, from, to].map(Fixed);
        let _ = write!(self.0, "M{left} {from}V{to}H{right}V{from}");
    }

    /// A line through points.
    pub(crate) fn line(points: impl IntoIterator<Item = (f64, f64)>) -> Self {
        let mut path = Self::default();
        for (index, (x, y)) in points.into_iter().enumerate() {
            let _ = write!(path.0, "{}{} {}", if index == 0 { 'M' } else { 'L' }, Fixed(x), Fixed(y));
        }
        path
    }

    /// A line that is broken where there is no point.
    pub(crate) fn broken(points: impl IntoIterator<Item = Option<(f64, f64)>>) -> Self {
        let mut path = Self::default();
        let mut pen_down = false;
        for point in points {
            if let Some((x, y)) = point {
                let _ = write!(path.0, "{}{} {}", if pen_down { 'L' } else { 'M' }, Fixed(x), Fixed(y));
            }
            pen_down = point.is_some();
        }
        path
    }

    /// A stepped line: each level from one edge to the next.
    pub(crate) fn steps(levels: impl IntoIterator<Item = (f64, f64, f64)>) -> Self {
        let mut path = Self::default();
        for (index, (from, to, y)) in levels.into_iter().enumerate() {
            if index == 0 {
                let _ = write!(path.0, "M{} {}", Fixed(from), Fixed(y));
            } else {
                let _ = write!(path.0, "V{}", Fixed(y));
            }
            let _ = write!(path.0, "H{}", Fixed(to));
        }
        path
    }

    pub(crate) fn into_string(self) -> String {
        self.0
    }
}
