//! Lanes of values one under another along a time axis.

use crate::show::{Fixed, Measure, Units, number};

/// Where the lanes begin and end, and where what is said of them stands.
pub(super) const LEFT: f64 = 46.0;
pub(super) const RIGHT: f64 = 778.0;
pub(super) const SIDE: f64 = 785.0;

/// The name of a lane and its unit.
#[derive(Debug, Clone)]
pub(crate) struct LaneName {
    pub(crate) y: Fixed,
    pub(crate) unit_y: Fixed,
    pub(crate) name: String,
    pub(crate) unit: &'static str,
}

impl LaneName {
    pub(super) fn new(y: f64, name: String, unit: &'static str) -> Self {
        Self { y: Fixed(y), unit_y: Fixed(y + 15.0), name, unit }
    }
}

#[derive(Debug, Clone)]
pub(crate) struct Label {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) text: String,
    pub(crate) strong: bool,
}

/// A lane: its height on the plate and the values at its ends.
#[derive(Debug, Clone, Copy)]
pub(super) struct Lane {
    pub(super) top: f64,
    pub(super) bottom: f64,
    pub(super) least: f64,
    pub(super) most: f64,
}

impl Lane {
    pub(super) fn y(&self, value: f64) -> f64 {
        let share = (value - self.least) / (self.most - self.least).max(1e-9);
        self.bottom - share.clamp(0.0, 1.0) * (self.bottom - self.top)
    }

    /// Round values within the lane, in the user's units.
    pub(super) fn scale(&self, measure: Measure, units: Units, most: usize) -> Vec<(Fixed, String)> {
        let [low, high] = [self.least, self.most].map(|si| measure.in_units(si, units));
        let span = high - low;
        let step = [0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0]
            .into_iter()
            .find(|step| span / step <= most as f64)
            .unwrap_or(1000.0);
        let first = (low / step).ceil() as i64;
        let last = (high / step).floor() as i64;
        let decimals = if step < 0.1 { 2 } else { usize::from(step < 1.0) };
        (first..=last)
            .map(|n| n as f64 * step)
            .map(|value| (Fixed(self.y(measure.to_si(value, units))), number(value, decimals)))
            .collect()
    }

    /// The same without the figures that would run into the name of the lane and its unit.
    pub(super) fn scale_below(&self, measure: Measure, units: Units, most: usize) -> Vec<(Fixed, String)> {
        let mut scale = self.scale(measure, units, most);
        for (_, text) in scale.iter_mut().filter(|(y, _)| y.0 < self.top + 36.0) {
            text.clear();
        }
        scale
    }
}
