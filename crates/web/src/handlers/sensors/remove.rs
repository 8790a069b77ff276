use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::save_controller;
use crate::pages::desk::Desk;
use crate::pages::sensors::index_of;

/// Takes a sensor away.
pub(crate) async fn remove(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let back = format!("/controllers/{id}/sensors");
    let Some(index) = index_of(desk.controller(), form.get("was")) else {
        // It is gone already: by another press, or by somebody else.
        return go(&back);
    };
    let mut changed = desk.controller().clone();
    changed.remove_sensor(index);
    let address = format!("{back}/remove");
    save_controller(&app, &user, &desk, form, changed, "why-sensor-gone", [&address, &back]).await
}
