//! Where a station stands, as a form.

use upland_core::place::Position;
use upland_core::quantity::{Range, range};

use crate::context::SeriesRecord;
use crate::form::Form;
use crate::show::{Measure, Units};

/// A station as it was typed.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Station {
    pub(crate) name: String,
    pub(crate) position: Position,
    /// Height of the wind sensor, m.
    pub(crate) wind_height_m: f64,
}

/// A number of a station: its field, what it measures, its range.
const FIELDS: [(&str, Measure, Range); 4] = [
    ("latitude", Measure::Degrees, range::LATITUDE),
    ("longitude", Measure::Degrees, range::LONGITUDE),
    ("elevation", Measure::Height, range::ELEVATION),
    ("wind_height", Measure::Height, range::WIND_HEIGHT),
];

fn values(series: &SeriesRecord) -> [f64; 4] {
    let at = &series.position;
    [at.latitude_deg(), at.longitude_deg(), at.elevation_m(), series.wind_height_m]
}

impl Station {
    /// Reads a form; errors stand beside their fields. A number that comes back as it was shown of `known` keeps
    /// its stored value.
    pub(crate) fn read(form: &mut Form, known: Option<&SeriesRecord>, units: Units) -> Option<Self> {
        let name = form.name("name");
        let stored = known.map(values);
        let mut read = [None; 4];
        for (at, (field, measure, allowed)) in FIELDS.into_iter().enumerate() {
            read[at] = form.kept(field, measure, allowed, units, stored.map(|s| s[at]));
        }
        let [latitude, longitude, elevation, wind_height] = read;
        let position = Position::new(latitude?, longitude?, elevation?).ok()?;
        Some(Self { name: name?, position, wind_height_m: wind_height? })
    }
}

/// Puts a station into its form, where nothing was typed yet.
pub(crate) fn fill_station(form: &mut Form, series: &SeriesRecord, units: Units) {
    if form.has("name") {
        return;
    }
    form.set("name", series.name.clone());
    for ((field, measure, _), value) in FIELDS.into_iter().zip(values(series)) {
        form.set(field, measure.typed(value, units));
    }
}
