//! What a controller can be set to, and what it does with what it was set to.

mod capability;
mod model;

pub use capability::{Capability, CapabilityError, PercentScope, PercentStorage, Preset};
pub use model::{
    BaseMonth, Controller, ControllerError, MonthDial, MonthPlan, Program, ProgramLetter, Station, name_is_sound,
};
