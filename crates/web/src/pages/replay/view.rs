//! The replay page as text.

use upland_core::controller::Controller;
use upland_core::replay::{Daily, Kind, Part, Progress, REFILL_SHARE, RainChange, WholeTotals, best_setting};
use upland_core::schedule::Plan;
use upland_core::sensor::{RainSetting, Vent};
use upland_core::word::Word as _;

use super::account::{AccountRow, StationRow};
use super::asked::{Asked, percents_text, rain_sensor, weekdays_of};
use super::beside::Beside;
use super::rows::{Manner, StrategyRow, YearRow, best_named, year_rows};
use super::saving::{Saving, saving};
use super::seasons::{Field, Run};
use super::tabs::{Tab, period_tabs, program_tabs, query, station_tabs};
use crate::charts::{SeasonPlate, SeasonPlateInput, StrategyPlot};
use crate::context::WeatherDay;
use crate::form::{Form, new_key};
use crate::pages::Choice;
use crate::show::{Measure, Units, date_short, number, rain_setting, vent_words};
use crate::words::Words;

/// A lane's words: name, runs, losses.
#[derive(Debug, Clone)]
pub(crate) struct LaneWords {
    pub(crate) name: String,
    pub(crate) runs: String,
    pub(crate) lost: String,
}

#[derive(Debug, Clone)]
pub(crate) struct ReplayView {
    pub(crate) w: Words,
    pub(crate) base_href: String,
    /// The question as an address, for the file of its days.
    pub(crate) query: String,
    pub(crate) version: i32,
    pub(crate) action: String,
    pub(crate) form: Form,
    pub(crate) programs: Vec<Tab>,
    pub(crate) stations: Vec<Tab>,
    pub(crate) periods: Vec<Tab>,
    pub(crate) parts: Vec<Choice>,
    pub(crate) trips: Vec<Choice>,
    pub(crate) vents: Vec<Choice>,
    pub(crate) minutes: MinutesRange,
    pub(crate) minutes_label: String,
    /// Whether one of the settings that are folded away is tried.
    pub(crate) more_is_open: bool,
    pub(crate) sub: String,
    pub(crate) plate: Option<Box<SeasonPlate>>,
    pub(crate) plate_label: String,
    /// The words of the reading line; the script puts in what stands after `@`.
    pub(crate) reading: String,
    pub(crate) lanes: [LaneWords; 2],
    pub(crate) rain: String,
    pub(crate) unit: &'static str,
    pub(crate) volume_unit: &'static str,
    pub(crate) result: String,
    pub(crate) result_more: String,
    pub(crate) rows: Vec<StrategyRow>,
    pub(crate) plot: StrategyPlot,
    pub(crate) enough: String,
    pub(crate) saving: Saving,
    pub(crate) years: Vec<YearRow>,
    pub(crate) best: String,
    pub(crate) by_station: Vec<StationRow>,
    pub(crate) account_title: String,
    pub(crate) account: Vec<AccountRow>,
    pub(crate) assumptions: [String; 4],
    pub(crate) foot: String,
    pub(crate) price: bool,
}

/// How far the slider of a station's minutes goes, in steps of the panel.
#[derive(Debug, Clone, Default)]
pub(crate) struct MinutesRange {
    pub(crate) most: String,
    pub(crate) step: String,
}

impl MinutesRange {
    /// To twice the planned minutes, a quarter of an hour at least.
    fn of(c: &Controller, plan: &Plan, station: u8) -> Self {
        let planned = plan.station(station).map_or(0.0, |s| s.panel.minutes());
        let most = (planned * 2.0).max(15.0).min(c.capability.run_max.minutes());
        Self { most: most.ceil().to_string(), step: c.capability.run_step.minutes().to_string() }
    }
}

/// What a view is made from.
pub(crate) struct ViewInput<'a> {
    pub(crate) field: &'a Field<'a>,
    pub(crate) days: &'a [WeatherDay],
    pub(crate) asked: &'a Asked,
    pub(crate) beside: &'a Beside,
    pub(crate) form: Form,
    pub(crate) href: String,
    pub(crate) found_on: Option<chrono::NaiveDate>,
    pub(crate) units: Units,
}

