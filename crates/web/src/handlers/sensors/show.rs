use actix_web::web;
use uuid::Uuid;

use super::days_on_record;
use crate::apart::apart;
use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::sensors::{
    ReplayInput, ReplayView, SensorForm, SensorsTemplate, filled, kind_links, lines, matrix, sensor_of,
};
use crate::pages::spine::Step;
use crate::state::App;

/// The sensors; the address says which one is open, or which kind is added.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    page(&sensors_page(&app, &user, &context, &query, None).await?)
}

/// The page; `typed` is a form that could not be saved.
pub(super) async fn sensors_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    query: &Form,
    typed: Option<Form>,
) -> Result<SensorsTemplate, PageError> {
    let href = format!("/controllers/{}/sensors", context.controller.id);
    let frame = frame(app, user, context, Step::Sensors, ["sensors", "step-sensors"], &href).await?;
    let today = app.clock.today(context.at.zone);
    let c = context.controller();
    let sensor = sensor_of(context, query);
    let days = days_on_record(user, context).await?;
    let (of_sensor, known, units) = (sensor.clone(), context.clone(), user.units);
    let replay = apart(move || ReplayView::of(&of_sensor, &ReplayInput { context: &known, days: &days, today, units }));
    let replay = replay.await?;
    let form = typed.unwrap_or_else(|| filled(&sensor, user.units));
    Ok(SensorsTemplate {
        version: context.controller.version,
        sensors: lines(c, Some(sensor.id), &href, today, user.units),
        matrix: matrix(c),
        replay,
        kinds: kind_links(&href, (sensor.id == 0).then_some(sensor.kind.word())),
        open: SensorForm::of(c, &sensor, form, user.units),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        href,
    })
}
