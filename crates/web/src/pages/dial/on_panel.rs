//! What stands on a panel, as far as it is on record.

use upland_core::budget::Dial;
use upland_core::controller::ProgramLetter;
use upland_core::dial_in::{Section, Value};
use upland_core::quantity::{MonthOfYear, Percent};
use upland_formats::site::DialledValueDoc;

use super::DialIn;
use crate::pages::field::FieldState;

impl DialIn<'_> {
    /// The percent of a program as it stands on the panel in a month, as far as that is on record.
    pub(crate) fn percent_on_panel(
        &self,
        state: &FieldState,
        letter: ProgramLetter,
        month: MonthOfYear,
    ) -> Option<Dial> {
        let slot = self.slots.iter().find(|s| {
            (s.section == Section::Percent || s.section == Section::Program(letter))
                && matches!(s.value, Value::Percent(_) | Value::PercentOff)
                && s.month.is_none_or(|m| m == month)
        })?;
        match state.on_panel(slot)?? {
            DialledValueDoc::Percent(percent) => Percent::new(percent).ok().map(Dial::Percent),
            DialledValueDoc::Off => Some(Dial::Off),
            _ => None,
        }
    }
}
