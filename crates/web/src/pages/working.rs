//! The working of a figure: the formula with the numbers in it, its source, what was measured and
//! what was guessed, and whether a guess would change the answer.

use upland_core::budget::{
    Dial, Group, LEAST_RUN_MINUTES, MonthBudget, StationBase, StationGuess, WhatIf, YearBudget, base_minutes_if,
    percent_if,
};
use upland_core::controller::{Controller, Station};
use upland_core::landscape::{Provenance, Soil};
use upland_core::quantity::{MonthOfYear, RunTime};

use super::desk::{PlaceDesk, Weather};
use super::stations::{mark, plant_key, soil_key, sprinkler_key, sun_key};
use crate::intake::WEATHER_GUESSES;
use crate::show::{Measure, Units, month_long, number, percent, signed};
use crate::words::Words;

/// A step of a working, one line.
#[derive(Debug, Clone)]
pub(crate) struct WorkStep {
    pub(crate) text: String,
    pub(crate) source: &'static str,
    pub(crate) expression: String,
    pub(crate) result: String,
    pub(crate) last: bool,
}

impl WorkStep {
    fn new(text: String, source: &'static str, expression: String, result: String) -> Self {
        Self { text, source, expression, result, last: false }
    }
}

/// How an input is known.
#[derive(Debug, Clone)]
pub(crate) struct Prov {
    pub(crate) name: String,
    pub(crate) value: String,
    pub(crate) mark: &'static str,
    pub(crate) how: String,
    pub(crate) note: String,
}

fn prov(name: &str, value: String, how: Provenance, note: String) -> Prov {
    let w = Words;
    let word = w.t(match how {
        Provenance::Measured => "how-measured",
        Provenance::Table => "how-table",
        Provenance::Guessed => "how-guessed",
    });
    Prov { name: w.t(name), value, mark: mark(how), how: word, note }
}

/// Where the weather of a figure comes from.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Provenances<'a> {
    pub(crate) desk: &'a PlaceDesk,
    pub(crate) weather: &'a Weather,
}

impl<'a> Provenances<'a> {
    pub(crate) fn of(desk: &'a PlaceDesk) -> Option<Self> {
        desk.weather.as_ref().map(|weather| Self { desk, weather })
    }

    /// Rows for reference ET and what it was made from, in a month.
    pub(crate) fn rows(&self, month: MonthOfYear, units: Units) -> Vec<Prov> {
        let w = Words;
        let Some(normal) = self.weather.normals().map(|n| n[month.index()]) else { return Vec::new() };
        let et0 = Measure::DepthADay.show(normal.et0_mm_per_day, units);
        let rain = normal.rain_mm.map_or_else(|| w.t("not-there"), |r| Measure::Depth.show(r, units));
        if self.weather.is_typed() {
            return vec![
                prov("input-et0", et0, Provenance::Table, w.t("normals-typed")),
                prov("input-rain", rain, Provenance::Table, w.t("normals-typed")),
            ];
        }
        let method = &self.weather.revision.method;
        let hargreaves = method.starts_with("hargreaves");
        let years = self.years();
        let off = self
            .desk
            .distance_km()
            .map_or_else(String::new, |km| w.t1("weather-off", Measure::Distance.show(km, units)));
        let mut rows = vec![prov("input-et0", et0, Provenance::Measured, format!("{off}, {years}"))];
        if hargreaves {
            rows.push(prov("input-others", String::new(), Provenance::Guessed, w.t("hargreaves-note")));
        } else {
            for (flag, name, value, note) in [
                ("wind-assumed", "input-wind", Measure::Wind.show(2.0, units), "wind-note"),
                ("sun-from-range", "input-sun", "k 0.16".to_owned(), "sun-note"),
                ("humidity-from-tmin", "input-humidity", String::new(), "humidity-note"),
            ] {
                if method.contains(flag) {
                    rows.push(prov(name, value, Provenance::Guessed, w.t(note)));
                } else {
                    rows.push(prov(name, String::new(), Provenance::Measured, off.clone()));
                }
            }
        }
        let rain_how = if normal.rain_mm.is_some() { Provenance::Measured } else { Provenance::Guessed };
        let rain_note = w.t(if normal.rain_mm.is_none() {
            "rain-none-note"
        } else if self.desk.distance_km().unwrap_or(0.0) > 2.0 {
            "rain-far-note"
        } else {
            "rain-note"
        });
        rows.push(prov("input-rain", rain, rain_how, rain_note));
        rows
    }

