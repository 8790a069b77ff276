//! Files in and out of Upland Almanac.
//!
//! [`weather`] reads daily weather as RFC 4180 CSV; [`site`] holds the documents in which places
//! and controllers are kept in the log of changes; [`replay`] writes a season run again. File types live here and become the core's by
//! `TryFrom`.
#![deny(missing_docs)]
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod replay;
pub mod site;
mod text_table;
pub mod weather;

pub use text_table::csv_of;
