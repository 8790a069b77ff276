use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::state::App;

/// Ends something temporary: it was put back on the panel.
pub(crate) async fn put_back(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let back = format!("/controllers/{id}/temporary");
    let mut changed = context.controller().clone();
    let Some(index) = changed.temporaries.iter().position(|t| t.id.to_string() == form.get("temporary")) else {
        // It was put back already: by another press, or by somebody else.
        return go(&back);
    };
    changed.temporaries.remove(index);
    let address = format!("/controllers/{id}/temporary/put-back");
    save_controller(&app, &user, &context, form, changed, "why-put-back", [&address, &back]).await
}
