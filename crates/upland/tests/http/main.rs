//! The server over HTTP: the real binary, a real database, no browser.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod account;
mod agreement;
mod bad_input;
mod client;
mod et_sensor;
mod feel;
mod field;
mod found;
mod giving_way;
mod guards;
mod history;
mod jobs;
mod joined;
mod large;
mod measure;
mod people;
mod proposals;
mod record;
mod replay;
mod rules;
mod saving;
mod server;
mod site_file;
mod stations_of_weather;
mod twice;
mod uploads;
mod valve;
mod weaning;
mod weather;
