//! Today: an almanac page for the date, and the percent each controller should stand at.

use chrono::{Datelike, NaiveDate};
use upland_core::budget::{Dial, Group};
use upland_core::controller::{PercentStorage, ProgramLetter, Temporary};
use upland_core::in_force::{InForce, OffBy, SetBy};
use upland_core::quantity::MonthOfYear;

use super::finder::{Finder, address};
use super::first_steps::FirstStep;
use super::job_list::{JobKind, PlaceJobs, PutOff, Todo};
use super::places::PlaceRow;
use super::shell::Shell;
use super::year::program_label;
use crate::charts::{DayArc, Tiny};
use crate::context::{ControllerContext, Missing};
use crate::show::{Measure, Units, date_short, dial, dial_figure, month_long, month_of, number};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "today.html")]
pub(crate) struct TodayTemplate {
    pub(crate) shell: Shell,
    pub(crate) day: String,
    pub(crate) weekday: String,
    pub(crate) month_year: String,
    pub(crate) of_year: String,
    pub(crate) arc: Option<DayArc>,
    pub(crate) normal: Option<NormalNow>,
    pub(crate) groups: Vec<DialRow>,
    pub(crate) first: Vec<FirstStep>,
    pub(crate) month: String,
    pub(crate) scale: String,
    pub(crate) todo: Vec<PlaceJobs>,
    pub(crate) todo_count: usize,
    pub(crate) put_off: PutOff,
    pub(crate) kinds: Vec<KindLink>,
    pub(crate) jobs: Finder,
    pub(crate) finder: Finder,
    pub(crate) places: Vec<PlaceRow>,
    pub(crate) place_count: usize,
}

/// The month's normals, beside the sun.
#[derive(Debug, Clone)]
pub(crate) struct NormalNow {
    pub(crate) title: String,
    pub(crate) et0: String,
    pub(crate) et0_unit: String,
    pub(crate) rain: String,
    pub(crate) rain_unit: String,
    pub(crate) week: String,
    pub(crate) source: String,
    pub(crate) mark: &'static str,
    pub(crate) href: String,
}

/// A controller, or one of its programs, and what it should stand at.
#[derive(Debug, Clone)]
pub(crate) struct DialRow {
    pub(crate) href: String,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) tiny: Tiny,
    pub(crate) called: String,
    pub(crate) dial: String,
    pub(crate) is_off: bool,
    pub(crate) next: String,
}

/// A filter of Today's list: how many there are of a kind.
#[derive(Debug, Clone)]
pub(crate) struct KindLink {
    pub(crate) href: String,
    pub(crate) label: String,
    pub(crate) count: usize,
    pub(crate) current: bool,
}

/// The kinds that there are, each with its count; none when there is only one.
pub(crate) fn kind_links(todos: &[&Todo], current: Option<JobKind>, text: &str) -> Vec<KindLink> {
    let link = |kind: Option<JobKind>| KindLink {
        href: address("/", [("q", text), ("kind", kind.map_or("", JobKind::word))]),
        label: Words.t(match kind {
            None => "job-all",
            Some(JobKind::Clock) => "job-clock",
            Some(JobKind::Ended) => "job-ended",
            Some(JobKind::Fault) => "job-fault",
            Some(JobKind::Dial) => "job-dial",
            Some(JobKind::Soon) => "job-soon",
            Some(JobKind::LookAgain) => "job-look-again",
            Some(JobKind::Sensor) => "job-sensor",
            Some(JobKind::Missing) => "job-missing",
        }),
        count: todos.iter().filter(|t| kind.is_none_or(|k| t.kind == k)).count(),
        current: kind == current,
    };
    let kinds: Vec<KindLink> = JobKind::ALL.into_iter().map(|k| link(Some(k))).filter(|l| l.count > 0).collect();
    if kinds.len() < 2 { Vec::new() } else { std::iter::once(link(None)).chain(kinds).collect() }
}

/// A row for each group of each controller that has a budget.
pub(crate) fn dial_rows(
    contexts: &[ControllerContext],
    today: impl Fn(&ControllerContext) -> NaiveDate,
    found_off: impl Fn(&ControllerContext) -> Option<NaiveDate>,
) -> (Vec<DialRow>, f64) {
    let most = contexts
        .iter()
        .filter_map(|d| d.normals().ok())
        .flat_map(|n| n.iter().map(|m| m.et0_mm_per_day))
        .fold(1.0, f64::max);
    let w = Words;
    let mut rows = Vec::new();
    for context in contexts {
        let (Ok(budget), Ok(normals)) = (context.budget(), context.normals()) else { continue };
        let date = today(context);
        let month = month_of(date);
        let in_force = context.in_force(found_off(context), date);
        for group in &budget.groups {
            let letter = group.letters.first().copied().unwrap_or(ProgramLetter::A);
            let name = &context.controller().name;
            let label = if budget.groups.len() > 1 {
                Words.t2("today-program-of", name, program_label(context.controller().program(letter), letter))
            } else {
                name.clone()
            };
            let now = group.month(month);
            let (dial, next) = dialled(context, &in_force, group, month);
            rows.push(DialRow {
                href: format!(
                    "/controllers/{}/year?program={}&month={}",
                    context.controller.id,
                    letter.get(),
                    month.number()
                ),
                controller: label,
                place: context.at.place.value.name.clone(),
                tiny: Tiny::draw(normals, group, date, most),
                called: number(now.percent_exact, 1),
                is_off: dial == Dial::Off || !in_force.is_on(),
                dial: if in_force.is_on() { dial_figure(dial) } else { w.t("off") },
                next,
            });
        }
    }
    (rows, most)
}

