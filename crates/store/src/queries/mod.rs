//! Questions and changes, one module a subject.

mod apply;
mod changes;
mod controllers;
mod field;
mod places;
mod series;
mod sessions;
pub(crate) mod sign_in;
mod uploads;
mod users;
