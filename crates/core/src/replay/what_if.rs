use crate::budget::Dial;
use crate::controller::{Controller, DayMode, MonthDial, ProgramLetter, even_days};
use crate::place::Bound;
use crate::quantity::{MonthOfYear, RunTime};
use crate::schedule::Plan;
use crate::sensor::{RainSetting, Sensor, SensorKind};

/// Another setting of some programs: what a technician tries before dialling it in.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct WhatIf {
    /// Percents of the twelve months; none for those that are planned.
    pub percents: Option<[Dial; 12]>,
    /// All percents times this share; none for as they are.
    pub scale: Option<f64>,
    /// Waterings a week, as evenly as the rules let them; none for the days that are set.
    pub days: Option<u8>,
    /// A rain sensor at this setting in place of the controller's own.
    pub rain: RainChange,
    /// Other minutes at 100 % of a station, by its number.
    pub minutes: Option<(u8, RunTime)>,
}

/// What becomes of the rain sensor.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub enum RainChange {
    /// It stays as it is.
    #[default]
    Keep,
    /// It is switched off, or there is none.
    Without,
    /// It is set so; where there is none, one is fitted.
    Set(RainSetting),
}

impl WhatIf {
    /// Whether nothing is tried.
    #[must_use]
    pub fn is_nothing(&self) -> bool {
        *self == Self::default()
    }

    /// The controller with the programs of these letters set so. Percents go to the panel's steps.
    #[must_use]
    pub fn applied(
        &self,
        controller: &Controller,
        plan: &Plan,
        rules: &Bound,
        letters: &[ProgramLetter],
    ) -> Controller {
        let mut c = controller.clone();
        let capability = c.capability;
        for program in c.programs.iter_mut().filter(|p| letters.contains(&p.letter)) {
            for month in MonthOfYear::ALL {
                let tried = self.percents.map_or_else(|| plan.dial(program.letter, month), |p| p[month.index()]);
                let dial = match (tried, self.scale) {
                    (Dial::Off, _) => MonthDial::Off,
                    (Dial::Percent(percent), Some(scale)) => {
                        MonthDial::Set(capability.dial(f64::from(percent.get()) * scale))
                    }
                    (Dial::Percent(percent), None) => MonthDial::Set(percent),
                };
                if self.percents.is_some() || self.scale.is_some() {
                    program.months[month.index()].dial = dial;
                }
            }
            if let Some(days) = self.days {
                program.schedule.days = DayMode::Weekdays(even_days(rules.days_all_year(), days));
                program.waterings_per_week = Some(days.clamp(1, capability.watering_days));
            }
        }
        if let Some((number, minutes)) = self.minutes
            && let Some(station) = c.stations.iter_mut().find(|s| s.number == number)
        {
            station.minutes = Some(minutes);
        }
        match self.rain {
            RainChange::Keep => {}
            RainChange::Without => {
                c.sensors.retain(|s| !matches!(s.kind, SensorKind::Rain { .. }));
            }
            RainChange::Set(setting) => set_rain(&mut c, setting),
        }
        c
    }
}

fn set_rain(c: &mut Controller, setting: RainSetting) {
    let contact = c.capability.contact;
    if !c.sensors.iter().any(|s| matches!(s.kind, SensorKind::Rain { .. })) {
        // Where it is fitted is decided on the spot; until then it has the name of what it is.
        let fitted = Sensor::proposed(SensorKind::common_rain(), "rain", c);
        c.add_sensor(fitted);
    }
    for sensor in &mut c.sensors {
        if let SensorKind::Rain { thresholds_mm, setting: own } = &mut sensor.kind {
            if !thresholds_mm.contains(&setting.threshold_mm) {
                thresholds_mm.push(setting.threshold_mm);
                thresholds_mm.sort_by(f64::total_cmp);
            }
            *own = setting;
            // What is tried is a sensor that works.
            (sensor.jumper_removed, sensor.contact) = (true, contact);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::{Days, Preset, Schedule, StartTime, Station};
    use crate::landscape::{Plant, SprinklerType};
    use crate::quantity::Percent;
    use crate::sensor::Vent;

    fn cabinet() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
        c.stations = vec![Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray)];
        c.programs[0].schedule = Schedule {
            days: DayMode::Weekdays(Days::ALL),
            starts: vec![StartTime::new(270).unwrap()],
            ..Schedule::default()
        };
        c
    }

    #[test]
    fn what_is_tried_can_be_dialled() {
        let (c, a) = (cabinet(), [ProgramLetter::A]);
        let plan = Plan::of(&c, None);
        let tried = WhatIf { scale: Some(0.73), days: Some(2), ..WhatIf::default() };
        let changed = tried.applied(&c, &plan, &Bound::open(), &a);
        assert_eq!(changed.check(), Ok(()));
        // 100 % times 0.73, in fives.
        assert!(changed.programs[0].months.iter().all(|m| m.dial == MonthDial::Set(Percent::literal(75))));
        assert_eq!(changed.programs[0].schedule.waterings_a_week(), 2.0);
        assert!(WhatIf::default().is_nothing());
        assert_eq!(WhatIf::default().applied(&c, &plan, &Bound::open(), &a), c);
    }

    #[test]
    fn minutes_of_one_station_are_tried() {
        let (c, a) = (cabinet(), [ProgramLetter::A]);
        let plan = Plan::of(&c, None);
        let ten = RunTime::from_seconds(600);
        let tried = WhatIf { minutes: Some((1, ten)), ..WhatIf::default() };
        let changed = tried.applied(&c, &plan, &Bound::open(), &a);
        assert_eq!((changed.stations[0].minutes, changed.check()), (Some(ten), Ok(())));
        // A station that is not there changes nothing.
        let none = WhatIf { minutes: Some((9, ten)), ..WhatIf::default() };
        assert_eq!(none.applied(&c, &plan, &Bound::open(), &a), c);
    }

    #[test]
    fn a_rain_sensor_is_fitted_set_and_taken_away() {
        let (c, a) = (cabinet(), [ProgramLetter::A]);
        let plan = Plan::of(&c, None);
        let setting = RainSetting { threshold_mm: 6.0, delay_days: 1, vent: Vent::Open, ..RainSetting::USUAL };
        let with = WhatIf { rain: RainChange::Set(setting), ..WhatIf::default() };
        let fitted = with.applied(&c, &plan, &Bound::open(), &a);
        assert!(fitted.rain_is_sensed(ProgramLetter::A));
        let without = WhatIf { rain: RainChange::Without, ..WhatIf::default() };
        assert_eq!(without.applied(&fitted, &plan, &Bound::open(), &a), c);
    }
}
