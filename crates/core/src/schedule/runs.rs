//! What a controller does, dated: every run of every station.

use std::borrow::Cow;

use chrono::{DateTime, LocalResult, NaiveDate, NaiveDateTime, Offset, TimeDelta, TimeZone, Utc};

use super::plan::{Level, Plan};
use super::valve_line::{Due, Opening, ValveLine};
use crate::controller::{Controller, ProgramLetter, StartTime, Temporary, TemporaryKind};
use crate::quantity::{RunTime, limit};

/// One opening of one valve.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Run {
    /// When the valve opens, by the clock of the place.
    pub local_start: NaiveDateTime,
    /// How long it is open.
    pub length: RunTime,
    /// By how many seconds the clock of the place is ahead of UTC when the valve opens and when it shuts.
    offsets_s: [i32; 2],
    /// The local date on which its program started.
    pub date: NaiveDate,
    /// The program.
    pub letter: ProgramLetter,
    /// The start that it belongs to.
    pub by: StartTime,
    /// The station.
    pub station: u8,
    /// Which cycle of the station's run, from 1.
    pub cycle: u8,
    /// How many cycles there are.
    pub of_cycles: u8,
}

impl Run {
    fn local_after(&self, seconds: i32) -> NaiveDateTime {
        self.local_start + TimeDelta::seconds(i64::from(self.length.seconds()) + i64::from(seconds))
    }

    /// When the valve shuts, by the clock of the place.
    #[must_use]
    pub fn local_stop(&self) -> NaiveDateTime {
        self.local_after(self.offsets_s[1] - self.offsets_s[0])
    }

    /// When the valve opens.
    #[must_use]
    pub fn start(&self) -> DateTime<Utc> {
        (self.local_start - TimeDelta::seconds(i64::from(self.offsets_s[0]))).and_utc()
    }

    /// When it shuts.
    #[must_use]
    pub fn stop(&self) -> DateTime<Utc> {
        self.local_after(-self.offsets_s[0]).and_utc()
    }
}

/// One start of one program.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Began {
    /// The local date of the start.
    pub date: NaiveDate,
    /// The program.
    pub letter: ProgramLetter,
    /// The start on the panel.
    pub by: StartTime,
    /// When it should have begun.
    pub planned: DateTime<Utc>,
    /// When it began.
    pub began: DateTime<Utc>,
    /// When its last valve shut.
    pub ended: DateTime<Utc>,
    /// The program that it waited for.
    pub waited_for: Option<ProgramLetter>,
    /// Where its runs begin in [`Expansion::runs`].
    first_run: usize,
    /// How many they are.
    runs: usize,
}

impl Began {
    /// How long it waited.
    #[must_use]
    pub fn waited(&self) -> TimeDelta {
        self.began - self.planned
    }
}

/// Runs and starts over some days, in the order of their beginning.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Expansion {
    /// The runs.
    pub runs: Vec<Run>,
    /// The starts.
    pub starts: Vec<Began>,
    /// The first date that asks for more openings of valves than [`limit::OPENINGS_A_DAY`]: what
    /// goes beyond is left out.
    pub beyond_limit: Option<NaiveDate>,
}

impl Expansion {
    /// The runs of one start.
    #[must_use]
    pub fn runs_of(&self, start: &Began) -> &[Run] {
        self.runs.get(start.first_run..start.first_run + start.runs).unwrap_or_default()
    }
}

/// The instant of a local time. A time that the clocks skip becomes the next minute there is; one
/// that they show twice means the first pass.
#[must_use]
pub fn resolve<Tz: TimeZone>(zone: &Tz, local: NaiveDateTime) -> DateTime<Utc> {
    // No zone ever skipped more than a day.
    for minutes in 0..=1440 {
        match zone.from_local_datetime(&(local + TimeDelta::minutes(minutes))) {
            LocalResult::Single(at) | LocalResult::Ambiguous(at, _) => return at.with_timezone(&Utc),
            LocalResult::None => {}
        }
    }
    local.and_utc()
}

/// The clock of a zone through a watering: asking a zone for its time is slow, so one that stays the same is asked
/// for twice and not for every run.
struct LocalClock<'a, Tz> {
    zone: &'a Tz,
    began: DateTime<Utc>,
    /// When it began by the clock of the place.
    local_began: NaiveDateTime,
    /// By how many seconds the clock is ahead of UTC when it begins.
    offset_s: i32,
    /// Whether it is so all the time.
    steady: bool,
}

