//! What a proposed schedule goes by, where rules and panel leave the choice.

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
}

/// What a proposal goes by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Wish {
    /// Days.
    pub days: DayWish,
    /// Time of day.
    pub time: TimeWish,
}