    fn years(&self) -> String {
        use chrono::Datelike;
        let r = &self.weather.revision;
        match (r.first_day, r.last_day) {
            (Some(first), Some(last)) if first.year() != last.year() => format!("{}–{}", first.year(), last.year()),
            (Some(first), _) => first.year().to_string(),
            _ => String::new(),
        }
    }

    /// One line a guess: what the percent would be under its other values.
    fn percent_what_ifs(&self, controller: &Controller, group: &Group, month: &MonthBudget) -> Vec<String> {
        let w = Words;
        let Some(letter) = group.letters.first() else { return Vec::new() };
        let mut lines = Vec::new();
        for guess in &WEATHER_GUESSES {
            let under = |value: f64| {
                let variant = self.weather.variants.iter().find(|v| v.variant == guess.variant(value))?;
                percent_if(controller, &variant.normals, *letter, month.month)
            };
            let [Some((a, dial_a)), Some((b, dial_b))] = guess.tried.map(under) else { continue };
            let question = w.t(match guess.key {
                "wind" => "if-wind",
                "sun" => "if-sun",
                _ => "if-humidity",
            });
            let answer = w.t2("if-percents", number(a, 1), number(b, 1));
            let verdict = if dial_a == month.called && dial_b == month.called {
                w.t1("if-still", dial_word(month.called))
            } else {
                w.t2("if-changes", dial_word(dial_a), dial_word(dial_b))
            };
            lines.push(format!("{question} {answer} {verdict}"));
        }
        lines
    }
}

fn dial_word(dial: Dial) -> String {
    match dial {
        Dial::Off => Words.t("off"),
        Dial::Percent(p) => p.get().to_string(),
    }
}

/// Minutes with a decimal only where the controller has half minutes.
pub(crate) fn minutes(run: RunTime) -> String {
    number(run.minutes(), usize::from(!run.seconds().is_multiple_of(60)))
}

/// The working of a station's base minutes.
#[derive(Debug, Clone)]
pub(crate) struct StationWorking {
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
        let month = group.month(group.base_month);
        let demand = month.stations.iter().find(|s| s.number == n)?.demand;
        let normal = weather.weather.normals()?[group.base_month.index()];
        let mut rows: Vec<Prov> = weather.rows(group.base_month, units).into_iter().take(1).collect();
        rows.extend(station_provenance(station, base, units));
        Some(Self {
            title: format!("{n} {}", station.name),
            figure: minutes(base.run),
            say: w.t1("station-say", base.waterings.to_string()),
            say_more: w.t1("station-say-week", Measure::Depth.show(base.week_mm(), units)),
            steps: station_steps(base, demand, normal.et0_mm_per_day, normal.rain_mm, group.base_month, units),
            provenance: rows,
            what_ifs: base_minutes_if(controller, weather.weather.normals()?, n)
                .iter()
                .map(|i| minutes_what_if(i, base.run, units))
                .collect(),
        })
    }
}

