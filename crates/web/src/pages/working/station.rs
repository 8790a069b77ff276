use upland_core::budget::{Group, StationBase, StationGuess, WhatIf, YearBudget, base_minutes_if};
use upland_core::climate::normals::Normals;
use upland_core::controller::{Controller, Station};
use upland_core::landscape::{Provenance, Soil};
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
        Some(Self {
            number: n,
            title: format!("{n} {}", station.name),
            figure: minutes(base.run),
            say: w.t1("station-say", times(base.waterings)),
            say_more: w.t1("station-say-week", Measure::Depth.show(base.week_mm(), units)),
            steps: station_steps(base, normal.et0_mm_per_day, reference, group.base_month, units),
            provenance: rows,
            what_ifs: minutes_what_ifs(controller, group, weather.weather.normals()?, n, units),
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
                    ("plant", &plant_name(station.plant)),
                    ("k", &number(base.plant_coefficient.0, 2)),
                    ("sun", &choice_name(station.sun)),
                    ("factor", &number(base.sun_factor, 2)),
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
    let [a, b] = what_if.guess.tried;
    let soil = |aw: f64| {
        Soil::ALL.into_iter().find(|s| s.available_water_mm_per_m() == aw).map_or_else(String::new, choice_name)
    };
    let question = match what_if.guess.what {
        StationGuess::Rate => w.t2("if-rate", Measure::Rate.figure(a, units), Measure::Rate.show(b, units)),
        StationGuess::Uniformity => w.t2("if-uniformity", number(a, 2), number(b, 2)),
        StationGuess::Plant => w.t2("if-plant", number(a, 2), number(b, 2)),
        StationGuess::Soil => w.t2("if-soil", soil(a), soil(b)),
    };
    let [x, y] = what_if.run.map(minutes);
    let verdict = if what_if.run == [run, run] {
        w.t1("if-still-minutes", minutes(run))
    } else if what_if.guess.what == StationGuess::Rate || what_if.guess.what == StationGuess::Uniformity {
        w.t2("if-minutes-measure", x, y)
    } else {
        w.t2("if-minutes", x, y)
    };
    format!("{question} {verdict}")
}
