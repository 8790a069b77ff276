//! Quantities with their units, and the one table of what each may be.

mod ranges;
mod types;

pub use ranges::{OutOfRange, Range, limit, range};
pub use types::{Coefficient, DepthMm, MonthOfYear, Percent, RateMmPerHour, RunTime};
