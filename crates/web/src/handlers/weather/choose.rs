use actix_web::web;
use upland_store::PlaceRecord;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::{place_write, save_over};
use crate::state::App;

/// Has a place look at another series.
pub(crate) async fn choose(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let place = user.account.place(*place).await?;
    let address = format!("/places/{}/weather", place.id);
    let Ok(series) = Uuid::parse_str(form.get("series")) else { return go(&address) };
    user.account.series(series).await?;
    let changed = PlaceRecord { series_id: Some(series), ..place.value.clone() };
    let write = place_write(&place, &form, changed);
    save_over(&app, &user, form, "why-weather-choice", write, [&address, &address]).await
}
