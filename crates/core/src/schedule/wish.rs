//! What a proposed schedule goes by, where rules and panel leave the choice.

use crate::controller::{ProgramLetter, Station};

/// On which days a proposal waters, where rules and panel leave the choice.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum DayWish {
    /// Weekdays, as even as they come.
    #[default]
    Weekdays,
    /// Every so many days, as long as the thirstiest station of the program can wait.
    EveryN,
    /// Odd dates.
    Odd,
    /// Even dates.
    Even,
}

/// At which end of the night it waters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum TimeWish {
    /// To end before people are about.
    #[default]
    Morning,
    /// From the early evening, to end before 23:00.
    Evening,
    /// In the morning what fits, the rest in the evening.
    Both,
}

/// Programs that a proposal leaves as they are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Pinned([bool; 4]);

impl Pinned {
    /// These programs.
    #[must_use]
    pub fn of(letters: impl IntoIterator<Item = ProgramLetter>) -> Self {
        Self::default().and(letters)
    }

    /// The same with these programs too.
    #[must_use]
    pub fn and(self, letters: impl IntoIterator<Item = ProgramLetter>) -> Self {
        letters.into_iter().fold(self, |mut pinned, letter| {
            pinned.0[letter.index()] = true;
            pinned
        })
    }

    /// Whether a station runs in a program that stays as it is.
    #[must_use]
    pub fn holds_station(self, station: &Station) -> bool {
        ProgramLetter::ALL.iter().any(|letter| self.holds(*letter) && station.runs_in(*letter))
    }

    /// Whether a program stays as it is.
    #[must_use]
    pub const fn holds(self, letter: ProgramLetter) -> bool {
        self.0[letter.index()]
    }
}

/// What a proposal goes by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Wish {
    /// Days.
    pub days: DayWish,
    /// Time of day.
    pub time: TimeWish,
    /// Programs that stay as they are.
    pub pinned: Pinned,
}
