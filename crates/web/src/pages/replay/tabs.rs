//! The question as an address, and the tabs that ask another one.

use upland_core::controller::Controller;

use super::asked::{Asked, years};
use crate::context::WeatherDay;
use crate::form::Form;
use crate::words::Words;

/// A link of a row of tabs.
#[derive(Debug, Clone)]
pub(crate) struct Tab {
    pub(crate) label: String,
    pub(crate) href: String,
    pub(crate) current: bool,
}

/// The question as an address: what is at its usual value is left out.
pub(super) fn query(form: &Form) -> String {
    let usual = |name: &str, value: &str| match name {
        "scale" | "refill" => value == "100",
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
    if field == "station" {
        // What was tried on one station says nothing about another.
        changed.set("minutes", "");
    }
    format!("{href}?{}", query(&changed))
}

pub(super) fn program_tabs(c: &Controller, asked: &Asked, href: &str) -> Vec<Tab> {
    let tabs: Vec<Tab> = c
        .programs_with_stations()
        .map(|p| Tab {
            label: format!("{} {}", p.letter.get(), p.name).trim().to_owned(),
            // What was tried on one program says nothing about another.
            href: format!("{href}?program={}&period={}", p.letter.get(), asked.period),
            current: asked.letters.contains(&p.letter),
        })
        .collect();
    if asked.letters.len() > 1 { Vec::new() } else { tabs }
}

pub(super) fn station_tabs(c: &Controller, asked: &Asked, form: &Form, href: &str) -> Vec<Tab> {
    let own = c.stations.iter().filter(|s| asked.letters.contains(&s.program));
    own.map(|s| Tab {
        label: format!("{} {}", s.number, s.name),
        href: with(form, href, "station", &s.number.to_string()),
        current: s.number == asked.station,
    })
    .collect()
}

/// The last four years, and everything.
pub(super) fn period_tabs(days: &[WeatherDay], period: &str, form: &Form, href: &str) -> Vec<Tab> {
    let years = years(days);
    let latest = years.iter().rev().take(4).rev().map(ToString::to_string);
    let tab = |value: String, label: String| Tab {
        href: with(form, href, "period", &value),
        current: period == value,
        label,
    };
    let mut tabs: Vec<Tab> = latest.map(|y| tab(y.clone(), y)).collect();
    tabs.push(tab("all".into(), Words.count("replay-years", years.len().max(1))));
    tabs
}
