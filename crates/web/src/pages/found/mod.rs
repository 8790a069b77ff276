//! As found: the panel written down before anything is changed, and what is wrong with it.

mod against;
mod form;
mod parts;
mod words;

use crate::context::FieldRecord;
use chrono::NaiveDateTime;
use upland_core::controller::{Capability, Controller, ProgramLetter};
use upland_core::found::{Panel, SensorSwitch, Switch, panel_findings, panel_water};
use upland_formats::site::FieldDoc;

use super::days_form::ticked_days;
use super::shell::Shell;
use super::spine::Spine;
use super::stations::station_name;
use crate::charts::{Ledger, LedgerValue, Strip, volume_text, volume_unit};
use crate::context::ControllerContext;
use crate::form::Form;
use crate::pages::frame::Frame;
use crate::show::{Measure, Units, clock, date_long, date_short, day_short, minutes, month_long, month_of};
use crate::words::Words;

pub(crate) use against::{Against, TAKE, differing, taken};
pub(crate) use form::{empty, filled, percent_field, read};
pub(crate) use parts::PanelParts;
pub(crate) use words::FoundView;
pub use words::words_of_panel;

#[derive(askama::Template)]
#[template(path = "found.html")]
pub(crate) struct FoundTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) href: String,
    pub(crate) form: Form,
    pub(crate) parts: PanelParts,
    pub(crate) live: PanelLive,
    /// A panel of an earlier day is only shown.
    pub(crate) earlier: Option<EarlierPanel>,
    /// What differs from the plan, for the panel that still stands as it was found.
    pub(crate) against: Option<Against>,
    pub(crate) records: Vec<RecordLink>,
}

#[derive(askama::Template)]
#[template(path = "found_live.html")]
pub(crate) struct FoundLiveTemplate {
    pub(crate) w: Words,
    pub(crate) live: PanelLive,
}

/// Water of a station in words.
#[derive(Debug, Clone)]
pub(crate) struct WaterLine {
    pub(crate) name: String,
    pub(crate) found: String,
    pub(crate) need: String,
}

/// What changes while the panel is written down.
#[derive(Debug, Clone)]
pub(crate) struct PanelLive {
    pub(crate) ledger: Ledger,
    pub(crate) clock: String,
    pub(crate) minutes: String,
    pub(crate) programs: Vec<(String, String)>,
    pub(crate) switches: String,
    pub(crate) findings: Vec<FoundView>,
    pub(crate) findings_title: String,
    pub(crate) water: Vec<WaterLine>,
    pub(crate) water_total: String,
    pub(crate) month: String,
    pub(crate) unit: &'static str,
}

/// A panel of an earlier day.
#[derive(Debug, Clone)]
pub(crate) struct EarlierPanel {
    pub(crate) head: String,
    pub(crate) stations: Vec<(String, String, String)>,
    pub(crate) note: String,
}

/// A link to a record.
#[derive(Debug, Clone)]
pub(crate) struct RecordLink {
    pub(crate) href: String,
    pub(crate) label: String,
    pub(crate) more: String,
}

/// The panel of a record, if it is one.
pub(crate) fn panel_of(record: &FieldRecord) -> Option<Panel> {
    match &record.document {
        FieldDoc::Found(doc) => Panel::try_from(doc).ok(),
        _ => None,
    }
}

impl PanelLive {
    /// What a panel says as far as it is written down; `form` tells which values are there.
    pub(crate) fn of(context: &ControllerContext, panel: &Panel, form: &Form, units: Units) -> Self {
        let w = Words;
        let known = context.controller();
        let situation = context.week_of(panel.seen_at.date());
        let budget = context.budget().ok();
        let clock_is_there = !form.get("clock_time").is_empty();
        let findings: Vec<_> = panel_findings(panel, known, &situation, budget)
            .into_iter()
            .filter(|f| clock_is_there || !f.is_clock())
            .collect();
        let water = panel_water(panel, known, &situation, budget);
        let lines = water
            .iter()
            .map(|s| WaterLine {
                name: station_name(known, s.number),
                found: Measure::Depth.figure(s.found_mm, units),
                need: s.need_mm.map_or_else(|| "·".to_owned(), |mm| Measure::Depth.figure(mm, units)),
            })
            .collect();
        let sum = |of: fn(&upland_core::found::FoundWater) -> Option<f64>| water.iter().filter_map(of).sum::<f64>();
        let text = volume_text(units);
        Self {
            ledger: Ledger::draw(&ledger(&known.capability, form)),
            clock: clock_line(panel, form),
            minutes: panel.stations.iter().map(|s| minutes(s.minutes)).collect::<Vec<_>>().join(" "),
            programs: panel
                .programs
                .iter()
                .map(|p| {
                    (
                        p.letter.get().to_string(),
                        words::program_line(p.days, &p.starts, known.capability.clock_face, p.percent.get()),
                    )
                })
                .collect(),
            switches: switch_line(panel),
            findings_title: w.count("found-findings", findings.len()),
            findings: words::views(&findings, known, units),
            water: lines,
            water_total: w.with(
                "found-water-total",
                &[
                    ("found", &text(sum(|s| s.found_m3))),
                    ("need", &text(sum(|s| s.need_m3))),
                    ("unit", volume_unit(units)),
                ],
            ),
            month: month_long(month_of(panel.seen_at.date())),
            unit: Measure::Depth.unit(units),
        }
    }
}

