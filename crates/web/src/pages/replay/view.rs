//! The replay page as text.

use upland_core::budget::Dial;
use upland_core::controller::{Controller, DayMode, ProgramLetter};
use upland_core::quantity::MonthOfYear;
use upland_core::replay::{Daily, Kind, Part, RainChange, WholeTotals, best_setting};
use upland_core::schedule::Plan;
use upland_core::sensor::RainSetting;

use super::asked::{Asked, percents_text, rain_sensor, weekdays_of, years};
use super::rows::{Manner, StrategyRow, YearRow, year_rows};
use super::seasons::{Field, Run};
use crate::charts::{SeasonPlate, SeasonPlateInput, StrategyPlot};
use crate::context::WeatherDay;
use crate::form::Form;
use crate::pages::Choice;
use crate::pages::findings::mode_words;
use crate::show::{Measure, Units, date_short, month_short, number, rain_setting};
use crate::words::Words;

/// A link of a row of tabs.
#[derive(Debug, Clone)]
pub(crate) struct Tab {
    pub(crate) label: String,
    pub(crate) href: String,
    pub(crate) current: bool,
}

/// The saving, and the setting that gives it.
#[derive(Debug, Clone)]
pub(crate) struct Saving {
    pub(crate) title: String,
    pub(crate) figure: String,
    pub(crate) unit: &'static str,
    pub(crate) say: String,
    pub(crate) more: String,
    pub(crate) short: String,
    /// Month, percent tried, percent now, whether they differ.
    pub(crate) months: Vec<Vec<(String, String, String, bool)>>,
    pub(crate) also: Vec<String>,
    /// Whether something is tried that can be applied.
    pub(crate) can_apply: bool,
    pub(crate) cannot: String,
}

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
    pub(crate) foot: String,
    pub(crate) price: bool,
}

/// What a view is made from.
pub(crate) struct ViewInput<'a> {
    pub(crate) field: &'a Field<'a>,
    pub(crate) days: &'a [WeatherDay],
    pub(crate) asked: &'a Asked,
    pub(crate) form: Form,
    pub(crate) href: String,
    pub(crate) found_on: Option<chrono::NaiveDate>,
    pub(crate) units: Units,
}

impl ReplayView {
    /// The page of a question; nothing where the period has no day.
    pub(crate) fn of(input: ViewInput<'_>) -> Option<Self> {
        let w = Words;
        let ViewInput { field, days, asked, mut form, href, found_on, units } = input;
        let season = field.season(asked.span)?;
        let c = &field.controller;
        let present = field.usual(Kind::AsFound, &season, asked);
        let tried = field.tried(&season, asked);
        let manner = Manner { units, price: asked.price, enough: asked.enough };
        let usual: Vec<(Kind, Run)> =
            [Kind::Fixed, Kind::ByMonth, Kind::EtSensor, Kind::RainSensor, Kind::SoilSensor, Kind::Deficit]
                .into_iter()
                .map(|kind| (kind, field.usual(kind, &season, asked)))
                .collect();
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
        for (kind, run) in &usual {
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
        points.push(point(tried_name, &tried.totals, "tried"));
        let station = c.station(asked.station)?;
        let part = asked.part.index();
        let daily = |run: &Run| -> Option<Daily> {
            run.replayed.station(asked.station)?.daily.as_ref().map(|d| d[part].clone())
        };
        let (tried_days, present_days) = (daily(&tried)?, daily(&present)?);
        let plate = SeasonPlate::draw(SeasonPlateInput {
            dates: season.counted(),
            zone: station.zone(),
            tried: &tried_days,
            present: &present_days,
            units,
        });
        fill(&mut form, asked, c);
        let (thresholds, own) = rain_sensor(c);
        let saving = saving(field, asked, [&tried.totals, &present.totals], own, units);
        let part_words = w.t(if part == 0 { "replay-average" } else { "replay-driest" });
        let lane = |name: &str, daily: &Daily, run: &Run| LaneWords {
            name: w.t(name),
            runs: w.t2(
                "replay-lane-runs",
                number(run.replayed.station(asked.station).map_or(0.0, |s| s.waterings), 0),
                Measure::Depth.season(daily.applied_mm.iter().sum(), units),
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
            action: uuid::Uuid::new_v4().to_string(),
            programs: program_tabs(c, asked, &href),
            stations: station_tabs(c, asked, &form, &href),
            periods: period_tabs(days, asked, &form, &href),
            parts: vec![
                Choice::new("driest", w.t("replay-driest-short")),
                Choice::new("average", w.t("replay-average-short")),
            ],
            trips: trips(&thresholds, own, units),
            sub: w.with("replay-sub", &[("part", &part_words), ("station", &station.name)]),
            reading: w.with(
                "replay-reading",
                &[("date", "@date"), ("left", "@left"), ("present", "@present"), ("unit", Measure::Depth.unit(units))],
            ),
            plate_label: w.with("replay-plate", &[("part", &part_words), ("station", &station.name)]),
            plate: plate.map(Box::new),
            lanes: [lane("replay-lane-tried", &tried_days, &tried), lane("replay-lane-now", &present_days, &present)],
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
            years: year_rows(field, asked, &years(days), units),
            foot: foot(&season, asked),
            price: asked.price.is_some(),
            base_href: href,
            form,
        })
    }
}

fn kind_key(kind: Kind) -> &'static str {
    match kind {
        Kind::Nothing => "replay-nothing",
        Kind::AsFound => "replay-present",
        Kind::Fixed => "replay-fixed",
        Kind::ByMonth => "replay-by-month",
        Kind::EtSensor => "replay-et-sensor",
        Kind::RainSensor => "replay-rain-sensor",
        Kind::SoilSensor => "replay-soil-sensor",
        Kind::Deficit => "replay-deficit",
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
        Kind::Nothing | Kind::AsFound => String::new(),
    }
}

