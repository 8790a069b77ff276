//! A repair as data: one action, and the controller with it made.

use crate::controller::{Controller, DayMode, Days, MonthDial, ProgramLetter, Schedule, StartTime};
use crate::landscape::CycleSoak;
use crate::quantity::RunTime;

/// A change that mends a finding.
#[derive(Debug, Clone, PartialEq)]
pub enum Repair {
    /// Takes a start out.
    RemoveStart(ProgramLetter, StartTime),
    /// Moves a start.
    MoveStart {
        /// The program.
        letter: ProgramLetter,
        /// From.
        from: StartTime,
        /// To.
        to: StartTime,
    },
    /// Other days.
    SetDays(ProgramLetter, DayMode),
    /// Weekdays on which the program never runs.
    NeverOn(ProgramLetter, Days),
    /// Cycle and soak of a station.
    SetCycle(u8, CycleSoak),
    /// A watering divided over several starts.
    Divide(ProgramLetter, Vec<StartTime>),
    /// One start, minutes whole.
    WholeStart(ProgramLetter, StartTime),
    /// Neither days nor starts.
    ClearSchedule(ProgramLetter),
    /// Days and starts as the tool proposes them.
    TakeProposal(ProgramLetter, Schedule),
    /// Minutes as they are worked out.
    WorkOutMinutes(u8, RunTime),
    /// A station leaves its second program.
    LeaveProgram(u8, ProgramLetter),
    /// Minutes for this many waterings a week.
    MinutesFor(ProgramLetter, u8),
    /// These days, and minutes for as many waterings a week.
    WaterMoreOften(ProgramLetter, Days),
    /// Rain is no longer taken off by month: a sensor counts it.
    LeaveRainToSensor(ProgramLetter),
    /// No month's percent by hand.
    FreePercent(ProgramLetter),
}

impl Repair {
    /// The controller with the repair made; nothing when it cannot be made there.
    #[must_use]
    pub fn applied(&self, controller: &Controller) -> Option<Controller> {
        let mut c = controller.clone();
        match self {
            Self::RemoveStart(letter, start) => c.program_mut(*letter)?.schedule.starts.retain(|s| s != start),
            Self::MoveStart { letter, from, to } => {
                let starts = &mut c.program_mut(*letter)?.schedule.starts;
                *starts.iter_mut().find(|s| *s == from)? = *to;
                starts.sort_unstable();
            }
            Self::SetDays(letter, days) => c.program_mut(*letter)?.schedule.days = *days,
            Self::NeverOn(letter, days) => {
                let never = &mut c.program_mut(*letter)?.schedule.never;
                *never = days.iter().fold(*never, Days::with);
            }
            Self::SetCycle(station, cycle) => c.station_mut(*station)?.cycle = Some(*cycle),
            Self::Divide(letter, starts) => {
                let schedule = &mut c.program_mut(*letter)?.schedule;
                schedule.split = u8::try_from(starts.len()).ok()?;
                schedule.starts.clone_from(starts);
            }
            Self::WholeStart(letter, start) => {
                let schedule = &mut c.program_mut(*letter)?.schedule;
                schedule.split = 1;
                schedule.starts = vec![*start];
            }
            Self::ClearSchedule(letter) => {
                c.program_mut(*letter)?.schedule = Schedule::default();
            }
            Self::TakeProposal(letter, schedule) => c.program_mut(*letter)?.take_schedule(schedule.clone()),
            Self::WorkOutMinutes(station, _) => c.station_mut(*station)?.minutes = None,
            Self::LeaveProgram(station, letter) => {
                let station = c.station_mut(*station)?;
                (station.also == Some(*letter)).then_some(())?;
                station.also = None;
            }
            Self::MinutesFor(letter, waterings) => {
                c.program_mut(*letter)?.waterings_per_week = Some(*waterings);
                for station in c.stations.iter_mut().filter(|s| s.program == *letter) {
                    station.minutes = None;
                }
            }
            Self::WaterMoreOften(letter, days) => {
                let program = c.program_mut(*letter)?;
                program.schedule.days = DayMode::Weekdays(*days);
                program.waterings_per_week = Some(days.count());
            }
            Self::LeaveRainToSensor(letter) => c.program_mut(*letter)?.count_rain = false,
            Self::FreePercent(letter) => {
                for month in &mut c.program_mut(*letter)?.months {
                    if matches!(month.dial, MonthDial::Set(_)) {
                        month.dial = MonthDial::Computed;
                    }
                }
            }
        }
        (c.check().is_ok() && c != *controller).then_some(c)
    }
}
