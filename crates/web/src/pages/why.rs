//! Why a station got no water on a day, in words.

use chrono::NaiveDate;
use upland_core::controller::{Controller, Station};
use upland_core::schedule::{Obstacle, Run, Stood, Unknown, Why};

use super::Choice;
use super::sensors::sensor_name;
use super::shell::Shell;
use super::soil_view::{SoilLine, SoilView};
use super::spine::Spine;
use super::stations::station_name;
use crate::charts::Strip;
use crate::form::Form;
use crate::show::{date_long, date_short, month_long, number, panel_time, percent, weekday};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "why.html")]
pub(crate) struct WhyTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) href: String,
    pub(crate) form: Form,
    pub(crate) stations: Vec<Choice>,
    pub(crate) answer: Option<WhyAnswer>,
}

/// The value of the choice of all stations.
pub(crate) const ALL: &str = "all";

/// The stations to ask for, all of them first.
pub(crate) fn stations(controller: &Controller) -> Vec<Choice> {
    let one = |s: &Station| Choice::new(s.number.to_string(), format!("{} {}", s.number, s.name));
    let all = (!controller.stations.is_empty()).then(|| Choice::new(ALL, Words.t("dry-all")));
    all.into_iter().chain(controller.stations.iter().map(one)).collect()
}

/// What the answer is judged by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Judged {
    /// What stood on the panel on that day.
    By(Stood),
    /// The oldest plan on record, which is younger than the day.
    OldestPlan,
}

impl Judged {
    fn words(self) -> String {
        let w = Words;
        match self {
            Self::By(Stood::Planned) => w.t("dry-by-plan"),
            Self::By(Stood::Dialled { on }) => w.t1("dry-by-dialled", date_short(on)),
            Self::By(Stood::Found { on }) => w.t1("dry-by-found", date_short(on)),
            Self::OldestPlan => w.t("dry-by-oldest"),
        }
    }
}

/// The answer for one station or for all of them.
#[derive(Debug, Clone)]
pub(crate) struct WhyAnswer {
    pub(crate) judged: String,
    pub(crate) one: Option<WhyView>,
    pub(crate) all_title: String,
    pub(crate) all: Vec<WhyLine>,
    /// Whether the weather on record reaches that day.
    pub(crate) has_soil: bool,
}

impl WhyAnswer {
    pub(crate) fn new(one: Option<WhyView>, all: Vec<WhyLine>, judged: Judged, date: NaiveDate) -> Self {
        let has_soil = all.iter().any(|line| line.soil.is_some());
        let all_title = Words.t2("dry-all-head", ("weekday", weekday(date)), ("date", date_long(date)));
        Self { judged: judged.words(), one, all_title, all, has_soil }
    }
}

/// A station among all of them: its first cause, or when it was due.
#[derive(Debug, Clone)]
pub(crate) struct WhyLine {
    pub(crate) number: u8,
    pub(crate) name: String,
    /// Whether something stood in its way.
    pub(crate) dry: bool,
    pub(crate) cause: String,
    pub(crate) more: String,
    /// Where its soil stood that morning, by the weather on record.
    pub(crate) soil: Option<SoilLine>,
    pub(crate) query: String,
}

impl WhyLine {
    pub(crate) fn of(why: &Why, controller: &Controller, station: u8, soil: Option<SoilLine>, date: NaiveDate) -> Self {
        let w = Words;
        let due: Vec<String> = why.due.iter().map(|r| due(r, controller)).collect();
        let (cause, more) = match why.obstacles.first() {
            Some(first) => (
                obstacle(first, controller).0,
                match why.obstacles.len() - 1 {
                    0 => String::new(),
                    n => w.count("dry-more-causes", n),
                },
            ),
            None if due.is_empty() => (w.t("dry-nothing-due"), String::new()),
            None => (due.join(", "), String::new()),
        };
        Self {
            number: station,
            name: station_name(controller, station),
            dry: !why.obstacles.is_empty(),
            query: format!("?station={station}&date={date}"),
            cause,
            more,
            soil,
        }
    }
}

fn due(run: &Run, controller: &Controller) -> String {
    let start = panel_time(run.local_start.time(), controller.capability.clock_face);
    Words.t2("dry-due", ("start", start), ("minutes", number(run.length.minutes(), 1)))
}

