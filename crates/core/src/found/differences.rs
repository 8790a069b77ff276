//! Where a panel and the plan differ, and taking the panel's value into the plan.

use super::{FoundStation, Panel};
use crate::controller::{
    Controller, DayMode, Days, Hours, MonthDial, PercentScope, ProgramLetter, Schedule, StartTime,
};
use crate::landscape::CycleSoak;
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::schedule::{Level, Plan};

/// A part of a panel that can be taken over by itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Part {
    /// Minutes of a station.
    Minutes(u8),
    /// The programs that a station stands in.
    Programs(u8),
    /// Cycle and soak of a station.
    Cycle(u8),
    /// Days of a program.
    Days(ProgramLetter),
    /// Its starts.
    Starts(ProgramLetter),
    /// The panel's water windows.
    Windows,
    /// Its percent in a month; of all programs where the panel has one for all.
    Percent(ProgramLetter, MonthOfYear),
}

impl Part {
    /// Names the part in a form: `minutes.3`, `A.starts`, `A.percent.6`.
    #[must_use]
    pub fn key(self) -> String {
        match self {
            Self::Minutes(n) => format!("minutes.{n}"),
            Self::Programs(n) => format!("programs.{n}"),
            Self::Cycle(n) => format!("cycle.{n}"),
            Self::Days(l) => format!("{}.days", l.get()),
            Self::Starts(l) => format!("{}.starts", l.get()),
            Self::Windows => "windows".into(),
            Self::Percent(l, m) => format!("{}.percent.{}", l.get(), m.number()),
        }
    }
}

/// What a panel or the plan holds for a part.
#[derive(Debug, Clone, PartialEq)]
pub enum Held {
    /// Minutes at 100 %.
    Run(RunTime),
    /// Programs.
    Programs(Vec<ProgramLetter>),
    /// Cycles; none where a run goes through.
    Cycle(Option<CycleSoak>),
    /// Days, and weekdays that are closed to every mode.
    Days(DayMode, Days),
    /// Starts.
    Starts(Vec<StartTime>),
    /// Water windows.
    Windows(Vec<Hours>),
    /// A percent; none where the month is off.
    Percent(Option<Percent>),
}

/// A part that reads otherwise on the panel.
#[derive(Debug, Clone, PartialEq)]
pub struct Difference {
    /// Which.
    pub part: Part,
    /// On the panel.
    pub panel: Held,
    /// By the plan.
    pub plan: Held,
    /// Whether the plan can take the panel's value: not for a station or a program that it does not have.
    pub can_adopt: bool,
}

/// Where the panel and the plan differ, in the panel's order: stations, then programs. `plan` is that of `known`.
/// A percent that a sensor sets is no difference.
#[must_use]
pub fn differences(panel: &Panel, known: &Controller, plan: &Plan) -> Vec<Difference> {
    let mut out = Vec::new();
    for number in 1..=known.capability.stations {
        let found = panel.stations.iter().find(|s| s.number == number);
        station_differences(number, found, panel, known, plan, &mut out);
    }
    let letters = ProgramLetter::ALL.into_iter().take(usize::from(known.capability.programs));
    for letter in letters {
        program_differences(letter, panel, known, plan, &mut out);
    }
    percent_differences(panel, known, plan, &mut out);
    let [on_panel, planned] = [&panel.windows, &known.windows].map(|windows| Held::Windows(windows.clone()));
    out.push(Difference { part: Part::Windows, panel: on_panel, plan: planned, can_adopt: true });
    out.retain(|d| d.panel != d.plan);
    out
}

fn station_differences(
    number: u8,
    found: Option<&FoundStation>,
    panel: &Panel,
    known: &Controller,
    plan: &Plan,
    out: &mut Vec<Difference>,
) {
    let can_adopt = known.station(number).is_some();
    let mut differ = |part, panel, plan| out.push(Difference { part, panel, plan, can_adopt });
    let planned = plan.station(number);
    differ(
        Part::Minutes(number),
        Held::Run(found.map_or(RunTime::ZERO, |s| s.minutes)),
        Held::Run(planned.map_or(RunTime::ZERO, |s| s.panel)),
    );
    let (Some(found), Some(planned)) = (found.filter(|s| s.minutes > RunTime::ZERO), planned) else { return };
    differ(
        Part::Programs(number),
        Held::Programs(found.programs.clone()),
        Held::Programs(planned.programs.iter().flatten().copied().collect()),
    );
    // Where no station has cycles nobody looked at them.
    let looked_at = panel.stations.iter().any(|s| s.cycle.is_some());
    if known.capability.cycle_soak && looked_at {
        let acts = |cycle: Option<CycleSoak>, run: RunTime| cycle.filter(|c| run > c.cycle);
        differ(
            Part::Cycle(number),
            Held::Cycle(acts(found.cycle, found.minutes)),
            Held::Cycle(acts(planned.cycle, planned.panel)),
        );
    }
}

