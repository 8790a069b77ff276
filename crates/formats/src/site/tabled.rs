//! A thing with a field table as a JSON object: written, read and described by the table alone.

use std::borrow::Cow;
use std::fmt;
use std::marker::PhantomData;

use schemars::{JsonSchema, Schema, SchemaGenerator};
use serde::de::{DeserializeSeed, Deserializer, Error as _, MapAccess, Visitor};
use serde::ser::{SerializeMap, Serializer};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value as Json, json};
use upland_core::field::{Field, Fields, Kind, Presence, Value};

/// A thing with a field table, as files hold it: one member a field, by the field's name.
///
/// Values are checked against the table while they are read, so that an error names its line and
/// its path. Members that are not in the table are refused.
#[derive(Debug, Clone, PartialEq)]
pub struct Tabled<T>(pub T);

/// A value as JSON writes it: whole numbers without a decimal point.
struct Written<'a>(&'a Value, bool);

impl Serialize for Written<'_> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match self.0 {
            Value::Absent => serializer.serialize_none(),
            Value::Flag(flag) => serializer.serialize_bool(*flag),
            // Whole fields hold counts and seconds, none of them near 2^53.
            Value::Number(number) if self.1 => serializer.serialize_i64(*number as i64),
            Value::Number(number) => serializer.serialize_f64(*number),
            Value::Text(text) => serializer.serialize_str(text),
            Value::Numbers(numbers) => serializer.collect_seq(numbers),
        }
    }
}

impl<T: Fields> Serialize for Tabled<T> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let mut map = serializer.serialize_map(None)?;
        for field in T::FIELDS.iter().filter(|f| (f.applies)(&self.0)) {
            let value = (field.get)(&self.0);
            if value != Value::Absent {
                map.serialize_entry(
                    field.name,
                    &Written(&value, matches!(field.kind, Kind::Number { whole: true, .. })),
                )?;
            }
        }
        map.end()
    }
}

/// Reads a value of any kind and checks it against a field.
struct FieldSeed<T: 'static>(&'static Field<T>);

impl<'de, T> DeserializeSeed<'de> for FieldSeed<T> {
    type Value = Value;

    fn deserialize<D: Deserializer<'de>>(self, deserializer: D) -> Result<Value, D::Error> {
        let value = match Json::deserialize(deserializer)? {
            Json::Null => Value::Absent,
            Json::Bool(flag) => Value::Flag(flag),
            Json::Number(number) => number.as_f64().map_or(Value::Absent, Value::Number),
            Json::String(text) => Value::Text(text),
            Json::Array(list) if matches!(self.0.kind, Kind::Months(_)) => {
                let number = |json: &Json| json.as_f64().ok_or_else(|| D::Error::custom("a number is expected"));
                Value::Numbers(list.iter().map(number).collect::<Result<_, _>>()?)
            }
            Json::Array(_) | Json::Object(_) => return Err(D::Error::custom("a single value is expected")),
        };
        let value = value.trimmed();
        // A field that does not apply to this thing may be null; which one applies is known at the end.
        if value != Value::Absent {
            self.0.check(&value).map_err(D::Error::custom)?;
        }
        Ok(value)
    }
}

struct TabledVisitor<T>(PhantomData<T>);

impl<'de, T: Fields> Visitor<'de> for TabledVisitor<T> {
    type Value = Tabled<T>;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "a {}", T::NOUN)
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Tabled<T>, A::Error> {
        let mut given: Vec<(&'static str, Value)> = Vec::new();
        while let Some(key) = map.next_key::<Cow<'de, str>>()? {
            let Some(field) = T::field(&key) else {
                return Err(A::Error::custom(format!("unknown field `{key}`")));
            };
            if given.iter().any(|(name, _)| *name == field.name) {
                return Err(A::Error::custom(format!("duplicate field `{key}`")));
            }
            given.push((field.name, map.next_value_seed(FieldSeed(field))?));
        }
        let mut thing = T::blank();
        for field in T::FIELDS {
            let at = given.iter().position(|(name, _)| *name == field.name);
            let value = at.map_or(Value::Absent, |i| given.swap_remove(i).1);
            let problem = |error| A::Error::custom(format!("{}: {error}", field.name));
            match (value, field.presence) {
                (Value::Absent, Presence::Defaulted) => {}
                (Value::Absent, _) if !(field.applies)(&thing) => {}
                (value, _) if (field.applies)(&thing) => field.put(&mut thing, value).map_err(problem)?,
                _ => return Err(A::Error::custom(format!("{}: does not apply to this {}", field.name, T::NOUN))),
            }
        }
        Ok(Tabled(thing))
    }
}

impl<'de, T: Fields> Deserialize<'de> for Tabled<T> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        deserializer.deserialize_map(TabledVisitor(PhantomData))
    }
}

