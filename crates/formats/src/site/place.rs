use serde::{Deserialize, Serialize};
use upland_core::place::Position;
use upland_core::quantity::OutOfRange;

/// A place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlaceDoc {
    /// Version of the document.
    pub version: u32,
    /// Name of the place.
    pub name: String,
    /// House number, for rules that go by it; may be empty.
    pub house_number: String,
    /// Latitude, degrees, north positive.
    pub latitude: f64,
    /// Longitude, degrees, east positive.
    pub longitude: f64,
    /// Elevation, m.
    pub elevation_m: f64,
    /// IANA time zone.
    pub time_zone: String,
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
    pub rules: super::RulesDoc,
}

impl PlaceDoc {
    /// The position.
    ///
    /// # Errors
    /// [`OutOfRange`] where it cannot be.
    pub fn position(&self) -> Result<Position, OutOfRange> {
        Position::new(self.latitude, self.longitude, self.elevation_m)
    }
}
