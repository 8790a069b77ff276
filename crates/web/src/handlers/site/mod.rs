//! A whole place as a file, out and in; and runs as a calendar.

pub(crate) mod choose;
pub(crate) mod discard;
pub(crate) mod export;
pub(crate) mod import;
pub(crate) mod preview;
pub(crate) mod runs;
pub(crate) mod upload;
