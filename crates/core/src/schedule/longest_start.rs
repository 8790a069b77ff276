//! How long one start of a program takes.

use chrono::{Datelike, NaiveDate, TimeDelta, TimeZone};

use super::plan::{Level, Plan};
use super::situation::Situation;
use crate::controller::{Controller, DayMode, Days, ProgramLetter, Schedule, StartTime};
use crate::quantity::MonthOfYear;

/// The longest that one start of a program takes, alone on the line, in any month, minutes.
///
/// At the year's highest percent, and with cycles at every other too: a run that is just short enough for one
/// cycle keeps the line to itself, where a longer one in two cycles lets others into its soak.
pub(super) fn longest_start<Tz: TimeZone>(
    situation: &Situation<'_, Tz>,
    controller: &Controller,
    plan: &Plan,
    letter: ProgramLetter,
) -> i64 {
    let mut alone = controller.clone();
    alone.programs.retain(|p| p.letter == letter);
    for program in &mut alone.programs {
        program.schedule = Schedule {
            days: DayMode::Weekdays(Days::ALL),
            never: Days::NONE,
            starts: StartTime::new(0).into_iter().collect(),
            split: program.schedule.split,
        };
    }
    let longest = |controller: &Controller, date: NaiveDate, level: Level| {
        let found = super::runs::expand(controller, plan, situation.zone, [date, date], level);
        // Counted by the clock that does not change, up to whole minutes.
        found.starts.iter().map(|s| (s.ended - s.began + TimeDelta::seconds(59)).num_minutes()).max().unwrap_or(0)
    };
    let mut most = longest(&alone, situation.first, Level::Highest);
    if alone.stations.iter().any(|s| s.runs_in(letter) && s.cycle.is_some()) {
        alone.temporaries.clear();
        let mut seen = Vec::new();
        for month in MonthOfYear::ALL {
            let percent = plan.percent_of_month(letter, month);
            let middle = NaiveDate::from_ymd_opt(situation.first.year(), u32::from(month.number()), 15);
            if let Some(date) = middle.filter(|_| percent.is_some() && !seen.contains(&percent)) {
                seen.push(percent);
                most = most.max(longest(&alone, date, Level::Calendar));
            }
        }
    }
    most
}
