//! The mark beside a figure: how it is known.

use upland_core::landscape::Provenance;

/// The name of the mark.
pub(crate) const fn mark(provenance: Provenance) -> &'static str {
    match provenance {
        Provenance::Measured => "measured",
        Provenance::Table => "table",
        Provenance::Guessed => "guessed",
    }
}
