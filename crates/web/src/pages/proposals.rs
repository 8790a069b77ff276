//! Several schedules for the same stations, side by side with what each costs.

use chrono::{NaiveDate, TimeDelta};
use upland_core::controller::{Controller, ProgramLetter};
use upland_core::replay::WholeTotals;
use upland_core::schedule::{
    Candidate, DayWish, Grouping, Help, Helped, Level, Pinned, TimeWish, Wish, candidates, helps,
};

use super::replay::Field;
use super::shell::Shell;
use super::spine::Spine;
use super::week::shortfall_words;
use super::year::program_label;
use crate::charts::{MiniWeek, Strip, volume_text, volume_unit};
use crate::context::{ControllerContext, WeatherDay, monday};
use crate::form::{Form, new_key};
use crate::show::{Measure, Units, clock, clock_time, day_long, mode_words, number, panel_start};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "proposals.html")]
pub(crate) struct ProposalsTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) view: ProposalsView,
}

/// A figure of a schedule: its name, its value and unit.
#[derive(Debug, Clone)]
pub(crate) struct Cost {
    pub(crate) name: String,
    pub(crate) value: String,
    pub(crate) unit: String,
}

/// A schedule beside others.
#[derive(Debug, Clone)]
pub(crate) struct ProposalCard {
    pub(crate) title: String,
    pub(crate) best: bool,
    pub(crate) days: &'static str,
    pub(crate) time: &'static str,
    pub(crate) week: MiniWeek,
    /// Program, days and starts.
    pub(crate) programs: Vec<(String, String)>,
    pub(crate) costs: Vec<Cost>,
    /// What does not fit, or breaks a rule.
    pub(crate) problems: Vec<String>,
    pub(crate) action: String,
}

#[derive(Debug, Clone)]
pub(crate) struct ProposalsView {
    pub(crate) base: String,
    pub(crate) version: i32,
    pub(crate) grouping: &'static str,
    /// Address, label and whether it is the one shown, of each grouping.
    pub(crate) tabs: Vec<(String, String, bool)>,
    pub(crate) cards: Vec<ProposalCard>,
    /// Programs that can be left as they are.
    pub(crate) pins: Vec<Pin>,
    /// What would help where nothing fits.
    pub(crate) helps: Vec<HelpLine>,
    /// From which weather the costs are.
    pub(crate) note: String,
}

/// Words by which a form names days and times.
const DAYS: [(DayWish, &str); 4] =
    [(DayWish::Weekdays, "weekdays"), (DayWish::EveryN, "every"), (DayWish::Odd, "odd"), (DayWish::Even, "even")];
const TIMES: [(TimeWish, &str); 3] =
    [(TimeWish::Morning, "morning"), (TimeWish::Evening, "evening"), (TimeWish::Both, "both")];

/// What a form asks of a proposal; the usual where it says nothing.
pub(crate) fn wish_of(form: &Form) -> (Wish, Grouping) {
    let days = DAYS.iter().find(|(_, word)| form.is("days", word)).map(|(days, _)| *days);
    let time = TIMES.iter().find(|(_, word)| form.is("time", word)).map(|(time, _)| *time);
    let grouping = if form.is("grouping", "by_need") { Grouping::ByNeed } else { Grouping::Keep };
    let pinned = Pinned::of(ProgramLetter::ALL.into_iter().filter(|letter| form.is(&pin_field(*letter), "1")));
    (Wish { days: days.unwrap_or_default(), time: time.unwrap_or_default(), pinned }, grouping)
}

/// The field that leaves a program as it is.
fn pin_field(letter: ProgramLetter) -> String {
    format!("pin_{}", letter.get())
}

/// A program that can be left as it is.
#[derive(Debug, Clone)]
pub(crate) struct Pin {
    pub(crate) field: String,
    pub(crate) name: String,
    pub(crate) on: bool,
}

