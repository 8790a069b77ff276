use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::save_controller;
use crate::pages::desk::Desk;

/// Takes a sensor away.
pub(crate) async fn remove(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let index = form.get("sensor").parse::<usize>().map_err(|_| PageError::NotFound)?;
    let mut changed = desk.controller().clone();
    if index >= changed.sensors.len() {
        return Err(PageError::NotFound);
    }
    changed.remove_sensor(index);
    let address = format!("/controllers/{id}/sensors/remove");
    let back = format!("/controllers/{id}/sensors");
    save_controller(&app, &user, &desk, form, changed, "why-sensor-gone", [&address, &back]).await
}
