pub(crate) mod adopt;
pub(crate) mod preview;
pub(crate) mod save;
pub(crate) mod show;

/// How many earlier panels a page lists.
const RECORDS: i64 = 60;
