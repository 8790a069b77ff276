//! A rain sensor, replayed.

use crate::context::WeatherDay;
use chrono::{Datelike, NaiveDate};
use upland_core::balance::RootZone;
use upland_core::controller::{Controller, Station};
use upland_core::quantity::MonthOfYear;
use upland_core::schedule::{Level, expand};
use upland_core::sensor::{RainCell, RainDay, RainReplay, RainSetting, Sensor, best_setting, rain_holds, rain_replay};

use super::{ReplayInput, scheduled};
use crate::charts::HoldPlate;
use crate::context::ControllerContext;
use crate::show::{Measure, Units, date_long, month_short, number, rain_setting, rain_text};
use crate::words::Words;

/// What a rain sensor is set to, and the settings that it could be set to.
#[derive(Debug, Clone, Copy)]
pub(super) struct RainChoice<'a> {
    pub(super) thresholds_mm: &'a [f64],
    pub(super) setting: RainSetting,
}

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
    /// Unit of the settings.
    pub(crate) unit: &'static str,
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

/// The thirstiest station in the open that obeys a sensor.
fn witness(c: &Controller, sensor: &Sensor) -> Option<u8> {
    let open = c.stations.iter().filter(|s| !s.roofed && sensor.governs(s.number));
    let thirst = |s: &&Station| -> f64 { s.landscape_coefficients().iter().sum() };
    open.max_by(|a, b| thirst(a).total_cmp(&thirst(b))).map(|s| s.number)
}

/// The days of a record as a rain sensor meets them: rain, and the reference ET by which it dries, that of
/// the month where a day has none.
pub(super) fn open_days(context: &ControllerContext, days: &[WeatherDay]) -> Vec<RainDay> {
    let normals = context.normals().ok();
    let usual = |d: &WeatherDay| normals.map_or(0.0, |n| n[d.date.month0() as usize].et0_mm_per_day);
    let open = |d: &WeatherDay| RainDay {
        date: d.date,
        rain_mm: d.rain_mm.unwrap_or(0.0),
        et0_mm: d.et0_mm.unwrap_or_else(|| usual(d)),
        water_mm: 0.0,
        etl_mm: 0.0,
    };
    days.iter().map(open).collect()
}

/// The same days, with what a station would be given and what its plants use.
fn watered_days(context: &ControllerContext, days: &[WeatherDay], station: Option<u8>) -> Vec<RainDay> {
    let mut out = open_days(context, days);
    let (Some(first), Some(last), Some(station)) = (days.first(), days.last(), station) else { return out };
    let c = scheduled(context, first.date);
    let plan = context.situation(first.date).plan(&c);
    let (Some(own), Some(known)) = (plan.station(station), c.station(station)) else { return out };
    let runs = expand(&c, &plan, &context.at.zone, [first.date, last.date], Level::Calendar).runs;
    let mut water = std::collections::BTreeMap::<NaiveDate, f64>::new();
    for run in runs.iter().filter(|r| r.station == station) {
        *water.entry(run.date).or_default() += own.net_mm(run.length);
    }
    for day in &mut out {
        day.water_mm = water.get(&day.date).copied().unwrap_or(0.0);
        day.etl_mm = day.et0_mm * known.landscape_coefficient(MonthOfYear::of(day.date));
    }
    out
}

/// The root zone of the station that a sensor is judged by.
fn zone(context: &ControllerContext, station: Option<u8>) -> RootZone {
    let known = station.and_then(|n| context.controller().station(n));
    // Without a station a common lawn stands in: 0.3 m of roots on loam.
    known.map_or(RootZone { taw_mm: 46.5, p: 0.4 }, Station::zone)
}

/// Delays offered by the grid.
const DELAYS: [u8; 5] = [0, 1, 2, 3, 4];

impl RainView {
    pub(super) fn of(sensor: &Sensor, set: &RainChoice<'_>, input: &ReplayInput<'_>) -> Self {
        let w = Words;
        let RainChoice { thresholds_mm, setting } = *set;
        let RainSetting { threshold_mm, delay_days, vent, disc } = setting;
        let (context, units) = (input.context, input.units);
        let station = witness(context.controller(), sensor);
        let days = watered_days(context, input.days, station);
        let mut delays = DELAYS.to_vec();
        if !delays.contains(&delay_days) {
            delays.push(delay_days);
        }
        let replay = rain_replay(&days, thresholds_mm, &delays, setting, &zone(context, station));
        let chosen = replay.cells.iter().find(|c| c.threshold_mm == threshold_mm && c.delay_days == delay_days);
        let best = best_setting(&replay);
        let most = replay.cells.iter().map(|c| c.dry_days_added).max().unwrap_or(0).max(1);
        let rows = thresholds_mm
            .iter()
            .map(|t| {
                let cells = replay.cells.iter().filter(|c| c.threshold_mm == *t);
                let text = rain_text(*t, units);
                (text, cells.map(|c| cell(c, chosen, best, most, units)).collect())
            })
            .collect();
        let name =
            station.and_then(|n| context.controller().station(n)).map_or_else(|| "·".to_owned(), |s| s.name.clone());
        let span = [days.first(), days.last()].map(|d| d.map_or_else(String::new, |d| date_long(d.date)));
        let (held, _) = rain_holds(&days, &setting);
        let plate = HoldPlate::draw(&days, &held);
        Self {
            unit: Measure::Depth.unit(units),
            title: w.t2(
                "sensor-set-to",
                ("setting", rain_setting(threshold_mm, units)),
                ("days", delay_days.to_string()),
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
                &[
                    ("disc", &Measure::Depth.show(disc.capacity_mm, units)),
                    ("factor", &number(vent.factor(), 1)),
                    ("release", &number(100.0 * disc.release_share, 0)),
                    ("raw", &Measure::Depth.show(zone(context, station).raw_mm(), units)),
                ],
            ),
        }
    }
}

fn cell(c: &RainCell, chosen: Option<&RainCell>, best: Option<&RainCell>, most: u32, units: Units) -> GridCell {
    let held = Measure::Depth.in_units(c.held_mm, units);
    let held = number(held, usize::from(units == Units::Us));
    let threshold = rain_text(c.threshold_mm, units);
    GridCell {
        dry: Words.t1("sensor-dry", c.dry_days_added.to_string()),
        // A bar of up to 60 px.
        bar: (60 * c.dry_days_added).div_ceil(most),
        chosen: chosen == Some(c),
        best: best == Some(c),
        label: Words.t2("sensor-cell", ("setting", &threshold), ("days", c.delay_days.to_string())),
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
            ("wrongly", &chosen.held_wrongly.to_string()),
            ("missed", &chosen.missed.to_string()),
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
                        ("threshold", &rain_setting(c.threshold_mm, units)),
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
                ("threshold", &rain_setting(best.threshold_mm, units)),
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
    w.t2("sensor-trips", ("count", c.trips.len().to_string()), ("dates", last.join(", ")))
}