impl<T: Fields> JsonSchema for Tabled<T> {
    fn schema_name() -> Cow<'static, str> {
        Cow::Borrowed(T::NOUN)
    }

    fn json_schema(_: &mut SchemaGenerator) -> Schema {
        let blank = T::blank();
        let mut properties = Map::new();
        let mut required = Vec::new();
        for field in T::FIELDS {
            properties.insert(field.name.to_owned(), property(field, &blank));
            if field.presence == Presence::Needed && (field.applies)(&blank) {
                required.push(json!(field.name));
            }
        }
        schemars::json_schema!({
            "type": "object",
            "properties": properties,
            "required": required,
            "additionalProperties": false,
        })
    }
}

/// What a member may hold, as JSON Schema.
fn property<T: Fields>(field: &Field<T>, blank: &T) -> Json {
    let nullable = field.presence != Presence::Needed || !(field.applies)(blank);
    let types = |name: &str| if nullable { json!([name, "null"]) } else { json!(name) };
    let mut schema = match field.kind {
        Kind::Number { range, whole } => {
            let mut schema = json!({
                "type": types(if whole { "integer" } else { "number" }),
                "minimum": range.min,
                "maximum": range.max,
            });
            if !range.unit.is_empty() {
                schema["description"] = json!(format!("Unit: {}.", range.unit));
            }
            schema
        }
        Kind::Choice(words) => {
            let mut allowed: Vec<Json> = words().into_iter().map(Json::from).collect();
            if nullable {
                allowed.push(Json::Null);
            }
            json!({ "enum": allowed })
        }
        Kind::Text { min, max } => json!({ "type": types("string"), "minLength": min, "maxLength": max }),
        Kind::Flag => json!({ "type": types("boolean") }),
        Kind::Months(range) => json!({
            "type": types("array"),
            "items": { "type": "number", "minimum": range.min, "maximum": range.max },
            "minItems": 12,
            "maxItems": 12,
            "description": "The twelve months, January first.",
        }),
    };
    if field.presence == Presence::Defaulted {
        let default = (field.get)(blank);
        let whole = matches!(field.kind, Kind::Number { whole: true, .. });
        schema["default"] = serde_json::to_value(Written(&default, whole)).unwrap_or(Json::Null);
    }
    schema
}

#[cfg(test)]
mod tests {
    use upland_core::controller::{Capability, Preset, Station};

    use super::*;

    fn read(json: Json) -> Result<Station, String> {
        serde_json::from_value::<Tabled<Station>>(json).map(|t| t.0).map_err(|e| e.to_string())
    }

    fn lawn() -> Json {
        json!({"number": 3, "name": " Lawn ", "program": "B", "plant": "cool_turf", "sprinkler": "spray",
               "soil": "clay", "exposure": "open", "roofed": false})
    }

    fn with(key: &str, value: Json) -> Json {
        let mut json = lawn();
        json[key] = value;
        json
    }

    #[test]
    fn what_is_written_reads_back_the_same() {
        let station = read(with("rate_mm_h", json!(31.75))).unwrap();
        assert_eq!((station.name.as_str(), station.number), ("Lawn", 3));
        let again = serde_json::to_value(Tabled(station.clone())).unwrap();
        assert_eq!(again["number"], json!(3), "a whole number is written without a point");
        assert_eq!(read(again).unwrap(), station);
        for preset in Preset::ALL {
            let json = serde_json::to_value(Tabled(preset.capability())).unwrap();
            assert_eq!(serde_json::from_value::<Tabled<Capability>>(json).unwrap().0, preset.capability());
        }
    }

    #[test]
    fn what_is_not_allowed_is_refused_by_name() {
        assert!(read(with("rate_mm_h", json!(900))).unwrap_err().contains("1 to 150 mm/h"));
        assert!(read(with("colour", json!("blue"))).unwrap_err().contains("unknown field `colour`"));
        assert!(read(with("soil", json!("peat"))).unwrap_err().contains("sandy_loam, loam, silt_loam"));
        assert!(read(with("soil", Json::Null)).unwrap_err().contains("soil: a value is needed"));
        assert!(read(with("number", json!(1.5))).unwrap_err().contains("not a whole number"));
        assert!(read(with("plant", json!("coefficient"))).unwrap_err().contains("coefficient: a value is needed"));
        assert!(read(with("coefficient", json!(0.4))).unwrap_err().contains("does not apply"));
        assert!(read(with("name", json!(["a"]))).unwrap_err().contains("single value"));
    }

    #[test]
    fn the_schema_has_the_limits_of_the_table() {
        let schema = schemars::schema_for!(Tabled<Station>).to_value();
        let of = |name: &str| &schema["properties"][name];
        assert_eq!(
            (of("rate_mm_h")["minimum"].as_f64(), of("rate_mm_h")["maximum"].as_f64()),
            (Some(1.0), Some(150.0))
        );
        assert_eq!(of("name")["maxLength"], json!(60));
        assert_eq!(of("slope")["default"], json!("level"));
        assert!(schema["required"].as_array().unwrap().contains(&json!("plant")));
    }
}
