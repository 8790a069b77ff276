use actix_session::Session;
use actix_web::web;
use uuid::Uuid;

use super::{ADDRESS, account_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{go, invalid};
use crate::state::App;
use crate::words::Words;

/// Ends one session of the user, or all but this one.
pub(crate) async fn end(app: web::Data<App>, session: Session, user: SignedIn, Posted(mut form): Posted) -> Page {
    if form.is("session", "others") {
        user.account.end_other_sessions(user.user.id, user.session_id).await?;
        return go(ADDRESS);
    }
    let Ok(ended) = form.get("session").parse::<Uuid>() else {
        form.fail("session", Words.t("field-choice"));
        return invalid(&account_page(&app, &user, form).await?);
    };
    user.account.end_session_of(user.user.id, ended).await?;
    if ended == user.session_id {
        session.purge();
        return go("/sign-in");
    }
    go(ADDRESS)
}
