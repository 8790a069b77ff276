//! Places and controllers as JSON documents, version 1.
//!
//! The log of changes keeps what stood before and after in these documents, and undo reads them
//! back. Unknown fields and other versions are refused.

mod controller;
mod place;

pub use controller::{ControllerDoc, DocError, MonthDoc, PercentDoc, ProgramDoc, StationDoc};
pub use place::PlaceDoc;

/// The version that these documents carry.
pub const VERSION: u32 = 1;
