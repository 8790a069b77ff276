//! What stands between the network and the handlers.

pub(crate) mod access;
pub(crate) mod caller;
pub(crate) mod errors;
pub(crate) mod log;
pub(crate) mod once;
pub(crate) mod pairs;
pub(crate) mod password;
pub(crate) mod posted;
pub(crate) mod query;
pub(crate) mod session_state;
pub(crate) mod sessions;
pub(crate) mod signed_in;
pub(crate) mod time_limit;
