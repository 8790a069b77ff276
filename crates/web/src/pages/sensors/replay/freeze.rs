//! A freeze sensor, replayed.

use crate::context::WeatherDay;
use chrono::{Datelike, NaiveDate, Timelike};
use upland_core::climate::sun::sunrise_hours;
use upland_core::controller::{Controller, Program, ProgramLetter, StartTime};
use upland_core::quantity::MonthOfYear;
use upland_core::replay::{Ground, PercentBy, Scheduled, Season, SeasonDay, frost_nights};
use upland_core::sensor::{Sensor, freeze_replay};

use super::{ReplayInput, scheduled};
use crate::charts::sun_of;
use crate::context::ControllerContext;
use crate::show::{Measure, date_long, month_short};
use crate::words::Words;

/// The nights of a freeze sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct FreezeView {
    pub(crate) sub: String,
    pub(crate) rows: Vec<FreezeRow>,
    pub(crate) months: Vec<String>,
    pub(crate) note: String,
}

#[derive(Debug, Clone)]
pub(crate) struct FreezeRow {
    pub(crate) threshold: String,
    pub(crate) chosen: bool,
    pub(crate) months: Vec<String>,
    pub(crate) total: String,
    pub(crate) starts: String,
    /// Nights on which a program would have watered in such air.
    pub(crate) watered: String,
}

/// The hour of the first start of any program, for a freeze sensor.
pub(super) fn first_start(c: &Controller) -> StartTime {
    let starts = c.programs.iter().flat_map(|p| p.schedule.starts.iter().copied());
    // Without any start, the hour before sunrise in which most are made.
    starts.min().unwrap_or_else(|| StartTime::of(chrono::NaiveTime::from_hms_opt(4, 30, 0).unwrap_or_default()))
}

/// The hour of sunrise at a place on a date, by its clock.
pub(super) fn sunrise_hour(context: &ControllerContext, today: NaiveDate) -> f64 {
    let position = &context.at.place.value.place.position;
    let sun = sun_of(position.latitude_deg(), position.longitude_deg(), context.at.zone, today);
    sun.sunrise.map_or(6.0, |t| {
        let local = t.with_timezone(&context.at.zone);
        f64::from(local.hour()) + f64::from(local.minute()) / 60.0
    })
}

fn nights(days: &[WeatherDay]) -> Vec<(NaiveDate, f64, f64)> {
    days.iter().filter_map(|d| Some((d.date, d.tmin_c?, d.tmax_c?))).collect()
}

/// Nights on which the schedule would have watered under each setting, by the same doses as every replay.
fn watered(list: &[f64], sensor: &Sensor, input: &ReplayInput<'_>) -> Vec<u32> {
    let days: Vec<SeasonDay> = input.days.iter().map(SeasonDay::from).collect();
    let (Ok(season), Some(first)) = (Season::of(&days), input.days.first()) else { return vec![0; list.len()] };
    let c = scheduled(input.context, first.date);
    let plan = input.context.situation(first.date).plan(&c);
    let ground = Ground::of(&c);
    let schedule = Scheduled::new(&c, &plan, &ground, PercentBy::of(&c));
    let position = input.context.at.place.value.place.position;
    let sunrise =
        sunrise_hours(position.latitude_deg(), position.longitude_deg(), &input.context.at.zone, first.date.year());
    // A program of stations that all ignore the sensor is none of its business.
    let governed = |p: &&Program| c.stations.iter().any(|s| s.runs_in(p.letter) && sensor.governs(s.number));
    let programs: Vec<ProgramLetter> = c.programs.iter().filter(governed).map(|p| p.letter).collect();
    frost_nights(&schedule, &season, &programs, list, &sunrise)
}

impl FreezeView {
    pub(super) fn of(sensor: &Sensor, list: &[f64], set: f64, input: &ReplayInput<'_>) -> Self {
        let w = Words;
        let days = nights(input.days);
        let start = first_start(input.context.controller());
        let winter = NaiveDate::from_ymd_opt(input.today.year(), 1, 15).unwrap_or(input.today);
        let hour = f64::from(start.minute_of_day()) / 60.0;
        let found = freeze_replay(&days, list, hour, sunrise_hour(input.context, winter));
        let watered = watered(list, sensor, input);
        let span = [days.first(), days.last()].map(|d| d.map_or_else(String::new, |d| date_long(d.0)));
        let text = |n: u32| if n == 0 { "·".to_owned() } else { n.to_string() };
        Self {
            sub: w.t2("sensor-freeze-sub", ("first", &span[0]), ("last", &span[1])),
            months: MonthOfYear::ALL.map(month_short).to_vec(),
            rows: found
                .iter()
                .zip(watered)
                .map(|(f, watered)| FreezeRow {
                    threshold: Measure::Temperature.show(f.threshold_c, input.units),
                    chosen: f.threshold_c == set,
                    months: f.nights_by_month.map(text).to_vec(),
                    total: text(f.nights()),
                    starts: text(f.starts_blocked),
                    watered: text(watered),
                })
                .collect(),
            note: w.t1("sensor-freeze-note", start.to_string()),
        }
    }
}
