//! What every setting of a sensor would have done in the weather on record.

use chrono::{Datelike, NaiveDate};
use upland_core::climate::normals::Normals;
use upland_core::controller::{Controller, StartTime};
use upland_core::quantity::{MonthOfYear, RunTime};
use upland_core::schedule::{Grouping, Level, Plan, expand, propose};
use upland_core::sensor::{
    RainCell, RainDay, RainReplay, Sensor, SensorKind, best_setting, calibration_faults, class_for, decision_window,
    et_percent, expected_by_month, freeze_replay, rain_holds, rain_replay, threshold_from,
};
use upland_store::WeatherDay;

use super::form::setting_text;
use crate::charts::{HoldPlate, sun_of};
use crate::pages::desk::Desk;
use crate::show::{Measure, Units, clock, date_long, month_of, month_short, number};
use crate::words::Words;

/// A setting of the grid.
#[derive(Debug, Clone)]
pub(crate) struct GridCell {
    pub(crate) held: String,
    pub(crate) dry: String,
    pub(crate) bar: u32,
    pub(crate) chosen: bool,
    pub(crate) best: bool,
    pub(crate) threshold: String,
    pub(crate) delay: u8,
    pub(crate) label: String,
}

/// The replay of a rain sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct RainView {
    pub(crate) title: String,
    pub(crate) sub: String,
    pub(crate) delays: Vec<u8>,
    pub(crate) rows: Vec<(String, Vec<GridCell>)>,
    pub(crate) why: String,
    pub(crate) plate: Option<HoldPlate>,
    pub(crate) plate_note: String,
    pub(crate) months: Vec<(String, String)>,
    pub(crate) trips: String,
    pub(crate) working: String,
}

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
}

/// The percents of an ET sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct EtView {
    pub(crate) title: String,
    pub(crate) months: Vec<(String, String, bool)>,
    pub(crate) today: String,
    pub(crate) fights: Vec<String>,
}

/// The window and the calibration of a soil-moisture sensor in words.
#[derive(Debug, Clone)]
pub(crate) struct SoilView {
    pub(crate) window: String,
    pub(crate) working: String,
    pub(crate) faults: Vec<String>,
    pub(crate) threshold: String,
}

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
    pub(crate) desk: &'a Desk,
    pub(crate) days: &'a [WeatherDay],
    pub(crate) today: NaiveDate,
    pub(crate) units: Units,
}

impl ReplayView {
    pub(crate) fn of(sensor: &Sensor, input: &ReplayInput<'_>) -> Self {
        match &sensor.kind {
            SensorKind::Rain { .. } if input.days.is_empty() => Self::NoWeather,
            SensorKind::Freeze { .. } if input.days.is_empty() => Self::NoWeather,
            SensorKind::Rain { .. } => Self::Rain(Box::new(rain_view(sensor, input))),
            SensorKind::Freeze { .. } => Self::Freeze(freeze_view(sensor, input)),
            SensorKind::SoilMoisture { .. } => Self::Soil(soil_view(sensor, input)),
            SensorKind::Et { .. } => match input.desk.normals() {
                Ok(normals) => Self::Et(et_view(sensor, input, normals)),
                Err(_) => Self::NoWeather,
            },
        }
    }
}

/// The controller with its schedule, or with the proposed one while it has none.
fn scheduled(desk: &Desk, first: NaiveDate) -> Controller {
    let c = desk.controller();
    let mut c = if c.programs.iter().all(|p| p.schedule.is_idle()) {
        propose(&desk.situation(first), c, Grouping::Keep).controller
    } else {
        c.clone()
    };
    c.temporaries.clear();
    c
}

/// The thirstiest station in the open that obeys a sensor.
fn witness(c: &Controller, sensor: &Sensor) -> Option<u8> {
    let open = c.stations.iter().filter(|s| !s.roofed && sensor.governs(s.number));
    open.max_by(|a, b| a.landscape_coefficient().total_cmp(&b.landscape_coefficient())).map(|s| s.number)
}

