use chrono::{NaiveDate, NaiveDateTime};
use thiserror::Error;

use crate::controller::{Contact, Controller, ProgramLetter};
use crate::field::{FieldError, FieldFault, Fields, check_date};
use crate::quantity::{OutOfRange, limit, range};

use super::et::{EtSetting, SheetError};
use super::setting::RainSetting;

/// A reading of a soil-moisture sensor.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reading {
    /// When, by the clock of the place.
    pub at: NaiveDateTime,
    /// What it showed, percent.
    pub percent: f64,
}

/// What a sensor measures and what it is set to.
#[derive(Debug, Clone, PartialEq)]
pub enum SensorKind {
    /// A rain shut-off.
    Rain {
        /// The settings that this sensor has, mm.
        thresholds_mm: Vec<f64>,
        /// How it is set.
        setting: RainSetting,
    },
    /// A freeze sensor.
    Freeze {
        /// The settings that this sensor has, °C.
        thresholds_c: Vec<f64>,
        /// The one it is set to.
        threshold_c: f64,
    },
    /// A soil-moisture sensor that holds runs back.
    SoilMoisture {
        /// Readings of its calibration, earliest first.
        readings: Vec<Reading>,
        /// Waters below this reading, percent.
        threshold_pct: Option<f64>,
    },
    /// An ET sensor that sets the percent of programs every night.
    Et {
        /// How it is set.
        setting: EtSetting,
        /// The programs whose percent it sets.
        programs: Vec<ProgramLetter>,
    },
}

/// That a sensor was seen to work.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Proof {
    /// When.
    pub on: NaiveDate,
    /// How: water poured, plunger pressed.
    pub how: String,
}

/// A sensor on a controller.
#[derive(Debug, Clone, PartialEq)]
pub struct Sensor {
    /// Names it among the controller's sensors, from 1; 0 until it is added.
    pub id: u16,
    /// What it is and what it is set to.
    pub kind: SensorKind,
    /// Where it hangs.
    pub place: String,
    /// What battery it takes; empty for none.
    pub battery: String,
    /// When the battery was last changed.
    pub battery_on: Option<NaiveDate>,
    /// How its contact stands at rest.
    pub contact: Contact,
    /// Whether the jumper across the input was taken out. With it the sensor never acts.
    pub jumper_removed: bool,
    /// The input it is wired to, from 1.
    pub input: u8,
    /// Stations that do not obey it.
    pub exempt: Vec<u8>,
    /// That it was seen to work.
    pub proven: Option<Proof>,
}

