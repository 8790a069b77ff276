//! A thing with a field table as a JSON object: written, read and described by the table alone.

use std::borrow::Cow;
use std::fmt;
use std::marker::PhantomData;

use chrono::NaiveDate;
use schemars::{JsonSchema, Schema, SchemaGenerator};
use serde::de::{DeserializeOwned, DeserializeSeed, Deserializer, Error as _, MapAccess, Visitor};
use serde::ser::{Error as _, SerializeMap, Serializer};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value as Json, json};
use upland_core::controller::StartTime;
use upland_core::field::{Field, Fields, Kind, Presence, Value};
use upland_core::quantity::Range;

/// A thing with a field table, as files hold it: one member a field, by the field's name.
///
/// Values are checked against the table while they are read, so that an error names its line and
/// its path. What a table does not hold, as lists of things, stands beside it in a document of its
/// own, whose members are in the same object. Members of neither are refused.
#[derive(Debug, Clone, PartialEq)]
pub struct Tabled<T, B = Nothing>(pub T, pub B);

/// Nothing stands beside the table.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Nothing {}

impl<T> Tabled<T> {
    /// A thing whose table holds all of it.
    #[must_use]
    pub const fn of(thing: T) -> Self {
        Self(thing, Nothing {})
    }
}

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
            Value::Numbers(numbers) if self.1 => serializer.collect_seq(numbers.iter().map(|n| *n as i64)),
            Value::Numbers(numbers) => serializer.collect_seq(numbers),
            Value::Texts(texts) => serializer.collect_seq(texts),
            Value::Date(date) => serializer.collect_str(date),
            Value::Time(time) => serializer.collect_str(time),
        }
    }
}

/// Whether the numbers of a kind have no fraction.
const fn is_whole(kind: &Kind) -> bool {
    matches!(kind, Kind::Number { whole: true, .. } | Kind::Numbers { whole: true, .. })
}

impl<T: Fields, B: Serialize> Serialize for Tabled<T, B> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let beside = serde_json::to_value(&self.1).map_err(S::Error::custom)?;
        let mut map = serializer.serialize_map(None)?;
        for (name, value) in beside.as_object().into_iter().flatten() {
            map.serialize_entry(name, value)?;
        }
        for field in T::FIELDS.iter().filter(|f| (f.applies)(&self.0)) {
            let value = (field.get)(&self.0);
            if value != Value::Absent {
                map.serialize_entry(field.name, &Written(&value, is_whole(&field.kind)))?;
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
            Json::String(text) => match self.0.kind {
                Kind::Date => {
                    let date = NaiveDate::parse_from_str(&text, "%Y-%m-%d");
                    Value::Date(date.map_err(|_| D::Error::custom("a date is expected, as in 2026-06-11"))?)
                }
                Kind::Time => {
                    let time = StartTime::read(&text);
                    Value::Time(time.ok_or_else(|| D::Error::custom("a time of day is expected, as in 04:30"))?)
                }
                _ => Value::Text(text),
            },
            Json::Array(list) if matches!(self.0.kind, Kind::Months(_) | Kind::Numbers { .. }) => {
                let number = |json: &Json| json.as_f64().ok_or_else(|| D::Error::custom("a number is expected"));
                Value::Numbers(list.iter().map(number).collect::<Result<_, _>>()?)
            }
            Json::Array(list) if matches!(self.0.kind, Kind::Choices(_)) => {
                let text = |json: Json| match json {
                    Json::String(text) => Ok(text),
                    _ => Err(D::Error::custom("a word is expected")),
                };
                Value::Texts(list.into_iter().map(text).collect::<Result<_, _>>()?)
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

struct TabledVisitor<T, B>(PhantomData<(T, B)>);

impl<'de, T: Fields, B: DeserializeOwned> Visitor<'de> for TabledVisitor<T, B> {
    type Value = Tabled<T, B>;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "a {}", T::NOUN)
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Tabled<T, B>, A::Error> {
        let mut given: Vec<(&'static str, Value)> = Vec::new();
        let mut beside = Map::new();
        while let Some(key) = map.next_key::<Cow<'de, str>>()? {
            let Some(field) = T::field(&key) else {
                if beside.insert(key.to_string(), map.next_value()?).is_some() {
                    return Err(A::Error::custom(format!("duplicate field `{key}`")));
                }
                continue;
            };
            if given.iter().any(|(name, _)| *name == field.name) {
                return Err(A::Error::custom(format!("duplicate field `{key}`")));
            }
            given.push((field.name, map.next_value_seed(FieldSeed(field))?));
        }
        // First, so that a misspelt member is named, and not the one that it leaves missing. The path is that
        // within what stands beside the table; the reader of the file knows the one that leads here.
        let beside = serde_path_to_error::deserialize(Json::Object(beside)).map_err(|error| {
            let path = error.path().to_string();
            let path = if path == "." { String::new() } else { format!("{path}: ") };
            A::Error::custom(format!("{path}{}", error.inner()))
        })?;
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
        Ok(Tabled(thing, beside))
    }
}

impl<'de, T: Fields, B: DeserializeOwned> Deserialize<'de> for Tabled<T, B> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        deserializer.deserialize_map(TabledVisitor(PhantomData))
    }
}

