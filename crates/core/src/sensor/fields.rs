//! The field table of a sensor. Which fields there are depends on its kind; the sheet of an ET sensor and the
//! readings of a calibration are lists of their own, beside the table; its id is given, not entered.

use crate::controller::{Contact, ProgramLetter};
use crate::field::{Field, Fields, Value};
use crate::quantity::{limit, range};

use super::et::{EtSetting, EtSheet};
use super::model::{Proof, Sensor, SensorKind};
use super::setting::{RainSetting, Vent};

/// A line of the table.
type F = Field<Sensor>;

impl SensorKind {
    /// The words of the kinds, in the order in which they are offered.
    pub const WORDS: [&'static str; 4] = ["rain", "freeze", "soil_moisture", "et"];

    /// The word of the kind in files and forms.
    #[must_use]
    pub const fn word(&self) -> &'static str {
        match self {
            Self::Rain { .. } => "rain",
            Self::Freeze { .. } => "freeze",
            Self::SoilMoisture { .. } => "soil_moisture",
            Self::Et { .. } => "et",
        }
    }

    /// A kind by its word, as it is commonly set.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Some(match word {
            "rain" => Self::common_rain(),
            "freeze" => Self::common_freeze(),
            "soil_moisture" => Self::SoilMoisture { readings: Vec::new(), threshold_pct: None },
            "et" => {
                let setting = EtSetting { sheet: EtSheet::example(), climate: 1, minutes_for: None, offset: 1 };
                Self::Et { setting, programs: Vec::new() }
            }
            _ => return None,
        })
    }
}

impl Fields for Sensor {
    const NOUN: &'static str = "sensor";

