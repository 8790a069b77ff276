//! The only user of the database.
//!
//! [`Store`] holds the pool. What belongs to a company is reached through [`Store::account`],
//! whose key leads every query, so that one company can neither see nor change another's rows.
//! Everything that is changed goes through [`Account::apply`]: rows and the entry in the log of
//! changes in one transaction, made on a version and refused when that is no longer the newest.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod documents;
mod error;
mod known;
mod model;
mod pool;
mod queries;
mod rows;
mod schema;
#[cfg(feature = "testing")]
pub mod testing;

pub use error::StoreError;
pub use model::{
    Action, ActionLine, ChangeEntry, ControllerHead, ControllerRecord, DayHours, FieldRecord, FurtherWeather,
    HeadFilter, HoursOnRecord, Kind, NewRevision, NewUpload, NormalsVariant, Part, Person, PlaceRecord, Record,
    RecordDay, RevisionSummary, Role, SeriesRecord, SessionOwner, SessionRecord, Snooze, TYPED, TYPED_CLIMATE,
    TYPED_TEMPERATURES, Upload, UploadsKept, UserRecord, Versioned, Visitor, WaitingUpload, WeatherDay, Write,
};
pub use pool::{Account, Store, migrate};
pub use queries::health::{Health, health};
pub use queries::people::LinkOwner;
pub use queries::sign_in::SignInTurn;

/// For tests: brings a database down to nothing, newest migration first.
#[cfg(feature = "testing")]
pub use pool::revert_all;
