//! What is wrong with a panel.

use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta, TimeZone, Weekday};

use super::{FoundProgram, FoundStation, Panel, SensorSwitch, Switch};
use crate::budget::YearBudget;
use crate::controller::{Controller, ProgramLetter, Schedule, StartTime};
use crate::quantity::{MonthOfYear, Percent, RunTime};
use crate::schedule::{Expansion, Level, Plan, Situation, expand};

/// What is wrong with a panel as it was found.
#[derive(Debug, Clone, PartialEq)]
pub enum PanelFinding {
    /// Day and month are right and the weekday is not: the year is wrong. The nearest year in
    /// which it fits.
    WrongYear {
        /// The weekday shown.
        shows: Weekday,
        /// The year that it believes in, if one within fourteen fits.
        believes: Option<i32>,
    },
    /// The date is another.
    WrongDate {
        /// The date shown.
        shows: NaiveDate,
    },
    /// An hour off: daylight saving.
    HourOff {
        /// Minutes ahead, negative behind.
        ahead: i64,
    },
    /// Twelve hours off: AM for PM.
    HalfDayOff,
    /// Off by something else.
    ClockOff {
        /// Minutes ahead, negative behind.
        ahead: i64,
    },
    /// The panel is off.
    LeftOff,
    /// The sensor switch is at bypass.
    SensorBypassed,
    /// A second start doubles the water.
    SecondStart {
        /// The program.
        letter: ProgramLetter,
        /// The start too many.
        start: StartTime,
        /// Water a week that it costs, m³, where areas are known.
        volume_m3: f64,
    },
    /// A program that nobody uses still runs.
    LeftoverProgram {
        /// The program.
        letter: ProgramLetter,
    },
    /// A percent far from what the month calls for.
    LeftoverPercent {
        /// The program.
        letter: ProgramLetter,
        /// On the panel.
        found: Percent,
        /// Called for.
        called: f64,
        /// A month for which it would be right, if there is one.
        fits: Option<MonthOfYear>,
    },
    /// A station stands in two programs.
    InTwoPrograms {
        /// Its number.
        station: u8,
    },
    /// A program runs on into hours that are closed, or into its own next start.
    Overrun {
        /// The program.
        letter: ProgramLetter,
        /// When its last valve shuts.
        ends: NaiveDateTime,
    },
}

impl PanelFinding {
    /// Its code, as files and pages name it.
    #[must_use]
    pub const fn code(&self) -> &'static str {
        match self {
            Self::WrongYear { .. } => "wrong_year",
            Self::WrongDate { .. } => "wrong_date",
            Self::HourOff { .. } => "clock_hour_off",
            Self::HalfDayOff => "clock_half_day_off",
            Self::ClockOff { .. } => "clock_off",
            Self::LeftOff => "left_off",
            Self::SensorBypassed => "sensor_bypassed",
            Self::SecondStart { .. } => "found_second_start",
            Self::LeftoverProgram { .. } => "leftover_program",
            Self::LeftoverPercent { .. } => "leftover_percent",
            Self::InTwoPrograms { .. } => "found_in_two_programs",
            Self::Overrun { .. } => "overrun",
        }
    }

    /// Whether the panel's clock is wrong, so that days and hours are not those it is set to.
    #[must_use]
    pub const fn is_clock(&self) -> bool {
        matches!(
            self,
            Self::WrongYear { .. }
                | Self::WrongDate { .. }
                | Self::HourOff { .. }
                | Self::HalfDayOff
                | Self::ClockOff { .. }
        )
    }
}

/// Minutes by which a panel's clock may differ (common practice).
const CLOCK_GRACE_MINUTES: i64 = 5;

/// A percent this far from what is called for is left over from another season (common practice:
/// a month's step is seldom more).
const PERCENT_GRACE: f64 = 25.0;

