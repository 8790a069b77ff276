//! A climate told in words, for a place of which nothing else is known.

use std::ops::RangeInclusive;

use super::normals::{MonthNormal, Normals};
use super::radiation::Sky;
use crate::quantity::MonthOfYear;

/// How wet the air of a climate is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Air {
    /// Humid and sub-humid.
    Humid,
    /// Arid and semi-arid.
    Arid,
}

/// How warm the days of a season are, night and day together.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Warmth {
    /// Around freezing.
    Cold,
    /// Around 10 °C.
    Cool,
    /// Around 20 °C.
    Moderate,
    /// Over 30 °C.
    Warm,
}

/// A climate in words.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ClimateInWords {
    /// Its air.
    pub air: Air,
    /// Its warmest months.
    pub summer: Warmth,
    /// Its coldest months.
    pub winter: Warmth,
}

/// Latitude from which on a place is not of the tropics and subtropics, degrees. Ours.
const TEMPERATE_FROM_DEG: f64 = 30.0;

impl ClimateInWords {
    /// Reference ET of days of a warmth, mm a day: the range that the words cover.
    ///
    /// Source: \[FAO-56\] table 2, p. 8 (values from memory). The table begins at 10 °C; the range around freezing is
    /// ours.
    #[must_use]
    pub fn et0_mm_per_day(self, latitude_deg: f64, warmth: Warmth) -> RangeInclusive<f64> {
        let is_temperate = latitude_deg.abs() >= TEMPERATE_FROM_DEG;
        match (is_temperate, self.air, warmth) {
            (_, _, Warmth::Cold) => 0.0..=1.0,
            (false, Air::Humid, Warmth::Cool) => 2.0..=3.0,
            (false, Air::Humid, Warmth::Moderate) => 3.0..=5.0,
            (false, Air::Humid, Warmth::Warm) => 5.0..=7.0,
            (false, Air::Arid, Warmth::Cool) => 2.0..=4.0,
            (false, Air::Arid, Warmth::Moderate) => 4.0..=6.0,
            (false, Air::Arid, Warmth::Warm) => 6.0..=8.0,
            (true, Air::Humid, Warmth::Cool) => 1.0..=2.0,
            (true, Air::Humid, Warmth::Moderate) => 2.0..=4.0,
            (true, Air::Humid, Warmth::Warm) => 4.0..=7.0,
            (true, Air::Arid, Warmth::Cool) => 1.0..=3.0,
            (true, Air::Arid, Warmth::Moderate) => 4.0..=7.0,
            (true, Air::Arid, Warmth::Warm) => 6.0..=9.0,
        }
    }

    /// The least and the most reference ET of each month that the words cover, mm a day, January first.
    ///
    /// Summer and winter are the months of most and of least extraterrestrial radiation (\[FAO-56\] eq. 21); the others
    /// lie between them as their radiation does. That the months go by the sun is ours.
    #[must_use]
    pub fn months(self, latitude_deg: f64) -> [[f64; 2]; 12] {
        let ra = MonthOfYear::ALL.map(|month| Sky::at(latitude_deg, MIDDLE_OF_MONTH[month.index()]).ra);
        let (least, most) = ra.iter().fold((f64::MAX, f64::MIN), |(low, high), r| (low.min(*r), high.max(*r)));
        let (winter, summer) =
            (self.et0_mm_per_day(latitude_deg, self.winter), self.et0_mm_per_day(latitude_deg, self.summer));
        ra.map(|ra| {
            let share = if most > least { (ra - least) / (most - least) } else { 1.0 };
            let between = |winter: f64, summer: f64| winter + share * (summer - winter);
            [between(*winter.start(), *summer.start()), between(*winter.end(), *summer.end())]
        })
    }

    /// Normals in the middle of what the words cover, with the rain of each month where it is known.
    #[must_use]
    pub fn normals(self, latitude_deg: f64, rain_mm: [Option<f64>; 12]) -> Normals {
        let months = self.months(latitude_deg);
        std::array::from_fn(|i| MonthNormal {
            et0_mm_per_day: f64::midpoint(months[i][0], months[i][1]),
            rain_mm: rain_mm[i],
        })
    }
}

/// The day of the year in the middle of each month of a common year.
const MIDDLE_OF_MONTH: [u32; 12] = [16, 45, 75, 105, 136, 166, 197, 228, 258, 289, 319, 350];

#[cfg(test)]
mod tests {
    use super::*;

    const HIGHLANDS: ClimateInWords = ClimateInWords { air: Air::Arid, summer: Warmth::Moderate, winter: Warmth::Cool };

    /// FAO-56 table 2: temperate, arid, 20 °C: 4 to 7; 10 °C: 1 to 3.
    #[test]
    fn summer_and_winter_are_those_of_the_table() {
        let months = HIGHLANDS.months(45.0);
        assert_eq!(months[5], [4.0, 7.0], "June");
        assert_eq!(months[11], [1.0, 3.0], "December");
        let normals = HIGHLANDS.normals(45.0, [None; 12]);
        assert!((normals[5].et0_mm_per_day - 5.5).abs() < 1e-9);
        assert!(normals[2].et0_mm_per_day > 2.0 && normals[2].et0_mm_per_day < 5.5, "March lies between");
    }

    #[test]
    fn in_the_south_summer_is_in_december() {
        let months = HIGHLANDS.months(-45.0);
        assert_eq!((months[11], months[5]), ([4.0, 7.0], [1.0, 3.0]));
    }

    #[test]
    fn near_the_equator_the_table_of_the_tropics_counts() {
        let humid = ClimateInWords { air: Air::Humid, summer: Warmth::Warm, winter: Warmth::Warm };
        assert!(humid.months(2.0).iter().all(|range| *range == [5.0, 7.0]));
        assert_eq!(humid.et0_mm_per_day(45.0, Warmth::Warm), 4.0..=7.0);
    }

    proptest::proptest! {
        #[test]
        fn drier_air_or_a_warmer_summer_never_asks_for_less(latitude in -66.0..66.0f64, winter in 0..4usize, more in 0..3usize) {
            let warmths = [Warmth::Cold, Warmth::Cool, Warmth::Moderate, Warmth::Warm];
            let (winter, summer) = (warmths[winter], warmths[(winter + more).min(3)]);
            let of = |air, summer| ClimateInWords { air, summer, winter }.normals(latitude, [None; 12]);
            let (humid, arid) = (of(Air::Humid, summer), of(Air::Arid, summer));
            let warm = of(Air::Humid, Warmth::Warm);
            for i in 0..12 {
                proptest::prop_assert!(arid[i].et0_mm_per_day >= humid[i].et0_mm_per_day);
                proptest::prop_assert!(warm[i].et0_mm_per_day >= humid[i].et0_mm_per_day - 1e-9);
            }
        }
    }
}
