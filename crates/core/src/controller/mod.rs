//! What a controller can be set to, and what it does with what it was set to.

mod capability;
mod capability_fields;
mod check;
mod days;
mod errors;
mod letter;
mod model;
mod program_fields;
mod station_fields;
mod temporary;

pub use capability::{Capability, CapabilityError, Contact, DayModes, PercentScope, PercentStorage, Preset};
pub use days::{DayMode, Days, Schedule, StartTime};
pub use errors::{ControllerError, RunError, ScheduleError, TemporaryError};
pub use letter::ProgramLetter;
pub use model::{BaseMonth, Controller, MonthDial, MonthPlan, Program, Station, name_is_valid};
pub use temporary::{Temporary, TemporaryKind};
