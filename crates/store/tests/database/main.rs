//! The store against a real PostgreSQL.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod applying;
mod columns;
mod companies;
mod fixture;
mod heads;
mod migrations;
mod people;
mod reports;
mod sessions;
mod tidy;
mod weather;
