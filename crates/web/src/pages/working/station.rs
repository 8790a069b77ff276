use upland_core::budget::{Group, StationBase, StationGuess, WhatIf, YearBudget, base_minutes_if, uncertainty};
use upland_core::climate::normals::Normals;
use upland_core::controller::{Controller, Station};
use upland_core::landscape::{CycleSoak, Plant, Provenance, SprinklerType, cycles};
use upland_core::quantity::{MonthOfYear, RunTime};

use super::{Prov, Provenances, WorkStep, prov};
use crate::pages::stations::{choice_name, plant_name};
use crate::show::{Measure, Units, minutes, month_long, number, times};
use crate::words::Words;

/// The working of a station's base minutes.
#[derive(Debug, Clone)]
pub(crate) struct StationWorking {
    pub(crate) number: u8,
    pub(crate) title: String,
    pub(crate) figure: String,
    pub(crate) say: String,
    pub(crate) say_more: String,
    pub(crate) steps: Vec<WorkStep>,
    pub(crate) provenance: Vec<Prov>,
    /// Between which minutes the guesses leave it; empty where nothing is guessed.
    pub(crate) between: String,
    /// What it lays down; empty without an area.
    pub(crate) litres: String,
    pub(crate) notes: Vec<String>,
    /// Coefficients by month are published for its turf, and it has none yet.
    pub(crate) has_turf_months: bool,
    pub(crate) what_ifs: Vec<String>,
}

impl StationWorking {
    pub(crate) fn of(
        n: u8,
        controller: &Controller,
        budget: &YearBudget,
        weather: Provenances<'_>,
        units: Units,
    ) -> Option<Self> {
        let w = Words;
        let station = controller.stations.iter().find(|s| s.number == n)?;
        let group = budget.group(station.program)?;
        let base = group.stations.iter().find(|b| b.number == n)?;
        let reference = controller.et_reference_mm_per_day(station.program);
        let normal = weather.weather.normals()?[group.base_month.index()];
        let mut rows: Vec<Prov> = weather.rows(group.base_month, units).into_iter().take(1).collect();
        rows.extend(station_provenance(station, base, units));
        let what_ifs = base_minutes_if(controller, weather.weather.normals()?, n);
        Some(Self {
            number: n,
            title: format!("{n} {}", station.name),
            figure: minutes(base.run),
            say: w.t1("station-say", times(base.waterings)),
            say_more: w.t1("station-say-week", Measure::Depth.show(base.week_mm(), units)),
            steps: station_steps(base, normal.et0_mm_per_day, reference, group.base_month, units),
            provenance: rows,
            between: between(&what_ifs, base),
            litres: litres(station, base, group, units),
            notes: notes(station, base, controller),
            has_turf_months: station.plant.is_turf() && station.planting.by_month.is_none(),
            what_ifs: what_ifs.iter().map(|i| minutes_what_if(i, base.run, units)).collect(),
        })
    }
}

fn station_steps(
    base: &StationBase,
    et0: f64,
    reference: Option<f64>,
    month: MonthOfYear,
    units: Units,
) -> Vec<WorkStep> {
    let w = Words;
    let (d, per_day) = (|mm: f64| Measure::Depth.figure(mm, units), |mm: f64| Measure::DepthADay.show(mm, units));
    let (text, daily) = match reference {
        // The sensor scales from its own reference, so the base minutes belong to that.
        Some(reference) => (w.t("work-base-sensor"), reference),
        None => (w.t1("work-base-month", month_long(month)), et0),
    };
    let mut steps = vec![WorkStep::new(
        text,
        "FAO-56",
        format!("{} × {}", Measure::DepthADay.figure(daily, units), number(base.kl, 2)),
        per_day(base.base_mm_per_day),
    )];
    steps.push(WorkStep::new(
        w.t("work-interval"),
        "FAO-56",
        format!("{} ÷ {}", d(base.raw_mm), Measure::DepthADay.figure(base.etl_peak_mm_per_day, units)),
        w.t1("work-days", number(base.interval_days, 0)),
    ));
    steps.push(WorkStep::new(
        w.t1("work-net", times(base.waterings)),
        "",
        format!("{} × 7 ÷ {}", Measure::DepthADay.figure(base.base_mm_per_day, units), times(base.waterings)),
        Measure::Depth.show(base.net_depth_mm, units),
    ));
    steps.push(WorkStep::new(
        w.t1("work-uneven", number(base.uniformity.0, 2)),
        "IA",
        format!("1 ÷ (0.4 + 0.6 × {})", number(base.uniformity.0, 2)),
        format!("× {}", number(base.multiplier, 3)),
    ));
    steps.push(WorkStep::new(
        w.t("work-minutes"),
        "IA",
        format!(
            "{} × 60 ÷ {} × {}",
            d(base.net_depth_mm),
            Measure::Rate.figure(base.rate.0, units),
            number(base.multiplier, 3)
        ),
        w.t1("work-min", number(base.exact_minutes, 1)),
    ));
    steps.push(WorkStep {
        last: true,
        ..WorkStep::new(
            w.t("work-run-step"),
            "",
            w.t1("work-min", number(base.exact_minutes, 1)),
            w.t1("work-min", minutes(base.run)),
        )
    });
    steps
}