/// What a group stands at on a date, and until when: the month's value, one set for a while, or the sensor's.
fn dialled(context: &ControllerContext, in_force: &InForce, group: &Group, month: MonthOfYear) -> (Dial, String) {
    let w = Words;
    let letter = group.letters.first().copied().unwrap_or(ProgramLetter::A);
    let program = in_force.program(letter);
    let dial = program.map_or(group.month(month).dial, |p| p.dial);
    let until = |t: &Temporary| {
        if t.left_standing {
            w.t1("today-ended", date_short(t.until))
        } else {
            w.t1("today-until", date_short(t.until))
        }
    };
    let next = match (in_force.off.first(), program.map(|p| &p.by)) {
        (Some(OffBy::Set(t) | OffBy::RainDelay(t)), _) => until(t),
        (Some(OffBy::Found { on }), _) => w.t1("today-found-off", date_short(*on)),
        (None, Some(SetBy::ForAWhile(t))) => w.t2("today-for-a-while", until(t), dial_figure(group.month(month).dial)),
        (None, Some(SetBy::EtSensor)) => w.t("today-by-sensor"),
        _ => next_change(context, group, month),
    };
    (dial, next)
}

/// When the percent changes next, and to what.
fn next_change(context: &ControllerContext, group: &Group, month: MonthOfYear) -> String {
    let w = Words;
    let now = group.month(month).dial;
    let next = (1..12).map(|step| MonthOfYear::ALL[(month.index() + step) % 12]).find(|m| group.month(*m).dial != now);
    let Some(next) = next else { return w.t("today-same-all-year") };
    let date = w.t2("date-short", "1", month_long(next));
    let dial = dial(group.month(next).dial);
    match context.controller().capability.percent_storage {
        PercentStorage::ByMonth => w.t2("today-next-by-itself", date, dial),
        PercentStorage::Single => w.t2("today-next-by-hand", date, dial),
    }
}

/// What is missing at a controller, the next sensible step.
pub(crate) fn todos(context: &ControllerContext, today: NaiveDate) -> Vec<Todo> {
    let w = Words;
    let name = &context.controller().name;
    let at = &context.at.place.value.name;
    let id = context.controller.id;
    let todo = |mark, title: &str, reason: String, href: String, act: &str| Todo {
        kind: JobKind::Missing,
        key: title.to_owned(),
        mark,
        title: w.t1(title, name),
        reason,
        href,
        act: w.t(act),
    };
    match context.budget() {
        Err(Missing::Weather) => vec![todo(
            "todo",
            "todo-weather",
            w.t1("todo-weather-more", at),
            format!("/places/{}/weather", context.at.place.id),
            "todo-weather-act",
        )],
        Err(Missing::Stations) => vec![todo(
            "todo",
            "todo-stations",
            w.t1("todo-stations-more", at),
            format!("/controllers/{id}/stations"),
            "todo-stations-act",
        )],
        Ok(budget) => {
            let shorts: usize = budget.groups.iter().flat_map(|g| &g.months).filter(|m| m.fewer_days.is_some()).count();
            let short = (shorts > 0).then(|| Todo {
                reason: w.count("todo-short-more", shorts),
                ..todo("part", "todo-short", String::new(), format!("/controllers/{id}/year"), "todo-short-act")
            });
            short.into_iter().chain(turn_by_hand(context, today)).collect()
        }
    }
}

/// In the first days of a month, and the last before it, the percent of a single-percent panel has to
/// be turned by hand.
fn turn_by_hand(context: &ControllerContext, today: NaiveDate) -> Option<Todo> {
    let w = Words;
    if context.controller().capability.percent_storage != PercentStorage::Single || today.day() > 7 {
        return None;
    }
    let budget = context.budget().ok()?;
    let month = month_of(today);
    let before = MonthOfYear::ALL[(month.index() + 11) % 12];
    let group = budget.groups.iter().find(|g| g.month(month).dial != g.month(before).dial)?;
    let dial = dial(group.month(month).dial);
    Some(Todo {
        kind: JobKind::Dial,
        key: format!("turn.{}", month.number()),
        mark: "flag",
        title: w.t2("todo-turn", &context.controller().name, dial),
        reason: w.t1("todo-turn-more", date_short(today)),
        href: format!("/controllers/{}/year", context.controller.id),
        act: w.t("todo-turn-act"),
    })
}

/// The month's normals at a place.
pub(crate) fn normal_now(context: &crate::context::PlaceContext, today: NaiveDate, units: Units) -> Option<NormalNow> {
    let w = Words;
    let weather = context.weather.as_ref()?;
    let month = month_of(today);
    let n = weather.normals()?[month.index()];
    let week = n.et0_mm_per_day * 7.0;
    Some(NormalNow {
        title: w.t1("today-normal", month_long(month)),
        et0: Measure::DepthADay.figure(n.et0_mm_per_day, units),
        et0_unit: w.t1("a-day", Measure::DepthADay.unit(units)),
        rain: n.rain_mm.map_or_else(|| "·".to_owned(), |r| Measure::Depth.figure(r, units)),
        rain_unit: w.t1("today-rain-month", Measure::Depth.unit(units)),
        week: w.t1("today-week", Measure::Depth.show(week, units)),
        source: if weather.is_typed() {
            w.t("normals-typed")
        } else {
            context.distance_km().map_or_else(String::new, |km| w.t1("weather-off", Measure::Distance.show(km, units)))
        },
        mark: if weather.is_typed() { "table" } else { "measured" },
        href: format!("/weather/{}", weather.series.id),
    })
}
