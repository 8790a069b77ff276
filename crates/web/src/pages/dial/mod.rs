//! Dial in: one value at a time in the order of the panel, ticked, then read back.

mod on_panel;
mod words;

use chrono::{DateTime, NaiveDateTime, Utc};
use upland_core::controller::Controller;
use upland_core::dial_in::{Section, Slot, Value, next_watering, shown, slots};
use upland_core::found::Panel;
use upland_core::schedule::Plan;
use upland_formats::site::{DialledDoc, DialledValueDoc, NextDoc};

use super::Choice;
use super::field::FieldState;
use super::shell::Shell;
use super::spine::Spine;
use crate::charts::{Ledger, LedgerValue, Strip};
use crate::context::ControllerContext;
use crate::form::{Form, new_key};
use crate::show::Units;
use crate::words::Words;

pub(crate) use words::{Wording, next_words};

/// What became of a slot on this visit: a letter of the address.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Mark {
    /// Not reached.
    Open,
    /// It reads what it must.
    Set,
    /// It stood so before, as dialled last.
    Kept,
    /// The panel would not take it.
    Cannot,
    /// Passed over.
    Skipped,
}

impl Mark {
    const LETTERS: [(Self, char); 5] =
        [(Self::Open, '.'), (Self::Set, 'd'), (Self::Kept, 'k'), (Self::Cannot, 'c'), (Self::Skipped, 's')];

    pub(crate) fn letter(self) -> char {
        Self::LETTERS.iter().find(|(m, _)| *m == self).map_or('.', |(_, l)| *l)
    }

    fn of(letter: char) -> Self {
        Self::LETTERS.iter().find(|(_, l)| *l == letter).map_or(Self::Open, |(m, _)| *m)
    }

    /// Whether the panel reads what it must.
    pub(crate) const fn stands(self) -> bool {
        matches!(self, Self::Set | Self::Kept)
    }
}

/// The slots of a controller's panel as they must read now.
#[derive(Debug, Clone)]
pub(crate) struct DialIn<'a> {
    pub(crate) controller: &'a Controller,
    pub(crate) plan: Plan,
    pub(crate) slots: Vec<Slot>,
    pub(crate) wording: Wording<'a>,
}

impl<'a> DialIn<'a> {
    pub(crate) fn of(context: &'a ControllerContext, now: NaiveDateTime, units: Units) -> Self {
        let controller = context.controller();
        let plan = context.plan();
        let slots = slots(controller, &plan, now.date());
        Self { controller, plan, slots, wording: Wording { controller, now, units } }
    }

    /// Key and value of each slot, the clock left out.
    pub(crate) fn values(&self) -> Vec<(String, DialledValueDoc)> {
        DialledDoc::values_of(&self.slots)
    }

    pub(crate) fn value(&self, slot: &Slot) -> String {
        self.wording.value(&slot.value)
    }

    /// Slots that do not read what they must, as far as is known from the panel as it was found or from the last
    /// dialling; all that nothing is known of. The clock is not counted.
    pub(crate) fn pending(&self, state: &FieldState) -> Vec<&Slot> {
        let differs = |s: &&Slot| {
            let Some(value) = DialledValueDoc::of(&s.value) else { return false };
            match state.on_panel(s) {
                Some(Some(before)) => before != value,
                // A record that says nothing of a slot: it is as it was when the panel was new.
                Some(None) => !s.value.is_untouched(),
                None => true,
            }
        };
        self.slots.iter().filter(differs).collect()
    }

    /// `Program A, start 2: off`.
    pub(crate) fn line(&self, slot: &Slot) -> String {
        format!("{}: {}", self.wording.slot(slot), self.wording.with_unit(&slot.value))
    }

    /// The line without a figure that reads otherwise in other units: for what is not written for one user.
    pub(crate) fn line_without_units(&self, slot: &Slot) -> String {
        match slot.section {
            Section::SensorSetting(_) => self.wording.slot(slot),
            _ => self.line(slot),
        }
    }

    /// The marks of an address; with `only`, values that are set already are kept.
    pub(crate) fn marks(&self, query: &Form, state: &FieldState) -> Vec<Mark> {
        if query.is("only", "changed") {
            let pending: Vec<String> = self.pending(state).iter().map(|s| s.key()).collect();
            let fresh = |s: &Slot| s.is_clock() || pending.contains(&s.key());
            return self.slots.iter().map(|s| if fresh(s) { Mark::Open } else { Mark::Kept }).collect();
        }
        let mut letters = query.get("marks").chars();
        self.slots.iter().map(|_| letters.next().map_or(Mark::Open, Mark::of)).collect()
    }

    /// The panel's next watering by our schedule, in the place's own time.
    pub(crate) fn next(&self, context: &ControllerContext, at: DateTime<Utc>) -> Option<NextDoc> {
        let began = next_watering(self.controller, &self.plan, &context.at.zone, at)?;
        let at = began.began.with_timezone(&context.at.zone).naive_local();
        Some(NextDoc { at, program: began.letter.get() })
    }
}

