//! A page is read as a browser and a person read it: drawings stay on their sheets, fields have labels, names are given
//! once.

use std::collections::HashSet;

/// An element of a page, with its attributes.
struct Element<'a> {
    name: &'a str,
    attributes: Vec<(&'a str, &'a str)>,
}

impl<'a> Element<'a> {
    fn get(&self, name: &str) -> Option<&'a str> {
        self.attributes.iter().find(|(n, _)| *n == name).map(|(_, value)| *value)
    }

    fn number(&self, name: &str) -> Option<f64> {
        let value = self.get(name)?;
        Some(value.parse().unwrap_or_else(|_| panic!("{name}={value:?} of a {} is no number", self.name)))
    }
}

/// The start tags of a page, in order; end tags as elements whose name begins with a stroke.
fn elements(html: &str) -> Vec<Element<'_>> {
    let tag = |text: &'_ str| -> Option<(usize, usize)> {
        let first = text.bytes().next()?;
        (first.is_ascii_alphabetic() || first == b'/').then_some(())?;
        let mut quoted = false;
        let end = text.bytes().position(|b| {
            quoted ^= b == b'"';
            b == b'>' && !quoted
        })?;
        let name = text.find(|c: char| c.is_whitespace() || c == '>' || c == '/' && !text.starts_with('/'));
        Some((name.unwrap_or(end).min(end), end))
    };
    let attributes = |mut text| {
        let mut found = Vec::new();
        while let Some((name, rest)) = str::split_once(text, "=\"") {
            let Some((value, rest)) = rest.split_once('"') else { break };
            let name = name.rsplit(char::is_whitespace).next().unwrap_or(name);
            found.push((name, value));
            text = rest;
        }
        found
    };
    let texts = html.split('<').skip(1);
    texts
        .filter_map(|text| {
            let (name, end) = tag(text)?;
            Some(Element { name: &text[..name], attributes: attributes(&text[name..end]) })
        })
        .collect()
}

/// What a person types into has a label, and what stands for something else is there.
fn names_and_labels(elements: &[Element<'_>]) {
    let ids: HashSet<&str> = elements.iter().filter_map(|e| e.get("id")).collect();
    let labelled: HashSet<&str> = elements.iter().filter(|e| e.name == "label").filter_map(|e| e.get("for")).collect();
    let (mut in_label, mut form): (bool, Option<(&str, bool)>) = (false, None);
    for element in elements {
        match element.name {
            "label" => in_label = true,
            "/label" => in_label = false,
            "form" => form = Some((element.get("method").unwrap_or_default(), false)),
            "/form" => {
                let (method, has_token) = form.take().unwrap_or_default();
                assert!(method != "post" || has_token, "a form that is posted without its token");
            }
            "input" | "select" | "textarea" => {
                let is_unseen = matches!(element.get("type"), Some("hidden" | "submit"));
                let name = element.get("name").unwrap_or_default();
                if let Some((_, has_token)) = &mut form {
                    *has_token |= name == "token";
                }
                let by_id = element.get("id").is_some_and(|id| labelled.contains(id));
                let own = element.get("aria-label").is_some_and(|label| !label.is_empty());
                assert!(is_unseen || in_label || by_id || own, "{name:?} has no label");
            }
            _ => {}
        }
        for reference in ["aria-describedby", "aria-labelledby", "for", "list"] {
            for id in element.get(reference).unwrap_or_default().split(' ').filter(|id| !id.is_empty()) {
                assert!(ids.contains(id), "{reference}={id:?} of a {} names nothing", element.name);
            }
        }
    }
}

/// Half a stroke may stand over the edge.
const EDGE: f64 = 1.0;

/// Checks a page; how many elements of drawings it has.
pub(crate) fn check(html: &str) -> usize {
    let mut drawn = 0;
    let elements = elements(html);
    names_and_labels(&elements);
    let ids: Vec<&str> = elements.iter().filter_map(|e| e.get("id")).collect();
    let mut seen = HashSet::new();
    let twice: Vec<_> = ids.iter().filter(|id| !seen.insert(**id)).collect();
    assert!(twice.is_empty(), "ids given twice: {twice:?}");
    for element in &elements {
        for (name, value) in &element.attributes {
            let is_no_number = |word: &str| matches!(word, "NaN" | "inf" | "-inf");
            let words = value.split(|c: char| !(c.is_ascii_alphanumeric() || "-.".contains(c)));
            assert!(!words.clone().any(is_no_number), "{name}={value:?} of a {}", element.name);
        }
    }
    // From where to where it goes across and down.
    let mut sheet: Option<[[f64; 2]; 2]> = None;
    for element in &elements {
        match element.name {
            "svg" => {
                let side = |name| element.number(name).unwrap_or_else(|| panic!("a drawing without {name}"));
                let view: Option<Vec<f64>> =
                    element.get("viewBox").map(|view| view.split(' ').map(|n| n.parse().unwrap()).collect());
                let [x, y, width, height] =
                    view.map_or_else(|| [0.0, 0.0, side("width"), side("height")], |view| view.try_into().unwrap());
                sheet = Some([[x, x + width], [y, y + height]]);
                // The sheet itself may stand anywhere on its page.
                continue;
            }
            // What is drawn once to be used elsewhere has a sheet of its own.
            "/svg" | "symbol" | "pattern" | "clipPath" | "marker" => sheet = None,
            _ => {}
        }
        let Some([across, down]) = sheet else { continue };
        drawn += 1;
        let ways = [(["x", "x1", "x2", "cx"], "width", across), (["y", "y1", "y2", "cy"], "height", down)];
        for (along, length, [from, to]) in ways {
            let length = element.number(length).unwrap_or_default();
            assert!(length >= 0.0, "{} of {length}", element.name);
            for at in along.iter().filter_map(|name| element.number(name)) {
                let is_inside = at >= from - EDGE && at + length <= to + EDGE;
                assert!(is_inside, "a {} at {at}, {length} long, on a sheet of {from} to {to}", element.name);
            }
        }
        assert!(element.number("r").unwrap_or_default() >= 0.0);
    }
    drawn
}

#[test]
fn the_check_sees_what_is_wrong() {
    let fails = |html: &str| std::panic::catch_unwind(|| check(html)).is_err();
    let sheet = |inside: &str| format!(r#"<p id="a">1 > 0</p><svg width="40" height="20">{inside}</svg>"#);
    check(&sheet(r#"<rect x="0" y="2" width="40" height="18"/><path d="M1 2"/><p id="b" title="a > b">x</p>"#));
    check(r#"<form method="post"><input type="hidden" name="token"><label>Rate <input name="rate"></label></form>"#);
    for wrong in [
        r#"<rect x="1" y="2" width="40.5" height="1"/>"#,
        r#"<rect x="1" y="2" width="-1" height="1"/>"#,
        r#"<path d="M1 NaN"/>"#,
        r#"<line x1="1" y1="inf" x2="2" y2="2"/>"#,
        r#"<text x="41.5" y="2">x</text>"#,
        r#"<p id="a">x</p>"#,
        r#"<input name="rate">"#,
        r#"<label for="rate">Rate</label>"#,
        r#"<input name="rate" aria-label="Rate" aria-describedby="rate-error">"#,
        r#"<form method="post"><button>Save</button></form>"#,
    ] {
        assert!(fails(&sheet(wrong)), "{wrong}");
    }
}
