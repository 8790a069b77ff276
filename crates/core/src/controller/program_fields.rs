//! The field table of a program: what is entered beside its months and its days.

use super::letter::ProgramLetter;
use super::model::Program;
use crate::field::{Field, Fields, Value};
use crate::quantity::{limit, range};

/// A line of the table.
type F = Field<Program>;

impl Fields for Program {
    const NOUN: &'static str = "program";

    const FIELDS: &'static [Field<Self>] = &[
        F::choice::<ProgramLetter>(
            "letter",
            |p| Value::word(p.letter),
            |p, v| v.of_word().map(|letter| p.letter = letter),
        ),
        F::text(
            "name",
            0,
            limit::PROGRAM_NAME,
            |p| p.name.clone().into(),
            |p, v| v.text().map(|name| p.name = name.to_owned()),
        )
        .defaulted(),
        F::whole(
            "waterings_per_week",
            range::WATERING_DAYS,
            |p| p.waterings_per_week.into(),
            |p, v| v.maybe(Value::whole).map(|n| p.waterings_per_week = n),
        )
        .optional(),
        F::flag("by_hand", |p| p.by_hand.into(), |p, v| v.flag().map(|f| p.by_hand = f)).defaulted(),
        F::flag("count_rain", |p| p.count_rain.into(), |p, v| v.flag().map(|f| p.count_rain = f)).defaulted(),
    ];

    fn blank() -> Self {
        Self::proposed(ProgramLetter::A)
    }
}
