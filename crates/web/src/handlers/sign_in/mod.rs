pub(crate) mod out;
pub(crate) mod show;
pub(crate) mod submit;
