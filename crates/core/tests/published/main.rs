//! The core against published figures: each case names its table or example.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod asce;
mod balance;
mod catch_cans;
mod common_practice;
mod fao56;
mod fao56_hourly;
mod landscape;
mod noaa;
mod properties;
mod series;
mod station_properties;
mod table;
mod tr21;
