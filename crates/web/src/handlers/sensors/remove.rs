use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::state::App;

/// Takes a sensor away.
pub(crate) async fn remove(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let back = format!("/controllers/{id}/sensors");
    let Some(sensor) = form.get("sensor").parse().ok().filter(|id| context.controller().sensor(*id).is_some()) else {
        // It is gone already: by another press, or by somebody else.
        return go(&back);
    };
    let mut changed = context.controller().clone();
    changed.remove_sensor(sensor);
    let address = format!("{back}/remove");
    save_controller(&app, &user, &context, form, changed, "why-sensor-gone", [&address, &back]).await
}
