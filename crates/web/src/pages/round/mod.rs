//! A round: what is seen on the ground, and the one next change.

use chrono::NaiveDate;
use upland_core::controller::{Controller, ProgramLetter};
use upland_core::quantity::Percent;
use upland_core::schedule::Level;
use upland_core::tuning::{Advice, Judgement, Seen, advise, called_under_sensor};

mod list;
mod words;

pub(crate) use list::{RoundRow, RoundsTemplate};
pub(crate) use words::change_line;
use words::{because, change_words, expect, offer};

use super::field::FieldState;
use super::found::percent_field;
use super::shell::Shell;
use super::spine::Spine;
use super::stations::plant_name;
use super::year::program_label;
use crate::charts::Strip;
use crate::context::ControllerContext;
use crate::form::{Form, new_key};
use crate::show::{Measure, Units, date_short, day_short, month_long, month_of, number};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "round.html")]
pub(crate) struct RoundTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) href: String,
    pub(crate) back: String,
    pub(crate) sub: String,
    pub(crate) version: i32,
    pub(crate) form: Form,
    pub(crate) percents: Vec<PercentSeen>,
    pub(crate) grounds: Vec<Ground>,
    pub(crate) advice: AdviceView,
}

#[derive(askama::Template)]
#[template(path = "round_live.html")]
pub(crate) struct RoundLiveTemplate {
    pub(crate) w: Words,
    pub(crate) advice: AdviceView,
}

/// A percent that is read off the panel.
#[derive(Debug, Clone)]
pub(crate) struct PercentSeen {
    pub(crate) field: String,
    pub(crate) label: String,
    pub(crate) called: String,
    pub(crate) step: u16,
    pub(crate) min: u16,
    pub(crate) max: u16,
}

/// A station to be judged.
#[derive(Debug, Clone)]
pub(crate) struct Ground {
    pub(crate) number: u8,
    pub(crate) field: String,
    pub(crate) name: String,
    pub(crate) what: String,
}

/// The one next change in words.
#[derive(Debug, Clone)]
pub(crate) struct AdviceView {
    pub(crate) seen: String,
    /// What changes; empty when nothing does.
    pub(crate) what: String,
    pub(crate) from: String,
    pub(crate) to: String,
    pub(crate) unit: String,
    /// Whether from and to are words rather than figures.
    pub(crate) wordy: bool,
    pub(crate) because: String,
    pub(crate) expect: String,
    /// What the change would have done in the weather just past.
    pub(crate) effect: String,
    pub(crate) accept: String,
    pub(crate) look_again: String,
    /// The change as data: what an answer refers to. Empty when nothing changes.
    pub(crate) offer: String,
}

/// The fields of the percents on the panel, each with the programs that it governs.
fn percent_fields(c: &Controller) -> Vec<(String, Vec<ProgramLetter>)> {
    let mut out: Vec<(String, Vec<ProgramLetter>)> = Vec::new();
    let used = |l: &ProgramLetter| c.stations.iter().any(|s| s.runs_in(*l));
    for letter in c.programs.iter().filter(|p| !p.by_hand).map(|p| p.letter).filter(used) {
        let field = percent_field(&c.capability, letter);
        match out.last_mut().filter(|(last, _)| *last == field) {
            Some((_, letters)) => letters.push(letter),
            None => out.push((field, vec![letter])),
        }
    }
    out
}

/// The form of a round that begins: percents as they should stand, nothing judged.
pub(crate) fn empty(context: &ControllerContext, today: NaiveDate, recent_et0: Option<f64>) -> Form {
    let c = context.controller();
    let plan = context.plan();
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("record", new_key());
    for (field, letters) in percent_fields(c) {
        let first = letters.first().copied();
        let stands = first.and_then(|l| plan.percent_on(c, l, today, Level::Calendar));
        let sensed = first.filter(|l| stands.is_some() && c.percent_by_sensor(*l));
        let stands = match sensed.and_then(|l| called_at(context, l, today, recent_et0)) {
            Some(called) => number(called, 0),
            None => stands.map_or_else(|| "0".to_owned(), |p| p.get().to_string()),
        };
        form.set(&field, stands);
    }
    form
}

