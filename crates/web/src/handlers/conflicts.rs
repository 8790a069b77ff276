//! Two people at once: both sides are shown, and one of them is chosen.

use serde_json::Value;
use uuid::Uuid;

use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::conflict;
use crate::handlers::frame::shell;
use crate::pages::shell::{Shell, View};
use crate::state::App;
use crate::words::Words;

/// A save that was made on an old version.
#[derive(Debug)]
pub(crate) struct Conflict<'a> {
    pub(crate) id: Uuid,
    /// The version it is at now.
    pub(crate) current: i32,
    pub(crate) form: Form,
    /// What would stand, as a document.
    pub(crate) mine: Option<Value>,
    pub(crate) post_to: &'a str,
    pub(crate) back: &'a str,
}

/// A value that the two sides disagree on.
#[derive(Debug, Clone)]
struct Difference {
    what: String,
    theirs: String,
    mine: String,
}

#[derive(askama::Template)]
#[template(path = "conflict.html")]
struct ConflictTemplate {
    shell: Shell,
    who: String,
    differences: Vec<Difference>,
    fields: Vec<(String, String)>,
    post_to: String,
    back: String,
}

/// The page with the two sides. Nothing typed is lost: choosing "mine" sends it again.
pub(crate) async fn conflict_page(app: &App, user: &SignedIn, c: Conflict<'_>) -> Page {
    let w = Words;
    let log = user.account.log(c.id, 1).await?;
    let last = log.first();
    let who = last.map_or_else(String::new, |e| w.t2("conflict-who", &e.user_name, e.at.format("%H:%M").to_string()));
    let theirs = last.and_then(|e| e.after.clone()).unwrap_or(Value::Null);
    let differences = differences(&theirs, &c.mine.unwrap_or(Value::Null));
    let mut form = c.form;
    form.set("version", c.current.to_string());
    form.set("action", Uuid::new_v4().to_string());
    let fields = form.pairs().map(|(k, v)| (k.clone(), v.clone())).collect();
    let shell = shell(app, user, View::Places, "form", w.t("conflict-title"), c.back).await?;
    conflict(&ConflictTemplate {
        shell,
        who,
        differences,
        fields,
        post_to: c.post_to.to_owned(),
        back: c.back.to_owned(),
    })
}

fn differences(theirs: &Value, mine: &Value) -> Vec<Difference> {
    let (mut left, mut right) = (Vec::new(), Vec::new());
    flatten("", theirs, &mut left);
    flatten("", mine, &mut right);
    let find = |side: &[(String, String)], path: &str| side.iter().find(|(p, _)| p == path).map(|(_, v)| v.clone());
    let mut paths: Vec<String> = left.iter().chain(&right).map(|(p, _)| p.clone()).collect();
    paths.sort_unstable();
    paths.dedup();
    paths
        .into_iter()
        .filter_map(|path| {
            let (theirs, mine) = (find(&left, &path), find(&right, &path));
            (theirs != mine).then(|| Difference {
                what: path,
                theirs: theirs.unwrap_or_default(),
                mine: mine.unwrap_or_default(),
            })
        })
        .collect()
}

/// A document as paths and values; stations and programs go by their numbers and letters.
fn flatten(path: &str, value: &Value, out: &mut Vec<(String, String)>) {
    let join = |key: &str| if path.is_empty() { key.to_owned() } else { format!("{path} · {key}") };
    match value {
        Value::Object(fields) => {
            for (key, inner) in fields {
                let place = if key == "controller" { path.to_owned() } else { join(&key.replace('_', " ")) };
                flatten(&place, inner, out);
            }
        }
        Value::Array(items) => {
            for (index, inner) in items.iter().enumerate() {
                let name = inner.get("number").or_else(|| inner.get("letter")).map(plain);
                flatten(&join(&name.unwrap_or_else(|| (index + 1).to_string())), inner, out);
            }
        }
        other => out.push((path.to_owned(), plain(other))),
    }
}

fn plain(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Null => String::new(),
        other => other.to_string(),
    }
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    #[test]
    fn only_what_differs_is_shown_by_the_names_people_use() {
        let theirs = json!({"controller": {"name": "A", "stations": [{"number": 3, "soil": "loam"}]}});
        let mine = json!({"controller": {"name": "A", "stations": [{"number": 3, "soil": "clay"}, {"number": 4, "soil": "sand"}]}});
        let found: Vec<_> = differences(&theirs, &mine).into_iter().map(|d| (d.what, d.theirs, d.mine)).collect();
        assert!(found.contains(&("stations · 3 · soil".into(), "loam".into(), "clay".into())), "{found:?}");
        assert!(found.contains(&("stations · 4 · soil".into(), String::new(), "sand".into())), "{found:?}");
        assert_eq!(found.len(), 3);
    }
}
