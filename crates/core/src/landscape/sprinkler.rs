use crate::quantity::RateMmPerHour;

use super::Provenance;

/// Kind of sprinkler, for those who do not know the rate.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SprinklerType {
    /// Heads with a fixed fan.
    Spray,
    /// A single stream that turns.
    Rotor,
    /// Nozzles of several turning streams.
    MultiStream,
    /// Small sprays on stakes or risers, of low flow.
    MicroSpray,
    /// Bubblers that fill a basin.
    Bubbler,
    /// Drip line or emitters.
    Drip,
    /// Porous pipe or drip line under the surface.
    Buried,
}

impl SprinklerType {
    /// All of them, in the order in which they are offered.
    pub const ALL: [Self; 7] =
        [Self::Spray, Self::MicroSpray, Self::MultiStream, Self::Rotor, Self::Drip, Self::Buried, Self::Bubbler];

    /// Minutes that lay down 12.7 mm (half an inch) where that is how the trade states the type: spray 24,
    /// rotors 52, multi-stream nozzles 50, drip 75. Common practice; of multi-stream nozzles 15 is quoted too,
    /// and many apply 10 to 12 mm/h.
    #[must_use]
    pub const fn minutes_for_half_inch(self) -> Option<f64> {
        match self {
            Self::Spray => Some(24.0),
            Self::Rotor => Some(52.0),
            Self::MultiStream => Some(50.0),
            Self::Drip => Some(75.0),
            Self::MicroSpray | Self::Bubbler | Self::Buried => None,
        }
    }

    /// Application rate, mm/h: 12.7 mm in the minutes of [`Self::minutes_for_half_inch`]; micro-spray 13,
    /// bubblers 50, buried pipe 15 (common practice, from memory).
    #[must_use]
    pub fn rate_mm_per_hour(self) -> f64 {
        match self.minutes_for_half_inch() {
            Some(minutes) => 12.7 * 60.0 / minutes,
            None if self == Self::Bubbler => 50.0,
            None if self == Self::Buried => 15.0,
            None => 13.0,
        }
    }

    /// Lowest and highest rate that are met with, mm/h: how uncertain the rate by type is. Common practice,
    /// from memory.
    #[must_use]
    pub const fn rate_range_mm_per_hour(self) -> [f64; 2] {
        match self {
            Self::Spray => [25.0, 50.0],
            Self::Rotor => [6.0, 20.0],
            Self::MultiStream => [9.0, 16.0],
            Self::MicroSpray | Self::Buried => [5.0, 25.0],
            Self::Bubbler => [25.0, 150.0],
            Self::Drip => [5.0, 30.0],
        }
    }

    /// Distribution uniformity DU_lq of a sound installation, where none was measured. Common
    /// practice, from memory: spray and micro-spray 0.65, rotors and multi-stream nozzles 0.70, drip, buried
    /// pipe and bubblers 0.85.
    #[must_use]
    pub const fn usual_uniformity(self) -> f64 {
        match self {
            Self::Spray | Self::MicroSpray => 0.65,
            Self::Rotor | Self::MultiStream => 0.70,
            Self::Drip | Self::Buried | Self::Bubbler => 0.85,
        }
    }

    /// Whether it wets the whole surface, so that water coming faster than the soil takes it runs off. Drip and
    /// buried pipe wet the soil from points, bubblers fill a basin (common practice).
    #[must_use]
    pub const fn wets_the_surface(self) -> bool {
        !matches!(self, Self::Drip | Self::Buried | Self::Bubbler)
    }
}

/// What waters a station: a type, and the rate and uniformity where they were measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sprinkler {
    /// The kind of head.
    pub kind: SprinklerType,
    /// Measured application rate.
    pub rate: Option<RateMmPerHour>,
    /// Measured distribution uniformity of the lowest quarter, 0.2 to 1.
    pub uniformity: Option<f64>,
}

impl Sprinkler {
    /// The rate to work with, mm/h, and how it is known.
    #[must_use]
    pub fn rate_mm_per_hour(&self) -> (f64, Provenance) {
        match self.rate {
            Some(rate) => (rate.get(), Provenance::Measured),
            None => (self.kind.rate_mm_per_hour(), Provenance::Guessed),
        }
    }

    /// The uniformity to work with, and how it is known.
    #[must_use]
    pub fn uniformity(&self) -> (f64, Provenance) {
        match self.uniformity {
            Some(du) => (du, Provenance::Measured),
            None => (self.kind.usual_uniformity(), Provenance::Guessed),
        }
    }
}
