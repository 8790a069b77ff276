pub(crate) mod preview;
pub(crate) mod save;
pub(crate) mod show;

use upland_core::controller::Station;
use uuid::Uuid;

use crate::context::ControllerContext;
use crate::error::PageError;
use crate::form::{Form, new_key};
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::pages::measure::{MeasureLive, MeasureTemplate, Parts, can_fields, earlier, ways};
use crate::pages::spine::Step;
use crate::state::App;

/// How many records are looked through for earlier measurements.
const RECORDS: i64 = 500;

fn address(controller: Uuid, number: u8) -> String {
    format!("/controllers/{controller}/stations/{number}/measure")
}

/// The sheet, as the form stands.
async fn measure_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    station: &Station,
    mut form: Form,
) -> Result<MeasureTemplate, PageError> {
    let href = address(context.controller.id, station.number);
    let frame = frame(app, user, context, Step::Stations, ["measure", "measure-title"], &href).await?;
    let records = user.account.field_records(context.controller.id, RECORDS).await?;
    for key in ["action", "record"] {
        if form.get(key).is_empty() {
            form.set(key, new_key());
        }
    }
    let live = MeasureLive::of(context, station, &mut form.clone(), user.units);
    Ok(MeasureTemplate {
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        cans: can_fields(&form),
        form,
        back: format!("/controllers/{}/stations?station={}", context.controller.id, station.number),
        href,
        version: context.controller.version,
        station: format!("{} {}", station.number, station.name),
        ways: ways(),
        parts: Parts::of(user.units),
        live,
        earlier: earlier(&records, station.number, user.units),
    })
}