/// What is wrong with a panel, in the panel's order. `budget` is that of the controller as it is
/// known, for the month's percent.
#[must_use]
pub fn panel_findings<Tz: TimeZone>(
    panel: &Panel,
    known: &Controller,
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
) -> Vec<PanelFinding> {
    let mut out = Vec::new();
    clock_findings(panel, &mut out);
    if panel.switch == Switch::Off {
        out.push(PanelFinding::LeftOff);
    }
    if panel.sensor == SensorSwitch::Bypassed {
        out.push(PanelFinding::SensorBypassed);
    }
    for station in panel.stations.iter().filter(|s| s.programs.len() > 1 && s.minutes > RunTime::ZERO) {
        out.push(PanelFinding::InTwoPrograms { station: station.number });
    }
    let controller = panel.as_controller(known);
    let (plan, week) = panel_week(panel, &controller, situation);
    for program in &panel.programs {
        program_findings(panel, program, known, budget, (&plan, &week), situation, &mut out);
    }
    out
}

fn clock_findings(panel: &Panel, out: &mut Vec<PanelFinding>) {
    let (seen, clock) = (panel.seen_at, panel.clock);
    let today = seen.date();
    let same_day = clock.date.day() == today.day() && clock.date.month() == today.month();
    if !same_day {
        out.push(PanelFinding::WrongDate { shows: clock.date });
    } else {
        let shows = clock.weekday.unwrap_or(clock.date.weekday());
        if shows != today.weekday() || clock.date.year() != today.year() {
            let fits = |y: i32| NaiveDate::from_ymd_opt(y, today.month(), today.day()).filter(|d| d.weekday() == shows);
            let shown_year = Some(clock.date.year()).filter(|y| *y != today.year() && fits(*y).is_some());
            let back = (1..=14).find_map(|n| fits(today.year() - n)).map(|d| d.year());
            out.push(PanelFinding::WrongYear { shows, believes: shown_year.or(back) });
        }
    }
    let shown = i64::from(clock.time.minute_of_day());
    let truth = i64::from(seen.time().signed_duration_since(chrono::NaiveTime::MIN).num_minutes() as i32);
    // The short way round the clock, so that five past midnight is near five to.
    let ahead = (shown - truth + 720).rem_euclid(1440) - 720;
    if ahead.abs() <= CLOCK_GRACE_MINUTES {
        return;
    }
    out.push(if (ahead.abs() - 60).abs() <= CLOCK_GRACE_MINUTES {
        PanelFinding::HourOff { ahead }
    } else if ahead.abs() >= 720 - CLOCK_GRACE_MINUTES {
        PanelFinding::HalfDayOff
    } else {
        PanelFinding::ClockOff { ahead }
    });
}

/// What the panel would run in the week after it was seen.
pub(super) fn panel_week<Tz: TimeZone>(
    panel: &Panel,
    controller: &Controller,
    situation: &Situation<'_, Tz>,
) -> (Plan, Expansion) {
    let plan = Plan::of(controller, None);
    let days = [panel.seen_at.date(), panel.seen_at.date() + TimeDelta::days(6)];
    let week = expand(controller, &plan, situation.zone, days, Level::Calendar);
    (plan, week)
}