/// Something that would help, and what it leaves.
#[derive(Debug, Clone)]
pub(crate) struct HelpLine {
    pub(crate) what: String,
    pub(crate) ask: String,
    pub(crate) then: String,
    pub(crate) all: bool,
}

impl ProposalsView {
    /// Every way that the panel has. With weather by the day each is replayed over the last year on record.
    pub(crate) fn of(
        context: &ControllerContext,
        days: &[WeatherDay],
        (wish, grouping): (Wish, Grouping),
        today: NaiveDate,
        units: Units,
    ) -> Self {
        let w = Words;
        let first = monday(today);
        let situation = context.situation(first);
        let found = candidates(&situation, context.controller(), grouping, wish.pinned);
        let pins = pins(context.controller(), wish.pinned);
        let replays = Replays::of(context, days);
        let base = format!("/controllers/{}/week", context.controller.id);
        let tab = |grouping: Grouping, word: &str, key| (tab_href(&base, word, &pins), w.t(key), grouping);
        let tabs =
            [tab(Grouping::Keep, "keep", "proposals-keep"), tab(Grouping::ByNeed, "by_need", "proposals-by-need")];
        Self {
            version: context.controller.version,
            grouping: if grouping == Grouping::ByNeed { "by_need" } else { "keep" },
            tabs: tabs.into_iter().map(|(href, label, own)| (href, label, own == grouping)).collect(),
            cards: found
                .iter()
                .enumerate()
                .map(|(rank, candidate)| {
                    let replayed = replays.as_ref().map(|r| r.totals(&candidate.proposal.controller));
                    card(context, candidate, rank == 0, replayed, first, units)
                })
                .collect(),
            helps: found.first().map_or_else(Vec::new, |best| {
                let helped = helps(&situation, context.controller(), best, grouping);
                helped.iter().map(|helped| help_line(context.controller(), helped)).collect()
            }),
            pins,
            note: w.t(if replays.is_some() { "proposals-replayed" } else { "proposals-normals" }),
            base,
        }
    }
}

/// The last year on record, over which schedules are compared.
struct Replays<'a> {
    field: Field<'a>,
    season: upland_core::replay::Season,
}

/// Days that are compared.
const YEAR: i64 = 365;

impl<'a> Replays<'a> {
    fn of(context: &'a ControllerContext, days: &[WeatherDay]) -> Option<Self> {
        let field = Field::of(context, days, None)?;
        let last = days.last()?.date;
        let first = last - TimeDelta::days(YEAR - 1);
        // A few weeks say nothing of a year.
        let season = field.season([first, last]).filter(|_| days.first().is_some_and(|d| d.date <= first))?;
        Some(Self { field, season })
    }

    fn totals(&self, controller: &Controller) -> WholeTotals {
        self.field.of_schedule(&self.season, controller, None)
    }
}

