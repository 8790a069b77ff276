use crate::context::{ControllerHead, PlaceRecord, SeriesRecord, Versioned};
use uuid::Uuid;

use super::finder::Finder;
use super::shell::Shell;
use crate::show::{Measure, Units};
use crate::words::Words;

/// A place with its controllers, as a list shows it.
#[derive(Debug, Clone)]
pub(crate) struct PlaceRow {
    pub(crate) href: String,
    pub(crate) name: String,
    pub(crate) position: String,
    pub(crate) weather: String,
    pub(crate) weather_href: String,
    pub(crate) has_weather: bool,
    pub(crate) controllers: Vec<ControllerLink>,
    pub(crate) new_controller: String,
}

#[derive(Debug, Clone)]
pub(crate) struct ControllerLink {
    pub(crate) href: String,
    pub(crate) name: String,
    pub(crate) stations: String,
}

impl ControllerLink {
    pub(crate) fn of(controller: &ControllerHead) -> Self {
        Self {
            href: format!("/controllers/{}/year", controller.id),
            name: controller.name.clone(),
            stations: Words.count("stations-count", usize::try_from(controller.stations).unwrap_or(0)),
        }
    }
}

#[derive(askama::Template)]
#[template(path = "places.html")]
pub(crate) struct PlacesTemplate {
    pub(crate) shell: Shell,
    pub(crate) places: Vec<PlaceRow>,
    pub(crate) total: usize,
    pub(crate) finder: Finder,
}

/// Rows of the list of places.
pub(crate) fn place_rows(
    places: &[Versioned<PlaceRecord>],
    controllers: &[ControllerHead],
    series: &[(Uuid, SeriesRecord)],
    units: Units,
) -> Vec<PlaceRow> {
    let w = Words;
    places
        .iter()
        .map(|place| {
            let p = &place.value;
            let weather = p.series_id.and_then(|id| series.iter().find(|(s, _)| *s == id));
            let (lat, lon) = (p.place.position.latitude_deg(), p.place.position.longitude_deg());
            PlaceRow {
                href: format!("/places/{}", place.id),
                name: p.place.name.clone(),
                position: w.with(
                    "place-position",
                    &[
                        ("lat", &Measure::Degrees.show(lat.abs(), units)),
                        ("ns", &w.t(if lat < 0.0 { "south" } else { "north" })),
                        ("lon", &Measure::Degrees.show(lon.abs(), units)),
                        ("ew", &w.t(if lon < 0.0 { "west" } else { "east" })),
                        ("z", &Measure::Height.show(p.place.position.elevation_m(), units)),
                    ],
                ),
                weather: weather.map_or_else(|| w.t("place-no-weather"), |(_, s)| s.name.clone()),
                weather_href: format!("/places/{}/weather", place.id),
                has_weather: weather.is_some(),
                controllers: controllers.iter().filter(|c| c.place_id == place.id).map(ControllerLink::of).collect(),
                new_controller: format!("/places/{}/controllers/new", place.id),
            }
        })
        .collect()
}
