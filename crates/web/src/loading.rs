//! Loading what the pages of a place or a controller show.

use std::collections::HashMap;
use std::collections::hash_map::Entry;

use upland_store::{Account, ControllerHead, PlaceRecord, StoreError, Versioned};
use uuid::Uuid;

use crate::clock::Clock;
use crate::context::{ControllerContext, PlaceContext, Record, Weather};

/// A controller with its place and its weather.
pub(crate) async fn controller(account: &Account, clock: Clock, id: Uuid) -> Result<ControllerContext, StoreError> {
    let controller = account.controller(id).await?;
    let at = place(account, controller.value.place_id).await?;
    let today = clock.today(at.zone);
    Ok(ControllerContext::of(controller, at, today))
}

/// A place with its weather.
pub(crate) async fn place(account: &Account, id: Uuid) -> Result<PlaceContext, StoreError> {
    with_weather(account, account.place(id).await?).await
}

/// Some controllers with their places and weather, each series read once.
pub(crate) async fn contexts(
    account: &Account,
    clock: Clock,
    heads: &[&ControllerHead],
) -> Result<Vec<ControllerContext>, StoreError> {
    let ids: Vec<Uuid> = heads.iter().map(|head| head.id).collect();
    let place_ids: Vec<Uuid> = heads.iter().map(|head| head.place_id).collect();
    let mut known: HashMap<Uuid, Weather> = HashMap::new();
    let mut places: HashMap<Uuid, PlaceContext> = HashMap::new();
    for place in account.places_of(&place_ids).await? {
        let own = match place.value.series_id {
            Some(id) => Some(match known.entry(id) {
                Entry::Occupied(weather) => weather.get().clone(),
                Entry::Vacant(free) => free.insert(weather(account, id).await?).clone(),
            }),
            None => None,
        };
        places.insert(place.id, PlaceContext::new(place, own));
    }
    let controllers = account.controllers_of(&ids).await?.into_iter();
    let mut out: Vec<ControllerContext> = controllers
        .filter_map(|controller| {
            let at = places.get(&controller.value.place_id)?.clone();
            let today = clock.today(at.zone);
            Some(ControllerContext::of(controller, at, today))
        })
        .collect();
    out.sort_by_key(|context| ids.iter().position(|id| *id == context.controller.id));
    Ok(out)
}

/// A place that is loaded already, with its weather.
pub(crate) async fn with_weather(account: &Account, place: Versioned<PlaceRecord>) -> Result<PlaceContext, StoreError> {
    let weather = match place.value.series_id {
        Some(id) => Some(weather(account, id).await?),
        None => None,
    };
    Ok(PlaceContext::new(place, weather))
}

/// A series with all its days and what was decided about them.
pub(crate) async fn record(account: &Account, series_id: Uuid) -> Result<Record, StoreError> {
    let weather = weather(account, series_id).await?;
    let days = if weather.has_days() { account.record_days(series_id).await? } else { Vec::new() };
    let decisions = account.weather_decisions(series_id).await?;
    Ok(Record { weather, days, decisions })
}

/// The weather of a series.
pub(crate) async fn weather(account: &Account, series_id: Uuid) -> Result<Weather, StoreError> {
    let (series, revision) = account.series(series_id).await?;
    Ok(Weather { series, revision, variants: account.normals(series_id).await? })
}
