use upland_core::budget::{Dial, Group, LEAST_RUN_MINUTES, MonthBudget, StationBase, StationMonth};
use upland_core::controller::Controller;
use upland_core::landscape::Provenance;
use upland_core::quantity::MonthOfYear;

use super::station::{minutes_what_ifs, station_provenance};
use super::{Prov, Provenances, WorkStep, prov};
use crate::pages::stations::plant_name;
use crate::show::{Measure, Units, dial, minutes, month_long, number, signed, times};
use crate::words::Words;

/// A figure of the Year page whose working can be opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Figure {
    Percent,
    Demand,
    Delivered,
    Difference,
    Waterings,
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
                (w.t1("why", dial(m.dial)), steps)
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
                (w.t2("why-demand", ("month", name), ("depth", Measure::Depth.show(m.demand_mm, units))), steps)
            }
            Figure::Delivered => (
                w.t2("why-delivered", ("month", name), ("depth", Measure::Depth.show(m.delivered_mm, units))),
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
                (w.t2("why-difference", ("month", name), ("amount", amount)), steps)
            }
            Figure::Waterings => {
                provenance = mix_provenance(controller, group, &sums, units);
                (w.t1("why-waterings", name), waterings_steps(controller, group, m, units))
            }
            Figure::Minutes(n) => {
                let run = m.stations.iter().find(|s| s.number == n)?;
                let base = group.stations.iter().find(|b| b.number == n)?;
                let station = controller.stations.iter().find(|s| s.number == n)?;
                provenance = station_provenance(station, base, units);
                (w.t2("why-minutes", ("station", &station.name), ("month", name)), minutes_steps(base, run, m))
            }
        };
        let what_ifs = match figure {
            Figure::Percent | Figure::Demand => weather.percent_what_ifs(controller, group, m),
            Figure::Minutes(n) => minutes_what_ifs(controller, group, normals, n, units),
            Figure::Delivered | Figure::Difference => rate_what_ifs(controller, group, m, units),
            Figure::Waterings => Vec::new(),
        };
        let mut steps = steps;
        if let Some(last) = steps.last_mut() {
            last.last = true;
        }
        Some(Self { title, steps, provenance, what_ifs })
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
            kl: over(group.stations.iter().map(|s| s.kl_by_month[m.month.index()]).sum()),
            etl_mm: over(m.stations.iter().map(|s| s.demand.etl_mm).sum()),
            rain_mm: over(m.stations.iter().map(|s| s.demand.effective_rain_mm).sum()),
            raw_mm: over(group.stations.iter().map(|s| s.raw_mm).sum()),
        }
    }
}

fn share_step(group: &Group, m: &MonthBudget, units: Units) -> WorkStep {
    let w = Words;
    let a_day = |m: &MonthBudget| Measure::DepthADay.figure(m.demand_mm / m.month.mean_days(), units);
    let count = group.stations.len().max(1) as f64;
    let base = group.stations.iter().map(|s| s.base_mm_per_day).sum::<f64>() / count;
    let (now, usual) = (m.waterings(), group.waterings());
    let fewer = if now < usual { format!(" × {} ÷ {}", times(usual), times(now)) } else { String::new() };
    WorkStep::new(
        w.t2("work-share", ("month", month_long(m.month)), ("base", month_long(group.base_month))),
        "",
        format!("{} ÷ {} × 100{fewer}", a_day(m), Measure::DepthADay.figure(base, units)),
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
    WorkStep::new(
        text,
        "",
        w.t2("work-step", ("step", c.percent_step.get().to_string()), ("effect", effect)),
        dial(m.dial),
    )
}

fn mix_provenance(controller: &Controller, group: &Group, means: &Means, units: Units) -> Vec<Prov> {
    let w = Words;
    let worst = group.stations.iter().map(|s| s.plant_coefficient.1).max().unwrap_or(Provenance::Guessed);
    let names: Vec<String> = group
        .stations
        .iter()
        .filter_map(|b| controller.stations.iter().find(|s| s.number == b.number))
        .map(|s| plant_name(s.plant))
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
                    times(s.waterings),
                    number(weeks, 2)
                ),
                Measure::Depth.show(s.delivered_mm, units),
            )
        })
        .collect()
}

fn minutes_steps(base: &StationBase, run: &StationMonth, m: &MonthBudget) -> Vec<WorkStep> {
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

/// How often each station's soil asks for water, and what is dialled for the whole group.
fn waterings_steps(controller: &Controller, group: &Group, m: &MonthBudget, units: Units) -> Vec<WorkStep> {
    let w = Words;
    let mut steps: Vec<WorkStep> = group
        .stations
        .iter()
        .map(|b| {
            WorkStep::new(
                w.t1("work-soil-lasts", b.number.to_string()),
                "FAO-56",
                format!(
                    "{} ÷ {}",
                    Measure::Depth.figure(b.raw_mm, units),
                    Measure::DepthADay.figure(b.etl_peak_mm_per_day, units)
                ),
                w.t1("work-days", number(b.interval_days, 0)),
            )
        })
        .collect();
    let text = w.t(if m.waterings_set.is_some() { "work-chosen" } else { "work-thirstiest" });
    let allowed = w.t1("work-allowed", controller.capability.watering_days.to_string());
    steps.push(WorkStep::new(text, "", allowed, times(m.waterings())));
    steps
}

/// What a guessed rate would change of the water delivered: a fifth either way.
fn rate_what_ifs(controller: &Controller, group: &Group, m: &MonthBudget, units: Units) -> Vec<String> {
    let guessed: Vec<_> =
        group.stations.iter().zip(&m.stations).filter(|(b, _)| b.rate.1 == Provenance::Guessed).collect();
    guessed
        .into_iter()
        .filter_map(|(b, s)| controller.stations.iter().find(|c| c.number == b.number).map(|c| (c, s)))
        .map(|(station, s)| {
            let at = |share: f64| Measure::Depth.show(s.delivered_mm * share, units);
            Words.with("if-rate-delivered", &[("station", &station.name), ("less", &at(0.8)), ("more", &at(1.2))])
        })
        .collect()
}
