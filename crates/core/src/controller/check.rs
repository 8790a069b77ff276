//! Whether a controller is valid.

use super::days::DayMode;
use super::errors::{ControllerError, RunError, ScheduleError, TemporaryError};
use super::hours::windows_fit;
use super::model::{Controller, MonthDial, Program};
use super::station::Station;
use super::temporary::{Temporary, TemporaryKind};
use crate::field::{Fields, check_date};
use crate::quantity::{MonthOfYear, RunTime, limit};

impl Controller {
    /// Whether the controller is valid.
    ///
    /// # Errors
    /// [`ControllerError`] for the first thing that is not valid; nothing is changed.
    pub fn check(&self) -> Result<(), ControllerError> {
        self.check_fields().map_err(ControllerError::Field)?;
        self.capability.checked()?;
        for (index, station) in self.stations.iter().enumerate() {
            if self.stations[..index].iter().any(|s| s.number == station.number) {
                return Err(ControllerError::StationTwice(station.number));
            }
            self.check_station(station)?;
        }
        for (index, program) in self.programs.iter().enumerate() {
            if self.programs[..index].iter().any(|p| p.letter == program.letter) {
                return Err(ControllerError::ProgramTwice(program.letter));
            }
            self.check_program(program)?;
            self.check_schedule(program)?;
        }
        if self.station_delay > self.capability.station_delay_max {
            return Err(ControllerError::StationDelay(self.capability.station_delay_max.seconds()));
        }
        let most = self.capability.water_windows;
        if !windows_fit(&self.windows, most) {
            return Err(ControllerError::WaterWindows(most));
        }
        if self.sensors.len() > limit::SENSORS {
            return Err(ControllerError::TooManySensors(self.sensors.len()));
        }
        for (index, sensor) in self.sensors.iter().enumerate() {
            let id = sensor.id;
            if id == 0 || self.sensors[..index].iter().any(|s| s.id == id) {
                return Err(ControllerError::SensorId(id));
            }
            sensor.check(self).map_err(|error| ControllerError::Sensor { id, error })?;
        }
        if self.temporaries.len() > limit::TEMPORARIES {
            return Err(ControllerError::TooManyTemporaries(self.temporaries.len()));
        }
        for (index, temporary) in self.temporaries.iter().enumerate() {
            let id = temporary.id;
            if id == 0 || self.temporaries[..index].iter().any(|t| t.id == id) {
                return Err(ControllerError::TemporaryId(id));
            }
            self.check_temporary(temporary).map_err(|what| ControllerError::Temporary { id, what })?;
        }
        Ok(())
    }

    fn check_schedule(&self, program: &Program) -> Result<(), ControllerError> {
        let c = &self.capability;
        let letter = program.letter;
        if letter.index() >= usize::from(c.programs) {
            return Err(ControllerError::NoSuchLetter { letter, programs: c.programs });
        }
        let s = &program.schedule;
        if let DayMode::Every { next, .. } = s.days {
            check_date(next).map_err(|_| ControllerError::Schedule { letter, what: ScheduleError::Date })?;
        }
        let sorted = s.starts.windows(2).all(|pair| pair[0] < pair[1]);
        let what = if s.starts.len() > usize::from(c.starts) {
            Some(ScheduleError::TooManyStarts { starts: s.starts.len(), allowed: c.starts })
        } else if s.starts.iter().any(|t| !t.is_on(c.start_step)) {
            Some(ScheduleError::StartStep(c.start_step))
        } else if program.by_hand && !s.starts.is_empty() {
            Some(ScheduleError::ByHand)
        } else if !sorted {
            Some(ScheduleError::StartTwice)
        } else if !(1..=c.starts).contains(&s.split) {
            Some(ScheduleError::Split(c.starts))
        } else if !s.never.is_empty() && !c.never_days {
            Some(ScheduleError::NeverDays)
        } else {
            match s.days {
                DayMode::Odd | DayMode::Even if !c.day_modes.odd_even => Some(ScheduleError::DayMode),
                DayMode::Every { .. } if c.day_modes.every_max == 0 => Some(ScheduleError::DayMode),
                DayMode::Every { days, .. } if !(1..=c.day_modes.every_max).contains(&days) => {
                    Some(ScheduleError::Every(c.day_modes.every_max))
                }
                _ => None,
            }
        };
        what.map_or(Ok(()), |what| Err(ControllerError::Schedule { letter, what }))
    }

