//! A small controller and plain weather.

use chrono::{Datelike, NaiveDate, TimeDelta, Weekday};
use upland_core::controller::*;
use upland_core::landscape::{Plant, SprinklerType};
use upland_core::place::Bound;
use upland_core::quantity::{Coefficient, RateMmPerHour, RunTime};
use upland_core::replay::*;
use upland_core::schedule::Plan;

pub(crate) const A: ProgramLetter = ProgramLetter::ALL[0];
pub(crate) const B: ProgramLetter = ProgramLetter::ALL[1];

pub(crate) fn min(m: u32) -> RunTime {
    RunTime::from_seconds(m * 60)
}

/// Monday, 1 June 2026.
pub(crate) fn monday() -> NaiveDate {
    NaiveDate::from_ymd_opt(2026, 6, 1).unwrap()
}

/// 12 mm/h and even cover on loam, K_L 1: an hour gives 12 mm. TAW 46.5 mm, RAW 23.25.
pub(crate) fn station(number: u8, letter: ProgramLetter, minutes: u32) -> Station {
    let mut s = Station::plain(number, &format!("Station {number}"), Plant::CoolTurf, SprinklerType::Drip);
    s.plant = Plant::Coefficient(Coefficient::new(1.0).unwrap());
    s.sprinkler.rate = Some(RateMmPerHour::new(12.0).unwrap());
    s.sprinkler.uniformity = Some(1.0);
    s.program = letter;
    s.minutes = Some(min(minutes));
    s.area_m2 = Some(100.0);
    s
}

pub(crate) fn controller(stations: Vec<Station>) -> Controller {
    let mut c = Controller::new("Cabinet".into(), Preset::Fine.capability());
    c.stations = stations;
    c.normalise_programs();
    c
}

pub(crate) fn set(c: &mut Controller, letter: ProgramLetter, days: DayMode, starts: &[&str]) {
    c.program_mut(letter).unwrap().schedule =
        Schedule { days, starts: starts.iter().map(|s| StartTime::read(s).unwrap()).collect(), ..Schedule::default() };
}

pub(crate) fn mondays_and_thursdays() -> DayMode {
    DayMode::Weekdays(Days::of([Weekday::Mon, Weekday::Thu]))
}

/// Days of 5 mm of ET0, with rain on some of them by their place.
pub(crate) fn season(days: i64, rain: &[(i64, f64)]) -> Season {
    let days: Vec<SeasonDay> = (0..days)
        .map(|i| SeasonDay {
            date: monday() + TimeDelta::days(i),
            et0_mm: Some(5.0),
            rain_mm: Some(rain.iter().find(|(day, _)| *day == i).map_or(0.0, |r| r.1)),
            air_c: Some((8.0, 24.0)),
        })
        .collect();
    Season::of(&days).unwrap()
}

/// Replays one of the usual strategies, days kept.
pub(crate) fn run(c: &Controller, season: &Season, rules: &Bound, kind: Kind) -> Replayed {
    c.check().unwrap();
    let (plan, ground) = (Plan::of(c, None), Ground::of(c));
    let candidate = Candidate {
        controller: c,
        plan: &plan,
        ground: &ground,
        found: None,
        rules,
        peak_et0_mm_per_day: 5.0,
        sunrise_hours: [6.0; 12],
        refill_share: REFILL_SHARE,
    };
    replay(&ground, season, rules, candidate.strategy(kind).as_mut(), Keep::Days)
}

/// What a station's average gets each day, mm.
pub(crate) fn applied(replayed: &Replayed, number: u8) -> Vec<f64> {
    replayed.station(number).unwrap().daily.as_ref().unwrap()[0].applied_mm.clone()
}

/// The days of a season on which a station is watered, from 1.
pub(crate) fn watered(replayed: &Replayed, number: u8) -> Vec<usize> {
    (1..).zip(applied(replayed, number)).filter(|(_, mm)| *mm > 0.0).map(|(day, _)| day).collect()
}

pub(crate) fn weekday_of(season: &Season, day: usize) -> Weekday {
    season.dates[day - 1].weekday()
}