impl<T: Fields, B: JsonSchema> JsonSchema for Tabled<T, B> {
    fn schema_name() -> Cow<'static, str> {
        Cow::Borrowed(T::NOUN)
    }

    fn json_schema(generator: &mut SchemaGenerator) -> Schema {
        let blank = T::blank();
        let beside = B::json_schema(generator).to_value();
        let mut properties = beside["properties"].as_object().cloned().unwrap_or_default();
        let mut required = beside["required"].as_array().cloned().unwrap_or_default();
        for field in T::FIELDS {
            properties.insert(field.name.to_owned(), property(field, &blank));
            if field.presence == Presence::Needed && !field.conditional {
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
    let nullable = field.presence != Presence::Needed || field.conditional;
    let types = |name: &str| if nullable { json!([name, "null"]) } else { json!(name) };
    let mut schema = match field.kind {
        Kind::Number { range, whole } => number(range, whole, types),
        Kind::Numbers { range, whole, max } => json!({
            "type": types("array"),
            "items": number(range, whole, |name| json!(name)),
            "maxItems": max,
        }),
        Kind::Choices(words) => json!({ "type": types("array"), "items": { "enum": words() } }),
        Kind::Zone => json!({ "type": types("string"), "description": "A time zone of the IANA list." }),
        // Years 1900 to 2200.
        Kind::Date => json!({
            "type": types("string"),
            "format": "date",
            "pattern": "^(19[0-9]{2}|2[01][0-9]{2}|2200)-[01][0-9]-[0-3][0-9]$",
        }),
        Kind::Time => json!({ "type": types("string"), "pattern": "^[0-2]?[0-9]:[0-5][0-9]$" }),
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
        schema["default"] = serde_json::to_value(Written(&default, is_whole(&field.kind))).unwrap_or(Json::Null);
    }
    schema
}

/// A number of a range, as JSON Schema.
fn number(range: Range, whole: bool, types: impl Fn(&str) -> Json) -> Json {
    let name = if whole { "integer" } else { "number" };
    let mut schema = json!({ "type": types(name), "minimum": range.min, "maximum": range.max });
    if !range.unit.is_empty() {
        schema["description"] = json!(format!("Unit: {}.", range.unit));
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
        let again = serde_json::to_value(Tabled::of(station.clone())).unwrap();
        assert_eq!(again["number"], json!(3), "a whole number is written without a point");
        assert_eq!(read(again).unwrap(), station);
        for preset in Preset::ALL {
            let json = serde_json::to_value(Tabled::of(preset.capability())).unwrap();
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
