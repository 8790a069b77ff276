use actix_web::web;
use uuid::Uuid;

use super::days_on_record;
use crate::apart::apart;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::sensors::{ReplayInput, ReplayView, SensorsLiveTemplate, read, sensor_of};
use crate::state::App;
use crate::words::Words;

/// What a sensor would have done, set as the form says. Nothing is saved; while a field cannot
/// be read, the saved sensor is replayed.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let before = sensor_of(&context, &form);
    if form.get("place").is_empty() {
        // Where it hangs does not change what it does.
        form.set("place", "·");
    }
    let sensor = read(&mut form, context.controller(), &before, user.units).unwrap_or(before);
    let days = days_on_record(&user, &context).await?;
    let today = app.clock.today(context.at.zone);
    let units = user.units;
    let replay = apart(move || ReplayView::of(&sensor, &ReplayInput { context: &context, days: &days, today, units }));
    page(&SensorsLiveTemplate { w: Words, replay: replay.await? })
}
