//! Ways to water a program: what each gives in the peak month, and what it would have done in the weather on record.

use chrono::{Datelike, NaiveDate};
use chrono_tz::Tz;
use upland_core::controller::{Controller, Program, ProgramLetter};
use upland_core::replay::{Way, WayWeek, WholeTotals};
use upland_core::schedule::{Grouping, Pinned, Situation, Wish, propose_as};

use super::replay::{ENOUGH, Field, last_year};
use super::shell::Shell;
use super::spine::Spine;
use crate::charts::{Rhythm, Strip};
use crate::context::{ControllerContext, WeatherDay};
use crate::form::new_key;
use crate::show::{Measure, Units, month_long, number};
use crate::words::Words;

/// A way to water.
#[derive(Debug, Clone)]
pub(crate) struct WayRow {
    pub(crate) name: String,
    pub(crate) what: String,
    pub(crate) rhythm: Rhythm,
    pub(crate) waterings: String,
    pub(crate) depth: String,
    pub(crate) week: String,
    /// Less a week than the plants need.
    pub(crate) is_short_week: bool,
    pub(crate) season: Option<WaySeason>,
    /// What it asks of the panel or of people.
    pub(crate) asks: String,
    pub(crate) act: String,
    pub(crate) href: String,
    /// The program is watered so now.
    pub(crate) is_now: bool,
    /// It can be handed over to a person here.
    pub(crate) hands_over: bool,
}

/// What a way would have done.
#[derive(Debug, Clone)]
pub(crate) struct WaySeason {
    pub(crate) applied: String,
    pub(crate) lost: String,
    pub(crate) stress: String,
    pub(crate) adequacy: String,
    pub(crate) short: bool,
}

/// The page.
#[derive(askama::Template)]
#[template(path = "ways.html")]
pub(crate) struct WaysTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) view: Option<WaysView>,
    /// What is missing before there is one, what is done about it, and where.
    pub(crate) missing: [String; 3],
}

#[derive(Debug, Clone)]
pub(crate) struct WaysView {
    /// Address, name and whether it is the one that is shown.
    pub(crate) programs: Vec<(String, String, bool)>,
    /// The program that is shown.
    pub(crate) letter: char,
    /// Where it is handed over, from which version, under which key.
    pub(crate) change: String,
    pub(crate) version: i32,
    pub(crate) action: String,
    pub(crate) need: String,
    pub(crate) rows: Vec<WayRow>,
    pub(crate) unit: &'static str,
    /// The year of the replay; empty without weather by the day.
    pub(crate) year: String,
    pub(crate) note: String,
}

/// What a view is made from.
pub(crate) struct WaysInput<'a> {
    pub(crate) context: &'a ControllerContext,
    pub(crate) days: &'a [WeatherDay],
    pub(crate) letter: Option<ProgramLetter>,
    pub(crate) today: NaiveDate,
    pub(crate) units: Units,
}

impl WaysView {
    /// Nothing without stations or normals.
    pub(crate) fn of(input: &WaysInput<'_>) -> Option<Self> {
        let w = Words;
        let WaysInput { context, days, units, .. } = *input;
        let own = context.controller();
        let budget = context.budget().ok()?;
        let used: Vec<ProgramLetter> =
            own.programs.iter().map(|p| p.letter).filter(|l| own.stations.iter().any(|s| s.program == *l)).collect();
        let letter = input.letter.filter(|l| used.contains(l)).or(used.first().copied())?;
        let month = budget.group(letter)?.peak_month;
        let field = Field::of(context, days, None);
        let last =
            field.as_ref().zip(last_year(days)).and_then(|(field, span)| Some((field, field.season(span)?, span)));
        let situation = context.situation(input.today);
        let c = &by_panel(&situation, own, letter);
        let stations = stations_of(c, letter);
        let plan = situation.plan(c);
        let made: Vec<Made> = Way::ALL
            .into_iter()
            .filter_map(|way| {
                let controller = way.applied(c, &plan, &context.at.rules, &[letter]);
                let budget = situation.budget(&controller)?;
                let week = way.week(&controller, &budget, letter, month)?;
                let season = last.as_ref().map(|(field, season, _)| field.of_way(season, way, &controller, &stations));
                Some(Made { way, week, season })
            })
            .collect();
        let deepest = made.iter().map(|m| m.week.depth_mm).fold(0.0, f64::max);
        let base = format!("/controllers/{}", context.controller.id);
        let need = made.first()?.week.need_mm;
        let month_words = month_long(month);
        Some(Self {
            programs: used
                .iter()
                .map(|l| {
                    let name = c.program(*l).map_or_else(String::new, |p| p.name.clone());
                    let label = format!("{} {name}", l.get());
                    (format!("{base}/ways?program={}", l.get()), label.trim().to_owned(), *l == letter)
                })
                .collect(),
            letter: letter.get(),
            change: format!("{base}/week/change"),
            version: context.controller.version,
            action: new_key(),
            need: w.with(
                "ways-need",
                &[
                    ("need", &Measure::Depth.show(need, units)),
                    ("month", &month_words),
                    ("letter", &letter.get().to_string()),
                ],
            ),
            rows: made.iter().map(|m| m.row(own, letter, &base, deepest, units)).collect(),
            unit: Measure::Depth.unit(units),
            year: last.map_or_else(String::new, |(.., span)| span[0].year().to_string()),
            note: w.with(
                "ways-note",
                &[("inch", &Measure::Depth.show(25.0, units)), ("half", &Measure::Depth.show(12.7, units))],
            ),
        })
    }
}

