use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::save_controller;
use crate::pages::desk::Desk;

/// Ends something temporary: it was put back on the panel.
pub(crate) async fn put_back(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let index = form.get("index").parse::<usize>().map_err(|_| PageError::NotFound)?;
    let mut changed = desk.controller().clone();
    if index >= changed.temporaries.len() {
        return Err(PageError::NotFound);
    }
    changed.temporaries.remove(index);
    let back = format!("/controllers/{id}/temporary");
    let address = format!("/controllers/{id}/temporary/put-back");
    save_controller(&app, &user, &desk, form, changed, "why-put-back", [&address, &back]).await
}
