//! Questions and changes, one module a subject.

mod apply;
mod changes;
mod controllers;
mod field;
mod heads;
pub(crate) mod health;
pub(crate) mod people;
mod places;
mod record;
mod revision;
mod series;
mod sessions;
pub(crate) mod sign_in;
mod snoozes;
mod tidy;
pub(crate) mod uploads;
mod users;
