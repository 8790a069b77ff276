use actix_web::web;
use uuid::Uuid;

use super::show::temporary_page;
use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::pages::desk::Desk;
use crate::pages::temporary::read;
use crate::words::Words;

/// Sets something for a while, with its reason and its end.
pub(crate) async fn add(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let read = read(&mut form, desk.controller(), &user.user.name);
    let mut changed = desk.controller().clone();
    if let Some(temporary) = read {
        changed.temporaries.push(temporary);
        if let Err(error) = changed.check() {
            form.fail("until", Words.t1("temp-cannot", error.to_string()));
        }
    }
    if !form.is_sound() {
        return invalid(&temporary_page(&app, &user, &desk, form).await?);
    }
    let address = format!("/controllers/{id}/temporary");
    save_controller(&app, &user, &desk, form, changed, "why-temporary", [&address, &address]).await
}