fn program_findings<Tz: TimeZone>(
    panel: &Panel,
    program: &FoundProgram,
    known: &Controller,
    budget: Option<&YearBudget>,
    (plan, week): (&Plan, &Expansion),
    situation: &Situation<'_, Tz>,
    out: &mut Vec<PanelFinding>,
) {
    let letter = program.letter;
    let schedule = Schedule { days: program.days, starts: program.starts.clone(), ..Schedule::default() };
    if schedule.is_idle() {
        return;
    }
    let own: Vec<&FoundStation> =
        panel.stations.iter().filter(|s| s.programs.contains(&letter) && s.minutes > RunTime::ZERO).collect();
    let used = known.stations.iter().any(|s| s.runs_in(letter));
    if own.is_empty() || !used {
        out.push(PanelFinding::LeftoverProgram { letter });
    }
    let volume = |by: StartTime| {
        let runs = week.runs.iter().filter(|r| r.letter == letter && r.by == by);
        runs.filter_map(|r| plan.station(r.station).and_then(|s| s.volume_m3(r.length()))).sum()
    };
    if !own.is_empty() {
        for start in program.starts.iter().skip(1) {
            out.push(PanelFinding::SecondStart { letter, start: *start, volume_m3: volume(*start) });
        }
    }
    let month = MonthOfYear::ALL[panel.seen_at.month0() as usize];
    if let Some(group) = budget.and_then(|b| b.group(letter)).filter(|_| used && !own.is_empty()) {
        let called = group.month(month).percent_exact;
        let found = f64::from(program.percent.get());
        if (found - called).abs() > PERCENT_GRACE {
            let off = |m: &MonthOfYear| (group.month(*m).percent_exact - found).abs();
            let nearest = MonthOfYear::ALL.into_iter().min_by(|a, b| off(a).total_cmp(&off(b)));
            let fits = nearest.filter(|m| off(m) <= 10.0 && *m != month);
            out.push(PanelFinding::LeftoverPercent { letter, found: program.percent, called, fits });
        }
    }
    let into_closed = week
        .runs
        .iter()
        .filter(|r| r.letter == letter)
        .find(|r| situation.rules.first_forbidden(r.date, r.local_start, r.local_stop).is_some());
    if let Some(run) = into_closed {
        let same = week.runs.iter().filter(|r| r.letter == letter && r.date == run.date && r.by == run.by);
        let ends = same.map(|r| r.local_stop).max().unwrap_or(run.local_stop);
        out.push(PanelFinding::Overrun { letter, ends });
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::found::PanelClock;

    fn panel(seen: &str, date: &str, weekday: Option<Weekday>, time: &str) -> Panel {
        Panel {
            seen_at: NaiveDateTime::parse_from_str(seen, "%Y-%m-%d %H:%M").unwrap(),
            clock: PanelClock { date: date.parse().unwrap(), weekday, time: StartTime::read(time).unwrap() },
            switch: Switch::On,
            sensor: SensorSwitch::None,
            stations: Vec::new(),
            programs: Vec::new(),
            note: String::new(),
        }
    }

    fn clock(panel: &Panel) -> Vec<PanelFinding> {
        let mut out = Vec::new();
        clock_findings(panel, &mut out);
        out
    }

    /// 10 June 2026 is a Wednesday; in 2025 it was a Tuesday.
    #[test]
    fn a_weekday_that_does_not_fit_means_a_wrong_year() {
        let wrong = panel("2026-06-10 09:12", "2026-06-10", Some(Weekday::Tue), "09:12");
        assert_eq!(clock(&wrong), [PanelFinding::WrongYear { shows: Weekday::Tue, believes: Some(2025) }]);
        let shown = panel("2026-06-10 09:12", "2014-06-10", None, "09:12");
        assert_eq!(clock(&shown), [PanelFinding::WrongYear { shows: Weekday::Tue, believes: Some(2014) }]);
        assert_eq!(clock(&panel("2026-06-10 09:12", "2026-06-10", Some(Weekday::Wed), "09:15")), []);
        let other = panel("2026-06-10 09:12", "2026-06-09", None, "09:12");
        assert!(matches!(clock(&other)[..], [PanelFinding::WrongDate { .. }]));
    }

    #[test]
    fn an_hour_is_daylight_saving_and_twelve_are_am_for_pm() {
        let at = |time| clock(&panel("2026-06-10 09:12", "2026-06-10", None, time));
        assert_eq!(at("08:10"), [PanelFinding::HourOff { ahead: -62 }]);
        assert_eq!(at("10:12"), [PanelFinding::HourOff { ahead: 60 }]);
        assert_eq!(at("21:10"), [PanelFinding::HalfDayOff]);
        assert_eq!(at("09:40"), [PanelFinding::ClockOff { ahead: 28 }]);
        let midnight = panel("2026-06-10 00:02", "2026-06-10", None, "23:59");
        assert_eq!(clock(&midnight), []);
    }
}
