//! A round: what is seen on the ground, and the one next change.

use chrono::NaiveDate;
use upland_core::controller::{Controller, ProgramLetter};
use upland_core::quantity::Percent;
use upland_core::schedule::Level;
use upland_core::tuning::{Advice, Because, Change, Judgement, Seen, advise};
use upland_formats::site::ChangeDoc;

use super::field::FieldState;
use super::finder::Finder;
use super::found::percent_field;
use super::shell::Shell;
use super::spine::Spine;
use super::stations::{plant_name, station_name};
use super::year::program_label;
use crate::charts::{Strip, volume_text, volume_unit};
use crate::context::{ControllerContext, ControllerHead};
use crate::form::{Form, new_key};
use crate::show::{Measure, Units, date_short, day_list, day_short, minutes, month_long, month_of, number};
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
    for letter in c.programs.iter().map(|p| p.letter).filter(used) {
        let field = percent_field(&c.capability, letter);
        match out.last_mut().filter(|(last, _)| *last == field) {
            Some((_, letters)) => letters.push(letter),
            None => out.push((field, vec![letter])),
        }
    }
    out
}

/// The form of a round that begins: percents as they should stand, nothing judged.
pub(crate) fn empty(context: &ControllerContext, today: NaiveDate) -> Form {
    let c = context.controller();
    let plan = context.week_of(today).plan(c);
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("record", new_key());
    for (field, letters) in percent_fields(c) {
        let stands = letters.first().and_then(|l| plan.percent_on(c, *l, today, Level::Calendar));
        form.set(&field, stands.map_or_else(|| "0".to_owned(), |p| p.get().to_string()));
    }
    form
}

/// Reads what was seen; errors stand beside their fields.
pub(crate) fn read(form: &mut Form, context: &ControllerContext, today: NaiveDate, known: &FieldState) -> Seen {
    let c = context.controller();
    let plan = context.week_of(today).plan(c);
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
    Seen { on: today, percents, stations, before: known.judged(), last_change: known.last_change() }
}

/// The advice on what was seen.
pub(crate) fn advice(context: &ControllerContext, seen: &Seen) -> Advice {
    let situation = context.week_of(seen.on);
    let budget = context.budget().ok();
    advise(&situation, context.controller(), budget.as_ref(), seen)
}