impl ReplayView {
    /// The page of a question; nothing where the period has no day.
    pub(crate) fn of(input: ViewInput<'_>) -> Option<Self> {
        let w = Words;
        let ViewInput { field, days, asked, beside, mut form, href, found_on, units } = input;
        let season = field.season(asked.span)?;
        let c = &field.controller;
        let Beside { present, usual, .. } = beside;
        let (changed, plan) = field.tried_controller(asked);
        let tried = field.tried(&season, asked, (&changed, &plan));
        let manner = Manner { units, price: asked.price, enough: asked.enough };
        let present_note =
            found_on.map_or_else(|| w.t("replay-as-planned"), |on| w.t1("replay-found-on", date_short(on)));
        let name = |kind: Kind| w.t(kind_key(kind));
        let mut rows = vec![StrategyRow::of(
            name(Kind::AsFound),
            present_note,
            "present",
            &present.totals,
            &present.totals,
            manner,
        )];
        for (kind, run) in usual {
            let note = kind_note(*kind, c);
            rows.push(StrategyRow::of(name(*kind), note, "usual", &run.totals, &present.totals, manner));
        }
        let tried_name = w.t(if asked.what_if.is_nothing() { "replay-plan" } else { "replay-tried" });
        rows.push(StrategyRow::of(tried_name.clone(), String::new(), "tried", &tried.totals, &present.totals, manner));
        let point = |label: String, totals: &WholeTotals, mark| {
            (label, totals.adequacy, Measure::Depth.in_units(totals.lost_mm, units), mark)
        };
        let mut points = vec![point(name(Kind::AsFound), &present.totals, "present")];
        points.extend(usual.iter().map(|(kind, run)| point(name(*kind), &run.totals, "usual")));
        points.push(point(tried_name.clone(), &tried.totals, "tried"));
        let named: Vec<(String, &WholeTotals)> = std::iter::once((name(Kind::AsFound), &present.totals))
            .chain(usual.iter().map(|(kind, run)| (name(*kind), &run.totals)))
            .chain([(tried_name.clone(), &tried.totals)])
            .collect();
        let best = best_named(&named, manner);
        let own = c.stations.iter().filter(|s| asked.letters.contains(&s.program)).map(|s| s.number);
        let by_station = StationRow::all(c, &tried.replayed, &own.collect::<Vec<u8>>(), units);
        let station = c.station(asked.station)?;
        let part = asked.part.index();
        let runs = std::iter::once((name(Kind::AsFound), present))
            .chain(usual.iter().map(|(kind, run)| (name(*kind), run)))
            .chain([(tried_name, &tried)]);
        let account =
            runs.filter_map(|(name, run)| AccountRow::of(name, &run.replayed, asked.station, part, units)).collect();
        let daily = |run: &Run| -> Option<Daily> {
            run.replayed.station(asked.station)?.daily.as_ref().map(|d| d[part].clone())
        };
        let (tried_days, present_days) = (daily(&tried)?, daily(present)?);
        let plate = SeasonPlate::draw(SeasonPlateInput {
            dates: season.counted(),
            zone: station.zone(),
            tried: &tried_days,
            present: &present_days,
            units,
        });
        fill(&mut form, asked, &field.plan, c);
        let (thresholds, own) = rain_sensor(c);
        let saving = saving(field, asked, (&changed, &plan), [&tried.totals, &present.totals], own, units);
        let part_words = w.t(if part == 0 { "replay-average" } else { "replay-driest" });
        let lane = |name: &str, daily: &Daily, run: &Run| LaneWords {
            name: w.t(name),
            runs: w.t2(
                "replay-lane-runs",
                ("runs", number(run.replayed.station(asked.station).map_or(0.0, |s| s.waterings), 0)),
                ("depth", Measure::Depth.season(daily.applied_mm.iter().sum(), units)),
            ),
            lost: w.t1(
                "replay-lane-lost",
                Measure::Depth.season(daily.runoff_mm.iter().chain(&daily.percolation_mm).sum(), units),
            ),
        };
        Some(Self {
            w,
            query: query(&form),
            version: field.context.controller.version,
            action: new_key(),
            programs: program_tabs(c, asked, &href),
            stations: station_tabs(c, asked, &form, &href),
            periods: period_tabs(days, &asked.period, &form, &href),
            parts: vec![
                Choice::new("driest", w.t("replay-driest-short")),
                Choice::new("average", w.t("replay-average-short")),
            ],
            trips: trips(&thresholds, own, units),
            vents: vents(own),
            minutes: MinutesRange::of(c, &field.plan, asked.station),
            minutes_label: w.t1("replay-minutes", &station.name),
            more_is_open: asked.what_if.minutes.is_some()
                || asked.refill_share < REFILL_SHARE
                || !form.get("vent").is_empty(),
            sub: w.with("replay-sub", &[("part", &part_words), ("station", &station.name)]),
            reading: w.with(
                "replay-reading",
                &[("date", "@date"), ("left", "@left"), ("present", "@present"), ("unit", Measure::Depth.unit(units))],
            ),
            plate_label: w.with("replay-plate", &[("part", &part_words), ("station", &station.name)]),
            plate: plate.map(Box::new),
            lanes: [lane("replay-lane-tried", &tried_days, &tried), lane("replay-lane-now", &present_days, present)],
            rain: Measure::Depth.season(tried_days.rain_mm.iter().sum(), units),
            unit: Measure::Depth.unit(units),
            volume_unit: Measure::Volume.unit(units),
            result: tried.totals.volume_m3.map_or_else(
                || Measure::Depth.season(tried.totals.applied_mm, units),
                |v| Measure::Volume.season(v, units),
            ),
            result_more: w.t1("replay-adequacy", number(tried.totals.adequacy, 2)),
            rows,
            plot: StrategyPlot::draw(&points, asked.enough),
            enough: w.t1("replay-plot-enough", number(asked.enough, 2)),
            saving,
            years: year_rows(field, asked, (&changed, &plan), beside, units),
            best,
            by_station,
            account_title: w.with("replay-account", &[("part", &part_words), ("station", &station.name)]),
            account,
            assumptions: assumptions(c, units),
            foot: foot(&season, asked),
            price: asked.price.is_some(),
            base_href: href,
            form,
        })
    }
}

