//! The demo company: a scenario of our own, with made-up names, on real weather.
//!
//! A small maintenance company in an upland town looks after a terraced library garden, an orchard
//! walk, a roofed bocce court, a hillside cemetery and a glasshouse.

use anyhow::Context;
use chrono::{Datelike, NaiveDate, NaiveTime, TimeDelta, Utc, Weekday};
use upland_core::climate::normals::MonthNormal;
use upland_core::controller::{
    Capability, Contact, Controller, DayMode, Days, MonthDial, PercentScope, PercentStorage, Preset, Program,
    ProgramLetter, Schedule, StartTime, Station, Temporary, TemporaryKind,
};
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::landscape::{CycleSoak, Plant, Slope, Soil, Sprinkler, SprinklerType, Sun};
use upland_core::place::{DayRule, Hours, Position, Rules};
use upland_core::quantity::{Coefficient, Percent, RateMmPerHour, RunTime};
use upland_core::sensor::{Proof, Sensor, SensorKind};
use upland_formats::site::{DialledDoc, FieldDoc, PanelDoc};
use upland_formats::weather::{Assigned, Column, Mapping, Table, Unit, read};
use upland_store::{Account, Action, ControllerRecord, PlaceRecord, SeriesRecord, Store, Write};
use uuid::Uuid;

use crate::form::Form;
use crate::guard::password::hash_password;
use crate::handlers::saving::{controller_write, field_record, place_write, series_write};
use crate::intake::{revision_of_days, revision_of_normals};
use crate::pages::desk::Desk;
use crate::pages::dial::DialIn;

/// What the demo user signs in with.
pub const EMAIL: &str = "oda@averstane.example";
/// The demo user's password.
pub const PASSWORD: &str = "upland-demo";
const SECOND_EMAIL: &str = "tam@averstane.example";
const COMPANY: &str = "Averstane Grounds";

/// The daily record of Seattle, 2012-2015 (NOAA), as the package vega-datasets carries it.
const WEATHER: &[u8] = include_bytes!("../../../docs/examples/seattle-weather.csv");

/// Puts the demo data into a migrated database, once; `fresh` throws it away first. What was found and
/// dialled of late is dated by `today`.
///
/// # Errors
/// When the database refuses; nothing is then left in part but the empty company.
pub async fn load(store: &Store, fresh: bool, today: NaiveDate) -> anyhow::Result<()> {
    let account = store.account(store.account_named(COMPANY).await?);
    if fresh {
        account.forget_everything().await?;
    } else if !account.places().await?.is_empty() {
        return Ok(());
    }
    let user = match store.user_by_email(EMAIL).await {
        Ok(user) => user.id,
        Err(_) => account.add_user(EMAIL, "Oda Marrick", &hash_password(PASSWORD)?).await?,
    };
    if store.user_by_email(SECOND_EMAIL).await.is_err() {
        account.add_user(SECOND_EMAIL, "Tam Quillan", &hash_password(PASSWORD)?).await?;
    }
    let demo = Demo { account, user, today };
    let airfield = demo.weather().await.context("the demo's weather")?;
    let bench = demo.typed_normals().await.context("the demo's typed normals")?;
    demo.library(airfield).await?;
    demo.cemetery(airfield).await?;
    demo.glasshouse(bench).await?;
    demo.orchard().await
}

struct Demo {
    account: Account,
    user: Uuid,
    today: NaiveDate,
}

impl Demo {
    /// Something that the demo user did so many days ago.
    fn action(&self, why: &str, days_ago: i64) -> Action {
        Action {
            id: Uuid::new_v4(),
            user_id: self.user,
            user_name: "Oda Marrick".into(),
            at: Utc::now() - TimeDelta::days(days_ago),
            why: why.into(),
            undoes: None,
            writes: Vec::new(),
            records: Vec::new(),
        }
    }

    async fn save(&self, why: &str, writes: Vec<Write>) -> anyhow::Result<()> {
        let action = Action { writes, ..self.action(why, 0) };
        Ok(self.account.apply(&action).await?)
    }

    /// Something that was written down so many days ago.
    async fn record(&self, controller_id: Uuid, days_ago: i64, document: FieldDoc) -> anyhow::Result<()> {
        let mut action = self.action("why-found", days_ago);
        action.records.push(field_record(&action, &Form::default(), controller_id, &document)?);
        Ok(self.account.apply(&action).await?)
    }

