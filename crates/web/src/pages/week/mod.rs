//! The Week: what the controller would run, what is wrong with it, and what can be changed.

mod form;
mod lens;

use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta};
use upland_core::budget::YearBudget;
use upland_core::controller::{Controller, DayMode, Days, Program, ProgramLetter};
use upland_core::schedule::{Expansion, Finding, Grouping, Level, Plan, Shortfall, check, detect, propose, week_work};

use super::door_card::own_days;
use super::findings::{FindingView, counts, finding_views};
use super::shell::Shell;
use super::spine::Spine;
use super::year::program_label;
use crate::charts::{Strip, WeekPlate, WeekPlateInput, day_volumes, sun_of, volume_text, volume_unit, week_total};
use crate::context::{ControllerContext, monday};
use crate::form::{Form, new_key};
use crate::show::{
    Units, clock, date_short, day_letter, day_long, mode_words, month_long, month_of, nearest_minute, panel_start,
    percent,
};
use crate::words::Words;

#[cfg(test)]
pub(crate) use form::filled;
pub(crate) use form::{ProgramForm, read_program, read_stations};
pub(crate) use lens::Lens;

#[derive(askama::Template)]
#[template(path = "week.html")]
pub(crate) struct WeekTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) week: WeekView,
}

/// The live answer to a start in hand.
#[derive(askama::Template)]
#[template(path = "week_live.html")]
pub(crate) struct WeekLiveTemplate {
    pub(crate) w: Words,
    pub(crate) token: String,
    pub(crate) week: WeekView,
}

/// A day's toggle of a program.
#[derive(Debug, Clone)]
pub(crate) struct Toggle {
    pub(crate) letter: String,
    pub(crate) day: u8,
    pub(crate) label: String,
    pub(crate) on: bool,
    pub(crate) closed: bool,
}

/// A program's line of the table.
#[derive(Debug, Clone)]
pub(crate) struct ProgramLine {
    pub(crate) letter: char,
    pub(crate) name: String,
    pub(crate) toggles: Vec<Toggle>,
    pub(crate) mode: String,
    /// Starts, and whether each is too many.
    pub(crate) starts: Vec<(String, bool)>,
    pub(crate) percent: String,
    pub(crate) ends: String,
    pub(crate) ends_highest: String,
    pub(crate) late: bool,
    pub(crate) href: String,
    pub(crate) open: bool,
    /// Months of fewer days, in words.
    pub(crate) own_days: String,
}

/// A proposal that can be taken over.
#[derive(Debug, Clone)]
pub(crate) struct ProposalNote {
    pub(crate) shortfalls: Vec<String>,
    pub(crate) can_group: bool,
    pub(crate) fresh: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct WeekView {
    pub(crate) base_href: String,
    pub(crate) sub: String,
    pub(crate) version: i32,
    pub(crate) action: String,
    pub(crate) step: u16,
    pub(crate) level_tabs: Vec<(String, String, bool)>,
    pub(crate) plate: Option<WeekPlate>,
    pub(crate) programs: Vec<ProgramLine>,
    pub(crate) highest_head: String,
    pub(crate) total: String,
    pub(crate) findings_title: String,
    pub(crate) findings_note: String,
    pub(crate) findings: Vec<FindingView>,
    pub(crate) repairs: usize,
    pub(crate) off_now: Vec<String>,
    pub(crate) proposal: ProposalNote,
    pub(crate) lens: Option<Lens>,
    pub(crate) program: Option<ProgramForm>,
    pub(crate) no_stations: bool,
    pub(crate) missing: bool,
    pub(crate) links: Vec<(String, String)>,
}

/// What a Week is made from.
pub(crate) struct WeekInput<'a> {
    pub(crate) context: &'a ControllerContext,
    pub(crate) controller: &'a Controller,
    /// Local date and time.
    pub(crate) now: NaiveDateTime,
    /// The program whose form is open.
    pub(crate) open: Option<ProgramLetter>,
    pub(crate) level: Level,
    /// Whether repairs are looked for: not while something is dragged.
    pub(crate) with_repairs: bool,
    pub(crate) units: Units,
    pub(crate) form: Form,
}