    fn check_run(&self, station: &Station) -> Option<RunError> {
        let c = &self.capability;
        let step = c.run_step.seconds().max(1);
        let set = station.minutes.into_iter().chain(station.cycle.map(|c| c.cycle));
        for run in set {
            if run > c.run_max {
                return Some(RunError::TooLong(c.run_max.seconds() / 60));
            }
            if !run.seconds().is_multiple_of(step) {
                return Some(RunError::Step(step));
            }
        }
        match station.cycle {
            Some(_) if !c.cycle_soak => Some(RunError::NoCycles),
            Some(set) if set.cycle == RunTime::ZERO => Some(RunError::Cycle),
            Some(set) if station.minutes.is_some_and(|run| too_many_cycles(run, set.cycle)) => {
                Some(RunError::TooManyCycles(limit::CYCLES))
            }
            _ if station.also == Some(station.program) => Some(RunError::AlsoSame),
            _ => None,
        }
    }

    fn check_temporary(&self, temporary: &Temporary) -> Result<(), TemporaryError> {
        temporary.check_fields()?;
        let days = (temporary.until - temporary.since).num_days();
        if !(0..=366).contains(&days) {
            return Err(TemporaryError::End);
        }
        match temporary.kind {
            TemporaryKind::Percent { percent, .. } | TemporaryKind::GrowIn { percent, .. }
                if !self.capability.can_dial(percent) =>
            {
                Err(TemporaryError::Percent)
            }
            TemporaryKind::GrowIn { letter, .. } if self.program(letter).is_none() => Err(TemporaryError::Program),
            TemporaryKind::GrowIn { starts, from, to, .. } => {
                let has_starts = (1..=self.capability.starts).contains(&starts);
                if has_starts && from <= to { Ok(()) } else { Err(TemporaryError::GrowIn(self.capability.starts)) }
            }
            TemporaryKind::Percent { letter: Some(letter), .. }
            | TemporaryKind::Weaning { letter: Some(letter), .. }
                if self.program(letter).is_none() =>
            {
                Err(TemporaryError::Program)
            }
            TemporaryKind::Weaning { extra_pct, step_pct, .. } => {
                let weeks = temporary.kind.weeks_of_weaning().filter(|_| step_pct <= extra_pct);
                if days < 7 * i64::from(weeks.ok_or(TemporaryError::Weaning)?) {
                    Ok(())
                } else {
                    Err(TemporaryError::Weaning)
                }
            }
            TemporaryKind::RainDelay if days + 1 > i64::from(self.capability.rain_delay_max) => {
                Err(TemporaryError::RainDelay(self.capability.rain_delay_max))
            }
            TemporaryKind::Bypass { sensor } if self.sensor(sensor).is_none() => Err(TemporaryError::Sensor),
            _ => Ok(()),
        }
    }

    fn check_station(&self, station: &Station) -> Result<(), ControllerError> {
        let number = station.number;
        if !(1..=self.capability.stations).contains(&number) {
            return Err(ControllerError::NoSuchTerminal { number, stations: self.capability.stations });
        }
        station.check_fields().map_err(|fault| ControllerError::Station { number, fault })?;
        for letter in std::iter::once(station.program).chain(station.also) {
            if self.program(letter).is_none() {
                return Err(ControllerError::NoSuchProgram { number, letter });
            }
        }
        station.check_root_zone().map_err(|what| ControllerError::RootZone { number, what })?;
        if let Some(what) = self.check_run(station) {
            return Err(ControllerError::Run { number, what });
        }
        Ok(())
    }

    fn check_program(&self, program: &Program) -> Result<(), ControllerError> {
        let c = &self.capability;
        let letter = program.letter;
        program.check_fields().map_err(|fault| ControllerError::Program { letter, fault })?;
        let waterings = program.months.iter().filter_map(|m| m.waterings).chain(program.waterings_per_week);
        if let Some(waterings) = waterings.into_iter().find(|w| !(1..=c.watering_days).contains(w)) {
            return Err(ControllerError::TooManyWaterings { letter, waterings, allowed: c.watering_days });
        }
        for (month, plan) in MonthOfYear::ALL.into_iter().zip(&program.months) {
            if let MonthDial::Set(percent) = plan.dial
                && !c.can_dial(percent)
            {
                let (step, min, max) = (c.percent_step.get(), c.percent_min.get(), c.percent_max.get());
                return Err(ControllerError::CannotDial { letter, month, percent, step, min, max });
            }
        }
        Ok(())
    }
}

/// Whether minutes at 100 % would be cut into more cycles than a run may have.
const fn too_many_cycles(run: RunTime, cycle: RunTime) -> bool {
    run.seconds().div_ceil(cycle.seconds()) > limit::CYCLES
}
