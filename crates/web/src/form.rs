//! What was typed, kept as it was typed, with an error beside each field that needs one.

use std::collections::BTreeMap;

use sha2::{Digest, Sha256};
use upland_core::quantity::{Range, limit};
use upland_core::word::Word;

use crate::show::{Measure, Units};
use crate::words::Words;

/// Longest e-mail address there is (RFC 5321, 4.5.3.1).
pub(crate) const MOST_EMAIL: usize = 254;

/// A key for the action of a form, made with its page, so that pressing twice does it once.
pub(crate) fn new_key() -> String {
    uuid::Uuid::new_v4().to_string()
}

/// A form: values by field, errors by field.
#[derive(Debug, Clone, Default)]
pub(crate) struct Form {
    values: BTreeMap<String, String>,
    errors: BTreeMap<String, String>,
    digest: Vec<u8>,
}

impl Form {
    pub(crate) fn from_pairs(pairs: impl IntoIterator<Item = (String, String)>) -> Self {
        Self { values: pairs.into_iter().collect(), ..Self::default() }
    }

    /// A form as it was sent, with the hash that tells it from another: of all its fields but `but`, which
    /// belongs to the session.
    pub(crate) fn sent(pairs: impl IntoIterator<Item = (String, String)>, but: &str) -> Self {
        let mut form = Self::from_pairs(pairs);
        let mut hash = Sha256::new();
        for (field, value) in form.values.iter().filter(|(field, _)| *field != but) {
            for part in [field, value] {
                hash.update(part.len().to_be_bytes());
                hash.update(part);
            }
        }
        form.digest = hash.finalize().to_vec();
        form
    }

    /// Hash of the form as it was sent; empty for one that was not.
    pub(crate) fn digest(&self) -> &[u8] {
        &self.digest
    }

    /// What stands in a field, trimmed; empty when it was not sent.
    pub(crate) fn get(&self, field: &str) -> &str {
        self.values.get(field).map_or("", |v| v.trim())
    }

    /// What stands in a field as it was typed: the spaces round a password are part of it.
    pub(crate) fn as_typed(&self, field: &str) -> &str {
        self.values.get(field).map_or("", String::as_str)
    }

    /// The fields whose names begin with a text, without it, with what stands in them.
    pub(crate) fn beginning<'a>(&'a self, start: &'a str) -> impl Iterator<Item = (&'a str, &'a str)> {
        let fields = self.values.range(start.to_owned()..);
        fields.map_while(move |(name, value)| Some((name.strip_prefix(start)?, value.as_str())))
    }

    pub(crate) fn has(&self, field: &str) -> bool {
        self.values.contains_key(field)
    }

    /// Whether a choice field stands at a value.
    pub(crate) fn is(&self, field: &str, value: &str) -> bool {
        self.get(field) == value
    }

    /// Whether a box of a group is ticked: the group's name and the box's number make its field.
    pub(crate) fn is_ticked(&self, group: impl std::fmt::Display, number: impl std::fmt::Display) -> bool {
        !self.get(&format!("{group}{number}")).is_empty()
    }

    pub(crate) fn set(&mut self, field: &str, value: impl Into<String>) {
        self.values.insert(field.to_owned(), value.into());
    }

    /// Puts an error beside a field; the first one stays.
    pub(crate) fn fail(&mut self, field: &str, message: impl Into<String>) {
        self.errors.entry(field.to_owned()).or_insert_with(|| message.into());
    }

    /// The error beside a field; empty when there is none.
    pub(crate) fn error(&self, field: &str) -> &str {
        self.errors.get(field).map_or("", String::as_str)
    }

    pub(crate) fn is_sound(&self) -> bool {
        self.errors.is_empty()
    }

    pub(crate) fn error_count(&self) -> usize {
        self.errors.len()
    }

    /// All that was typed, to be sent again as an action of its own.
    pub(crate) fn into_fields_to_send_again(mut self) -> Vec<(String, String)> {
        self.set("action", new_key());
        self.values.into_iter().collect()
    }

    /// All that was typed.
    pub(crate) fn pairs(&self) -> impl Iterator<Item = (&String, &String)> {
        self.values.iter()
    }

    /// A number in the user's units, checked against its range in SI. An empty field is `None`.
    pub(crate) fn measure(&mut self, field: &str, measure: Measure, range: Range, units: Units) -> Option<f64> {
        let typed = self.get(field).to_owned();
        if typed.is_empty() {
            return None;
        }
        let Some(number) = parse_number(&typed) else {
            self.fail(field, Words.t1("field-not-a-number", &typed));
            return None;
        };
        let value = measure.to_si(number, units);
        if range.holds(value) {
            return Some(value);
        }
        self.fail(field, measure.allowed(range, units));
        None
    }

    /// As [`Form::measure`], for a field that must be filled in.
    pub(crate) fn needed(&mut self, field: &str, measure: Measure, range: Range, units: Units) -> Option<f64> {
        if self.get(field).is_empty() {
            self.fail(field, measure.allowed(range, units));
            return None;
        }
        self.measure(field, measure, range, units)
    }

    /// As [`Form::needed`]; a figure that comes back as it was shown stays as it is stored, whose last decimals
    /// nobody saw.
    pub(crate) fn kept(
        &mut self,
        field: &str,
        measure: Measure,
        range: Range,
        units: Units,
        stored: Option<f64>,
    ) -> Option<f64> {
        let untouched = stored.filter(|value| range.holds(*value) && measure.typed(*value, units) == self.get(field));
        untouched.or_else(|| self.needed(field, measure, range, units))
    }

    /// A whole number in a range.
    pub(crate) fn whole<T: TryFrom<i64>>(&mut self, field: &str, range: Range) -> Option<T> {
        let typed = self.get(field).to_owned();
        let number = typed.parse::<i64>().ok().filter(|n| range.holds(*n as f64));
        let value = number.and_then(|n| T::try_from(n).ok());
        if value.is_none() {
            self.fail(field, Measure::Plain.allowed(range, Units::Metric));
        }
        value
    }

    /// One of a closed set of words.
    pub(crate) fn chosen<W: Word>(&mut self, field: &str) -> Option<W> {
        let known = W::of_word(self.get(field)).ok();
        if known.is_none() {
            self.fail(field, Words.t("field-choice"));
        }
        known
    }

    /// An e-mail address, in small letters.
    pub(crate) fn email(&mut self, field: &str) -> Option<String> {
        let typed = self.get(field).to_lowercase();
        let sound = typed.len() <= MOST_EMAIL
            && !typed.chars().any(|c| c.is_control() || c.is_whitespace())
            && typed.split_once('@').is_some_and(|(who, at)| !who.is_empty() && !at.is_empty() && !at.contains('@'));
        if !sound {
            self.fail(field, Words.t("field-email"));
        }
        sound.then_some(typed)
    }

    /// A note, which may be empty; one that is too long is an error.
    pub(crate) fn note(&mut self, field: &str) -> String {
        let typed = self.get(field).to_owned();
        if typed.chars().count() > limit::NOTE {
            self.fail(field, Words.t("found-note-hint"));
        }
        typed
    }

    /// A name of 1 to 60 characters.
    pub(crate) fn name(&mut self, field: &str) -> Option<String> {
        let typed = self.get(field).to_owned();
        if upland_core::controller::name_is_valid(&typed) {
            Some(typed)
        } else {
            self.fail(field, Words.t("field-name"));
            None
        }
    }
}

