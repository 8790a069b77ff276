//! The field table of a controller's capability.

use super::capability::{Capability, ClockFace, Contact, PanelOrder, PercentScope, PercentStorage, Preset, StartOff};
use crate::field::{Field, Fields, Value};
use crate::quantity::{Percent, RunTime, range};

fn percent(value: &Value) -> Option<Percent> {
    Percent::new(value.whole()?).ok()
}

fn seconds(value: &Value) -> Option<RunTime> {
    value.whole().map(RunTime::from_seconds)
}

/// A line of the table.
type F = Field<Capability>;

impl Fields for Capability {
    const NOUN: &'static str = "capability";

    const FIELDS: &'static [Field<Self>] = &[
        F::whole("stations", range::STATIONS, |c| c.stations.into(), |c, v| v.whole().map(|n| c.stations = n)),
        F::whole(
            "percent_min",
            range::PERCENT,
            |c| c.percent_min.get().into(),
            |c, v| percent(v).map(|p| c.percent_min = p),
        ),
        F::whole(
            "percent_max",
            range::PERCENT,
            |c| c.percent_max.get().into(),
            |c, v| percent(v).map(|p| c.percent_max = p),
        ),
        F::whole(
            "percent_step",
            range::PERCENT_STEP,
            |c| c.percent_step.get().into(),
            |c, v| percent(v).map(|p| c.percent_step = p),
        ),
        F::choice::<PercentStorage>(
            "percent_storage",
            |c| Value::word(c.percent_storage),
            |c, v| v.of_word().map(|w| c.percent_storage = w),
        ),
        F::choice::<PercentScope>(
            "percent_scope",
            |c| Value::word(c.percent_scope),
            |c, v| v.of_word().map(|w| c.percent_scope = w),
        ),
        F::whole(
            "run_step_s",
            range::RUN_STEP_SECONDS,
            |c| c.run_step.seconds().into(),
            |c, v| seconds(v).map(|s| c.run_step = s),
        ),
        F::whole(
            "run_max_s",
            range::RUN_MAX_SECONDS,
            |c| c.run_max.seconds().into(),
            |c, v| seconds(v).map(|s| c.run_max = s),
        ),
        F::whole(
            "watering_days",
            range::WATERING_DAYS,
            |c| c.watering_days.into(),
            |c, v| v.whole().map(|n| c.watering_days = n),
        ),
        F::whole("programs", range::PROGRAMS, |c| c.programs.into(), |c, v| v.whole().map(|n| c.programs = n))
            .defaulted(),
        F::whole("starts", range::STARTS, |c| c.starts.into(), |c, v| v.whole().map(|n| c.starts = n)).defaulted(),
        F::whole(
            "start_step_min",
            range::START_STEP,
            |c| c.start_step.into(),
            |c, v| v.whole().map(|n| c.start_step = n),
        )
        .defaulted(),
        F::flag("odd_even", |c| c.day_modes.odd_even.into(), |c, v| v.flag().map(|f| c.day_modes.odd_even = f))
            .defaulted(),
        F::whole(
            "every_max",
            range::EVERY_DAYS,
            |c| c.day_modes.every_max.into(),
            |c, v| v.whole().map(|n| c.day_modes.every_max = n),
        )
        .defaulted(),
        F::flag("never_days", |c| c.never_days.into(), |c, v| v.flag().map(|f| c.never_days = f)).defaulted(),
        F::flag("cycle_soak", |c| c.cycle_soak.into(), |c, v| v.flag().map(|f| c.cycle_soak = f)).defaulted(),
        F::whole(
            "station_delay_max_s",
            range::STATION_DELAY_SECONDS,
            |c| c.station_delay_max.seconds().into(),
            |c, v| seconds(v).map(|s| c.station_delay_max = s),
        )
        .defaulted(),
        F::whole(
            "water_windows",
            range::WATER_WINDOWS,
            |c| c.water_windows.into(),
            |c, v| v.whole().map(|n| c.water_windows = n),
        )
        .defaulted(),
        F::whole(
            "sensor_inputs",
            range::SENSOR_INPUTS,
            |c| c.sensor_inputs.into(),
            |c, v| v.whole().map(|n| c.sensor_inputs = n),
        )
        .defaulted(),
        F::choice::<Contact>("contact", |c| Value::word(c.contact), |c, v| v.of_word().map(|w| c.contact = w))
            .defaulted(),
        F::whole(
            "rain_delay_max",
            range::RAIN_DELAY,
            |c| c.rain_delay_max.into(),
            |c, v| v.whole().map(|n| c.rain_delay_max = n),
        )
        .defaulted(),
        F::flag("months_off", |c| c.months_off.into(), |c, v| v.flag().map(|f| c.months_off = f)).defaulted(),
        F::flag("sensor_by_station", |c| c.sensor_by_station.into(), |c, v| v.flag().map(|f| c.sensor_by_station = f))
            .defaulted(),
        F::choice::<PanelOrder>(
            "panel_order",
            |c| Value::word(c.panel_order),
            |c, v| v.of_word().map(|w| c.panel_order = w),
        )
        .defaulted(),
        F::choice::<StartOff>("start_off", |c| Value::word(c.start_off), |c, v| v.of_word().map(|w| c.start_off = w))
            .defaulted(),
        F::choice::<ClockFace>(
            "clock_face",
            |c| Value::word(c.clock_face),
            |c, v| v.of_word().map(|w| c.clock_face = w),
        )
        .defaulted(),
    ];

    /// The plain panel. What a file leaves out is taken as it was before there was a field for it: months can
    /// be off, and stations obey the sensors or not; the plain panel has no water windows.
    fn blank() -> Self {
        Self { months_off: true, sensor_by_station: true, ..Preset::Plain.capability() }
    }
}
