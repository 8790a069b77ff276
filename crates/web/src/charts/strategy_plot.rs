//! Strategies by how much of the demand they meet and how much water they lose.

use crate::show::Fixed;

/// A strategy as a point.
#[derive(Debug, Clone)]
pub(crate) struct PlotPoint {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) label: String,
    pub(crate) label_x: Fixed,
    pub(crate) label_y: Fixed,
    pub(crate) anchor: &'static str,
    pub(crate) mark: &'static str,
}

#[derive(Debug, Clone)]
pub(crate) struct StrategyPlot {
    pub(crate) points: Vec<PlotPoint>,
    /// Where enough begins.
    pub(crate) limit_x: Fixed,
    /// Where the words for enough stand, and which end of them.
    pub(crate) enough: (Fixed, &'static str),
    /// Width of what is not enough.
    pub(crate) dry_width: Fixed,
    pub(crate) x_ticks: Vec<(Fixed, String)>,
    pub(crate) y_ticks: Vec<(Fixed, String)>,
}

const LEFT: f64 = 50.0;
const RIGHT: f64 = 320.0;
const TOP: f64 = 8.0;
const BOTTOM: f64 = 140.0;
/// Where the highest label stands.
const HIGHEST: f64 = -5.0;
/// Least distance of two labels.
const LINE: f64 = 13.0;

impl StrategyPlot {
    /// `points`: label, adequacy, lost depth in the units of the page, mark. `limit`: what is enough.
    pub(crate) fn draw(points: &[(String, f64, f64, &'static str)], limit: f64) -> Self {
        let least = points.iter().map(|p| p.1).fold(limit, f64::min);
        // From a round share under the lowest one up to everything.
        let from = ((least - 0.01).max(0.0) * 20.0).floor() / 20.0;
        let most = nice(points.iter().map(|p| p.2).fold(1.0, f64::max));
        let x = |adequacy: f64| LEFT + (RIGHT - LEFT) * ((adequacy - from) / (1.0 - from)).clamp(0.0, 1.0);
        let y = |lost: f64| BOTTOM - (BOTTOM - TOP) * (lost / most).clamp(0.0, 1.0);
        let mut out: Vec<PlotPoint> = points
            .iter()
            .map(|(label, adequacy, lost, mark)| {
                let left = x(*adequacy) > f64::midpoint(LEFT, RIGHT);
                PlotPoint {
                    x: Fixed(x(*adequacy)),
                    y: Fixed(y(*lost)),
                    label: label.clone(),
                    label_x: Fixed(x(*adequacy) + if left { -9.0 } else { 9.0 }),
                    label_y: Fixed(y(*lost) + 4.0),
                    anchor: if left { "end" } else { "start" },
                    mark,
                }
            })
            .collect();
        apart(&mut out);
        let share = |i: i32| from + (1.0 - from) * f64::from(i) / 4.0;
        Self {
            points: out,
            limit_x: Fixed(x(limit)),
            // A limit far to the right leaves no room beside it.
            enough: if x(limit) > f64::midpoint(LEFT, RIGHT) {
                (Fixed(RIGHT), "end")
            } else {
                (Fixed(x(limit) + 5.0), "start")
            },
            dry_width: Fixed(x(limit) - LEFT),
            x_ticks: (0..=4).map(|i| (Fixed(x(share(i))), crate::show::number(share(i), 2))).collect(),
            y_ticks: (0..=2)
                .map(|i| (Fixed(y(most * f64::from(i) / 2.0)), crate::show::number(most * f64::from(i) / 2.0, 0)))
                .collect(),
        }
    }
}

/// Moves labels of one side apart: upwards from the lowest, and down again where that leads off the sheet.
fn apart(points: &mut [PlotPoint]) {
    for anchor in ["start", "end"] {
        let mut own: Vec<&mut PlotPoint> = points.iter_mut().filter(|p| p.anchor == anchor).collect();
        own.sort_by(|a, b| b.label_y.0.total_cmp(&a.label_y.0));
        let mut below = BOTTOM + LINE - 3.0;
        for point in &mut own {
            let at = point.label_y.0.min(below - LINE);
            point.label_y = Fixed(at);
            below = at;
        }
        own.reverse();
        let mut above = HIGHEST - LINE;
        for point in own {
            let at = point.label_y.0.max(above + LINE);
            point.label_y = Fixed(at);
            above = at;
        }
    }
}

/// A round number at or above a value.
fn nice(value: f64) -> f64 {
    let size = 10f64.powf(value.log10().floor());
    [1.0, 2.0, 4.0, 5.0, 10.0].into_iter().map(|n| n * size).find(|n| *n >= value).unwrap_or(value)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn labels(points: &[(f64, f64)]) -> Vec<f64> {
        let points: Vec<_> = points.iter().map(|(met, lost)| ("way".to_owned(), *met, *lost, "dot")).collect();
        let mut at: Vec<f64> = StrategyPlot::draw(&points, 0.9).points.iter().map(|p| p.label_y.0).collect();
        at.sort_by(f64::total_cmp);
        at
    }

    #[test]
    fn labels_stand_beside_their_points_where_there_is_room() {
        let at = labels(&[(0.95, 10.0), (0.95, 200.0), (0.95, 400.0)]);
        assert!(at.windows(2).all(|two| two[1] - two[0] > LINE), "{at:?}");
        assert_eq!(at.first(), Some(&(TOP + 4.0)), "what loses most stands at the top");
    }

    #[test]
    fn labels_of_many_ways_that_lose_alike_stay_apart_and_on_the_sheet() {
        for lost in [0.0, 100.0, 395.0, 400.0] {
            let at = labels(&[(0.99, lost); 8]);
            assert!(at.windows(2).all(|two| two[1] - two[0] >= LINE - 1e-9), "{at:?}");
            assert!(at.iter().all(|y| (HIGHEST..=BOTTOM + LINE).contains(y)), "{lost}: {at:?}");
        }
    }

    #[test]
    fn the_scale_ends_at_a_round_number() {
        assert_eq!([0.7, 1.0, 3.0, 41.0, 60.0, 100.0].map(nice), [1.0, 1.0, 4.0, 50.0, 100.0, 100.0]);
    }
}
