use crate::quantity::Coefficient;

/// How a figure is known: the mark beside it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Provenance {
    /// Measured on the spot, or entered as a number by someone who knows it.
    Measured,
    /// Read from a published table.
    Table,
    /// A default or common practice: nobody looked.
    Guessed,
}

/// What grows on a station, as far as its water is concerned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Plant {
    /// Cool-season turf.
    CoolTurf,
    /// Warm-season turf.
    WarmTurf,
    /// Shrubs.
    Shrubs,
    /// Annual flowers.
    Annuals,
    /// Trees.
    Trees,
    /// Plants native to the place.
    Natives,
    /// Anything else, by its landscape coefficient.
    Coefficient(Coefficient),
}

impl Plant {
    /// The plants that have a type, in the order in which they are offered.
    pub const TYPES: [Self; 6] =
        [Self::CoolTurf, Self::WarmTurf, Self::Shrubs, Self::Annuals, Self::Trees, Self::Natives];

    /// The plant's coefficient before sun and shade, and how it is known.
    ///
    /// Turf: \[FAO-56\] table 12, mid-season. Beds: the species factor of \[LCM-2000\], middle of
    /// the class, with full cover (density 1.0): shrubs and trees moderate 0.50, annuals high
    /// 0.80, natives low 0.20; the classes are from memory, and which class a bed belongs to is
    /// a default.
    #[must_use]
    pub const fn coefficient(&self) -> (f64, Provenance) {
        match self {
            Self::CoolTurf => (0.95, Provenance::Table),
            Self::WarmTurf => (0.85, Provenance::Table),
            Self::Shrubs | Self::Trees => (0.50, Provenance::Guessed),
            Self::Annuals => (0.80, Provenance::Guessed),
            Self::Natives => (0.20, Provenance::Guessed),
            Self::Coefficient(k) => (k.get(), Provenance::Measured),
        }
    }

    /// Depth of the roots that are watered, m (common practice).
    ///
    /// \[FAO-56\] table 22 gives 0.5 to 1.0 m for turf, which is what the species can reach; mown
    /// turf is often rooted 0.15 to 0.30 m deep.
    #[must_use]
    pub const fn root_depth_m(&self) -> f64 {
        match self {
            Self::CoolTurf | Self::WarmTurf | Self::Coefficient(_) => 0.30,
            Self::Annuals => 0.25,
            Self::Shrubs => 0.45,
            Self::Trees | Self::Natives => 0.60,
        }
    }

    /// Share p of the available water that may be used before watering.
    ///
    /// Turf: \[FAO-56\] table 22 (0.40 cool, 0.50 warm season). Others 0.50, common practice.
    #[must_use]
    pub const fn depletion_share(&self) -> f64 {
        match self {
            Self::CoolTurf => 0.40,
            _ => 0.50,
        }
    }
}

/// Sun on a station, as the micro-climate factor of the landscape coefficient.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Sun {
    /// Open, like the weather station.
    #[default]
    Open,
    /// A quarter of the day in shade.
    QuarterShade,
    /// Half of the day in shade.
    HalfShade,
    /// Heat thrown back by walls or paving.
    ReflectedHeat,
}

impl Sun {
    /// All of them, in the order in which they are offered.
    pub const ALL: [Self; 4] = [Self::Open, Self::QuarterShade, Self::HalfShade, Self::ReflectedHeat];

    /// Micro-climate factor.
    ///
    /// \[LCM-2000\]: average 1.0, shade 0.5 to 0.9, reflected heat 1.1 to 1.4 (from memory). The
    /// values within those classes are ours: 0.9, 0.75 and 1.2.
    #[must_use]
    pub const fn factor(self) -> f64 {
        match self {
            Self::Open => 1.0,
            Self::QuarterShade => 0.9,
            Self::HalfShade => 0.75,
            Self::ReflectedHeat => 1.2,
        }
    }
}
