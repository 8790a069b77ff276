//! What tests of the whole application share: the real binary on a free port with a database of
//! its own, and a browser that opens it.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_debug_implementations)]

mod browser;
mod forms;
mod server;

pub use browser::{Browser, DESK, PHONE, Scheme};
pub use forms::{fields_of_forms, plain};
pub use server::{PASSWORD, Server};
