use chrono::{NaiveDate, NaiveDateTime};
use diesel::prelude::*;
use upland_core::controller::{Contact, Controller, ProgramLetter, Temporary, TemporaryKind};
use upland_core::quantity::Percent;
use upland_core::sensor::{EtClass, Proof, Reading, Sensor, SensorKind, Vent};
use upland_core::word::Word;
use uuid::Uuid;

use super::convert::{broken, letter, short, small};
use crate::error::StoreError;
use crate::schema::{sensors, temporaries};

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = sensors)]
pub(crate) struct SensorRow {
    account_id: Uuid,
    pub(crate) controller_id: Uuid,
    ordinal: i16,
    kind: String,
    place: String,
    battery: String,
    battery_on: Option<NaiveDate>,
    contact: String,
    jumper_removed: bool,
    input: i16,
    exempt: Vec<i16>,
    proven_on: Option<NaiveDate>,
    proven_how: Option<String>,
    settings: Vec<f64>,
    set_at: Option<f64>,
    delay_days: Option<i16>,
    vent: Option<String>,
    et_class: Option<i16>,
    et_trim: Option<i16>,
    et_programs: Option<String>,
    reading_at: Vec<NaiveDateTime>,
    reading_pct: Vec<f64>,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = temporaries)]
pub(crate) struct TemporaryRow {
    account_id: Uuid,
    pub(crate) controller_id: Uuid,
    ordinal: i16,
    kind: String,
    letter: Option<String>,
    percent: Option<i16>,
    sensor: Option<i16>,
    since: NaiveDate,
    until: NaiveDate,
    reason: String,
    by_name: String,
}

impl SensorRow {
    pub(crate) fn of(account_id: Uuid, controller_id: Uuid, controller: &Controller) -> Vec<Self> {
        let row = |(ordinal, s): (i16, &Sensor)| {
            let mut row = Self {
                account_id,
                controller_id,
                ordinal,
                kind: String::new(),
                place: s.place.clone(),
                battery: s.battery.clone(),
                battery_on: s.battery_on,
                contact: s.contact.word().to_owned(),
                jumper_removed: s.jumper_removed,
                input: i16::from(s.input),
                exempt: s.exempt.iter().map(|n| i16::from(*n)).collect(),
                proven_on: s.proven.as_ref().map(|p| p.on),
                proven_how: s.proven.as_ref().map(|p| p.how.clone()),
                settings: Vec::new(),
                set_at: None,
                delay_days: None,
                vent: None,
                et_class: None,
                et_trim: None,
                et_programs: None,
                reading_at: Vec::new(),
                reading_pct: Vec::new(),
            };
            row.set_kind(&s.kind);
            row
        };
        (0i16..).zip(&controller.sensors).map(row).collect()
    }

    fn set_kind(&mut self, kind: &SensorKind) {
        match kind {
            SensorKind::Rain { thresholds_mm, threshold_mm, delay_days, vent } => {
                self.kind = "rain".to_owned();
                self.settings.clone_from(thresholds_mm);
                self.set_at = Some(*threshold_mm);
                self.delay_days = Some(i16::from(*delay_days));
                self.vent = Some(vent.word().to_owned());
            }
            SensorKind::Freeze { thresholds_c, threshold_c } => {
                self.kind = "freeze".to_owned();
                self.settings.clone_from(thresholds_c);
                self.set_at = Some(*threshold_c);
            }
            SensorKind::SoilMoisture { readings, threshold_pct } => {
                self.kind = "soil_moisture".to_owned();
                self.set_at = *threshold_pct;
                self.reading_at = readings.iter().map(|r| r.at).collect();
                self.reading_pct = readings.iter().map(|r| r.percent).collect();
            }
            SensorKind::Et { class, trim, programs } => {
                self.kind = "et".to_owned();
                self.et_class = Some(i16::from(class.number()));
                self.et_trim = Some(i16::from(*trim));
                self.et_programs = Some(programs.iter().map(|l| l.get()).collect());
            }
        }
    }