fn assumptions(c: &Controller, units: Units) -> [String; 4] {
    let disc = rain_sensor(c).1.unwrap_or(RainSetting::USUAL).disc;
    let figures = [
        ("disc", &*Measure::Depth.show(disc.capacity_mm, units)),
        ("release", &*number(100.0 * disc.release_share, 0)),
    ];
    let w = Words;
    [w.t("replay-assume-1"), w.with("replay-assume-2", &figures), w.t("replay-assume-3"), w.t("replay-assume-4")]
}

pub(super) fn kind_key(kind: Kind) -> &'static str {
    match kind {
        Kind::Nothing => "replay-nothing",
        Kind::AsFound => "replay-present",
        Kind::Fixed => "replay-fixed",
        Kind::ByMonth => "replay-by-month",
        Kind::EtSensor => "replay-et-sensor",
        Kind::RainSensor => "replay-rain-sensor",
        Kind::SoilSensor => "replay-soil-sensor",
        Kind::Deficit => "replay-deficit",
        Kind::ByHand => "ways-hand",
    }
}

fn kind_note(kind: Kind, c: &Controller) -> String {
    let w = Words;
    match kind {
        Kind::Fixed => w.t("replay-fixed-note"),
        Kind::ByMonth => w.t("replay-by-month-note"),
        Kind::EtSensor => w.t("replay-et-note"),
        Kind::RainSensor => w.t(if rain_sensor(c).1.is_some() { "replay-rain-own" } else { "replay-rain-usual" }),
        Kind::SoilSensor => w.t("replay-soil-note"),
        Kind::Deficit => w.t("replay-deficit-note"),
        Kind::ByHand => w.t("replay-by-hand-note"),
        Kind::Nothing | Kind::AsFound => String::new(),
    }
}

