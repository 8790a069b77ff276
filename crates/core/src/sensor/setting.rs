//! What a rain shut-off is set to, and the disc behind the setting.

/// How far the vent ring of a rain sensor is open, which sets how fast it dries.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Vent {
    /// Open: dries at twice reference ET.
    Open,
    /// Half open: dries at reference ET.
    #[default]
    Half,
    /// Closed: dries at half of reference ET.
    Closed,
}

impl Vent {
    /// All of them, fastest first.
    pub const ALL: [Self; 3] = [Self::Open, Self::Half, Self::Closed];

    /// Share of reference ET at which it dries. An assumption of ours.
    #[must_use]
    pub const fn factor(self) -> f64 {
        match self {
            Self::Open => 2.0,
            Self::Half => 1.0,
            Self::Closed => 0.5,
        }
    }
}

/// The swelling disc of a rain shut-off. Both figures are assumptions of ours; who has soaked and dried the sensor
/// knows better.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Disc {
    /// Water that it holds at most, mm, whatever the setting.
    pub capacity_mm: f64,
    /// It lets go once it has dried below this share of its setting.
    pub release_share: f64,
}

impl Disc {
    /// 25 mm, and half of the setting.
    pub const USUAL: Self = Self { capacity_mm: 25.0, release_share: 0.5 };
}

impl Default for Disc {
    fn default() -> Self {
        Self::USUAL
    }
}

/// How a rain shut-off is set.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RainSetting {
    /// It trips at this store, mm.
    pub threshold_mm: f64,
    /// Days of delay after it lets go.
    pub delay_days: u8,
    /// Its vent ring.
    pub vent: Vent,
    /// Its disc.
    pub disc: Disc,
}

impl RainSetting {
    /// The usual summer choice (common practice): 13 mm, no delay, the vent half open.
    pub const USUAL: Self = Self { threshold_mm: 13.0, delay_days: 0, vent: Vent::Half, disc: Disc::USUAL };

    /// The store at which it trips, mm: a disc that holds less than the setting trips when it is full.
    #[must_use]
    pub const fn trips_at_mm(&self) -> f64 {
        self.threshold_mm.min(self.disc.capacity_mm)
    }

    /// The store below which it lets go, mm.
    #[must_use]
    pub const fn lets_go_below_mm(&self) -> f64 {
        self.disc.release_share * self.trips_at_mm()
    }
}