pub(crate) fn percents(context: &ControllerContext, today: NaiveDate) -> Vec<PercentSeen> {
    let w = Words;
    let c = context.controller();
    let budget = context.budget().ok();
    let month = month_of(today);
    percent_fields(c)
        .into_iter()
        .map(|(field, letters)| {
            let first = letters.first().copied().unwrap_or(ProgramLetter::A);
            let called = budget.as_ref().and_then(|b| b.group(first)).map(|g| g.month(month).percent_exact);
            PercentSeen {
                label: if field == "pct" {
                    w.t("round-percent-all")
                } else {
                    w.t1("round-percent", program_label(c.program(first), first))
                },
                called: called.map_or_else(String::new, |p| w.t2("round-called", month_long(month), number(p, 0))),
                step: c.capability.percent_step.get(),
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

fn judged(j: Judgement) -> String {
    Words.t(match j {
        Judgement::Dry => "judged-dry",
        Judgement::Right => "judged-right",
        Judgement::Wet => "judged-wet",
    })
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
            seen: w.t2("round-seen", seen.stations.len().to_string(), c.stations.len().to_string()),
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

/// Names a change in a form: an answer to another change than the one on the page is refused.
fn offer(change: Change) -> String {
    match change {
        Change::PutBack { letter, from, to } => format!("put-back.{}.{}.{}", letter.get(), from.get(), to.get()),
        Change::Percent { letter, from, to } => format!("percent.{}.{}.{}", letter.get(), from.get(), to.get()),
        Change::Day { letter, from, to } => format!("days.{}.{}.{}", letter.get(), from.bits(), to.bits()),
        Change::Trim { station, from_pct, to_pct, .. } => format!("trim.{station}.{from_pct}.{to_pct}"),
        Change::Offset { sensor, from, to, .. } => format!("offset.{sensor}.{from}.{to}"),
        Change::Minutes { station, from, to } => format!("minutes.{station}.{}.{}", from.seconds(), to.seconds()),
    }
}

/// A change in words.
#[derive(Debug, Clone, Default)]
struct ChangeWords {
    what: String,
    from: String,
    to: String,
    unit: String,
    /// Whether from and to are words rather than figures.
    wordy: bool,
}

fn change_words(change: Change, c: &Controller) -> ChangeWords {
    let w = Words;
    match change {
        Change::PutBack { letter, from, to } | Change::Percent { letter, from, to } => ChangeWords {
            what: program_label(c.program(letter), letter),
            from: from.get().to_string(),
            to: to.get().to_string(),
            unit: w.t("round-unit-percent"),
            wordy: false,
        },
        Change::Day { letter, from, to } => ChangeWords {
            what: w.t1("round-days-of", program_label(c.program(letter), letter)),
            from: day_list(from),
            to: day_list(to),
            unit: String::new(),
            wordy: true,
        },
        Change::Trim { station, run: [from, to], .. } => ChangeWords {
            what: station_name(c, station),
            from: minutes(from),
            to: minutes(to),
            unit: w.t("round-unit-minutes"),
            wordy: false,
        },
        Change::Offset { letter, from, to, .. } => ChangeWords {
            what: w.t1("round-offset-of", program_label(c.program(letter), letter)),
            from: from.to_string(),
            to: to.to_string(),
            unit: String::new(),
            wordy: false,
        },
        Change::Minutes { station, from, to } => ChangeWords {
            what: station_name(c, station),
            from: minutes(from),
            to: minutes(to),
            unit: w.t("round-unit-minutes"),
            wordy: false,
        },
    }
}

/// A recorded change in one line, with the names as they are now.
pub(crate) fn change_line(change: Option<&ChangeDoc>, c: &Controller) -> String {
    let w = Words;
    let Some(doc) = change else { return w.t("round-no-change") };
    if let ChangeDoc::Words(words) = doc {
        return words.clone();
    }
    let Some(ChangeWords { what, from, to, unit, .. }) = doc.change().map(|change| change_words(change, c)) else {
        return String::new();
    };
    let line = w.with("round-line", &[("what", &what), ("from", &from), ("to", &to), ("unit", &unit)]);
    line.trim_end().to_owned()
}

fn because(c: &Controller, advice: &Advice, seen: &Seen) -> String {
    let w = Words;
    let first = match advice.because {
        Because::PanelDiffers => w.t("because-panel"),
        Because::PanelIsNearer(j) => w.t1("because-panel-nearer", judged(j)),
        Because::MonthOff(j) => {
            w.t1(if advice.change.is_some() { "because-month-on" } else { "because-month-off" }, judged(j))
        }
        Because::AllWrongPercentOff(j) => w.t1("because-percent-off", judged(j)),
        Because::AllWrongPercentRight(j) => w.t1("because-percent-right", judged(j)),
        Because::OneWrong(j) => {
            let others = seen.stations.iter().filter(|(_, o)| *o == Judgement::Right).count();
            w.t2("because-one", judged(j), others.to_string())
        }
        Because::TooSoon { changed } => w.t1("because-soon", date_short(changed)),
        Because::AllRight => w.t("because-right"),
        Because::NothingSeen => w.t("because-nothing"),
        Because::AtTheLimit(j) => w.t1("because-limit", judged(j)),
    };
    if advice.waiting.is_empty() {
        return first;
    }
    let names = advice.waiting.iter().map(|n| station_name(c, *n)).collect::<Vec<_>>().join(", ");
    format!("{first} {}", w.t1("because-waits", names))
}

fn expect(advice: &Advice, units: Units) -> String {
    let Some(e) = advice.expected else { return String::new() };
    let depth = |mm: f64| Measure::Depth.show(mm, units);
    let more = volume_text(units)(e.more_m3.abs());
    let unit = volume_unit(units);
    let key = if e.more_m3 < 0.0 { "expect-less" } else { "expect-more" };
    Words.with(key, &[("after", &depth(e.after_mm)), ("before", &depth(e.before_mm)), ("more", &more), ("unit", unit)])
}

/// What an accepted change makes of the controller; nothing where only the panel is put back.
pub(crate) fn applied(context: &ControllerContext, advice: &Advice, today: NaiveDate) -> Option<Controller> {
    let change = advice.change?;
    let c = context.controller();
    let changed = change.applied(c, month_of(today));
    (changed != *c).then_some(changed)
}

#[derive(askama::Template)]
#[template(path = "rounds.html")]
pub(crate) struct RoundsTemplate {
    pub(crate) shell: Shell,
    pub(crate) rows: Vec<RoundRow>,
    pub(crate) finder: Finder,
}

/// A controller in the list of rounds.
#[derive(Debug, Clone)]
pub(crate) struct RoundRow {
    pub(crate) mark: &'static str,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) due: String,
    pub(crate) last: String,
    pub(crate) href: String,
}

impl RoundRow {
    pub(crate) fn of(head: &ControllerHead, today: NaiveDate) -> Self {
        let w = Words;
        let day = head.look_again;
        let due = match day {
            Some(d) if d <= today => w.t1("rounds-due", date_short(d)),
            Some(d) => w.t1("rounds-on", date_short(d)),
            None => w.t("rounds-never"),
        };
        Self {
            mark: match day {
                Some(d) if d <= today => "flag",
                Some(_) => "done",
                None => "todo",
            },
            controller: head.name.clone(),
            place: head.place.clone(),
            due,
            last: head.last_visit.map_or_else(|| w.t("rounds-no-visit"), |d| w.t1("rounds-last", date_short(d))),
            href: format!("/controllers/{}", head.id),
        }
    }
}