#[derive(Debug, Clone)]
pub(crate) struct WhyView {
    pub(crate) title: String,
    pub(crate) lead: String,
    /// First cause first: title and fact.
    pub(crate) obstacles: Vec<(String, String)>,
    pub(crate) due: Vec<String>,
    pub(crate) unknown: Vec<String>,
    /// How its soil stood that morning and how it came there, by the weather on record.
    pub(crate) soil: Option<SoilView>,
}

impl WhyView {
    pub(crate) fn of(why: &Why, controller: &Controller, station: u8, soil: Option<SoilView>, date: NaiveDate) -> Self {
        let w = Words;
        let name = station_name(controller, station);
        Self {
            title: w.with("dry-head", &[("station", &name), ("day", &weekday(date)), ("date", &date_long(date))]),
            lead: match (why.obstacles.is_empty(), why.due.is_empty()) {
                (true, false) => w.t("dry-should-have-run"),
                (true, true) => w.t("dry-nothing-due"),
                (false, _) => w.count("dry-causes", why.obstacles.len()),
            },
            obstacles: why.obstacles.iter().map(|o| obstacle(o, controller)).collect(),
            due: why.due.iter().map(|r| due(r, controller)).collect(),
            unknown: why.unknown.iter().map(|u| unknown(*u, controller)).collect(),
            soil,
        }
    }
}

fn sensor(controller: &Controller, id: u16) -> String {
    controller.sensor(id).map(sensor_name).unwrap_or_default()
}

fn obstacle(o: &Obstacle, c: &Controller) -> (String, String) {
    let w = Words;
    let letter = |l: &upland_core::controller::ProgramLetter| l.get().to_string();
    match o {
        Obstacle::Off { since, reason, overdue } => (
            w.t1("dry-off", date_short(*since)),
            if *overdue { w.t1("dry-off-overdue", reason) } else { w.t1("dry-reason", reason) },
        ),
        Obstacle::RainDelay { until } => (w.t1("dry-delay", date_short(*until)), w.t("dry-delay-more")),
        Obstacle::FoundOff { on } => (w.t1("dry-found-off", date_short(*on)), w.t("dry-found-off-more")),
        Obstacle::NoStation => (w.t("dry-no-station"), w.t("dry-no-station-more")),
        Obstacle::ByHand(l) => (w.t1("dry-by-hand", letter(l)), w.t("dry-by-hand-more")),
        Obstacle::NoStart(l) => (w.t1("dry-no-start", letter(l)), w.t("dry-no-start-more")),
        Obstacle::NotItsDay { letter: l, last, next } => {
            let near = |d: &Option<NaiveDate>| d.map_or_else(|| w.t("dry-never"), date_short);
            (w.t1("dry-not-day", letter(l)), w.t2("dry-not-day-more", ("before", near(last)), ("after", near(next))))
        }
        Obstacle::OutsideWindow(l) => (w.t1("dry-window", letter(l)), w.t("dry-window-more")),
        Obstacle::NeverDay(l) => (w.t1("dry-never-day", letter(l)), w.t("dry-never-day-more")),
        Obstacle::NotYet { next } => (w.t1("dry-not-yet", date_short(*next)), w.t("dry-not-yet-more")),
        Obstacle::MonthOff(month) => (w.t1("dry-month-off", month_long(*month)), w.t("dry-month-off-more")),
        Obstacle::NoMinutes => (w.t("dry-no-minutes"), w.t("dry-no-minutes-more")),
        Obstacle::PercentToNothing { percent: p, minutes } => {
            (w.t1("dry-to-nothing", percent(*p)), w.t1("dry-to-nothing-more", number(*minutes, 1)))
        }
        Obstacle::SensorHeld { sensor: id } => (w.t1("dry-held", sensor(c, *id)), w.t("dry-held-more")),
        Obstacle::WrongClock => (w.t("dry-clock"), w.t("dry-clock-more")),
    }
}

fn unknown(u: Unknown, c: &Controller) -> String {
    let w = Words;
    match u {
        Unknown::Power => w.t("unknown-power"),
        Unknown::Clock => w.t("unknown-clock"),
        Unknown::Hand => w.t("unknown-hand"),
        Unknown::Valve => w.t("unknown-valve"),
        Unknown::NotSet => w.t("unknown-not-set"),
        Unknown::Sensor(id) => w.t1("unknown-sensor", sensor(c, id)),
        Unknown::Bypass(id) => w.t1("unknown-bypass", sensor(c, id)),
    }
}
