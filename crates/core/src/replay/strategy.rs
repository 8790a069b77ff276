//! What every way of watering is asked.

use super::dose::Dose;
use super::state::{Day, State};

/// A way of watering: what it gives on a day, from the weather so far and how the stations stand.
pub trait Strategy {
    /// Adds the doses of what starts on a day to those of its date, and to those of the next one what
    /// runs after midnight. Days come in their order, each once.
    fn water(&mut self, day: &Day<'_>, state: &State<'_>, today: &mut [Dose], tomorrow: &mut [Dose]);
}

/// No water at all.
#[derive(Debug, Clone, Copy, Default)]
pub struct Nothing;

impl Strategy for Nothing {
    fn water(&mut self, _: &Day<'_>, _: &State<'_>, _: &mut [Dose], _: &mut [Dose]) {}
}
