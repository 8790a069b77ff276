/// Soil of a station, as the technician tells it by hand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Soil {
    /// Clay.
    Clay,
    /// Loam.
    #[default]
    Loam,
    /// Sand.
    Sand,
}

impl Soil {
    /// All of them, heaviest first.
    pub const ALL: [Self; 3] = [Self::Clay, Self::Loam, Self::Sand];

    /// Available water, mm per m of depth: the middle of the range of \[FAO-56\] table 19
    /// (clay 120-200, loam 130-180, sand 50-110; the ranges are from memory).
    #[must_use]
    pub const fn available_water_mm_per_m(self) -> f64 {
        match self {
            Self::Clay => 160.0,
            Self::Loam => 155.0,
            Self::Sand => 80.0,
        }
    }
}

/// Total available water in the root zone, mm.
///
/// `TAW = AW Zr` with AW in mm per m and Zr in m. Source: \[FAO-56\] eq. 82.
///
/// ```
/// use upland_core::landscape::total_available_water;
/// // FAO-56 example 36: onion, 0.6 m of roots at most, on silt (derived there as 170 mm/m).
/// assert_eq!(total_available_water(100.0, 0.5), 50.0);
/// ```
#[must_use]
pub fn total_available_water(available_water_mm_per_m: f64, root_depth_m: f64) -> f64 {
    available_water_mm_per_m * root_depth_m
}

/// Readily available water, mm: what may be used before the plants feel it.
///
/// `RAW = p TAW`. Source: \[FAO-56\] eq. 83.
#[must_use]
pub fn readily_available_water(p: f64, taw_mm: f64) -> f64 {
    p * taw_mm
}
