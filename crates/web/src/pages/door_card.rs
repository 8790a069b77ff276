//! The door card: one printed page, in the terms and steps of its controller.

use chrono::NaiveDate;
use upland_core::budget::{Dial, YearBudget};
use upland_core::controller::{Controller, DayMode, Days, PercentStorage, Program};
use upland_core::landscape::Plant;
use upland_core::quantity::MonthOfYear;
use upland_core::schedule::{Level, Plan, Situation, week_work};

use super::field::FieldState;
use super::round::change_line;
use super::rules_form::rules_parts;
use super::sensors::{sensor_name, set_to};
use super::stations::plant_name;
use crate::charts::Strip;
use crate::context::ControllerContext;
use crate::show::{
    Units, date_long, date_short, day_short, minutes, mode_words, month_short, number, panel_start, panel_time, percent,
};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "door_card.html")]
pub(crate) struct DoorCardTemplate {
    pub(crate) w: Words,
    pub(crate) css: String,
    pub(crate) back: String,
    pub(crate) dial: String,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) issued: String,
    pub(crate) by: String,
    pub(crate) company: String,
    pub(crate) card: String,
    pub(crate) strip: Option<Strip>,
    pub(crate) stations: Vec<CardStation>,
    pub(crate) months: Vec<CardMonth>,
    pub(crate) programs: Vec<CardProgram>,
    pub(crate) schedules: Vec<CardSchedule>,
    /// The water windows of the panel; empty for none.
    pub(crate) windows: String,
    pub(crate) ends_head: String,
    pub(crate) never: Vec<String>,
    pub(crate) sensors: Vec<String>,
    pub(crate) visits: Vec<CardVisit>,
    pub(crate) since: String,
    pub(crate) percent_note: String,
    pub(crate) fewer: String,
    pub(crate) note: String,
}

#[derive(Debug, Clone)]
pub(crate) struct CardStation {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) what: String,
    pub(crate) program: String,
    pub(crate) minutes: String,
    pub(crate) how: String,
}

