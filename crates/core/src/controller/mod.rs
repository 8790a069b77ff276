//! What a controller can be set to, and what it does with what it was set to.

mod capability;
mod capability_fields;
mod check;
mod controller_fields;
mod days;
mod days_fit;
mod errors;
mod hours;
mod letter;
mod model;
mod month_days;
mod program_fields;
mod sensing;
mod station;
mod station_fields;
mod temporary;
mod temporary_fields;

pub use capability::{
    Capability, CapabilityError, ClockFace, Contact, DayModes, PanelOrder, PercentScope, PercentStorage, Preset,
    StartOff,
};
pub use days::{DayMode, Days, Schedule, StartTime};
pub(crate) use days_fit::choose_days;
pub use days_fit::even_days;
pub use errors::{ControllerError, RootZoneError, RunError, ScheduleError, TemporaryError};
pub use hours::Hours;
pub(crate) use hours::{outside, stretches, windows_fit};
pub use letter::ProgramLetter;
pub use model::{BaseMonth, Controller, MonthDial, MonthPlan, Program, name_is_valid};
pub use station::{StatedRootZone, Station};
pub use temporary::{Temporary, TemporaryKind};
