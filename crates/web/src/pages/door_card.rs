//! The door card: one printed page, in the terms and steps of its controller.

use chrono::NaiveDate;
use upland_core::budget::{Dial, YearBudget};
use upland_core::controller::{Controller, PercentStorage};
use upland_core::landscape::Plant;
use upland_core::quantity::MonthOfYear;

use super::stations::plant_key;
use super::working::minutes;
use crate::charts::Strip;
use crate::show::{date_long, month_short, number};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "door_card.html")]
pub(crate) struct DoorCardTemplate {
    pub(crate) w: Words,
    pub(crate) css: [String; 2],
    pub(crate) back: String,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) issued: String,
    pub(crate) by: String,
    pub(crate) company: String,
    pub(crate) card: String,
    pub(crate) strip: Option<Strip>,
    pub(crate) stations: Vec<CardStation>,
    pub(crate) months: Vec<CardMonth>,
    pub(crate) programs: Vec<CardProgram>,
    pub(crate) percent_note: String,
    pub(crate) fewer: String,
    pub(crate) note: String,
}

#[derive(Debug, Clone)]
pub(crate) struct CardStation {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) what: String,
    pub(crate) program: String,
    pub(crate) minutes: String,
    pub(crate) how: String,
}

#[derive(Debug, Clone)]
pub(crate) struct CardMonth {
    pub(crate) label: String,
    pub(crate) now: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct CardProgram {
    pub(crate) letter: String,
    pub(crate) name: String,
    pub(crate) waterings: String,
    /// A percent for each month, whether it is off, and whether it is the month of issue.
    pub(crate) percents: Vec<(String, bool, bool)>,
}

/// The lines of stations.
pub(crate) fn card_stations(controller: &Controller, budget: &YearBudget) -> Vec<CardStation> {
    let w = Words;
    controller
        .stations
        .iter()
        .filter_map(|s| {
            let base = budget.group(s.program)?.stations.iter().find(|b| b.number == s.number)?;
            Some(CardStation {
                number: s.number,
                name: s.name.clone(),
                what: match s.plant {
                    Plant::Coefficient(k) => format!("K {}", number(k.get(), 2)),
                    plant => w.t(plant_key(plant)),
                },
                program: s.program.get().to_string(),
                minutes: minutes(base.run),
                how: if s.roofed {
                    w.t("card-roofed")
                } else if base.held_at_longest(&controller.capability) {
                    w.t("card-held")
                } else {
                    String::new()
                },
            })
        })
        .collect()
}

/// The percents, a line for each group of programs.
pub(crate) fn card_programs(controller: &Controller, budget: &YearBudget, now: MonthOfYear) -> Vec<CardProgram> {
    let w = Words;
    budget
        .groups
        .iter()
        .map(|g| {
            let names: Vec<&str> = g
                .letters
                .iter()
                .filter_map(|l| controller.program(*l))
                .map(|p| p.name.as_str())
                .filter(|n| !n.is_empty())
                .collect();
            let waterings: Vec<String> = g
                .letters
                .iter()
                .filter_map(|l| {
                    g.stations
                        .iter()
                        .find(|s| s.program == *l)
                        .map(|s| w.t2("card-waterings", l.get().to_string(), s.waterings.to_string()))
                })
                .collect();
            CardProgram {
                letter: g.letters.iter().map(|l| l.get()).collect(),
                name: names.join(", "),
                waterings: waterings.join(", "),
                percents: g
                    .months
                    .iter()
                    .map(|m| {
                        let text = match m.dial {
                            Dial::Off => w.t("off"),
                            Dial::Percent(p) => p.get().to_string(),
                        };
                        (text, m.dial == Dial::Off, m.month == now)
                    })
                    .collect(),
            }
        })
        .collect()
}

pub(crate) fn card_months(now: MonthOfYear) -> Vec<CardMonth> {
    MonthOfYear::ALL.map(|m| CardMonth { label: month_short(m), now: m == now }).to_vec()
}

/// How the percents get onto this controller.
pub(crate) fn percent_note(controller: &Controller) -> String {
    let step = controller.capability.percent_step.get().to_string();
    match controller.capability.percent_storage {
        PercentStorage::ByMonth => Words.t1("card-by-month", step),
        PercentStorage::Single => Words.t1("card-single", step),
    }
}

/// Months with fewer waterings, in a line; empty when there are none.
pub(crate) fn fewer_line(budget: &YearBudget) -> String {
    let w = Words;
    let parts: Vec<String> = budget
        .groups
        .iter()
        .flat_map(|g| g.months.iter().filter_map(move |m| m.waterings_set.map(|n| (g, m, n))))
        .map(|(g, m, n)| {
            let letters: String = g.letters.iter().map(|l| l.get()).collect();
            w.with("card-fewer", &[("program", &letters), ("month", &month_short(m.month)), ("n", &n.to_string())])
        })
        .collect();
    parts.join("; ")
}

pub(crate) fn issued(today: NaiveDate) -> String {
    date_long(today)
}
