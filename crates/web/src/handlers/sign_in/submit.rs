use actix_session::Session;
use actix_web::web;
use chrono::TimeDelta;
use upland_store::StoreError;

use super::template;
use crate::error::{Page, PageError};
use crate::guard::password::verify_password;
use crate::guard::posted::Posted;
use crate::guard::signed_in::{begin, token};
use crate::handlers::{go, invalid};
use crate::state::App;
use crate::words::Words;

/// Failed sign-ins of an address within [`WINDOW`] after which it has to wait.
const MOST_FAILURES: i64 = 5;
const WINDOW: TimeDelta = TimeDelta::minutes(15);

/// Signs in. A wrong address and a wrong password look the same, and take as long.
pub(crate) async fn submit(app: web::Data<App>, session: Session, Posted(mut form): Posted) -> Page {
    let email = form.get("email").to_lowercase();
    let now = app.clock.now();
    if app.store.sign_in_failures(&email, now - WINDOW).await? >= MOST_FAILURES {
        form.fail("email", Words.t("sign-in-wait"));
        form.set("password", "");
        return invalid(&template(token(&session)?, form));
    }
    let user = match app.store.user_by_email(&email).await {
        Ok(user) => Some(user),
        Err(StoreError::NotFound) => None,
        Err(other) => return Err(other.into()),
    };
    let password = form.get("password").to_owned();
    let hash = user.as_ref().map(|u| u.password_hash.clone());
    // Hashing takes tens of milliseconds: not on the thread that answers others.
    let fits = web::block(move || verify_password(&password, hash.as_deref()))
        .await
        .map_err(|e| PageError::Ours(Box::new(e)))?;
    match user {
        Some(user) if fits => {
            app.store.forget_sign_in_failures(&email).await?;
            begin(&session, &user)?;
            go(form.get("next"))
        }
        _ => {
            app.store.note_sign_in_failure(&email, now, now - WINDOW * 4).await?;
            form.fail("email", Words.t("sign-in-wrong"));
            form.set("password", "");
            invalid(&template(token(&session)?, form))
        }
    }
}
