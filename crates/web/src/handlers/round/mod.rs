pub(crate) mod list;
pub(crate) mod look;
pub(crate) mod save;
pub(crate) mod show;
