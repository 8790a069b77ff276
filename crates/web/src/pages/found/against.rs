//! A panel as it was found against the plan: what to dial, and what to take over.

use upland_core::controller::{Controller, ProgramLetter};
use upland_core::found::{Difference, Held, Panel, Part, differences};
use uuid::Uuid;

use crate::context::ControllerContext;
use crate::form::Form;
use crate::pages::stations::station_name;
use crate::pages::water_windows::line;
use crate::show::{minutes, mode_words, month_long, panel_start, percent};
use crate::words::Words;

/// A value that reads otherwise on the panel.
#[derive(Debug, Clone)]
pub(crate) struct AgainstRow {
    /// What the box carries; empty where the plan cannot take the value.
    pub(crate) key: String,
    pub(crate) what: String,
    pub(crate) panel: String,
    pub(crate) plan: String,
    pub(crate) ticked: bool,
}

/// The differences between a panel and the plan.
#[derive(Debug, Clone)]
pub(crate) struct Against {
    pub(crate) title: String,
    pub(crate) rows: Vec<AgainstRow>,
    pub(crate) takes_any: bool,
    pub(crate) post_to: String,
    pub(crate) dial_href: String,
    pub(crate) version: i32,
    /// The record that is compared.
    pub(crate) of: String,
    pub(crate) error: String,
}

/// The name of the boxes.
pub(crate) const TAKE: &str = "take";

impl Against {
    /// The panel of a record that still stands as it was found; `form` holds the boxes.
    pub(crate) fn of(context: &ControllerContext, (record, panel): (Uuid, &Panel), form: &Form) -> Self {
        let controller = context.controller();
        let differ = differing(context, panel);
        let base = format!("/controllers/{}", context.controller.id);
        let rows: Vec<AgainstRow> = differ.iter().map(|d| row(d, controller, form)).collect();
        Self {
            title: Words.count("found-differences", rows.len()),
            takes_any: differ.iter().any(|d| d.can_adopt),
            rows,
            post_to: format!("{base}/as-found/adopt"),
            dial_href: format!("{base}/dial-in?only=changed"),
            version: context.controller.version,
            of: record.to_string(),
            error: form.error(TAKE).to_owned(),
        }
    }
}

/// Where a panel and the plan of its day differ.
pub(crate) fn differing(context: &ControllerContext, panel: &Panel) -> Vec<Difference> {
    differences(panel, context.controller(), &context.plan())
}

/// The parts whose boxes are ticked, of those that differ and that the plan can take.
pub(crate) fn taken(form: &Form, differ: &[Difference]) -> Vec<Part> {
    let open = differ.iter().filter(|d| d.can_adopt).map(|d| d.part);
    open.filter(|part| is_ticked(form, &part.key())).collect()
}

fn is_ticked(form: &Form, key: &str) -> bool {
    form.pairs().any(|(name, value)| name == TAKE && value == key)
}

fn row(difference: &Difference, controller: &Controller, form: &Form) -> AgainstRow {
    let key = if difference.can_adopt { difference.part.key() } else { String::new() };
    AgainstRow {
        ticked: is_ticked(form, &key),
        what: part_words(difference.part, controller),
        panel: held_words(&difference.panel, controller),
        plan: held_words(&difference.plan, controller),
        key,
    }
}

fn part_words(part: Part, controller: &Controller) -> String {
    let w = Words;
    let letter = |l: ProgramLetter| l.get().to_string();
    match part {
        Part::Minutes(n) => w.t1("found-part-minutes", station_name(controller, n)),
        Part::Programs(n) => w.t1("found-part-programs", station_name(controller, n)),
        Part::Cycle(n) => w.t1("found-part-cycle", station_name(controller, n)),
        Part::Days(l) => w.t1("found-part-days", letter(l)),
        Part::Starts(l) => w.t1("found-part-starts", letter(l)),
        Part::Windows => w.t("found-windows"),
        Part::Percent(l, month) => w.t2("found-part-percent", ("program", letter(l)), ("month", month_long(month))),
    }
}

fn held_words(held: &Held, controller: &Controller) -> String {
    let w = Words;
    let or_none = |text: String| if text.is_empty() { w.t("found-part-none") } else { text };
    match held {
        Held::Run(run) => format!("{}\u{a0}min", minutes(*run)),
        Held::Programs(letters) => or_none(letters.iter().map(|l| l.get().to_string()).collect::<Vec<_>>().join(", ")),
        Held::Cycle(None) => w.t("found-part-through"),
        Held::Cycle(Some(set)) => {
            w.t2("found-part-cycle-of", ("cycle", minutes(set.cycle)), ("soak", minutes(set.soak)))
        }
        Held::Days(mode, never) => or_none(mode_words(*mode, *never)),
        Held::Starts(starts) => {
            let face = controller.capability.clock_face;
            let words: Vec<String> = starts.iter().map(|s| panel_start(*s, face)).collect();
            if words.is_empty() { w.t("off") } else { words.join("  ") }
        }
        Held::Windows(windows) => or_none(line(windows, controller.capability.clock_face)),
        Held::Percent(None) => w.t("off"),
        Held::Percent(Some(value)) => percent(value.get()),
    }
}
