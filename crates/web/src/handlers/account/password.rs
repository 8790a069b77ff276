use actix_session::Session;
use actix_web::{HttpRequest, web};
use upland_store::SignInTurn;

use super::account_page;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::caller::network;
use crate::guard::password::{PasswordError, hash_in_turn, verify_in_turn};
use crate::guard::posted::Posted;
use crate::guard::session_state::begin_anew;
use crate::guard::signed_in::SignedIn;
use crate::handlers::sign_in::submit::wait_words;
use crate::handlers::{go, invalid};
use crate::state::App;
use crate::words::Words;

/// Changes the user's password and ends the user's other sessions. The present password is asked for, and
/// guesses at it are counted as at sign-in.
pub(crate) async fn change(
    app: web::Data<App>,
    session: Session,
    request: HttpRequest,
    user: SignedIn,
    Posted(mut form): Posted,
) -> Page {
    let Some(hash) = new_hash(&app, &request, &user, &mut form).await? else {
        return invalid(&account_page(&app, &user, without_passwords(form)).await?);
    };
    user.account.set_password(&user.user.email, &hash, Some(user.session_id)).await?;
    begin_anew(&session);
    go("/account?password=changed")
}

/// The hash of the new password; an error stands beside its field when it cannot be taken.
async fn new_hash(
    app: &App,
    request: &HttpRequest,
    user: &SignedIn,
    form: &mut Form,
) -> Result<Option<String>, PageError> {
    let w = Words;
    if !is_typed_twice(form) {
        return Ok(None);
    }
    let [present, new] = ["present", "new"].map(|f| form.as_typed(f).to_owned());
    if new == present {
        form.fail("new", w.t("account-same-password"));
        return Ok(None);
    }
    let (now, network) = (app.clock.now(), network(app, request));
    if let SignInTurn::Wait { seconds } = app.store.claim_sign_in(&user.user.email, &network, now).await? {
        form.fail("present", wait_words(seconds));
        return Ok(None);
    }
    if !verify_in_turn(present, Some(user.user.password_hash.clone())).await.map_err(PageError::Ours)? {
        form.fail("present", w.t("account-wrong-password"));
        return Ok(None);
    }
    app.store.sign_in_went_well(&user.user.email, &network, now).await?;
    hash_or_say(form, new).await
}

/// Whether the new password was typed twice alike; else an error stands beside the second one.
pub(crate) fn is_typed_twice(form: &mut Form) -> bool {
    let alike = form.as_typed("new") == form.as_typed("again");
    if !alike {
        form.fail("again", Words.t("account-again-differs"));
    }
    alike
}

/// The hash of a new password; an error stands beside it when it cannot be taken.
pub(crate) async fn hash_or_say(form: &mut Form, new: String) -> Result<Option<String>, PageError> {
    match hash_in_turn(new).await.map_err(PageError::Ours)? {
        Ok(hash) => Ok(Some(hash)),
        Err(PasswordError::Length) => {
            form.fail("new", Words.t("account-length"));
            Ok(None)
        }
        Err(other) => Err(PageError::Ours(Box::new(other))),
    }
}

/// The form to show again: no password goes back.
fn without_passwords(mut form: Form) -> Form {
    for field in ["present", "new", "again", "password"] {
        form.set(field, "");
    }
    form
}
