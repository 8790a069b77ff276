//! The pages of Upland Almanac.
//!
//! [`serve`] runs the application; `routes` is the whole URL map; a handler extracts, authorises,
//! loads, calls the core, builds a view model from `pages` and renders its template. Words come
//! from `locales/`, charts are drawn by the server.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod apart;
mod assets;
mod charts;
mod clock;
mod context;
#[cfg(test)]
mod drawn;
mod error;
mod form;
#[cfg(test)]
mod golden;
mod guard;
mod handlers;
mod headers;
pub mod intake;
mod jobs;
mod loading;
mod pages;
#[cfg(test)]
mod refused;
mod remembered;
mod routes;
mod searches;
mod server;
mod show;
mod state;
mod typed_position;
#[cfg(test)]
mod untouched;
mod words;

pub use clock::Clock;
pub use guard::access::Access;
pub use guard::password::{PasswordError, hash_password};
pub use pages::findings::{FindingWords, words_of_findings};
pub use pages::found::words_of_panel;
pub use routes::{RouteFacts, route_facts};
pub use server::{Settings, serve};