    async fn weather(&self) -> anyhow::Result<Uuid> {
        let table = Table::parse(WEATHER)?;
        let columns = [
            (0, Column::Date, Unit::YearMonthDay),
            (1, Column::Rain, Unit::Millimetres),
            (2, Column::TMax, Unit::Celsius),
            (3, Column::TMin, Unit::Celsius),
            (4, Column::Wind, Unit::MetresPerSecond),
        ];
        let mapping = Mapping::new(columns.map(|(index, column, unit)| Assigned { index, column, unit }).to_vec())?;
        let days = read(&table, &mapping, None).rows.into_iter().map(|r| r.day).collect();
        let position = Position::new(47.444, -122.314, 130.0)?;
        let revision = revision_of_days(&position, 10.0, "seattle-weather.csv (NOAA, 2012-2015)", WEATHER, days)?;
        let record =
            SeriesRecord { name: "Airfield record".into(), position, wind_height_m: 10.0, revision_id: revision.id };
        let id = Uuid::new_v4();
        self.save("why-weather-file", vec![series_write(id, 0, None, record, revision)]).await?;
        Ok(id)
    }

    /// Twelve normals for under glass, as a grower would type them.
    async fn typed_normals(&self) -> anyhow::Result<Uuid> {
        let months = [0.7, 1.1, 1.8, 2.6, 3.3, 3.9, 4.2, 3.6, 2.5, 1.5, 0.8, 0.6];
        let normals = months.map(|et0_mm_per_day| MonthNormal { et0_mm_per_day, rain_mm: None });
        let revision = revision_of_normals("typed by hand", normals);
        let position = Position::new(47.56, -122.19, 240.0)?;
        let record =
            SeriesRecord { name: "Under glass".into(), position, wind_height_m: 2.0, revision_id: revision.id };
        let id = Uuid::new_v4();
        self.save("why-normals", vec![series_write(id, 0, None, record, revision)]).await?;
        Ok(id)
    }

    async fn place(
        &self,
        name: &str,
        number: &str,
        at: [f64; 3],
        series_id: Option<Uuid>,
        rules: Rules,
    ) -> anyhow::Result<Uuid> {
        let place = PlaceRecord {
            name: name.into(),
            house_number: number.into(),
            position: Position::new(at[0], at[1], at[2])?,
            time_zone: "America/Los_Angeles".into(),
            series_id,
            rules,
        };
        let id = Uuid::new_v4();
        self.save("why-place-new", vec![place_write(id, 0, None, Some(place))]).await?;
        Ok(id)
    }

    async fn controller(&self, place_id: Uuid, mut controller: Controller) -> anyhow::Result<Uuid> {
        let named = std::mem::take(&mut controller.programs);
        controller.settle_programs();
        for program in named {
            if let Some(slot) = controller.programs.iter_mut().find(|p| p.letter == program.letter) {
                *slot = program;
            }
        }
        controller.check()?;
        let record = ControllerRecord { place_id, controller };
        let id = Uuid::new_v4();
        self.save("why-controller-new", vec![controller_write(id, 0, None, Some(record))]).await?;
        Ok(id)
    }

