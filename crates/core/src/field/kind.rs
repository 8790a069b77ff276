use chrono::{Datelike, NaiveDate};
use thiserror::Error;

use super::value::Value;
use crate::quantity::{OutOfRange, Range, range};

/// What a field may hold.
#[derive(Debug, Clone, Copy)]
pub enum Kind {
    /// A number of a range; `whole` for counts and seconds.
    Number {
        /// Its limits and unit.
        range: Range,
        /// Whether it has no fraction.
        whole: bool,
    },
    /// One of the words that the function lists.
    Choice(fn() -> Vec<&'static str>),
    /// A line of text, counted in characters without the spaces around it.
    Text {
        /// Fewest characters.
        min: usize,
        /// Most characters.
        max: usize,
    },
    /// Yes or no.
    Flag,
    /// Twelve numbers of a range, January first.
    Months(Range),
    /// Up to so many numbers of a range.
    Numbers {
        /// Their limits and unit.
        range: Range,
        /// Whether they have no fraction.
        whole: bool,
        /// Most of them.
        max: usize,
    },
    /// Any of the words that the function lists.
    Choices(fn() -> Vec<&'static str>),
    /// A day of the years 1900 to 2200.
    Date,
    /// A time of day, to the minute.
    Time,
    /// A time zone of the IANA list.
    Zone,
}

/// Whether a field may be left out.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Presence {
    /// It has to be there.
    Needed,
    /// It may be empty: nothing was measured or chosen.
    Optional,
    /// It always holds something; a file that leaves it out means the default.
    Defaulted,
}

/// Why a field may not hold a value.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum FieldError {
    /// Nothing was entered.
    #[error("a value is needed")]
    Missing,
    /// A number outside its range.
    #[error("{} is not allowed; it may be {} to {} {}", .0.value, .0.range.min, .0.range.max, .0.range.unit)]
    OutOfRange(OutOfRange),
    /// A fraction where whole numbers are meant.
    #[error("{0} is not a whole number")]
    NotWhole(f64),
    /// A text that is too short or too long.
    #[error("{min} to {max} characters are allowed")]
    Length {
        /// Fewest characters.
        min: usize,
        /// Most characters.
        max: usize,
    },
    /// A line end, a tab, a NUL or another control character.
    #[error("control characters are not allowed")]
    ControlCharacter,
    /// A word that is none of the allowed ones.
    #[error("{value:?} is not known; allowed are {}", allowed.join(", "))]
    Word {
        /// The word.
        value: String,
        /// The allowed ones.
        allowed: Vec<&'static str>,
    },
    /// Fewer or more numbers than a year has months.
    #[error("{0} numbers instead of twelve, January first")]
    Months(usize),
    /// A time zone that is not on the list.
    #[error("{0:?} is no time zone of the IANA list")]
    Zone(String),
    /// More entries of a list than are kept.
    #[error("up to {0} entries are allowed")]
    Count(usize),
    /// A number where a text is meant, and the like.
    #[error("the value is of another kind")]
    Kind,
}

/// A field that holds what it may not.
#[derive(Debug, Clone, PartialEq, Error)]
#[error("{field}: {error}")]
pub struct FieldFault {
    /// The field's name.
    pub field: &'static str,
    /// What is wrong.
    pub error: FieldError,
}

impl Kind {
    /// Whether a value that was entered is of this kind and within its limits.
    ///
    /// # Errors
    /// [`FieldError`] for what is wrong with it.
    pub fn check(&self, value: &Value) -> Result<(), FieldError> {
        match (self, value) {
            (Self::Number { range, whole }, Value::Number(number)) => check_number(*number, range, *whole),
            (Self::Numbers { max, .. }, Value::Numbers(numbers)) if numbers.len() > *max => {
                Err(FieldError::Count(*max))
            }
            (Self::Numbers { range, whole, .. }, Value::Numbers(numbers)) => {
                numbers.iter().try_for_each(|n| check_number(*n, range, *whole))
            }
            (Self::Choice(words), Value::Text(text)) => check_words(std::slice::from_ref(text), words()),
            (Self::Choices(words), Value::Texts(texts)) => check_words(texts, words()),
            (Self::Date, Value::Date(date)) => check_date(*date),
            (Self::Time, Value::Time(_)) => Ok(()),
            (Self::Zone, Value::Text(name)) if name.parse::<chrono_tz::Tz>().is_ok() => Ok(()),
            (Self::Zone, Value::Text(name)) => Err(FieldError::Zone(name.clone())),
            (Self::Text { min, max }, Value::Text(text)) => check_text(text, *min, *max),
            (Self::Flag, Value::Flag(_)) => Ok(()),
            (Self::Months(_), Value::Numbers(numbers)) if numbers.len() != 12 => Err(FieldError::Months(numbers.len())),
            (Self::Months(range), Value::Numbers(numbers)) => {
                numbers.iter().try_for_each(|n| range.check(*n).map(drop).map_err(FieldError::OutOfRange))
            }
            _ => Err(FieldError::Kind),
        }
    }
}

fn check_number(number: f64, range: &Range, whole: bool) -> Result<(), FieldError> {
    range.check(number).map_err(FieldError::OutOfRange)?;
    if whole && number.fract() != 0.0 { Err(FieldError::NotWhole(number)) } else { Ok(()) }
}

fn check_words(texts: &[String], allowed: Vec<&'static str>) -> Result<(), FieldError> {
    match texts.iter().find(|text| !allowed.contains(&text.as_str())) {
        Some(unknown) => Err(FieldError::Word { value: unknown.clone(), allowed }),
        None => Ok(()),
    }
}

/// Whether a line of text has an allowed length and no control character.
///
/// # Errors
/// [`FieldError::Length`] and [`FieldError::ControlCharacter`].
pub fn check_text(text: &str, min: usize, max: usize) -> Result<(), FieldError> {
    if text.chars().any(char::is_control) {
        Err(FieldError::ControlCharacter)
    } else if !(min..=max).contains(&text.chars().count()) || (min > 0 && text.trim().is_empty()) {
        Err(FieldError::Length { min, max })
    } else {
        Ok(())
    }
}

/// Whether a date lies in the years that are kept, 1900 to 2200.
///
/// # Errors
/// [`FieldError::OutOfRange`] for other years.
pub fn check_date(date: NaiveDate) -> Result<(), FieldError> {
    range::YEAR.check(f64::from(date.year())).map(drop).map_err(FieldError::OutOfRange)
}
