//! Loading what the pages of a place or a controller show.

use upland_store::{Account, PlaceRecord, StoreError, Versioned};
use uuid::Uuid;

use crate::context::{ControllerContext, PlaceContext, Weather};

/// A controller with its place and its weather.
pub(crate) async fn controller(account: &Account, id: Uuid) -> Result<ControllerContext, StoreError> {
    let controller = account.controller(id).await?;
    let at = place(account, controller.value.place_id).await?;
    Ok(ControllerContext { controller, at })
}

/// A place with its weather.
pub(crate) async fn place(account: &Account, id: Uuid) -> Result<PlaceContext, StoreError> {
    with_weather(account, account.place(id).await?).await
}

/// Every place of a company, and every controller with its place.
pub(crate) async fn everything(account: &Account) -> Result<(Vec<PlaceContext>, Vec<ControllerContext>), StoreError> {
    let mut places = Vec::new();
    for place in account.places().await? {
        places.push(with_weather(account, place).await?);
    }
    let mut controllers = Vec::new();
    for controller in account.controllers().await? {
        if let Some(at) = places.iter().find(|p| p.place.id == controller.value.place_id) {
            controllers.push(ControllerContext { controller, at: at.clone() });
        }
    }
    Ok((places, controllers))
}

/// A place that is loaded already, with its weather.
pub(crate) async fn with_weather(account: &Account, place: Versioned<PlaceRecord>) -> Result<PlaceContext, StoreError> {
    let weather = match place.value.series_id {
        Some(id) => Some(weather(account, id).await?),
        None => None,
    };
    Ok(PlaceContext::new(place, weather))
}

/// The weather of a series.
pub(crate) async fn weather(account: &Account, series_id: Uuid) -> Result<Weather, StoreError> {
    let (series, revision) = account.series(series_id).await?;
    Ok(Weather { series, revision, variants: account.normals(series_id).await? })
}
