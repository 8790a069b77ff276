//! Rows of the tables, to and from what the core knows.

mod aggregate;
mod series;

pub(crate) use aggregate::{ControllerRow, PlaceRow};
pub(crate) use series::{NormalRow, RevisionRow, SeriesRow, normals_by_variant};
