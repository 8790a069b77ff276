pub(crate) mod add;
pub(crate) mod put_back;
pub(crate) mod show;
