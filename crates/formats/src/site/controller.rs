use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::controller::{BaseMonth, Capability, Controller, MonthPlan, Program, Schedule, Station, Temporary};
use upland_core::quantity::{MonthOfYear, RunTime, limit};
use upland_core::sensor::Sensor;
use upland_core::word::{WordError, dial_of, dial_word};

use super::days::ScheduleDoc;
use super::error::DocError;
use super::rules::{HoursDoc, hours_doc, hours_of};
use super::sensor::{SensorDoc, TemporaryDoc};
use super::tabled::Tabled;

/// The decisions of one month.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct MonthDoc {
    /// `computed`, `off` or a percent.
    pub dial: String,
    /// Waterings a week, where fewer than usual.
    pub waterings: Option<u8>,
}

/// What stands beside the field table of a program.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ProgramLists {
    /// Twelve months, January first.
    #[schemars(length(min = 12, max = 12))]
    pub months: Vec<MonthDoc>,
    /// Days and starts; none until they are chosen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub schedule: Option<ScheduleDoc>,
}

/// A program: its field table, its months and its days.
pub type ProgramDoc = Tabled<Program, ProgramLists>;

const fn version() -> u32 {
    super::VERSION
}

/// A controller with its programs and stations.
///
/// The fields of the controller's own table stand here once more, and not as a [`Tabled`] with the lists beside it:
/// what stands beside a table is read at its end, and an error in a station would lose its line.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ControllerDoc {
    /// Version of the document.
    #[serde(default = "version")]
    pub version: u32,
    /// Name.
    #[schemars(length(min = 1, max = limit::NAME))]
    pub name: String,
    /// What the panel can be set to.
    pub capability: Tabled<Capability>,
    /// Month in which base minutes run at 100 %; none for the peak.
    pub base_month: Option<u8>,
    /// Programs.
    pub programs: Vec<ProgramDoc>,
    /// Stations.
    pub stations: Vec<Tabled<Station>>,
    /// Pause between two stations, s.
    #[serde(default)]
    pub station_delay_s: u32,
    /// Water windows that the panel is set to; none for all of the day.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub windows: Vec<HoursDoc>,
    /// Sensors.
    #[serde(default)]
    #[schemars(length(max = limit::SENSORS))]
    pub sensors: Vec<SensorDoc>,
    /// What is set for a while.
    #[serde(default)]
    #[schemars(length(max = limit::TEMPORARIES))]
    pub temporaries: Vec<TemporaryDoc>,
}

impl From<&Controller> for ControllerDoc {
    fn from(c: &Controller) -> Self {
        Self {
            version: super::VERSION,
            name: c.name.clone(),
            capability: Tabled::of(c.capability),
            base_month: match c.base_month {
                BaseMonth::Peak => None,
                BaseMonth::Month(month) => Some(month.number()),
            },
            programs: c.programs.iter().map(program_doc).collect(),
            stations: c.stations.iter().cloned().map(Tabled::of).collect(),
            station_delay_s: c.station_delay.seconds(),
            windows: hours_doc(&c.windows),
            sensors: c.sensors.iter().map(SensorDoc::from).collect(),
            temporaries: c.temporaries.iter().map(TemporaryDoc::from).collect(),
        }
    }
}

fn program_doc(p: &Program) -> ProgramDoc {
    let lists = ProgramLists {
        months: p.months.iter().map(|m| MonthDoc { dial: dial_word(m.dial), waterings: m.waterings }).collect(),
        schedule: (p.schedule != Schedule::default()).then(|| ScheduleDoc::from(&p.schedule)),
    };
    Tabled(p.clone(), lists)
}

impl TryFrom<&ControllerDoc> for Controller {
    type Error = DocError;

    fn try_from(doc: &ControllerDoc) -> Result<Self, DocError> {
        if doc.version != super::VERSION {
            return Err(DocError::Version(u64::from(doc.version)));
        }
        let controller = Self {
            name: doc.name.clone(),
            capability: doc.capability.0,
            base_month: match doc.base_month {
                None => BaseMonth::Peak,
                Some(number) => BaseMonth::Month(
                    MonthOfYear::new(number)
                        .ok_or_else(|| WordError::Unknown { field: "base_month", value: number.to_string() })?,
                ),
            },
            programs: doc.programs.iter().map(program).collect::<Result<_, _>>()?,
            stations: doc.stations.iter().map(|s| s.0.clone()).collect(),
            station_delay: RunTime::from_seconds(doc.station_delay_s),
            windows: hours_of(&doc.windows)?,
            sensors: doc.sensors.iter().map(Sensor::try_from).collect::<Result<_, _>>()?,
            temporaries: doc.temporaries.iter().map(Temporary::from).collect(),
        };
        controller.check()?;
        Ok(controller)
    }
}

fn program(Tabled(entered, lists): &ProgramDoc) -> Result<Program, DocError> {
    let plans: Vec<MonthPlan> = lists
        .months
        .iter()
        .map(|m| Ok(MonthPlan { dial: dial_of(&m.dial)?, waterings: m.waterings }))
        .collect::<Result<_, DocError>>()?;
    Ok(Program {
        months: plans.try_into().map_err(|_| DocError::Months(lists.months.len()))?,
        schedule: lists.schedule.as_ref().map(Schedule::try_from).transpose()?.unwrap_or_default(),
        ..entered.clone()
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::controller::{MonthDial, Preset};
    use upland_core::landscape::{CycleSoak, Exposure, Plant, Slope, Soil, Sprinkler, SprinklerType};
    use upland_core::quantity::{Coefficient, Percent, RateMmPerHour};

    fn controller() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Fine.capability());
        c.stations = vec![Station {
            program: upland_core::controller::ProgramLetter::ALL[1],
            plant: Plant::Coefficient(Coefficient::new(0.34).unwrap()),
            sprinkler: Sprinkler { kind: SprinklerType::Drip, rate: RateMmPerHour::new(12.6).ok(), uniformity: None },
            soil: Soil::Sand,
            exposure: Exposure::Shaded,
            roofed: true,
            area_m2: Some(42.0),
            slope: Slope::Moderate,
            minutes: RunTime::from_minutes(22.0).ok(),
            cycle: Some(CycleSoak { cycle: RunTime::from_seconds(480), soak: RunTime::from_seconds(2700) }),
            ..Station::plain(3, "Steps bank", Plant::Shrubs, SprinklerType::Drip)
        }];
        c.normalise_programs();
        c.programs[0].months[2].dial = MonthDial::Set(Percent::new(31).unwrap());
        c.programs[0].months[11].dial = MonthDial::Off;
        c
    }

    #[test]
    fn there_and_back_is_the_same() {
        let json = serde_json::to_string(&ControllerDoc::from(&controller())).unwrap();
        let doc: ControllerDoc = serde_json::from_str(&json).unwrap();
        assert_eq!(Controller::try_from(&doc).unwrap(), controller());
    }

    #[test]
    fn other_versions_and_unknown_fields_are_refused() {
        let mut doc = ControllerDoc::from(&controller());
        doc.version = 99;
        assert_eq!(Controller::try_from(&doc), Err(DocError::Version(99)));
        let mut value = serde_json::to_value(ControllerDoc::from(&controller())).unwrap();
        value["colour"] = "blue".into();
        assert!(serde_json::from_value::<ControllerDoc>(value).is_err());
    }
}
