//! A controller with everything, at a place in the north or in the south.

use chrono::{DateTime, NaiveDate, Utc};
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::{
    Controller, DayMode, Days, Hours, Preset, ProgramLetter, Schedule, StartTime, Station, Temporary, TemporaryKind,
};
use upland_core::landscape::{CycleSoak, Exposure, Plant, Slope, Soil, SprinklerType};
use upland_core::place::{Place, Position, Rules};
use upland_core::quantity::{MonthOfYear, Percent, RateMmPerHour, RunTime};
use upland_core::sensor::{Sensor, SensorKind};
use uuid::Uuid;

use crate::context::{
    ControllerContext, ControllerRecord, FurtherWeather, NormalsVariant, PlaceContext, PlaceRecord, RevisionSummary,
    Role, SeriesRecord, Versioned, Weather, WeatherDay,
};
use crate::pages::shell::{Shell, ShellInput, View};
use crate::show::Units;

/// On which half of the Earth the place is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Half {
    North,
    South,
}

impl Half {
    /// A day of its early summer.
    pub(crate) fn today(self) -> NaiveDate {
        let month = if self == Self::North { 6 } else { 12 };
        NaiveDate::from_ymd_opt(2026, month, 11).unwrap()
    }

    pub(crate) fn month(self) -> MonthOfYear {
        MonthOfYear::new(if self == Self::North { 6 } else { 12 }).unwrap()
    }
}

fn versioned<T>(id: u128, value: T) -> Versioned<T> {
    Versioned { id: Uuid::from_u128(id), version: 3, value }
}

fn normals(half: Half) -> Normals {
    let north = [0.6, 0.9, 1.6, 2.4, 3.3, 4.0, 4.5, 3.8, 2.5, 1.4, 0.8, 0.5];
    let rain = [116.0, 105.0, 151.0, 94.0, 52.0, 33.0, 12.0, 41.0, 59.0, 126.0, 161.0, 156.0];
    std::array::from_fn(|m| {
        let m = if half == Half::North { m } else { (m + 6) % 12 };
        MonthNormal { et0_mm_per_day: north[m], rain_mm: Some(rain[m]) }
    })
}

fn controller() -> Controller {
    let [a, b] = [ProgramLetter::ALL[0], ProgramLetter::ALL[1]];
    let mut c = Controller::new("Boiler-room cabinet".into(), Preset::Monthly.capability());
    let mut bank = Station {
        slope: Slope::Moderate,
        area_m2: Some(95.0),
        cycle: Some(CycleSoak { cycle: RunTime::from_seconds(840), soak: RunTime::from_seconds(2160) }),
        ..Station::plain(2, "Steps bank", Plant::CoolTurf, SprinklerType::Spray)
    };
    bank.sprinkler.rate = RateMmPerHour::new(30.0).ok();
    bank.sprinkler.uniformity = Some(0.62);
    c.stations = vec![
        Station { area_m2: Some(310.0), ..Station::plain(1, "Reading lawn", Plant::CoolTurf, SprinklerType::Rotor) },
        bank,
        Station {
            program: b,
            soil: Soil::Sand,
            exposure: Exposure::Shaded,
            trim_pct: -10.0,
            ..Station::plain(4, "Rose parterre", Plant::Shrubs, SprinklerType::Drip)
        },
    ];
    c.normalise_programs();
    let schedule = |days: u8, starts: &[&str]| Schedule {
        days: DayMode::Weekdays(Days::from_bits(days)),
        starts: starts.iter().filter_map(|s| StartTime::read(s)).collect(),
        ..Schedule::default()
    };
    c.programs[0].name = "turf".into();
    c.programs[0].schedule = schedule(0b001_0101, &["04:30", "22:00"]);
    c.programs[1].schedule = schedule(0b110_0010, &["08:15"]);
    c.add_sensor(Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::common_rain(), "Shed", &c) });
    let day = |d| NaiveDate::from_ymd_opt(2026, 6, d).unwrap();
    c.add_temporary(Temporary {
        id: 0,
        kind: TemporaryKind::Percent { letter: Some(a), percent: Percent::new(60).unwrap() },
        since: day(1),
        until: day(5),
        reason: "wet week".into(),
        by: "Oda".into(),
        left_standing: false,
    });
    c.check().unwrap();
    c
}

/// The controller with its place and weather.
pub(crate) fn context(half: Half) -> ControllerContext {
    let sign = if half == Half::North { 1.0 } else { -1.0 };
    let position = Position::new(sign * 47.5, 12.2, 214.0).unwrap();
    let place = PlaceRecord {
        place: Place {
            name: "Library Terraces".into(),
            house_number: "14".into(),
            position,
            zone: chrono_tz::Europe::Vienna,
        },
        series_id: Some(Uuid::from_u128(3)),
        further: FurtherWeather::default(),
        rules: Rules {
            never: Days::from_bits(0b100_0000),
            hours: vec![Hours { from: StartTime::new(600).unwrap(), to: StartTime::new(1080).unwrap() }],
            authority: "Water office".into(),
            ..Rules::default()
        },
    };
    let weather = Weather {
        series: versioned(
            3,
            SeriesRecord {
                name: "Airfield".into(),
                position: Position::new(sign * 47.45, 12.3, 130.0).unwrap(),
                wind_height_m: 10.0,
                revision_id: Uuid::from_u128(4),
            },
        ),
        beside: Vec::new(),
        revision: RevisionSummary {
            has_normals: true,
            id: Uuid::from_u128(4),
            source: "days.csv".into(),
            first_day: NaiveDate::from_ymd_opt(2012, 1, 1),
            last_day: NaiveDate::from_ymd_opt(2015, 12, 31),
            day_count: 1461,
            method: "hargreaves-samani".into(),
        },
        variants: vec![NormalsVariant { variant: String::new(), normals: normals(half), temperatures: None }],
    };
    with_controller(controller(), PlaceContext::new(versioned(2, place), Some(weather)))
}

/// A controller at a place.
pub(crate) fn with_controller(controller: Controller, at: PlaceContext) -> ControllerContext {
    ControllerContext::new(versioned(1, ControllerRecord { place_id: Uuid::from_u128(2), controller }), at)
}

/// Two months of days for the strip.
pub(crate) fn days(half: Half) -> Vec<WeatherDay> {
    let normals = normals(half);
    (0..60u32)
        .map(|n| {
            let date = NaiveDate::from_yo_opt(2026, n + 100).unwrap();
            let month = chrono::Datelike::month0(&date) as usize;
            let wave = f64::from(n % 7) / 7.0;
            WeatherDay {
                date,
                et0_mm: Some(normals[month].et0_mm_per_day * (0.7 + 0.6 * wave)),
                rain_mm: Some(if n % 9 == 0 { 6.5 } else { 0.0 }),
                tmin_c: Some(8.0),
                tmax_c: Some(22.0),
            }
        })
        .collect()
}

/// Noon of the day in UTC.
pub(crate) fn moment(half: Half) -> DateTime<Utc> {
    half.today().and_hms_opt(12, 0, 0).unwrap().and_utc()
}

/// What stands round a page, for a lead.
pub(crate) fn shell(units: Units) -> Shell {
    Shell::of(shell_input(units))
}

pub(crate) fn shell_input(units: Units) -> ShellInput<'static> {
    ShellInput {
        view: View::Places,
        body_class: "form",
        title: "A page".into(),
        path: "/page",
        user_name: "Oda",
        company: "Averstane Grounds",
        token: "token",
        units,
        role: Role::Lead,
        last_action: None,
        now: moment(Half::North).naive_utc(),
    }
}
