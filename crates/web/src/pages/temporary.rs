//! Everything temporary: what is set for a while, why, and until when.

use chrono::{NaiveDate, TimeDelta};
use upland_core::controller::{Controller, ProgramLetter, Temporary, TemporaryKind};
use upland_core::field::Fields;
use upland_core::quantity::Percent;
use upland_core::tuning::{ShortTerm, short_term};

use super::Choice;
use super::field_form;
use super::last_weeks::LastWeeks;
use super::sensors::sensor_name;
use super::shell::Shell;
use super::spine::Spine;
use super::year::program_label;
use crate::charts::Strip;
use crate::context::{ControllerContext, WeatherDay};
use crate::form::{Form, new_key};
use crate::show::{Measure, Units, date_short, month_of, number, panel_start, percent};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "temporary.html")]
pub(crate) struct TemporaryTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) href: String,
    pub(crate) version: i32,
    pub(crate) form: Form,
    pub(crate) kinds: Vec<Choice>,
    pub(crate) programs: Vec<Choice>,
    pub(crate) sensors: Vec<Choice>,
    pub(crate) lines: Vec<TemporaryLine>,
    pub(crate) weeks: Vec<WeekProposal>,
    /// Where rain read at the gauge is entered; none for a place without weather.
    pub(crate) gauge: Option<String>,
}

/// Something temporary in words.
#[derive(Debug, Clone)]
pub(crate) struct TemporaryLine {
    /// Names it in a form.
    pub(crate) id: u16,
    pub(crate) mark: &'static str,
    pub(crate) what: String,
    pub(crate) span: String,
    pub(crate) reason: String,
    pub(crate) act: String,
}

/// A percent for this week, out of the rain since the last visit.
#[derive(Debug, Clone)]
pub(crate) struct WeekProposal {
    pub(crate) letter: char,
    pub(crate) program: String,
    pub(crate) now: String,
    pub(crate) figure: String,
    pub(crate) is_off: bool,
    pub(crate) differs: bool,
    pub(crate) line: String,
    pub(crate) working: String,
    pub(crate) percent: String,
    pub(crate) until: String,
    pub(crate) until_text: String,
    pub(crate) reason: String,
}

/// What is set for a while, in words.
pub(crate) fn kind_words(kind: &TemporaryKind, controller: &Controller) -> String {
    let w = Words;
    match kind {
        TemporaryKind::Percent { letter: None, percent: p } => w.t1("temp-percent-all", percent(p.get())),
        TemporaryKind::Percent { letter: Some(l), percent: p } => {
            w.t2("temp-percent", ("program", l.get().to_string()), ("percent", percent(p.get())))
        }
        TemporaryKind::Weaning { letter, extra_pct, step_pct } => {
            let program =
                letter.map_or_else(|| w.t("temp-all-programs"), |l| w.t1("temp-program", l.get().to_string()));
            let figures = [extra_pct.to_string(), step_pct.to_string()];
            w.with("temp-weaning", &[("program", &program), ("extra", &figures[0]), ("step", &figures[1])])
        }
        TemporaryKind::GrowIn { letter, percent: p, .. } => {
            let starts = kind.grow_in_starts(controller.capability.start_step);
            let face = controller.capability.clock_face;
            let starts: Vec<String> = starts.iter().map(|s| panel_start(*s, face)).collect();
            let program = w.t1("temp-program", letter.get().to_string());
            w.with(
                "temp-grow",
                &[("program", &program), ("starts", &starts.join(", ")), ("percent", &percent(p.get()))],
            )
        }
        TemporaryKind::RainDelay => w.t("temp-delay"),
        TemporaryKind::Bypass { sensor } => {
            let name = controller.sensor(*sensor).map(sensor_name).unwrap_or_default();
            w.t1("temp-bypass", name)
        }
        TemporaryKind::Off => w.t("temp-off"),
    }
}

/// The name of what to do when it is over, as a thing done.
pub(crate) fn back_words(kind: &TemporaryKind) -> String {
    Words.t(match kind {
        TemporaryKind::Percent { .. } | TemporaryKind::Weaning { .. } => "temp-back-percent",
        TemporaryKind::GrowIn { .. } => "temp-back-grow",
        TemporaryKind::RainDelay => "temp-back-delay",
        TemporaryKind::Bypass { .. } => "temp-back-bypass",
        TemporaryKind::Off => "temp-back-off",
    })
}

pub(crate) fn lines(controller: &Controller, today: NaiveDate) -> Vec<TemporaryLine> {
    let w = Words;
    controller
        .temporaries
        .iter()
        .map(|t| {
            let (mark, key) = if t.is_over(today) {
                ("flag", "temp-over")
            } else if t.since > today {
                ("todo", "temp-span")
            } else {
                ("part", "temp-span")
            };
            TemporaryLine {
                id: t.id,
                mark,
                what: kind_words(&t.kind, controller),
                span: format!(
                    "{}{}",
                    w.t2(key, ("first", date_short(t.since)), ("last", date_short(t.until))),
                    weeks(t)
                ),
                reason: w.t2("temp-reason-line", ("reason", &t.reason), ("person", &t.by)),
                act: back_words(&t.kind),
            }
        })
        .collect()
}

