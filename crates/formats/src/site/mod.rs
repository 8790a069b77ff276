//! Places, controllers and what is recorded in the field as JSON documents, version 1; the site file;
//! runs as CSV and iCalendar.
//!
//! The log of changes keeps what stood before and after in these documents, and undo reads them
//! back. Unknown fields and other versions are refused.

mod controller;
mod days;
mod error;
mod field;
mod file;
mod panel;
mod place;
mod rules;
mod runs;
mod sensor;

pub use controller::{AbilityDoc, ControllerDoc, MonthDoc, PercentDoc, ProgramDoc, StationDoc};
pub use days::{DayDoc, DayModeDoc, ScheduleDoc};
pub use error::DocError;
pub use field::{Answer, DialledDoc, FieldDoc, GroundDoc, RoundDoc};
pub use file::{
    CONTROLLERS_MAX, MonthNormalDoc, SITE_BYTES, Site, SiteDoc, SiteError, SiteFoundDoc, SitePlaceDoc, SiteWeatherDoc,
    read_site, site_schema, write_site,
};
pub use panel::{FoundProgramDoc, FoundStationDoc, PanelDoc};
pub use place::PlaceDoc;
pub use rules::{BanDoc, DayRuleDoc, HoursDoc, RulesDoc};
pub use runs::{NamedRun, runs_calendar, runs_csv};
pub use sensor::{ProofDoc, ReadingDoc, SensorDoc, SensorKindDoc, TemporaryDoc, TemporaryKindDoc};

/// The version that these documents carry.
pub const VERSION: u32 = 1;