/// The days of a record as the replay of rain needs them, with what the witness would be given.
pub(crate) fn rain_days(desk: &Desk, days: &[WeatherDay], station: Option<u8>) -> Vec<RainDay> {
    let (Some(first), Some(last)) = (days.first(), days.last()) else { return Vec::new() };
    let c = scheduled(desk, first.date);
    let plan = desk.situation(first.date).plan(&c);
    let week = expand(&c, &plan, &desk.at.zone, [first.date, last.date], Level::Calendar);
    let own = station.and_then(|n| plan.station(n));
    let mut water = std::collections::BTreeMap::<NaiveDate, f64>::new();
    if let Some(own) = own {
        for run in week.runs.iter().filter(|r| r.station == own.number) {
            *water.entry(run.date).or_default() += own.net_mm(run.length());
        }
    }
    let kl = station.and_then(|n| c.station(n)).map_or(0.0, |s| s.landscape_coefficient());
    let normals = desk.normals().ok();
    days.iter()
        .map(|d| {
            let usual = normals.map_or(0.0, |n| n[d.date.month0() as usize].et0_mm_per_day);
            let et0_mm = d.et0_mm.unwrap_or(usual);
            RainDay {
                date: d.date,
                rain_mm: d.rain_mm.unwrap_or(0.0),
                et0_mm,
                water_mm: water.get(&d.date).copied().unwrap_or(0.0),
                etl_mm: et0_mm * kl,
            }
        })
        .collect()
}

fn raw_mm(desk: &Desk, station: Option<u8>) -> f64 {
    let budget = desk.budget().ok();
    let bases = budget.iter().flat_map(|b| &b.groups).flat_map(|g| &g.stations);
    bases.filter(|b| Some(b.number) == station).map(|b| b.raw_mm).next().unwrap_or(20.0)
}

/// Delays offered by the grid.
const DELAYS: [u8; 5] = [0, 1, 2, 3, 4];

fn rain_view(sensor: &Sensor, input: &ReplayInput<'_>) -> RainView {
    let w = Words;
    let SensorKind::Rain { thresholds_mm, threshold_mm, delay_days, vent } = &sensor.kind else {
        return empty_rain();
    };
    let (desk, units) = (input.desk, input.units);
    let station = witness(desk.controller(), sensor);
    let days = rain_days(desk, input.days, station);
    let mut delays = DELAYS.to_vec();
    if !delays.contains(delay_days) {
        delays.push(*delay_days);
    }
    let replay = rain_replay(&days, thresholds_mm, &delays, *vent, raw_mm(desk, station));
    let chosen = replay.cells.iter().find(|c| c.threshold_mm == *threshold_mm && c.delay_days == *delay_days);
    let best = best_setting(&replay);
    let most = replay.cells.iter().map(|c| c.dry_days_added).max().unwrap_or(0).max(1);
    let rows = thresholds_mm
        .iter()
        .map(|t| {
            let cells = replay.cells.iter().filter(|c| c.threshold_mm == *t);
            let text = setting_text(*t, Measure::Depth, units);
            (text, cells.map(|c| cell(c, chosen, best, most, units)).collect())
        })
        .collect();
    let name = station.and_then(|n| desk.controller().station(n)).map_or_else(|| "·".to_owned(), |s| s.name.clone());
    let span = [days.first(), days.last()].map(|d| d.map_or_else(String::new, |d| date_long(d.date)));
    let (held, _) = rain_holds(&days, *threshold_mm, *delay_days, *vent);
    let plate = HoldPlate::draw(&days, &held);
    RainView {
        title: w.t2(
            "sensor-set-to",
            Measure::Depth.typed(*threshold_mm, units) + "\u{a0}" + Measure::Depth.unit(units),
            delay_days.to_string(),
        ),
        sub: w.with("sensor-replayed", &[("from", &span[0]), ("to", &span[1]), ("station", &name)]),
        delays,
        rows,
        why: chosen.map_or_else(String::new, |c| why(c, best, &replay, units)),
        plate_note: plate.as_ref().map_or_else(String::new, |p| {
            w.with("sensor-plate-note", &[("year", &p.year), ("runs", &p.made), ("held", &p.held)])
        }),
        plate,
        months: MonthOfYear::ALL
            .map(|m| {
                let days = chosen.map_or(0, |c| c.held_by_month[m.index()]);
                (month_short(m), if days == 0 { "·".into() } else { days.to_string() })
            })
            .to_vec(),
        trips: chosen.map_or_else(String::new, trips),
        working: w.with(
            "sensor-rain-working",
            &[("factor", &number(vent.factor(), 1)), ("raw", &Measure::Depth.show(raw_mm(desk, station), units))],
        ),
    }
}

