//! Saving with its entry in the log of changes.

use upland_core::controller::Controller;
use upland_formats::site::FieldDoc;
use upland_store::{Action, ControllerRecord, FieldRecord, PlaceRecord, Record, StoreError, Versioned, Write};
use uuid::Uuid;

use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::conflicts::{Conflict, conflict_page};
use crate::handlers::go;
use crate::state::App;

/// A change of a controller that is there already.
pub(crate) fn controller_write(known: &Versioned<ControllerRecord>, form: &Form, controller: Controller) -> Write {
    let record = ControllerRecord { place_id: known.value.place_id, controller };
    Write { id: known.id, made_on: made_on(form), record: Record::Controller(Some(record)) }
}

/// A change of a place that is there already.
pub(crate) fn place_write(known: &Versioned<PlaceRecord>, form: &Form, place: PlaceRecord) -> Write {
    Write { id: known.id, made_on: made_on(form), record: Record::Place(Some(place)) }
}

/// An action of the user of a form; `[why, to]`: the key of its words, and the address that it leads to.
pub(crate) fn action(app: &App, user: &SignedIn, form: &Form, [why, to]: [&str; 2], writes: Vec<Write>) -> Action {
    Action {
        // Made when the page was made, so that pressing twice saves once.
        id: Uuid::parse_str(form.get("action")).unwrap_or_else(|_| Uuid::new_v4()),
        user_id: user.user.id,
        user_name: user.user.name.clone(),
        at: app.clock.now(),
        why: why.to_owned(),
        digest: form.digest().to_vec(),
        leads_to: to.to_owned(),
        undoes: None,
        writes,
        records: Vec::new(),
    }
}

/// A record of the field under the key that its form was made with, so that sending it twice keeps one.
pub(crate) fn field_record(action: &Action, form: &Form, controller_id: Uuid, document: FieldDoc) -> FieldRecord {
    FieldRecord {
        id: Uuid::parse_str(form.get("record")).unwrap_or_else(|_| Uuid::new_v4()),
        controller_id,
        at: action.at,
        user_name: action.user_name.clone(),
        document,
    }
}

/// The version of a thing that its form was made on.
pub(crate) fn made_on(form: &Form) -> i32 {
    form.get("version").parse().unwrap_or(0)
}

/// Saves a changed thing and goes on to `to`. When somebody was faster, nothing is saved and the answer is the
/// page with the choice of two sides. `[post_to, to]`: where the form was sent, and where to go afterwards.
pub(crate) async fn save_over(
    app: &App,
    user: &SignedIn,
    form: Form,
    why: &str,
    write: Write,
    addresses: [&str; 2],
) -> Page {
    let action = action(app, user, &form, [why, addresses[1]], vec![write]);
    apply_over(app, user, form, &action, addresses).await
}

/// As [`save_over`], for an action that changes one thing that is there already, or none, besides what it
/// makes. It goes on to where the action leads, or led the first time; `back` is where the form stands.
pub(crate) async fn apply_over(
    app: &App,
    user: &SignedIn,
    form: Form,
    action: &Action,
    [post_to, back]: [&str; 2],
) -> Page {
    let (id, current) = match user.account.apply(action).await {
        Ok(to) => return go(&to),
        Err(StoreError::Conflict { id, current, .. }) => (id, current),
        Err(other) => return Err(other.into()),
    };
    let stale = action.writes.iter().find(|write| write.id == id);
    let write = stale.ok_or_else(|| PageError::Ours("a conflict about nothing".into()))?;
    let mine = write.record.document();
    conflict_page(app, user, Conflict { id, current, form, mine, post_to, back }).await
}

/// Saves a changed controller and goes on to `to`; a stale version gets the choice of two sides.
/// `[post_to, to]`: where the form was sent, and where to go afterwards.
pub(crate) async fn save_controller(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    form: Form,
    changed: Controller,
    why: &str,
    [post_to, to]: [&str; 2],
) -> Page {
    let write = controller_write(&context.controller, &form, changed);
    save_over(app, user, form, why, write, [post_to, to]).await
}
