//! All text shown to people, from the language files in `locales/`.

use std::borrow::Cow;
use std::collections::HashMap;
use std::sync::LazyLock;

use fluent::concurrent::FluentBundle;
use fluent::{FluentArgs, FluentResource, FluentValue};

/// The files of a language; another language is another list.
const ENGLISH: [&str; 13] = [
    include_str!("../locales/en/general.ftl"),
    include_str!("../locales/en/sign_in.ftl"),
    include_str!("../locales/en/today.ftl"),
    include_str!("../locales/en/places.ftl"),
    include_str!("../locales/en/controllers.ftl"),
    include_str!("../locales/en/weather.ftl"),
    include_str!("../locales/en/year.ftl"),
    include_str!("../locales/en/week.ftl"),
    include_str!("../locales/en/field.ftl"),
    include_str!("../locales/en/sensors.ftl"),
    include_str!("../locales/en/ways.ftl"),
    include_str!("../locales/en/replay.ftl"),
    include_str!("../locales/en/reference.ftl"),
];

static BUNDLE: LazyLock<FluentBundle<FluentResource>> = LazyLock::new(|| {
    let mut bundle = FluentBundle::new_concurrent(vec![unic_langid::LanguageIdentifier::default()]);
    // Marks of direction round every argument would be copied along with figures.
    bundle.set_use_isolating(false);
    for file in ENGLISH {
        // A file with a mistake still gives its sound part; a test refuses mistakes.
        let resource = FluentResource::try_new(file.to_owned()).unwrap_or_else(|(sound, _)| sound);
        bundle.add_resource_overriding(resource);
    }
    bundle
});

/// The names of the placeholders of each key, in the order in which the text has them.
static PLACEHOLDERS: LazyLock<HashMap<&str, Vec<&str>>> = LazyLock::new(|| {
    let mut found = HashMap::new();
    let mut key = "";
    for line in ENGLISH.iter().flat_map(|file| file.lines()) {
        if let Some((name, _)) = line.split_once(" =").filter(|_| !line.starts_with([' ', '#'])) {
            key = name;
        }
        let names: &mut Vec<&str> = found.entry(key).or_default();
        for rest in line.split("{ $").skip(1) {
            let name = rest.split([' ', '}']).next().unwrap_or_default();
            if !names.contains(&name) {
                names.push(name);
            }
        }
    }
    found
});

/// A word with the name of the placeholder that it is put in for. Templates pass what they are given by reference.
pub(crate) trait Named {
    /// The name and the word.
    fn named(&self) -> (&str, &str);
}

impl<S: AsRef<str>> Named for (&str, S) {
    fn named(&self) -> (&str, &str) {
        (self.0, self.1.as_ref())
    }
}

impl<N: Named> Named for &N {
    fn named(&self) -> (&str, &str) {
        (*self).named()
    }
}

/// The words of a language. Copied into every view model.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Words;

impl Words {
    /// The text of a key.
    pub(crate) fn t(self, key: &str) -> String {
        self.format(key, None)
    }

    /// The text of a key with a word put in for its only placeholder, whatever its name.
    pub(crate) fn t1(self, key: &str, word: impl AsRef<str>) -> String {
        let name = PLACEHOLDERS.get(key).and_then(|names| names.first()).copied().unwrap_or_default();
        self.with(key, &[(name, word.as_ref())])
    }

    /// The text of a key with two words put in by name.
    pub(crate) fn t2(self, key: &str, one: impl Named, other: impl Named) -> String {
        self.with(key, &[one.named(), other.named()])
    }

    /// The text of a key with a count put in as `n`, so that a language can choose its plural.
    pub(crate) fn count(self, key: &str, n: usize) -> String {
        let mut args = FluentArgs::new();
        args.set("n", FluentValue::from(n));
        self.format(key, Some(&args))
    }

    /// The text of a key with words put in by name.
    pub(crate) fn with(self, key: &str, values: &[(&str, &str)]) -> String {
        let mut args = FluentArgs::new();
        for (name, value) in values {
            args.set(Cow::Owned((*name).to_owned()), FluentValue::from((*value).to_owned()));
        }
        self.format(key, Some(&args))
    }

    fn format(self, key: &str, args: Option<&FluentArgs<'_>>) -> String {
        let Some(pattern) = BUNDLE.get_message(key).and_then(|m| m.value()) else {
            // A missing key is a fault of the application that a test finds; the page must still stand.
            tracing::error!(key, "no words for a key");
            return key.to_owned();
        };
        let mut faults = Vec::new();
        let text = BUNDLE.format_pattern(pattern, args, &mut faults).into_owned();
        if !faults.is_empty() {
            tracing::error!(key, ?faults, "words with a missing argument");
        }
        // A missing argument shows its own name on the page; tests must not let that pass.
        debug_assert!(faults.is_empty(), "words of {key}: {faults:?}");
        text
    }
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeSet;
    use std::path::Path;

    use upland_core::controller::{Capability, Controller, Program, Station, Temporary};
    use upland_core::landscape::{Rub, Squeeze};
    use upland_core::place::Place;
    use upland_core::sensor::Sensor;

    use super::*;
    use crate::pages::field_form;