/// What a weaning adds, week by week; empty for anything else.
fn weeks(t: &Temporary) -> String {
    let Some(weeks) = t.kind.weeks_of_weaning() else { return String::new() };
    let extra = |week: u16| format!("+{}\u{a0}%", t.extra_pct_on(t.since + TimeDelta::days(7 * i64::from(week))));
    // A long one is told by its beginning and its end.
    const MOST: u16 = 6;
    let mut told: Vec<String> = (0..weeks.min(MOST)).map(extra).collect();
    if weeks > MOST {
        told.push("…".to_owned());
        told.push(extra(weeks - 1));
    }
    format!(": {}", told.join(", "))
}

pub(crate) fn kinds(controller: &Controller) -> Vec<Choice> {
    let w = Words;
    let mut kinds: Vec<Choice> =
        [("percent", "kind-percent"), ("weaning", "kind-weaning"), ("grow_in", "kind-grow-in")]
            .map(|(value, key)| Choice::new(value, w.t(key)))
            .into();
    if controller.capability.rain_delay_max > 0 {
        let most = controller.capability.rain_delay_max.to_string();
        kinds.push(Choice::new("rain_delay", w.t1("temp-kind-delay", most)));
    }
    if !controller.sensors.is_empty() {
        kinds.push(Choice::new("bypass", w.t("kind-bypass")));
    }
    kinds.push(Choice::new("off", w.t("kind-off")));
    kinds
}

pub(crate) fn programs(controller: &Controller) -> Vec<Choice> {
    let all = std::iter::once(Choice::new("", Words.t("temp-all-programs")));
    let each = controller.programs.iter().map(|p| Choice::new(p.letter.get(), program_label(Some(p), p.letter)));
    all.chain(each).collect()
}

pub(crate) fn sensors(controller: &Controller) -> Vec<Choice> {
    controller.sensors.iter().map(|s| Choice::new(s.id.to_string(), sensor_name(s))).collect()
}

/// The form at first: a percent until a week from now.
pub(crate) fn empty(today: NaiveDate) -> Form {
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("kind", "percent");
    form.set("extra", "40");
    form.set("step", "10");
    form.set("starts", "3");
    form.set("from", "06:00");
    form.set("to", "14:00");
    form.set("since", today.to_string());
    form.set("until", (today + TimeDelta::days(6)).to_string());
    form
}

/// The fields of the form and those of the table that they enter.
pub(crate) const ENTERED: [(&str, &str); 11] = [
    ("program", "program"),
    ("percent", "percent"),
    ("extra", "extra_pct"),
    ("step", "step_pct"),
    ("starts", "starts"),
    ("from", "from"),
    ("to", "to"),
    ("sensor", "sensor"),
    ("since", "since"),
    ("until", "until"),
    ("reason", "reason"),
];

/// Reads something temporary; errors stand beside their fields.
pub(crate) fn read(form: &mut Form, controller: &Controller, by: &str) -> Option<Temporary> {
    let Some(kind) = TemporaryKind::of_word(form.get("kind")) else {
        form.fail("kind", Words.t("field-choice"));
        return None;
    };
    check_typed(form, &kind, controller);
    let mut read = Temporary { kind, by: by.to_owned(), ..Temporary::blank() };
    // No figure has a unit of its own in either system.
    for (name, field) in field_form::entered_fields(&ENTERED) {
        // A weaning ends by itself, when nothing is left to take away.
        if !(field.name == "until" && kind.weeks_of_weaning().is_some()) {
            field_form::read(form, name, field, &mut read, Units::Metric);
        }
    }
    if let Some(weeks) = read.kind.weeks_of_weaning() {
        read.until = read.since + TimeDelta::days(7 * i64::from(weeks) - 1);
    }
    check_together(form, &read, controller);
    form.is_sound().then_some(read)
}