fn station_steps(
    base: &StationBase,
    demand: upland_core::budget::StationDemand,
    et0: f64,
    rain: Option<f64>,
    month: MonthOfYear,
    units: Units,
) -> Vec<WorkStep> {
    let w = Words;
    let days = month.mean_days();
    let (d, per_day) = (|mm: f64| Measure::Depth.figure(mm, units), |mm: f64| Measure::DepthADay.show(mm, units));
    let days_text = number(days, if days.fract() == 0.0 { 0 } else { 2 });
    let mut steps = Vec::new();
    if demand.effective_rain_mm > 0.0 {
        let expression = w.with(
            "work-rain-numbers",
            &[("rain", &d(rain.unwrap_or(0.0))), ("et", &d(demand.etl_mm)), ("store", &d(base.raw_mm))],
        );
        steps.push(WorkStep::new(
            w.t1("work-rain", month_long(month)),
            "TR-21",
            expression,
            Measure::Depth.show(demand.effective_rain_mm, units),
        ));
    }
    let daily = Measure::DepthADay.figure(et0, units);
    steps.push(WorkStep::new(
        w.t1("work-demand", month_long(month)),
        "FAO-56",
        format!("({daily} × {} × {days_text} − {}) ÷ {days_text}", number(base.kl, 2), d(demand.effective_rain_mm)),
        per_day(base.demand_mm_per_day),
    ));
    steps.push(WorkStep::new(
        w.t("work-interval"),
        "FAO-56",
        format!("{} ÷ {}", d(base.raw_mm), Measure::DepthADay.figure(base.etl_peak_mm_per_day, units)),
        w.t1("work-days", number(base.interval_days, 0)),
    ));
    steps.push(WorkStep::new(
        w.t1("work-net", base.waterings.to_string()),
        "",
        format!("{} × 7 ÷ {}", Measure::DepthADay.figure(base.demand_mm_per_day, units), base.waterings),
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

fn station_provenance(station: &Station, base: &StationBase, units: Units) -> Vec<Prov> {
    let w = Words;
    let sprinkler = w.t(sprinkler_key(station.sprinkler.kind));
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
                "kl-note",
                &[
                    ("plant", &w.t(plant_key(station.plant))),
                    ("k", &number(base.plant_coefficient.0, 2)),
                    ("sun", &w.t(sun_key(station.sun))),
                    ("factor", &number(base.sun_factor, 2)),
                ],
            ),
        ),
        prov(
            "input-soil",
            Measure::Depth.show(base.raw_mm, units),
            Provenance::Guessed,
            w.with(
                "soil-note",
                &[
                    ("soil", &w.t(soil_key(station.soil))),
                    ("aw", &number(base.available_water_mm_per_m, 0)),
                    ("root", &number(base.root_depth_m, 2)),
                    ("p", &number(base.depletion_share, 2)),
                ],
            ),
        ),
    ]
}

