use actix_web::web;
use uuid::Uuid;

use super::show::temporary_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::pages::temporary::read;
use crate::state::App;

/// Sets something for a while, with its reason and its end.
pub(crate) async fn add(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let read = read(&mut form, context.controller(), &user.user.name);
    let mut changed = context.controller().clone();
    if let Some(temporary) = read {
        changed.add_temporary(temporary);
        if let Err(error) = changed.check() {
            form.fail("until", cannot_be_set(&error));
        }
    }
    if !form.is_sound() {
        return invalid(&temporary_page(&app, &user, &context, form).await?);
    }
    let address = format!("/controllers/{id}/temporary");
    save_controller(&app, &user, &context, form, changed, "why-temporary", [&address, &address]).await
}