/// The fields of the form as the question was understood.
fn fill(form: &mut Form, asked: &Asked, c: &Controller) {
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
    form.set("set", asked.what_if.percents.map_or_else(String::new, |p| percents_text(&p)));
}

/// Days a week of the programs as they are planned, where they go by weekdays.
fn planned_days(c: &Controller, asked: &Asked) -> Option<u8> {
    asked.letters.first().and_then(|l| weekdays_of(c, *l))
}

/// The question as an address: what is at its usual value is left out.
fn query(form: &Form) -> String {
    let usual = |name: &str, value: &str| match name {
        "scale" => value == "100",
        "token" | "version" | "action" => true,
        _ => value.is_empty(),
    };
    let parts: Vec<String> =
        form.pairs().filter(|(n, v)| !usual(n, v)).map(|(n, v)| format!("{n}={}", v.replace(' ', ""))).collect();
    parts.join("&")
}

fn with(form: &Form, href: &str, field: &str, value: &str) -> String {
    let mut changed = form.clone();
    changed.set(field, value);
    format!("{href}?{}", query(&changed))
}

fn program_tabs(c: &Controller, asked: &Asked, href: &str) -> Vec<Tab> {
    let used = c.programs.iter().filter(|p| c.stations.iter().any(|s| s.program == p.letter));
    let tabs: Vec<Tab> = used
        .map(|p| Tab {
            label: format!("{} {}", p.letter.get(), p.name).trim().to_owned(),
            // What was tried on one program says nothing about another.
            href: format!("{href}?program={}&period={}", p.letter.get(), asked.period),
            current: asked.letters.contains(&p.letter),
        })
        .collect();
    if asked.letters.len() > 1 { Vec::new() } else { tabs }
}

fn station_tabs(c: &Controller, asked: &Asked, form: &Form, href: &str) -> Vec<Tab> {
    let own = c.stations.iter().filter(|s| asked.letters.contains(&s.program));
    own.map(|s| Tab {
        label: format!("{} {}", s.number, s.name),
        href: with(form, href, "station", &s.number.to_string()),
        current: s.number == asked.station,
    })
    .collect()
}

