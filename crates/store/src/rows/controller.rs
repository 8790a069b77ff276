use chrono::NaiveDate;
use diesel::prelude::*;
use upland_core::controller::{
    BaseMonth, Capability, Contact, Controller, DayMode, DayModes, MonthPlan, PercentScope, PercentStorage, Program,
    Schedule, Station,
};
use upland_core::landscape::{CycleSoak, Plant, Slope, Soil, Sprinkler, SprinklerType, Sun};
use upland_core::quantity::{MonthOfYear, OutOfRange, Percent, RateMmPerHour, RunTime};
use upland_core::word::{Word, WordError, dial_of, dial_word, plant_of, plant_word};
use uuid::Uuid;

use super::convert::{broken, letter, short, small};
use super::place::{bits, days, minute, time};
use super::sensor::{SensorRow, TemporaryRow};
use crate::error::StoreError;
use crate::model::ControllerRecord;
use crate::schema::{controllers, month_plans, programs, stations};

#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = controllers, treat_none_as_null = true)]
pub(crate) struct ControllerRow {
    account_id: Uuid,
    pub(crate) id: Uuid,
    place_id: Uuid,
    name: String,
    station_count: i16,
    percent_min: i16,
    percent_max: i16,
    percent_step: i16,
    percent_storage: String,
    percent_scope: String,
    run_step_s: i32,
    run_max_s: i32,
    watering_days: i16,
    base_month: Option<i16>,
    program_count: i16,
    start_count: i16,
    start_step_min: i16,
    odd_even: bool,
    every_max_days: i16,
    has_never_days: bool,
    cycle_soak: bool,
    station_delay_max_s: i32,
    sensor_inputs: i16,
    contact: String,
    rain_delay_max_days: i16,
    station_delay_s: i32,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = programs)]
pub(crate) struct ProgramRow {
    account_id: Uuid,
    pub(crate) controller_id: Uuid,
    letter: String,
    name: String,
    waterings_per_week: Option<i16>,
    count_rain: bool,
    day_mode: String,
    weekdays: i16,
    every_days: Option<i16>,
    every_next: Option<NaiveDate>,
    never_days: i16,
    starts_min: Vec<i16>,
    split: i16,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = month_plans)]
pub(crate) struct MonthPlanRow {
    account_id: Uuid,
    pub(crate) controller_id: Uuid,
    letter: String,
    month: i16,
    dial: String,
    waterings: Option<i16>,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = stations)]
pub(crate) struct StationRow {
    account_id: Uuid,
    pub(crate) controller_id: Uuid,
    number: i16,
    name: String,
    letter: String,
    plant: String,
    coefficient: Option<f64>,
    sprinkler: String,
    rate_mm_per_h: Option<f64>,
    uniformity: Option<f64>,
    soil: String,
    sun: String,
    roofed: bool,
    area_m2: Option<f64>,
    slope: String,
    run_s: Option<i32>,
    cycle_s: Option<i32>,
    soak_s: Option<i32>,
    also_letter: Option<String>,
}

fn long(seconds: u32) -> i32 {
    i32::try_from(seconds).unwrap_or(i32::MAX)
}

impl ControllerRow {
    pub(crate) fn new(account_id: Uuid, id: Uuid, record: &ControllerRecord) -> Self {
        let c = &record.controller;
        let k = &c.capability;
        Self {
            account_id,
            id,
            place_id: record.place_id,
            name: c.name.clone(),
            station_count: i16::from(k.stations),
            percent_min: short(k.percent_min.get()),
            percent_max: short(k.percent_max.get()),
            percent_step: short(k.percent_step.get()),
            percent_storage: k.percent_storage.word().to_owned(),
            percent_scope: k.percent_scope.word().to_owned(),
            run_step_s: long(k.run_step.seconds()),
            run_max_s: long(k.run_max.seconds()),
            watering_days: i16::from(k.watering_days),
            base_month: match c.base_month {
                BaseMonth::Peak => None,
                BaseMonth::Month(month) => Some(i16::from(month.number())),
            },
            program_count: i16::from(k.programs),
            start_count: i16::from(k.starts),
            start_step_min: short(k.start_step),
            odd_even: k.day_modes.odd_even,
            every_max_days: i16::from(k.day_modes.every_max),
            has_never_days: k.never_days,
            cycle_soak: k.cycle_soak,
            station_delay_max_s: long(k.station_delay_max.seconds()),
            sensor_inputs: i16::from(k.sensor_inputs),
            contact: k.contact.word().to_owned(),
            rain_delay_max_days: i16::from(k.rain_delay_max),
            station_delay_s: long(c.station_delay.seconds()),
        }
    }

