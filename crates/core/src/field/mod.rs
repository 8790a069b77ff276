//! Field tables: what can be entered of a thing, one line a field.
//!
//! A station's application rate has a name, a range, a place in the model and a default. All of
//! that stands once, in the table of its noun ([`Fields::FIELDS`]); checks, messages, forms, files,
//! their schema and the log read the table. See `docs/adding-a-field.md`.

mod kind;
mod value;

pub use kind::{FieldError, FieldFault, Kind, Presence, check_date, check_text};
pub use value::Value;

use crate::quantity::Range;
use crate::word::Word;

/// One field of a thing.
#[derive(Debug)]
pub struct Field<T: 'static> {
    /// Its name in files, forms and the log: snake case, the unit at its end (`rate_mm_h`).
    pub name: &'static str,
    /// What it may hold.
    pub kind: Kind,
    /// Whether it may be left out.
    pub presence: Presence,
    /// Whether this thing has the field at all: a coefficient is asked for where no plant type is chosen.
    pub applies: fn(&T) -> bool,
    /// Whether that depends on the thing.
    pub conditional: bool,
    /// Reads it from a thing; [`Value::Absent`] where nothing was entered.
    pub get: fn(&T) -> Value,
    /// Writes it into a thing. `None` where the value is not of the field's kind.
    set: fn(&mut T, &Value) -> Option<()>,
}

/// Reads a field of a thing.
pub type Get<T> = fn(&T) -> Value;
/// Writes a field of a thing; `None` for a value of another kind.
pub type Set<T> = fn(&mut T, &Value) -> Option<()>;

impl<T> Field<T> {
    const fn new(name: &'static str, kind: Kind, get: Get<T>, set: Set<T>) -> Self {
        Self { name, kind, presence: Presence::Needed, applies: |_| true, conditional: false, get, set }
    }

    /// A number in a range, with its fraction.
    #[must_use]
    pub const fn number(name: &'static str, range: Range, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Number { range, whole: false }, get, set)
    }

    /// A whole number in a range: a count, or seconds.
    #[must_use]
    pub const fn whole(name: &'static str, range: Range, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Number { range, whole: true }, get, set)
    }

    /// One of a closed set of words.
    #[must_use]
    pub const fn choice<W: Word>(name: &'static str, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Choice(words_of::<W>), get, set)
    }

    /// One of the words that a function lists.
    #[must_use]
    pub const fn choice_of(name: &'static str, words: fn() -> Vec<&'static str>, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Choice(words), get, set)
    }

    /// A line of text of `min` to `max` characters.
    #[must_use]
    pub const fn text(name: &'static str, min: usize, max: usize, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Text { min, max }, get, set)
    }

    /// Twelve numbers of a range, January first.
    #[must_use]
    pub const fn months(name: &'static str, range: Range, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Months(range), get, set)
    }

    /// Up to so many numbers of a range.
    #[must_use]
    pub const fn numbers(name: &'static str, range: Range, max: usize, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Numbers { range, whole: false, max }, get, set)
    }

    /// Up to so many whole numbers of a range.
    #[must_use]
    pub const fn wholes(name: &'static str, range: Range, max: usize, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Numbers { range, whole: true, max }, get, set)
    }

    /// Any of a closed set of words.
    #[must_use]
    pub const fn choices<W: Word>(name: &'static str, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Choices(words_of::<W>), get, set)
    }

    /// A day of the calendar.
    #[must_use]
    pub const fn date(name: &'static str, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Date, get, set)
    }

    /// A time of day.
    #[must_use]
    pub const fn time(name: &'static str, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Time, get, set)
    }

    /// A time zone.
    #[must_use]
    pub const fn zone(name: &'static str, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Zone, get, set)
    }

    /// Yes or no.
    #[must_use]
    pub const fn flag(name: &'static str, get: Get<T>, set: Set<T>) -> Self {
        Self::new(name, Kind::Flag, get, set)
    }

    /// May be left empty.
    #[must_use]
    pub const fn optional(self) -> Self {
        Self { presence: Presence::Optional, ..self }
    }

    /// May be left out of a file: the thing then keeps its default.
    #[must_use]
    pub const fn defaulted(self) -> Self {
        Self { presence: Presence::Defaulted, ..self }
    }

    /// Is there only for some things.
    #[must_use]
    pub const fn when(self, applies: fn(&T) -> bool) -> Self {
        Self { applies, conditional: true, ..self }
    }

    /// Whether the field may hold this value.
    ///
    /// # Errors
    /// [`FieldError`] for what is wrong with it.
    pub fn check(&self, value: &Value) -> Result<(), FieldError> {
        match value {
            Value::Absent if self.presence == Presence::Needed => Err(FieldError::Missing),
            Value::Absent => Ok(()),
            value => self.kind.check(value),
        }
    }

    /// Writes a value into a thing; spaces around a text are dropped first.
    ///
    /// # Errors
    /// [`FieldError`] for a value that the field may not hold; the thing is then unchanged.
    pub fn put(&self, thing: &mut T, value: Value) -> Result<(), FieldError> {
        let value = value.trimmed();
        self.check(&value)?;
        let missing = value == Value::Absent;
        (self.set)(thing, &value).ok_or(if missing { FieldError::Missing } else { FieldError::Kind })
    }
}

