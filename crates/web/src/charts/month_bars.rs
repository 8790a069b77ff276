//! Twelve months as bars, January first.

use crate::show::Fixed;

/// A drawing of 120 by 40.
#[derive(Debug, Clone)]
pub(crate) struct MonthBars {
    /// Left edge, top and height of each.
    pub(crate) bars: Vec<(Fixed, Fixed, Fixed)>,
}

const MONTH: f64 = 10.0;
const FOOT: f64 = 38.0;
const HIGHEST: f64 = 36.0;

impl MonthBars {
    /// Bars of twelve figures; `most` reaches the top.
    pub(crate) fn draw(figures: &[f64; 12], most: f64) -> Self {
        let height = |figure: f64| if most > 0.0 { HIGHEST * (figure / most).clamp(0.0, 1.0) } else { 0.0 };
        let bars = figures.iter().zip(0u8..);
        Self {
            bars: bars
                .map(|(figure, month)| {
                    let height = height(*figure);
                    (Fixed(f64::from(month) * MONTH + 1.0), Fixed(FOOT - height), Fixed(height))
                })
                .collect(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_most_reaches_the_top_and_nothing_is_flat() {
        let mut figures = [0.0; 12];
        figures[6] = 30.0;
        let bars = MonthBars::draw(&figures, 30.0).bars;
        assert_eq!((bars[6].0.0, bars[6].1.0, bars[6].2.0), (61.0, 2.0, 36.0));
        assert!(bars.iter().enumerate().all(|(i, bar)| i == 6 || bar.2.0 == 0.0));
        assert!(MonthBars::draw(&figures, 0.0).bars.iter().all(|bar| bar.2.0 == 0.0));
    }
}
