/// Soil of a station, by the twelve textures of the USDA triangle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Soil {
    /// Sand.
    Sand,
    /// Loamy sand.
    LoamySand,
    /// Sandy loam.
    SandyLoam,
    /// Loam.
    #[default]
    Loam,
    /// Silt loam.
    SiltLoam,
    /// Silt.
    Silt,
    /// Sandy clay loam.
    SandyClayLoam,
    /// Clay loam.
    ClayLoam,
    /// Silty clay loam.
    SiltyClayLoam,
    /// Sandy clay.
    SandyClay,
    /// Silty clay.
    SiltyClay,
    /// Clay.
    Clay,
}

impl Soil {
    /// All of them, lightest first.
    pub const ALL: [Self; 12] = [
        Self::Sand,
        Self::LoamySand,
        Self::SandyLoam,
        Self::Loam,
        Self::SiltLoam,
        Self::Silt,
        Self::SandyClayLoam,
        Self::ClayLoam,
        Self::SiltyClayLoam,
        Self::SandyClay,
        Self::SiltyClay,
        Self::Clay,
    ];

    /// Available water, mm per m of depth: the middle of the range of \[FAO-56\] table 19 (the ranges are from
    /// memory).
    ///
    /// That table has no sandy clay loam, clay loam and sandy clay: those are the default soils of FAO's
    /// AquaCrop, another set.
    #[must_use]
    pub const fn available_water_mm_per_m(self) -> f64 {
        match self {
            Self::Sand => 80.0,
            Self::LoamySand => 90.0,
            Self::SandyLoam => 130.0,
            Self::Loam | Self::SiltyClayLoam => 155.0,
            Self::SiltLoam | Self::ClayLoam | Self::SiltyClay | Self::Clay => 160.0,
            Self::Silt => 180.0,
            Self::SandyClayLoam | Self::SandyClay => 120.0,
        }
    }

    /// Water that evaporates from the uppermost 0.10 m when it dries out, TEW, and the part of it that goes at
    /// the full rate, REW, mm.
    ///
    /// Middles of the ranges of \[FAO-56\] table 19 (from memory). The three textures that it lacks: REW of
    /// AquaCrop's default soils, TEW from their water contents by \[FAO-56\] eq. 73.
    #[must_use]
    pub const fn evaporable_mm(self) -> [f64; 2] {
        match self {
            Self::Sand => [9.0, 4.5],
            Self::LoamySand => [11.5, 6.0],
            Self::SandyLoam => [17.5, 8.0],
            Self::Loam => [19.0, 9.0],
            Self::SiltLoam => [21.5, 9.5],
            Self::Silt => [24.0, 9.5],
            Self::SandyClayLoam => [22.0, 9.0],
            Self::ClayLoam => [27.5, 11.0],
            Self::SiltyClayLoam => [24.5, 9.5],
            Self::SandyClay => [25.5, 10.0],
            Self::SiltyClay => [25.0, 10.0],
            Self::Clay => [25.5, 10.0],
        }
    }

    /// The textures that a hand most easily takes it for, the lighter and the heavier one (ours).
    #[must_use]
    pub const fn taken_for(self) -> [Self; 2] {
        match self {
            Self::Sand => [Self::Sand, Self::LoamySand],
            Self::LoamySand => [Self::Sand, Self::SandyLoam],
            Self::SandyLoam => [Self::LoamySand, Self::Loam],
            Self::Loam => [Self::SandyLoam, Self::ClayLoam],
            Self::SiltLoam | Self::Silt => [Self::Loam, Self::SiltyClayLoam],
            Self::SandyClayLoam => [Self::SandyLoam, Self::ClayLoam],
            Self::ClayLoam => [Self::Loam, Self::Clay],
            Self::SiltyClayLoam => [Self::SiltLoam, Self::SiltyClay],
            Self::SandyClay => [Self::SandyClayLoam, Self::Clay],
            Self::SiltyClay => [Self::SiltyClayLoam, Self::Clay],
            Self::Clay => [Self::ClayLoam, Self::Clay],
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