/// The controller with a program at work on the panel: one that is left to a person as it would be proposed.
fn by_panel(situation: &Situation<'_, Tz>, own: &Controller, letter: ProgramLetter) -> Controller {
    if !own.is_by_hand(letter) {
        return own.clone();
    }
    let mut c = own.clone();
    if let Some(program) = c.program_mut(letter) {
        program.by_hand = false;
    }
    let others = c.programs.iter().map(|p| p.letter).filter(|l| *l != letter);
    let wish = Wish { pinned: Pinned::of(others), ..Wish::default() };
    propose_as(situation, &c, Grouping::Keep, wish).controller
}

fn stations_of(c: &Controller, letter: ProgramLetter) -> Vec<u8> {
    c.stations.iter().filter(|s| s.program == letter).map(|s| s.number).collect()
}

/// A way with its figures.
struct Made {
    way: Way,
    week: WayWeek,
    season: Option<WholeTotals>,
}

impl Made {
    fn row(&self, c: &Controller, letter: ProgramLetter, base: &str, deepest: f64, units: Units) -> WayRow {
        let w = Words;
        let depth = |mm: f64| Measure::Depth.figure(mm, units);
        let week = &self.week;
        let program = letter.get();
        let (name, what) = words(self.way);
        let (asks, act, href) = match self.way {
            Way::OnceAWeek => (w.t("ways-asks-once"), "ways-try", format!("{base}/replay?program={program}&days=1")),
            Way::Refill => (w.t("ways-asks-refill"), "ways-replay", format!("{base}/replay?program={program}")),
            Way::EveryAllowedDay => {
                let days = number(week.waterings, 0);
                (w.t(soil_asks(c)), "ways-try", format!("{base}/replay?program={program}&days={days}"))
            }
            Way::SetDays => (w.t("ways-asks-set"), "ways-compare", format!("{base}/proposals")),
            Way::ByHand => (w.t("ways-asks-hand"), "ways-card", format!("{base}/by-hand")),
        };
        let by_hand = c.is_by_hand(letter);
        WayRow {
            name: w.t(name),
            what: w.t(what),
            rhythm: Rhythm::draw(week.waterings, if deepest > 0.0 { week.depth_mm / deepest } else { 0.0 }),
            waterings: number(week.waterings, 1),
            depth: depth(week.depth_mm),
            week: depth(week.week_mm),
            is_short_week: week.week_mm < ENOUGH * week.need_mm,
            season: self.season.as_ref().map(|totals| WaySeason {
                applied: Measure::Depth.season_figure(totals.applied_mm, units),
                lost: Measure::Depth.season_figure(totals.lost_mm, units),
                stress: totals.stress_days.to_string(),
                adequacy: number(totals.adequacy, 2),
                short: totals.adequacy < ENOUGH,
            }),
            asks,
            act: w.t(act),
            href,
            is_now: match self.way {
                Way::ByHand => by_hand,
                Way::SetDays => !by_hand && c.program(letter).is_some_and(Program::is_scheduled),
                _ => false,
            },
            hands_over: self.way == Way::ByHand && !by_hand,
        }
    }
}

const fn words(way: Way) -> (&'static str, &'static str) {
    match way {
        Way::OnceAWeek => ("ways-once", "ways-once-what"),
        Way::Refill => ("ways-refill", "ways-refill-what"),
        Way::EveryAllowedDay => ("ways-every", "ways-every-what"),
        Way::SetDays => ("ways-set", "ways-set-what"),
        Way::ByHand => ("ways-hand", "ways-hand-what"),
    }
}

/// What watering on every day asks for: a sensor that is there, or one that is not.
fn soil_asks(c: &Controller) -> &'static str {
    use upland_core::sensor::SensorKind;
    let has = c.sensors.iter().any(|s| matches!(s.kind, SensorKind::SoilMoisture { .. }));
    if has { "ways-asks-soil-there" } else { "ways-asks-soil" }
}