/// The fields of the form as the question was understood.
fn fill(form: &mut Form, asked: &Asked, plan: &Plan, c: &Controller) {
    let (_, own) = rain_sensor(c);
    form.set("program", asked.letters.first().map_or_else(String::new, |l| l.get().to_string()));
    form.set("station", asked.station.to_string());
    form.set("period", asked.period.clone());
    form.set("part", if asked.part == Part::Average { "average" } else { "driest" });
    if form.get("scale").is_empty() {
        form.set("scale", "100");
    }
    if form.get("days").is_empty() {
        form.set("days", planned_days(c, asked).map_or_else(|| "0".into(), |d| d.to_string()));
    }
    if form.get("wait").is_empty() {
        form.set("wait", own.map_or(0, |s| s.delay_days).to_string());
    }
    if form.get("minutes").is_empty()
        && let Some(station) = plan.station(asked.station)
    {
        form.set("minutes", number(station.panel.minutes(), 1));
    }
    if form.get("refill").is_empty() {
        form.set("refill", number(asked.refill_share * 100.0, 0));
    }
    form.set("set", asked.what_if.percents.map_or_else(String::new, |p| percents_text(&p)));
}

/// Days a week of the programs as they are planned, where they go by weekdays.
fn planned_days(c: &Controller, asked: &Asked) -> Option<u8> {
    asked.letters.first().and_then(|l| weekdays_of(c, *l))
}

fn vents(own: Option<RainSetting>) -> Vec<Choice> {
    let w = Words;
    let as_set = own.map_or_else(|| w.t("replay-vent-usual"), |own| w.t1("replay-vent-own", vent_words(own.vent)));
    let others = Vent::ALL.into_iter().filter(|v| own.is_none_or(|own| own.vent != *v));
    std::iter::once(Choice::new("", as_set)).chain(others.map(|v| Choice::new(v.word(), vent_words(v)))).collect()
}

fn trips(thresholds: &[f64], own: Option<RainSetting>, units: Units) -> Vec<Choice> {
    let w = Words;
    let mut out = Vec::new();
    match own {
        Some(set) => {
            out.push(Choice::new("", w.t1("replay-trip-own", rain_setting(set.threshold_mm, units))));
            out.push(Choice::new("none", w.t("replay-trip-none")));
        }
        None => out.push(Choice::new("", w.t("replay-trip-none"))),
    }
    let others = thresholds.iter().filter(|t| own.is_none_or(|s| s.threshold_mm != **t));
    out.extend(others.map(|t| Choice::new(t.to_string(), rain_setting(*t, units))));
    out
}

/// The address of the best setting's replay; nothing where there is nothing to search, or when it was stopped.
pub(crate) fn best_address(field: &Field<'_>, asked: &Asked, progress: &Progress) -> Option<String> {
    let season = field.season(asked.span)?;
    let (thresholds, own) = rain_sensor(&field.controller);
    // A sensor that is not there is no setting of this controller.
    let rain: Vec<RainSetting> = own
        .into_iter()
        .flat_map(|own| {
            thresholds
                .iter()
                .flat_map(move |t| DELAYS.map(|delay_days| RainSetting { threshold_mm: *t, delay_days, ..own }))
        })
        .collect();
    let best = best_setting(field.search(&season, asked, &rain, progress))?;
    let mut form = Form::default();
    form.set("period", asked.period.clone());
    form.set("program", asked.letters.first()?.get().to_string());
    form.set("station", asked.station.to_string());
    form.set("enough", asked.enough.to_string());
    if let Some(price) = asked.price {
        form.set("price", price.to_string());
    }
    if let Some(days) = best.setting.days {
        form.set("days", days.to_string());
    }
    if let Some(percents) = &best.setting.percents {
        form.set("set", percents_text(percents));
    }
    if let RainChange::Set(set) = best.setting.rain {
        form.set("trip", set.threshold_mm.to_string());
        form.set("wait", set.delay_days.to_string());
    }
    Some(query(&form))
}

/// Delays of a rain sensor that a search tries, days.
const DELAYS: [u8; 3] = [0, 1, 2];

fn foot(season: &upland_core::replay::Season, asked: &Asked) -> String {
    let w = Words;
    let mut text = vec![w.t1("replay-foot", number(asked.enough, 2))];
    let inside = |d: &&chrono::NaiveDate| season.counted().first().is_some_and(|first| *d >= first);
    let filled = season.et0_filled.iter().filter(inside).count();
    if filled > 0 {
        text.push(w.count("replay-filled", filled));
    }
    let dry = season.rain_missing.iter().filter(inside).count();
    if dry > 0 {
        text.push(w.count("replay-no-rain", dry));
    }
    text.join(" ")
}
