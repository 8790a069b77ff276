use crate::controller::{Capability, ProgramLetter, Station};
use crate::landscape::{Provenance, gross_minutes, run_multiplier};
use crate::quantity::{MonthOfYear, RunTime, range};

/// Runs shorter than this ask for fewer days instead (common practice).
pub const LEAST_RUN_MINUTES: f64 = 2.0;

/// What a station needs, whatever the month.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct StationNeed {
    pub(super) plant_coefficients: [(f64, Provenance); 12],
    pub(super) microclimate: (f64, Provenance),
    pub(super) kl: [f64; 12],
    pub(super) root_depth_m: (f64, Provenance),
    pub(super) available_water_mm_per_m: (f64, Provenance),
    pub(super) depletion_share: (f64, Provenance),
    pub(super) raw_mm: f64,
    pub(super) taw_mm: f64,
    pub(super) rate: (f64, Provenance),
    pub(super) uniformity: (f64, Provenance),
    pub(super) multiplier: f64,
}

impl StationNeed {
    pub(super) fn of(station: &Station) -> Self {
        let zone = station.zone();
        let uniformity = station.sprinkler.uniformity();
        Self {
            plant_coefficients: MonthOfYear::ALL.map(|month| station.plant_coefficient(month)),
            microclimate: station.microclimate_factor(),
            kl: station.landscape_coefficients(),
            root_depth_m: station.root_depth_m(),
            available_water_mm_per_m: station.available_water_mm_per_m(),
            depletion_share: station.depletion_share(),
            raw_mm: zone.raw_mm(),
            taw_mm: zone.taw_mm,
            rate: station.sprinkler.rate_mm_per_hour(),
            uniformity,
            multiplier: run_multiplier(uniformity.0),
        }
    }

    /// Whole days between waterings before the plants feel it: `RAW / ET_L`, from one to what any
    /// panel counts. Source: \[FAO-56\] ch. 8; own rounding, down.
    pub(super) fn interval_days(&self, etl_mm_per_day: f64) -> f64 {
        let longest = range::EVERY_DAYS.max;
        if etl_mm_per_day <= 0.0 { longest } else { (self.raw_mm / etl_mm_per_day).floor().clamp(1.0, longest) }
    }
}

/// A station's base run with everything it was made from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StationBase {
    /// Terminal number.
    pub number: u8,
    /// The program that runs it.
    pub program: ProgramLetter,
    /// Plant coefficient in the base month and how it is known.
    pub plant_coefficient: (f64, Provenance),
    /// Microclimate factor of sun, shade and wind, and how it is known.
    pub microclimate: (f64, Provenance),
    /// Landscape coefficient K_L in the base month, the product of the two and the trim.
    pub kl: f64,
    /// K_L of the twelve months, January first.
    pub kl_by_month: [f64; 12],
    /// Depth of the watered roots, m, and how it is known.
    pub root_depth_m: (f64, Provenance),
    /// Available water of the soil, mm per m, and how it is known.
    pub available_water_mm_per_m: (f64, Provenance),
    /// Share of it that may be used, and how it is known.
    pub depletion_share: (f64, Provenance),
    /// Readily available water, mm: also the store that rain is counted into.
    pub raw_mm: f64,
    /// Total available water, mm.
    pub taw_mm: f64,
    /// Application rate, mm/h, and how it is known.
    pub rate: (f64, Provenance),
    /// Distribution uniformity and how it is known.
    pub uniformity: (f64, Provenance),
    /// Run-time multiplier for uneven cover.
    pub multiplier: f64,
    /// ET_L of the group's peak month, mm a day.
    pub etl_peak_mm_per_day: f64,
    /// Whole days between waterings that the soil allows in the peak month.
    pub interval_days: f64,
    /// What 100 % gives, mm a day: ET_L of the base month, rain never taken off, so that a dry peak
    /// week does not fall short; under an ET sensor ET_L at the sensor's own reference.
    pub base_mm_per_day: f64,
    /// Waterings a week that it is shared over, mean over the year.
    pub waterings: f64,
    /// Net depth of one watering, mm.
    pub net_depth_mm: f64,
    /// Minutes that give it, before any rounding.
    pub exact_minutes: f64,
    /// Base run time as the controller can be set: to its step, no longer than its longest run.
    pub run: RunTime,
    /// Whether the technician chose the run; then it need not give the demand.
    pub chosen: bool,
}

impl StationBase {
    /// Fits the base run: `net = ET_L x 7 / waterings`, then
    /// [`gross_minutes`](crate::landscape::gross_minutes), then the controller's step.
    pub(super) fn fit(station: &Station, need: &StationNeed, capability: &Capability, base: BaseDemand) -> Self {
        let net_depth_mm = base.base_mm_per_day * 7.0 / base.waterings;
        let exact_minutes = gross_minutes(net_depth_mm, need.rate.0, need.multiplier);
        let one_step = capability.run_step;
        // A station with a need keeps at least one step, so that a manual run works.
        let worked_out = capability.run(exact_minutes).max(if net_depth_mm > 0.0 { one_step } else { RunTime::ZERO });
        let run = station.minutes.unwrap_or(worked_out);
        Self {
            number: station.number,
            program: station.program,
            plant_coefficient: need.plant_coefficients[base.month.index()],
            microclimate: need.microclimate,
            kl: need.kl[base.month.index()],
            kl_by_month: need.kl,
            root_depth_m: need.root_depth_m,
            available_water_mm_per_m: need.available_water_mm_per_m,
            depletion_share: need.depletion_share,
            raw_mm: need.raw_mm,
            taw_mm: need.taw_mm,
            rate: need.rate,
            uniformity: need.uniformity,
            multiplier: need.multiplier,
            etl_peak_mm_per_day: base.etl_peak_mm_per_day,
            interval_days: need.interval_days(base.etl_peak_mm_per_day),
            base_mm_per_day: base.base_mm_per_day,
            waterings: base.waterings,
            net_depth_mm,
            exact_minutes,
            run,
            chosen: station.minutes.is_some(),
        }
    }

    /// Net depth of water in the root zone of a week at 100 %, mm.
    #[must_use]
    pub fn week_mm(&self) -> f64 {
        self.net_mm(self.run) * self.waterings
    }

    /// Net depth that a run gives where cover is thin, mm: the inverse of the base minutes.
    #[must_use]
    pub fn net_mm(&self, run: RunTime) -> f64 {
        run.minutes() / 60.0 * self.rate.0 / self.multiplier
    }

    /// Whether the controller's longest run is too short for what the station needs.
    #[must_use]
    pub fn held_at_longest(&self, capability: &Capability) -> bool {
        !self.chosen && self.exact_minutes > capability.run_max.minutes()
    }
}

/// What the base month asks of a station.
#[derive(Debug, Clone, Copy)]
pub(super) struct BaseDemand {
    pub(super) month: MonthOfYear,
    pub(super) etl_peak_mm_per_day: f64,
    pub(super) base_mm_per_day: f64,
    pub(super) waterings: f64,
}
