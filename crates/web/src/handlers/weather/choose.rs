use actix_web::web;
use upland_store::{PlaceRecord, StoreError};
use uuid::Uuid;

use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::conflicts::{Conflict, conflict_page};
use crate::handlers::go;
use crate::handlers::saving::{action, place_write};

/// Has a place look at another series.
pub(crate) async fn choose(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let place = user.account.place(*place).await?;
    let address = format!("/places/{}/weather", place.id);
    let Ok(series) = Uuid::parse_str(form.get("series")) else { return go(&address) };
    user.account.series(series).await?;
    let made_on = form.get("version").parse().unwrap_or(0);
    let changed = PlaceRecord { series_id: Some(series), ..place.value.clone() };
    let write = place_write(place.id, made_on, Some(&place.value), Some(changed));
    let mine = write.after.clone();
    match user.account.apply(&action(&app, &user, &form, "why-weather-choice", vec![write])).await {
        Ok(()) => go(&address),
        Err(StoreError::Conflict { current, .. }) => {
            conflict_page(
                &app,
                &user,
                Conflict { id: place.id, current, form, mine, post_to: &address, back: &address },
            )
            .await
        }
        Err(other) => Err(other.into()),
    }
}