impl WeekView {
    pub(crate) fn of(input: WeekInput<'_>) -> Self {
        let w = Words;
        let (context, c, units) = (input.context, input.controller, input.units);
        let first = monday(input.now.date());
        let situation = context.situation(first);
        let budget = situation.budget(c);
        let plan = Plan::of(c, budget.as_ref());
        let findings = if input.with_repairs { check(&situation, c) } else { detect(&situation, c) };
        let week = situation.week(c, &plan, input.level);
        let highest = situation.week(c, &plan, Level::Highest);
        let open = input.open.or_else(|| c.programs.iter().map(|p| p.letter).next());
        let base_href = format!("/controllers/{}/week", context.controller.id);
        let month = month_of(input.now.date());
        let text = volume_text(units);
        let unit = volume_unit(units);
        let authority = context.at.place.value.rules.authority.as_str();
        let any_runs = c.programs.iter().any(Program::is_scheduled);
        Self {
            sub: w.t2("week-sub", ("first", date_short(first)), ("last", date_short(first + TimeDelta::days(6)))),
            version: context.controller.version,
            action: new_key(),
            step: c.capability.start_step,
            level_tabs: vec![
                (
                    format!("{base_href}?program={}", open.map_or('A', ProgramLetter::get)),
                    w.t1("week-at-now", month_long(month)),
                    input.level == Level::Calendar,
                ),
                (
                    format!("{base_href}?program={}&at=highest", open.map_or('A', ProgramLetter::get)),
                    w.t("week-at-highest"),
                    input.level == Level::Highest,
                ),
            ],
            plate: any_runs.then(|| draw(&input, first, &plan, (&week, &highest), &findings)),
            programs: lines(&input, &plan, (&week, &highest), &findings, open, &base_href),
            highest_head: highest_head(c, &plan),
            total: week_total(&week_work(&plan, &week), &text, unit),
            findings_title: w.count("week-findings", findings.len()),
            findings_note: counts(&findings),
            repairs: findings.iter().filter(|f| f.repair.is_some()).count(),
            findings: finding_views(c, &findings, authority, units),
            off_now: off_now(c, first),
            proposal: proposal_note(&situation, c, any_runs),
            lens: open.and_then(|l| Lens::of(c, l, &plan, &week)),
            program: open.map(|l| ProgramForm::of(c, l, &plan, budget.as_ref(), &week, input.form.clone(), units)),
            no_stations: c.stations.is_empty(),
            missing: budget.is_none() && !c.stations.is_empty(),
            links: vec![
                (format!("/controllers/{}/dial-in", context.controller.id), w.t("dial-link")),
                (format!("/controllers/{}/round", context.controller.id), w.t("round-link")),
                (format!("/controllers/{}/temporary", context.controller.id), w.t("temp-link")),
                (format!("{base_href}/proposals"), w.t("proposals-link")),
                (format!("/controllers/{}/ways", context.controller.id), w.t("ways-link")),
                (format!("/controllers/{}/why", context.controller.id), w.t("week-why-link")),
                (format!("/controllers/{}/runs.ics", context.controller.id), w.t("week-file-link")),
            ],
            base_href,
        }
    }
}

fn draw(
    input: &WeekInput<'_>,
    first: NaiveDate,
    plan: &Plan,
    (week, highest): (&Expansion, &Expansion),
    findings: &[Finding],
) -> WeekPlate {
    let at = &input.context.at;
    let position = &at.place.value.place.position;
    let sun = sun_of(position.latitude_deg(), position.longitude_deg(), at.zone, input.now.date());
    let local = |t: Option<chrono::DateTime<chrono::Utc>>| t.map(|t| nearest_minute(t, at.zone));
    let volume = |run: &upland_core::schedule::Run| {
        plan.station(run.station).and_then(|s| s.volume_m3(run.length)).unwrap_or(0.0)
    };
    WeekPlate::draw(&WeekPlateInput {
        first,
        now: input.now,
        week,
        highest: if input.level == Level::Highest { week } else { highest },
        day_volumes: day_volumes(first, week, volume),
        rules: &at.rules.within(&input.controller.windows),
        findings,
        sun: [local(sun.sunrise), local(sun.sunset)],
        in_hand: if input.with_repairs { None } else { input.open },
        volume_unit: volume_unit(input.units),
        face: input.context.controller().capability.clock_face,
        volume: &volume_text(input.units),
    })
}

