//! The sensors of a controller, and what they take off the technician's hands.

use super::letter::ProgramLetter;
use super::model::{Controller, next_id};
use super::temporary::TemporaryKind;
use crate::sensor::{EtSetting, Sensor, SensorKind};

impl Controller {
    /// Whether an ET sensor sets a program's percent every night, so that nobody dials it by month.
    #[must_use]
    pub fn percent_by_sensor(&self, letter: ProgramLetter) -> bool {
        self.et_sensor_of(letter).is_some()
    }

    /// Whether a person starts each run of a program.
    #[must_use]
    pub fn is_by_hand(&self, letter: ProgramLetter) -> bool {
        self.program(letter).is_some_and(|p| p.by_hand)
    }

    /// Whether somebody dials the percent of a program: neither does a sensor set it, nor is it watered by hand.
    #[must_use]
    pub fn percent_is_dialled(&self, letter: ProgramLetter) -> bool {
        !self.percent_by_sensor(letter) && !self.is_by_hand(letter)
    }

    /// The ET sensor that sets a program, by its id and how it is set; nothing where none does.
    #[must_use]
    pub fn et_sensor_of(&self, letter: ProgramLetter) -> Option<(u16, &EtSetting)> {
        self.sensors.iter().find_map(|s| match &s.kind {
            SensorKind::Et { setting, programs } if programs.contains(&letter) => Some((s.id, setting)),
            _ => None,
        })
    }

    /// Reference ET that the base minutes of a program under an ET sensor are for, mm a day; nothing where no
    /// sensor sets it.
    #[must_use]
    pub fn et_reference_mm_per_day(&self, letter: ProgramLetter) -> Option<f64> {
        self.et_sensor_of(letter).map(|(_, setting)| setting.minutes_reference_mm_per_day())
    }

    /// Whether something that can act holds a program back for rain, or scales it: a rain or soil sensor
    /// that governs one of its stations, or an ET sensor. Such a program does not count rain by month.
    #[must_use]
    pub fn rain_is_sensed(&self, letter: ProgramLetter) -> bool {
        self.sensors.iter().any(|s| match &s.kind {
            SensorKind::Rain { .. } | SensorKind::SoilMoisture { .. } => {
                s.jumper_removed
                    && s.fits(self)
                    && self.stations.iter().any(|st| st.program == letter && !st.roofed && s.governs(st.number))
            }
            SensorKind::Et { programs, .. } => programs.contains(&letter),
            SensorKind::Freeze { .. } => false,
        })
    }

    /// The sensor of an id.
    #[must_use]
    pub fn sensor(&self, id: u16) -> Option<&Sensor> {
        self.sensors.iter().find(|s| s.id == id)
    }

    /// How the ET sensor of an id is set; nothing where there is none, or another kind.
    #[must_use]
    pub fn et_setting(&self, id: u16) -> Option<&EtSetting> {
        match &self.sensor(id)?.kind {
            SensorKind::Et { setting, .. } => Some(setting),
            _ => None,
        }
    }

    /// The same, to be changed.
    pub(crate) fn et_setting_mut(&mut self, id: u16) -> Option<&mut EtSetting> {
        match &mut self.sensors.iter_mut().find(|s| s.id == id)?.kind {
            SensorKind::Et { setting, .. } => Some(setting),
            _ => None,
        }
    }

    /// Adds a sensor under an id that no other sensor has, and gives that id.
    pub fn add_sensor(&mut self, sensor: Sensor) -> u16 {
        let id = next_id(self.sensors.iter().map(|s| s.id));
        self.sensors.push(Sensor { id, ..sensor });
        id
    }

    /// Removes a sensor, its bypass with it.
    pub fn remove_sensor(&mut self, id: u16) {
        self.sensors.retain(|s| s.id != id);
        self.temporaries.retain(|t| t.kind != TemporaryKind::Bypass { sensor: id });
    }
}
