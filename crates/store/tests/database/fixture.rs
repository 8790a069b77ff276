//! Builders of a company with a place, a controller and a series of weather.

use chrono::{NaiveDate, Utc};
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::element::Element;
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::normals::MonthNormal;
use upland_core::climate::review::{Decision, Verdict};
use upland_core::controller::*;
use upland_core::landscape::{CycleSoak, Exposure, Plant, Slope, Soil, Sprinkler, SprinklerType};
use upland_core::place::{DayRule, Place, Position, Rules};
use upland_core::quantity::{Coefficient, Percent, RunTime};
use upland_core::sensor::{EtSetting, EtSheet, Proof, Reading, Sensor, SensorKind};
use upland_formats::site::{
    Answer, ChangeDoc, DialledDoc, DialledValueDoc, FieldDoc, GroundDoc, NextDoc, PanelNextDoc, RoundDoc,
};
use upland_store::*;
use uuid::Uuid;

pub(crate) struct Company {
    pub(crate) store: Store,
    pub(crate) account: Account,
    pub(crate) user: Uuid,
}

pub(crate) async fn store() -> Store {
    Store::new(&testing::fresh_database().await.unwrap(), 4).unwrap()
}

pub(crate) async fn company(store: &Store, name: &str) -> Company {
    let account = store.account(store.account_named(name).await.unwrap());
    let user = account.add_user(&format!("{name}@example.com"), name, "hash", Role::Lead).await.unwrap();
    Company { store: store.clone(), account, user }
}

pub(crate) fn place(name: &str, series_id: Option<Uuid>) -> PlaceRecord {
    PlaceRecord {
        place: Place {
            name: name.into(),
            house_number: "14b".into(),
            position: Position::new(47.6, 8.5, 410.0).unwrap(),
            zone: chrono_tz::Europe::Zurich,
        },
        series_id,
        further: FurtherWeather::default(),
        rules: Rules {
            seasons: Vec::new(),
            closed: Vec::new(),
            done_by: None,
            needs_sensor: false,
            days: DayRule::ByParity { odd: Days::from_bits(0b10), even: Days::from_bits(0b1001) },
            never: Days::from_bits(0b100),
            hours: vec![Hours { from: StartTime::new(600).unwrap(), to: StartTime::new(1080).unwrap() }],
            ban: None,
            authority: "Water office".into(),
            dated: NaiveDate::from_ymd_opt(2026, 4, 1),
        },
    }
}

pub(crate) fn record(controller_id: Uuid, document: FieldDoc) -> FieldRecord {
    FieldRecord { id: Uuid::new_v4(), controller_id, at: Utc::now(), user_name: "Oda".into(), document }
}

pub(crate) fn round() -> FieldDoc {
    let day = NaiveDate::from_ymd_opt(2026, 6, 15).unwrap();
    FieldDoc::Round(RoundDoc {
        on: day,
        percents: vec![('A', 80)],
        stations: vec![(2, GroundDoc::Dry)],
        change: Some(ChangeDoc::Percent { program: 'A', from: 80, to: 90 }),
        answer: Answer::Accepted,
        reason: String::new(),
        look_again: day,
        note: "two heads tilted".into(),
    })
}

pub(crate) fn dialled() -> FieldDoc {
    let day = NaiveDate::from_ymd_opt(2026, 6, 15).unwrap();
    FieldDoc::Dialled(DialledDoc {
        on: day,
        version: 4,
        values: vec![("minutes.1".into(), DialledValueDoc::RunS(1500))],
        not_set: Vec::new(),
        panel_next: PanelNextDoc::Same,
        our_next: Some(NextDoc { at: day.and_hms_opt(4, 30, 0).unwrap(), program: 'A' }),
        look_again: day,
    })
}

pub(crate) fn controller(place_id: Uuid) -> ControllerRecord {
    let mut controller = Controller::new("Cabinet".into(), Preset::Monthly.capability());
    controller.stations = vec![Station {
        program: ProgramLetter::ALL[1],
        plant: Plant::Coefficient(Coefficient::new(0.4).unwrap()),
        sprinkler: Sprinkler { kind: SprinklerType::Drip, rate: None, uniformity: Some(0.8) },
        soil: Soil::Sand,
        exposure: Exposure::Shaded,
        roofed: true,
        slope: Slope::Steep,
        minutes: Some(RunTime::from_seconds(1320)),
        cycle: Some(CycleSoak { cycle: RunTime::from_seconds(480), soak: RunTime::from_seconds(2700) }),
        also: Some(ProgramLetter::A),
        ..Station::plain(2, "Steps", Plant::Shrubs, SprinklerType::Drip)
    }];
    controller.normalise_programs();
    controller.programs[0].months[4].dial = MonthDial::Set(Percent::new(75).unwrap());
    controller.programs[0].months[0].waterings = Some(1);
    let day = |d| NaiveDate::from_ymd_opt(2026, 6, d).unwrap();
    controller.programs[0].schedule = Schedule {
        days: DayMode::Weekdays(Days::from_bits(0b10101)),
        never: Days::from_bits(0b100_0000),
        starts: vec![StartTime::new(270).unwrap(), StartTime::new(1320).unwrap()],
        split: 2,
    };
    controller.programs[1].schedule.days = DayMode::Every { days: 3, next: day(8) };
    controller.station_delay = RunTime::from_seconds(30);
    let soil = SensorKind::SoilMoisture {
        readings: vec![Reading { at: day(9).and_hms_opt(9, 0, 0).unwrap(), percent: 41.5 }],
        threshold_pct: Some(24.0),
    };
    let setting = EtSetting { offset: 4, ..EtSetting::for_peak(EtSheet::example(), 5.0) };
    let et = SensorKind::Et { setting, programs: vec![ProgramLetter::ALL[1]] };
    for kind in [SensorKind::common_rain(), SensorKind::common_freeze(), soil, et] {
        let sensor = Sensor::proposed(kind, "Shed", &controller);
        controller.add_sensor(Sensor { battery: "2 x AA".into(), battery_on: Some(day(1)), ..sensor });
    }
    controller.sensors[0].proven = Some(Proof { on: day(2), how: "water poured".into() });
    for kind in [
        TemporaryKind::Percent { letter: Some(ProgramLetter::ALL[1]), percent: Percent::new(60).unwrap() },
        TemporaryKind::RainDelay,
        TemporaryKind::Bypass { sensor: 1 },
        TemporaryKind::Off,
    ] {
        let (since, until) = (day(8), day(10));
        controller.add_temporary(Temporary {
            id: 0,
            kind,
            since,
            until,
            reason: "Rain".into(),
            by: "Oda".into(),
            left_standing: false,
        });
    }
    controller.check().unwrap();
    ControllerRecord { place_id, controller }
}

