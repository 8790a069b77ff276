//! The places of the demo company, with their controllers.

use anyhow::Context;
use chrono::{Datelike, TimeDelta, Weekday};
use upland_core::controller::{
    Capability, Controller, Days, MonthDial, PercentScope, PercentStorage, Preset, Program, ProgramLetter, StartTime,
    Station, Temporary, TemporaryKind,
};
use upland_core::dial_in::slots;
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::landscape::{
    CanTest, CycleSoak, Exposure, Measurement, Plant, Planting, Slope, Soil, SprinklerType, WaterNeed,
};
use upland_core::place::Rules;
use upland_core::quantity::{Percent, RunTime};
use upland_core::schedule::Situation;
use upland_formats::site::{DialledDoc, FieldDoc, MeasuredDoc, PanelDoc, PanelNextDoc};
use upland_store::FurtherWeather;
use uuid::Uuid;

use super::Demo;
use super::builders::{held_by_sensor, library_sensors, named, schedule, sprinkler, station, town_rules};

impl Demo {
    pub(super) async fn library(&self, weather: Uuid, gauge: Option<Uuid>) -> anyhow::Result<()> {
        let place = self
            .place(
                "Averstane Library Terraces",
                "14",
                [47.518, -122.248, 214.0],
                (Some(weather), FurtherWeather { rain: gauge, gaps: Vec::new() }),
                town_rules(),
            )
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
        let nozzle = |rate, du| sprinkler(SprinklerType::MultiStream, rate, du);
        c.stations = vec![
            station(1, "Reading lawn", a, Plant::CoolTurf, nozzle(None, None), 310.0),
            Station {
                exposure: Exposure::Dappled,
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
                planting: Planting { need: Some(WaterNeed::Low), ..Planting::default() },
                ..station(5, "Herb wall", b, Plant::Perennials, sprinkler(SprinklerType::Drip, Some(12.6), None), 42.0)
            },
            station(6, "Orchard walk", b, Plant::Trees, sprinkler(SprinklerType::Drip, Some(8.4), None), 210.0),
            Station {
                roofed: true,
                soil: Soil::Clay,
                // Under the roof neither sun nor wind dry it.
                microclimate: Some(0.25),
                ..station(7, "Bocce court", court, Plant::Bare, sprinkler(SprinklerType::Spray, Some(9.0), None), 104.0)
            },
        ];
        let mut beds = held_by_sensor(b, "beds");
        beds.months[4].dial = MonthDial::Set(Percent::new(70)?);
        beds.schedule = schedule(&[Weekday::Tue, Weekday::Sat], &["08:15"])?;
        beds.waterings_per_week = Some(2);
        // As such panels are found: a start that somebody left in, and a court that runs on Sunday.
        let turf = Program {
            schedule: schedule(&[Weekday::Mon, Weekday::Wed, Weekday::Fri], &["04:30", "22:00"])?,
            waterings_per_week: Some(3),
            ..held_by_sensor(a, "turf")
        };
        let misted = Program {
            schedule: schedule(&Days::WEEK, &["06:30"])?,
            waterings_per_week: Some(7),
            ..held_by_sensor(court, "court")
        };
        c.programs = vec![turf, beds, misted];
        for sensor in library_sensors() {
            c.add_sensor(sensor);
        }
        let panel = self.library_panel(&c)?;
        let id = self.controller(place, c).await?;
        self.record(id, 1, FieldDoc::Found(PanelDoc::from(&panel))).await?;
        self.record(id, 40, FieldDoc::Measured(self.steps_bank_cans()?)).await
    }