fn lines(
    input: &WeekInput<'_>,
    plan: &Plan,
    (week, highest): (&Expansion, &Expansion),
    findings: &[Finding],
    open: Option<ProgramLetter>,
    base: &str,
) -> Vec<ProgramLine> {
    let w = Words;
    let c = input.controller;
    let now_work = week_work(plan, week);
    let high_work = week_work(plan, highest);
    let ends = |work: &upland_core::schedule::WeekWork, letter| {
        work.programs.iter().find(|p| p.letter == letter).and_then(|p| p.ends).map_or_else(|| "·".to_owned(), clock)
    };
    let face = c.capability.clock_face;
    c.programs
        .iter()
        .map(|p| {
            let late = findings.iter().any(|f| {
                f.letter == Some(p.letter)
                    && matches!(
                        f.code(),
                        upland_core::schedule::Code::LateAtHighest | upland_core::schedule::Code::ForbiddenHour
                    )
            });
            let split = usize::from(p.schedule.split.max(1));
            ProgramLine {
                letter: p.letter.get(),
                name: program_label(Some(p), p.letter),
                toggles: toggles(p, &input.context.week_of(input.now.date()).allowed().days),
                own_days: own_days(c, p),
                mode: match p.schedule.days {
                    _ if p.by_hand => w.t("by-hand"),
                    DayMode::Weekdays(_) => String::new(),
                    mode => mode_words(mode, p.schedule.never),
                },
                starts: p
                    .schedule
                    .starts
                    .iter()
                    .enumerate()
                    .map(|(i, s)| (panel_start(*s, face), i >= split))
                    .collect(),
                percent: match plan.percent_on(c, p.letter, input.now.date(), input.level) {
                    _ if p.by_hand => "·".to_owned(),
                    Some(v) => percent(v.get()),
                    None => w.t("off"),
                },
                ends: ends(&now_work, p.letter),
                ends_highest: ends(&high_work, p.letter),
                late,
                href: format!("{base}?program={}#program", p.letter.get()),
                open: open == Some(p.letter),
            }
        })
        .collect()
}

fn toggles(p: &Program, allowed: &Days) -> Vec<Toggle> {
    let DayMode::Weekdays(days) = p.schedule.days else { return Vec::new() };
    (0..)
        .zip(Days::WEEK)
        .map(|(day, weekday)| Toggle {
            letter: day_letter(weekday),
            day,
            label: Words.t2("week-toggle", ("program", p.letter.get().to_string()), ("day", day_long(weekday))),
            on: days.holds(weekday),
            closed: !allowed.holds(weekday),
        })
        .collect()
}

/// The head of the column of ends at the highest percent: its month, where all programs share it.
fn highest_head(c: &Controller, plan: &Plan) -> String {
    let w = Words;
    let mut found: Vec<_> = c.programs.iter().filter_map(|p| plan.highest(p.letter)).collect();
    found.dedup();
    match found[..] {
        [(month, p)] => w.t2("week-ends-highest", ("month", month_long(month)), ("percent", percent(p.get()))),
        _ => w.t("week-ends-never"),
    }
}

/// What stops watering in the week, in words.
fn off_now(c: &Controller, first: NaiveDate) -> Vec<String> {
    let last = first + TimeDelta::days(6);
    c.temporaries
        .iter()
        .filter(|t| t.stops_watering() && first.iter_days().take_while(|d| *d <= last).any(|d| t.holds_on(d)))
        .map(|t| {
            let (since, until) = (date_short(t.since), date_short(t.until));
            Words.with("week-off-now", &[("first", &since), ("last", &until), ("reason", &t.reason)])
        })
        .collect()
}

fn proposal_note(
    situation: &upland_core::schedule::Situation<'_, chrono_tz::Tz>,
    c: &Controller,
    any_runs: bool,
) -> ProposalNote {
    let w = Words;
    let can_group = c.stations.iter().all(|s| s.program == ProgramLetter::A) && c.stations.len() > 1;
    // What a proposal could not fit is said before it is asked for.
    let shortfalls = if any_runs || c.stations.is_empty() {
        Vec::new()
    } else {
        propose(situation, c, if can_group { Grouping::ByNeed } else { Grouping::Keep }).shortfalls
    };
    ProposalNote { shortfalls: shortfalls.iter().map(|s| shortfall_words(w, s)).collect(), can_group, fresh: !any_runs }
}

pub(crate) fn shortfall_words(w: Words, shortfall: &Shortfall) -> String {
    match shortfall {
        Shortfall::Hours { needed, free } => {
            w.t2("week-shortfall-hours", ("needed", needed.to_string()), ("free", free.to_string()))
        }
        Shortfall::Days { letter, needed, .. } => {
            w.t2("week-shortfall-days", ("program", letter.get().to_string()), ("needed", needed.to_string()))
        }
    }
}

/// Minutes that the budget works out for a station, whatever was chosen.
fn worked_out(c: &Controller, budget: Option<&YearBudget>, number: u8) -> Option<f64> {
    let station = c.station(number)?;
    let base = budget?.group(station.program)?.stations.iter().find(|b| b.number == number)?;
    Some(c.capability.run(base.exact_minutes).minutes())
}

/// The day of a week that a number names, Monday 0.
pub(crate) fn weekday_of(number: &str) -> Option<chrono::Weekday> {
    number.parse::<usize>().ok().and_then(|n| Days::WEEK.get(n).copied())
}

/// Whether a date has a name of its own in the week that begins on a day.
pub(crate) fn day_name(date: NaiveDate) -> String {
    day_long(date.weekday())
}
