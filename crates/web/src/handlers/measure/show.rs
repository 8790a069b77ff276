use actix_web::web;
use uuid::Uuid;

use super::measure_page;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{page, station_of};
use crate::loading;
use crate::pages::measure::blank;
use crate::state::App;

/// A sheet to measure a station; the address can carry what was typed, as when the grid of cans is changed.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, String)>,
    Query(query): Query,
) -> Page {
    let (id, number) = path.into_inner();
    let context = loading::controller(&user.account, app.clock, id).await?;
    let station = station_of(&context, &number)?;
    let mut form = blank(&station, app.clock.today(context.at.zone), user.units);
    for (field, value) in query.pairs() {
        form.set(field, value.clone());
    }
    // A page has keys of its own.
    form.set("action", "");
    form.set("record", "");
    page(&measure_page(&app, &user, &context, &station, form).await?)
}
