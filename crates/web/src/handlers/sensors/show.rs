use actix_web::web;
use uuid::Uuid;

use super::days_on_record;
use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::sensors::{
    ReplayInput, ReplayView, SensorForm, SensorsTemplate, filled, kind_links, kind_word, lines, matrix, sensor_of,
};
use crate::pages::spine::Step;

/// The sensors; the address says which one is open, or which kind is added.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let query = Form::from_pairs(query.into_inner());
    page(&sensors_page(&app, &user, &desk, &query, None).await?)
}

/// The page; `typed` is a form that could not be saved.
pub(super) async fn sensors_page(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    query: &Form,
    typed: Option<Form>,
) -> Result<SensorsTemplate, PageError> {
    let href = format!("/controllers/{}/sensors", desk.controller.id);
    let frame = frame(app, user, desk, Step::Sensors, ["sensors", "step-sensors"], &href).await?;
    let today = app.clock.today(desk.at.zone);
    let c = desk.controller();
    let (index, sensor) = sensor_of(desk, query);
    let days = days_on_record(user, desk).await?;
    let input = ReplayInput { desk, days: &days, today, units: user.units };
    let form = typed.unwrap_or_else(|| filled(&sensor, user.units));
    Ok(SensorsTemplate {
        version: desk.controller.version,
        sensors: lines(c, index, &href, today, user.units),
        matrix: matrix(c),
        replay: ReplayView::of(&sensor, &input),
        kinds: kind_links(&href, index.is_none().then_some(kind_word(&sensor.kind))),
        open: SensorForm::of(c, &sensor, index, form, user.units),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        href,
    })
}
