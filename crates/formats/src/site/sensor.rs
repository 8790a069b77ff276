use chrono::{NaiveDate, NaiveDateTime};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::controller::{Contact, ProgramLetter, Temporary, TemporaryKind};
use upland_core::quantity::{Percent, limit, range};
use upland_core::sensor::{Disc, EtSetting, Proof, RainSetting, Reading, Sensor, SensorKind, Vent};
use upland_core::word::Word;

use super::DocError;
use super::days::time_of;
use super::error::letter;
use super::et_sheet::EtSheetDoc;

/// A reading of a soil-moisture sensor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingDoc {
    /// When, by the clock of the place.
    pub at: NaiveDateTime,
    /// Percent.
    pub percent: f64,
}

const fn disc_capacity_mm() -> f64 {
    Disc::USUAL.capacity_mm
}

const fn release_share() -> f64 {
    Disc::USUAL.release_share
}

/// What a sensor measures and what it is set to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum SensorKindDoc {
    /// A rain shut-off.
    Rain {
        /// The sensor's own settings, mm.
        thresholds_mm: Vec<f64>,
        /// The one it is set to, mm.
        threshold_mm: f64,
        /// Days without watering once it is dry.
        delay_days: u8,
        /// `open`, `half` or `closed`.
        vent: String,
        /// Water that its disc holds, mm.
        #[serde(default = "disc_capacity_mm")]
        #[schemars(range(min = range::DISC_CAPACITY.min, max = range::DISC_CAPACITY.max))]
        disc_capacity_mm: f64,
        /// Share of its setting below which it lets go.
        #[serde(default = "release_share")]
        #[schemars(range(min = range::DISC_RELEASE.min, max = range::DISC_RELEASE.max))]
        release_share: f64,
    },
    /// A freeze sensor.
    Freeze {
        /// The sensor's own settings, °C.
        thresholds_c: Vec<f64>,
        /// The one it is set to, °C.
        threshold_c: f64,
    },
    /// A soil-moisture sensor.
    SoilMoisture {
        /// Readings of its calibration.
        #[serde(default)]
        readings: Vec<ReadingDoc>,
        /// Waters below this reading, percent.
        threshold_pct: Option<f64>,
    },
    /// An ET sensor that sets the percent.
    Et {
        /// Its own sheet; left out for the example of ours.
        #[serde(default)]
        sheet: EtSheetDoc,
        /// Position of its climate step, from 1 for the coolest.
        #[schemars(range(min = 1, max = limit::SENSOR_SETTINGS))]
        class: u8,
        /// The climate step that the base minutes are for; left out for the step that is set.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        minutes_for: Option<u8>,
        /// Position of its offset, from 1 for the one that waters least.
        #[schemars(range(min = 1, max = limit::ET_OFFSETS))]
        trim: u8,
        /// Programs whose percent it sets.
        programs: Vec<char>,
    },
}

/// That a sensor was seen to work.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ProofDoc {
    /// When.
    pub on: NaiveDate,
    /// How.
    pub how: String,
}

/// A sensor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SensorDoc {
    /// Names it among the controller's sensors, from 1.
    #[schemars(range(min = 1))]
    pub id: u16,
    /// What it is and what it is set to.
    pub setting: SensorKindDoc,
    /// Where it hangs.
    #[schemars(length(min = 1, max = limit::NAME))]
    pub place: String,
    /// What battery it takes; empty for none.
    #[serde(default)]
    #[schemars(length(max = limit::NAME))]
    pub battery: String,
    /// When the battery was last changed.
    #[serde(default)]
    pub battery_on: Option<NaiveDate>,
    /// `normally_closed` or `normally_open`.
    pub contact: String,
    /// Whether the jumper across the input was taken out.
    pub jumper_removed: bool,
    /// The input, from 1.
    pub input: u8,
    /// Stations that do not obey it.
    #[serde(default)]
    pub exempt: Vec<u8>,
    /// That it was seen to work.
    #[serde(default)]
    pub proven: Option<ProofDoc>,
}