/// Why a sensor is not valid.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum SensorError {
    /// A field holds what it may not.
    #[error(transparent)]
    Field(#[from] FieldFault),
    /// A reading from a year that is not kept.
    #[error("readings: {0}")]
    ReadingDate(FieldError),
    /// A setting that this sensor does not have.
    #[error("the sensor has no such setting")]
    NoSuchSetting,
    /// No settings, or too many.
    #[error("a sensor has 1 to 12 settings, in rising order")]
    Settings,
    /// A reading out of range.
    #[error("readings: {0}")]
    Reading(#[from] OutOfRange),
    /// An input that the controller does not have.
    #[error("input {input} of {inputs}: there is no such input")]
    NoSuchInput {
        /// The input.
        input: u8,
        /// Inputs of the controller.
        inputs: u8,
    },
    /// A station that is not there.
    #[error("station {0} is not in use")]
    NoSuchStation(u8),
    /// The sheet of an ET sensor, or a position of one of its dials.
    #[error(transparent)]
    Sheet(#[from] SheetError),
    /// A program that is not there.
    #[error("program {} is not in use", .0.get())]
    NoSuchProgram(ProgramLetter),
    /// Readings out of order, or too many of them.
    #[error("up to {} readings, from the earliest to the latest", limit::READINGS)]
    Readings,
}

impl SensorKind {
    /// Rain settings common in the trade: 3, 6, 13, 19 mm (1/8, 1/4, 1/2, 3/4 in).
    pub const COMMON_RAIN_MM: [f64; 4] = [3.0, 6.0, 13.0, 19.0];
    /// Freeze settings offered at first: about 3 °C is common practice.
    pub const COMMON_FREEZE_C: [f64; 3] = [1.0, 3.0, 5.0];

    /// A rain shut-off at the usual summer choice, 13 mm (common practice).
    #[must_use]
    pub fn common_rain() -> Self {
        Self::Rain { thresholds_mm: Self::COMMON_RAIN_MM.to_vec(), setting: RainSetting::USUAL }
    }

    /// A freeze sensor at 3 °C (common practice).
    #[must_use]
    pub fn common_freeze() -> Self {
        Self::Freeze { thresholds_c: Self::COMMON_FREEZE_C.to_vec(), threshold_c: 3.0 }
    }
}

impl Sensor {
    /// A new sensor on the first input. Stations under a roof are proposed as exempt from rain.
    #[must_use]
    pub fn proposed(kind: SensorKind, place: &str, controller: &Controller) -> Self {
        let roofed = controller.stations.iter().filter(|s| s.roofed).map(|s| s.number);
        let exempt = if matches!(kind, SensorKind::Rain { .. }) { roofed.collect() } else { Vec::new() };
        Self {
            id: 0,
            kind,
            place: place.to_owned(),
            battery: String::new(),
            battery_on: None,
            contact: controller.capability.contact,
            jumper_removed: false,
            input: 1,
            exempt,
            proven: None,
        }
    }

    /// Whether it holds watering by a contact. An ET sensor does not: it sets percents.
    #[must_use]
    pub const fn has_contact(&self) -> bool {
        !matches!(self.kind, SensorKind::Et { .. })
    }

    /// Whether a station obeys it.
    #[must_use]
    pub fn governs(&self, station: u8) -> bool {
        !self.exempt.contains(&station)
    }

    /// Whether its contact fits what the controller takes for at rest.
    #[must_use]
    pub fn fits(&self, controller: &Controller) -> bool {
        self.contact == controller.capability.contact
    }

    /// Whether the sensor is valid on this controller.
    ///
    /// # Errors
    /// [`SensorError`] for the first thing that is not valid.
    pub fn check(&self, controller: &Controller) -> Result<(), SensorError> {
        self.check_fields()?;
        let inputs = controller.capability.sensor_inputs;
        if !(1..=inputs).contains(&self.input) {
            return Err(SensorError::NoSuchInput { input: self.input, inputs });
        }
        if let Some(number) = self.exempt.iter().find(|n| controller.station(**n).is_none()) {
            return Err(SensorError::NoSuchStation(*number));
        }
        match &self.kind {
            SensorKind::Rain { thresholds_mm, setting } => {
                check_settings(thresholds_mm, setting.threshold_mm)?;
            }
            SensorKind::Freeze { thresholds_c, threshold_c } => check_settings(thresholds_c, *threshold_c)?,
            SensorKind::SoilMoisture { readings, .. } => {
                for reading in readings {
                    range::SOIL_READING.check(reading.percent)?;
                }
                if readings.len() > limit::READINGS || !readings.windows(2).all(|pair| pair[0].at < pair[1].at) {
                    return Err(SensorError::Readings);
                }
                for reading in readings {
                    check_date(reading.at.date()).map_err(SensorError::ReadingDate)?;
                }
            }
            SensorKind::Et { setting, programs } => {
                setting.check()?;
                if let Some(letter) = programs.iter().find(|l| controller.program(**l).is_none()) {
                    return Err(SensorError::NoSuchProgram(*letter));
                }
            }
        }
        Ok(())
    }
}

fn check_settings(settings: &[f64], set: f64) -> Result<(), SensorError> {
    if settings.is_empty() || !settings.windows(2).all(|p| p[0] < p[1]) {
        return Err(SensorError::Settings);
    }
    if settings.contains(&set) { Ok(()) } else { Err(SensorError::NoSuchSetting) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::{Preset, Station};
    use crate::landscape::{Plant, SprinklerType};
    use crate::sensor::Disc;

    fn controller() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Plain.capability());
        c.stations = vec![
            Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray),
            Station { roofed: true, ..Station::plain(2, "Court", Plant::Shrubs, SprinklerType::Spray) },
        ];
        c
    }

    #[test]
    fn stations_under_a_roof_are_proposed_as_exempt_from_rain_alone() {
        let c = controller();
        let rain = Sensor::proposed(SensorKind::common_rain(), "Shed", &c);
        assert_eq!((rain.governs(1), rain.governs(2)), (true, false));
        assert!(Sensor::proposed(SensorKind::common_freeze(), "Shed", &c).governs(2));
        assert_eq!(rain.check(&c), Ok(()));
    }

    #[test]
    fn what_a_sensor_does_not_have_cannot_be_set() {
        let c = controller();
        let good = Sensor::proposed(SensorKind::common_rain(), "Shed", &c);
        let rain = |thresholds_mm: [f64; 2], threshold_mm| SensorKind::Rain {
            thresholds_mm: thresholds_mm.to_vec(),
            setting: RainSetting { threshold_mm, ..RainSetting::USUAL },
        };
        let seven = rain([3.0, 6.0], 7.0);
        assert_eq!(Sensor { kind: seven, ..good.clone() }.check(&c), Err(SensorError::NoSuchSetting));
        let falling = rain([6.0, 3.0], 3.0);
        assert_eq!(Sensor { kind: falling, ..good.clone() }.check(&c), Err(SensorError::Settings));
        let disc = Disc { capacity_mm: 1.0, ..Disc::USUAL };
        let thimble =
            SensorKind::Rain { thresholds_mm: vec![13.0], setting: RainSetting { disc, ..RainSetting::USUAL } };
        let refused = Sensor { kind: thimble, ..good.clone() }.check(&c);
        assert!(
            matches!(refused, Err(SensorError::Field(FieldFault { field: "disc_capacity_mm", .. }))),
            "{refused:?}"
        );
        assert_eq!(
            Sensor { input: 2, ..good.clone() }.check(&c),
            Err(SensorError::NoSuchInput { input: 2, inputs: 1 })
        );
        assert_eq!(Sensor { exempt: vec![9], ..good }.check(&c), Err(SensorError::NoSuchStation(9)));
    }
}