fn minutes_what_if(what_if: &WhatIf, run: RunTime, units: Units) -> String {
    let w = Words;
    let [a, b] = what_if.guess.tried;
    let soil = |aw: f64| {
        Soil::ALL
            .into_iter()
            .find(|s| s.available_water_mm_per_m() == aw)
            .map_or_else(String::new, |s| w.t(soil_key(s)))
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

/// A figure of the Year page whose working can be opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Figure {
    Percent,
    Demand,
    Delivered,
    Difference,
    Minutes(u8),
}

/// The working of a month's figure.
#[derive(Debug, Clone)]
pub(crate) struct MonthWorking {
    pub(crate) title: String,
    pub(crate) steps: Vec<WorkStep>,
    pub(crate) provenance: Vec<Prov>,
    pub(crate) what_ifs: Vec<String>,
}

impl MonthWorking {
    pub(crate) fn of(
        figure: Figure,
        controller: &Controller,
        group: &Group,
        month: MonthOfYear,
        weather: Provenances<'_>,
        units: Units,
    ) -> Option<Self> {
        let w = Words;
        let m = group.month(month);
        let name = month_long(month);
        let normals = weather.weather.normals()?;
        let sums = Means::of(group, m);
        let mut provenance = weather.rows(month, units);
        let (title, steps) = match figure {
            Figure::Percent => {
                let mut steps = vec![share_step(group, m, units)];
                steps.extend(demand_steps(
                    group,
                    m,
                    &sums,
                    normals[month.index()].et0_mm_per_day,
                    normals[month.index()].rain_mm,
                    units,
                ));
                steps.push(dial_step(controller, m, units));
                provenance.extend(mix_provenance(controller, group, &sums, units));
                (w.t1("why", dial_text(m.dial)), steps)
            }
            Figure::Demand => {
                let steps = demand_steps(
                    group,
                    m,
                    &sums,
                    normals[month.index()].et0_mm_per_day,
                    normals[month.index()].rain_mm,
                    units,
                );
                provenance.extend(mix_provenance(controller, group, &sums, units));
                (w.t2("why-demand", name, Measure::Depth.show(m.demand_mm, units)), steps)
            }
            Figure::Delivered => (
                w.t2("why-delivered", name, Measure::Depth.show(m.delivered_mm, units)),
                delivered_steps(group, m, units),
            ),
            Figure::Difference => {
                let amount =
                    signed(Measure::Depth.in_units(m.difference_mm(), units), if units == Units::Us { 2 } else { 1 });
                let step = WorkStep::new(
                    w.t("work-difference"),
                    "",
                    format!(
                        "{} − {}",
                        Measure::Depth.figure(m.delivered_mm, units),
                        Measure::Depth.figure(m.demand_mm, units)
                    ),
                    format!("{amount}\u{a0}{}", Measure::Depth.unit(units)),
                );
                let mut steps = delivered_steps(group, m, units);
                steps.push(step);
                (w.t2("why-difference", name, amount), steps)
            }
            Figure::Minutes(n) => {
                let run = m.stations.iter().find(|s| s.number == n)?;
                let base = group.stations.iter().find(|b| b.number == n)?;
                let station = controller.stations.iter().find(|s| s.number == n)?;
                provenance = station_provenance(station, base, units);
                (w.t2("why-minutes", &station.name, name), minutes_steps(base, run, m))
            }
        };
        let what_ifs = if matches!(figure, Figure::Percent | Figure::Demand) {
            weather.percent_what_ifs(controller, group, m)
        } else {
            Vec::new()
        };
        let mut steps = steps;
        if let Some(last) = steps.last_mut() {
            last.last = true;
        }
        Some(Self { title, steps, provenance, what_ifs })
    }
}

fn dial_text(dial: Dial) -> String {
    match dial {
        Dial::Off => Words.t("off"),
        Dial::Percent(p) => percent(p.get()),
    }
}

/// Means over the stations of a group.
struct Means {
    count: usize,
    kl: f64,
    etl_mm: f64,
    rain_mm: f64,
    raw_mm: f64,
}

impl Means {
    fn of(group: &Group, m: &MonthBudget) -> Self {
        let count = group.stations.len().max(1);
        let over = |sum: f64| sum / count as f64;
        Self {
            count,
            kl: over(group.stations.iter().map(|s| s.kl).sum()),
            etl_mm: over(m.stations.iter().map(|s| s.demand.etl_mm).sum()),
            rain_mm: over(m.stations.iter().map(|s| s.demand.effective_rain_mm).sum()),
            raw_mm: over(group.stations.iter().map(|s| s.raw_mm).sum()),
        }
    }
}

fn share_step(group: &Group, m: &MonthBudget, units: Units) -> WorkStep {
    let w = Words;
    let a_day = |m: &MonthBudget| Measure::DepthADay.figure(m.demand_mm / m.month.mean_days(), units);
    let base = group.month(group.base_month);
    let now = m.stations.iter().map(|s| s.waterings).max().unwrap_or(1);
    let usual = group.stations.iter().map(|s| s.waterings).max().unwrap_or(1);
    let fewer = if now < usual { format!(" × {usual} ÷ {now}") } else { String::new() };
    WorkStep::new(
        w.t2("work-share", month_long(m.month), month_long(group.base_month)),
        "",
        format!("{} ÷ {} × 100{fewer}", a_day(m), a_day(base)),
        format!("{}\u{a0}%", number(m.percent_exact, 1)),
    )
}

fn demand_steps(
    group: &Group,
    m: &MonthBudget,
    means: &Means,
    et0: f64,
    rain: Option<f64>,
    units: Units,
) -> Vec<WorkStep> {
    let w = Words;
    let days = m.month.mean_days();
    let days_text = number(days, if days.fract() == 0.0 { 0 } else { 2 });
    let mean_of = if group.stations.len() > 1 { w.count("work-mean-of", means.count) } else { String::new() };
    let mut steps = vec![WorkStep::new(
        w.t1("work-demand-month", mean_of),
        "FAO-56",
        format!(
            "{} × {} × {days_text} − {}",
            Measure::DepthADay.figure(et0, units),
            number(means.kl, 3),
            Measure::Depth.figure(means.rain_mm, units)
        ),
        Measure::Depth.show(m.demand_mm, units),
    )];
    if let Some(rain) = rain {
        let d = |mm: f64| Measure::Depth.figure(mm, units);
        steps.push(WorkStep::new(
            w.t1("work-rain", month_long(m.month)),
            "TR-21",
            w.with("work-rain-numbers", &[("rain", &d(rain)), ("et", &d(means.etl_mm)), ("store", &d(means.raw_mm))]),
            Measure::Depth.show(means.rain_mm, units),
        ));
    }
    steps
}

fn dial_step(controller: &Controller, m: &MonthBudget, units: Units) -> WorkStep {
    let w = Words;
    let c = &controller.capability;
    let amount = Measure::Depth.show(m.difference_mm().abs(), units);
    let effect = if m.difference_mm() >= 0.0 { w.t1("year-gains", amount) } else { w.t1("year-loses", amount) };
    let text = if m.chosen { w.t("work-chosen") } else { w.t("work-nearest") };
    WorkStep::new(text, "", w.t2("work-step", c.percent_step.get().to_string(), effect), dial_text(m.dial))
}

fn mix_provenance(controller: &Controller, group: &Group, means: &Means, units: Units) -> Vec<Prov> {
    let w = Words;
    let worst = group.stations.iter().map(|s| s.plant_coefficient.1).max().unwrap_or(Provenance::Guessed);
    let names: Vec<String> = group
        .stations
        .iter()
        .filter_map(|b| controller.stations.iter().find(|s| s.number == b.number))
        .map(|s| w.t(plant_key(s.plant)))
        .fold(Vec::new(), |mut seen, name| {
            if !seen.contains(&name) {
                seen.push(name);
            }
            seen
        });
    vec![
        prov("input-kl", number(means.kl, 2), worst, names.join(", ")),
        prov("input-soil", Measure::Depth.show(means.raw_mm, units), Provenance::Guessed, w.t("soil-by-hand")),
    ]
}

fn delivered_steps(group: &Group, m: &MonthBudget, units: Units) -> Vec<WorkStep> {
    let w = Words;
    let weeks = m.month.mean_days() / 7.0;
    m.stations
        .iter()
        .zip(&group.stations)
        .map(|(s, b)| {
            WorkStep::new(
                w.t1("work-delivered", s.number.to_string()),
                "",
                format!(
                    "{} ÷ 60 × {} ÷ {} × {} × {}",
                    minutes(s.run),
                    Measure::Rate.figure(b.rate.0, units),
                    number(b.multiplier, 3),
                    s.waterings,
                    number(weeks, 2)
                ),
                Measure::Depth.show(s.delivered_mm, units),
            )
        })
        .collect()
}

fn minutes_steps(base: &StationBase, run: &upland_core::budget::StationMonth, m: &MonthBudget) -> Vec<WorkStep> {
    let w = Words;
    let exact = base.run.minutes() * f64::from(m.dial.percent()) / 100.0;
    let mut steps = vec![
        WorkStep::new(
            w.t("work-base"),
            "",
            w.t1("work-min", number(base.exact_minutes, 1)),
            w.t1("work-min", minutes(base.run)),
        ),
        WorkStep::new(
            w.t("work-percent-of"),
            "",
            format!("{} × {} ÷ 100", minutes(base.run), m.dial.percent()),
            w.t1("work-min", number(exact, 1)),
        ),
        WorkStep::new(w.t("work-run-step"), "", w.t1("work-min", number(exact, 1)), w.t1("work-min", minutes(run.run))),
    ];
    if run.run.minutes() < LEAST_RUN_MINUTES && m.dial != Dial::Off {
        steps.push(WorkStep::new(
            w.t("work-short"),
            "",
            w.t1("work-short-more", number(LEAST_RUN_MINUTES, 0)),
            String::new(),
        ));
    }
    steps
}
