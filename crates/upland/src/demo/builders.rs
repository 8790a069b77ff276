//! Builders of stations, sensors, rules and schedules for the demo.

use anyhow::Context;
use chrono::{NaiveDate, Weekday};
use upland_core::controller::{Contact, DayMode, Days, Hours, Program, ProgramLetter, Schedule, StartTime, Station};
use upland_core::landscape::{Plant, Sprinkler, SprinklerType};
use upland_core::place::{DayRule, Rules};
use upland_core::quantity::RateMmPerHour;
use upland_core::sensor::{Proof, Sensor, SensorKind};

pub(super) fn station(
    number: u8,
    name: &str,
    program: ProgramLetter,
    plant: Plant,
    sprinkler: Sprinkler,
    area: f64,
) -> Station {
    let kind = sprinkler.kind;
    Station { program, sprinkler, area_m2: Some(area), ..Station::plain(number, name, plant, kind) }
}

pub(super) fn sprinkler(kind: SprinklerType, rate: Option<f64>, uniformity: Option<f64>) -> Sprinkler {
    Sprinkler { kind, rate: rate.and_then(|r| RateMmPerHour::new(r).ok()), uniformity }
}

/// A rain sensor that was seen to work, and a freeze sensor that nobody tested yet.
pub(super) fn library_sensors() -> Vec<Sensor> {
    let on = |y, m, d| NaiveDate::from_ymd_opt(y, m, d);
    let sensor = |kind, place: &str, battery: &str, proven: Option<Proof>| Sensor {
        id: 0,
        kind,
        place: place.into(),
        battery: battery.into(),
        battery_on: on(2025, 4, 2),
        contact: Contact::NormallyClosed,
        jumper_removed: true,
        input: 1,
        exempt: vec![7],
        proven,
    };
    let poured = on(2025, 4, 2).map(|on| Proof { on, how: "water poured, program A held".into() });
    vec![
        sensor(SensorKind::common_rain(), "Tool-shed post", "CR2032", poured),
        sensor(SensorKind::common_freeze(), "Cabinet, north wall", "", None),
    ]
}

pub(super) fn named(letter: ProgramLetter, name: &str) -> Program {
    Program { name: name.into(), ..Program::proposed(letter) }
}

/// A program that a rain sensor holds back, so that its months do not count rain as well.
pub(super) fn held_by_sensor(letter: ProgramLetter, name: &str) -> Program {
    Program { count_rain: false, ..named(letter, name) }
}

/// Rules as towns make them: no watering on Sunday, none from 10:00 to 18:00.
pub(super) fn town_rules() -> Rules {
    Rules {
        days: DayRule::Weekdays(Days::ALL.without(Weekday::Sun)),
        hours: StartTime::read("10:00")
            .zip(StartTime::read("18:00"))
            .map(|(from, to)| Hours { from, to })
            .into_iter()
            .collect(),
        authority: "Averstane water office, articles 2 and 4".into(),
        dated: NaiveDate::from_ymd_opt(2026, 4, 1),
        ..Rules::default()
    }
}

pub(super) fn schedule(days: &[Weekday], starts: &[&str]) -> anyhow::Result<Schedule> {
    let starts = starts.iter().map(|s| StartTime::read(s).context("a start")).collect::<anyhow::Result<_>>()?;
    Ok(Schedule { days: DayMode::Weekdays(Days::of(days.iter().copied())), starts, ..Schedule::default() })
}
