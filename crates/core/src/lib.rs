//! The rules and the computation of Upland Almanac.
//!
//! From a place, its weather, a controller and its stations to the figures that a technician
//! sets: minutes, waterings and the percent of each month. Everything here is a pure function of
//! its arguments: no clock, no files, no database and no web (a check in the test command holds
//! this). Units are SI throughout; each public function names its source and equation, with the
//! keys of `docs/references.md`.
#![deny(missing_docs)]
// Tests may unwrap: a panic there is a failed check, not a fault in front of a technician.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod balance;
pub mod budget;
pub mod climate;
pub mod controller;
pub mod dial_in;
pub mod field;
pub mod found;
pub mod in_force;
pub mod landscape;
pub mod place;
pub mod quantity;
pub mod replay;
pub mod schedule;
pub mod sensor;
#[cfg(feature = "testing")]
pub mod testing;
pub mod tuning;
pub mod word;