/// The values of the panel in its order, written down or not.
fn ledger(k: &Capability, form: &Form) -> Vec<(String, Vec<LedgerValue>)> {
    let w = Words;
    let value = |field: &str, short| LedgerValue { done: !form.get(field).is_empty(), short, current: false };
    let mut groups = vec![
        (w.t("found-clock"), vec![value("clock_date", false), value("clock_time", false)]),
        (w.t("found-minutes"), (1..=k.stations).map(|n| value(&format!("m{n}"), false)).collect()),
    ];
    for letter in form::letters(k) {
        let l = letter.get();
        let has_days = !form.is(&format!("mode{l}"), "weekdays") || !ticked_days(form, &format!("on{l}")).is_empty();
        let mut values = vec![LedgerValue { done: has_days, short: false, current: false }];
        values.extend((0..k.starts).map(|i| value(&format!("start{l}{i}"), i > 0)));
        groups.push((l.to_string(), values));
    }
    groups
}

fn clock_line(panel: &Panel, form: &Form) -> String {
    if form.get("clock_time").is_empty() && form.get("clock_date").is_empty() {
        return String::new();
    }
    let weekday = panel.clock.weekday.map(|d| format!("{} ", day_short(d))).unwrap_or_default();
    format!("{weekday}{}, {}", date_short(panel.clock.date), panel.clock.time)
}

fn switch_line(panel: &Panel) -> String {
    let w = Words;
    let on = w.t(match panel.switch {
        Switch::On => "found-on",
        Switch::Held => "found-held",
        Switch::Off => "found-off",
    });
    let sensor = w.t(match panel.sensor {
        SensorSwitch::None => "found-sensor-none",
        SensorSwitch::Active => "found-sensor-active",
        SensorSwitch::Bypassed => "found-sensor-bypassed",
    });
    format!("{on}, {sensor}")
}

impl EarlierPanel {
    pub(crate) fn of(panel: &Panel, record: &FieldRecord, known: &Controller) -> Self {
        let letters = |l: &[ProgramLetter]| l.iter().map(|l| l.get().to_string()).collect::<Vec<_>>().join(", ");
        Self {
            head: Words.with(
                "found-earlier",
                &[
                    ("date", &date_long(panel.seen_at.date())),
                    ("time", &clock(panel.seen_at)),
                    ("who", &record.user_name),
                ],
            ),
            stations: panel
                .stations
                .iter()
                .map(|s| {
                    let name = known.station(s.number).map_or_else(String::new, |k| k.name.clone());
                    (format!("{} {name}", s.number), minutes(s.minutes), letters(&s.programs))
                })
                .collect(),
            note: panel.note.clone(),
        }
    }
}

/// Links to the panels found before, newest first.
pub(crate) fn record_links(records: &[FieldRecord], context: &ControllerContext, href: &str) -> Vec<RecordLink> {
    let budget = context.budget().ok();
    records
        .iter()
        .filter_map(|record| {
            let panel = panel_of(record)?;
            let situation = context.week_of(panel.seen_at.date());
            let count = panel_findings(&panel, context.controller(), &situation, budget).len();
            Some(RecordLink {
                href: format!("{href}?of={}", record.id),
                label: format!("{} {}", date_long(panel.seen_at.date()), clock(panel.seen_at)),
                more: format!("{}, {}", record.user_name, Words.count("found-findings", count)),
            })
        })
        .collect()
}

/// The page's address.
pub(crate) fn found_href(controller: uuid::Uuid) -> String {
    format!("/controllers/{controller}/as-found")
}

/// Everything that the page is made from.
pub(crate) struct FoundPage<'a> {
    pub(crate) frame: Frame,
    pub(crate) context: &'a ControllerContext,
    pub(crate) form: Form,
    pub(crate) panel: &'a Panel,
    pub(crate) earlier: Option<EarlierPanel>,
    pub(crate) against: Option<Against>,
    pub(crate) records: &'a [FieldRecord],
    pub(crate) units: Units,
}

impl FoundPage<'_> {
    pub(crate) fn template(self) -> FoundTemplate {
        let href = found_href(self.context.controller.id);
        FoundTemplate {
            live: PanelLive::of(self.context, self.panel, &self.form, self.units),
            parts: PanelParts::of(self.context.controller()),
            records: record_links(self.records, self.context, &href),
            shell: self.frame.shell,
            spine: self.frame.spine,
            strip: self.frame.strip,
            form: self.form,
            earlier: self.earlier,
            against: self.against,
            href,
        }
    }
}

/// The moment at which a page is shown, for a panel that nothing is written down of yet.
pub(crate) fn blank(controller: &Controller, now: NaiveDateTime) -> (Form, Panel) {
    let form = empty(controller, now);
    let panel = read(&mut form.clone(), &controller.capability, now);
    (form, panel)
}