/// The last four years, and everything.
fn period_tabs(days: &[WeatherDay], asked: &Asked, form: &Form, href: &str) -> Vec<Tab> {
    let years = years(days);
    let latest = years.iter().rev().take(4).rev().map(ToString::to_string);
    let tab = |value: String, label: String| Tab {
        href: with(form, href, "period", &value),
        current: asked.period == value,
        label,
    };
    let mut tabs: Vec<Tab> = latest.map(|y| tab(y.clone(), y)).collect();
    tabs.push(tab("all".into(), Words.count("replay-years", years.len().max(1))));
    tabs
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

fn dial_text(dial: Dial) -> String {
    match dial {
        Dial::Off => Words.t("off"),
        Dial::Percent(p) => p.get().to_string(),
    }
}

fn saving(
    field: &Field<'_>,
    asked: &Asked,
    [tried, present]: [&WholeTotals; 2],
    own: Option<RainSetting>,
    units: Units,
) -> Saving {
    let w = Words;
    let (changed, plan) = field.tried_controller(asked);
    let saved = present.volume_m3.zip(tried.volume_m3).map(|(p, t)| p - t);
    let saved_mm = present.applied_mm - tried.applied_mm;
    let less = saved.unwrap_or(saved_mm) >= 0.0;
    let (figure, unit) = match saved {
        Some(m3) => (number(Measure::Volume.in_units(m3.abs(), units), 0), Measure::Volume.unit(units)),
        None => (Measure::Depth.figure(saved_mm.abs(), units), Measure::Depth.unit(units)),
    };
    let money = saved.zip(asked.price).map(|(m3, price)| number((m3 * price).abs(), 0));
    let share = if present.applied_mm > 0.0 { saved_mm.abs() / present.applied_mm * 100.0 } else { 0.0 };
    let amounts = |totals: &WholeTotals| {
        let volume = totals.volume_m3.map(|v| Measure::Volume.season(v, units));
        volume.unwrap_or_else(|| Measure::Depth.season(totals.applied_mm, units))
    };
    let letter = asked.letters.first().copied().unwrap_or(ProgramLetter::A);
    let fits_sensor = matches!(asked.what_if.rain, RainChange::Keep) || own.is_some();
    let nothing = asked.what_if.is_nothing();
    Saving {
        title: w.t(match (nothing, less) {
            (true, true) => "replay-plan-saves",
            (true, false) => "replay-plan-takes",
            (false, true) => "replay-tried-saves",
            (false, false) => "replay-tried-takes",
        }),
        figure,
        unit,
        say: match money {
            Some(money) => w.t2("replay-say-money", money, number(share, 0)),
            None => w.t1("replay-say-share", number(share, 0)),
        },
        more: w.with(
            "replay-say-more",
            &[
                ("tried", &amounts(tried)),
                ("present", &amounts(present)),
                ("adequacy", &number(tried.adequacy, 2)),
                ("limit", &number(asked.enough, 2)),
            ],
        ),
        short: if tried.adequacy < asked.enough {
            w.t1("replay-short", number(asked.enough, 2))
        } else {
            String::new()
        },
        months: months(field, &plan, letter),
        also: also(field, &changed, asked, own, letter, units),
        can_apply: !nothing && fits_sensor,
        cannot: if fits_sensor { String::new() } else { w.t("replay-no-sensor") },
    }
}

/// The twelve months as tried, and as they are.
fn months(field: &Field<'_>, tried: &Plan, letter: ProgramLetter) -> Vec<Vec<(String, String, String, bool)>> {
    let found = field.found.as_ref().filter(|f| f.on);
    let cells: Vec<(String, String, String, bool)> = MonthOfYear::ALL
        .into_iter()
        .map(|month| {
            let set = tried.dial(letter, month);
            let now = found.map_or_else(|| field.plan.dial(letter, month), |f| f.plan.dial(letter, month));
            (month_short(month), dial_text(set), dial_text(now), set != now)
        })
        .collect();
    cells.chunks(6).map(<[_]>::to_vec).collect()
}

/// Days and the rain sensor as tried, against now.
fn also(
    field: &Field<'_>,
    changed: &Controller,
    asked: &Asked,
    own: Option<RainSetting>,
    letter: ProgramLetter,
    units: Units,
) -> Vec<String> {
    let w = Words;
    let days = |c: &Controller| c.program(letter).map(|p| mode_words(p.schedule.days, p.schedule.never));
    let before = field.found.as_ref().map_or(&field.controller, |f| &f.controller);
    let none = |text: Option<String>| text.filter(|t| !t.is_empty()).unwrap_or_else(|| w.t("replay-no-days"));
    let (to, from) = (none(days(changed)), none(days(before)));
    let is_weekdays = changed.program(letter).is_some_and(|p| matches!(p.schedule.days, DayMode::Weekdays(_)));
    let mut out = Vec::new();
    if to == from || !is_weekdays {
        out.push(w.t1("replay-days-same", to));
    } else {
        out.push(w.t2("replay-days-new", to, from));
    }
    let setting =
        |s: RainSetting| w.t2("replay-rain-is", rain_setting(s.threshold_mm, units), s.delay_days.to_string());
    let now = own.map_or_else(|| w.t("replay-rain-none"), setting);
    out.push(match asked.what_if.rain {
        RainChange::Keep => w.t1("replay-rain-same", now),
        RainChange::Without => w.t2("replay-rain-new", w.t("replay-rain-none"), now),
        RainChange::Set(set) => w.t2("replay-rain-new", setting(set), now),
    });
    out
}

/// The address of the best setting's replay; nothing where there is nothing to search.
pub(crate) fn best_address(field: &Field<'_>, asked: &Asked) -> Option<String> {
    let season = field.season(asked.span)?;
    let (thresholds, own) = rain_sensor(&field.controller);
    // A sensor that is not there is no setting of this controller.
    let rain: Vec<RainSetting> = own
        .into_iter()
        .flat_map(|own| {
            thresholds.iter().flat_map(move |t| {
                DELAYS.map(|delay_days| RainSetting { threshold_mm: *t, delay_days, vent: own.vent })
            })
        })
        .collect();
    let best = best_setting(field.search(&season, asked, &rain))?;
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
