//! What every setting of a sensor would have done in the weather on record.

mod et;
mod freeze;
mod rain;
mod soil;

use crate::context::WeatherDay;
use chrono::NaiveDate;
use upland_core::controller::Controller;
use upland_core::schedule::{Grouping, propose};
use upland_core::sensor::{Sensor, SensorKind, rain_holds, temperature_at};

use crate::context::ControllerContext;
use crate::show::Units;

use et::EtView;
use freeze::{FreezeView, first_start, sunrise_hour};
use rain::{RainChoice, RainView, open_days};
use soil::SoilView;

/// What stands beside the form of a sensor.
#[derive(Debug, Clone)]
pub(crate) enum ReplayView {
    Rain(Box<RainView>),
    Freeze(FreezeView),
    Et(EtView),
    Soil(SoilView),
    /// There is no weather on record.
    NoWeather,
}

/// Everything that a replay looks at.
pub(crate) struct ReplayInput<'a> {
    pub(crate) context: &'a ControllerContext,
    pub(crate) days: &'a [WeatherDay],
    pub(crate) today: NaiveDate,
    pub(crate) units: Units,
}

impl ReplayView {
    pub(crate) fn of(sensor: &Sensor, input: &ReplayInput<'_>) -> Self {
        match &sensor.kind {
            SensorKind::Rain { .. } if input.days.is_empty() => Self::NoWeather,
            SensorKind::Freeze { .. } if input.days.is_empty() => Self::NoWeather,
            SensorKind::Rain { thresholds_mm, setting } => {
                Self::Rain(Box::new(RainView::of(sensor, &RainChoice { thresholds_mm, setting: *setting }, input)))
            }
            SensorKind::Freeze { thresholds_c, threshold_c } => {
                Self::Freeze(FreezeView::of(sensor, thresholds_c, *threshold_c, input))
            }
            SensorKind::SoilMoisture { readings, threshold_pct } => {
                Self::Soil(SoilView::of(sensor, readings, threshold_pct.is_some(), input))
            }
            SensorKind::Et { setting, programs } => match input.context.normals() {
                Ok(normals) => Self::Et(EtView::of(setting, programs, input, normals)),
                Err(_) => Self::NoWeather,
            },
        }
    }
}

/// The controller with its schedule, or with the proposed one while it has none.
fn scheduled(context: &ControllerContext, first: NaiveDate) -> Controller {
    let c = context.controller();
    let mut c = if c.programs.iter().all(|p| p.schedule.is_idle()) {
        propose(&context.situation(first), c, Grouping::Keep).controller
    } else {
        c.clone()
    };
    c.temporaries.clear();
    c
}

/// For each sensor of a controller, whether the weather says that it held watering on a date.
pub(crate) fn held_on(context: &ControllerContext, days: &[WeatherDay], date: NaiveDate) -> Vec<(u16, Option<bool>)> {
    let on_record = days.iter().position(|d| d.date == date);
    let open = open_days(context, days);
    let held = |sensor: &Sensor| {
        let index = on_record?;
        match &sensor.kind {
            SensorKind::Rain { setting, .. } => rain_holds(&open, setting).0.get(index).copied(),
            SensorKind::Freeze { threshold_c, .. } => {
                let day = days.get(index)?;
                let hour = f64::from(first_start(context.controller()).minute_of_day()) / 60.0;
                let air = temperature_at(hour, sunrise_hour(context, date), day.tmin_c?, day.tmax_c?);
                Some(air < *threshold_c)
            }
            SensorKind::SoilMoisture { .. } | SensorKind::Et { .. } => None,
        }
    };
    context.controller().sensors.iter().map(|sensor| (sensor.id, held(sensor))).collect()
}
