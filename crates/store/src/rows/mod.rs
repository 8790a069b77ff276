//! Rows of the tables, to and from what the core knows.

mod controller;
mod convert;
mod place;
mod sensor;
mod series;

pub(crate) use controller::{ControllerRow, MonthPlanRow, ProgramRow, StationRow, assemble};
pub(crate) use place::PlaceRow;
pub(crate) use sensor::{SensorRow, TemporaryRow};
pub(crate) use series::{NormalRow, RevisionRow, SeriesRow, normals_by_variant};
