//! The field table of a station.

use super::letter::ProgramLetter;
use super::station::{Station, coefficients};
use crate::field::{Field, Fields, Value};
use crate::landscape::{CycleSoak, Density, Exposure, Maturity, Plant, Slope, Soil, SprinklerType, WaterNeed};
use crate::quantity::{Coefficient, RateMmPerHour, RunTime, limit, range};
use crate::word::{growing_plant_words, plant_of, plant_word, plant_words};

/// A line of the table.
type F = Field<Station>;

impl Fields for Station {
    const NOUN: &'static str = "station";

    const FIELDS: &'static [Field<Self>] = &[
        F::whole(
            "number",
            range::STATION_NUMBER,
            |s| s.number.into(),
            |s, v| v.whole().map(|number| s.number = number),
        ),
        F::text(
            "name",
            1,
            limit::NAME,
            |s| s.name.clone().into(),
            |s, v| v.text().map(|name| s.name = name.to_owned()),
        ),
        F::choice::<ProgramLetter>(
            "program",
            |s| Value::word(s.program),
            |s, v| v.of_word().map(|letter| s.program = letter),
        ),
        F::choice_of("plant", plant_words, |s| plant_word(s.plant).to_owned().into(), set_plant),
        F::number(
            "coefficient",
            range::COEFFICIENT,
            |s| match s.plant {
                Plant::Coefficient(k) => k.get().into(),
                _ => Value::Absent,
            },
            |s, v| v.number().and_then(|k| Coefficient::new(k).ok()).map(|k| s.plant = Plant::Coefficient(k)),
        )
        .when(|s| matches!(s.plant, Plant::Coefficient(_))),
        F::choice::<WaterNeed>(
            "need",
            |s| s.planting.need.map(Value::word).unwrap_or(Value::Absent),
            |s, v| v.maybe(Value::of_word).map(|need| s.planting.need = need),
        )
        .optional(),
        F::choice::<Density>(
            "density",
            |s| Value::word(s.planting.density),
            |s, v| v.of_word().map(|density| s.planting.density = density),
        )
        .defaulted(),
        F::choice::<Maturity>(
            "maturity",
            |s| Value::word(s.planting.maturity),
            |s, v| v.of_word().map(|maturity| s.planting.maturity = maturity),
        )
        .defaulted(),
        F::choice_of(
            "beside",
            growing_plant_words,
            |s| s.planting.beside.map(|plant| plant_word(plant).to_owned()).into(),
            |s, v| v.maybe(|v| plant_of(v.text()?, None).ok()).map(|plant| s.planting.beside = plant),
        )
        .optional(),
        F::months(
            "k_by_month",
            range::COEFFICIENT,
            |s| s.planting.by_month.map_or(Value::Absent, |k| Value::Numbers(k.map(Coefficient::get).to_vec())),
            set_by_month,
        )
        .optional(),
        F::choice::<SprinklerType>(
            "sprinkler",
            |s| Value::word(s.sprinkler.kind),
            |s, v| v.of_word().map(|kind| s.sprinkler.kind = kind),
        ),
        F::number(
            "rate_mm_h",
            range::RATE,
            |s| s.sprinkler.rate.map(RateMmPerHour::get).into(),
            |s, v| v.maybe(|v| RateMmPerHour::new(v.number()?).ok()).map(|rate| s.sprinkler.rate = rate),
        )
        .optional(),
        F::number(
            "uniformity",
            range::UNIFORMITY,
            |s| s.sprinkler.uniformity.into(),
            |s, v| v.maybe(Value::number).map(|du| s.sprinkler.uniformity = du),
        )
        .optional(),
        F::choice::<Soil>("soil", |s| Value::word(s.soil), |s, v| v.of_word().map(|soil| s.soil = soil)),
        F::choice::<Slope>("slope", |s| Value::word(s.slope), |s, v| v.of_word().map(|slope| s.slope = slope))
            .defaulted(),
        F::choice::<Exposure>(
            "exposure",
            |s| Value::word(s.exposure),
            |s, v| v.of_word().map(|exposure| s.exposure = exposure),
        ),
        F::number(
            "microclimate",
            range::MICROCLIMATE,
            |s| s.microclimate.into(),
            |s, v| v.maybe(Value::number).map(|factor| s.microclimate = factor),
        )
        .optional(),
        F::number("trim_pct", range::TRIM, |s| s.trim_pct.into(), |s, v| v.number().map(|trim| s.trim_pct = trim))
            .defaulted(),
        F::flag("roofed", |s| s.roofed.into(), |s, v| v.flag().map(|roofed| s.roofed = roofed)),
        F::number(
            "field_capacity",
            range::WATER_CONTENT,
            |s| s.root_zone.field_capacity.into(),
            |s, v| v.maybe(Value::number).map(|fc| s.root_zone.field_capacity = fc),
        )
        .optional(),
        F::number(
            "wilting_point",
            range::WATER_CONTENT,
            |s| s.root_zone.wilting_point.into(),
            |s, v| v.maybe(Value::number).map(|wp| s.root_zone.wilting_point = wp),
        )
        .optional(),
        F::number(
            "root_depth_m",
            range::ROOT_DEPTH,
            |s| s.root_zone.root_depth_m.into(),
            |s, v| v.maybe(Value::number).map(|depth| s.root_zone.root_depth_m = depth),
        )
        .optional(),
        F::number(
            "p",
            range::DEPLETION_SHARE,
            |s| s.root_zone.p.into(),
            |s, v| v.maybe(Value::number).map(|p| s.root_zone.p = p),
        )
        .optional(),
        F::number(
            "depletion_start_mm",
            range::DEPLETION,
            |s| s.root_zone.depletion_start_mm.into(),
            |s, v| v.maybe(Value::number).map(|mm| s.root_zone.depletion_start_mm = mm),
        )
        .optional(),
        F::number(
            "area_m2",
            range::AREA,
            |s| s.area_m2.into(),
            |s, v| v.maybe(Value::number).map(|area| s.area_m2 = area),
        )
        .optional(),
        F::whole(
            "run_s",
            range::RUN_SECONDS,
            |s| s.minutes.map(RunTime::seconds).into(),
            |s, v| v.maybe(Value::whole).map(|run| s.minutes = run.map(RunTime::from_seconds)),
        )
        .optional(),
        F::whole("cycle_s", range::CYCLE_SECONDS, |s| s.cycle.map(|c| c.cycle.seconds()).into(), set_cycle).optional(),
        F::whole("soak_s", range::RUN_SECONDS, |s| s.cycle.map(|c| c.soak.seconds()).into(), set_soak)
            .when(|s| s.cycle.is_some())
            .defaulted(),
        F::choice::<ProgramLetter>(
            "also",
            |s| s.also.map(Value::word).unwrap_or(Value::Absent),
            |s, v| v.maybe(Value::of_word).map(|letter| s.also = letter),
        )
        .optional(),
    ];

    /// A station of which nothing is known yet: turf under spray, loam, level, in the open, in program A.
    fn blank() -> Self {
        Self::plain(1, "", Plant::CoolTurf, SprinklerType::Spray)
    }
}