fn empty_rain() -> RainView {
    RainView {
        title: String::new(),
        sub: String::new(),
        delays: Vec::new(),
        rows: Vec::new(),
        why: String::new(),
        plate: None,
        plate_note: String::new(),
        months: Vec::new(),
        trips: String::new(),
        working: String::new(),
    }
}

fn cell(c: &RainCell, chosen: Option<&RainCell>, best: Option<&RainCell>, most: u32, units: Units) -> GridCell {
    let held = Measure::Depth.in_units(c.held_mm, units);
    let held = number(held, usize::from(units == Units::Us));
    let threshold = setting_text(c.threshold_mm, Measure::Depth, units);
    GridCell {
        dry: Words.t1("sensor-dry", c.dry_days_added.to_string()),
        // A bar of up to 60 px.
        bar: (60 * c.dry_days_added).div_ceil(most),
        chosen: chosen == Some(c),
        best: best == Some(c),
        label: Words.t2("sensor-cell", &threshold, c.delay_days.to_string()),
        held,
        threshold,
        delay: c.delay_days,
    }
}

/// Why this setting, and what the better one would do.
fn why(chosen: &RainCell, best: Option<&RainCell>, replay: &RainReplay, units: Units) -> String {
    let w = Words;
    let depth = |mm: f64| Measure::Depth.show(mm, units);
    let first = w.with(
        "sensor-why",
        &[
            ("held", &depth(chosen.held_mm)),
            ("all", &depth(replay.scheduled_mm)),
            ("dry", &chosen.dry_days_added.to_string()),
            ("trips", &chosen.trips.len().to_string()),
            ("days", &chosen.days_held().to_string()),
        ],
    );
    let second = match best {
        Some(best) if best == chosen => {
            // The runner-up: the one that holds back more, and what it would cost.
            let more = replay.cells.iter().filter(|c| c.held_mm > chosen.held_mm + 0.05);
            match more.min_by(|a, b| {
                (a.dry_days_added, b.held_mm)
                    .partial_cmp(&(b.dry_days_added, a.held_mm))
                    .unwrap_or(std::cmp::Ordering::Equal)
            }) {
                Some(c) => w.with(
                    "sensor-why-best",
                    &[
                        ("threshold", &setting_text(c.threshold_mm, Measure::Depth, units)),
                        ("unit", Measure::Depth.unit(units)),
                        ("delay", &c.delay_days.to_string()),
                        ("more", &depth(c.held_mm - chosen.held_mm)),
                        ("dry", &c.dry_days_added.saturating_sub(chosen.dry_days_added).to_string()),
                    ],
                ),
                None => w.t("sensor-why-most"),
            }
        }
        Some(best) => w.with(
            "sensor-why-other",
            &[
                ("threshold", &setting_text(best.threshold_mm, Measure::Depth, units)),
                ("unit", Measure::Depth.unit(units)),
                ("delay", &best.delay_days.to_string()),
                ("held", &depth(best.held_mm)),
                ("dry", &best.dry_days_added.to_string()),
            ],
        ),
        None => String::new(),
    };
    format!("{first} {second}")
}

fn trips(c: &RainCell) -> String {
    let w = Words;
    if c.trips.is_empty() {
        return w.t("sensor-no-trips");
    }
    let last: Vec<String> = c.trips.iter().rev().take(6).map(|d| date_long(*d)).collect();
    w.t2("sensor-trips", c.trips.len().to_string(), last.join(", "))
}

/// The hour of the first start of any program, for a freeze sensor.
fn first_start(c: &Controller) -> StartTime {
    let starts = c.programs.iter().flat_map(|p| p.schedule.starts.iter().copied());
    starts.min().unwrap_or_else(|| StartTime::read("04:30").unwrap_or_else(|| StartTime::of(chrono::NaiveTime::MIN)))
}

/// The hour of sunrise at a place on a date, by its clock.
fn sunrise_hour(desk: &Desk, today: NaiveDate) -> f64 {
    let position = &desk.at.place.value.position;
    let sun = sun_of(position.latitude_deg(), position.longitude_deg(), desk.at.zone, today);
    sun.sunrise.map_or(6.0, |t| {
        use chrono::Timelike;
        let local = t.with_timezone(&desk.at.zone);
        f64::from(local.hour()) + f64::from(local.minute()) / 60.0
    })
}