/// What is known better of this panel than by the ranges of the fields.
fn check_typed(form: &mut Form, kind: &TemporaryKind, controller: &Controller) {
    let w = Words;
    let k = &controller.capability;
    let weans = matches!(kind, TemporaryKind::Weaning { .. });
    if form.get("until").is_empty() && !weans {
        form.fail("until", w.t("temp-needs-end"));
    }
    if form.get("reason").is_empty() {
        form.fail("reason", w.t("temp-needs-reason"));
    }
    let grows_in = matches!(kind, TemporaryKind::GrowIn { .. });
    if grows_in && form.get("program").is_empty() {
        form.fail("program", w.t("temp-grow-program"));
    }
    if grows_in && !form.get("starts").parse::<u8>().is_ok_and(|count| (1..=k.starts).contains(&count)) {
        form.fail("starts", w.t1("temp-grow-starts-bad", k.starts.to_string()));
    }
    let percent = form.get("percent").parse().ok().and_then(|pct| Percent::new(pct).ok());
    if (grows_in || matches!(kind, TemporaryKind::Percent { .. })) && !percent.is_some_and(|pct| k.can_dial(pct)) {
        let ends = [k.percent_min, k.percent_max, k.percent_step].map(|p| p.get().to_string());
        form.fail("percent", w.with("temp-percent-bad", &[("min", &ends[0]), ("max", &ends[1]), ("step", &ends[2])]));
    }
}

/// What fits its fields may still not fit another, or the panel.
fn check_together(form: &mut Form, t: &Temporary, controller: &Controller) {
    let w = Words;
    match t.kind {
        TemporaryKind::Weaning { extra_pct, step_pct, .. } if step_pct > extra_pct => {
            form.fail("step", w.t1("temp-weaning-bad", extra_pct.to_string()));
        }
        TemporaryKind::Bypass { sensor } if controller.sensor(sensor).is_none() => {
            form.fail("sensor", w.t("field-choice"));
        }
        TemporaryKind::GrowIn { from, to, .. } if to < from => form.fail("to", w.t("temp-grow-order")),
        _ => {}
    }
    if t.until < t.since {
        form.fail("until", w.t("temp-order"));
    }
    let days = (t.until - t.since).num_days() + 1;
    let most = controller.capability.rain_delay_max;
    if t.kind == TemporaryKind::RainDelay && days > i64::from(most) {
        form.fail("until", w.t1("temp-delay-long", most.to_string()));
    }
}

/// Percents for the coming week, a line for each program whose station lies open to rain: the daily
/// balance up to this morning, by what ran and what the sensors held.
pub(crate) fn week_proposals(
    context: &ControllerContext,
    days: &[WeatherDay],
    since: NaiveDate,
    today: NaiveDate,
    units: Units,
) -> Vec<WeekProposal> {
    let c = context.controller();
    if context.budget().is_err() {
        return Vec::new();
    }
    let Some(weeks) = LastWeeks::of(context, c.clone(), days, today) else { return Vec::new() };
    let known = weeks.recent(context, since);
    let month = month_of(today);
    let in_force = context.in_force(None, today);
    let Ok(normals) = context.normals() else { return Vec::new() };
    let et0 = normals[month.index()].et0_mm_per_day;
    c.programs
        .iter()
        // What an ET sensor sets is set by nobody else, and a person needs no percent.
        .filter(|p| c.percent_is_dialled(p.letter))
        // Nor is a planting that grows in kept short.
        .filter(|p| !c.grows_in(p, today))
        .filter_map(|program| {
            let term = short_term(&known, program.letter, today, et0)?;
            // What is in force, which may be set for a while already.
            let now = f64::from(in_force.dial(program.letter).percent());
            Some(proposal(Words, program.letter, context, now, since, &term, units))
        })
        .collect()
}

fn proposal(
    w: Words,
    letter: ProgramLetter,
    context: &ControllerContext,
    now: f64,
    since: NaiveDate,
    term: &ShortTerm,
    units: Units,
) -> WeekProposal {
    let depth = |mm: f64| Measure::Depth.show(mm, units);
    let figure = term.percent.map_or_else(|| w.t("off"), |p| p.get().to_string());
    let reason = w.t2("temp-week-reason", ("depth", depth(term.rain_mm)), ("date", date_short(since)));
    WeekProposal {
        letter: letter.get(),
        program: program_label(context.controller().program(letter), letter),
        now: number(now, 0),
        is_off: term.percent.is_none(),
        differs: term.percent.map_or(now > 0.0, |p| (f64::from(p.get()) - now).abs() > 0.5),
        line: w.t2("temp-week-line", ("depth", depth(term.rain_mm)), ("date", date_short(since))),
        working: w.with(
            "temp-week-working",
            &[
                ("rain", &depth(term.rain_mm)),
                ("watered", &depth(term.watered_mm)),
                ("used", &depth(term.used_mm)),
                ("missing", &depth(term.missing_mm)),
                ("use", &depth(term.use_mm_per_day)),
                ("days", &term.days.to_string()),
                ("waterings", &term.waterings.to_string()),
                ("base", &depth(term.base_mm)),
                ("exact", &number(term.percent_exact, 1)),
            ],
        ),
        percent: term.percent.map_or_else(String::new, |p| p.get().to_string()),
        until: term.until.to_string(),
        until_text: date_short(term.until),
        figure,
        reason,
    }
}
