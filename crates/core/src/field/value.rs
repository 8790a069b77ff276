use chrono::NaiveDate;

use crate::controller::StartTime;
use crate::word::Word;

/// What a field holds, whatever its thing.
#[derive(Debug, Clone, PartialEq)]
pub enum Value {
    /// Nothing was entered.
    Absent,
    /// Yes or no.
    Flag(bool),
    /// A number in the unit of the field's name.
    Number(f64),
    /// A text, or one of a closed set of words.
    Text(String),
    /// Numbers in an order, as those of the twelve months.
    Numbers(Vec<f64>),
    /// Words in an order.
    Texts(Vec<String>),
    /// A day of the calendar.
    Date(NaiveDate),
    /// A time of day.
    Time(StartTime),
}

impl Value {
    /// The word of a value of a closed set.
    #[must_use]
    pub fn word(word: impl Word) -> Self {
        Self::Text(word.word().to_owned())
    }

    /// The words of a list of values of a closed set.
    #[must_use]
    pub fn words<W: Word>(words: &[W]) -> Self {
        Self::Texts(words.iter().map(|word| word.word().to_owned()).collect())
    }

    /// A list of whole numbers.
    #[must_use]
    pub fn list<N: Copy + Into<f64>>(numbers: &[N]) -> Self {
        Self::Numbers(numbers.iter().map(|n| (*n).into()).collect())
    }

    /// The number.
    #[must_use]
    pub const fn number(&self) -> Option<f64> {
        match self {
            Self::Number(number) => Some(*number),
            _ => None,
        }
    }

    /// The whole number, where it fits its type.
    #[must_use]
    pub fn whole<N: TryFrom<u32>>(&self) -> Option<N> {
        let number = self.number().filter(|n| n.fract() == 0.0 && (0.0..=f64::from(u32::MAX)).contains(n))?;
        // Whole and within u32: the cast loses nothing.
        N::try_from(number as u32).ok()
    }

    /// The numbers of the twelve months.
    #[must_use]
    pub fn months(&self) -> Option<[f64; 12]> {
        match self {
            Self::Numbers(numbers) => numbers.as_slice().try_into().ok(),
            _ => None,
        }
    }

    /// The numbers of a list.
    #[must_use]
    pub fn numbers(&self) -> Option<&[f64]> {
        match self {
            Self::Numbers(numbers) => Some(numbers),
            _ => None,
        }
    }

    /// The whole numbers of a list, where all of them fit their type.
    #[must_use]
    pub fn wholes<N: TryFrom<u32>>(&self) -> Option<Vec<N>> {
        self.numbers()?.iter().map(|n| Self::Number(*n).whole()).collect()
    }

    /// The day.
    #[must_use]
    pub const fn date(&self) -> Option<NaiveDate> {
        match self {
            Self::Date(date) => Some(*date),
            _ => None,
        }
    }

    /// The time of day.
    #[must_use]
    pub const fn time(&self) -> Option<StartTime> {
        match self {
            Self::Time(time) => Some(*time),
            _ => None,
        }
    }

    /// The values of a closed set that the texts of a list are the words of.
    #[must_use]
    pub fn of_words<W: Word>(&self) -> Option<Vec<W>> {
        match self {
            Self::Texts(texts) => texts.iter().map(|text| W::of_word(text).ok()).collect(),
            _ => None,
        }
    }

    /// Yes or no.
    #[must_use]
    pub const fn flag(&self) -> Option<bool> {
        match self {
            Self::Flag(flag) => Some(*flag),
            _ => None,
        }
    }

    /// The text.
    #[must_use]
    pub fn text(&self) -> Option<&str> {
        match self {
            Self::Text(text) => Some(text),
            _ => None,
        }
    }

    /// The value of a closed set that the text is the word of.
    #[must_use]
    pub fn of_word<W: Word>(&self) -> Option<W> {
        W::of_word(self.text()?).ok()
    }

    /// As one of the readers above, with nothing entered as `Some(None)`.
    pub fn maybe<'a, V>(&'a self, read: impl FnOnce(&'a Self) -> Option<V>) -> Option<Option<V>> {
        if *self == Self::Absent { Some(None) } else { read(self).map(Some) }
    }

    /// The value with the spaces around a text dropped.
    #[must_use]
    pub fn trimmed(self) -> Self {
        match self {
            Self::Text(text) if text.trim().len() != text.len() => Self::Text(text.trim().to_owned()),
            other => other,
        }
    }
}

impl From<bool> for Value {
    fn from(flag: bool) -> Self {
        Self::Flag(flag)
    }
}

impl From<f64> for Value {
    fn from(number: f64) -> Self {
        Self::Number(number)
    }
}

impl From<u8> for Value {
    fn from(number: u8) -> Self {
        Self::Number(f64::from(number))
    }
}

impl From<u16> for Value {
    fn from(number: u16) -> Self {
        Self::Number(f64::from(number))
    }
}

impl From<u32> for Value {
    fn from(number: u32) -> Self {
        Self::Number(f64::from(number))
    }
}

impl From<String> for Value {
    fn from(text: String) -> Self {
        Self::Text(text)
    }
}

impl From<NaiveDate> for Value {
    fn from(date: NaiveDate) -> Self {
        Self::Date(date)
    }
}

impl From<StartTime> for Value {
    fn from(time: StartTime) -> Self {
        Self::Time(time)
    }
}

impl<V: Into<Self>> From<Option<V>> for Value {
    fn from(value: Option<V>) -> Self {
        value.map_or(Self::Absent, Into::into)
    }
}
