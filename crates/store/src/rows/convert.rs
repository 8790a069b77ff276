//! From what a column holds to what the core takes.

use upland_core::controller::ProgramLetter;

use crate::error::StoreError;

pub(super) fn broken(error: impl std::fmt::Display) -> StoreError {
    StoreError::BrokenRow(error.to_string())
}

/// A number that a CHECK holds within what the core's type takes.
pub(super) fn small<T: TryFrom<i32>>(value: i32) -> Result<T, StoreError> {
    T::try_from(value).map_err(|_| StoreError::BrokenRow(format!("{value} does not fit")))
}

/// A percent or a count, none of which is over 400.
pub(super) fn short(value: u16) -> i16 {
    i16::try_from(value).unwrap_or(i16::MAX)
}

/// The letter of a program.
pub(super) fn letter(text: &str) -> Result<ProgramLetter, StoreError> {
    text.chars().next().and_then(ProgramLetter::new).ok_or_else(|| StoreError::BrokenRow(format!("program {text:?}")))
}