    const FIELDS: &'static [Field<Self>] = &[
        F::choice_of(
            "kind",
            || SensorKind::WORDS.to_vec(),
            |s| s.kind.word().to_owned().into(),
            |s, v| SensorKind::of_word(v.text()?).map(|kind| s.kind = kind),
        ),
        F::numbers(
            "thresholds_mm",
            range::RAIN_THRESHOLD,
            limit::SENSOR_SETTINGS,
            |s| match &s.kind {
                SensorKind::Rain { thresholds_mm, .. } => Value::list(thresholds_mm),
                _ => Value::Absent,
            },
            |s, v| match &mut s.kind {
                SensorKind::Rain { thresholds_mm, .. } => v.numbers().map(|list| *thresholds_mm = list.to_vec()),
                _ => None,
            },
        )
        .when(is_rain),
        F::number(
            "threshold_mm",
            range::RAIN_THRESHOLD,
            |s| rain(s).map(|r| r.threshold_mm).into(),
            |s, v| set_rain(s, |r| v.number().map(|mm| r.threshold_mm = mm)),
        )
        .when(is_rain),
        F::whole(
            "delay_days",
            range::RAIN_SENSOR_DELAY,
            |s| rain(s).map(|r| r.delay_days).into(),
            |s, v| set_rain(s, |r| v.whole().map(|days| r.delay_days = days)),
        )
        .when(is_rain),
        F::choice::<Vent>(
            "vent",
            |s| rain(s).map_or(Value::Absent, |r| Value::word(r.vent)),
            |s, v| set_rain(s, |r| v.of_word().map(|vent| r.vent = vent)),
        )
        .when(is_rain),
        F::number(
            "disc_capacity_mm",
            range::DISC_CAPACITY,
            |s| rain(s).map(|r| r.disc.capacity_mm).into(),
            |s, v| set_rain(s, |r| v.number().map(|mm| r.disc.capacity_mm = mm)),
        )
        .defaulted()
        .when(is_rain),
        F::number(
            "release_share",
            range::DISC_RELEASE,
            |s| rain(s).map(|r| r.disc.release_share).into(),
            |s, v| set_rain(s, |r| v.number().map(|share| r.disc.release_share = share)),
        )
        .defaulted()
        .when(is_rain),
        F::numbers(
            "thresholds_c",
            range::FREEZE_THRESHOLD,
            limit::SENSOR_SETTINGS,
            |s| match &s.kind {
                SensorKind::Freeze { thresholds_c, .. } => Value::list(thresholds_c),
                _ => Value::Absent,
            },
            |s, v| match &mut s.kind {
                SensorKind::Freeze { thresholds_c, .. } => v.numbers().map(|list| *thresholds_c = list.to_vec()),
                _ => None,
            },
        )
        .when(is_freeze),
        F::number(
            "threshold_c",
            range::FREEZE_THRESHOLD,
            |s| match s.kind {
                SensorKind::Freeze { threshold_c, .. } => threshold_c.into(),
                _ => Value::Absent,
            },
            |s, v| match &mut s.kind {
                SensorKind::Freeze { threshold_c, .. } => v.number().map(|c| *threshold_c = c),
                _ => None,
            },
        )
        .when(is_freeze),
        F::number(
            "threshold_pct",
            range::SOIL_READING,
            |s| match s.kind {
                SensorKind::SoilMoisture { threshold_pct, .. } => threshold_pct.into(),
                _ => Value::Absent,
            },
            |s, v| match &mut s.kind {
                SensorKind::SoilMoisture { threshold_pct, .. } => {
                    v.maybe(Value::number).map(|pct| *threshold_pct = pct)
                }
                _ => None,
            },
        )
        .optional()
        .when(|s| matches!(s.kind, SensorKind::SoilMoisture { .. })),
        F::whole(
            "climate",
            range::POSITION,
            |s| et(s).map(|e| e.climate).into(),
            |s, v| set_et(s, |e| v.whole().map(|position| e.climate = position)),
        )
        .when(is_et),
        F::whole(
            "minutes_for",
            range::POSITION,
            |s| et(s).and_then(|e| e.minutes_for).into(),
            |s, v| set_et(s, |e| v.maybe(Value::whole).map(|position| e.minutes_for = position)),
        )
        .optional()
        .when(is_et),
        F::whole(
            "offset",
            range::POSITION,
            |s| et(s).map(|e| e.offset).into(),
            |s, v| set_et(s, |e| v.whole().map(|position| e.offset = position)),
        )
        .when(is_et),
        F::choices::<ProgramLetter>(
            "programs",
            |s| match &s.kind {
                SensorKind::Et { programs, .. } => Value::words(programs),
                _ => Value::Absent,
            },
            |s, v| match &mut s.kind {
                SensorKind::Et { programs, .. } => v.of_words().map(|letters| *programs = letters),
                _ => None,
            },
        )
        .when(is_et),
        F::text(
            "place",
            1,
            limit::NAME,
            |s| s.place.clone().into(),
            |s, v| v.text().map(|place| s.place = place.to_owned()),
        ),
        F::text(
            "battery",
            0,
            limit::NAME,
            |s| s.battery.clone().into(),
            |s, v| v.text().map(|battery| s.battery = battery.to_owned()),
        )
        .defaulted(),
        F::date("battery_on", |s| s.battery_on.into(), |s, v| v.maybe(Value::date).map(|day| s.battery_on = day))
            .optional(),
        F::choice::<Contact>(
            "contact",
            |s| Value::word(s.contact),
            |s, v| v.of_word().map(|contact| s.contact = contact),
        ),
        F::flag("jumper_removed", |s| s.jumper_removed.into(), |s, v| v.flag().map(|flag| s.jumper_removed = flag)),
        F::whole("input", range::SENSOR_INPUT, |s| s.input.into(), |s, v| v.whole().map(|input| s.input = input)),
        F::wholes(
            "exempt",
            range::STATION_NUMBER,
            range::STATION_NUMBER.max as usize,
            |s| Value::list(&s.exempt),
            |s, v| v.wholes().map(|stations| s.exempt = stations),
        )
        .defaulted(),
        F::date(
            "proven_on",
            |s| s.proven.as_ref().map(|p| p.on).into(),
            |s, v| {
                let how = s.proven.take().map(|p| p.how).unwrap_or_default();
                v.maybe(Value::date).map(|day| s.proven = day.map(|on| Proof { on, how }))
            },
        )
        .optional(),
        F::text(
            "proven_how",
            0,
            limit::NAME,
            |s| s.proven.as_ref().map(|p| p.how.clone()).into(),
            |s, v| v.text().zip(s.proven.as_mut()).map(|(how, proof)| proof.how = how.to_owned()),
        )
        .when(|s| s.proven.is_some()),
    ];

    fn blank() -> Self {
        Self {
            id: 0,
            kind: SensorKind::common_rain(),
            place: String::new(),
            battery: String::new(),
            battery_on: None,
            contact: Contact::NormallyClosed,
            jumper_removed: false,
            input: 1,
            exempt: Vec::new(),
            proven: None,
        }
    }
}

