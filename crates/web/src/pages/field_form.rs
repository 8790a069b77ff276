//! A field of a field table in a form: its words, what is shown in it, what was typed into it.

use upland_core::field::{Field, FieldError, Fields, Kind, Presence, Value};

use super::Choice;
use crate::form::{Form, parse_number};
use crate::show::{Measure, Units, number};
use crate::words::Words;

/// Key of a field's name: `station-rate-mm-h`.
pub(crate) fn label_key<T: Fields>(field: &Field<T>) -> String {
    format!("{}-{}", T::NOUN, dashed(field.name))
}

/// Key of a choice's word: `soil-clay`.
pub(crate) fn choice_key(field: &str, word: &str) -> String {
    // A plant is called the same wherever it stands.
    let field = if field == "beside" { "plant" } else { field };
    format!("{}-{}", dashed(field), dashed(word))
}

fn dashed(name: &str) -> String {
    name.replace('_', "-").to_lowercase()
}

/// Every key of words that a table asks for, so that a test finds one that is missing or unused.
#[cfg(test)]
pub(crate) fn keys<T: Fields>() -> Vec<String> {
    let mut keys = Vec::new();
    for field in T::FIELDS {
        keys.push(label_key(field));
        if let Kind::Choice(words) = field.kind {
            keys.extend(words().into_iter().map(|word| choice_key(field.name, word)));
        }
    }
    keys
}

/// The keys of the words of a closed set that is no field of a table.
#[cfg(test)]
pub(crate) fn word_keys<W: upland_core::word::Word>() -> impl Iterator<Item = String> {
    W::WORDS.iter().map(|(_, word)| choice_key(W::FIELD, word))
}

/// What can be chosen in a field; empty for numbers and texts.
pub(crate) fn options<T: Fields>(field: &Field<T>) -> Vec<Choice> {
    let w = Words;
    match field.kind {
        Kind::Choice(words) => {
            let none = (field.presence == Presence::Optional).then(|| Choice::new("", w.t("choice-usual")));
            let word = |word: &'static str| Choice::new(word, w.t(&choice_key(field.name, word)));
            none.into_iter().chain(words().into_iter().map(word)).collect()
        }
        Kind::Flag => vec![Choice::new("no", w.t("no")), Choice::new("yes", w.t("yes"))],
        Kind::Number { .. } | Kind::Text { .. } | Kind::Months(_) => Vec::new(),
    }
}

/// The measure in which a field's number is shown.
pub(crate) fn measure(kind: &Kind) -> Measure {
    match kind {
        Kind::Number { range, .. } => Measure::of_range(range),
        _ => Measure::Plain,
    }
}

/// A field of a thing as a form shows it.
pub(crate) fn shown<T: Fields>(field: &Field<T>, thing: &T, units: Units) -> String {
    match (field.get)(thing) {
        Value::Absent => String::new(),
        Value::Flag(flag) => if flag { "yes" } else { "no" }.to_owned(),
        Value::Number(number) => measure(&field.kind).typed(number, units),
        Value::Text(text) => text,
        Value::Numbers(numbers) => numbers.iter().map(|n| number(*n, 2)).collect::<Vec<_>>().join(" "),
    }
}

/// Reads what was typed into a field of a thing. What comes back as it was shown keeps its stored
/// value; what is not allowed leaves the thing as it was and puts its error beside the field.
pub(crate) fn read<T: Fields>(form: &mut Form, name: &str, field: &Field<T>, thing: &mut T, units: Units) {
    if !(field.applies)(thing) {
        return;
    }
    let typed = form.get(name).to_owned();
    if (field.get)(thing) != Value::Absent && typed == shown(field, thing, units) {
        return;
    }
    let value = match field.kind {
        _ if typed.is_empty() => Value::Absent,
        Kind::Number { .. } => match parse_number(&typed) {
            Some(number) => Value::Number(measure(&field.kind).to_si(number, units)),
            None => {
                form.fail(name, Words.t1("field-not-a-number", &typed));
                return;
            }
        },
        Kind::Flag => Value::Flag(typed == "yes"),
        Kind::Months(_) => {
            let parts = typed.split(|c: char| c.is_whitespace() || c == ';').filter(|part| !part.is_empty());
            match parts.map(parse_number).collect::<Option<Vec<f64>>>() {
                Some(numbers) => Value::Numbers(numbers),
                None => {
                    form.fail(name, Words.t1("field-not-a-number", &typed));
                    return;
                }
            }
        }
        Kind::Choice(_) | Kind::Text { .. } => Value::Text(typed),
    };
    if let Err(error) = field.put(thing, value) {
        form.fail(name, error_words(&error, &field.kind, units));
    }
}

/// Why a value is not allowed, in words.
pub(crate) fn error_words(error: &FieldError, kind: &Kind, units: Units) -> String {
    let w = Words;
    match (error, kind) {
        (FieldError::Length { min, max }, _) | (FieldError::Missing, Kind::Text { min, max }) => {
            w.t2("field-length", min.to_string(), max.to_string())
        }
        (FieldError::ControlCharacter, _) => w.t("field-control"),
        (FieldError::Months(count), _) => w.t1("field-months", count.to_string()),
        (_, Kind::Months(range)) => measure(kind).allowed(*range, units),
        (_, Kind::Number { range, .. }) => measure(kind).allowed(*range, units),
        _ => w.t("field-choice"),
    }
}
