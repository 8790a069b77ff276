/// Minutes that lay down a depth at a rate, even cover: `60 depth / rate`.
///
/// ```
/// use upland_core::landscape::{SprinklerType, minutes_for};
/// // Common practice: half an inch takes 24 minutes of spray.
/// let rate = SprinklerType::Spray.rate_mm_per_hour();
/// assert!((minutes_for(12.7, rate) - 24.0).abs() < 1e-9);
/// ```
#[must_use]
pub fn minutes_for(depth_mm: f64, rate_mm_per_hour: f64) -> f64 {
    60.0 * depth_mm / rate_mm_per_hour
}

/// Run-time multiplier for uneven cover: `1 / (0.4 + 0.6 DU_lq)`.
///
/// Source: \[IA-LIS\], the lower-half approximation. DU_lq 1 gives 1.
#[must_use]
pub fn run_multiplier(uniformity: f64) -> f64 {
    1.0 / (0.4 + 0.6 * uniformity)
}

/// Minutes that give a net depth with uneven cover:
/// `60 net / rate x multiplier`. Source: \[IA-LIS\].
#[must_use]
pub fn gross_minutes(net_depth_mm: f64, rate_mm_per_hour: f64, multiplier: f64) -> f64 {
    minutes_for(net_depth_mm, rate_mm_per_hour) * multiplier
}

#[cfg(test)]
mod tests {
    use super::super::SprinklerType;
    use super::*;

    /// Common practice: 12.7 mm takes 24, 52, 50 and 75 minutes.
    #[test]
    fn half_an_inch_by_sprinkler_type() {
        let types = [SprinklerType::Spray, SprinklerType::Rotor, SprinklerType::MultiStream, SprinklerType::Drip];
        let minutes = types.map(|t| minutes_for(12.7, t.rate_mm_per_hour()).round());
        assert_eq!(minutes, [24.0, 52.0, 50.0, 75.0]);
        let rates = types.map(|t| (t.rate_mm_per_hour() * 100.0).round() / 100.0);
        assert_eq!(rates, [31.75, 14.65, 15.24, 10.16]);
    }

    #[test]
    fn a_rate_by_type_lies_within_its_range() {
        for kind in SprinklerType::ALL {
            let [low, high] = kind.rate_range_mm_per_hour();
            assert!((low..=high).contains(&kind.rate_mm_per_hour()), "{kind:?}");
        }
    }

    #[test]
    fn even_cover_needs_no_more() {
        assert_eq!(run_multiplier(1.0), 1.0);
        // The worked example of a terrace with DU 0.62: 1 / 0.772.
        assert!((run_multiplier(0.62) - 1.2953).abs() < 1e-4);
    }
}