impl From<&Sensor> for SensorDoc {
    fn from(s: &Sensor) -> Self {
        let setting = match &s.kind {
            SensorKind::Rain { thresholds_mm, setting } => SensorKindDoc::Rain {
                thresholds_mm: thresholds_mm.clone(),
                threshold_mm: setting.threshold_mm,
                delay_days: setting.delay_days,
                vent: setting.vent.word().into(),
                disc_capacity_mm: setting.disc.capacity_mm,
                release_share: setting.disc.release_share,
            },
            SensorKind::Freeze { thresholds_c, threshold_c } => {
                SensorKindDoc::Freeze { thresholds_c: thresholds_c.clone(), threshold_c: *threshold_c }
            }
            SensorKind::SoilMoisture { readings, threshold_pct } => SensorKindDoc::SoilMoisture {
                readings: readings.iter().map(|r| ReadingDoc { at: r.at, percent: r.percent }).collect(),
                threshold_pct: *threshold_pct,
            },
            SensorKind::Et { setting, programs } => SensorKindDoc::Et {
                sheet: (&setting.sheet).into(),
                class: setting.climate,
                minutes_for: setting.minutes_for,
                trim: setting.offset,
                programs: programs.iter().map(|l| l.get()).collect(),
            },
        };
        Self {
            id: s.id,
            setting,
            place: s.place.clone(),
            battery: s.battery.clone(),
            battery_on: s.battery_on,
            contact: s.contact.word().into(),
            jumper_removed: s.jumper_removed,
            input: s.input,
            exempt: s.exempt.clone(),
            proven: s.proven.as_ref().map(|p| ProofDoc { on: p.on, how: p.how.clone() }),
        }
    }
}

impl TryFrom<&SensorDoc> for Sensor {
    type Error = DocError;

    fn try_from(doc: &SensorDoc) -> Result<Self, DocError> {
        let kind = match &doc.setting {
            &SensorKindDoc::Rain {
                ref thresholds_mm,
                threshold_mm,
                delay_days,
                ref vent,
                disc_capacity_mm: capacity_mm,
                release_share,
            } => SensorKind::Rain {
                thresholds_mm: thresholds_mm.clone(),
                setting: RainSetting {
                    threshold_mm,
                    delay_days,
                    vent: Vent::of_word(vent)?,
                    disc: Disc { capacity_mm, release_share },
                },
            },
            SensorKindDoc::Freeze { thresholds_c, threshold_c } => {
                SensorKind::Freeze { thresholds_c: thresholds_c.clone(), threshold_c: *threshold_c }
            }
            SensorKindDoc::SoilMoisture { readings, threshold_pct } => SensorKind::SoilMoisture {
                readings: readings.iter().map(|r| Reading { at: r.at, percent: r.percent }).collect(),
                threshold_pct: *threshold_pct,
            },
            SensorKindDoc::Et { sheet, class, minutes_for, trim, programs } => SensorKind::Et {
                setting: EtSetting {
                    sheet: sheet.try_into()?,
                    climate: *class,
                    minutes_for: *minutes_for,
                    offset: *trim,
                },
                programs: programs.iter().map(|l| letter(*l)).collect::<Result<_, _>>()?,
            },
        };
        Ok(Self {
            id: doc.id,
            kind,
            place: doc.place.clone(),
            battery: doc.battery.clone(),
            battery_on: doc.battery_on,
            contact: Contact::of_word(&doc.contact)?,
            jumper_removed: doc.jumper_removed,
            input: doc.input,
            exempt: doc.exempt.clone(),
            proven: doc.proven.as_ref().map(|p| Proof { on: p.on, how: p.how.clone() }),
        })
    }
}

