use actix_web::web;
use uuid::Uuid;

use super::stations_page;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::stations::filled;
use crate::state::App;

/// The worksheet as it is saved; `?station=3` opens that station's working, `&fill=turf` fills in the published
/// coefficients of its turf, to be looked at and saved.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let open: Option<u8> = query.get("station").parse().ok();
    let mut controller = context.controller().clone();
    let latitude = context.at.place.value.place.position.latitude_deg();
    let station = controller.stations.iter_mut().find(|s| query.is("fill", "turf") && Some(s.number) == open);
    let is_filled = station.is_some_and(|s| s.fill_turf_months(latitude));
    // It fills the first line in, and those below begin with it.
    let usual = if controller.station(1).is_none() { user.account.usual_station().await? } else { None };
    let mut form = filled(&controller, context.controller.version, usual.as_ref(), user.units);
    if is_filled {
        form.set("filled", "turf");
    }
    page(&stations_page(&app, &user, &context, form, &controller, open).await?)
}