const fn rain(s: &Sensor) -> Option<&RainSetting> {
    match &s.kind {
        SensorKind::Rain { setting, .. } => Some(setting),
        _ => None,
    }
}

fn set_rain(s: &mut Sensor, set: impl FnOnce(&mut RainSetting) -> Option<()>) -> Option<()> {
    match &mut s.kind {
        SensorKind::Rain { setting, .. } => set(setting),
        _ => None,
    }
}

const fn et(s: &Sensor) -> Option<&EtSetting> {
    match &s.kind {
        SensorKind::Et { setting, .. } => Some(setting),
        _ => None,
    }
}

fn set_et(s: &mut Sensor, set: impl FnOnce(&mut EtSetting) -> Option<()>) -> Option<()> {
    match &mut s.kind {
        SensorKind::Et { setting, .. } => set(setting),
        _ => None,
    }
}

const fn is_rain(s: &Sensor) -> bool {
    rain(s).is_some()
}

const fn is_freeze(s: &Sensor) -> bool {
    matches!(s.kind, SensorKind::Freeze { .. })
}

const fn is_et(s: &Sensor) -> bool {
    et(s).is_some()
}

#[cfg(test)]
mod tests {
    use chrono::NaiveDate;

    use super::*;
    use crate::field::Kind;

    #[test]
    fn every_kind_is_named_and_keeps_what_its_fields_are_given() {
        for word in SensorKind::WORDS {
            let mut s = Sensor { kind: SensorKind::of_word(word).unwrap(), ..Sensor::blank() };
            assert_eq!(s.kind.word(), word);
            for field in Sensor::FIELDS.iter().filter(|f| f.name != "kind") {
                if !(field.applies)(&s) {
                    continue;
                }
                let value = match field.kind {
                    Kind::Number { range, .. } => Value::Number(range.held(5.0).round().max(range.min)),
                    Kind::Numbers { .. } => Value::Numbers(vec![2.0, 5.0]),
                    Kind::Choice(words) => words()[0].to_owned().into(),
                    Kind::Choices(words) => Value::Texts(vec![words()[1].to_owned()]),
                    Kind::Text { .. } => "post".to_owned().into(),
                    Kind::Flag => true.into(),
                    Kind::Date => NaiveDate::from_ymd_opt(2026, 6, 11).unwrap().into(),
                    Kind::Time | Kind::Zone | Kind::Months(_) => unreachable!("{}", field.name),
                };
                field.put(&mut s, value.clone()).unwrap();
                assert_eq!((field.get)(&s), value, "{word}: {}", field.name);
            }
        }
    }

    #[test]
    fn a_test_that_is_taken_back_takes_its_how_with_it() {
        let day = NaiveDate::from_ymd_opt(2026, 6, 11).unwrap();
        let mut s = Sensor { proven: Some(Proof { on: day, how: "water".into() }), ..Sensor::blank() };
        let field = |name| Sensor::field(name).unwrap();
        field("proven_on").put(&mut s, day.succ_opt().unwrap().into()).unwrap();
        assert_eq!(s.proven.as_ref().unwrap().how, "water", "another day of the same test");
        field("proven_on").put(&mut s, Value::Absent).unwrap();
        assert_eq!(s.proven, None);
        assert!(!(field("proven_how").applies)(&s));
    }
}
