//! The feel test: a soil's texture from a moist handful.

use super::Soil;

/// What a moist handful does when it is squeezed, and pushed out between thumb and finger.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Squeeze {
    /// It falls apart.
    FallsApart,
    /// It holds as a ball, but makes no ribbon.
    Ball,
    /// A ribbon that breaks before 25 mm (1 in).
    ShortRibbon,
    /// A ribbon of 25 to 50 mm (1 to 2 in).
    Ribbon,
    /// A ribbon longer than 50 mm (2 in).
    LongRibbon,
}

/// How a pinch of it, rubbed in the palm with much water, feels.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rub {
    /// Gritty above all.
    Gritty,
    /// Neither above the other.
    Even,
    /// Smooth above all, as flour.
    Smooth,
}

impl Squeeze {
    /// All of them, loosest first.
    pub const ALL: [Self; 5] = [Self::FallsApart, Self::Ball, Self::ShortRibbon, Self::Ribbon, Self::LongRibbon];
}

impl Rub {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Gritty, Self::Even, Self::Smooth];
}

/// The texture that squeezing and rubbing tell. What falls apart or makes no ribbon is told without rubbing.
///
/// Source: Thien 1979, A flow diagram for teaching texture-by-feel analysis, Journal of Agronomic Education 8,
/// 54-55; from memory. A hand cannot tell silt from silt loam.
///
/// ```
/// use upland_core::landscape::{Rub, Soil, Squeeze, soil_by_feel};
/// assert_eq!(soil_by_feel(Squeeze::Ribbon, Rub::Smooth), Soil::SiltyClayLoam);
/// ```
#[must_use]
pub const fn soil_by_feel(squeeze: Squeeze, rub: Rub) -> Soil {
    match (squeeze, rub) {
        (Squeeze::FallsApart, _) => Soil::Sand,
        (Squeeze::Ball, _) => Soil::LoamySand,
        (Squeeze::ShortRibbon, Rub::Gritty) => Soil::SandyLoam,
        (Squeeze::ShortRibbon, Rub::Even) => Soil::Loam,
        (Squeeze::ShortRibbon, Rub::Smooth) => Soil::SiltLoam,
        (Squeeze::Ribbon, Rub::Gritty) => Soil::SandyClayLoam,
        (Squeeze::Ribbon, Rub::Even) => Soil::ClayLoam,
        (Squeeze::Ribbon, Rub::Smooth) => Soil::SiltyClayLoam,
        (Squeeze::LongRibbon, Rub::Gritty) => Soil::SandyClay,
        (Squeeze::LongRibbon, Rub::Even) => Soil::Clay,
        (Squeeze::LongRibbon, Rub::Smooth) => Soil::SiltyClay,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_texture_but_silt_can_be_felt() {
        for soil in Soil::ALL {
            let felt = Squeeze::ALL.iter().any(|s| Rub::ALL.iter().any(|r| soil_by_feel(*s, *r) == soil));
            assert_eq!(felt, soil != Soil::Silt, "{soil:?}");
        }
    }

    #[test]
    fn a_longer_ribbon_never_takes_water_faster() {
        for rub in Rub::ALL {
            let intakes = Squeeze::ALL.map(|s| super::super::basic_intake_mm_per_hour(soil_by_feel(s, rub)));
            assert!(intakes.is_sorted_by(|a, b| a >= b), "{rub:?} {intakes:?}");
        }
    }
}
