//! The Year: demand against what the dialled percent delivers, month by month.

use upland_core::budget::{Dial, Group, LEAST_RUN_MINUTES, MonthBudget, YearBudget};
use upland_core::controller::{Controller, PercentStorage, Program, ProgramLetter};
use upland_core::quantity::MonthOfYear;

use super::Choice;
use super::shell::Shell;
use super::spine::Spine;
use super::stations::missing_note;
use super::working::{Figure, MonthWorking, Provenances};
use crate::charts::{InHand, Strip, YearPlate, YearPlateInput};
use crate::context::{ControllerContext, Missing};
use crate::form::Form;
use crate::show::{Measure, Units, minutes, month_long, month_short, number, percent, signed};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "year.html")]
pub(crate) struct YearTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) year: Option<YearView>,
    pub(crate) note: String,
    pub(crate) note_href: String,
}

/// The live answer to a month in hand: plate, table and side.
#[derive(askama::Template)]
#[template(path = "year_live.html")]
pub(crate) struct YearLiveTemplate {
    pub(crate) w: Words,
    pub(crate) token: String,
    pub(crate) year: YearView,
}

/// A program to look at.
#[derive(Debug, Clone)]
pub(crate) struct Tab {
    pub(crate) href: String,
    pub(crate) label: String,
    pub(crate) current: bool,
}

/// A cell of the table; its link opens the working.
#[derive(Debug, Clone)]
pub(crate) struct Cell {
    pub(crate) text: String,
    pub(crate) href: String,
    pub(crate) class: &'static str,
    pub(crate) column: &'static str,
}

#[derive(Debug, Clone)]
pub(crate) struct MonthHead {
    pub(crate) label: String,
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

/// Fewer days for a month whose runs are too short.
#[derive(Debug, Clone)]
pub(crate) struct ShortRun {
    pub(crate) text: String,
    pub(crate) more: String,
    pub(crate) label: String,
    pub(crate) month: u8,
    pub(crate) waterings: u8,
}

#[derive(Debug, Clone)]
pub(crate) struct YearView {
    pub(crate) base_href: String,
    pub(crate) letter: String,
    pub(crate) tabs: Vec<Tab>,
    pub(crate) plate: YearPlate,
    pub(crate) heads: Vec<MonthHead>,
    pub(crate) lines: Vec<Line>,
    pub(crate) minutes: Vec<Line>,
    pub(crate) foot: String,
    pub(crate) shorts: Vec<ShortRun>,
    // The figure to dial, for the open month.
    pub(crate) dial_title: String,
    pub(crate) dial_note: String,
    pub(crate) dial: String,
    pub(crate) dial_is_off: bool,
    pub(crate) say: String,
    pub(crate) say_more: String,
    pub(crate) month: u8,
    pub(crate) version: i32,
    pub(crate) action: String,
    pub(crate) form: Form,
    pub(crate) waterings: Vec<Choice>,
    pub(crate) allowed: String,
    /// The controller's step: what an arrow key moves by.
    pub(crate) step: u16,
    pub(crate) month_label: String,
    pub(crate) month_chosen: bool,
    pub(crate) programs: Vec<ProgramFields>,
    pub(crate) working: Option<MonthWorking>,
}

/// The decisions of a program that the Year holds.
#[derive(Debug, Clone)]
pub(crate) struct ProgramFields {
    pub(crate) letter: String,
    pub(crate) name: String,
    pub(crate) waterings: Vec<Choice>,
    pub(crate) waterings_now: String,
    pub(crate) count_rain: bool,
}

/// What a Year is made from.
pub(crate) struct YearInput<'a> {
    pub(crate) context: &'a ControllerContext,
    pub(crate) controller: &'a Controller,
    pub(crate) letter: Option<ProgramLetter>,
    pub(crate) month: MonthOfYear,
    pub(crate) current: MonthOfYear,
    pub(crate) figure: Figure,
    /// The budget as it is saved, while a month is in hand.
    pub(crate) saved: Option<&'a YearBudget>,
    pub(crate) units: Units,
    pub(crate) form: Form,
}

