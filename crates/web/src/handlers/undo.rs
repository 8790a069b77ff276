use actix_web::web;
use upland_store::{StoreError, Write};
use uuid::Uuid;

use crate::error::{Keys, Page, PageError, notice_page};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::action;
use crate::handlers::{go, own_address};
use crate::state::App;

/// Somebody went on from the change.
const UNDO_CONFLICT: Keys = ["undo-conflict-title", "undo-conflict-text"];

/// Takes an action of the user back, the whole of it, unless somebody went on from it: the one that the
/// page showed, whatever was done since.
pub(crate) async fn undo(app: web::Data<App>, user: SignedIn, Posted(form): Posted) -> Page {
    let Ok(undone) = form.get("undoes").parse::<Uuid>() else { return go(form.get("back")) };
    let changes = user.account.changes_of(user.user.id, undone).await?;
    if changes.is_empty() {
        return Err(PageError::NotFound);
    }
    let mut writes = Vec::new();
    for entry in changes.iter().rev() {
        // The present document must be the one the action left, whatever was done and undone since.
        let log = user.account.log(entry.aggregate_id, 1).await?;
        let Some(newest) = log.first().filter(|newest| newest.after == entry.after) else {
            return Ok(notice_page(UNDO_CONFLICT));
        };
        writes.push(Write { id: entry.aggregate_id, made_on: newest.version, record: entry.record_before()? });
    }
    // What was made by the action is gone, and with it the page it was seen on.
    let made = changes.iter().any(|e| e.before.is_none());
    let to = if made { "/" } else { own_address(form.get("back")) };
    let mut undoing = action(&app, &user, &form, ["why-undo", to], writes);
    undoing.undoes = Some(undone);
    match user.account.apply(&undoing).await {
        Ok(to) => go(&to),
        Err(StoreError::Conflict { .. }) => Ok(notice_page(UNDO_CONFLICT)),
        Err(StoreError::UndoneAlready) => Ok(notice_page(["undo-done-title", "undo-done-text"])),
        Err(StoreError::InUse) => Ok(notice_page(["undo-in-use-title", "undo-in-use-text"])),
        Err(other) => Err(PageError::from(other)),
    }
}