    async fn library(&self, weather: Uuid) -> anyhow::Result<()> {
        let place = self
            .place("Averstane Library Terraces", "14", [47.518, -122.248, 214.0], Some(weather), town_rules())
            .await?;
        let capability = Capability {
            stations: 8,
            watering_days: 7,
            percent_step: Percent::new(10)?,
            percent_min: Percent::new(10)?,
            ..Preset::Monthly.capability()
        };
        let mut c = Controller::new("Boiler-room cabinet".into(), capability);
        let [a, b, court] = [ProgramLetter::ALL[0], ProgramLetter::ALL[1], ProgramLetter::ALL[2]];
        let nozzle = |rate, du| sprinkler(SprinklerType::RotaryNozzle, rate, du);
        c.stations = vec![
            station(1, "Reading lawn", a, Plant::CoolTurf, nozzle(None, None), 310.0),
            Station {
                sun: Sun::QuarterShade,
                ..station(2, "Long terrace", a, Plant::CoolTurf, nozzle(Some(14.1), Some(0.71)), 240.0)
            },
            Station {
                slope: Slope::Moderate,
                cycle: Some(CycleSoak { cycle: RunTime::from_minutes(14.0)?, soak: RunTime::from_minutes(36.0)? }),
                ..station(
                    3,
                    "Steps bank",
                    a,
                    Plant::CoolTurf,
                    sprinkler(SprinklerType::Spray, Some(30.0), Some(0.62)),
                    95.0,
                )
            },
            station(4, "Rose parterre", b, Plant::Shrubs, sprinkler(SprinklerType::Drip, None, None), 130.0),
            Station {
                soil: Soil::Sand,
                ..station(5, "Herb wall", b, Plant::Natives, sprinkler(SprinklerType::Drip, Some(12.6), None), 42.0)
            },
            station(6, "Orchard walk", b, Plant::Trees, sprinkler(SprinklerType::Drip, Some(8.4), None), 210.0),
            Station {
                roofed: true,
                soil: Soil::Clay,
                ..station(
                    7,
                    "Bocce court",
                    court,
                    Plant::Coefficient(Coefficient::new(0.30)?),
                    sprinkler(SprinklerType::Spray, Some(9.0), None),
                    104.0,
                )
            },
        ];
        let mut beds = named(b, "beds");
        beds.months[4].dial = MonthDial::Set(Percent::new(70)?);
        beds.schedule = schedule(&[Weekday::Tue, Weekday::Sat], &["08:15"])?;
        beds.waterings_per_week = Some(2);
        // As such panels are found: a start that somebody left in, and a court that runs on Sunday.
        let turf = Program {
            schedule: schedule(&[Weekday::Mon, Weekday::Wed, Weekday::Fri], &["04:30", "22:00"])?,
            waterings_per_week: Some(3),
            ..named(a, "turf")
        };
        let misted = Program {
            schedule: schedule(&Days::WEEK, &["06:30"])?,
            waterings_per_week: Some(7),
            count_rain: false,
            ..named(court, "court")
        };
        c.programs = vec![turf, beds, misted];
        c.sensors = library_sensors();
        let panel = self.library_panel(&c)?;
        let id = self.controller(place, c).await?;
        self.record(id, 1, FieldDoc::Found(PanelDoc::from(&panel))).await
    }

    /// The library's panel as it was found yesterday: a year behind, an hour behind, at full percent.
    fn library_panel(&self, c: &Controller) -> anyhow::Result<Panel> {
        let yesterday = self.today - TimeDelta::days(1);
        let seen_at = yesterday.and_hms_opt(16, 40, 0).context("a time")?;
        let minutes = [50, 47, 24, 49, 25, 51, 14];
        Ok(Panel {
            seen_at,
            clock: PanelClock {
                date: yesterday.with_year(yesterday.year() - 1).unwrap_or(yesterday),
                weekday: None,
                time: StartTime::read("15:40").context("a time")?,
            },
            switch: Switch::On,
            sensor: SensorSwitch::Active,
            stations: c
                .stations
                .iter()
                .zip(minutes)
                .map(|(s, m)| FoundStation {
                    number: s.number,
                    minutes: RunTime::from_seconds(m * 60),
                    programs: vec![s.program],
                })
                .collect(),
            programs: c
                .programs
                .iter()
                .map(|p| FoundProgram {
                    letter: p.letter,
                    days: p.schedule.days,
                    starts: p.schedule.starts.clone(),
                    percent: Percent::FULL,
                })
                .collect(),
            note: "wasps under the lid".into(),
        })
    }

    async fn cemetery(&self, weather: Uuid) -> anyhow::Result<()> {
        let place =
            self.place("Grevane Hill Cemetery", "3", [47.49, -122.2, 305.0], Some(weather), town_rules()).await?;
        let capability = Capability { percent_step: Percent::new(5)?, watering_days: 4, ..Preset::Plain.capability() };
        let mut c = Controller::new("Upper gate".into(), capability);
        let a = ProgramLetter::A;
        let rotor = || sprinkler(SprinklerType::Rotor, None, None);
        c.stations = vec![
            Station { soil: Soil::Sand, ..station(1, "Meadow, east", a, Plant::WarmTurf, rotor(), 900.0) },
            Station { soil: Soil::Sand, ..station(2, "Meadow, west", a, Plant::WarmTurf, rotor(), 1100.0) },
            Station {
                sun: Sun::HalfShade,
                ..station(3, "Yew avenue", a, Plant::Trees, sprinkler(SprinklerType::Drip, None, None), 160.0)
            },
        ];
        c.programs =
            vec![Program { schedule: schedule(&[Weekday::Mon, Weekday::Thu], &["05:00"])?, ..named(a, "meadow") }];
        // Dialled eight days ago, and turned down for a wet week that is over since.
        let dialled = self.today - TimeDelta::days(8);
        c.temporaries = vec![Temporary {
            kind: TemporaryKind::Percent { letter: Some(a), percent: Percent::new(50)? },
            since: dialled,
            until: self.today - TimeDelta::days(2),
            reason: "31 mm of rain in a week".into(),
            by: "Tam Quillan".into(),
        }];
        let id = self.controller(place, c).await?;
        let desk = Desk::load(&self.account, id).await?;
        let document = DialledDoc {
            on: dialled,
            version: desk.controller.version,
            values: DialIn::of(&desk, dialled.and_time(NaiveTime::MIN)).values(),
            not_set: Vec::new(),
            panel_next: String::new(),
            our_next: String::new(),
            look_again: self.today - TimeDelta::days(1),
        };
        self.record(id, 8, FieldDoc::Dialled(document)).await?;
        let single = Capability {
            percent_storage: PercentStorage::Single,
            percent_scope: PercentScope::AllPrograms,
            ..Preset::Plain.capability()
        };
        let mut wall = Controller::new("Chapel wall".into(), single);
        wall.stations = vec![
            Station {
                sun: Sun::ReflectedHeat,
                ..station(1, "South wall", a, Plant::Shrubs, sprinkler(SprinklerType::Drip, None, None), 64.0)
            },
            station(2, "Flower trough", a, Plant::Annuals, sprinkler(SprinklerType::Spray, None, None), 12.0),
        ];
        self.controller(place, wall).await.map(drop)
    }

