//! What stands between the network and the handlers.

pub(crate) mod caller;
pub(crate) mod errors;
pub(crate) mod log;
pub(crate) mod password;
pub(crate) mod posted;
pub(crate) mod sessions;
pub(crate) mod signed_in;
pub(crate) mod time_limit;