fn nights(days: &[WeatherDay]) -> Vec<(NaiveDate, f64, f64)> {
    days.iter().filter_map(|d| Some((d.date, d.tmin_c?, d.tmax_c?))).collect()
}

fn freeze_view(sensor: &Sensor, input: &ReplayInput<'_>) -> FreezeView {
    let w = Words;
    let (list, set) = match &sensor.kind {
        SensorKind::Freeze { thresholds_c, threshold_c } => (thresholds_c.as_slice(), *threshold_c),
        _ => (&[][..], 0.0),
    };
    let days = nights(input.days);
    let start = first_start(input.desk.controller());
    let winter = NaiveDate::from_ymd_opt(input.today.year(), 1, 15).unwrap_or(input.today);
    let hour = f64::from(start.minute_of_day()) / 60.0;
    let found = freeze_replay(&days, list, hour, sunrise_hour(input.desk, winter));
    let span = [days.first(), days.last()].map(|d| d.map_or_else(String::new, |d| date_long(d.0)));
    let text = |n: u32| if n == 0 { "·".to_owned() } else { n.to_string() };
    FreezeView {
        sub: w.t2("sensor-freeze-sub", &span[0], &span[1]),
        months: MonthOfYear::ALL.map(month_short).to_vec(),
        rows: found
            .iter()
            .map(|f| FreezeRow {
                threshold: Measure::Temperature.show(f.threshold_c, input.units),
                chosen: f.threshold_c == set,
                months: f.nights_by_month.map(text).to_vec(),
                total: text(f.nights()),
                starts: text(f.starts_blocked),
            })
            .collect(),
        note: w.t1("sensor-freeze-note", start.to_string()),
    }
}

fn et_view(sensor: &Sensor, input: &ReplayInput<'_>, normals: &Normals) -> EtView {
    let w = Words;
    let c = input.desk.controller();
    let (class, trim, programs) = match &sensor.kind {
        SensorKind::Et { class, trim, programs } => (*class, *trim, programs.as_slice()),
        _ => (class_for(5.0), 3, &[][..]),
    };
    let peak = normals.iter().map(|n| n.et0_mm_per_day).fold(0.0, f64::max);
    let proposed = class_for(peak);
    let month = month_of(input.today);
    let recent: Vec<f64> = input
        .days
        .iter()
        .filter(|d| d.date < input.today && (input.today - d.date).num_days() <= 7)
        .filter_map(|d| d.et0_mm)
        .collect();
    let dial = |p: f64| c.capability.dial(p).get().to_string();
    let mean = recent.iter().sum::<f64>() / recent.len().max(1) as f64;
    let depth = |mm: f64| Measure::DepthADay.show(mm, input.units);
    EtView {
        title: w.with(
            "sensor-et-class",
            &[
                ("class", &proposed.number().to_string()),
                ("peak", &depth(peak)),
                ("reference", &depth(proposed.reference_mm_per_day())),
            ],
        ),
        months: MonthOfYear::ALL
            .into_iter()
            .zip(expected_by_month(normals, class, trim))
            .map(|(m, p)| (month_short(m), number(p, 0), m == month))
            .collect(),
        today: if recent.is_empty() {
            w.t1("sensor-et-today-normal", dial(et_percent(normals[month.index()].et0_mm_per_day, class, trim)))
        } else {
            w.t2("sensor-et-today", depth(mean), dial(et_percent(mean, class, trim)))
        },
        fights: programs
            .iter()
            .filter(|l| {
                let months = c.program(**l).map(|p| &p.months);
                months.is_some_and(|m| m.iter().any(|m| matches!(m.dial, upland_core::controller::MonthDial::Set(_))))
            })
            .map(|l| w.t1("sensor-et-fights", l.get().to_string()))
            .collect(),
    }
}

