use actix_web::web;
use uuid::Uuid;

use super::Loaded;
use crate::apart::apart;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::pages::replay::{Asked, Field, best_address};
use crate::state::App;

/// Searches the setting of least water that is enough, and leads to its replay.
pub(crate) async fn best(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let href = loaded.href();
    let found = apart(move || {
        let field = Field::of(&loaded.context, &loaded.days, loaded.found.as_ref())?;
        let asked = Asked::read(&mut form, &field.controller, &loaded.days)?;
        best_address(&field, &asked)
    });
    let query = found.await?.ok_or(PageError::NotFound)?;
    go(&format!("{href}?{query}"))
}
