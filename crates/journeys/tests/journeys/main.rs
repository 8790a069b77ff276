//! The application in a browser, one file a task of the technician.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod every_page;
mod keyboard;
mod live;
mod phone;
mod whole_path;