    fn kind(&self) -> Result<SensorKind, StoreError> {
        let missing = || broken(format!("sensor {} of kind {}", self.ordinal, self.kind));
        Ok(match self.kind.as_str() {
            "rain" => SensorKind::Rain {
                thresholds_mm: self.settings.clone(),
                threshold_mm: self.set_at.ok_or_else(missing)?,
                delay_days: small(i32::from(self.delay_days.ok_or_else(missing)?))?,
                vent: Vent::of_word(self.vent.as_deref().unwrap_or_default()).map_err(broken)?,
            },
            "freeze" => SensorKind::Freeze {
                thresholds_c: self.settings.clone(),
                threshold_c: self.set_at.ok_or_else(missing)?,
            },
            "soil_moisture" => SensorKind::SoilMoisture {
                readings: self
                    .reading_at
                    .iter()
                    .zip(&self.reading_pct)
                    .map(|(at, percent)| Reading { at: *at, percent: *percent })
                    .collect(),
                threshold_pct: self.set_at,
            },
            "et" => SensorKind::Et {
                class: self.et_class.and_then(|c| u8::try_from(c).ok()).and_then(EtClass::new).ok_or_else(missing)?,
                trim: small(i32::from(self.et_trim.ok_or_else(missing)?))?,
                programs: self
                    .et_programs
                    .as_deref()
                    .unwrap_or_default()
                    .chars()
                    .map(|c| ProgramLetter::new(c).ok_or_else(missing))
                    .collect::<Result<_, _>>()?,
            },
            _ => return Err(missing()),
        })
    }

    pub(crate) fn sensor(&self) -> Result<Sensor, StoreError> {
        Ok(Sensor {
            kind: self.kind()?,
            place: self.place.clone(),
            battery: self.battery.clone(),
            battery_on: self.battery_on,
            contact: Contact::of_word(&self.contact).map_err(broken)?,
            jumper_removed: self.jumper_removed,
            input: small(i32::from(self.input))?,
            exempt: self.exempt.iter().map(|n| small(i32::from(*n))).collect::<Result<_, _>>()?,
            proven: self.proven_on.map(|on| Proof { on, how: self.proven_how.clone().unwrap_or_default() }),
        })
    }
}

impl TemporaryRow {
    pub(crate) fn of(account_id: Uuid, controller_id: Uuid, controller: &Controller) -> Vec<Self> {
        let row = |(ordinal, t): (i16, &Temporary)| {
            let (kind, letter, percent, sensor) = match t.kind {
                TemporaryKind::Percent { letter, percent } => {
                    ("percent", letter.map(|l| l.get().to_string()), Some(short(percent.get())), None)
                }
                TemporaryKind::RainDelay => ("rain_delay", None, None, None),
                TemporaryKind::Bypass { sensor } => ("bypass", None, None, Some(i16::from(sensor))),
                TemporaryKind::Off => ("off", None, None, None),
            };
            Self {
                account_id,
                controller_id,
                ordinal,
                kind: kind.to_owned(),
                letter,
                percent,
                sensor,
                since: t.since,
                until: t.until,
                reason: t.reason.clone(),
                by_name: t.by.clone(),
            }
        };
        (0i16..).zip(&controller.temporaries).map(row).collect()
    }

    pub(crate) fn temporary(&self) -> Result<Temporary, StoreError> {
        let kind = match (self.kind.as_str(), self.percent, self.sensor) {
            ("percent", Some(percent), _) => TemporaryKind::Percent {
                letter: self.letter.as_deref().map(letter).transpose()?,
                percent: Percent::new(small(i32::from(percent))?).map_err(broken)?,
            },
            ("bypass", _, Some(sensor)) => TemporaryKind::Bypass { sensor: small(i32::from(sensor))? },
            ("rain_delay", ..) => TemporaryKind::RainDelay,
            ("off", ..) => TemporaryKind::Off,
            (other, ..) => return Err(broken(format!("temporary setting {other}"))),
        };
        let (reason, by) = (self.reason.clone(), self.by_name.clone());
        Ok(Temporary { kind, since: self.since, until: self.until, reason, by })
    }
}
