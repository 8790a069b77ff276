//! What a controller can be set to, and what it does with what it was set to.

mod capability;
mod days;
mod model;
mod temporary;

pub use capability::{Capability, CapabilityError, Contact, DayModes, PercentScope, PercentStorage, Preset};
pub use days::{DayMode, Days, Schedule, StartTime};
pub use model::{
    BaseMonth, Controller, ControllerError, MonthDial, MonthPlan, Program, ProgramLetter, RunError, ScheduleError,
    Station, TemporaryError, name_is_sound,
};
pub use temporary::{Temporary, TemporaryKind};
