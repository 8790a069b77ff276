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

/// What a station waters, as far as its water is concerned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Plant {
    /// Turf of species that grow best in spring and autumn.
    CoolTurf,
    /// Turf of species that grow best in summer.
    WarmTurf,
    /// Low plants that cover the ground.
    GroundCover,
    /// Herbaceous perennials.
    Perennials,
    /// Shrubs.
    Shrubs,
    /// Trees.
    Trees,
    /// Climbers and vines.
    Vines,
    /// Flowers of one season.
    Annuals,
    /// Vegetables.
    Vegetables,
    /// Berry bushes.
    Berries,
    /// Fruit trees over bare soil.
    FruitTrees,
    /// A surface without plants, kept damp against dust or for its footing.
    Bare,
    /// Anything else, by its landscape coefficient.
    Coefficient(Coefficient),
}

/// Water need of a planting, by the classes of the landscape coefficient method.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WaterNeed {
    /// Lives on what falls, in most climates.
    VeryLow,
    /// Low.
    Low,
    /// Moderate.
    Moderate,
    /// High.
    High,
}

impl WaterNeed {
    /// All of them, thriftiest first.
    pub const ALL: [Self; 4] = [Self::VeryLow, Self::Low, Self::Moderate, Self::High];

    /// Species factor: lowest, middle and highest of the class.
    ///
    /// \[LCM-2000\]: very low under 0.1, low 0.1 to 0.3, moderate 0.4 to 0.6, high 0.7 to 0.9; from memory,
    /// the middles are ours.
    #[must_use]
    pub const fn factor(self) -> [f64; 3] {
        match self {
            Self::VeryLow => [0.0, 0.05, 0.1],
            Self::Low => [0.1, 0.2, 0.3],
            Self::Moderate => [0.4, 0.5, 0.6],
            Self::High => [0.7, 0.8, 0.9],
        }
    }
}

/// How closely a planting covers its ground.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Density {
    /// Soil shows between the plants.
    Sparse,
    /// One layer covers the ground.
    #[default]
    Full,
    /// Trees over shrubs over ground cover.
    Layered,
}

impl Density {
    /// All of them, thinnest first.
    pub const ALL: [Self; 3] = [Self::Sparse, Self::Full, Self::Layered];

    /// Density factor. \[LCM-2000\]: low 0.5 to 0.9, average 1.0, high 1.1 to 1.3; from memory, the middles
    /// are ours.
    #[must_use]
    pub const fn factor(self) -> f64 {
        match self {
            Self::Sparse => 0.7,
            Self::Full => 1.0,
            Self::Layered => 1.2,
        }
    }
}

/// How long a planting has stood, as far as its roots tell.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Maturity {
    /// Planted this season: roots hardly out of their balls.
    New,
    /// In its second or third year.
    Young,
    /// Grown in.
    #[default]
    Grown,
}

impl Maturity {
    /// All of them, youngest first.
    pub const ALL: [Self; 3] = [Self::New, Self::Young, Self::Grown];

    /// Share of the grown plant's root depth: 0.4, 0.7 and 1. Common practice; the shares are ours.
    #[must_use]
    pub const fn root_share(self) -> f64 {
        match self {
            Self::New => 0.4,
            Self::Young => 0.7,
            Self::Grown => 1.0,
        }
    }
}

/// What is known of a planting beside its kind.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Planting {
    /// Its water need, where it is not the usual one of its kind.
    pub need: Option<WaterNeed>,
    /// How closely it covers its ground.
    pub density: Density,
    /// How long it has stood.
    pub maturity: Maturity,
    /// Another plant that fills about half of the station; the thirstier of the two sets the water.
    pub beside: Option<Plant>,
    /// Coefficients by month, January first, in place of all the above (microclimate and trim still apply).
    pub by_month: Option<[Coefficient; 12]>,
}