/// The marks as an address carries them.
fn letters(marks: &[Mark]) -> String {
    marks.iter().map(|m| m.letter()).collect()
}

#[derive(askama::Template)]
#[template(path = "dial.html")]
pub(crate) struct DialTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) href: String,
    pub(crate) back: String,
    pub(crate) sub: String,
    pub(crate) ledger: Ledger,
    pub(crate) hand: Option<InHand>,
    pub(crate) read_back: Option<ReadBack>,
    pub(crate) next: String,
    pub(crate) only: Option<(String, String)>,
}

/// The value in hand.
#[derive(Debug, Clone)]
pub(crate) struct InHand {
    pub(crate) count: String,
    pub(crate) section: String,
    pub(crate) which: String,
    pub(crate) value: String,
    pub(crate) unit: &'static str,
    /// `huge`, or smaller for longer values.
    pub(crate) size: &'static str,
    pub(crate) shows: String,
    pub(crate) how: String,
    /// What goes with a value that does not stay: until when, and what then.
    pub(crate) stays: String,
    pub(crate) siblings: Vec<(String, String, String, bool)>,
    pub(crate) reads: String,
    pub(crate) done: String,
    pub(crate) back: String,
    pub(crate) cannot: String,
    pub(crate) skip: String,
}

/// Everything once more, to read the panel back.
#[derive(Debug, Clone)]
pub(crate) struct ReadBack {
    pub(crate) title: String,
    pub(crate) rows: Vec<ReadRow>,
    pub(crate) marks: String,
    pub(crate) version: i32,
    pub(crate) record: String,
    pub(crate) form: Form,
    pub(crate) choices: Vec<Choice>,
    /// What does not stand; empty when everything does.
    pub(crate) left: String,
}

#[derive(Debug, Clone)]
pub(crate) struct ReadRow {
    pub(crate) begins: bool,
    pub(crate) section: String,
    pub(crate) which: String,
    pub(crate) value: String,
    pub(crate) mark: &'static str,
    pub(crate) note: String,
    pub(crate) href: String,
}

/// The ledger of the panel: one group a section.
fn ledger(dial: &DialIn<'_>, marks: &[Mark], at: Option<usize>) -> Ledger {
    let w = Words;
    let name = |s: Section| match s {
        Section::Clock => w.t("found-clock"),
        Section::Minutes => w.t("found-minutes"),
        Section::Soak => w.t("dial-soak"),
        Section::Program(l) => l.get().to_string(),
        Section::Percent => "%".to_owned(),
        Section::StationDelay | Section::RainDelay => w.t("dial-delay-short"),
        Section::WaterWindows => w.t("dial-window-short"),
        Section::Sensor | Section::Obeys | Section::SensorSetting(_) => w.t("dial-sensor-short"),
        Section::Switch => w.t("dial-switch"),
    };
    let mut groups: Vec<(String, Vec<LedgerValue>)> = Vec::new();
    for (i, (slot, mark)) in dial.slots.iter().zip(marks).enumerate() {
        let short = matches!(slot.value, Value::StartOff | Value::NoMinutes | Value::PercentOff);
        let value = LedgerValue { done: mark.stands(), short, current: at == Some(i) };
        let name = name(slot.section);
        match groups.last_mut().filter(|(before, _)| *before == name) {
            Some((_, values)) => values.push(value),
            None => groups.push((name, vec![value])),
        }
    }
    Ledger::draw(&groups)
}

/// What the panel showed before: as dialled last, else as found.
fn showed(dial: &DialIn<'_>, slot: &Slot, state: &FieldState) -> Option<String> {
    if let Some(panel) = state.panel_still_found() {
        return found_value(dial, slot, panel);
    }
    let (_, doc) = state.dialled.as_ref()?;
    doc.values.iter().find(|(k, _)| *k == slot.key()).map(|(_, v)| dial.wording.dialled(v))
}

fn found_value(dial: &DialIn<'_>, slot: &Slot, panel: &Panel) -> Option<String> {
    if slot.is_clock() {
        return None;
    }
    shown(slot, panel).map(|v| dial.wording.value(&v))
}

/// What the page of a dialling in is made from.
pub(crate) struct DialPage<'a> {
    pub(crate) frame: crate::pages::frame::Frame,
    pub(crate) context: &'a ControllerContext,
    pub(crate) state: &'a FieldState,
    pub(crate) query: Form,
    pub(crate) now: NaiveDateTime,
    /// The moment, for the next watering.
    pub(crate) at: DateTime<Utc>,
    pub(crate) user: &'a str,
    pub(crate) units: Units,
}

