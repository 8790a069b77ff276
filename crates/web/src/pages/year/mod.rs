//! The Year: demand against what the dialled percent delivers, month by month.

mod table;

use chrono::NaiveDate;
use upland_core::budget::{Dial, Group, MonthBudget, YearBudget};
use upland_core::controller::{Controller, PercentStorage, Program, ProgramLetter, Temporary, TemporaryKind};
use upland_core::in_force::SetBy;
use upland_core::quantity::MonthOfYear;

use crate::charts::{InHand, Strip, YearPlate, YearPlateInput};
use crate::context::{ControllerContext, Missing};
use crate::form::{Form, new_key};
use crate::pages::Choice;
use crate::pages::shell::Shell;
use crate::pages::spine::Spine;
use crate::pages::stations::missing_note;
use crate::pages::working::{Figure, MonthWorking, Provenances};
use crate::show::{Measure, Units, date_short, minutes, month_long, month_short, number, percent, times};
use crate::words::Words;
use table::{Columns, foot, lines, minute_lines};

pub(crate) use table::Line;

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

#[derive(Debug, Clone)]
pub(crate) struct MonthHead {
    pub(crate) label: String,
    pub(crate) column: &'static str,
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
    pub(crate) dial_unit: &'static str,
    pub(crate) dial_is_off: bool,
    /// A person waters it: no month is set here.
    pub(crate) by_hand: bool,
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
    pub(crate) today: NaiveDate,
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
        let budget = input.context.budget_of(input.controller)?;
        let group = input.letter.and_then(|l| budget.group(l)).or(budget.groups.first()).ok_or(Missing::Weather)?;
        let letter = group.letters.first().copied().unwrap_or(ProgramLetter::A);
        let base_href = format!("/controllers/{}/year", input.context.controller.id);
        let saved = input.saved.and_then(|b| b.group(letter));
        let hand = saved.map(|g| InHand { month: input.month, saved: g.month(input.month) });
        let is_dialled = group.letters.iter().any(|l| input.controller.percent_is_dialled(*l));
        let by_hand = group.letters.iter().all(|l| input.controller.is_by_hand(*l));
        let plate = YearPlate::draw(&YearPlateInput {
            group,
            handles: is_dialled,
            capability: &input.controller.capability,
            current: input.current,
            in_hand: hand,
            units,
        });
        let month = group.month(input.month);
        let columns = Columns { current: input.current, open: input.month, hand: hand.is_some(), is_dialled };
        let (dial_title, dial_note, say, say_more) = {
            // What is on the panel today is said at today's month alone.
            let today = input.context.in_force(None, input.today);
            let set_by = today.program(letter).map(|p| &p.by).filter(|_| today.month() == input.month);
            dial_words(input.controller, group, month, set_by, units)
        };
        Ok(Self {
            tabs: tabs(input.controller, &budget, &base_href, letter, input.month),
            heads: MonthOfYear::ALL.map(|m| MonthHead { label: month_short(m), column: columns.class(m) }).to_vec(),
            lines: lines(group, &base_href, letter, &columns, units),
            minutes: minute_lines(input.controller, group, &base_href, letter, &columns),
            foot: foot(group, units),
            shorts: shorts(group),
            dial: match month.dial {
                _ if by_hand => Measure::Depth.figure(a_week(month), units),
                Dial::Off => w.t("off-title"),
                Dial::Percent(p) => p.get().to_string(),
            },
            dial_unit: if by_hand { Measure::Depth.unit(units) } else { "%" },
            dial_is_off: month.dial == Dial::Off && !by_hand,
            by_hand,
            dial_title,
            dial_note,
            say,
            say_more,
            month: input.month.number(),
            version: input.context.controller.version,
            action: new_key(),
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

/// What plants need in a mean week of a month, mm.
fn a_week(month: &MonthBudget) -> f64 {
    month.demand_mm / month.month.mean_days() * 7.0
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
                text: w.t2("short-title", ("month", month_long(m.month)), ("minutes", minutes(shortest))),
                more: w.t("short-more"),
                label: w.t2(
                    "short-repair",
                    ("waterings", f.waterings.to_string()),
                    ("percent", percent(f.percent.get())),
                ),
                month: m.month.number(),
                waterings: f.waterings,
            }
        })
        .collect()
}

/// Title, note, imperative and sentence of the figure to dial.
fn dial_words(
    c: &Controller,
    group: &Group,
    month: &MonthBudget,
    set_by: Option<&SetBy>,
    units: Units,
) -> (String, String, String, String) {
    let w = Words;
    let by_sensor = group.letters.iter().any(|l| c.percent_by_sensor(*l));
    let by_hand = group.letters.iter().all(|l| c.is_by_hand(*l));
    let title = match () {
        () if by_hand => "dial-hand",
        () if by_sensor => "dial-expect",
        () => "dial-for",
    };
    let title = w.t1(title, month_long(month.month));
    let letters: String = group.letters.iter().map(|l| l.get().to_string()).collect::<Vec<_>>().join(", ");
    let note = match group.letters.first().and_then(|l| c.program(*l)).filter(|_| group.letters.len() == 1) {
        Some(p) => w.t1("dial-program", program_label(Some(p), p.letter)),
        None => w.t1("dial-programs", letters),
    };
    let when = match c.capability.percent_storage {
        _ if by_hand => w.t("dial-by-hand"),
        _ if by_sensor => w.t("dial-by-sensor"),
        PercentStorage::ByMonth => w.t1("dial-by-month", month_long(month.month)),
        PercentStorage::Single => w.t1("dial-single", month_long(month.month)),
    };
    if by_hand {
        let share = w.t2(
            "dial-hand-share",
            ("percent", number(month.percent_exact, 1)),
            ("month", month_long(group.peak_month)),
        );
        return (title, note, when, share);
    }
    let called = w.t1("dial-called", number(month.percent_exact, 1));
    let amount = Measure::Depth.show(month.difference_mm().abs(), units);
    let effect = if month.difference_mm() >= 0.0 { w.t1("dial-gains", amount) } else { w.t1("dial-loses", amount) };
    let now = match set_by {
        Some(SetBy::ForAWhile(t)) => format!(" {}", for_a_while(t)),
        _ => String::new(),
    };
    (title, note, when, format!("{called} {effect}{now}"))
}

/// A percent that is on the panel now instead of the month's.
fn for_a_while(t: &Temporary) -> String {
    let p = match t.kind {
        TemporaryKind::Percent { percent, .. } | TemporaryKind::GrowIn { percent, .. } => percent,
        // What it comes to changes by the week.
        TemporaryKind::Weaning { .. } => {
            return Words.t2("dial-weaning", ("date", date_short(t.until)), ("reason", &t.reason));
        }
        _ => return String::new(),
    };
    let key = if t.left_standing { "dial-left-standing" } else { "dial-for-a-while" };
    Words.with(key, &[("percent", &percent(p.get())), ("until", &date_short(t.until)), ("reason", &t.reason)])
}

/// Waterings a week that a month can be set to: as usual, or fewer.
fn month_waterings(group: &Group) -> Vec<Choice> {
    let mut choices = vec![Choice::new("", Words.t1("waterings-usual", times(group.waterings())))];
    // Up to one a day.
    choices.extend((1..group.waterings().ceil() as u8).rev().map(|n| Choice::new(n.to_string(), n.to_string())));
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
    missing_note(Some(missing))
}