impl<'a, Tz: TimeZone> LocalClock<'a, Tz> {
    fn of(zone: &'a Tz, began: DateTime<Utc>, ended: DateTime<Utc>) -> Self {
        let [first, last] = [began, ended].map(|at| offset_s(zone, at));
        // No zone changes its clocks and back within a day.
        let steady = first == last && ended - began < TimeDelta::days(1);
        Self { zone, began, local_began: began.with_timezone(zone).naive_local(), offset_s: first, steady }
    }

    /// When a valve opens by the clock of the place, and the offsets there when it opens and when it shuts.
    fn at(&self, opening: &Opening) -> (NaiveDateTime, [i32; 2]) {
        if self.steady {
            return (self.local_began + opening.opens, [self.offset_s; 2]);
        }
        let offsets_s = [opening.opens, opening.shuts()].map(|after| offset_s(self.zone, self.began + after));
        let turned = TimeDelta::seconds(i64::from(offsets_s[0] - self.offset_s));
        (self.local_began + (opening.opens + turned), offsets_s)
    }
}

/// By how many seconds the clock of a zone is ahead of UTC.
fn offset_s<Tz: TimeZone>(zone: &Tz, at: DateTime<Utc>) -> i32 {
    zone.offset_from_utc_datetime(&at.naive_utc()).fix().local_minus_utc()
}

