//! Loading what the pages of a place or a controller show.

use std::collections::HashMap;
use std::sync::{Arc, LazyLock};

use chrono::NaiveDate;
use upland_core::climate::blend::{BlendedDay, WeatherDay, blend, with_rain_of};
use upland_core::climate::normals::Normals;
use upland_store::{
    Account, ControllerHead, FurtherWeather, HoursOnRecord, NormalsVariant, PlaceRecord, StoreError, Versioned,
};
use uuid::Uuid;

use crate::clock::Clock;
use crate::context::{Beside, ControllerContext, Imports, PlaceContext, Record, Weather, WholeRecord};
use crate::remembered::Remembered;

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
    let versions = heads.iter().map(|head| (head.id, head.version)).collect();
    let place_ids: Vec<Uuid> = heads.iter().map(|head| head.place_id).collect();
    let mut places: HashMap<Uuid, PlaceContext> = HashMap::new();
    let all = account.places_of(&place_ids).await?;
    let mut series: Vec<Uuid> = all.iter().flat_map(|place| series_of(&place.value)).collect();
    series.sort_unstable();
    series.dedup();
    let known = weather_by_series(account, &series).await?;
    for place in all {
        let own = weather_of(&place.value, &known)?;
        places.insert(place.id, PlaceContext::new(place, own));
    }
    let controllers = account.controllers_at(versions).await?.into_iter();
    let out = controllers
        .filter_map(|controller| {
            let at = places.get(&controller.value.place_id)?.clone();
            let today = clock.today(at.zone);
            Some(ControllerContext::of(controller, at, today))
        })
        .collect();
    Ok(out)
}

/// A place that is loaded already, with its weather.
pub(crate) async fn with_weather(account: &Account, place: Versioned<PlaceRecord>) -> Result<PlaceContext, StoreError> {
    let series: Vec<Uuid> = series_of(&place.value).collect();
    let weather = weather_of(&place.value, &weather_by_series(account, &series).await?)?;
    Ok(PlaceContext::new(place, weather))
}

/// A series with all its days and what was decided about them.
pub(crate) async fn record(account: &Account, series_id: Uuid) -> Result<Record, StoreError> {
    let weather = weather(account, series_id).await?;
    let import = weather.revision.id;
    let days = if weather.has_days() { account.record_days(import).await? } else { Vec::new() };
    let decisions = account.weather_decisions(import).await?;
    Ok(Record { weather, days, decisions })
}

/// The same with the hours of its days, to work it out anew.
pub(crate) async fn whole_record(account: &Account, series_id: Uuid) -> Result<WholeRecord, StoreError> {
    let record = record(account, series_id).await?;
    let has_hours = record.days.iter().any(|day| day.has_hours);
    let hours =
        if has_hours { account.record_hours(record.weather.revision.id, None).await? } else { HoursOnRecord::new() };
    Ok(WholeRecord { record, hours })
}

/// The weather of a series.
pub(crate) async fn weather(account: &Account, series_id: Uuid) -> Result<Weather, StoreError> {
    weather_by_series(account, &[series_id]).await?.remove(&series_id).ok_or(StoreError::NotFound)
}

/// The normals of an import with their variants, remembered: an import never changes (decision 3).
async fn normals(account: &Account, import: Uuid) -> Result<Vec<NormalsVariant>, StoreError> {
    static KNOWN: LazyLock<Remembered<Uuid, Arc<[NormalsVariant]>>> =
        LazyLock::new(|| Remembered::with_room(MOST_NORMALS));
    if let Some(known) = KNOWN.get(&import) {
        return Ok(known.to_vec());
    }
    let variants = account.normals(import).await?;
    KNOWN.keep(import, variants.as_slice().into(), variants.len() + 1);
    Ok(variants)
}

/// Variants of normals that are remembered in all; each takes half a kilobyte.
const MOST_NORMALS: usize = 20_000;

/// The weather of some series, by their ids; those that are not there are left out.
async fn weather_by_series(account: &Account, ids: &[Uuid]) -> Result<HashMap<Uuid, Weather>, StoreError> {
    let mut known = HashMap::new();
    if ids.is_empty() {
        return Ok(known);
    }
    for (series, revision) in account.series_of(ids).await? {
        let variants = normals(account, revision.id).await?;
        known.insert(series.id, Weather { series, revision, variants, beside: Vec::new() });
    }
    Ok(known)
}

/// The series that a place looks at.
fn series_of(place: &PlaceRecord) -> impl Iterator<Item = Uuid> {
    place.series_id.into_iter().chain(place.further.all())
}

