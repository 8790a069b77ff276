//! Rows of the tables, to and from what the core knows.

mod aggregate;
mod daily;
mod hours;
mod json_text;
mod series;

pub(crate) use aggregate::{ControllerRow, PlaceRow};
pub(crate) use daily::{DayRow, DecisionRow};
pub(crate) use hours::HoursRow;
pub(crate) use json_text::JsonText;
pub(crate) use series::{NormalRow, RevisionRow, SeriesRow, normals_by_variant};