#[derive(Debug, Clone)]
pub(crate) struct CardMonth {
    pub(crate) label: String,
    pub(crate) now: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct CardProgram {
    pub(crate) letter: String,
    /// Who sets the percent or the runs where none is dialled; else empty.
    pub(crate) undialled: String,
    /// A percent for each month, whether it is off, and whether it is the month of issue.
    pub(crate) percents: Vec<(String, bool, bool)>,
}

/// A program's days and starts.
#[derive(Debug, Clone)]
pub(crate) struct CardSchedule {
    pub(crate) letter: String,
    pub(crate) name: String,
    /// The seven days and which of them are on; empty where days go by the date.
    pub(crate) days: Vec<(String, bool)>,
    pub(crate) mode: String,
    pub(crate) starts: String,
    pub(crate) ends: String,
    /// Months of fewer days, in words.
    pub(crate) own_days: String,
}

/// A line of those who were here.
#[derive(Debug, Clone)]
pub(crate) struct CardVisit {
    pub(crate) date: String,
    pub(crate) name: String,
    pub(crate) seen: String,
    pub(crate) what: String,
    pub(crate) look_again: String,
}

/// The programs that run, with their days, starts and ends at the year's highest percent.
pub(crate) fn card_schedules(
    controller: &Controller,
    plan: &Plan,
    situation: &Situation<'_, chrono_tz::Tz>,
) -> Vec<CardSchedule> {
    let face = controller.capability.clock_face;
    let work = week_work(plan, &situation.week(controller, plan, Level::Highest));
    let running = controller.programs.iter().filter(|p| p.is_scheduled());
    running
        .map(|p| {
            let days = match p.schedule.days {
                DayMode::Weekdays(days) if !p.by_hand => {
                    let on = days.and(p.schedule.never.complement());
                    Days::WEEK.map(|d| (day_short(d), on.holds(d))).to_vec()
                }
                _ => Vec::new(),
            };
            let ends = work.programs.iter().find(|w| w.letter == p.letter).and_then(|w| w.ends);
            CardSchedule {
                letter: p.letter.get().to_string(),
                name: p.name.clone(),
                mode: match () {
                    () if p.by_hand => Words.t("card-by-hand"),
                    () if days.is_empty() => mode_words(p.schedule.days, p.schedule.never),
                    () => String::new(),
                },
                own_days: own_days(controller, p),
                days,
                starts: p.schedule.starts.iter().map(|s| panel_start(*s, face)).collect::<Vec<_>>().join("  "),
                ends: ends.map_or_else(|| "·".to_owned(), |ends| panel_time(ends.time(), face)),
            }
        })
        .collect()
}

/// Months in which a program waters on fewer days, in words; empty where there is none. Months that follow
/// each other on the same days are said together.
pub(crate) fn own_days(controller: &Controller, program: &Program) -> String {
    let mut groups: Vec<(Vec<String>, DayMode)> = Vec::new();
    for (month, mode) in controller.months_with_own_days(program) {
        match groups.iter_mut().find(|(_, m)| *m == mode) {
            Some((months, _)) => months.push(month_short(month)),
            None => groups.push((vec![month_short(month)], mode)),
        }
    }
    let words = |(months, mode): &(Vec<String>, DayMode)| {
        Words.t2("card-own-days", ("months", months.join(", ")), ("days", mode_words(*mode, program.schedule.never)))
    };
    groups.iter().map(words).collect::<Vec<_>>().join(". ")
}

/// The head of the column of ends: the percent at which they are worked out, where it is one.
pub(crate) fn ends_head(controller: &Controller, plan: &Plan) -> String {
    let mut highest: Vec<_> = controller.programs.iter().filter_map(|p| plan.highest(p.letter)).map(|h| h.1).collect();
    highest.dedup();
    match highest[..] {
        [one] => Words.t1("card-ends-at", percent(one.get())),
        _ => Words.t("card-ends"),
    }
}

/// What the rules of the place forbid, and who says so.
pub(crate) fn card_never(context: &ControllerContext) -> Vec<String> {
    let rules = &context.at.place.value.rules;
    let mut out = rules_parts(rules, &context.at.rules);
    if !rules.authority.is_empty() {
        out.push(rules.authority.clone());
    }
    out
}

/// The sensors as they are set, and who does not obey.
pub(crate) fn card_sensors(controller: &Controller, units: Units) -> Vec<String> {
    let w = Words;
    controller
        .sensors
        .iter()
        .map(|s| {
            let line = format!("{}: {}", sensor_name(s), set_to(s, units));
            let exempt: Vec<String> = s.exempt.iter().map(u8::to_string).collect();
            match exempt.len() {
                _ if !s.has_contact() => line,
                0 => line,
                1 => w.t2("card-exempt-one", ("line", line), ("station", exempt.join(", "))),
                _ => w.t2("card-exempt", ("line", line), ("stations", exempt.join(", "))),
            }
        })
        .collect()
}

/// The last dialling and the last round.
pub(crate) fn card_visits(state: &FieldState, controller: &Controller) -> Vec<CardVisit> {
    let w = Words;
    let dialled = state.dialled.as_ref().map(|(record, doc)| {
        let visit = CardVisit {
            date: date_short(doc.on),
            name: record.user_name.clone(),
            seen: String::new(),
            what: w.count("log-dialled", doc.values.len()),
            look_again: date_short(doc.look_again),
        };
        (record.at, visit)
    });
    let round = state.round.as_ref().map(|(record, doc)| {
        let seen = doc.percents.iter().map(|(l, p)| format!("{l} {p}")).collect::<Vec<_>>().join(", ");
        let visit = CardVisit {
            date: date_short(doc.on),
            name: record.user_name.clone(),
            seen,
            what: change_line(doc.change.as_ref(), controller),
            look_again: date_short(doc.look_again),
        };
        (record.at, visit)
    });
    let mut visits: Vec<_> = dialled.into_iter().chain(round).collect();
    visits.sort_by_key(|(at, _)| *at);
    visits.into_iter().map(|(_, v)| v).collect()
}

/// The lines of stations, with the minutes on the panel.
pub(crate) fn card_stations(controller: &Controller, budget: &YearBudget, plan: &Plan) -> Vec<CardStation> {
    let w = Words;
    controller
        .stations
        .iter()
        .filter_map(|s| {
            let base = budget.group(s.program)?.stations.iter().find(|b| b.number == s.number)?;
            let planned = plan.station(s.number)?;
            let cycle = planned.cycle.filter(|c| planned.panel > c.cycle);
            Some(CardStation {
                number: s.number,
                name: s.name.clone(),
                what: match s.plant {
                    Plant::Coefficient(k) => format!("K {}", number(k.get(), 2)),
                    plant => plant_name(plant),
                },
                program: s.program.get().to_string(),
                minutes: if controller.is_by_hand(s.program) { "·".to_owned() } else { minutes(planned.panel) },
                how: if controller.is_by_hand(s.program) {
                    w.t("card-hand-minutes")
                } else if let Some(set) = cycle {
                    w.t2("card-cycle", ("cycle", minutes(set.cycle)), ("soak", minutes(set.soak)))
                } else if s.roofed {
                    w.t("card-roofed")
                } else if base.held_at_longest(&controller.capability) {
                    w.t("card-held")
                } else {
                    w.t("week-in-one")
                },
            })
        })
        .collect()
}

/// The percents, a line for each group of programs.
pub(crate) fn card_programs(controller: &Controller, budget: &YearBudget, now: MonthOfYear) -> Vec<CardProgram> {
    let w = Words;
    budget
        .groups
        .iter()
        .map(|g| CardProgram {
            letter: g.letters.iter().map(|l| l.get()).collect(),
            undialled: match () {
                () if g.letters.iter().all(|l| controller.is_by_hand(*l)) => w.t("card-by-hand"),
                () if g.letters.iter().any(|l| controller.percent_by_sensor(*l)) => w.t("card-by-sensor"),
                () => String::new(),
            },
            percents: g
                .months
                .iter()
                .map(|m| {
                    let text = match m.dial {
                        Dial::Off => w.t("off"),
                        Dial::Percent(p) => p.get().to_string(),
                    };
                    (text, m.dial == Dial::Off, m.month == now)
                })
                .collect(),
        })
        .collect()
}

pub(crate) fn card_months(now: MonthOfYear) -> Vec<CardMonth> {
    MonthOfYear::ALL.map(|m| CardMonth { label: month_short(m), now: m == now }).to_vec()
}

/// How the percents get onto this controller.
pub(crate) fn percent_note(controller: &Controller) -> String {
    let step = controller.capability.percent_step.get().to_string();
    match controller.capability.percent_storage {
        PercentStorage::ByMonth => Words.t1("card-by-month", step),
        PercentStorage::Single => Words.t1("card-single", step),
    }
}

/// Months with fewer waterings, in a line; empty when there are none.
pub(crate) fn fewer_line(budget: &YearBudget) -> String {
    let w = Words;
    let parts: Vec<String> = budget
        .groups
        .iter()
        .flat_map(|g| g.months.iter().filter_map(move |m| m.waterings_set.map(|n| (g, m, n))))
        .map(|(g, m, n)| {
            let letters: String = g.letters.iter().map(|l| l.get()).collect();
            w.with("card-fewer", &[("program", &letters), ("month", &month_short(m.month)), ("n", &n.to_string())])
        })
        .collect();
    parts.join("; ")
}

pub(crate) fn issued(today: NaiveDate) -> String {
    date_long(today)
}