    fn sources(dir: &Path, out: &mut Vec<String>) {
        for entry in std::fs::read_dir(dir).unwrap() {
            let path = entry.unwrap().path();
            if path.is_dir() {
                sources(&path, out);
            } else if path.extension().is_some_and(|e| e == "rs" || e == "html" || e == "svg") {
                out.push(std::fs::read_to_string(path).unwrap());
            }
        }
    }

    /// Every source and template of the crate.
    fn files() -> Vec<String> {
        let mut files = Vec::new();
        let root = Path::new(env!("CARGO_MANIFEST_DIR"));
        sources(&root.join("src"), &mut files);
        sources(&root.join("templates"), &mut files);
        files
    }

    /// Every quoted text in the code that could be a key.
    fn quoted() -> BTreeSet<String> {
        let mut found = BTreeSet::new();
        for text in files() {
            for part in text.split('"') {
                if !part.is_empty()
                    && part.len() < 60
                    && part.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-')
                {
                    found.insert(part.to_owned());
                }
            }
        }
        found
    }

    /// Keys asked for by name: the text after `w.t(`, `Words.count(` and the like.
    fn asked() -> BTreeSet<String> {
        ["t", "t1", "t2", "count", "with"].into_iter().flat_map(calls).map(|(key, _)| key).collect()
    }

    fn keys() -> BTreeSet<String> {
        let mut keys = BTreeSet::new();
        for file in ENGLISH {
            for line in file.lines() {
                if let Some((key, _)) = line.split_once(" =")
                    && !line.starts_with([' ', '#'])
                {
                    assert!(keys.insert(key.to_owned()), "{key} is there twice");
                }
            }
        }
        keys
    }

    /// The keys that field tables ask for.
    fn keys_of_tables() -> BTreeSet<String> {
        let tables = [
            field_form::keys::<Station>(),
            field_form::keys::<Program>(),
            field_form::keys::<Capability>(),
            field_form::keys::<Controller>(),
            field_form::keys::<Sensor>(),
            field_form::keys::<Temporary>(),
            field_form::keys::<Place>(),
        ];
        tables.into_iter().flatten().collect()
    }

    #[test]
    fn language_files_are_sound() {
        for file in ENGLISH {
            if let Err((_, errors)) = FluentResource::try_new(file.to_owned()) {
                panic!("{errors:?}");
            }
        }
    }

    #[test]
    fn every_field_of_a_table_has_its_words() {
        let keys = keys();
        let missing: Vec<_> = keys_of_tables().into_iter().filter(|key| !keys.contains(key)).collect();
        assert!(missing.is_empty(), "no words for {missing:?}");
    }

    #[test]
    fn no_key_is_missing() {
        let missing: Vec<_> = asked().difference(&keys()).cloned().collect();
        assert!(missing.is_empty(), "no words for {missing:?}");
    }

    /// The calls in the code that name their key, as the key and the rest of the text after it.
    fn calls(how: &str) -> Vec<(String, String)> {
        let mut found = Vec::new();
        for text in files() {
            for call in ["w.", "Words."].map(|who| format!("{who}{how}(")) {
                for rest in text.split(&call).skip(1) {
                    let quoted = rest.trim_start().strip_prefix('"').and_then(|rest| rest.split_once('"'));
                    found.extend(quoted.map(|(key, rest)| (key.to_owned(), rest.chars().take(1500).collect())));
                }
            }
        }
        found
    }

    #[test]
    fn every_placeholder_is_given_and_has_a_name_that_tells_what_it_is() {
        let keys = keys();
        let names = |key: &str| PLACEHOLDERS.get(key).cloned().unwrap_or_default();
        for (key, _) in calls("t1").into_iter().filter(|(key, _)| keys.contains(key)) {
            assert_eq!(names(&key).len(), 1, "{key} is given one word");
        }
        for (key, rest) in ["t2", "with"].into_iter().flat_map(calls).filter(|(key, _)| keys.contains(key)) {
            let all = names(&key);
            assert!(!all.is_empty(), "{key} takes no words");
            for name in all {
                // However the arguments are laid out: a quoted name after a bracket.
                let close: String = rest.chars().filter(|c| !c.is_whitespace()).collect();
                // A list that was put together before tells its names in debug builds, where `format` looks.
                let stated = close.starts_with(",&[(") || close.starts_with(",(");
                let given = !stated || close.contains(&format!("(\"{name}\","));
                assert!(given, "{key} is not given its {name}");
            }
        }
        let bare: Vec<_> =
            PLACEHOLDERS.iter().filter(|(_, names)| names.contains(&"a") || names.contains(&"b")).collect();
        assert!(bare.is_empty(), "placeholders without a name: {bare:?}");
    }

    #[test]
    fn no_key_is_unused() {
        let mut tables = keys_of_tables();
        tables.extend(field_form::word_keys::<Squeeze>().chain(field_form::word_keys::<Rub>()));
        // Reads every source of the crate: once, not once a key.
        let quoted = quoted();
        let unused: Vec<_> = keys().into_iter().filter(|k| !quoted.contains(k) && !tables.contains(k)).collect();
        assert!(unused.is_empty(), "nobody asks for {unused:?}");
    }
}