/// Reads what was seen; errors stand beside their fields.
pub(crate) fn read(
    form: &mut Form,
    context: &ControllerContext,
    today: NaiveDate,
    known: &FieldState,
    recent_et0_mm_per_day: Option<f64>,
) -> Seen {
    let c = context.controller();
    let plan = context.plan();
    let mut percents = Vec::new();
    for (field, letters) in percent_fields(c) {
        let typed = form.get(&field).trim_end_matches('%').trim().to_owned();
        match typed.parse::<u16>().ok().and_then(|p| Percent::new(p).ok()) {
            Some(seen) => {
                // A month that is off has no percent on the panel: 0 is as it should be.
                let watered = |l: &ProgramLetter| plan.percent_on(c, *l, today, Level::Calendar).is_some();
                percents.extend(letters.into_iter().filter(watered).map(|l| (l, seen)));
            }
            None => form.fail(&field, Measure::Plain.allowed(upland_core::quantity::range::PERCENT, Units::Metric)),
        }
    }
    let judged = c.stations.iter().filter_map(|s| {
        let judgement = match form.get(&format!("j{}", s.number)) {
            "dry" => Judgement::Dry,
            "right" => Judgement::Right,
            "wet" => Judgement::Wet,
            _ => return None,
        };
        Some((s.number, judgement))
    });
    let stations = judged.collect();
    form.note("note");
    let (before, last_change) = (known.judged(), known.last_change());
    Seen { on: today, percents, stations, before, last_change, recent_et0_mm_per_day }
}

/// The advice on what was seen.
pub(crate) fn advice(context: &ControllerContext, seen: &Seen) -> Advice {
    let situation = context.week_of(seen.on);
    advise(&situation, context.controller(), context.budget().ok(), seen)
}

/// The percent that the weather calls for at a program under an ET sensor.
fn called_at(
    context: &ControllerContext,
    letter: ProgramLetter,
    today: NaiveDate,
    recent_et0: Option<f64>,
) -> Option<f64> {
    called_under_sensor(&context.week_of(today), context.budget().ok(), letter, today, recent_et0)
}

pub(crate) fn percents(context: &ControllerContext, today: NaiveDate, recent_et0: Option<f64>) -> Vec<PercentSeen> {
    let w = Words;
    let c = context.controller();
    let budget = context.budget().ok();
    let month = month_of(today);
    percent_fields(c)
        .into_iter()
        .map(|(field, letters)| {
            let first = letters.first().copied().unwrap_or(ProgramLetter::A);
            let called = budget.and_then(|b| b.group(first)).map(|g| g.month(month).percent_exact);
            let sensed = called.filter(|_| c.percent_by_sensor(first) && recent_et0.is_some());
            let sensed = sensed.and_then(|_| called_at(context, first, today, recent_et0));
            PercentSeen {
                label: if field == "pct" {
                    w.t("round-percent-all")
                } else {
                    w.t1("round-percent", program_label(c.program(first), first))
                },
                called: match (sensed, called) {
                    (Some(percent), _) => w.t1("round-called-sensor", number(percent, 0)),
                    (None, Some(percent)) => {
                        w.t2("round-called", ("month", month_long(month)), ("percent", number(percent, 0)))
                    }
                    (None, None) => String::new(),
                },
                // A sensor sets what no hand could dial.
                step: if c.percent_by_sensor(first) { 1 } else { c.capability.percent_step.get() },
                min: c.capability.percent_min.get(),
                max: c.capability.percent_max.get(),
                field,
            }
        })
        .collect()
}

pub(crate) fn grounds(c: &Controller) -> Vec<Ground> {
    let w = Words;
    c.stations
        .iter()
        .map(|s| {
            let plant = match s.plant {
                upland_core::landscape::Plant::Coefficient(k) => format!("K {}", number(k.get(), 2)),
                plant => plant_name(plant),
            };
            let roof = if s.roofed { format!(", {}", w.t("round-roofed")) } else { String::new() };
            Ground {
                number: s.number,
                field: format!("j{}", s.number),
                name: s.name.clone(),
                what: format!("{}, {plant}{roof}", s.program.get()),
            }
        })
        .collect()
}

/// The words of the judgement of a station.
pub(crate) const JUDGEMENTS: [(&str, &str); 3] =
    [("dry", "ground-dry"), ("right", "ground-right"), ("wet", "ground-wet")];

impl AdviceView {
    pub(crate) fn of(context: &ControllerContext, seen: &Seen, advice: &Advice, units: Units) -> Self {
        let w = Words;
        let c = context.controller();
        let words = advice.change.map(|change| change_words(change, c)).unwrap_or_default();
        Self {
            seen: w.t2("round-seen", ("seen", seen.stations.len().to_string()), ("all", c.stations.len().to_string())),
            because: because(c, advice, seen),
            expect: expect(advice, units),
            accept: w.t1("round-accept", &words.to),
            look_again: format!(
                "{} {}",
                day_short(chrono::Datelike::weekday(&advice.look_again)),
                date_short(advice.look_again)
            ),
            what: words.what,
            from: words.from,
            to: words.to,
            unit: words.unit,
            wordy: words.wordy,
            offer: advice.change.map(offer).unwrap_or_default(),
            effect: String::new(),
        }
    }
}

/// What an accepted change makes of the controller; nothing where only the panel is put back.
pub(crate) fn applied(context: &ControllerContext, advice: &Advice, today: NaiveDate) -> Option<Controller> {
    let change = advice.change?;
    let c = context.controller();
    let changed = change.applied(c, month_of(today));
    (changed != *c).then_some(changed)
}
