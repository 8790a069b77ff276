//! Names of stations, and keys of the words for plants, sprinklers, soils and sun.

use upland_core::controller::Controller;
use upland_core::landscape::{Plant, Slope, Soil, SprinklerType, Sun};

/// The name of a station; its number where it is not known.
pub(crate) fn station_name(controller: &Controller, number: u8) -> String {
    controller.station(number).map_or_else(|| number.to_string(), |s| s.name.clone())
}

pub(crate) const fn plant_key(plant: Plant) -> &'static str {
    match plant {
        Plant::CoolTurf => "plant-cool-turf",
        Plant::WarmTurf => "plant-warm-turf",
        Plant::Shrubs => "plant-shrubs",
        Plant::Annuals => "plant-annuals",
        Plant::Trees => "plant-trees",
        Plant::Natives => "plant-natives",
        Plant::Coefficient(_) => "plant-coefficient",
    }
}

pub(crate) const fn sprinkler_key(kind: SprinklerType) -> &'static str {
    match kind {
        SprinklerType::Spray => "sprinkler-spray",
        SprinklerType::Rotor => "sprinkler-rotor",
        SprinklerType::RotaryNozzle => "sprinkler-rotary",
        SprinklerType::Drip => "sprinkler-drip",
    }
}

pub(crate) const fn soil_key(soil: Soil) -> &'static str {
    match soil {
        Soil::Clay => "soil-clay",
        Soil::Loam => "soil-loam",
        Soil::Sand => "soil-sand",
    }
}

pub(crate) const fn sun_key(sun: Sun) -> &'static str {
    match sun {
        Sun::Open => "sun-open",
        Sun::QuarterShade => "sun-quarter",
        Sun::HalfShade => "sun-half",
        Sun::ReflectedHeat => "sun-reflected",
    }
}

pub(crate) const fn slope_key(slope: Slope) -> &'static str {
    match slope {
        Slope::Level => "slope-level",
        Slope::Gentle => "slope-gentle",
        Slope::Moderate => "slope-moderate",
        Slope::Steep => "slope-steep",
    }
}
