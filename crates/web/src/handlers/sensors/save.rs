use actix_web::web;
use uuid::Uuid;

use super::show::sensors_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::pages::sensors::{read, sensor_of};
use crate::state::App;

/// Saves a sensor: a new one at the end of the list, or one that is there.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let query = form.clone();
    let before = sensor_of(&context, &query);
    let Some(sensor) = read(&mut form, context.controller(), &before, user.units) else {
        return invalid(&sensors_page(&app, &user, &context, &query, Some(form)).await?);
    };
    let mut changed = context.controller().clone();
    let id_of_sensor = match changed.sensors.iter_mut().find(|s| s.id == sensor.id) {
        Some(slot) => {
            *slot = sensor;
            slot.id
        }
        None => changed.add_sensor(sensor),
    };
    if let Err(error) = changed.check() {
        form.fail("place", cannot_be_set(&error));
        return invalid(&sensors_page(&app, &user, &context, &query, Some(form)).await?);
    }
    let post_to = format!("/controllers/{id}/sensors");
    let back = format!("{post_to}?sensor={id_of_sensor}");
    save_controller(&app, &user, &context, form, changed, "why-sensor", [&post_to, &back]).await
}
