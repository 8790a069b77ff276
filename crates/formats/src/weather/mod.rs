//! Daily and hourly weather as CSV.
//!
//! A file is read in two steps, with a preview in between: [`Table::parse`] splits
//! it into a header and cells, [`Mapping`] says which column is what and in which unit, and
//! [`read`] gives days, with everything that is wrong at its line. [`to_days`] joins hourly files and other layouts to
//! such a table first; its hours stay with their days.

mod column;
mod day_hours;
mod file_error;
mod hourly;
mod hours_column;
mod joined;
mod layout;
mod mapping;
mod number;
mod pieces;
mod propose;
mod read;
mod table;
mod write;
mod write_hours;

pub use column::{Column, Unit};
pub use file_error::{FileError, MAX_BYTES, MAX_COLUMNS, MAX_HOUR_ROWS, MAX_ROWS};
pub use hourly::{
    HourColumn, HourFault, HourFaultKind, HourMapping, HourMappingError, HourNote, HourNoteKind, HourReading,
    read_hours,
};
pub use joined::{AsDays, StationHead, to_days};
pub use layout::{Encoding, Layout};
pub use mapping::{Assigned, Mapping, MappingError, Recognised, recognise};
pub use propose::{Evidence, Proposal, date_orders, propose_unit};
pub use read::{Fault, FaultKind, Note, NoteKind, Reading, Row, read, read_days, read_each};
pub use table::{Amendments, Table};
pub use write::write_days;
pub use write_hours::write_hours;