/// The controller on its usual days and starts.
fn without_grow_in(mut controller: Cow<'_, Controller>) -> Cow<'_, Controller> {
    let grows_in = |t: &Temporary| matches!(t.kind, TemporaryKind::GrowIn { .. });
    if controller.temporaries.iter().any(grows_in) {
        controller.to_mut().temporaries.retain(|t| !grows_in(t));
    }
    controller
}

/// What a controller runs from one local date to another, both included.
///
/// The percent comes first, then the run-time step, to the nearest, halves up; then cycles. A run
/// belongs to the date on which its program started. What stops watering for a while (off, rain
/// delay) drops runs; rules of the place, sensors and water windows of the panel do not: those are found.
#[must_use]
pub fn expand<Tz: TimeZone>(
    controller: &Controller,
    plan: &Plan,
    zone: &Tz,
    [from, to]: [NaiveDate; 2],
    level: Level,
) -> Expansion {
    let mut out = Expansion::default();
    // What is set for a while is none of the year's highest.
    let usual = Cow::Borrowed(controller);
    let controller = &*if level == Level::Highest { without_grow_in(usual) } else { usual };
    // The day before may still be running into the first one.
    let mut planned = Vec::new();
    let mut date = from - TimeDelta::days(1);
    while date <= to {
        let stopped =
            level == Level::Calendar && controller.temporaries.iter().any(|t| t.stops_watering() && t.holds_on(date));
        if !stopped {
            for program in controller.programs.iter().filter(|p| controller.waters_on(p, date)) {
                for by in &controller.schedule_on(program, date).starts {
                    planned.push((resolve(zone, date.and_time(by.time())), program, *by, date));
                }
            }
        }
        date += TimeDelta::days(1);
    }
    planned.sort_by_key(|(at, program, ..)| (*at, program.letter));
    let mut line = ValveLine::of(controller, plan);
    let mut day = (from, 0);
    for (at, program, by, date) in planned {
        let Some(percent) = plan.percent_on(controller, program.letter, date, level) else { continue };
        if day.0 != date {
            day = (date, 0);
        }
        let Some(turn) = line.take(Due { at, letter: program.letter, percent }) else { continue };
        day.1 += turn.openings.len();
        if day.1 > limit::OPENINGS_A_DAY {
            if date >= from {
                out.beyond_limit.get_or_insert(date);
            }
            continue;
        }
        if date < from {
            continue;
        }
        let local = LocalClock::of(zone, turn.began, turn.ended);
        out.starts.push(Began {
            date,
            letter: program.letter,
            by,
            planned: at,
            began: turn.began,
            ended: turn.ended,
            waited_for: turn.waited_for,
            first_run: out.runs.len(),
            runs: turn.openings.len(),
        });
        out.runs.extend(turn.openings.iter().map(|o| {
            let (local_start, offsets_s) = local.at(o);
            Run {
                local_start,
                length: o.length,
                offsets_s,
                date,
                letter: program.letter,
                by,
                station: o.station,
                cycle: o.cycle,
                of_cycles: o.of_cycles,
            }
        }));
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::{DayMode, Days, Preset, Schedule, Station};
    use crate::landscape::{CycleSoak, Plant, SprinklerType};
    use chrono::FixedOffset;

    fn min(m: u32) -> RunTime {
        RunTime::from_seconds(m * 60)
    }

    fn controller(minutes: &[u32], starts: &[&str]) -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
        c.stations = (1u8..)
            .zip(minutes)
            .map(|(n, m)| Station {
                minutes: Some(min(*m)),
                ..Station::plain(n, &format!("Station {n}"), Plant::CoolTurf, SprinklerType::Spray)
            })
            .collect();
        c.programs[0].schedule = Schedule {
            days: DayMode::Weekdays(Days::ALL),
            starts: starts.iter().map(|s| StartTime::read(s).unwrap()).collect(),
            ..Schedule::default()
        };
        c
    }

    fn runs_of(c: &Controller, day: u32) -> Vec<(u8, String, String)> {
        let date = NaiveDate::from_ymd_opt(2026, 6, day).unwrap();
        let plan = Plan::of(c, None);
        let found = expand(c, &plan, &FixedOffset::east_opt(0).unwrap(), [date, date], Level::Calendar);
        let clock = |t: NaiveDateTime| t.format("%H:%M").to_string();
        found.runs.iter().map(|r| (r.station, clock(r.local_start), clock(r.local_stop()))).collect()
    }

    fn line(station: u8, from: &str, to: &str) -> (u8, String, String) {
        (station, from.to_owned(), to.to_owned())
    }

    #[test]
    fn one_start_runs_every_station_one_after_another() {
        let c = controller(&[10, 0, 5], &["04:30"]);
        assert_eq!(runs_of(&c, 10), [line(1, "04:30", "04:40"), line(3, "04:40", "04:45")]);
    }

    /// Worked by hand: station 1 runs 8 + 7 + 7 with 45 minutes of rest, station 2 fills the first.
    #[test]
    fn another_station_runs_while_one_soaks_in() {
        let mut c = controller(&[22, 30], &["04:30"]);
        c.stations[0].cycle = Some(CycleSoak { cycle: min(8), soak: min(45) });
        assert_eq!(
            runs_of(&c, 10),
            [
                line(1, "04:30", "04:38"),
                line(2, "04:38", "05:08"),
                line(1, "05:23", "05:30"),
                line(1, "06:15", "06:22")
            ]
        );
    }

    #[test]
    fn a_second_start_waits_for_the_first_and_a_run_may_come_from_yesterday() {
        let c = controller(&[60], &["23:30", "23:45"]);
        assert_eq!(runs_of(&c, 10), [line(1, "23:30", "00:30"), line(1, "00:30", "01:30")]);
        let late = controller(&[60], &["00:15", "23:45"]);
        assert_eq!(runs_of(&late, 10)[0], line(1, "00:45", "01:45"));
    }

    /// Twelve stations of ten hours in the shortest cycles, started five times a day.
    #[test]
    fn what_no_panel_means_is_refused_and_never_expanded_whole() {
        let mut c = controller(&[600; 12], &["04:30", "05:00", "06:00", "07:00", "08:00"]);
        c.capability = Preset::Fine.capability();
        for station in &mut c.stations {
            station.cycle = Some(CycleSoak { cycle: RunTime::from_seconds(30), soak: min(1) });
        }
        assert!(c.check().unwrap_err().to_string().contains("100 cycles"), "{:?}", c.check());
        for station in &mut c.stations {
            station.cycle = Some(CycleSoak { cycle: min(4), soak: min(1) });
        }
        let first = NaiveDate::from_ymd_opt(2026, 6, 10).unwrap();
        let utc = FixedOffset::east_opt(0).unwrap();
        let plan = Plan::of(&c, None);
        let found = expand(&c, &plan, &utc, [first, first + TimeDelta::days(6)], Level::Calendar);
        assert_eq!(found.beyond_limit, Some(first));
        // Twelve stations of 100 cycles: the fifth start goes over 5,000.
        assert!(found.runs.len() <= 7 * limit::OPENINGS_A_DAY);
        assert_eq!(found.starts.iter().map(|s| found.runs_of(s).len()).sum::<usize>(), found.runs.len());
    }

    #[test]
    fn a_pause_stands_between_stations_and_not_after_the_last() {
        let mut c = controller(&[10, 10], &["04:30", "04:45"]);
        c.station_delay = RunTime::from_seconds(120);
        assert_eq!(runs_of(&c, 10)[1], line(2, "04:42", "04:52"));
        assert_eq!(runs_of(&c, 10)[2], line(1, "04:52", "05:02"));
    }
}
