//! How styles and templates are laid out.

use std::collections::BTreeSet;
use std::fs;
use std::path::Path;

/// Files below a folder of the web crate, with their text.
fn texts(folder: &str, ending: &str) -> Vec<(String, String)> {
    let mut folders = vec![Path::new(env!("CARGO_MANIFEST_DIR")).join("../web").join(folder)];
    let mut texts = Vec::new();
    while let Some(folder) = folders.pop() {
        for entry in fs::read_dir(folder).unwrap() {
            let path = entry.unwrap().path();
            if path.is_dir() {
                folders.push(path);
            } else if path.extension().is_some_and(|e| e == ending) {
                texts.push((path.display().to_string(), fs::read_to_string(&path).unwrap()));
            }
        }
    }
    assert!(!texts.is_empty(), "nothing in {folder}");
    texts
}

/// Type stands on a scale of at most nine sizes, in rem, so that it grows with the size that a browser is set to.
#[test]
fn type_stands_on_nine_sizes() {
    let mut sizes = BTreeSet::new();
    for (name, css) in texts("assets/css", "css") {
        for line in css.lines().map(str::trim) {
            if let Some((size, value)) = line.strip_prefix("--size-").and_then(|l| l.split_once(": ")) {
                assert!(value.ends_with("rem;"), "{name}: {line}");
                sizes.insert(size.to_owned());
            }
            if line.starts_with("font-size: ") || line.starts_with("font: ") || line.starts_with("line-height: ") {
                assert!(!line.contains("px"), "{name}: {line}");
            }
        }
    }
    assert!(sizes.len() <= 9, "{sizes:?}");
}

/// One element a line: a line of a template can be read without scrolling, but for the outlines of drawings.
#[test]
fn lines_of_templates_can_be_read() {
    for (name, html) in texts("templates", "html") {
        for (line, number) in html.lines().zip(1..) {
            let is_outline = line.trim().starts_with("d=\"") || line.trim().starts_with("<path ");
            assert!(is_outline || line.chars().count() <= 200, "{name}, line {number}");
        }
    }
}
