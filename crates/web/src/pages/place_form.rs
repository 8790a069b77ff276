use std::sync::LazyLock;

use crate::context::PlaceRecord;
use upland_core::field::Fields;
use upland_core::place::Place;
use upland_core::quantity::{Range, range};

use super::shell::Shell;
use super::spine::Spine;
use super::{Choice, field_form};
use crate::form::{Form, new_key, parse_number};
use crate::show::Units;
use crate::typed_position::{both, degrees};
use crate::words::Words;

/// A new place, or one that is changed.
#[derive(askama::Template)]
#[template(path = "place_form.html")]
pub(crate) struct PlaceFormTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) post_to: String,
    pub(crate) is_new: bool,
    pub(crate) height_unit: &'static str,
    pub(crate) zones: Vec<String>,
    pub(crate) units: Vec<Choice>,
    pub(crate) controllers: Vec<super::places::ControllerLink>,
    pub(crate) weather_href: String,
    pub(crate) new_controller: String,
    pub(crate) spine: Option<Spine>,
}

/// Every time zone's name.
pub(crate) fn zones() -> Vec<String> {
    chrono_tz::TZ_VARIANTS.iter().map(|z| z.name().to_owned()).collect()
}

/// The two systems of units.
pub(crate) fn unit_choices() -> Vec<Choice> {
    vec![Choice::new("metric", Words.t("units-metric")), Choice::new("us", Words.t("units-us"))]
}

/// The fields of a form and those of the table that they enter.
const ENTERED: [(&str, &str); 6] = [
    ("name", "name"),
    ("house_number", "house_number"),
    ("latitude", "latitude"),
    ("longitude", "longitude"),
    ("elevation", "elevation_m"),
    ("time_zone", "time_zone"),
];

/// The form of a saved place.
pub(crate) fn filled(place: &PlaceRecord, version: i32, units: Units) -> Form {
    let mut form = empty(units);
    form.set("version", version.to_string());
    field_form::fill(&mut form, &ENTERED, &place.place, units);
    form.set("latitude", plain(place.place.position.latitude_deg()));
    form.set("longitude", plain(place.place.position.longitude_deg()));
    form
}

/// The form of a new place.
pub(crate) fn empty(units: Units) -> Form {
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", "0");
    form.set("units", units.word());
    form
}

/// Degrees as they were entered, without a float's tail.
fn plain(degrees: f64) -> String {
    let text = format!("{degrees:.6}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

/// Degrees, minutes and seconds become decimal degrees; a whole position pasted into the latitude
/// fills both fields.
fn read_pasted(form: &mut Form) {
    if let Some((latitude, longitude)) = both(form.get("latitude")).filter(|_| form.get("longitude").is_empty()) {
        form.set("latitude", plain(latitude));
        form.set("longitude", plain(longitude));
        return;
    }
    for field in ["latitude", "longitude"] {
        if let Some(value) = degrees(form.get(field)) {
            form.set(field, plain(value));
        }
    }
}

/// The time zone at a position. Source: the boundaries of the IANA zones, as the package tzf-rs carries them.
fn zone_at(latitude: f64, longitude: f64) -> String {
    static ZONES: LazyLock<tzf_rs::DefaultFinder> = LazyLock::new(tzf_rs::DefaultFinder::new);
    ZONES.get_tz_name(longitude, latitude).to_owned()
}

/// Reads the form; errors stand beside their fields when there is no place.
pub(crate) fn read(form: &mut Form, units: Units, before: Option<&PlaceRecord>) -> Option<PlaceRecord> {
    read_pasted(form);
    let typed = |form: &Form, field: &str, range: Range| parse_number(form.get(field)).filter(|deg| range.holds(*deg));
    if form.get("time_zone").is_empty()
        && let Some(latitude) = typed(form, "latitude", range::LATITUDE)
        && let Some(longitude) = typed(form, "longitude", range::LONGITUDE)
    {
        // The zone follows from the position until somebody picks another.
        form.set("time_zone", zone_at(latitude, longitude));
    }
    // A height shown in feet and not touched stays what it was.
    let mut place = before.map_or_else(Place::blank, |before| before.place.clone());
    field_form::read_all(form, &ENTERED, &mut place, units);
    form.is_sound().then(|| PlaceRecord {
        place,
        series_id: before.and_then(|b| b.series_id),
        further: before.map(|b| b.further.clone()).unwrap_or_default(),
        rules: before.map(|b| b.rules.clone()).unwrap_or_default(),
    })
}
