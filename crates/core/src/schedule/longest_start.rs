//! How long one start of a program takes.

use chrono::{TimeDelta, TimeZone};

use super::plan::{Level, Plan};
use super::situation::Situation;
use crate::controller::{Controller, DayMode, Days, ProgramLetter, Schedule, StartTime};

/// The longest that one start of a program takes, alone on the line, at the year's highest
/// percent, minutes.
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
    let day = [situation.first, situation.first];
    let found = super::runs::expand(&alone, plan, situation.zone, day, Level::Highest);
    // Counted by the clock that does not change, up to whole minutes.
    found.starts.iter().map(|s| (s.ended - s.began + TimeDelta::seconds(59)).num_minutes()).max().unwrap_or(0)
}
