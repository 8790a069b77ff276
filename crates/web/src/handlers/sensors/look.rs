use actix_web::web;
use uuid::Uuid;

use super::days_on_record;
use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::sensors::{ReplayInput, ReplayView, SensorsLiveTemplate, read, sensor_of};
use crate::words::Words;

/// What a sensor would have done, set as the form says. Nothing is saved; while a field cannot
/// be read, the sensor is looked at as it stands.
pub(crate) async fn look(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let (_, before) = sensor_of(&desk, &form);
    if form.get("place").is_empty() {
        // Where it hangs does not change what it does.
        form.set("place", "·");
    }
    let sensor = read(&mut form, desk.controller(), &before, user.units).unwrap_or(before);
    let days = days_on_record(&user, &desk).await?;
    let today = app.clock.today(desk.at.zone);
    let input = ReplayInput { desk: &desk, days: &days, today, units: user.units };
    page(&SensorsLiveTemplate { w: Words, replay: ReplayView::of(&sensor, &input) })
}
