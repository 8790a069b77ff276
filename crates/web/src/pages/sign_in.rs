//! The page on which one signs in, and what was typed before.

use crate::assets::stylesheet;
use crate::form::Form;
use crate::words::Words;

/// Before the name of a field that is kept over a sign-in.
const KEPT: &str = "kept.";

#[derive(Debug, askama::Template)]
#[template(path = "sign_in.html")]
pub(crate) struct SignInTemplate {
    w: Words,
    css: String,
    form: Form,
    /// Fields to be kept, by the names they are posted under.
    kept: Vec<(String, String)>,
}

impl SignInTemplate {
    /// The page, filled in as the form is; fields that it keeps are kept on.
    pub(crate) fn of(form: Form) -> Self {
        let kept = form.pairs().filter(|(k, _)| k.starts_with(KEPT)).map(|(k, v)| (k.clone(), v.clone())).collect();
        Self { w: Words, css: stylesheet(), form, kept }
    }

    /// The page for somebody whose form came after the session had ended.
    pub(crate) fn again(path: String, fields: Vec<(String, String)>) -> Self {
        let mut form = Form::default();
        form.set("resume", path);
        for (field, value) in fields {
            form.set(&format!("{KEPT}{field}"), value);
        }
        Self::of(form)
    }
}

/// What was typed before the sign-in, to be sent now.
#[derive(Debug, askama::Template)]
#[template(path = "resume.html")]
pub(crate) struct ResumeTemplate {
    w: Words,
    css: String,
    token: String,
    post_to: String,
    fields: Vec<(String, String)>,
    /// What a person typed among them, to be recognised by.
    typed: Vec<String>,
}

/// Longest of the values that are shown, and how many.
const SHOWN: (usize, usize) = (60, 12);

impl ResumeTemplate {
    /// The fields that a sign-in form kept; `post_to` is where they were on their way to.
    pub(crate) fn of(form: &Form, token: String, post_to: String) -> Self {
        let fields: Vec<(String, String)> =
            form.pairs().filter_map(|(k, v)| Some((k.strip_prefix(KEPT)?.to_owned(), v.clone()))).collect();
        let is_ours = |name: &str| matches!(name, "action" | "version" | "record" | "offered" | "back" | "series");
        let typed = fields.iter().filter(|(name, value)| !is_ours(name) && !value.trim().is_empty());
        let typed = typed.map(|(_, value)| value.chars().take(SHOWN.0).collect()).take(SHOWN.1).collect();
        Self { w: Words, css: stylesheet(), token, post_to, fields, typed }
    }
}
