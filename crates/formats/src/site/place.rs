use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::place::Place;

use super::rules::RulesDoc;
use super::tabled::Tabled;

/// What stands beside the field table of a stored place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlaceLinks {
    /// Version of the document.
    pub version: u32,
    /// Key of the weather that the place looks at.
    pub weather: Option<String>,
    /// Key of the weather whose rain counts, where that is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rain_weather: Option<String>,
    /// Keys of the weather that fills gaps, in order of preference.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub gap_weather: Vec<String>,
    /// Water rules.
    #[serde(default)]
    pub rules: RulesDoc,
}

/// A place as it is stored.
pub type PlaceDoc = Tabled<Place, PlaceLinks>;

/// What stands beside the field table of a place in a site file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteRules {
    /// Water rules.
    #[serde(default)]
    pub rules: RulesDoc,
}

/// A place of a site file.
pub type SitePlaceDoc = Tabled<Place, SiteRules>;
