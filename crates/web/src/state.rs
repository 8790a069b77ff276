//! What a handler can reach.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

use upland_store::Store;

use crate::clock::Clock;

/// The store and the clock of a worker.
#[derive(Debug)]
pub(crate) struct App {
    pub(crate) store: Store,
    pub(crate) clock: Clock,
    /// Whether a proxy stands before the server and tells who asks.
    pub(crate) behind_proxy: bool,
    /// Whether the database is at the newest version; see [`crate::Settings`].
    pub(crate) migrated: Arc<AtomicBool>,
}

impl App {
    /// Whether pages can be answered.
    pub(crate) fn is_migrated(&self) -> bool {
        self.migrated.load(Ordering::Acquire)
    }
}
