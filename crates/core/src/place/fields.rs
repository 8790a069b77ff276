//! A place and the field table of it: what is entered beside its weather and its rules.

use chrono_tz::Tz;

use super::Position;
use crate::field::{Field, Fields};
use crate::quantity::{limit, range};

/// A place that is looked after.
#[derive(Debug, Clone, PartialEq)]
pub struct Place {
    /// What it is called.
    pub name: String,
    /// House number, for rules that go by it; may be empty.
    pub house_number: String,
    /// Where it is.
    pub position: Position,
    /// The zone of its clock, of the IANA list.
    pub zone: Tz,
}

/// A line of the table.
type F = Field<Place>;

impl Fields for Place {
    const NOUN: &'static str = "place";

    const FIELDS: &'static [Field<Self>] = &[
        F::text(
            "name",
            1,
            limit::NAME,
            |p| p.name.clone().into(),
            |p, v| v.text().map(|name| p.name = name.to_owned()),
        ),
        F::text(
            "house_number",
            0,
            limit::HOUSE_NUMBER,
            |p| p.house_number.clone().into(),
            |p, v| v.text().map(|number| p.house_number = number.to_owned()),
        )
        .defaulted(),
        F::number(
            "latitude",
            range::LATITUDE,
            |p| p.position.latitude_deg().into(),
            |p, v| v.number().and_then(|deg| p.position.put([Some(deg), None, None])),
        ),
        F::number(
            "longitude",
            range::LONGITUDE,
            |p| p.position.longitude_deg().into(),
            |p, v| v.number().and_then(|deg| p.position.put([None, Some(deg), None])),
        ),
        F::number(
            "elevation_m",
            range::ELEVATION,
            |p| p.position.elevation_m().into(),
            |p, v| v.number().and_then(|m| p.position.put([None, None, Some(m)])),
        ),
        F::zone(
            "time_zone",
            |p| p.zone.name().to_owned().into(),
            |p, v| v.text()?.parse().ok().map(|zone| p.zone = zone),
        ),
    ];

    fn blank() -> Self {
        Self { name: String::new(), house_number: String::new(), position: Position::ORIGIN, zone: Tz::UTC }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::field::{FieldError, Value};

    #[test]
    fn a_place_is_somewhere_on_the_earth_in_a_zone_of_the_list() {
        let mut place = Place::blank();
        let mut put = |name: &str, value: Value| Place::field(name).unwrap().put(&mut place, value);
        assert_eq!(put("latitude", 47.5.into()), Ok(()));
        assert_eq!(put("longitude", (-122.25).into()), Ok(()));
        assert!(matches!(put("latitude", 95.0.into()), Err(FieldError::OutOfRange(_))));
        assert_eq!(put("time_zone", "Europe/Vienna".to_owned().into()), Ok(()));
        assert_eq!(put("time_zone", "Moon/Base".to_owned().into()), Err(FieldError::Zone("Moon/Base".into())));
        assert_eq!(place.position, Position::new(47.5, -122.25, 0.0).unwrap());
        assert_eq!(place.zone, Tz::Europe__Vienna);
    }
}