impl YearView {
    pub(crate) fn of(input: YearInput<'_>) -> Result<Self, Missing> {
        let w = Words;
        let units = input.units;
        let budget = crate::context::budget_of(input.controller, input.context.normals(), &input.context.at.rules)?;
        let group = input.letter.and_then(|l| budget.group(l)).or(budget.groups.first()).ok_or(Missing::Weather)?;
        let letter = group.letters.first().copied().unwrap_or(ProgramLetter::A);
        let base_href = format!("/controllers/{}/year", input.context.controller.id);
        let saved = input.saved.and_then(|b| b.group(letter));
        let hand = saved.map(|g| InHand { month: input.month, saved: g.month(input.month) });
        let plate = YearPlate::draw(&YearPlateInput {
            group,
            capability: &input.controller.capability,
            current: input.current,
            in_hand: hand,
            units,
        });
        let month = group.month(input.month);
        let columns = Columns { current: input.current, open: input.month, hand: hand.is_some() };
        let (dial_title, dial_note, say, say_more) = dial_words(input.controller, group, month, units);
        Ok(Self {
            tabs: tabs(input.controller, &budget, &base_href, letter, input.month),
            heads: MonthOfYear::ALL.map(|m| MonthHead { label: month_short(m), column: columns.class(m) }).to_vec(),
            lines: lines(group, &base_href, letter, &columns, units),
            minutes: minute_lines(input.controller, group, &base_href, letter, &columns),
            foot: foot(group, units),
            shorts: shorts(group),
            dial: match month.dial {
                Dial::Off => w.t("off-title"),
                Dial::Percent(p) => p.get().to_string(),
            },
            dial_is_off: month.dial == Dial::Off,
            dial_title,
            dial_note,
            say,
            say_more,
            month: input.month.number(),
            version: input.context.controller.version,
            action: uuid::Uuid::new_v4().to_string(),
            waterings: month_waterings(group),
            allowed: w.with(
                "percent-allowed",
                &[
                    ("from", &input.controller.capability.percent_min.get().to_string()),
                    ("to", &input.controller.capability.percent_max.get().to_string()),
                    ("step", &input.controller.capability.percent_step.get().to_string()),
                ],
            ),
            step: input.controller.capability.percent_step.get(),
            month_label: month_long(input.month),
            month_chosen: month.chosen || month.waterings_set.is_some(),
            programs: program_fields(input.controller, group),
            working: Provenances::of(&input.context.at)
                .and_then(|p| MonthWorking::of(input.figure, input.controller, group, input.month, p, units)),
            form: month_form(input.form, month),
            letter: letter.get().to_string(),
            plate,
            base_href,
        })
    }
}

/// What the open month's form holds when nothing was typed.
fn month_form(mut form: Form, month: &MonthBudget) -> Form {
    if !form.has("percent") {
        form.set(
            "percent",
            match month.dial {
                Dial::Off => "0".to_owned(),
                Dial::Percent(p) => p.get().to_string(),
            },
        );
    }
    if !form.has("waterings") {
        form.set("waterings", month.waterings_set.map_or_else(String::new, |n| n.to_string()));
    }
    form
}

/// Which class a month's column has in the table.
struct Columns {
    current: MonthOfYear,
    open: MonthOfYear,
    hand: bool,
}

impl Columns {
    fn class(&self, month: MonthOfYear) -> &'static str {
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

fn tabs(c: &Controller, budget: &YearBudget, base: &str, letter: ProgramLetter, month: MonthOfYear) -> Vec<Tab> {
    if budget.groups.len() < 2 {
        return Vec::new();
    }
    budget
        .groups
        .iter()
        .filter_map(|g| g.letters.first())
        .map(|l| Tab {
            href: format!("{base}?program={}&month={}", l.get(), month.number()),
            label: program_label(c.program(*l), *l),
            current: *l == letter,
        })
        .collect()
}

/// A program by its letter and name.
pub(crate) fn program_label(program: Option<&Program>, letter: ProgramLetter) -> String {
    let name = program.map_or("", |p| p.name.as_str());
    format!("{} {name}", letter.get()).trim_end().to_owned()
}

fn lines(group: &Group, base: &str, letter: ProgramLetter, columns: &Columns, units: Units) -> Vec<Line> {
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
        line("year-dial", "%", true, &|m| match m.dial {
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
            let now = m.stations.iter().map(|s| s.waterings).max().unwrap_or(0);
            cell(m, "waterings", now.to_string(), if m.waterings_set.is_some() { "chosen" } else { "" })
        }),
    ]
}