    fn capability(&self) -> Result<Capability, StoreError> {
        let percent = |value: i16| -> Result<Percent, StoreError> {
            Percent::new(small(i32::from(value))?).map_err(|e: OutOfRange| broken(e))
        };
        Ok(Capability {
            stations: small(i32::from(self.station_count))?,
            percent_min: percent(self.percent_min)?,
            percent_max: percent(self.percent_max)?,
            percent_step: percent(self.percent_step)?,
            percent_storage: PercentStorage::of_word(&self.percent_storage).map_err(broken)?,
            percent_scope: PercentScope::of_word(&self.percent_scope).map_err(broken)?,
            run_step: RunTime::from_seconds(small(self.run_step_s)?),
            run_max: RunTime::from_seconds(small(self.run_max_s)?),
            watering_days: small(i32::from(self.watering_days))?,
            programs: small(i32::from(self.program_count))?,
            starts: small(i32::from(self.start_count))?,
            start_step: small(i32::from(self.start_step_min))?,
            day_modes: DayModes { odd_even: self.odd_even, every_max: small(i32::from(self.every_max_days))? },
            never_days: self.has_never_days,
            cycle_soak: self.cycle_soak,
            station_delay_max: RunTime::from_seconds(small(self.station_delay_max_s)?),
            sensor_inputs: small(i32::from(self.sensor_inputs))?,
            contact: Contact::of_word(&self.contact).map_err(broken)?,
            rain_delay_max: small(i32::from(self.rain_delay_max_days))?,
        })
    }
}

impl ProgramRow {
    pub(crate) fn of(account_id: Uuid, controller_id: Uuid, controller: &Controller) -> Vec<Self> {
        let row = |p: &Program| Self {
            account_id,
            controller_id,
            letter: p.letter.get().to_string(),
            name: p.name.clone(),
            waterings_per_week: p.waterings_per_week.map(i16::from),
            count_rain: p.count_rain,
            day_mode: match p.schedule.days {
                DayMode::Weekdays(_) => "weekdays",
                DayMode::Odd => "odd",
                DayMode::Even => "even",
                DayMode::Every { .. } => "every",
            }
            .to_owned(),
            weekdays: match p.schedule.days {
                DayMode::Weekdays(days) => bits(days),
                _ => 0,
            },
            every_days: match p.schedule.days {
                DayMode::Every { days, .. } => Some(i16::from(days)),
                _ => None,
            },
            every_next: match p.schedule.days {
                DayMode::Every { next, .. } => Some(next),
                _ => None,
            },
            never_days: bits(p.schedule.never),
            starts_min: p.schedule.starts.iter().map(|s| minute(*s)).collect(),
            split: i16::from(p.schedule.split),
        };
        controller.programs.iter().map(row).collect()
    }

    fn schedule(&self) -> Result<Schedule, StoreError> {
        Ok(Schedule {
            days: match (self.day_mode.as_str(), self.every_days, self.every_next) {
                ("odd", ..) => DayMode::Odd,
                ("even", ..) => DayMode::Even,
                ("every", Some(days), Some(next)) => DayMode::Every { days: small(i32::from(days))?, next },
                _ => DayMode::Weekdays(days(self.weekdays)),
            },
            never: days(self.never_days),
            starts: self.starts_min.iter().map(|m| time(*m)).collect::<Result<_, _>>()?,
            split: small(i32::from(self.split))?,
        })
    }
}

impl MonthPlanRow {
    /// Rows for the months that hold a decision.
    pub(crate) fn of(account_id: Uuid, controller_id: Uuid, controller: &Controller) -> Vec<Self> {
        let mut rows = Vec::new();
        for program in &controller.programs {
            for (month, plan) in (1i16..).zip(&program.months) {
                if *plan != MonthPlan::default() {
                    rows.push(Self {
                        account_id,
                        controller_id,
                        letter: program.letter.get().to_string(),
                        month,
                        dial: dial_word(plan.dial),
                        waterings: plan.waterings.map(i16::from),
                    });
                }
            }
        }
        rows
    }
}