fn card(
    context: &ControllerContext,
    candidate: &Candidate,
    best: bool,
    replayed: Option<WholeTotals>,
    first: NaiveDate,
    units: Units,
) -> ProposalCard {
    let w = Words;
    let c = &candidate.proposal.controller;
    let situation = context.situation(first);
    let week = situation.week(c, &situation.plan(c), Level::Calendar);
    let Wish { days, time, .. } = candidate.wish;
    let word = |list: &[(DayWish, &'static str)]| list.iter().find(|(d, _)| *d == days).map_or("", |(_, w)| w);
    ProposalCard {
        title: w.t2("proposals-title", ("days", w.t(day_key(days))), ("time", w.t(time_key(time)))),
        best,
        days: word(&DAYS),
        time: TIMES.iter().find(|(t, _)| *t == time).map_or("", |(_, word)| word),
        week: MiniWeek::draw(first, &week, &context.at.rules),
        programs: c
            .programs
            .iter()
            .filter(|p| !p.schedule.is_idle())
            .map(|p| {
                let face = c.capability.clock_face;
                let starts: Vec<String> = p.schedule.starts.iter().map(|s| panel_start(*s, face)).collect();
                let days = mode_words(p.schedule.days, p.schedule.never);
                (program_label(Some(p), p.letter), format!("{days}, {}", starts.join("  ")))
            })
            .collect(),
        costs: costs(candidate, replayed, units),
        problems: problems(candidate),
        action: new_key(),
    }
}

/// What does not fit, or breaks a rule.
fn problems(candidate: &Candidate) -> Vec<String> {
    let w = Words;
    let mut problems: Vec<String> = candidate.proposal.shortfalls.iter().map(|s| shortfall_words(w, s)).collect();
    if candidate.broken > 0 {
        problems.push(w.count("proposals-broken", candidate.broken));
    }
    problems
}

/// The programs that water now: one without starts has nothing to keep.
fn pins(c: &Controller, pinned: Pinned) -> Vec<Pin> {
    let own = c.programs.iter().filter(|p| !p.schedule.is_idle());
    own.map(|p| Pin { field: pin_field(p.letter), name: program_label(Some(p), p.letter), on: pinned.holds(p.letter) })
        .collect()
}

fn tab_href(base: &str, grouping: &str, pins: &[Pin]) -> String {
    let pinned: String = pins.iter().filter(|pin| pin.on).map(|pin| format!("&{}=1", pin.field)).collect();
    format!("{base}/proposals?grouping={grouping}{pinned}")
}

fn help_line(c: &Controller, helped: &Helped) -> HelpLine {
    let w = Words;
    let name = |letter| program_label(c.program(letter), letter);
    let (what, ask) = match helped.help {
        Help::Split { letter, into } => {
            (w.t2("help-split", ("program", name(letter)), ("other", name(into))), "help-by-you")
        }
        Help::Day(day) => (w.t1("help-day", day_long(day)), "help-ask"),
        Help::Hours { from, to } => {
            (w.t2("help-hours", ("to", clock_time(to.into())), ("from", clock_time(from.into()))), "help-ask")
        }
        Help::Cycles => (w.t("help-cycles"), "help-panel"),
        Help::PanelDays(days) => (w.t1("help-panel-days", days.to_string()), "help-panel"),
    };
    let left = problems(&helped.candidate);
    HelpLine {
        what,
        ask: w.t(ask),
        all: left.is_empty(),
        then: if left.is_empty() { w.t("help-all") } else { left.join("; ") },
    }
}

fn costs(candidate: &Candidate, replayed: Option<WholeTotals>, units: Units) -> Vec<Cost> {
    let w = Words;
    let cost = |key, value: String, unit: &str| Cost { name: w.t(key), value, unit: unit.to_owned() };
    let mut out = Vec::new();
    if let Some(mm) = candidate.deviation_mm {
        out.push(cost("proposals-deviation", Measure::Depth.figure(mm, units), Measure::Depth.unit(units)));
    }
    if let Some(totals) = replayed {
        out.push(cost("proposals-adequacy", number(totals.adequacy * 100.0, 0), "%"));
        if let Some(m3) = totals.volume_m3 {
            out.push(cost("proposals-volume", volume_text(units)(m3), volume_unit(units)));
        }
        out.push(cost("proposals-waterings", number(totals.waterings, 0), ""));
    }
    out.push(cost("proposals-days", number(candidate.days_a_week, 1), ""));
    if let Some(ends) = candidate.ends {
        out.push(cost("proposals-ends", clock(ends), ""));
    }
    out
}

const fn day_key(days: DayWish) -> &'static str {
    match days {
        DayWish::Weekdays => "proposals-weekdays",
        DayWish::EveryN => "proposals-every",
        DayWish::Odd => "proposals-odd",
        DayWish::Even => "proposals-even",
    }
}

const fn time_key(time: TimeWish) -> &'static str {
    match time {
        TimeWish::Morning => "proposals-morning",
        TimeWish::Evening => "proposals-evening",
        TimeWish::Both => "proposals-both",
    }
}
