//! Where the time of a start stands in the week's plate, so that it is read with its own bar.

/// Width of a label.
const WIDTH: f64 = 50.0;
/// How far a label moves along its own bar.
const ALONG: f64 = 30.0;

/// Left end and height over the row's top of a label whose bar goes from `x` to `end`; `taken` is where the last label
/// of the row ends, `others` where the bars of other starts begin. Over the bar, moved along it where two begin close
/// together; else behind the bar, unless another bar stands there: nothing then, rather than a time at a wrong bar.
pub(super) fn place(x: f64, end: f64, taken: f64, others: &[f64]) -> Option<(f64, f64)> {
    let over = x.max(taken + 4.0);
    if over - x < ALONG {
        return Some((over - 0.3, 14.0));
    }
    let behind = end.max(taken) + 24.0;
    let is_free = !others.iter().any(|begins| (end..behind + WIDTH).contains(begins));
    is_free.then_some((behind, 32.0))
}

/// Where a label ends that begins there.
pub(super) fn end_of(at: f64) -> f64 {
    at + WIDTH
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_label_stands_over_its_bar_or_behind_it_and_never_at_another() {
        assert_eq!(place(100.0, 160.0, f64::MIN, &[100.0]), Some((99.7, 14.0)));
        assert_eq!(place(100.0, 160.0, 110.0, &[100.0]), Some((113.7, 14.0)), "moved along its bar");
        assert_eq!(place(100.0, 160.0, 140.0, &[100.0]), Some((184.0, 32.0)), "behind its bar");
        assert_eq!(place(100.0, 160.0, 140.0, &[100.0, 200.0]), None, "another bar stands there");
        assert_eq!(end_of(99.7), 149.7);
    }
}