impl Plant {
    /// Those that are no number, in the order in which they are offered.
    pub const KINDS: [Self; 12] = [
        Self::CoolTurf,
        Self::WarmTurf,
        Self::GroundCover,
        Self::Perennials,
        Self::Shrubs,
        Self::Trees,
        Self::Vines,
        Self::Annuals,
        Self::Vegetables,
        Self::Berries,
        Self::FruitTrees,
        Self::Bare,
    ];

    /// The water need that such a planting usually has; nothing for those with a coefficient of their own.
    ///
    /// Common practice: annual flowers high, the rest moderate.
    #[must_use]
    pub const fn usual_need(&self) -> Option<WaterNeed> {
        match self {
            Self::GroundCover | Self::Perennials | Self::Shrubs | Self::Trees | Self::Vines => {
                Some(WaterNeed::Moderate)
            }
            Self::Annuals => Some(WaterNeed::High),
            _ => None,
        }
    }

    /// The plant's coefficient before sun and shade, and how it is known: a table's where the kind has one
    /// or the need was chosen, else a guess.
    ///
    /// Turf, vegetables, berries and fruit trees: Kc mid of \[FAO-56\] table 12 (vegetables: the small ones;
    /// trees: apple, cherry and pear over bare soil). A bare surface that is kept damp: Kc max of
    /// \[FAO-56\] eq. 72, for a humidity of 45 % and a wind of 2 m/s. Other plantings: species factor times
    /// density factor of \[LCM-2000\].
    #[must_use]
    pub fn coefficient(&self, planting: &Planting) -> (f64, Provenance) {
        match self {
            Self::CoolTurf | Self::FruitTrees => (0.95, Provenance::Table),
            Self::WarmTurf => (0.85, Provenance::Table),
            Self::Vegetables | Self::Berries => (1.05, Provenance::Table),
            Self::Bare => (1.2, Provenance::Table),
            Self::Coefficient(k) => (k.get(), Provenance::Measured),
            Self::GroundCover | Self::Perennials | Self::Shrubs | Self::Trees | Self::Vines | Self::Annuals => {
                let usual = self.usual_need().unwrap_or(WaterNeed::Moderate);
                let known = if planting.need.is_some() { Provenance::Table } else { Provenance::Guessed };
                (planting.need.unwrap_or(usual).factor()[1] * planting.density.factor(), known)
            }
        }
    }

    /// The ends between which that coefficient lies; both the same where a table or somebody states it.
    #[must_use]
    pub fn coefficient_range(&self, planting: &Planting) -> [f64; 2] {
        match self.usual_need() {
            Some(usual) => {
                let [low, _, high] = planting.need.unwrap_or(usual).factor();
                [low * planting.density.factor(), high * planting.density.factor()]
            }
            None => [self.coefficient(planting).0; 2],
        }
    }

    /// Depth of the roots of a grown planting that are watered, m (common practice).
    ///
    /// \[FAO-56\] table 22 gives 0.5 to 1.0 m for turf and 1 to 2 m for fruit trees, which is what the species
    /// can reach; mown turf is often rooted 0.15 to 0.30 m deep. A bare surface: Ze, the 0.10 m that dry by
    /// evaporation, \[FAO-56\] eq. 73.
    #[must_use]
    pub const fn root_depth_m(&self) -> f64 {
        match self {
            Self::Bare => 0.10,
            Self::Annuals => 0.25,
            Self::CoolTurf | Self::WarmTurf | Self::GroundCover | Self::Coefficient(_) => 0.30,
            Self::Perennials => 0.35,
            Self::Vegetables => 0.40,
            Self::Shrubs | Self::Vines => 0.45,
            Self::Trees | Self::Berries => 0.60,
            Self::FruitTrees => 1.0,
        }
    }

