use thiserror::Error;
use upland_core::controller::{ControllerError, ProgramLetter};
use upland_core::quantity::OutOfRange;
use upland_core::sensor::SheetError;
use upland_core::word::WordError;

/// Why a document is not valid.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum DocError {
    /// Another version than this one.
    #[error("version {0} is not known here; versions 1 to {max} are", max = super::VERSION)]
    Version(u64),
    /// Of another shape.
    #[error("{0}")]
    Shape(String),
    /// A word that is none of the allowed ones.
    #[error(transparent)]
    Word(#[from] WordError),
    /// A value outside its range.
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
    /// Not twelve months.
    #[error("a program has 12 months, not {0}")]
    Months(usize),
    /// A controller that cannot be.
    #[error(transparent)]
    Controller(#[from] ControllerError),
    /// A sheet of an ET sensor that cannot be.
    #[error(transparent)]
    EtSheet(#[from] SheetError),
}

/// The letter of a program.
pub(super) fn letter(letter: char) -> Result<ProgramLetter, DocError> {
    ProgramLetter::new(letter).ok_or_else(|| WordError::Unknown { field: "program", value: letter.to_string() }.into())
}