/// A thing with a field table.
pub trait Fields: Sized + 'static {
    /// What it is called: leads the keys of its words (`station-rate_mm_h`).
    const NOUN: &'static str;
    /// Its fields, in the order in which they are entered.
    const FIELDS: &'static [Field<Self>];

    /// A thing with nothing entered: every field at its default.
    fn blank() -> Self;

    /// The field of a name.
    #[must_use]
    fn field(name: &str) -> Option<&'static Field<Self>> {
        Self::FIELDS.iter().find(|f| f.name == name)
    }

    /// Whether every field holds what it may.
    ///
    /// # Errors
    /// [`FieldFault`] with the name of the first that does not.
    fn check_fields(&self) -> Result<(), FieldFault> {
        for field in Self::FIELDS.iter().filter(|f| (f.applies)(self)) {
            field.check(&(field.get)(self)).map_err(|error| FieldFault { field: field.name, error })?;
        }
        Ok(())
    }
}

/// The words of a closed set.
#[must_use]
pub fn words_of<W: Word>() -> Vec<&'static str> {
    W::WORDS.iter().map(|(_, word)| *word).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::range;

    #[derive(Debug, Clone, PartialEq)]
    struct Tap {
        name: String,
        rate: Option<f64>,
    }

    impl Fields for Tap {
        const NOUN: &'static str = "tap";
        const FIELDS: &'static [Field<Self>] = &[
            Field::text("name", 1, 4, |t| t.name.clone().into(), |t, v| v.text().map(|n| t.name = n.to_owned())),
            Field::number(
                "rate_mm_h",
                range::RATE,
                |t: &Tap| t.rate.into(),
                |t, v| v.maybe(Value::number).map(|r| t.rate = r),
            )
            .optional(),
        ];

        fn blank() -> Self {
            Self { name: String::new(), rate: None }
        }
    }

    fn put(name: &str, value: Value) -> (Tap, Result<(), FieldError>) {
        let mut tap = Tap::blank();
        let result = Tap::field(name).unwrap().put(&mut tap, value);
        (tap, result)
    }

    #[test]
    fn spaces_are_dropped_before_characters_are_counted() {
        assert_eq!(put("name", "  tap  ".to_owned().into()).0.name, "tap");
        assert_eq!(put("name", " taps! ".to_owned().into()).1, Err(FieldError::Length { min: 1, max: 4 }));
        assert_eq!(put("name", "a\0b".to_owned().into()).1, Err(FieldError::ControlCharacter));
    }

    #[test]
    fn a_value_of_another_kind_changes_nothing() {
        assert_eq!(put("rate_mm_h", "fast".to_owned().into()), (Tap::blank(), Err(FieldError::Kind)));
        assert!(matches!(put("rate_mm_h", 500.0.into()).1, Err(FieldError::OutOfRange(_))));
        assert_eq!(put("rate_mm_h", Value::Absent).1, Ok(()));
        assert_eq!(put("name", Value::Absent).1, Err(FieldError::Missing));
    }

    #[test]
    fn a_fault_names_its_field() {
        let tap = Tap { name: "tap".into(), rate: Some(f64::NAN) };
        assert_eq!(tap.check_fields().unwrap_err().field, "rate_mm_h");
    }
}