pub(crate) fn series(revision_id: Uuid) -> SeriesRecord {
    SeriesRecord {
        name: "Airfield".into(),
        position: Position::new(47.5, 8.6, 430.0).unwrap(),
        wind_height_m: 10.0,
        revision_id,
    }
}

/// The gauge was read by hand on a day.
pub(crate) fn decision(date: NaiveDate) -> Decision {
    let verdict = Verdict::Corrected(1.5);
    Decision { date, element: Element::Rain, original: None, verdict, reason: "read at the gauge".into() }
}

/// Two hours of a day, of which not everything was measured.
pub(crate) fn hours(date: NaiveDate) -> Vec<HourlyWeather> {
    let midnight = date.and_time(chrono::NaiveTime::MIN);
    let offset = chrono::FixedOffset::east_opt(7200).unwrap();
    let hour = |hour: i64, t| HourlyWeather {
        t: Some(t),
        wind: Some(1.5),
        ..HourlyWeather::empty((midnight + chrono::TimeDelta::hours(hour)).and_local_timezone(offset).unwrap())
    };
    vec![hour(0, 12.25), HourlyWeather { wind: None, rain: Some(0.4), ..hour(1, 11.5) }]
}

pub(crate) fn revision(days: i64) -> NewRevision {
    let first = NaiveDate::from_ymd_opt(1990, 1, 1).unwrap();
    let days: Vec<DailyWeather> = (0..days)
        .map(|d| DailyWeather {
            t_max: Some(20.0),
            rain: Some(1.5),
            ..DailyWeather::empty(first + chrono::TimeDelta::days(d))
        })
        .collect();
    NewRevision {
        id: Uuid::new_v4(),
        source: "days.csv".into(),
        input_hash: vec![1, 2, 3],
        method_version: 1,
        method: "hargreaves-samani".into(),
        et0: days.iter().map(|d| (d.date, 3.25, "hargreaves-samani".to_owned())).collect(),
        days,
        hours: HoursOnRecord::from([(first, DayHours { brought_by: None, hours: hours(first) })]),
        decisions: vec![decision(first)],
        normals: vec![
            NormalsVariant {
                variant: String::new(),
                normals: [MonthNormal { et0_mm_per_day: 3.25, rain_mm: Some(40.0) }; 12],
                temperatures: Some(std::array::from_fn(|month| [20.5 + month as f64, 9.25])),
            },
            NormalsVariant {
                variant: "wind=1".into(),
                normals: [MonthNormal { et0_mm_per_day: 3.0, rain_mm: None }; 12],
                temperatures: None,
            },
        ],
    }
}

impl Company {
    pub(crate) fn action(&self, writes: Vec<Write>) -> Action {
        Action {
            id: Uuid::new_v4(),
            user_id: self.user,
            user_name: "Oda".into(),
            at: Utc::now(),
            why: "test".into(),
            digest: b"as sent".to_vec(),
            leads_to: "/here".into(),
            undoes: None,
            writes,
            records: Vec::new(),
        }
    }

    pub(crate) async fn put(&self, id: Uuid, made_on: i32, record: Record) -> Result<Uuid, StoreError> {
        let action = self.action(vec![Write { id, made_on, record }]);
        self.account.apply(&action).await.map(|_| action.id)
    }

    /// A series, a place that looks at it and a controller there.
    pub(crate) async fn furnish(&self) -> (Uuid, Uuid, Uuid) {
        let (series_id, place_id, controller_id) = (Uuid::new_v4(), Uuid::new_v4(), Uuid::new_v4());
        let revision = revision(400);
        self.put(series_id, 0, Record::Series(Some(series(revision.id)), Some(Box::new(revision)))).await.unwrap();
        self.put(place_id, 0, Record::Place(Some(place("Library", Some(series_id))))).await.unwrap();
        self.put(controller_id, 0, Record::Controller(Some(controller(place_id)))).await.unwrap();
        (series_id, place_id, controller_id)
    }
}
