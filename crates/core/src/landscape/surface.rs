//! Water that stands on the surface while a valve is open, and what of it runs off.

use super::soak::Runoff;

/// What runs off a surface over the openings of one station, mm, by each opening.
///
/// While the valve is open the surface gains the rate and loses the basic intake; what stands beyond
/// the allowable accumulation runs off; between openings it goes in at the intake. Source: own
/// account, on the same figures as the longest run of \[IA-LIS\].
///
/// Arguments: the limits of the station; the application rate there, mm/h (the driest quarter has its
/// own); openings in seconds, in their order.
///
/// ```
/// use upland_core::landscape::{Slope, Soil, runoff, runoff_mm};
/// // 40 mm/h on level clay: 5.08 mm may stand, 2.54 mm/h go in. After half an hour 18.73 mm have come
/// // too many, and 5.08 of them stand.
/// let clay = runoff(Soil::Clay, Slope::Level, 40.0);
/// assert!((runoff_mm(&clay, 40.0, &[(0, 1800)])[0] - (18.73 - 5.08)).abs() < 1e-9);
/// ```
#[must_use]
pub fn runoff_mm(limits: &Runoff, rate_mm_per_hour: f64, openings: &[(i64, i64)]) -> Vec<f64> {
    // A station without a limit takes water as it comes.
    if limits.longest_minutes.is_none() {
        return vec![0.0; openings.len()];
    }
    let hours = |seconds: i64| seconds as f64 / 3600.0;
    let (mut standing, mut shut) = (0.0_f64, None);
    openings
        .iter()
        .map(|&(opens, shuts)| {
            let rest = shut.map_or(0, |shut: i64| opens - shut);
            standing = (standing - limits.intake_mm_per_hour * hours(rest)).max(0.0);
            standing += (rate_mm_per_hour - limits.intake_mm_per_hour) * hours(shuts - opens);
            let lost = (standing - limits.accumulation_mm).max(0.0);
            standing = (standing - lost).max(0.0);
            shut = Some(shuts);
            lost
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::landscape::{Slope, Soil, runoff};

    #[test]
    fn a_run_up_to_the_limit_loses_nothing_and_a_soak_makes_room_for_the_next() {
        let limits = runoff(Soil::Loam, Slope::Moderate, 33.6);
        let longest = (limits.longest_minutes.unwrap() * 60.0).floor() as i64;
        let soak = (limits.soak_minutes * 60.0).ceil() as i64;
        assert_eq!(runoff_mm(&limits, 33.6, &[(0, longest)]), [0.0]);
        let second = longest + soak;
        assert_eq!(runoff_mm(&limits, 33.6, &[(0, longest), (second, second + longest)]), [0.0, 0.0]);
        // At once it is as one run of twice the length.
        let both = runoff_mm(&limits, 33.6, &[(0, longest), (longest, 2 * longest)]);
        let one = runoff_mm(&limits, 33.6, &[(0, 2 * longest)]);
        assert!((both[0] + both[1] - one[0]).abs() < 1e-9 && one[0] > 5.0);
    }

    #[test]
    fn where_the_soil_sets_no_limit_nothing_runs_off() {
        let limits = runoff(Soil::Sand, Slope::Steep, 10.0);
        assert_eq!(runoff_mm(&limits, 10.0, &[(0, 86_400)]), [0.0]);
    }
}
