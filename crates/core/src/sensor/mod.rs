//! Sensors: what they are set to, what a setting would have done in the weather on record, and
//! the assumptions of those models, which are ours.

mod et;
mod freeze;
mod model;
mod rain;
mod setting;
mod soil;

pub use et::{EtClass, class_for, et_percent, expected_by_month, offset_share};
pub use freeze::{FreezeNights, freeze_replay, temperature_at};
pub use model::{Proof, Reading, Sensor, SensorError, SensorKind};
pub use rain::{RainCell, RainDay, RainReplay, RainStore, best_setting, rain_holds, rain_replay};
pub use setting::{Disc, RainSetting, Vent};
pub use soil::{CalibrationFault, calibration_faults, decision_window, threshold_from};
