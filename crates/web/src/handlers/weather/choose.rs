use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::saving::{place_write, save_over};
use crate::pages::weather::chosen;
use crate::state::App;

/// Has a place look at other stations.
pub(crate) async fn choose(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let place = user.account.place(*place).await?;
    let address = format!("/places/{}/weather", place.id);
    let series = user.account.all_series().await?;
    let Some(changed) = chosen(&form, &place.value, &series) else { return go(&address) };
    let write = place_write(&place, &form, changed);
    save_over(&app, &user, form, "why-weather-choice", write, [&address, &address]).await
}
