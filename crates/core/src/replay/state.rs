use chrono::NaiveDate;

use super::ground::{Ground, Part};
use super::season::Season;
use crate::balance::RootZone;

/// A day to decide on.
#[derive(Debug, Clone, Copy)]
pub struct Day<'a> {
    /// The weather; a strategy looks at no day after this one.
    pub season: &'a Season,
    /// Which day of it.
    pub index: usize,
}

impl Day<'_> {
    /// The local date.
    #[must_use]
    pub fn date(&self) -> NaiveDate {
        self.season.dates[self.index]
    }
}

/// How a station stands at the start of a day, on average.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Standing {
    /// Water missing to field capacity, mm.
    pub depletion_mm: f64,
    /// Its store.
    pub zone: RootZone,
}

/// How all stations stand at the start of a day.
#[derive(Debug, Clone, Copy)]
pub struct State<'a> {
    pub(super) ground: &'a Ground,
    pub(super) depletions: &'a [[f64; 2]],
}

impl State<'_> {
    /// How a station stands, on average.
    #[must_use]
    pub fn of(&self, number: u8) -> Option<Standing> {
        let index = self.ground.index(number)?;
        Some(self.at(index))
    }

    pub(super) fn at(&self, index: usize) -> Standing {
        Standing { depletion_mm: self.depletions[index][Part::Average.index()], zone: self.ground.stations[index].zone }
    }
}
