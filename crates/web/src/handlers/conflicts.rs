//! Two people at once: both sides are shown, and one of them is chosen.

use serde_json::Value;
use uuid::Uuid;

use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::conflict;
use crate::handlers::frame::shell;
use crate::pages::differences::{Difference, differences};
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
    let differences = differences(&theirs, &c.mine.unwrap_or(Value::Null), user.units);
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