fn soil_view(sensor: &Sensor, input: &ReplayInput<'_>) -> SoilView {
    let w = Words;
    let (readings, set) = match &sensor.kind {
        SensorKind::SoilMoisture { readings, threshold_pct } => (readings.as_slice(), *threshold_pct),
        _ => (&[][..], None),
    };
    let cycle = daily_cycle(input.desk, input.today);
    let window = decision_window(cycle);
    let faults = calibration_faults(readings);
    let depletion = input.desk.budget().ok().and_then(|b| {
        let bases = b.groups.iter().flat_map(|g| &g.stations).filter(|s| sensor.governs(s.number));
        bases.map(|s| s.depletion_share).min_by(f64::total_cmp)
    });
    let share = depletion.unwrap_or(0.5);
    let at_24 = readings
        .first()
        .and_then(|first| readings.iter().rev().find(|r| r.at - first.at >= chrono::TimeDelta::hours(24)));
    let proposal = at_24.filter(|_| faults.is_empty()).map(|r| (r.percent, threshold_from(r.percent, share)));
    SoilView {
        window: w.t1("sensor-window", hours(window)),
        working: w.t2("sensor-window-working", hours(cycle), hours(window)),
        faults: if readings.is_empty() {
            vec![w.t("sensor-not-calibrated")]
        } else {
            faults.iter().map(fault).collect()
        },
        threshold: match (proposal, set) {
            (Some((reading, t)), _) => w.with(
                "sensor-soil-threshold",
                &[("reading", &number(reading, 1)), ("share", &number(share * 100.0, 0)), ("threshold", &number(t, 1))],
            ),
            (None, Some(_)) => w.t("sensor-soil-unproven"),
            (None, None) => String::new(),
        },
    }
}

fn fault(f: &upland_core::sensor::CalibrationFault) -> String {
    use upland_core::sensor::CalibrationFault as F;
    let w = Words;
    match f {
        F::TooFew => w.t("cal-few"),
        F::TooShort { hours } => w.t1("cal-short", number(*hours, 1)),
        F::Rose { at } => w.t1("cal-rose", clock(*at)),
        F::NotFlattening => w.t("cal-not-flat"),
        F::DidNotFall => w.t("cal-not-fall"),
    }
}

fn hours(run: RunTime) -> String {
    let minutes = (run.seconds() / 60) % 60;
    if minutes == 0 {
        format!("{}\u{a0}h", run.seconds() / 3600)
    } else {
        format!("{}\u{a0}h {minutes}\u{a0}min", run.seconds() / 3600)
    }
}

/// From the first valve that opens on a day to the last that shuts, the longest of the week.
fn daily_cycle(desk: &Desk, today: NaiveDate) -> RunTime {
    let first = crate::pages::desk::monday(today);
    let c = scheduled(desk, first);
    let situation = desk.situation(first);
    let plan: Plan = situation.plan(&c);
    let week = situation.week(&c, &plan, Level::Calendar);
    let mut spans = std::collections::BTreeMap::<NaiveDate, (i64, i64)>::new();
    for run in &week.runs {
        let (start, stop) = (run.start.timestamp(), run.stop.timestamp());
        let span = spans.entry(run.date).or_insert((start, stop));
        *span = (span.0.min(start), span.1.max(stop));
    }
    let longest = spans.values().map(|(a, b)| b - a).max().unwrap_or(0);
    RunTime::from_seconds(u32::try_from(longest).unwrap_or(0))
}

/// For each sensor of a controller, whether the weather says that it held watering on a date.
pub(crate) fn held_on(desk: &Desk, days: &[WeatherDay], date: NaiveDate) -> Vec<Option<bool>> {
    let on_record = days.iter().position(|d| d.date == date);
    desk.controller()
        .sensors
        .iter()
        .map(|sensor| {
            let index = on_record?;
            match &sensor.kind {
                SensorKind::Rain { threshold_mm, delay_days, vent, .. } => {
                    let days = rain_days(desk, days, None);
                    rain_holds(&days, *threshold_mm, *delay_days, *vent).0.get(index).copied()
                }
                SensorKind::Freeze { threshold_c, .. } => {
                    let day = days.get(index)?;
                    let hour = f64::from(first_start(desk.controller()).minute_of_day()) / 60.0;
                    let air =
                        upland_core::sensor::temperature_at(hour, sunrise_hour(desk, date), day.tmin_c?, day.tmax_c?);
                    Some(air < *threshold_c)
                }
                SensorKind::SoilMoisture { .. } | SensorKind::Et { .. } => None,
            }
        })
        .collect()
}
