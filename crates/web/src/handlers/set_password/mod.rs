//! A link by which a person sets a password, once.

use actix_web::web;
use upland_store::{LinkOwner, StoreError};

use crate::assets::stylesheet;
use crate::error::{Page, PageError, notice_page};
use crate::form::Form;
use crate::guard::posted::FromOutside;
use crate::handlers::account::password::{hash_or_say, is_typed_twice};
use crate::handlers::{go, invalid, page};
use crate::state::App;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "set_password.html")]
struct SetPasswordTemplate {
    w: Words,
    css: String,
    name: String,
    email: String,
    post_to: String,
    form: Form,
}

/// Whose password it is, or the page of a link that is used up.
async fn owner(app: &App, key: &str) -> Result<Option<LinkOwner>, PageError> {
    match app.store.link_owner(key, app.clock.now()).await {
        Ok(owner) => Ok(Some(owner)),
        Err(StoreError::NotFound) => Ok(None),
        Err(other) => Err(other.into()),
    }
}

fn template(owner: LinkOwner, key: &str, form: Form) -> SetPasswordTemplate {
    let LinkOwner { name, email, .. } = owner;
    SetPasswordTemplate { w: Words, css: stylesheet(), name, email, post_to: format!("/password/{key}"), form }
}

fn used_up() -> Page {
    Ok(notice_page(["set-password-closed-title", "set-password-closed-text"]))
}

/// The form for a new password.
pub(crate) async fn show(app: web::Data<App>, key: web::Path<String>) -> Page {
    match owner(&app, &key).await? {
        Some(owner) => page(&template(owner, &key, Form::default())),
        None => used_up(),
    }
}

/// Sets the password: the link is used up, and every session of the user ends.
pub(crate) async fn set(app: web::Data<App>, key: web::Path<String>, FromOutside(mut form): FromOutside) -> Page {
    let Some(owner) = owner(&app, &key).await? else { return used_up() };
    let hash = if is_typed_twice(&mut form) {
        let new = form.as_typed("new").to_owned();
        hash_or_say(&mut form, new).await?
    } else {
        None
    };
    let Some(hash) = hash else { return invalid(&template(owner, &key, form)) };
    match app.store.use_link(&key, &hash, app.clock.now()).await {
        Ok(()) => go("/sign-in"),
        Err(StoreError::NotFound) => used_up(),
        Err(other) => Err(other.into()),
    }
}
