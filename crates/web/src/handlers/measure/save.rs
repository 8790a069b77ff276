use actix_web::web;
use upland_formats::site::{FieldDoc, MeasuredDoc};
use uuid::Uuid;

use super::{address, measure_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::{action, apply_over, controller_write, field_record};
use crate::handlers::{invalid, page, station_of};
use crate::loading;
use crate::pages::days_form::read_date;
use crate::pages::measure::{read, with_measurement};
use crate::state::App;

/// Saves a measurement: the station's rate, and with cans its uniformity, and the sheet as a record of the field,
/// both or neither.
pub(crate) async fn save(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, String)>,
    Posted(mut form): Posted,
) -> Page {
    let (id, number) = path.into_inner();
    let context = loading::controller(&user.account, app.clock, id).await?;
    let station = station_of(&context, &number)?;
    if form.is("grid", "set") {
        // Another grid of cans, with what was typed; nothing is saved.
        return page(&measure_page(&app, &user, &context, &station, form).await?);
    }
    let number = station.number;
    let on = read_date(&mut form, "on");
    let note = form.note("note");
    let measured = read(&mut form, user.units);
    let (Some(on), Some(measured), true) = (on, measured, form.is_sound()) else {
        return invalid(&measure_page(&app, &user, &context, &station, form).await?);
    };
    let changed = with_measurement(context.controller(), number, &measured);
    let rate_mm_h = changed.station(number).map_or(0.0, |s| s.sprinkler.rate_mm_per_hour().0);
    let document = FieldDoc::Measured(MeasuredDoc {
        on,
        station: number,
        by: (&measured).into(),
        rate_mm_h,
        uniformity: measured.uniformity(),
        note,
    });
    let to = format!("/controllers/{id}/stations?station={number}");
    let write = controller_write(&context.controller, &form, changed);
    let mut action = action(&app, &user, &form, ["why-measured", &to], vec![write]);
    action.records.push(field_record(&action, &form, id, document));
    apply_over(&app, &user, form, &action, [&address(id, number), &to]).await
}