pub(super) fn station_provenance(station: &Station, base: &StationBase, units: Units) -> Vec<Prov> {
    let w = Words;
    let sprinkler = choice_name(station.sprinkler.kind);
    let exposure = match base.microclimate.1 {
        Provenance::Measured => w.t("kl-stated"),
        _ => choice_name(station.exposure),
    };
    let plant = match station.planting.by_month {
        Some(_) => w.t1("kl-by-month", plant_name(station.plant)),
        None => plant_name(station.plant),
    };
    let by = |how: Provenance, guessed: &str| match how {
        Provenance::Measured => w.t("entered"),
        _ => w.t1(guessed, &sprinkler),
    };
    vec![
        prov("input-rate", Measure::Rate.show(base.rate.0, units), base.rate.1, by(base.rate.1, "rate-by-type")),
        prov(
            "input-uniformity",
            number(base.uniformity.0, 2),
            base.uniformity.1,
            by(base.uniformity.1, "uniformity-by-type"),
        ),
        prov(
            "input-kl",
            number(base.kl, 2),
            base.plant_coefficient.1,
            w.with(
                if station.trim_pct == 0.0 { "kl-note" } else { "kl-note-trim" },
                &[
                    ("plant", &plant),
                    ("k", &number(base.plant_coefficient.0, 2)),
                    ("sun", &exposure),
                    ("factor", &number(base.microclimate.0, 2)),
                    ("trim", &number(1.0 + station.trim_pct / 100.0, 2)),
                ],
            ),
        ),
        prov(
            "input-soil",
            Measure::Depth.show(base.raw_mm, units),
            // As good as the worst of what it is made from; a soil told by hand is a guess.
            match base.available_water_mm_per_m.1 {
                Provenance::Measured => base.root_depth_m.1.max(base.depletion_share.1),
                _ => Provenance::Guessed,
            },
            w.with(
                "soil-note",
                &[
                    ("soil", &choice_name(station.soil)),
                    ("aw", &number(base.available_water_mm_per_m.0, 0)),
                    ("root", &number(base.root_depth_m.0, 2)),
                    ("p", &number(base.depletion_share.0, 2)),
                ],
            ),
        ),
    ]
}

/// One line a guess: what the base minutes of a station would be under its other values.
pub(super) fn minutes_what_ifs(
    controller: &Controller,
    group: &Group,
    normals: &Normals,
    n: u8,
    units: Units,
) -> Vec<String> {
    let Some(base) = group.stations.iter().find(|b| b.number == n) else { return Vec::new() };
    base_minutes_if(controller, normals, n).iter().map(|i| minutes_what_if(i, base.run, units)).collect()
}

fn minutes_what_if(what_if: &WhatIf, run: RunTime, units: Units) -> String {
    let w = Words;
    let between = |key: &'static str, [a, b]: [f64; 2]| w.t2(key, ("low", number(a, 2)), ("high", number(b, 2)));
    let question = match what_if.guess {
        StationGuess::Rate([a, b]) => {
            w.t2("if-rate", ("low", Measure::Rate.figure(a, units)), ("high", Measure::Rate.show(b, units)))
        }
        StationGuess::Uniformity(tried) => between("if-uniformity", tried),
        StationGuess::Plant(tried) => between("if-plant", tried),
        StationGuess::Roots([a, b]) => {
            w.t2("if-roots", ("low", Measure::RootDepth.figure(a, units)), ("high", Measure::RootDepth.show(b, units)))
        }
        StationGuess::Soil([a, b]) => w.t2("if-soil", ("one", choice_name(a)), ("other", choice_name(b))),
    };
    let [x, y] = what_if.run.map(minutes);
    let verdict = if what_if.run == [run, run] {
        w.t1("if-still-minutes", minutes(run))
    } else if matches!(what_if.guess, StationGuess::Rate(_) | StationGuess::Uniformity(_)) {
        w.t2("if-minutes-measure", ("low", x), ("high", y))
    } else {
        w.t2("if-minutes", ("low", x), ("high", y))
    };
    format!("{question} {verdict}")
}

