//! Places, controllers and field records as JSON documents; the site file; runs as CSV and iCalendar.
//!
//! These documents are what the store keeps and what the log of changes holds before and after
//! each change. Unknown fields and unknown versions are refused; older versions are upgraded.

mod controller;
mod dates;
mod days;
mod error;
mod et_sheet;
mod field;
mod file;
mod measured;
mod panel;
mod place;
mod round_change;
mod rules;
mod runs;
mod sensor;
mod tabled;
pub mod upgrade;

pub use controller::{ControllerDoc, MonthDoc, ProgramDoc, ProgramLists};
pub use dates::{DatedEvent, dates_calendar};
pub use days::{DayDoc, DayModeDoc, ScheduleDoc, days_of};
pub use error::DocError;
pub use et_sheet::{ClimateStepDoc, EtSheetDoc};
pub use field::{Answer, DialledDoc, DialledValueDoc, FieldDoc, GroundDoc, NextDoc, PanelNextDoc, RoundDoc};
pub use file::{
    CONTROLLERS_MAX, MonthNormalDoc, SITE_BYTES, Site, SiteDoc, SiteError, SiteFoundDoc, SiteWeatherDoc, read_site,
    site_schema, write_site,
};
pub use measured::{MeasuredDoc, MeasurementDoc};
pub use panel::{FoundProgramDoc, FoundStationDoc, PanelDoc};
pub use place::{PlaceDoc, PlaceLinks, SitePlaceDoc};
pub use round_change::ChangeDoc;
pub use rules::{BanDoc, DayRuleDoc, HoursDoc, RulesDoc, SeasonRuleDoc};
pub use runs::{NamedRun, runs_calendar, runs_csv};
pub use sensor::{ReadingDoc, SensorDoc, SensorLists, TemporaryDoc, TemporaryId};
pub use tabled::{Nothing, Tabled};

/// The version that these documents carry. Older ones are read by [`upgrade`].
pub const VERSION: u32 = 4;