fn set_plant(station: &mut Station, value: &Value) -> Option<()> {
    let word = value.text()?;
    // A coefficient that stands already is kept; the field that follows it in the table sets another.
    let known = match station.plant {
        Plant::Coefficient(k) => k,
        _ => {
            let usual = station.plant.coefficient(&station.planting).0;
            Coefficient::new(range::COEFFICIENT.held(usual)).ok()?
        }
    };
    plant_of(word, Some(known.get())).ok().map(|plant| station.plant = plant)
}

fn set_by_month(station: &mut Station, value: &Value) -> Option<()> {
    let by_month = value.maybe(Value::months)?;
    // All of them have passed the field's check, or the table's readers would not have come here.
    station.planting.by_month = match by_month {
        Some(months) => Some(coefficients(months)?),
        None => None,
    };
    Some(())
}

fn set_cycle(station: &mut Station, value: &Value) -> Option<()> {
    let soak = station.cycle.map_or(RunTime::ZERO, |c| c.soak);
    let cycle = value.maybe(Value::whole)?;
    station.cycle = cycle.map(|cycle| CycleSoak { cycle: RunTime::from_seconds(cycle), soak });
    Some(())
}

fn set_soak(station: &mut Station, value: &Value) -> Option<()> {
    let soak = RunTime::from_seconds(value.whole()?);
    station.cycle.as_mut().map(|c| c.soak = soak)
}
