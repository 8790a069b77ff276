//! A field of a field table in a form: its words, what is shown in it, what was typed into it.

use upland_core::controller::StartTime;
use upland_core::field::{Field, FieldError, Fields, Kind, Presence, Value};
use upland_core::quantity::{MonthOfYear, range};

use super::Choice;
use crate::form::{Form, parse_number};
use crate::show::{Measure, Units, month_long, number};
use crate::words::Words;

/// Key of a field's name: `station-rate-mm-h`.
pub(crate) fn label_key<T: Fields>(field: &Field<T>) -> String {
    format!("{}-{}", T::NOUN, dashed(field.name))
}

/// Key of a choice's word: `soil-clay`.
pub(crate) fn choice_key(field: &str, word: &str) -> String {
    // A plant or a program is called the same wherever it stands.
    let field = match field {
        "beside" => "plant",
        "also" | "letter" => "program",
        field => field,
    };
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
        Kind::Flag => yes_no(),
        _ => Vec::new(),
    }
}

/// What can be chosen in the field of a name.
pub(crate) fn options_of<T: Fields>(name: &str) -> Vec<Choice> {
    T::field(name).map(options).unwrap_or_default()
}

/// No or yes.
pub(crate) fn yes_no() -> Vec<Choice> {
    let w = Words;
    vec![Choice::new("no", w.t("no")), Choice::new("yes", w.t("yes"))]
}

/// The measure in which a field's number is shown.
pub(crate) fn measure(kind: &Kind) -> Measure {
    match kind {
        Kind::Number { range, .. } | Kind::Numbers { range, .. } => Measure::of_range(range),
        _ => Measure::Plain,
    }
}

/// A number of a field in words, with its unit.
pub(crate) fn with_unit(kind: &Kind, number: f64, units: Units) -> String {
    match (measure(kind), kind) {
        (_, Kind::Number { range, .. }) if range.unit == "s" => run_time(number),
        (_, Kind::Number { range, .. }) if *range == range::MONTH => month_name(number),
        (Measure::Plain, Kind::Number { range, .. } | Kind::Numbers { range, .. }) if !range.unit.is_empty() => {
            format!("{}\u{a0}{}", Measure::Plain.typed(number, units), range.unit)
        }
        (Measure::Plain, _) => Measure::Plain.typed(number, units),
        (measure, _) => measure.show(number, units),
    }
}

/// The name of a month by its number.
fn month_name(number: f64) -> String {
    let month = MonthOfYear::ALL.into_iter().find(|month| f64::from(month.number()) == number);
    month.map_or_else(String::new, month_long)
}

/// A length of time as people say it: `14 min`, but `5 s` between two stations.
fn run_time(seconds: f64) -> String {
    if seconds >= 30.0 && seconds % 30.0 == 0.0 {
        format!("{}\u{a0}min", Measure::Plain.typed(seconds / 60.0, Units::Metric))
    } else {
        format!("{}\u{a0}s", Measure::Plain.typed(seconds, Units::Metric))
    }
}

/// A field of a thing as a form shows it.
pub(crate) fn shown<T: Fields>(field: &Field<T>, thing: &T, units: Units) -> String {
    match (field.get)(thing) {
        Value::Absent => String::new(),
        Value::Flag(flag) => if flag { "yes" } else { "no" }.to_owned(),
        Value::Number(number) => measure(&field.kind).typed(number, units),
        Value::Text(text) => text,
        Value::Numbers(numbers) if matches!(field.kind, Kind::Months(_)) => {
            numbers.iter().map(|n| number(*n, 2)).collect::<Vec<_>>().join(" ")
        }
        Value::Numbers(numbers) => {
            let measure = measure(&field.kind);
            numbers.iter().map(|n| measure.typed(*n, units)).collect::<Vec<_>>().join("; ")
        }
        Value::Texts(texts) => texts.join("; "),
        Value::Date(date) => date.to_string(),
        Value::Time(time) => time.to_string(),
    }
}

