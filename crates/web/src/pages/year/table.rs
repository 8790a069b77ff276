//! The table under the plate: a line a figure, a column a month.

use upland_core::budget::{Dial, Group, LEAST_RUN_MINUTES, MonthBudget};
use upland_core::controller::{Controller, ProgramLetter};
use upland_core::quantity::MonthOfYear;

use crate::show::{Measure, Units, minutes, number, signed, times};
use crate::words::Words;

/// A cell of the table; its link opens the working.
#[derive(Debug, Clone)]
pub(crate) struct Cell {
    pub(crate) text: String,
    pub(crate) href: String,
    pub(crate) class: &'static str,
    pub(crate) column: &'static str,
}

#[derive(Debug, Clone)]
pub(crate) struct Line {
    pub(crate) number: String,
    pub(crate) label: String,
    pub(crate) unit: String,
    pub(crate) cells: Vec<Cell>,
    pub(crate) big: bool,
}

/// Which class a month's column has in the table.
pub(super) struct Columns {
    pub(super) current: MonthOfYear,
    pub(super) open: MonthOfYear,
    pub(super) hand: bool,
    /// Whether somebody dials the percents.
    pub(super) is_dialled: bool,
}

impl Columns {
    pub(super) fn class(&self, month: MonthOfYear) -> &'static str {
        if self.hand && month == self.open {
            "hand"
        } else if month == self.current {
            "now"
        } else if month == self.open {
            "open"
        } else {
            ""
        }
    }
}

pub(super) fn lines(group: &Group, base: &str, letter: ProgramLetter, columns: &Columns, units: Units) -> Vec<Line> {
    let w = Words;
    let decimals = if units == Units::Us { 2 } else { 1 };
    let depth = |mm: f64| number(Measure::Depth.in_units(mm, units), decimals);
    let largest = group.months.iter().map(|m| m.difference_mm().abs()).fold(0.0, f64::max);
    let cell = |m: &MonthBudget, figure: &str, text: String, class: &'static str| Cell {
        text,
        href: format!("{base}?program={}&month={}&figure={figure}", letter.get(), m.month.number()),
        class,
        column: columns.class(m.month),
    };
    let quiet = |m: &MonthBudget| m.demand_mm <= 0.0 && m.dial == Dial::Off;
    let line = |label: &str, unit: &str, big: bool, make: &dyn Fn(&MonthBudget) -> Cell| Line {
        number: String::new(),
        label: w.t(label),
        unit: unit.to_owned(),
        cells: group.months.iter().map(make).collect(),
        big,
    };
    let unit = Measure::Depth.unit(units);
    vec![
        line(if columns.is_dialled { "year-dial" } else { "year-expect" }, "%", true, &|m| match m.dial {
            Dial::Off => cell(m, "percent", w.t("off"), "off"),
            Dial::Percent(p) => cell(m, "percent", p.get().to_string(), if m.chosen { "chosen" } else { "" }),
        }),
        line("year-called", "%", false, &|m| cell(m, "percent", number(m.percent_exact, 1), "")),
        line("year-demand", unit, false, &|m| cell(m, "demand", depth(m.demand_mm), "")),
        line("year-delivered", unit, false, &|m| {
            let text = if quiet(m) { "·".to_owned() } else { depth(m.delivered_mm) };
            cell(m, "delivered", text, "")
        }),
        line("year-difference", unit, false, &|m| {
            let far = largest > 0.0 && m.difference_mm().abs() > 0.6 * largest && m.difference_mm().abs() >= 2.0;
            let text = if quiet(m) {
                "·".to_owned()
            } else {
                signed(Measure::Depth.in_units(m.difference_mm(), units), decimals)
            };
            cell(m, "difference", text, if far { "far" } else { "" })
        }),
        line("year-waterings", "", false, &|m| {
            cell(m, "waterings", times(m.waterings()), if m.waterings_set.is_some() { "chosen" } else { "" })
        }),
    ]
}

pub(super) fn minute_lines(
    c: &Controller,
    group: &Group,
    base: &str,
    letter: ProgramLetter,
    columns: &Columns,
) -> Vec<Line> {
    group
        .stations
        .iter()
        .enumerate()
        .map(|(index, station)| Line {
            number: station.number.to_string(),
            label: c.stations.iter().find(|s| s.number == station.number).map_or_else(String::new, |s| s.name.clone()),
            unit: String::new(),
            cells: group
                .months
                .iter()
                .filter_map(|m| m.stations.get(index).map(|s| (m, s)))
                .map(|(m, s)| Cell {
                    text: if m.dial == Dial::Off { "·".to_owned() } else { minutes(s.run) },
                    href: format!(
                        "{base}?program={}&month={}&figure=minutes&station={}",
                        letter.get(),
                        m.month.number(),
                        s.number
                    ),
                    class: if m.dial != Dial::Off && s.demand.demand_mm > 0.0 && s.run.minutes() < LEAST_RUN_MINUTES {
                        "short"
                    } else {
                        ""
                    },
                    column: columns.class(m.month),
                })
                .collect(),
            big: false,
        })
        .collect()
}

pub(super) fn foot(group: &Group, units: Units) -> String {
    let asked: f64 = group.months.iter().map(|m| m.demand_mm).sum();
    let given: f64 = group.months.iter().map(|m| m.delivered_mm).sum();
    Words.t2("year-foot", ("needed", Measure::Depth.show(asked, units)), ("given", Measure::Depth.show(given, units)))
}
