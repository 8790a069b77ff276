use crate::quantity::RateMmPerHour;

use super::Provenance;

/// Kind of sprinkler, for those who do not know the rate.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SprinklerType {
    /// Fixed-pattern spray heads.
    Spray,
    /// Single-stream rotors.
    Rotor,
    /// Multi-stream rotary nozzles.
    RotaryNozzle,
    /// Drip line or emitters.
    Drip,
}

impl SprinklerType {
    /// All of them, in the order in which they are offered.
    pub const ALL: [Self; 4] = [Self::Spray, Self::Rotor, Self::RotaryNozzle, Self::Drip];

    /// Minutes that lay down 12.7 mm (half an inch): 24, 52, 50, 75. Common practice.
    #[must_use]
    pub const fn minutes_for_half_inch(self) -> f64 {
        match self {
            Self::Spray => 24.0,
            Self::Rotor => 52.0,
            Self::RotaryNozzle => 50.0,
            Self::Drip => 75.0,
        }
    }

    /// Application rate, mm/h: 12.7 mm in the minutes of [`Self::minutes_for_half_inch`].
    #[must_use]
    pub fn rate_mm_per_hour(self) -> f64 {
        12.7 * 60.0 / self.minutes_for_half_inch()
    }

    /// Distribution uniformity DU_lq of a sound installation, where none was measured. Common
    /// practice, from memory: spray 0.65, rotors and rotary nozzles 0.70, drip 0.85.
    #[must_use]
    pub const fn usual_uniformity(self) -> f64 {
        match self {
            Self::Spray => 0.65,
            Self::Rotor | Self::RotaryNozzle => 0.70,
            Self::Drip => 0.85,
        }
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