/// What is set for a while.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum TemporaryKindDoc {
    /// Another percent.
    Percent {
        /// The program; none for all.
        program: Option<char>,
        /// The percent.
        percent: u16,
    },
    /// More than the month's percent, and less of it week by week.
    Weaning {
        /// The program; none for all.
        program: Option<char>,
        /// What is added in the first week, % of the month's percent.
        #[schemars(range(min = 1, max = TemporaryKind::MOST_EXTRA_PCT))]
        extra_pct: u16,
        /// What that loses with every week.
        #[schemars(range(min = 1))]
        step_pct: u16,
    },
    /// A new planting: every day, in several short runs.
    GrowIn {
        /// The program.
        program: char,
        /// The percent of its minutes that each start runs.
        #[schemars(range(min = 1))]
        percent: u16,
        /// Starts a day.
        #[schemars(range(min = 1))]
        starts: u8,
        /// The first start of a day, `HH:MM`.
        from: String,
        /// The last one, `HH:MM`.
        to: String,
    },
    /// A rain delay.
    RainDelay,
    /// A sensor that is not obeyed.
    Bypass {
        /// The sensor's id.
        sensor: u16,
    },
    /// Off.
    Off,
}

/// Something temporary.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TemporaryDoc {
    /// Names it among the controller's temporary settings, from 1.
    #[schemars(range(min = 1))]
    pub id: u16,
    /// What.
    pub setting: TemporaryKindDoc,
    /// First day.
    pub since: NaiveDate,
    /// Last day.
    pub until: NaiveDate,
    /// Why.
    #[schemars(length(min = 1, max = limit::REASON))]
    pub reason: String,
    /// Who.
    #[serde(default)]
    pub by: String,
}

impl From<&Temporary> for TemporaryDoc {
    fn from(t: &Temporary) -> Self {
        Self {
            id: t.id,
            setting: match t.kind {
                TemporaryKind::Percent { letter, percent } => {
                    TemporaryKindDoc::Percent { program: letter.map(ProgramLetter::get), percent: percent.get() }
                }
                TemporaryKind::Weaning { letter, extra_pct, step_pct } => {
                    TemporaryKindDoc::Weaning { program: letter.map(ProgramLetter::get), extra_pct, step_pct }
                }
                TemporaryKind::GrowIn { letter, percent, starts, from, to } => TemporaryKindDoc::GrowIn {
                    program: letter.get(),
                    percent: percent.get(),
                    starts,
                    from: from.to_string(),
                    to: to.to_string(),
                },
                TemporaryKind::RainDelay => TemporaryKindDoc::RainDelay,
                TemporaryKind::Bypass { sensor } => TemporaryKindDoc::Bypass { sensor },
                TemporaryKind::Off => TemporaryKindDoc::Off,
            },
            since: t.since,
            until: t.until,
            reason: t.reason.clone(),
            by: t.by.clone(),
        }
    }
}

impl TryFrom<&TemporaryDoc> for Temporary {
    type Error = DocError;

    fn try_from(doc: &TemporaryDoc) -> Result<Self, DocError> {
        Ok(Self {
            id: doc.id,
            kind: match &doc.setting {
                TemporaryKindDoc::Percent { program, percent } => TemporaryKind::Percent {
                    letter: program.map(letter).transpose()?,
                    percent: Percent::new(*percent)?,
                },
                TemporaryKindDoc::Weaning { program, extra_pct, step_pct } => TemporaryKind::Weaning {
                    letter: program.map(letter).transpose()?,
                    extra_pct: *extra_pct,
                    step_pct: *step_pct,
                },
                TemporaryKindDoc::GrowIn { program, percent, starts, from, to } => TemporaryKind::GrowIn {
                    letter: letter(*program)?,
                    percent: Percent::new(*percent)?,
                    starts: *starts,
                    from: time_of(from)?,
                    to: time_of(to)?,
                },
                TemporaryKindDoc::RainDelay => TemporaryKind::RainDelay,
                TemporaryKindDoc::Bypass { sensor } => TemporaryKind::Bypass { sensor: *sensor },
                TemporaryKindDoc::Off => TemporaryKind::Off,
            },
            since: doc.since,
            until: doc.until,
            reason: doc.reason.clone(),
            by: doc.by.clone(),
            left_standing: false,
        })
    }
}