/// Reads what was typed into a field of a thing. What comes back as it was shown keeps its stored
/// value; what is not allowed leaves the thing as it was and puts its error beside the field.
pub(crate) fn read<T: Fields>(form: &mut Form, name: &str, field: &Field<T>, thing: &mut T, units: Units) {
    if !(field.applies)(thing) {
        return;
    }
    let typed = form.get(name).to_owned();
    let stored = (field.get)(thing);
    if stored != Value::Absent && typed == shown(field, thing, units) && field.check(&stored).is_ok() {
        return;
    }
    let value = match field.kind {
        _ if typed.is_empty() && !matches!(field.kind, Kind::Text { .. }) => Value::Absent,
        Kind::Number { .. } => match parse_number(&typed) {
            Some(number) => Value::Number(measure(&field.kind).to_si(number, units)),
            None => {
                form.fail(name, Words.t1("field-not-a-number", &typed));
                return;
            }
        },
        Kind::Flag => Value::Flag(typed == "yes"),
        Kind::Months(_) | Kind::Numbers { .. } => {
            let measure = measure(&field.kind);
            let number = |text| parse_number(text).map(|n| measure.to_si(n, units));
            match parts(&typed).map(number).collect::<Option<Vec<f64>>>() {
                Some(numbers) => Value::Numbers(numbers),
                None => {
                    form.fail(name, Words.t1("field-not-a-number", &typed));
                    return;
                }
            }
        }
        Kind::Choices(_) => Value::Texts(parts(&typed).map(str::to_owned).collect()),
        // What is no date or no time is refused as a text, by the words of the kind.
        Kind::Date => typed.parse().map_or_else(|_| Value::Text(typed), Value::Date),
        Kind::Time => StartTime::read(&typed).map_or_else(|| Value::Text(typed), Value::Time),
        Kind::Choice(_) | Kind::Text { .. } | Kind::Zone => Value::Text(typed),
    };
    if let Err(error) = field.put(thing, value) {
        form.fail(name, error_words(&error, &field.kind, units));
    }
}

/// The entries of a list as it is typed.
fn parts(typed: &str) -> impl Iterator<Item = &str> {
    typed.split(|c: char| c.is_whitespace() || c == ';').filter(|part| !part.is_empty())
}

/// Fields of a form, and the fields of a table that they enter.
pub(crate) type Entered = [(&'static str, &'static str)];

/// The names of the fields of a form, with the lines of the table that they enter.
pub(crate) fn entered_fields<T: Fields>(
    entered: &Entered,
) -> impl Iterator<Item = (&'static str, &'static Field<T>)> + use<'_, T> {
    entered.iter().filter_map(|(name, field)| {
        let line = T::field(field);
        debug_assert!(line.is_some(), "a {} has no field {field}", T::NOUN);
        Some((*name, line?))
    })
}

/// Fills the fields of a form from a thing.
pub(crate) fn fill<T: Fields>(form: &mut Form, entered: &Entered, thing: &T, units: Units) {
    for (name, field) in entered_fields(entered) {
        if (field.applies)(thing) {
            form.set(name, shown(field, thing, units));
        }
    }
}

/// As [`read`], for the fields of a form in their order.
pub(crate) fn read_all<T: Fields>(form: &mut Form, entered: &Entered, thing: &mut T, units: Units) {
    for (name, field) in entered_fields(entered) {
        read(form, name, field, thing, units);
    }
}

/// Why a value is not allowed, in words.
pub(crate) fn error_words(error: &FieldError, kind: &Kind, units: Units) -> String {
    let w = Words;
    match (error, kind) {
        (FieldError::Length { min, max }, _) | (FieldError::Missing, Kind::Text { min, max }) => {
            w.t2("field-length", ("min", min.to_string()), ("max", max.to_string()))
        }
        (FieldError::ControlCharacter, _) => w.t("field-control"),
        (FieldError::Months(count), _) => w.t1("field-months", count.to_string()),
        (FieldError::Count(max), _) => w.t1("field-count", max.to_string()),
        (_, Kind::Date) => w.t("field-date"),
        (_, Kind::Time) => w.t("field-time"),
        (_, Kind::Zone) => w.t("place-time-zone-unknown"),
        (_, Kind::Months(range)) => measure(kind).allowed(*range, units),
        (_, Kind::Number { range, .. } | Kind::Numbers { range, .. }) => measure(kind).allowed(*range, units),
        _ => w.t("field-choice"),
    }
}
