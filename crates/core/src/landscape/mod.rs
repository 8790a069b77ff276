//! What is watered, by what, on what soil; and the minutes that follow.

mod application;
mod feel;
mod measure;
mod planting;
mod soak;
mod soil;
mod sprinkler;
mod surface;

pub use application::{gross_minutes, minutes_for, run_multiplier};
pub use feel::{Rub, Squeeze, soil_by_feel};
pub use measure::{CanDoubt, CanError, CanTest, Measurement, catch_mm, round_opening_cm2};
pub use planting::{Density, Exposure, Maturity, Plant, Planting, Provenance, WaterNeed};
pub use soak::{CycleSoak, Runoff, Slope, basic_intake_mm_per_hour, cycles, runoff, surface_accumulation_mm};
pub use soil::{Soil, readily_available_water, total_available_water};
pub use sprinkler::{Sprinkler, SprinklerType};
pub use surface::runoff_mm;
