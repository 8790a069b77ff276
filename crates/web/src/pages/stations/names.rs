//! Names of stations, and words of what is chosen for them or missing.

use upland_core::controller::Controller;
use upland_core::landscape::Plant;
use upland_core::word::{Word, plant_word};

use crate::context::Missing;
use crate::pages::field_form::choice_key;
use crate::words::Words;

/// The name of a station; its number where it is not known.
pub(crate) fn station_name(controller: &Controller, number: u8) -> String {
    controller.station(number).map_or_else(|| number.to_string(), |s| s.name.clone())
}

/// What a value of a closed set is called.
pub(crate) fn choice_name<W: Word>(value: W) -> String {
    Words.t(&choice_key(W::FIELD, value.word()))
}

/// What a plant is called.
pub(crate) fn plant_name(plant: Plant) -> String {
    Words.t(&choice_key("plant", plant_word(plant)))
}

/// What is missing before figures can be worked out; empty when nothing is.
pub(crate) fn missing_note(missing: Option<Missing>) -> String {
    let w = Words;
    match missing {
        None => String::new(),
        Some(Missing::Weather) => w.t("missing-weather"),
        Some(Missing::Stations) => w.t("missing-stations"),
    }
}
