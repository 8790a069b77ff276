use crate::balance::RootZone;
use crate::controller::{Controller, Station};
use crate::landscape::{Runoff, run_multiplier};
use crate::quantity::MonthOfYear;

/// Which part of a station a balance is kept of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Part {
    /// The station as a whole.
    Average,
    /// The quarter that gets least water.
    DriestQuarter,
}

impl Part {
    /// Both.
    pub const ALL: [Self; 2] = [Self::Average, Self::DriestQuarter];

    /// Its place in a pair.
    #[must_use]
    pub const fn index(self) -> usize {
        match self {
            Self::Average => 0,
            Self::DriestQuarter => 1,
        }
    }
}

/// A station as its balance needs it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReplayStation {
    /// Terminal number.
    pub number: u8,
    /// Landscape coefficient K_L of the twelve months, January first.
    pub kl: [f64; 12],
    /// The store that its plants draw on.
    pub zone: RootZone,
    /// Depletion at the start of the first day, mm: 0 to TAW.
    pub depletion_start_mm: f64,
    /// Under a roof, where rain never reaches.
    pub covered: bool,
    /// Application rate, mm/h, mean over the station.
    pub rate_mm_per_hour: f64,
    /// Distribution uniformity DU_lq: what the driest quarter gets of the mean.
    pub uniformity: f64,
    /// Run-time multiplier of uneven cover.
    pub multiplier: f64,
    /// Limits of the surface.
    pub surface: Runoff,
    /// Watered area, m², where it is known.
    pub area_m2: Option<f64>,
}

impl ReplayStation {
    /// A station of a controller.
    #[must_use]
    pub fn of(station: &Station) -> Self {
        let zone = station.zone();
        let uniformity = station.sprinkler.uniformity().0;
        Self {
            number: station.number,
            kl: station.landscape_coefficients(),
            zone,
            depletion_start_mm: station.root_zone.depletion_start_mm.unwrap_or(0.0).min(zone.taw_mm),
            covered: station.roofed,
            rate_mm_per_hour: station.sprinkler.rate_mm_per_hour().0,
            uniformity,
            multiplier: run_multiplier(uniformity),
            surface: station.runoff(),
            area_m2: station.area_m2,
        }
    }

    /// K_L in a month.
    #[must_use]
    pub const fn kl_in(&self, month: MonthOfYear) -> f64 {
        self.kl[month.index()]
    }

    /// The highest K_L of the year.
    #[must_use]
    pub fn highest_kl(&self) -> f64 {
        self.kl.into_iter().fold(0.0, f64::max)
    }

    /// What reaches a part of the mean depth.
    #[must_use]
    pub const fn share(&self, part: Part) -> f64 {
        match part {
            Part::Average => 1.0,
            Part::DriestQuarter => self.uniformity,
        }
    }
}

/// The stations of a controller, by number.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Ground {
    /// The stations.
    pub stations: Vec<ReplayStation>,
}

impl Ground {
    /// The stations of a controller.
    #[must_use]
    pub fn of(controller: &Controller) -> Self {
        Self { stations: controller.stations.iter().map(ReplayStation::of).collect() }
    }

    /// Where a station stands in the list.
    #[must_use]
    pub fn index(&self, number: u8) -> Option<usize> {
        self.stations.iter().position(|s| s.number == number)
    }
}
