//! The working of figures: of each station's minutes, of each month's percent, of stations side by side.

use upland_core::quantity::MonthOfYear;

use super::each;
use super::fixture::{Half, context};
use crate::context::ControllerContext;
use crate::pages::working::{CompareView, Figure, MonthWorking, Provenances, StationWorking};
use crate::show::Units;

fn station(context: &ControllerContext, number: u8, units: Units) -> StationWorking {
    let weather = Provenances::of(&context.at).unwrap();
    StationWorking::of(number, context.controller(), context.budget().unwrap(), weather, units).unwrap()
}

fn month(context: &ControllerContext, figure: Figure, month: MonthOfYear, units: Units) -> Option<MonthWorking> {
    let group = &context.budget().unwrap().groups[0];
    let weather = Provenances::of(&context.at).unwrap();
    MonthWorking::of(figure, context.controller(), group, month, weather, units)
}

#[test]
fn the_minutes_of_each_station() {
    each("working_stations", |half, units| {
        let context = context(half);
        let all = context.controller().stations.iter().map(|s| format!("{:#?}", station(&context, s.number, units)));
        all.collect::<Vec<_>>().join("\n")
    });
}

#[test]
fn the_figures_of_a_month() {
    each("working_month", |half, units| {
        let context = context(half);
        let figures = [
            Figure::Percent,
            Figure::Demand,
            Figure::Delivered,
            Figure::Difference,
            Figure::Waterings,
            Figure::Minutes(2),
        ];
        let told = figures.map(|figure| format!("{figure:?}\n{:#?}", month(&context, figure, half.month(), units)));
        told.join("\n\n")
    });
}

#[test]
fn stations_side_by_side() {
    each("compare", |half, units| {
        let context = context(half);
        let numbers = [1, 2, 4];
        format!("{:#?}", CompareView::of(&numbers, context.controller(), context.budget().unwrap(), units).unwrap())
    });
}

#[test]
fn the_comparison_and_the_worksheet_name_the_same_minutes() {
    for half in [Half::North, Half::South] {
        let context = context(half);
        let compare =
            CompareView::of(&[1, 2, 4], context.controller(), context.budget().unwrap(), Units::Metric).unwrap();
        for head in &compare.heads {
            assert_eq!(head.minutes, station(&context, head.number, Units::Metric).figure, "{}", head.name);
        }
    }
}

#[test]
fn stations_that_are_not_there_are_left_out_of_a_comparison() {
    let context = context(Half::North);
    let of = |numbers: &[u8]| {
        CompareView::of(numbers, context.controller(), context.budget().unwrap(), Units::Metric)
            .map(|view| view.heads.iter().map(|h| h.number).collect::<Vec<_>>())
    };
    assert_eq!(of(&[9, 4, 30, 1]), Some(vec![4, 1]));
    assert_eq!(of(&[9]), None);
    assert_eq!(of(&[]), None);
}

#[test]
fn every_month_has_its_working() {
    for half in [Half::North, Half::South] {
        let context = context(half);
        for m in MonthOfYear::ALL {
            let working = month(&context, Figure::Percent, m, Units::Us).unwrap();
            assert!(!working.steps.is_empty(), "{m:?}");
            assert!(working.steps.iter().all(|step| !format!("{step:?}").contains("NaN")), "{working:#?}");
        }
        assert!(month(&context, Figure::Minutes(30), half.month(), Units::Us).is_none(), "no such station");
    }
}
