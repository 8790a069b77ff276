use actix_web::web;
use uuid::Uuid;

use super::show::sensors_page;
use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::pages::desk::Desk;
use crate::pages::sensors::{read, sensor_of};

/// Saves a sensor: a new one at the end of the list, or one that is there.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let query = form.clone();
    let (index, before) = sensor_of(&desk, &query);
    let Some(sensor) = read(&mut form, desk.controller(), &before, user.units) else {
        return invalid(&sensors_page(&app, &user, &desk, &query, Some(form)).await?);
    };
    let mut changed = desk.controller().clone();
    let at = index.unwrap_or(changed.sensors.len());
    match changed.sensors.get_mut(at) {
        Some(slot) => *slot = sensor,
        None => changed.sensors.push(sensor),
    }
    if let Err(error) = changed.check() {
        form.fail("place", error.to_string());
        return invalid(&sensors_page(&app, &user, &desk, &query, Some(form)).await?);
    }
    let post_to = format!("/controllers/{id}/sensors");
    let back = format!("{post_to}?sensor={at}");
    save_controller(&app, &user, &desk, form, changed, "why-sensor", [&post_to, &back]).await
}