/// Between which minutes a week the guesses leave a station, and what to measure first.
fn between(what_ifs: &[WhatIf], base: &StationBase) -> String {
    let w = Words;
    let Some(found) = uncertainty(base.exact_minutes * base.waterings, what_ifs) else { return String::new() };
    let [low, high] = found.minutes.map(|m| number(m, 0));
    let first = match found.widest {
        StationGuess::Rate(_) => "narrow-rate",
        StationGuess::Uniformity(_) => "narrow-uniformity",
        StationGuess::Plant(_) => "narrow-plant",
        StationGuess::Roots(_) => "narrow-roots",
        StationGuess::Soil(_) => "narrow-soil",
    };
    format!("{} {}", w.t2("station-between", ("low", low), ("high", high)), w.t(first))
}

/// Litres that a station lays down: a watering at 100 %, the base month's week, the year as it is dialled.
fn litres(station: &Station, base: &StationBase, group: &Group, units: Units) -> String {
    let Some(area) = station.area_m2 else { return String::new() };
    // Gross water: the rate times the time, whatever part of it is needed for thin cover.
    let volume = |minutes: f64| {
        let litres = area * base.rate.0 * minutes / 60.0;
        // Ten cubic metres and more are said in cubic metres.
        if litres < 10_000.0 {
            Measure::Litres.show(litres, units)
        } else {
            Measure::Volume.show(litres / 1000.0, units)
        }
    };
    let year: f64 = group
        .months
        .iter()
        .filter_map(|m| Some((m.month.mean_days() / 7.0, m.stations.iter().find(|s| s.number == base.number)?)))
        .map(|(weeks, s)| s.run.minutes() * s.waterings * weeks)
        .sum();
    Words.with(
        "station-litres",
        &[
            ("watering", &volume(base.run.minutes())),
            ("week", &volume(base.run.minutes() * base.waterings)),
            ("year", &volume(year)),
        ],
    )
}

/// How the soil cuts a base run up, and into how many cycles; nothing where it takes the run at once.
pub(super) fn cut(station: &Station, base: &StationBase, controller: &Controller) -> Option<(CycleSoak, usize)> {
    let setting = station.runoff().setting(&controller.capability).filter(|s| s.cycle < base.run)?;
    Some((setting, cycles(base.run, Some(setting.cycle), controller.capability.run_step).len()))
}

/// What else a technician should know of this station's water.
fn notes(station: &Station, base: &StationBase, controller: &Controller) -> Vec<String> {
    let w = Words;
    let mut notes = Vec::new();
    if let Some((setting, cut)) = cut(station, base, controller) {
        let figures = [minutes(setting.cycle), minutes(setting.soak), cut.to_string()];
        let [longest, soak, count] = &figures;
        notes.push(w.with("station-cycles", &[("longest", longest), ("soak", soak), ("cycles", count)]));
    }
    if let (Some(beside), Some((k, _))) = (station.planting.beside, station.coefficient_beside()) {
        let own = station.plant.coefficient(&station.planting).0;
        let (thrifty, less, most) = if k > own { (station.plant, own, k) } else { (beside, k, own) };
        // Under a fifth apart, two plants are one in practice (ours).
        if less < 0.8 * most && station.planting.by_month.is_none() {
            let figures = [plant_name(thrifty), number(less, 2), number(most, 2)];
            let [plant, own, ruling] = &figures;
            notes.push(w.with("station-mixed", &[("plant", plant), ("own", own), ("ruling", ruling)]));
        }
    }
    if station.sprinkler.kind == SprinklerType::MultiStream && station.sprinkler.rate.is_none() {
        notes.push(w.t("station-multi-stream"));
    }
    if station.plant == Plant::Bare {
        notes.push(w.t("station-bare"));
    }
    notes
}
