//! What a handler can reach.

use upland_store::Store;

use crate::clock::Clock;

/// The store and the clock of a worker.
#[derive(Debug)]
pub(crate) struct App {
    pub(crate) store: Store,
    pub(crate) clock: Clock,
    /// Whether a proxy stands before the server and tells who asks.
    pub(crate) behind_proxy: bool,
}
