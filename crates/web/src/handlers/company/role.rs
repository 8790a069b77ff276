use actix_web::web;
use upland_store::Role;
use uuid::Uuid;

use super::changed;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::state::App;

/// Gives a person another role, from the next page on.
pub(crate) async fn set(app: web::Data<App>, user: SignedIn, person: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let role = Role::of_word(form.get("role")).ok_or(PageError::NotAForm("no role"))?;
    let result = user.account.set_role(*person, role).await;
    changed(&app, &user, *person, result).await
}