    async fn glasshouse(&self, weather: Uuid) -> anyhow::Result<()> {
        let place =
            self.place("Minna Glasshouse", "27", [47.56, -122.19, 240.0], Some(weather), Rules::default()).await?;
        let capability = Capability { stations: 6, watering_days: 7, ..Preset::Fine.capability() };
        let mut c = Controller::new("Potting shed".into(), capability);
        let bench = |n: u8, name: &str| Station {
            roofed: true,
            soil: Soil::Sand,
            ..station(
                n,
                name,
                ProgramLetter::A,
                Plant::Annuals,
                sprinkler(SprinklerType::Spray, Some(18.0), Some(0.8)),
                24.0,
            )
        };
        c.stations = vec![bench(1, "North bench"), bench(2, "Middle bench"), bench(3, "South bench")];
        self.controller(place, c).await.map(drop)
    }

    /// A place that was begun yesterday: no weather, and a controller without stations.
    async fn orchard(&self) -> anyhow::Result<()> {
        let place = self.place("Tolmery Orchard", "", [47.53, -122.12, 268.0], None, Rules::default()).await?;
        self.controller(place, Controller::new("Pump house".into(), Preset::Monthly.capability())).await.map(drop)
    }
}

fn station(number: u8, name: &str, program: ProgramLetter, plant: Plant, sprinkler: Sprinkler, area: f64) -> Station {
    let kind = sprinkler.kind;
    Station { program, sprinkler, area_m2: Some(area), ..Station::plain(number, name, plant, kind) }
}

fn sprinkler(kind: SprinklerType, rate: Option<f64>, uniformity: Option<f64>) -> Sprinkler {
    Sprinkler { kind, rate: rate.and_then(|r| RateMmPerHour::new(r).ok()), uniformity }
}

/// A rain sensor that was seen to work, and a freeze sensor that nobody tested yet.
fn library_sensors() -> Vec<Sensor> {
    let on = |y, m, d| NaiveDate::from_ymd_opt(y, m, d);
    let sensor = |kind, place: &str, battery: &str, proven: Option<Proof>| Sensor {
        kind,
        place: place.into(),
        battery: battery.into(),
        battery_on: on(2015, 4, 2),
        contact: Contact::NormallyClosed,
        jumper_removed: true,
        input: 1,
        exempt: vec![7],
        proven,
    };
    let poured = on(2015, 4, 2).map(|on| Proof { on, how: "water poured, program A held".into() });
    vec![
        sensor(SensorKind::common_rain(), "Tool-shed post", "CR2032", poured),
        sensor(SensorKind::common_freeze(), "Cabinet, north wall", "", None),
    ]
}

fn named(letter: ProgramLetter, name: &str) -> Program {
    Program { name: name.into(), ..Program::proposed(letter) }
}

/// Rules as towns make them: no watering on Sunday, none from 10:00 to 18:00.
fn town_rules() -> Rules {
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

fn schedule(days: &[Weekday], starts: &[&str]) -> anyhow::Result<Schedule> {
    let starts = starts.iter().map(|s| StartTime::read(s).context("a start")).collect::<anyhow::Result<_>>()?;
    Ok(Schedule { days: DayMode::Weekdays(Days::of(days.iter().copied())), starts, ..Schedule::default() })
}