    /// Share p of the available water that may be used before watering.
    ///
    /// \[FAO-56\] table 22: cool-season turf 0.40, warm-season turf 0.50, berries and fruit trees 0.50,
    /// vegetables 0.35 (0.20 to 0.45 by kind). Others 0.50, common practice.
    #[must_use]
    pub const fn depletion_share(&self) -> f64 {
        match self {
            Self::CoolTurf => 0.40,
            Self::Vegetables => 0.35,
            _ => 0.50,
        }
    }

    /// Whether it is turf.
    #[must_use]
    pub const fn is_turf(&self) -> bool {
        matches!(self, Self::CoolTurf | Self::WarmTurf)
    }

    /// Coefficients by month that are published for turf, January first.
    ///
    /// Meyer and Gibeault 1986-87, University of California, from memory. They are ratios to the reference in
    /// use there at the time, and lower than those of \[FAO-56\]: another definition of care. South of the equator
    /// they are moved by six months, which is a guess of ours.
    #[must_use]
    pub fn turf_by_month(&self, latitude_deg: f64) -> Option<[f64; 12]> {
        let mut months = match self {
            Self::CoolTurf => [0.61, 0.64, 0.75, 1.04, 0.95, 0.88, 0.94, 0.86, 0.74, 0.75, 0.69, 0.60],
            Self::WarmTurf => [0.55, 0.54, 0.76, 0.72, 0.79, 0.68, 0.71, 0.71, 0.62, 0.54, 0.58, 0.55],
            _ => return None,
        };
        if latitude_deg < 0.0 {
            months.rotate_left(6);
        }
        Some(months)
    }
}

/// Sun, shade and wind on a station, as the microclimate factor of the landscape coefficient.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Exposure {
    /// No direct sun on most days: under a closed canopy, behind a wall.
    DeepShade,
    /// Shaded for about half of the day.
    Shaded,
    /// Dappled, or shaded for an hour or two.
    Dappled,
    /// Open, like the weather station.
    #[default]
    Open,
    /// Walls or paving beside it throw heat back.
    Warm,
    /// Walls or paving all round, or an edge in the wind.
    Hot,
}

impl Exposure {
    /// All of them, coolest first.
    pub const ALL: [Self; 6] = [Self::DeepShade, Self::Shaded, Self::Dappled, Self::Open, Self::Warm, Self::Hot];

    /// Microclimate factor.
    ///
    /// \[LCM-2000\]: low 0.5 to 0.9, average 1.0, high 1.1 to 1.4 (from memory). The steps within those
    /// classes are ours: 0.5, 0.75, 0.9, 1.0, 1.2 and 1.4.
    #[must_use]
    pub const fn factor(self) -> f64 {
        match self {
            Self::DeepShade => 0.5,
            Self::Shaded => 0.75,
            Self::Dappled => 0.9,
            Self::Open => 1.0,
            Self::Warm => 1.2,
            Self::Hot => 1.4,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_chosen_need_and_density_make_the_coefficient() {
        let usual = Planting::default();
        assert_eq!(Plant::Shrubs.coefficient(&usual), (0.5, Provenance::Guessed));
        let thrifty = Planting { need: Some(WaterNeed::Low), density: Density::Sparse, ..usual };
        let (k, known) = Plant::Shrubs.coefficient(&thrifty);
        assert!((k - 0.2 * 0.7).abs() < 1e-12 && known == Provenance::Table);
        assert_eq!(Plant::CoolTurf.coefficient(&thrifty), (0.95, Provenance::Table), "turf is outside the method");
    }

    #[test]
    fn a_coefficient_lies_within_its_range() {
        for plant in Plant::KINDS {
            for density in Density::ALL {
                for need in WaterNeed::ALL.map(Some).into_iter().chain([None]) {
                    let planting = Planting { need, density, ..Planting::default() };
                    let (k, [low, high]) = (plant.coefficient(&planting).0, plant.coefficient_range(&planting));
                    assert!(low <= k && k <= high, "{plant:?} {planting:?}");
                }
            }
        }
    }
}
