//! Names of stations, and words of what is chosen for them.

use upland_core::controller::Controller;
use upland_core::landscape::Plant;
use upland_core::word::{Word, plant_word};

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
