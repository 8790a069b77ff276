use actix_session::Session;
use actix_web::{HttpRequest, web};
use chrono::{DateTime, Utc};
use upland_store::{SessionOwner, SignInTurn, StoreError, UserRecord};
use uuid::Uuid;

use crate::error::{Page, PageError};
use crate::form::{Form, MOST_EMAIL};
use crate::guard::caller::{device, network};
use crate::guard::password::verify_in_turn;
use crate::guard::posted::FromOutside;
use crate::guard::session_state::{begin, token};
use crate::handlers::{go, invalid, own_address, page};
use crate::pages::sign_in::{ResumeTemplate, SignInTemplate};
use crate::state::App;
use crate::words::Words;

/// Signs in. A wrong address and a wrong password look the same, and take as long. The attempt is
/// counted before anything is hashed.
pub(crate) async fn submit(
    app: web::Data<App>,
    session: Session,
    request: HttpRequest,
    FromOutside(form): FromOutside,
) -> Page {
    let email = form.get("email").to_lowercase();
    if email.is_empty() || email.len() > MOST_EMAIL || email.chars().any(char::is_control) {
        return refused(form, Words.t("sign-in-wrong"));
    }
    let (now, network) = (app.clock.now(), network(&app, &request));
    if let SignInTurn::Wait { seconds } = app.store.claim_sign_in(&email, &network, now).await? {
        return refused(form, wait_words(seconds));
    }
    let user = match app.store.user_by_email(&email).await {
        Ok(user) => Some(user),
        Err(StoreError::NotFound) => None,
        Err(other) => return Err(other.into()),
    };
    let hash = user.as_ref().map(|u| u.password_hash.clone());
    let fits = verify_in_turn(form.as_typed("password").to_owned(), hash).await.map_err(PageError::Ours)?;
    match user {
        Some(user) if fits => {
            app.store.sign_in_went_well(&email, &network, now).await?;
            begin(&session, &owner(&user, &request, now, network))?;
            match form.get("resume") {
                "" => go(form.get("next")),
                path => page(&ResumeTemplate::of(&form, token(&session)?, own_address(path).to_owned())),
            }
        }
        _ => refused(form, Words.t("sign-in-wrong")),
    }
}

/// How long to wait before the next attempt, in whole minutes.
pub(crate) fn wait_words(seconds: i64) -> String {
    Words.count("sign-in-wait", usize::try_from((seconds + 59) / 60).unwrap_or(1))
}

/// The form again, without its password.
fn refused(mut form: Form, why: String) -> Page {
    form.fail("email", why);
    form.set("password", "");
    invalid(&SignInTemplate::of(form))
}

/// A new session of a user.
fn owner(user: &UserRecord, request: &HttpRequest, began_at: DateTime<Utc>, network: String) -> SessionOwner {
    SessionOwner {
        account_id: user.account_id,
        user_id: user.id,
        session_id: Uuid::new_v4(),
        began_at,
        device: device(request).to_owned(),
        network,
    }
}