    /// Sixteen cans on the steps bank in spring, from which its rate and uniformity are: dry along the top.
    fn steps_bank_cans(&self) -> anyhow::Result<MeasuredDoc> {
        let catches = [3.0, 2.6, 3.2, 4.4, 5.0, 3.6, 5.2, 4.8, 5.6, 5.9, 6.2, 5.4, 6.1, 6.7, 6.5, 5.8];
        let test = CanTest::new(catches.map(Some).to_vec(), 4, 10.0).map_err(|e| anyhow::anyhow!("{e:?}"))?;
        Ok(MeasuredDoc {
            on: self.today - TimeDelta::days(40),
            station: 3,
            rate_mm_h: test.rate_mm_per_hour(),
            uniformity: Some(test.uniformity()),
            by: (&Measurement::Cans(test)).into(),
            note: "two heads along the top stand too low".into(),
        })
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
            windows: Vec::new(),
            stations: c
                .stations
                .iter()
                .zip(minutes)
                .map(|(s, m)| FoundStation {
                    number: s.number,
                    minutes: RunTime::from_seconds(m * 60),
                    programs: vec![s.program],
                    cycle: None,
                })
                .collect(),
            programs: c
                .programs
                .iter()
                .map(|p| FoundProgram {
                    letter: p.letter,
                    days: p.schedule.days,
                    never: p.schedule.never,
                    starts: p.schedule.starts.clone(),
                    percent: Percent::FULL,
                    months: None,
                })
                .collect(),
            note: "wasps under the lid".into(),
        })
    }

    pub(super) async fn cemetery(&self, [airfield, logger]: [Uuid; 2]) -> anyhow::Result<()> {
        let further = FurtherWeather { rain: None, gaps: vec![logger] };
        let place = self
            .place("Grevane Hill Cemetery", "3", [47.49, -122.2, 305.0], (Some(airfield), further), town_rules())
            .await?;
        let capability = Capability { percent_step: Percent::new(5)?, watering_days: 4, ..Preset::Plain.capability() };
        let mut c = Controller::new("Upper gate".into(), capability);
        let a = ProgramLetter::A;
        let rotor = || sprinkler(SprinklerType::Rotor, None, None);
        c.stations = vec![
            Station { soil: Soil::Sand, ..station(1, "Meadow, east", a, Plant::WarmTurf, rotor(), 900.0) },
            Station { soil: Soil::Sand, ..station(2, "Meadow, west", a, Plant::WarmTurf, rotor(), 1100.0) },
            Station {
                exposure: Exposure::Shaded,
                ..station(3, "Yew avenue", a, Plant::Trees, sprinkler(SprinklerType::Drip, None, None), 160.0)
            },
        ];
        c.programs =
            vec![Program { schedule: schedule(&[Weekday::Mon, Weekday::Thu], &["05:00"])?, ..named(a, "meadow") }];
        // Dialled eight days ago, and turned down for a wet week that is over since.
        let dialled = self.today - TimeDelta::days(8);
        c.add_temporary(Temporary {
            id: 0,
            kind: TemporaryKind::Percent { letter: Some(a), percent: Percent::new(50)? },
            since: dialled,
            until: self.today - TimeDelta::days(2),
            reason: "31 mm of rain in a week".into(),
            by: "Tam Quillan".into(),
            left_standing: false,
        });
        let id = self.controller(place, c).await?;
        let c = self.account.controller(id).await?;
        let rules = town_rules().bind("3");
        let normals = self
            .account
            .normals(self.account.series(airfield).await?.1.id)
            .await?
            .into_iter()
            .find(|v| v.variant.is_empty());
        let situation = Situation {
            rules: &rules,
            normals: normals.as_ref().map(|v| &v.normals),
            zone: &chrono_tz::America::Los_Angeles,
            first: dialled,
        };
        let plan = situation.plan(&c.value.controller);
        let document = DialledDoc {
            on: dialled,
            version: c.version,
            values: DialledDoc::values_of(&slots(&c.value.controller, &plan, dialled)),
            not_set: Vec::new(),
            panel_next: PanelNextDoc::NotSeen,
            our_next: None,
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
                exposure: Exposure::Warm,
                ..station(1, "South wall", a, Plant::Shrubs, sprinkler(SprinklerType::Drip, None, None), 64.0)
            },
            station(2, "Flower trough", a, Plant::Annuals, sprinkler(SprinklerType::Spray, None, None), 12.0),
        ];
        self.controller(place, wall).await.map(drop)
    }

    pub(super) async fn glasshouse(&self, weather: Uuid) -> anyhow::Result<()> {
        let place = self
            .place(
                "Minna Glasshouse",
                "27",
                [47.56, -122.19, 240.0],
                (Some(weather), FurtherWeather::default()),
                Rules::default(),
            )
            .await?;
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
    pub(super) async fn orchard(&self) -> anyhow::Result<()> {
        let place = self
            .place("Tolmery Orchard", "", [47.53, -122.12, 268.0], (None, FurtherWeather::default()), Rules::default())
            .await?;
        self.controller(place, Controller::new("Pump house".into(), Preset::Monthly.capability())).await.map(drop)
    }
}
