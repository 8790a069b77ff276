use std::sync::LazyLock;

use crate::context::PlaceRecord;
use upland_core::place::Position;
use upland_core::quantity::range;

use super::Choice;
use super::shell::Shell;
use super::spine::Spine;
use crate::form::{Form, new_key};
use crate::show::{Measure, Units};
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

/// The form of a saved place.
pub(crate) fn filled(place: &PlaceRecord, version: i32, units: Units) -> Form {
    let mut form = empty(units);
    form.set("version", version.to_string());
    form.set("name", &place.name);
    form.set("house_number", &place.house_number);
    form.set("latitude", plain(place.position.latitude_deg()));
    form.set("longitude", plain(place.position.longitude_deg()));
    form.set("elevation", Measure::Height.typed(place.position.elevation_m(), units));
    form.set("time_zone", &place.time_zone);
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
    let name = form.name("name");
    let house_number = form.get("house_number").to_owned();
    if house_number.chars().count() > 12 {
        form.fail("house_number", Words.t("place-house-number-long"));
    }
    read_pasted(form);
    let latitude = form.needed("latitude", Measure::Degrees, range::LATITUDE, units);
    let longitude = form.needed("longitude", Measure::Degrees, range::LONGITUDE, units);
    let elevation = form.needed("elevation", Measure::Height, range::ELEVATION, units);
    // A height shown in feet and not touched stays what it was.
    let untouched =
        before.map(|b| b.position.elevation_m()).filter(|m| Measure::Height.typed(*m, units) == form.get("elevation"));
    if form.get("time_zone").is_empty()
        && let (Some(latitude), Some(longitude)) = (latitude, longitude)
    {
        // The zone follows from the position until somebody picks another.
        form.set("time_zone", zone_at(latitude, longitude));
    }
    let time_zone = form.get("time_zone").to_owned();
    if time_zone.parse::<chrono_tz::Tz>().is_err() {
        form.fail("time_zone", Words.t("place-time-zone-unknown"));
    }
    if !form.is_sound() {
        return None;
    }
    let position = Position::new(latitude?, longitude?, untouched.or(elevation)?).ok()?;
    Some(PlaceRecord {
        name: name?,
        house_number,
        position,
        time_zone,
        series_id: before.and_then(|b| b.series_id),
        further: before.map(|b| b.further.clone()).unwrap_or_default(),
        rules: before.map(|b| b.rules.clone()).unwrap_or_default(),
    })
}
