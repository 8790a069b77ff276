//! Loading what the pages of a place or a controller show.

use std::collections::HashMap;
use std::collections::hash_map::Entry;

use chrono::NaiveDate;
use upland_core::climate::blend::{BlendedDay, WeatherDay, blend, with_rain_of};
use upland_core::climate::normals::Normals;
use upland_store::{Account, ControllerHead, FurtherWeather, PlaceRecord, StoreError, Versioned};
use uuid::Uuid;

use crate::clock::Clock;
use crate::context::{Beside, ControllerContext, PlaceContext, Record, Weather};

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
    let mut places: HashMap<Uuid, PlaceContext> = HashMap::new();
    let mut known = Known::default();
    for place in account.places_of(&place_ids).await? {
        let own = known.weather_of(account, &place.value).await?;
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
    let weather = Known::default().weather_of(account, &place.value).await?;
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
    Ok(Weather { series, revision, variants: account.normals(series_id).await?, beside: Vec::new() })
}

/// Series that were read already.
#[derive(Default)]
struct Known(HashMap<Uuid, Weather>);

impl Known {
    /// The weather of a place: its first station, with the rain of another where it looks at one.
    async fn weather_of(&mut self, account: &Account, place: &PlaceRecord) -> Result<Option<Weather>, StoreError> {
        let Some(first) = place.series_id else { return Ok(None) };
        let mut own = self.series(account, first).await?;
        let FurtherWeather { rain, gaps } = &place.further;
        let mut beside = Vec::new();
        for id in place.further.all().filter(|id| *id != first) {
            // What was imported and undone since is left out.
            match self.series(account, id).await {
                Ok(weather) => beside.push(weather),
                Err(StoreError::NotFound) => {}
                Err(other) => return Err(other),
            }
        }
        if beside.is_empty() {
            return Ok(Some(own));
        }
        let as_station = |w: &Weather| Beside {
            series: w.series.clone(),
            revision: w.revision.clone(),
            for_rain: *rain == Some(w.series.id),
            for_gaps: gaps.contains(&w.series.id),
        };
        own.beside = beside.iter().map(as_station).collect();
        let order = own.preference().rain;
        for variant in &mut own.variants {
            let mut of_stations = vec![Some(&variant.normals)];
            of_stations.extend(beside.iter().map(Weather::normals));
            let rain: Vec<&Normals> = order.iter().filter_map(|at| of_stations.get(*at).copied().flatten()).collect();
            variant.normals = with_rain_of(&variant.normals, &rain);
        }
        Ok(Some(own))
    }

    async fn series(&mut self, account: &Account, id: Uuid) -> Result<Weather, StoreError> {
        Ok(match self.0.entry(id) {
            Entry::Occupied(weather) => weather.get().clone(),
            Entry::Vacant(free) => free.insert(weather(account, id).await?).clone(),
        })
    }
}

/// Every day on record of the weather of a place, each value from the first of its stations that has it.
pub(crate) async fn days(account: &Account, weather: &Weather) -> Result<Vec<BlendedDay>, StoreError> {
    let mut stations = Vec::new();
    for (id, _) in weather.stations() {
        stations.push(account.weather_days(id).await?);
    }
    Ok(blended(&stations, weather))
}

/// The days of an interval, both ends included, of the weather of a place.
pub(crate) async fn days_between(
    account: &Account,
    weather: &Weather,
    span: [NaiveDate; 2],
) -> Result<Vec<WeatherDay>, StoreError> {
    let mut days = days_of_places(account, &[weather], span).await?;
    Ok(days.pop().unwrap_or_default())
}

/// The same of several places, in their order, asked at once.
pub(crate) async fn days_of_places(
    account: &Account,
    places: &[&Weather],
    span: [NaiveDate; 2],
) -> Result<Vec<Vec<WeatherDay>>, StoreError> {
    let mut ids: Vec<Uuid> = places.iter().flat_map(|w| w.stations()).map(|(id, _)| id).collect();
    ids.sort_unstable();
    ids.dedup();
    let mut by_series: HashMap<Uuid, Vec<WeatherDay>> = HashMap::new();
    for (id, day) in account.days_between(&ids, span).await? {
        by_series.entry(id).or_default().push(day);
    }
    let of_place = |weather: &&Weather| {
        let stations = weather.stations();
        let own: Vec<&[WeatherDay]> =
            stations.iter().map(|(id, _)| by_series.get(id).map_or(&[][..], Vec::as_slice)).collect();
        blend(&own, &weather.preference()).into_iter().map(|b| b.day).collect()
    };
    Ok(places.iter().map(of_place).collect())
}

fn blended(stations: &[Vec<WeatherDay>], weather: &Weather) -> Vec<BlendedDay> {
    let stations: Vec<&[WeatherDay]> = stations.iter().map(Vec::as_slice).collect();
    blend(&stations, &weather.preference())
}