/// A number as people type it: a point or a comma for the decimals, either minus.
pub(crate) fn parse_number(text: &str) -> Option<f64> {
    let plain = text.trim().replace('\u{2212}', "-").replace(',', ".");
    plain.parse::<f64>().ok().filter(|n| n.is_finite())
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::quantity::range;

    fn form(value: &str) -> Form {
        Form::from_pairs([("x".to_owned(), value.to_owned())])
    }

    #[test]
    fn what_was_typed_stays_beside_its_error() {
        let mut f = form(" 95 ");
        assert_eq!(f.needed("x", Measure::Degrees, range::LATITUDE, Units::Metric), None);
        assert_eq!(f.get("x"), "95");
        assert!(f.error("x").contains("90"), "{}", f.error("x"));
    }

    #[test]
    fn numbers_as_people_type_them() {
        assert_eq!(parse_number("\u{2212}36,1"), Some(-36.1));
        assert_eq!(parse_number("1e999"), None);
        assert_eq!(parse_number("twelve"), None);
    }

    #[test]
    fn the_same_form_has_the_same_hash_and_another_has_another() {
        let sent = |pairs: &[(&str, &str)]| {
            let pairs = pairs.iter().map(|(k, v)| ((*k).to_owned(), (*v).to_owned()));
            Form::sent(pairs, "token").digest().to_vec()
        };
        assert_eq!(sent(&[("token", "a"), ("x", "1")]), sent(&[("x", "1"), ("token", "b")]));
        assert_ne!(sent(&[("x", "1")]), sent(&[("x", "2")]));
        // Fields do not run into each other.
        assert_ne!(sent(&[("x", "1y"), ("z", "")]), sent(&[("x", "1"), ("yz", "")]));
    }

    #[test]
    fn us_units_are_checked_in_si() {
        let mut f = form("1.25");
        let rate = f.measure("x", Measure::Rate, range::RATE, Units::Us).unwrap();
        assert!((rate - 31.75).abs() < 1e-9);
        let mut f = form("9");
        assert_eq!(f.measure("x", Measure::Rate, range::RATE, Units::Us), None);
        assert!(f.error("x").contains("5.91 in/h"), "{}", f.error("x"));
    }
}
