use actix_web::web;
use upland_store::{StoreError, Write};

use crate::error::{Keys, Page, PageError, notice_page};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::action;
use crate::state::App;

/// Somebody went on from the change.
const UNDO_CONFLICT: Keys = ["undo-conflict-title", "undo-conflict-text"];

/// Takes the user's last action back, the whole of it, unless somebody went on from it.
pub(crate) async fn undo(app: web::Data<App>, user: SignedIn, Posted(form): Posted) -> Page {
    let last = user.account.last_action(user.user.id).await?;
    let Some(first) = last.first() else { return go(form.get("back")) };
    let mut writes = Vec::new();
    for entry in last.iter().rev() {
        // The present document must be the one the action left, whatever was done and undone since.
        let log = user.account.log(entry.aggregate_id, 1).await?;
        let Some(newest) = log.first().filter(|newest| newest.after == entry.after) else {
            return Ok(notice_page(UNDO_CONFLICT));
        };
        writes.push(Write { id: entry.aggregate_id, made_on: newest.version, record: entry.record_before()? });
    }
    let mut undoing = action(&app, &user, &form, "why-undo", writes);
    undoing.undoes = Some(first.action_id);
    match user.account.apply(&undoing).await {
        Ok(()) => {
            // What was made by the action is gone, and with it the page it was seen on.
            let made = last.iter().any(|e| e.before.is_none());
            go(if made { "/" } else { form.get("back") })
        }
        Err(StoreError::Conflict { .. }) => Ok(notice_page(UNDO_CONFLICT)),
        Err(StoreError::InUse) => Ok(notice_page(["undo-in-use-title", "undo-in-use-text"])),
        Err(other) => Err(PageError::from(other)),
    }
}
