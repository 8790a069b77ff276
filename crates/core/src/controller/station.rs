use super::errors::RootZoneError;
use super::letter::ProgramLetter;
use crate::balance::RootZone;
use crate::landscape::{
    CycleSoak, Exposure, Plant, Planting, Provenance, Runoff, Slope, Soil, Sprinkler, SprinklerType, runoff,
};
use crate::quantity::{Coefficient, MonthOfYear, RunTime};

/// What somebody measured or knows of a station's root zone, in place of the tables.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct StatedRootZone {
    /// Water content at field capacity, m³/m³; with a wilting point, or neither.
    pub field_capacity: Option<f64>,
    /// Water content at wilting point, m³/m³.
    pub wilting_point: Option<f64>,
    /// Depth of the watered roots, m.
    pub root_depth_m: Option<f64>,
    /// Share p of the available water that may be used before watering.
    pub p: Option<f64>,
    /// Water missing to field capacity when a replay begins, mm; 0 unless stated.
    pub depletion_start_mm: Option<f64>,
}

/// One station: a valve and what it waters.
#[derive(Debug, Clone, PartialEq)]
pub struct Station {
    /// Terminal number on the controller, from 1.
    pub number: u8,
    /// Its name.
    pub name: String,
    /// The program that runs it.
    pub program: ProgramLetter,
    /// What grows there.
    pub plant: Plant,
    /// What else is known of that planting.
    pub planting: Planting,
    /// What waters it.
    pub sprinkler: Sprinkler,
    /// On what soil.
    pub soil: Soil,
    /// In what sun, shade and wind.
    pub exposure: Exposure,
    /// Microclimate factor that somebody states, in place of that of the exposure.
    pub microclimate: Option<f64>,
    /// Under a roof, where rain never reaches.
    pub roofed: bool,
    /// What is stated of its root zone; the rest follows from soil and plant.
    pub root_zone: StatedRootZone,
    /// Watered area, m², where it is known.
    pub area_m2: Option<f64>,
    /// How steep.
    pub slope: Slope,
    /// Trim of its demand for what the other fields do not tell, %: -30 to 30.
    pub trim_pct: f64,
    /// Base minutes that the technician chose; else they follow from what it needs.
    pub minutes: Option<RunTime>,
    /// Cycle and soak set on the panel, where it has them.
    pub cycle: Option<CycleSoak>,
    /// A second program that runs it too, as a panel may hold by mistake.
    pub also: Option<ProgramLetter>,
}

/// Twelve coefficients; nothing where one of them is none.
pub(super) fn coefficients(months: [f64; 12]) -> Option<[Coefficient; 12]> {
    months.into_iter().filter_map(|k| Coefficient::new(k).ok()).collect::<Vec<_>>().try_into().ok()
}

impl Station {
    /// Takes the [published coefficients](crate::landscape::Plant::turf_by_month) of its turf by month; whether it is
    /// turf.
    pub fn fill_turf_months(&mut self, latitude_deg: f64) -> bool {
        let published = self.plant.turf_by_month(latitude_deg);
        self.planting.by_month = published.and_then(coefficients).or(self.planting.by_month);
        published.is_some()
    }

    /// Coefficient of what grows there in a month, before sun and shade, and how it is known.
    ///
    /// A mixed station goes by the thirstier of two plants that fill about half of it each (common practice).
    #[must_use]
    pub fn plant_coefficient(&self, month: MonthOfYear) -> (f64, Provenance) {
        if let Some(by_month) = self.planting.by_month {
            return (by_month[month.index()].get(), Provenance::Measured);
        }
        let own = self.plant.coefficient(&self.planting);
        match self.coefficient_beside() {
            Some(beside) if beside.0 > own.0 => beside,
            _ => own,
        }
    }

    /// The coefficient of the plant that shares the station, of usual need and cover.
    #[must_use]
    pub fn coefficient_beside(&self) -> Option<(f64, Provenance)> {
        self.planting.beside.map(|plant| plant.coefficient(&Planting::default()))
    }

    /// Microclimate factor, and how it is known.
    #[must_use]
    pub fn microclimate_factor(&self) -> (f64, Provenance) {
        let by_exposure = (self.exposure.factor(), Provenance::Table);
        self.microclimate.map_or(by_exposure, |factor| (factor, Provenance::Measured))
    }

    /// K_L, the landscape coefficient in a month: that of the plants times that of the microclimate, trimmed.
    ///
    /// `K_L = k_plant k_microclimate (1 + trim / 100)`. Source: \[LCM-2000\]; the trim is ours.
    #[must_use]
    pub fn landscape_coefficient(&self, month: MonthOfYear) -> f64 {
        self.plant_coefficient(month).0 * self.microclimate_factor().0 * (1.0 + self.trim_pct / 100.0)
    }