fn program_differences(
    letter: ProgramLetter,
    panel: &Panel,
    known: &Controller,
    plan: &Plan,
    out: &mut Vec<Difference>,
) {
    let seen = panel.seen_at.date();
    let found = panel.programs.iter().find(|p| p.letter == letter);
    let own = known.program(letter).filter(|_| plan.of_program(letter).next().is_some());
    let can_adopt = own.is_some();
    let runs_on_panel = found.filter(|f| !f.schedule().is_idle());
    let runs_by_plan = own.filter(|p| !p.schedule.is_idle());
    if let (Some(found), Some(own)) = (runs_on_panel, runs_by_plan) {
        out.push(Difference {
            part: Part::Days(letter),
            panel: Held::Days(same_count(found.days, panel), found.never),
            plan: Held::Days(same_count(known.days_on(own, seen), panel), own.schedule.never),
            can_adopt,
        });
    }
    out.push(Difference {
        part: Part::Starts(letter),
        panel: Held::Starts(found.map_or_else(Vec::new, |f| f.starts.clone())),
        plan: Held::Starts(own.map_or_else(Vec::new, |p| known.schedule_on(p, seen).into_owned().starts)),
        can_adopt,
    });
}

/// "Every N days" by its next day from the day of the panel on: the same count reads alike.
fn same_count(mode: DayMode, panel: &Panel) -> DayMode {
    let DayMode::Every { days, next } = mode else { return mode };
    let seen = panel.seen_at.date();
    let ahead = (next - seen).num_days().rem_euclid(i64::from(days.max(1)));
    DayMode::Every { days, next: seen + chrono::TimeDelta::days(ahead) }
}

fn percent_differences(panel: &Panel, known: &Controller, plan: &Plan, out: &mut Vec<Difference>) {
    let date = panel.seen_at.date();
    let today = MonthOfYear::of(date);
    let one_for_all = known.capability.percent_scope == PercentScope::AllPrograms;
    let mut used = panel.programs.iter().filter(|p| known.programs_with_stations().any(|o| o.letter == p.letter));
    let programs: Vec<_> = if one_for_all { used.next().into_iter().collect() } else { used.collect() };
    for found in programs.into_iter().filter(|p| known.percent_is_dialled(p.letter)) {
        for month in MonthOfYear::ALL {
            if month != today && found.months.is_none() {
                continue;
            }
            let planned = if month == today {
                plan.percent_on(known, found.letter, date, Level::Calendar)
            } else {
                plan.percent_of_month(found.letter, month)
            };
            let on_panel = match found.dial(month) {
                MonthDial::Set(percent) => Some(percent),
                _ => None,
            };
            out.push(Difference {
                part: Part::Percent(found.letter, month),
                panel: Held::Percent(on_panel),
                plan: Held::Percent(planned),
                can_adopt: true,
            });
        }
    }
}

/// The plan with the panel's value for some parts; a part that it cannot take is left as it is. The caller checks
/// the result against the capability, as after any change.
#[must_use]
pub fn adopt(panel: &Panel, known: &Controller, parts: &[Part]) -> Controller {
    let mut c = known.clone();
    for part in parts {
        match *part {
            Part::Minutes(n) => {
                let minutes = panel.stations.iter().find(|s| s.number == n).map_or(RunTime::ZERO, |s| s.minutes);
                // The plan keeps the whole watering, a panel without cycles one start's share of it.
                let split = c.station(n).and_then(|s| c.program(s.program)).map_or(1, |p| p.schedule.split.max(1));
                if let Some(own) = c.station_mut(n) {
                    own.minutes = Some(RunTime::from_seconds(minutes.seconds() * u32::from(split)));
                }
            }
            Part::Programs(n) => {
                let found = panel.stations.iter().find(|s| s.number == n);
                if let (Some(own), Some([first, rest @ ..])) = (c.station_mut(n), found.map(|s| s.programs.as_slice()))
                {
                    own.program = *first;
                    own.also = rest.first().copied();
                }
            }
            Part::Cycle(n) => {
                let cycle = panel.stations.iter().find(|s| s.number == n).and_then(|s| s.cycle);
                if let Some(own) = c.station_mut(n) {
                    own.cycle = cycle;
                }
            }
            Part::Days(letter) => {
                let found = panel.programs.iter().find(|p| p.letter == letter);
                let month = MonthOfYear::of(panel.seen_at.date());
                if let (Some(own), Some(found)) = (c.program_mut(letter), found) {
                    own.schedule.days = found.days;
                    own.schedule.never = found.never;
                    own.months[month.index()].waterings = None;
                }
            }
            Part::Starts(letter) => {
                let starts = panel.programs.iter().find(|p| p.letter == letter).map(|p| p.starts.clone());
                if let Some(own) = c.program_mut(letter) {
                    let starts = starts.unwrap_or_default();
                    let most = u8::try_from(starts.len()).unwrap_or(u8::MAX).max(1);
                    let split = own.schedule.split.min(most);
                    own.take_schedule(Schedule { starts, split, ..own.schedule.clone() });
                }
            }
            Part::Windows => c.windows.clone_from(&panel.windows),
            Part::Percent(letter, month) => {
                let Some(found) = panel.programs.iter().find(|p| p.letter == letter) else { continue };
                let one_for_all = c.capability.percent_scope == PercentScope::AllPrograms;
                for own in c.programs.iter_mut().filter(|p| p.letter == letter || one_for_all) {
                    own.months[month.index()].dial = found.dial(month);
                }
            }
        }
    }
    c.normalise_programs();
    c
}
