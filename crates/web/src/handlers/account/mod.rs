pub(crate) mod password;
pub(crate) mod sessions;
pub(crate) mod show;

use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::pages::account::{AccountTemplate, session_lines};
use crate::pages::company::role_words;
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Where the page stands.
const ADDRESS: &str = "/account";

/// The page of one's own account, with a form that may hold errors.
async fn account_page(app: &App, user: &SignedIn, form: Form) -> Result<AccountTemplate, PageError> {
    let now = app.clock.now();
    let sessions = user.account.sessions_of(user.user.id, now).await?;
    let mut shell = shell(app, user, View::Today, "account", Words.t("account-title"), ADDRESS);
    shell.stand_apart();
    Ok(AccountTemplate {
        shell,
        email: user.user.email.clone(),
        role: role_words(user.user.role),
        is_changed: form.is("password", "changed"),
        sessions: session_lines(&sessions, user.session_id, now),
        form,
    })
}