/// The weather of a place out of that of its series: its first station, with the rain of another where it looks at one.
fn weather_of(place: &PlaceRecord, known: &HashMap<Uuid, Weather>) -> Result<Option<Weather>, StoreError> {
    let Some(first) = place.series_id else { return Ok(None) };
    let mut own = known.get(&first).ok_or(StoreError::NotFound)?.clone();
    let FurtherWeather { rain, gaps } = &place.further;
    // What was imported and undone since is left out.
    let beside: Vec<&Weather> = place.further.all().filter(|id| *id != first).filter_map(|id| known.get(&id)).collect();
    if beside.is_empty() {
        return Ok(Some(own));
    }
    let as_station = |w: &&Weather| Beside {
        series: w.series.clone(),
        revision: w.revision.clone(),
        for_rain: *rain == Some(w.series.id),
        for_gaps: gaps.contains(&w.series.id),
    };
    own.beside = beside.iter().map(as_station).collect();
    let order = own.preference().rain;
    for variant in &mut own.variants {
        let mut of_stations = vec![Some(&variant.normals)];
        of_stations.extend(beside.iter().map(|w| w.normals()));
        let rain: Vec<&Normals> = order.iter().filter_map(|at| of_stations.get(*at).copied().flatten()).collect();
        variant.normals = with_rain_of(&variant.normals, &rain);
    }
    Ok(Some(own))
}

/// Every day on record of the weather of a place, each value from the first of its stations that has it.
///
/// Reading thirty years takes longer than a replay of them, and a slider asks ten times a second: what was read is
/// remembered by the imports that it is made of, which never change (decision 3).
pub(crate) async fn days(account: &Account, weather: &Weather) -> Result<Vec<BlendedDay>, StoreError> {
    static KNOWN: LazyLock<Remembered<Imports, Arc<[BlendedDay]>>> = LazyLock::new(|| Remembered::with_room(MOST_DAYS));
    let key = weather.imports();
    if let Some(days) = KNOWN.get(&key) {
        return Ok(days.to_vec());
    }
    let mut stations = Vec::new();
    for (import, ..) in &key {
        stations.push(account.weather_days(*import).await?);
    }
    let stations: Vec<&[WeatherDay]> = stations.iter().map(Vec::as_slice).collect();
    let days = blend(&stations, &weather.preference());
    KNOWN.keep(key, days.as_slice().into(), days.len());
    Ok(days)
}

/// Days that are remembered of whole records, and as many of intervals: some thirty megabytes each.
const MOST_DAYS: usize = 400_000;

/// The days of an interval, both ends included, of the weather of a place.
pub(crate) async fn days_between(
    account: &Account,
    weather: &Weather,
    span: [NaiveDate; 2],
) -> Result<Vec<WeatherDay>, StoreError> {
    let mut days = days_of_places(account, &[weather], span).await?;
    Ok(days.pop().unwrap_or_default())
}

/// The same of several places, in their order: those that are not remembered are asked at once.
///
/// The year strip of every page asks for the same days from morning to night.
pub(crate) async fn days_of_places(
    account: &Account,
    places: &[&Weather],
    span: [NaiveDate; 2],
) -> Result<Vec<Vec<WeatherDay>>, StoreError> {
    type Question = (Imports, [NaiveDate; 2]);
    static KNOWN: LazyLock<Remembered<Question, Arc<[WeatherDay]>>> =
        LazyLock::new(|| Remembered::with_room(MOST_DAYS));
    let questions: Vec<Question> = places.iter().map(|weather| (weather.imports(), span)).collect();
    let known: Vec<_> = questions.iter().map(|question| KNOWN.get(question)).collect();
    let unknown = questions.iter().zip(&known).filter(|(_, known)| known.is_none());
    let mut missing: Vec<Uuid> = unknown.flat_map(|((imports, _), _)| imports).map(|(import, ..)| *import).collect();
    missing.sort_unstable();
    missing.dedup();
    let mut read: HashMap<Uuid, Vec<WeatherDay>> = HashMap::new();
    if !missing.is_empty() {
        for (import, day) in account.days_between(&missing, span).await? {
            read.entry(import).or_default().push(day);
        }
    }
    let of_place = |((weather, question), known): ((&&Weather, Question), Option<Arc<[WeatherDay]>>)| {
        if let Some(known) = known {
            return known.to_vec();
        }
        let own: Vec<&[WeatherDay]> =
            question.0.iter().map(|(import, ..)| read.get(import).map_or(&[][..], Vec::as_slice)).collect();
        let days: Vec<WeatherDay> = blend(&own, &weather.preference()).into_iter().map(|b| b.day).collect();
        // A place without days in the interval is remembered too, and weighs something.
        KNOWN.keep(question, days.as_slice().into(), days.len() + 1);
        days
    };
    Ok(places.iter().zip(questions).zip(known).map(of_place).collect())
}
