//! Small controllers for the tests.

use chrono::NaiveDate;
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::*;
use upland_core::landscape::{Plant, Soil, SprinklerType};
use upland_core::place::Bound;
use upland_core::quantity::RunTime;
use upland_core::schedule::*;

pub(crate) use chrono_tz::Europe::Madrid as ZONE;

pub(crate) fn min(m: u32) -> RunTime {
    RunTime::from_seconds(m * 60)
}

pub(crate) fn time(text: &str) -> StartTime {
    StartTime::read(text).unwrap()
}

pub(crate) fn day(y: i32, m: u32, d: u32) -> NaiveDate {
    NaiveDate::from_ymd_opt(y, m, d).unwrap()
}

/// Monday, 8 June 2026.
pub(crate) fn monday() -> NaiveDate {
    day(2026, 6, 8)
}

/// A year like that of a dry upland town: ET0 peaks in July, rain falls in winter.
pub(crate) fn normals() -> Normals {
    let et0 = [0.8, 1.3, 2.2, 3.2, 4.3, 5.4, 6.0, 5.2, 3.6, 2.1, 1.1, 0.7];
    let rain = [60.0, 50.0, 45.0, 40.0, 30.0, 10.0, 4.0, 6.0, 20.0, 45.0, 60.0, 65.0];
    std::array::from_fn(|i| MonthNormal { et0_mm_per_day: et0[i], rain_mm: Some(rain[i]) })
}

/// Turf on rotors with stated minutes, so that weeks can be worked by hand: 100 m² and 14.65 mm/h
/// (52 min for 12.7 mm), on sand, which takes 15.24 mm/h as it comes.
pub(crate) fn station(number: u8, letter: ProgramLetter, minutes: u32) -> Station {
    Station {
        program: letter,
        minutes: Some(min(minutes)),
        area_m2: Some(100.0),
        soil: Soil::Sand,
        ..Station::plain(number, &format!("Station {number}"), Plant::CoolTurf, SprinklerType::Rotor)
    }
}

pub(crate) fn controller(stations: Vec<Station>) -> Controller {
    let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
    c.stations = stations;
    c.normalise_programs();
    c
}

pub(crate) fn set(c: &mut Controller, letter: ProgramLetter, days: DayMode, starts: &[&str]) {
    c.program_mut(letter).unwrap().schedule =
        Schedule { days, starts: starts.iter().map(|s| time(s)).collect(), ..Schedule::default() };
}

pub(crate) struct Surroundings {
    pub(crate) rules: Bound,
    pub(crate) normals: Option<Normals>,
}

impl Surroundings {
    pub(crate) fn open() -> Self {
        Self { rules: Bound::open(), normals: None }
    }

    pub(crate) fn situation(&self) -> Situation<'_, chrono_tz::Tz> {
        Situation { rules: &self.rules, normals: self.normals.as_ref(), zone: &ZONE, first: monday() }
    }

    pub(crate) fn check(&self, c: &Controller) -> Vec<Finding> {
        c.check().unwrap();
        check(&self.situation(), c)
    }
}

pub(crate) fn codes(findings: &[Finding]) -> Vec<Code> {
    findings.iter().map(|f| f.code()).collect()
}

/// The only finding, mended, and what is left afterwards.
pub(crate) fn mended(around: &Surroundings, c: &Controller, code: Code) -> Controller {
    let found = around.check(c);
    let finding = found.iter().find(|f| f.code() == code).unwrap_or_else(|| panic!("{code:?} in {found:?}"));
    let repair = finding.repair.as_ref().unwrap_or_else(|| panic!("no repair: {finding:?}"));
    let after = repair.applied(c).unwrap();
    assert!(!codes(&around.check(&after)).contains(&code));
    after
}
