//! Catch cans as they stood, shaded by what they caught, the dry quarter marked.

use upland_core::landscape::CanTest;

use crate::show::{Fixed, Measure, Units};

#[derive(Debug, Clone)]
pub(crate) struct Can {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) text_x: Fixed,
    pub(crate) text_y: Fixed,
    pub(crate) text: String,
    /// 0 for far less than the mean to 4 for far more.
    pub(crate) level: u8,
    pub(crate) dry: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct CanMap {
    pub(crate) width: u32,
    pub(crate) height: u32,
    pub(crate) cell: Fixed,
    pub(crate) cans: Vec<Can>,
    pub(crate) unit: &'static str,
}

const WIDTH: f64 = 352.0;
const CELL_MOST: f64 = 64.0;
const GAP: f64 = 4.0;

/// By what share of the mean a can caught: one very full can does not make the others alike.
fn level(share: f64) -> u8 {
    match share {
        s if s < 0.65 => 0,
        s if s < 0.9 => 1,
        s if s < 1.1 => 2,
        s if s < 1.4 => 3,
        _ => 4,
    }
}

impl CanMap {
    pub(crate) fn draw(test: &CanTest, units: Units) -> Self {
        let columns = test.columns();
        let rows = test.catches().len().div_ceil(columns);
        let cell = ((WIDTH - GAP * (columns as f64 - 1.0)) / columns as f64).min(CELL_MOST);
        let height_of = cell * 0.66;
        let known = || test.catches().iter().flatten().copied();
        let mean = known().sum::<f64>() / known().count().max(1) as f64;
        let dry = test.is_dry();
        let cans = test
            .catches()
            .iter()
            .enumerate()
            .filter_map(|(at, catch)| {
                let catch = (*catch)?;
                let x = (at % columns) as f64 * (cell + GAP) + 1.0;
                let y = (at / columns) as f64 * (height_of + GAP) + 1.0;
                Some(Can {
                    x: Fixed(x),
                    y: Fixed(y),
                    text_x: Fixed(x + cell / 2.0),
                    text_y: Fixed(y + height_of / 2.0 + 5.0),
                    text: Measure::Depth.figure(catch, units),
                    level: level(catch / mean),
                    dry: dry[at],
                })
            })
            .collect();
        Self {
            width: (columns as f64 * (cell + GAP)) as u32 + 2,
            height: (rows as f64 * (height_of + GAP)) as u32 + 2,
            cell: Fixed(cell),
            cans,
            unit: Measure::Depth.unit(units),
        }
    }

    pub(crate) fn cell_height(&self) -> Fixed {
        Fixed(self.cell.0 * 0.66)
    }
}
