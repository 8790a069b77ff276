//! A season of a whole place: its controllers together under each strategy.

use chrono::NaiveDate;
use upland_core::found::Panel;
use upland_core::replay::{Kind, Replayed, Season, WholeTotals};

use super::asked::{period, price_and_enough, years};
use super::beside::{USUAL, telling_years};
use super::rows::{Manner, StrategyRow, YearRow, best_named};
use super::seasons::Field;
use super::tabs::{Tab, period_tabs};
use super::view::kind_key;
use crate::charts::StrategyPlot;
use crate::context::{ControllerContext, WeatherDay};
use crate::form::Form;
use crate::pages::shell::Shell;
use crate::show::{Measure, Units, number};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "place_replay.html")]
pub(crate) struct PlaceReplayTemplate {
    pub(crate) shell: Shell,
    pub(crate) place: String,
    pub(crate) view: Option<PlaceReplay>,
    /// Where to go while there is nothing to replay.
    pub(crate) weather: String,
}

/// A controller of the place: its plan against its present.
#[derive(Debug, Clone)]
pub(crate) struct ControllerRow {
    pub(crate) href: String,
    pub(crate) row: YearRow,
}

#[derive(Debug, Clone)]
pub(crate) struct PlaceReplay {
    pub(crate) base_href: String,
    pub(crate) form: Form,
    pub(crate) periods: Vec<Tab>,
    pub(crate) title: String,
    pub(crate) figure: String,
    pub(crate) figure_unit: &'static str,
    pub(crate) unit: &'static str,
    pub(crate) volume_unit: &'static str,
    pub(crate) rows: Vec<StrategyRow>,
    pub(crate) plot: StrategyPlot,
    pub(crate) enough: String,
    pub(crate) controllers: Vec<ControllerRow>,
    pub(crate) years: Vec<YearRow>,
    pub(crate) price: bool,
    pub(crate) best: String,
    pub(crate) foot: String,
}

/// A controller of a place, and its panel as it was last found.
pub(crate) type Member = (ControllerContext, Option<Panel>);

impl PlaceReplay {
    /// Nothing without a station or a day of weather.
    pub(crate) fn of(
        members: &[Member],
        days: &[WeatherDay],
        mut form: Form,
        href: String,
        units: Units,
    ) -> Option<Self> {
        let w = Words;
        let (period, span) = period(&form, days)?;
        let (price, enough) = price_and_enough(&mut form);
        let with_stations = members.iter().filter(|(context, _)| !context.controller().stations.is_empty());
        let fields: Vec<Field<'_>> =
            with_stations.filter_map(|(context, panel)| Field::of(context, days, panel.as_ref())).collect();
        let whole = &fields.first()?.whole;
        let season = fields.first()?.season(span)?;
        let manner = Manner { units, price, enough };
        let each = |kind| fields.iter().map(|field| field.whole_of(kind, &season)).collect::<Vec<Replayed>>();
        let (presents, plans) = (each(Some(Kind::AsFound)), each(None));
        let own = |field: &Field<'_>, [plan, present]: [&Replayed; 2]| ControllerRow {
            href: format!("/controllers/{}/replay", field.context.controller.id),
            row: YearRow::of(field.controller.name.clone(), [&plan.totals(None), &present.totals(None)], enough, units),
        };
        let pairs = plans.iter().zip(&presents);
        let controllers =
            fields.iter().zip(pairs).map(|(field, (plan, present))| own(field, [plan, present])).collect();
        let [present, plan] = [presents, plans].map(|all| Replayed::joined(all).totals(None));
        let mut strategies: Vec<(String, &'static str, WholeTotals)> =
            vec![(w.t(kind_key(Kind::AsFound)), "present", present)];
        for kind in USUAL {
            strategies.push((w.t(kind_key(kind)), "usual", together(&fields, Some(kind), &season).totals(None)));
        }
        strategies.push((w.t("replay-plan"), "tried", plan));
        let row = |(name, mark, totals): &(String, &'static str, WholeTotals)| {
            StrategyRow::of(name.clone(), String::new(), mark, totals, &present, manner)
        };
        let point = |(name, mark, totals): &(String, &'static str, WholeTotals)| {
            (name.clone(), totals.adequacy, Measure::Depth.in_units(totals.lost_mm, units), *mark)
        };
        let saved = present.volume_m3.zip(plan.volume_m3).map(|(present, plan)| present - plan);
        let saved_mm = present.applied_mm - plan.applied_mm;
        let (figure, figure_unit) = match saved {
            Some(m3) => (number(Measure::Volume.in_units(m3.abs(), units), 0), Measure::Volume.unit(units)),
            None => (Measure::Depth.figure(saved_mm.abs(), units), Measure::Depth.unit(units)),
        };
        form.set("period", period.clone());
        Some(Self {
            periods: period_tabs(days, &period, &form, &href),
            title: w.t(if saved.unwrap_or(saved_mm) >= 0.0 { "replay-plan-saves" } else { "replay-plan-takes" }),
            figure,
            figure_unit,
            unit: Measure::Depth.unit(units),
            volume_unit: Measure::Volume.unit(units),
            rows: strategies.iter().map(row).collect(),
            plot: StrategyPlot::draw(&strategies.iter().map(point).collect::<Vec<_>>(), enough),
            enough: w.t1("replay-plot-enough", number(enough, 2)),
            controllers,
            years: year_rows(&fields, whole, &years(days), enough, units),
            price: price.is_some(),
            best: best_named(&strategies.iter().map(|(name, _, t)| (name.clone(), t)).collect::<Vec<_>>(), manner),
            foot: w.t1("replay-foot", number(enough, 2)),
            base_href: href,
            form,
        })
    }
}

/// All stations of a place under a strategy, or under their plans.
fn together(fields: &[Field<'_>], kind: Option<Kind>, season: &Season) -> Replayed {
    Replayed::joined(fields.iter().map(|field| field.whole_of(kind, season)))
}

/// The plans in a dry, a middle and a wet year.
fn year_rows(fields: &[Field<'_>], whole: &Season, years: &[i32], enough: f64, units: Units) -> Vec<YearRow> {
    let telling = telling_years(whole, years).into_iter();
    telling
        .filter_map(|(key, year, rain)| {
            let span = [NaiveDate::from_ymd_opt(year, 1, 1)?, NaiveDate::from_ymd_opt(year, 12, 31)?];
            let season = fields.first()?.season(span)?;
            let [plan, present] = [None, Some(Kind::AsFound)].map(|kind| together(fields, kind, &season).totals(None));
            let name = Words.with(key, &[("year", &year.to_string()), ("rain", &Measure::Depth.season(rain, units))]);
            Some(YearRow::of(name, [&plan, &present], enough, units))
        })
        .collect()
}