impl DialPage<'_> {
    pub(crate) fn template(self) -> DialTemplate {
        let w = Words;
        let dial = DialIn::of(self.context, self.now, self.units);
        let marks = dial.marks(&self.query, self.state);
        let href = format!("/controllers/{}/dial-in", self.context.controller.id);
        // The slot that the address names, else the first that is open; at the end, the panel is read back.
        let named = self.query.get("at").parse::<usize>().ok().filter(|i| *i < marks.len());
        let at = named.or_else(|| marks.iter().position(|m| *m == Mark::Open));
        let pending = dial.pending(self.state);
        let only = (self.query.get("marks").is_empty()
            && !self.query.has("only")
            && self.state.dialled.is_some()
            && pending.len() + 2 < dial.slots.len())
        .then(|| (format!("{href}?only=changed"), w.count("dial-only", pending.len())));
        DialTemplate {
            ledger: ledger(&dial, &marks, at),
            hand: at.map(|i| in_hand(&dial, &marks, i, self.state, &href)),
            read_back: at.is_none().then(|| read_back(&dial, &marks, self.context, self.query.clone(), &href)),
            next: dial.wording.next(dial.next(self.context, self.at).as_ref()),
            sub: w.with(
                "dial-sub",
                &[
                    ("controller", &self.context.controller().name),
                    ("card", &self.context.controller.version.to_string()),
                    ("who", self.user),
                ],
            ),
            back: format!("/controllers/{}/week", self.context.controller.id),
            only,
            href,
            shell: self.frame.shell,
            spine: self.frame.spine,
            strip: self.frame.strip,
        }
    }
}

fn in_hand(dial: &DialIn<'_>, marks: &[Mark], i: usize, state: &FieldState, href: &str) -> InHand {
    let w = Words;
    let slot = &dial.slots[i];
    let (section, which) = dial.wording.place(slot);
    let value = dial.value(slot);
    let with = |mark: Option<Mark>, at: Option<usize>| {
        let mut marks = marks.to_vec();
        if let Some(mark) = mark {
            marks[i] = mark;
        }
        let at = at.map_or_else(String::new, |n| format!("&at={n}"));
        format!("{href}?marks={}{at}", letters(&marks))
    };
    // After the last slot, whatever was passed over stays so: the panel is read back.
    let onward = |mark| {
        let next = (i + 1..marks.len()).find(|n| marks[*n] == Mark::Open);
        with(Some(mark), next)
    };
    let shows = showed(dial, slot, state).filter(|s| *s != value).unwrap_or_default();
    let same: Vec<usize> = (0..dial.slots.len()).filter(|n| dial.slots[*n].section == slot.section).collect();
    let place = same.iter().position(|n| *n == i).unwrap_or(0);
    let from = place.saturating_sub(1).min(same.len().saturating_sub(4));
    let siblings = same.iter().skip(from).take(4).map(|n| {
        let state = match marks[*n] {
            _ if *n == i => w.t("dial-now"),
            m if m.stands() => w.t("dial-dialled"),
            Mark::Cannot => w.t("dial-cannot-short"),
            _ => w.t("dial-then"),
        };
        (words::short(&dial.slots[*n]), dial.value(&dial.slots[*n]), state, *n == i)
    });
    InHand {
        count: (i + 1).to_string(),
        size: match value.chars().count() {
            0..=3 => "huge",
            4..=5 => "huge is-5",
            6..=11 => "huge is-11",
            _ => "huge is-long",
        },
        reads: w.t1("dial-reads", &value),
        unit: dial.wording.unit(&slot.value),
        how: dial.wording.how(slot),
        stays: dial.wording.note(slot),
        siblings: siblings.collect(),
        done: onward(Mark::Set),
        cannot: onward(Mark::Cannot),
        skip: onward(Mark::Skipped),
        back: with(None, Some(i.saturating_sub(1))),
        shows,
        section,
        which,
        value,
    }
}

fn read_back(dial: &DialIn<'_>, marks: &[Mark], context: &ControllerContext, form: Form, href: &str) -> ReadBack {
    let w = Words;
    let mut last = String::new();
    let rows = dial.slots.iter().zip(marks).enumerate().map(|(i, (slot, mark))| {
        let (section, which) = dial.wording.place(slot);
        let begins = section != last;
        last.clone_from(&section);
        ReadRow {
            begins,
            section,
            which,
            value: dial.wording.with_unit(&slot.value),
            mark: if mark.stands() { "done" } else { "fault" },
            note: match mark {
                Mark::Cannot => w.t("dial-cannot-short"),
                Mark::Skipped => w.t("dial-skipped"),
                _ => dial.wording.note(slot),
            },
            href: format!("{href}?marks={}&at={i}", letters(marks)),
        }
    });
    let rows = rows.collect();
    let left = match marks.iter().filter(|m| !m.stands()).count() {
        0 => String::new(),
        n => w.count("dial-left", n),
    };
    ReadBack {
        title: w.t1("dial-read-back", dial.slots.len().to_string()),
        rows,
        marks: letters(marks),
        version: context.controller.version,
        record: new_key(),
        form,
        choices: vec![
            Choice::new("", w.t("dial-next-unseen")),
            Choice::new("same", w.t("dial-next-same")),
            Choice::new("other", w.t("dial-next-other")),
        ],
        left,
    }
}
