use actix_web::web;
use upland_store::{StoreError, Write};

use crate::app::App;
use crate::error::{Page, PageError, notice_page};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::{action, record_of};

/// Takes the user's last action back, the whole of it, unless somebody went on from it.
pub(crate) async fn undo(app: web::Data<App>, user: SignedIn, Posted(form): Posted) -> Page {
    let last = user.account.last_action(user.user.id).await?;
    let Some(first) = last.first() else { return go(form.get("back")) };
    let mut writes = Vec::new();
    for entry in last.iter().rev() {
        writes.push(Write {
            id: entry.aggregate_id,
            made_on: entry.version,
            record: record_of(entry.kind, entry.before.as_ref())?,
            before: entry.after.clone(),
            after: entry.before.clone(),
        });
    }
    let mut undoing = action(&app, &user, &form, "why-undo", writes);
    undoing.undoes = Some(first.action_id);
    match user.account.apply(&undoing).await {
        Ok(()) => {
            // What was made by the action is gone, and with it the page it was seen on.
            let made = last.iter().any(|e| e.before.is_none());
            go(if made { "/" } else { form.get("back") })
        }
        Err(StoreError::Conflict { .. }) => Ok(notice_page(["undo-conflict-title", "undo-conflict-text"])),
        Err(StoreError::InUse) => Ok(notice_page(["undo-in-use-title", "undo-in-use-text"])),
        Err(other) => Err(PageError::from(other)),
    }
}
