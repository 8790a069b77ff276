pub(crate) mod list;
pub(crate) mod preview;
pub(crate) mod save;
pub(crate) mod show;