    /// K_L of the twelve months, January first.
    #[must_use]
    pub fn landscape_coefficients(&self) -> [f64; 12] {
        MonthOfYear::ALL.map(|month| self.landscape_coefficient(month))
    }

    /// Available water of its soil, mm per m of depth, and how it is known.
    ///
    /// `1000 (theta_FC - theta_WP)` where both are stated. Source: \[FAO-56\] eq. 82. Of a bare surface what
    /// evaporates, `1000 (theta_FC - 0.5 theta_WP)`; eq. 73.
    #[must_use]
    pub fn available_water_mm_per_m(&self) -> (f64, Provenance) {
        let bare = self.plant == Plant::Bare;
        match (self.root_zone.field_capacity, self.root_zone.wilting_point) {
            (Some(fc), Some(wp)) => {
                let unused = if bare { 0.5 * wp } else { wp };
                (1000.0 * (fc - unused), Provenance::Measured)
            }
            _ if bare => (self.soil.evaporable_mm()[0] / Plant::Bare.root_depth_m(), Provenance::Table),
            _ => (self.soil.available_water_mm_per_m(), Provenance::Table),
        }
    }

    /// Depth of its watered roots, m, and how it is known. Of two plants the shallower rules.
    #[must_use]
    pub fn root_depth_m(&self) -> (f64, Provenance) {
        let of = |plant: Plant| plant.root_depth_m();
        let depth = self.planting.beside.map_or(of(self.plant), |beside| of(self.plant).min(of(beside)));
        // A surface has no roots that grow.
        let share = if self.plant == Plant::Bare { 1.0 } else { self.planting.maturity.root_share() };
        let guessed = (depth * share, Provenance::Guessed);
        self.root_zone.root_depth_m.map_or(guessed, |depth| (depth, Provenance::Measured))
    }

    /// Share p of the available water that may be used, and how it is known; of a bare surface the part that
    /// evaporates at the full rate, REW / TEW (\[FAO-56\] eq. 74).
    #[must_use]
    pub fn depletion_share(&self) -> (f64, Provenance) {
        let [total, readily] = self.soil.evaporable_mm();
        let table = if self.plant == Plant::Bare { readily / total } else { self.plant.depletion_share() };
        self.root_zone.p.map_or((table, Provenance::Table), |p| (p, Provenance::Measured))
    }

    /// The store that its plants draw on.
    #[must_use]
    pub fn zone(&self) -> RootZone {
        RootZone::new(self.available_water_mm_per_m().0, self.root_depth_m().0, self.depletion_share().0)
    }

    /// A station as it is before anything is known of it: loam, level, in the open, in program A.
    #[must_use]
    pub fn plain(number: u8, name: &str, plant: Plant, kind: SprinklerType) -> Self {
        Self {
            number,
            name: name.to_owned(),
            program: ProgramLetter::A,
            plant,
            planting: Planting::default(),
            sprinkler: Sprinkler { kind, rate: None, uniformity: None },
            soil: Soil::default(),
            exposure: Exposure::default(),
            microclimate: None,
            roofed: false,
            root_zone: StatedRootZone::default(),
            area_m2: None,
            slope: Slope::default(),
            trim_pct: 0.0,
            minutes: None,
            cycle: None,
            also: None,
        }
    }

    /// Whether what is stated of its root zone fits together.
    ///
    /// # Errors
    /// [`RootZoneError`] for the first thing that does not.
    pub fn check_root_zone(&self) -> Result<(), RootZoneError> {
        match (self.root_zone.field_capacity, self.root_zone.wilting_point) {
            (Some(_), None) | (None, Some(_)) => return Err(RootZoneError::Half),
            (Some(fc), Some(wp)) if fc <= wp => return Err(RootZoneError::Reversed),
            _ => {}
        }
        let start = self.root_zone.depletion_start_mm.unwrap_or(0.0);
        if start > self.zone().taw_mm + 1e-9 { Err(RootZoneError::Start) } else { Ok(()) }
    }

    /// Whether a program runs it.
    #[must_use]
    pub fn runs_in(&self, letter: ProgramLetter) -> bool {
        self.program == letter || self.also == Some(letter)
    }

    /// How long it may run before water runs off, and how long it soaks in; no limit where the surface is not
    /// wetted as a whole.
    #[must_use]
    pub fn runoff(&self) -> Runoff {
        let found = runoff(self.soil, self.slope, self.sprinkler.rate_mm_per_hour().0);
        if self.sprinkler.kind.wets_the_surface() { found } else { Runoff { longest_minutes: None, ..found } }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_trim_scales_the_coefficient() {
        let plain = Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray);
        let trimmed = Station { trim_pct: -10.0, ..plain.clone() };
        let may = MonthOfYear::ALL[4];
        assert!((trimmed.landscape_coefficient(may) - 0.9 * plain.landscape_coefficient(may)).abs() < 1e-12);
    }
}