fn minute_lines(c: &Controller, group: &Group, base: &str, letter: ProgramLetter, columns: &Columns) -> Vec<Line> {
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

fn foot(group: &Group, units: Units) -> String {
    let asked: f64 = group.months.iter().map(|m| m.demand_mm).sum();
    let given: f64 = group.months.iter().map(|m| m.delivered_mm).sum();
    Words.t2("year-foot", Measure::Depth.show(asked, units), Measure::Depth.show(given, units))
}

fn shorts(group: &Group) -> Vec<ShortRun> {
    let w = Words;
    group
        .months
        .iter()
        .filter_map(|m| m.fewer_days.map(|f| (m, f)))
        .map(|(m, f)| {
            let shortest =
                m.stations.iter().filter(|s| s.demand.demand_mm > 0.0).map(|s| s.run).min().unwrap_or_default();
            ShortRun {
                text: w.t2("short-title", month_long(m.month), minutes(shortest)),
                more: w.t("short-more"),
                label: w.t2("short-repair", f.waterings.to_string(), percent(f.percent.get())),
                month: m.month.number(),
                waterings: f.waterings,
            }
        })
        .collect()
}

/// Title, note, imperative and sentence of the figure to dial.
fn dial_words(c: &Controller, group: &Group, month: &MonthBudget, units: Units) -> (String, String, String, String) {
    let w = Words;
    let title = w.t1("dial-for", month_long(month.month));
    let letters: String = group.letters.iter().map(|l| l.get().to_string()).collect::<Vec<_>>().join(", ");
    let note = match group.letters.first().and_then(|l| c.program(*l)).filter(|_| group.letters.len() == 1) {
        Some(p) => w.t1("dial-program", program_label(Some(p), p.letter)),
        None => w.t1("dial-programs", letters),
    };
    let when = match c.capability.percent_storage {
        PercentStorage::ByMonth => w.t1("dial-by-month", month_long(month.month)),
        PercentStorage::Single => w.t1("dial-single", month_long(month.month)),
    };
    let called = w.t1("dial-called", number(month.percent_exact, 1));
    let amount = Measure::Depth.show(month.difference_mm().abs(), units);
    let effect = if month.difference_mm() >= 0.0 { w.t1("dial-gains", amount) } else { w.t1("dial-loses", amount) };
    (title, note, when, format!("{called} {effect}"))
}

/// Waterings a week that a month can be set to: as usual, or fewer.
fn month_waterings(group: &Group) -> Vec<Choice> {
    let usual = group.stations.iter().map(|s| s.waterings).max().unwrap_or(1);
    let mut choices = vec![Choice::new("", Words.t1("waterings-usual", usual.to_string()))];
    choices.extend((1..usual).rev().map(|n| Choice::new(n.to_string(), n.to_string())));
    choices
}

fn program_fields(c: &Controller, group: &Group) -> Vec<ProgramFields> {
    group
        .letters
        .iter()
        .filter_map(|l| c.program(*l))
        .map(|p| {
            let mut waterings = vec![Choice::new("", Words.t("waterings-computed"))];
            waterings.extend((1..=c.capability.watering_days).map(|n| Choice::new(n.to_string(), n.to_string())));
            ProgramFields {
                letter: p.letter.get().to_string(),
                name: p.name.clone(),
                waterings,
                waterings_now: p.waterings_per_week.map_or_else(String::new, |n| n.to_string()),
                count_rain: p.count_rain,
            }
        })
        .collect()
}

/// What is missing before there is a Year.
pub(crate) fn note(missing: Missing) -> String {
    missing_note(&Err(missing))
}
