//! Two people at once: both sides are shown, and one of them is chosen.

use serde_json::Value;
use uuid::Uuid;

use crate::error::{Page, PageError};
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

/// Puts the names of the series in place of their keys; one that is not there yet is that of the form.
async fn name_weather(user: &SignedIn, sides: &mut [Value; 2], new: &str) -> Result<(), PageError> {
    if sides.iter().all(|side| side.get("weather").is_none()) {
        return Ok(());
    }
    let known = user.account.all_series().await?;
    for weather in sides.iter_mut().filter_map(|side| side.get_mut("weather")) {
        let Some(id) = weather.as_str() else { continue };
        let name = known.iter().find(|(series, _)| series.id.to_string() == id);
        *weather = Value::String(name.map_or(new, |(series, _)| &series.value.name).to_owned());
    }
    Ok(())
}

/// The page with the two sides. Nothing typed is lost: choosing "mine" sends it again.
pub(crate) async fn conflict_page(app: &App, user: &SignedIn, c: Conflict<'_>) -> Page {
    let w = Words;
    let log = user.account.log(c.id, 1).await?;
    let last = log.first();
    let who = last.map_or_else(String::new, |e| {
        w.t2("conflict-who", ("person", &e.user_name), ("time", e.at.format("%H:%M").to_string()))
    });
    let mut sides = [last.and_then(|e| e.after.clone()), c.mine].map(|side| side.unwrap_or(Value::Null));
    name_weather(user, &mut sides, c.form.get("name")).await?;
    let [theirs, mine] = sides;
    let differences = differences(&theirs, &mine, user.units);
    let mut form = c.form;
    form.set("version", c.current.to_string());
    let fields = form.into_fields_to_send_again();
    let shell = shell(app, user, View::Places, "form", w.t("conflict-title"), c.back);
    conflict(&ConflictTemplate {
        shell,
        who,
        differences,
        fields,
        post_to: c.post_to.to_owned(),
        back: c.back.to_owned(),
    })
}
