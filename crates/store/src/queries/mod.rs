//! Questions and changes, one module a subject.

mod apply;
mod changes;
mod controllers;
mod field;
mod places;
mod series;
mod sessions;
mod uploads;
mod users;
