pub(crate) mod save;
pub(crate) mod show;
