//! Sensors: what they are set to, what a setting would have done in the weather on record, and
//! the assumptions of those models, which are ours.

mod et;
mod fields;
mod freeze;
mod model;
mod rain;
mod setting;
mod soil;

pub use et::{ClimateStep, Correction, ET_MEAN_DAYS, EtSetting, EtSheet, Mark, SheetError, mark, recent_et0};
pub use freeze::{FreezeNights, freeze_replay, temperature_at};
pub use model::{Proof, Reading, Sensor, SensorError, SensorKind};
pub use rain::{RainCell, RainDay, RainReplay, RainStore, best_setting, rain_holds, rain_replay};
pub use setting::{Disc, RainSetting, Vent};
pub use soil::{CalibrationFault, calibration_faults, decision_window, threshold_from};