impl StationRow {
    pub(crate) fn of(account_id: Uuid, controller_id: Uuid, controller: &Controller) -> Vec<Self> {
        let row = |s: &Station| Self {
            account_id,
            controller_id,
            number: i16::from(s.number),
            name: s.name.clone(),
            letter: s.program.get().to_string(),
            plant: plant_word(s.plant).to_owned(),
            coefficient: match s.plant {
                Plant::Coefficient(k) => Some(k.get()),
                _ => None,
            },
            sprinkler: s.sprinkler.kind.word().to_owned(),
            rate_mm_per_h: s.sprinkler.rate.map(RateMmPerHour::get),
            uniformity: s.sprinkler.uniformity,
            soil: s.soil.word().to_owned(),
            sun: s.sun.word().to_owned(),
            roofed: s.roofed,
            area_m2: s.area_m2,
            slope: s.slope.word().to_owned(),
            run_s: s.minutes.map(|m| long(m.seconds())),
            cycle_s: s.cycle.map(|c| long(c.cycle.seconds())),
            soak_s: s.cycle.map(|c| long(c.soak.seconds())),
            also_letter: s.also.map(|l| l.get().to_string()),
        };
        controller.stations.iter().map(row).collect()
    }

    fn station(&self) -> Result<Station, StoreError> {
        Ok(Station {
            number: small(i32::from(self.number))?,
            name: self.name.clone(),
            program: letter(&self.letter)?,
            plant: plant_of(&self.plant, self.coefficient).map_err(broken)?,
            sprinkler: Sprinkler {
                kind: SprinklerType::of_word(&self.sprinkler).map_err(broken)?,
                rate: self.rate_mm_per_h.map(RateMmPerHour::new).transpose().map_err(broken)?,
                uniformity: self.uniformity,
            },
            soil: Soil::of_word(&self.soil).map_err(broken)?,
            sun: Sun::of_word(&self.sun).map_err(broken)?,
            roofed: self.roofed,
            area_m2: self.area_m2,
            slope: Slope::of_word(&self.slope).map_err(broken)?,
            minutes: self.run_s.map(run).transpose()?,
            cycle: match (self.cycle_s, self.soak_s) {
                (Some(cycle), Some(soak)) => Some(CycleSoak { cycle: run(cycle)?, soak: run(soak)? }),
                _ => None,
            },
            also: self.also_letter.as_deref().map(letter).transpose()?,
        })
    }
}

fn run(seconds: i32) -> Result<RunTime, StoreError> {
    Ok(RunTime::from_seconds(small(seconds)?))
}

/// Puts a controller together from its rows; the slices may hold other controllers' rows too.
pub(crate) fn assemble(
    row: &ControllerRow,
    programs: &[ProgramRow],
    plans: &[MonthPlanRow],
    stations: &[StationRow],
    (sensors, temporaries): (&[SensorRow], &[TemporaryRow]),
) -> Result<ControllerRecord, StoreError> {
    let mut controller = Controller {
        name: row.name.clone(),
        capability: row.capability()?,
        base_month: match row.base_month {
            None => BaseMonth::Peak,
            Some(number) => {
                let month = MonthOfYear::new(small(i32::from(number))?);
                BaseMonth::Month(month.ok_or_else(|| StoreError::BrokenRow(format!("month {number}")))?)
            }
        },
        programs: Vec::new(),
        stations: stations
            .iter()
            .filter(|s| s.controller_id == row.id)
            .map(StationRow::station)
            .collect::<Result<_, _>>()?,
        station_delay: run(row.station_delay_s)?,
        sensors: sensors
            .iter()
            .filter(|s| s.controller_id == row.id)
            .map(SensorRow::sensor)
            .collect::<Result<_, _>>()?,
        temporaries: temporaries
            .iter()
            .filter(|t| t.controller_id == row.id)
            .map(TemporaryRow::temporary)
            .collect::<Result<_, _>>()?,
    };
    for program in programs.iter().filter(|p| p.controller_id == row.id) {
        let mut months = [MonthPlan::default(); 12];
        for plan in plans.iter().filter(|m| m.controller_id == row.id && m.letter == program.letter) {
            let dial = dial_of(&plan.dial).map_err(|e: WordError| broken(e))?;
            let waterings = plan.waterings.map(|w| small(i32::from(w))).transpose()?;
            if let Some(slot) = months.get_mut(usize::try_from(plan.month - 1).unwrap_or(usize::MAX)) {
                *slot = MonthPlan { dial, waterings };
            }
        }
        controller.programs.push(Program {
            letter: letter(&program.letter)?,
            name: program.name.clone(),
            waterings_per_week: program.waterings_per_week.map(|w| small(i32::from(w))).transpose()?,
            count_rain: program.count_rain,
            months,
            schedule: program.schedule()?,
        });
    }
    controller.programs.sort_by_key(|p| p.letter);
    controller.stations.sort_by_key(|s| s.number);
    Ok(ControllerRecord { place_id: row.place_id, controller })
}
