//! Two weeks of a way to water: a bar for each watering, as high as it is deep.

use crate::show::Fixed;

/// A drawing of 140 by 32.
#[derive(Debug, Clone)]
pub(crate) struct Rhythm {
    /// Left edge of each bar.
    pub(crate) bars: Vec<Fixed>,
    pub(crate) top: Fixed,
    pub(crate) height: Fixed,
}

const DAY: f64 = 10.0;
const FOOT: f64 = 30.0;
const HIGHEST: f64 = 26.0;
/// No way waters more often.
const MOST: f64 = 7.0;

impl Rhythm {
    /// Waterings a week, and the depth of each as a share of the deepest, 0 to 1.
    pub(crate) fn draw(waterings: f64, share: f64) -> Self {
        let waterings = waterings.clamp(0.0, MOST);
        // Up to 14 of them.
        let count = (2.0 * waterings - 1e-9).ceil().max(0.0) as u32;
        let height = (HIGHEST * share.clamp(0.0, 1.0)).max(1.0);
        Self {
            bars: (0..count).map(|n| Fixed((f64::from(n) * 7.0 / waterings).round() * DAY + 1.0)).collect(),
            top: Fixed(FOOT - height),
            height: Fixed(height),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_bars_of_two_weeks_lie_as_far_apart_as_the_waterings() {
        let lefts = |waterings: f64| -> Vec<f64> { Rhythm::draw(waterings, 0.5).bars.iter().map(|b| b.0).collect() };
        assert_eq!(lefts(1.0), [1.0, 71.0]);
        assert_eq!(lefts(7.0).len(), 14);
        assert_eq!(lefts(0.5), [1.0], "every fortnight");
        assert_eq!(lefts(0.0), [0.0; 0]);
        assert_eq!(lefts(400.0).len(), 14);
        let drawn = Rhythm::draw(1.0, 2.0);
        assert_eq!((drawn.top.0, drawn.height.0), (4.0, 26.0));
    }
}
