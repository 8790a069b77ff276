//! Seven days by twenty-four hours, every run to scale; forbidden hours and days hatched.

use chrono::{Datelike, NaiveDate, NaiveDateTime, NaiveTime, TimeDelta};
use upland_core::controller::{ClockFace, ProgramLetter};
use upland_core::place::Bound;
use upland_core::schedule::{Expansion, Finding, Problem, Run, Severity};

use super::week_label;
use crate::show::{Fixed, clock, date_short, day_short, panel_start, panel_time};
use crate::words::Words;

const LEFT: f64 = 92.0;
const HOUR: f64 = 30.6;
const TOP: f64 = 36.0;
const ROW: f64 = 42.0;
const RIGHT: f64 = LEFT + 24.0 * HOUR;

/// A run, or a part of one that midnight cuts.
#[derive(Debug, Clone)]
pub(crate) struct RunBar {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) width: Fixed,
    pub(crate) letter: char,
    pub(crate) bad: bool,
}

/// A dotted line while water soaks in.
#[derive(Debug, Clone)]
pub(crate) struct Soak {
    pub(crate) from: Fixed,
    pub(crate) to: Fixed,
    pub(crate) y: Fixed,
}

#[derive(Debug, Clone)]
pub(crate) struct Label {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) text: String,
    pub(crate) anchor: &'static str,
    pub(crate) bad: bool,
}

/// Sunrise or sunset.
#[derive(Debug, Clone)]
pub(crate) struct SunMark {
    pub(crate) x: Fixed,
    pub(crate) text_x: Fixed,
    pub(crate) text: String,
}

/// The number of a finding where it shows.
#[derive(Debug, Clone)]
pub(crate) struct KeyMark {
    pub(crate) x: f64,
    pub(crate) y: f64,
    pub(crate) kind: &'static str,
    pub(crate) number: usize,
}

impl KeyMark {
    pub(crate) fn shape(&self) -> String {
        let (x, y) = (Fixed(self.x), Fixed(self.y - 10.5));
        format!("M{x} {y}l10.5 10.5-10.5 10.5-10.5-10.5z")
    }

    pub(crate) fn at(&self, dx: i32, dy: i32) -> [Fixed; 2] {
        [Fixed(self.x + f64::from(dx)), Fixed(self.y + f64::from(dy))]
    }
}

/// A hatched stretch.
#[derive(Debug, Clone)]
pub(crate) struct Closed {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) width: Fixed,
    pub(crate) height: Fixed,
    pub(crate) text: String,
    pub(crate) text_x: Fixed,
    pub(crate) text_y: Fixed,
}

#[derive(Debug, Clone)]
pub(crate) struct DayRow {
    pub(crate) y: Fixed,
    pub(crate) name_y: Fixed,
    pub(crate) date_y: Fixed,
    pub(crate) name: String,
    pub(crate) date: String,
    pub(crate) water: String,
    pub(crate) today: bool,
}

/// A start that can be dragged.
#[derive(Debug, Clone)]
pub(crate) struct StartHandle {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) width: Fixed,
    pub(crate) letter: char,
    /// As the panel shows it.
    pub(crate) shown: String,
    pub(crate) start: String,
    pub(crate) minutes: u16,
    pub(crate) day: String,
    pub(crate) first: bool,
    pub(crate) in_hand: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct WeekPlate {
    pub(crate) height: Fixed,
    pub(crate) rows: Vec<DayRow>,
    pub(crate) hours: Vec<(Fixed, String)>,
    pub(crate) closed: Vec<Closed>,
    pub(crate) runs: Vec<RunBar>,
    pub(crate) soaks: Vec<Soak>,
    pub(crate) ghosts: Vec<RunBar>,
    pub(crate) labels: Vec<Label>,
    pub(crate) keys: Vec<KeyMark>,
    pub(crate) handles: Vec<StartHandle>,
    pub(crate) sunrise: Option<SunMark>,
    pub(crate) sunset: Option<SunMark>,
    pub(crate) now: Option<Label>,
    pub(crate) left: Fixed,
    pub(crate) right: Fixed,
    pub(crate) bottom: Fixed,
    pub(crate) describe: String,
    pub(crate) volume_unit: &'static str,
    /// Pixels of the drawing an hour, for dragging.
    pub(crate) hour_width: Fixed,
}

/// What a week is drawn from.
pub(crate) struct WeekPlateInput<'a> {
    pub(crate) first: NaiveDate,
    /// Local date and time now, and whether to draw it.
    pub(crate) now: NaiveDateTime,
    pub(crate) week: &'a Expansion,
    /// The same week at the year's highest percent.
    pub(crate) highest: &'a Expansion,
    pub(crate) day_volumes: [f64; 7],
    pub(crate) rules: &'a Bound,
    pub(crate) findings: &'a [Finding],
    pub(crate) sun: [Option<NaiveDateTime>; 2],
    pub(crate) in_hand: Option<ProgramLetter>,
    pub(crate) volume_unit: &'static str,
    /// How the panel shows the time.
    pub(crate) face: ClockFace,
    /// A number of m³, as text in the user's units.
    pub(crate) volume: &'a dyn Fn(f64) -> String,
}

fn x_of(time: NaiveDateTime) -> f64 {
    LEFT + (time - time.date().and_time(NaiveTime::MIN)).num_seconds() as f64 / 3600.0 * HOUR
}

/// The row of a date, if it is in the week.
fn row_of(first: NaiveDate, date: NaiveDate) -> Option<f64> {
    let day = (date - first).num_days();
    (0..7).contains(&day).then_some(TOP + day as f64 * ROW)
}

/// A stretch of time cut at midnight: row, from and to.
fn pieces(first: NaiveDate, start: NaiveDateTime, stop: NaiveDateTime) -> Vec<(f64, f64, f64)> {
    let mut out = Vec::new();
    let mut from = start;
    while from < stop {
        let midnight = (from.date() + TimeDelta::days(1)).and_time(NaiveTime::MIN);
        let to = stop.min(midnight);
        if let Some(y) = row_of(first, from.date()) {
            let end = if to == midnight { RIGHT } else { x_of(to) };
            out.push((y, x_of(from), end));
        }
        from = to;
    }
    out
}

impl WeekPlate {
    pub(crate) fn draw(input: &WeekPlateInput<'_>) -> Self {
        let w = Words;
        let first = input.first;
        let bottom = TOP + 7.0 * ROW;
        let mut plate = Self {
            height: Fixed(bottom + 1.0),
            rows: rows(input),
            hours: (0..8).map(|h| (Fixed(LEFT + f64::from(h) * 3.0 * HOUR), format!("{:02}:00", h * 3))).collect(),
            closed: closed(first, input.rules),
            runs: Vec::new(),
            soaks: Vec::new(),
            ghosts: Vec::new(),
            labels: Vec::new(),
            keys: Vec::new(),
            handles: Vec::new(),
            sunrise: input.sun[0].map(|t| sun_mark(t, "week-sunrise", 12.0)),
            sunset: input.sun[1].map(|t| sun_mark(t, "week-sunset", -6.0)),
            now: row_of(first, input.now.date()).map(|y| Label {
                x: Fixed(x_of(input.now)),
                y: Fixed(y),
                text: w.t("week-now"),
                anchor: "end",
                bad: false,
            }),
            left: Fixed(LEFT),
            right: Fixed(RIGHT),
            bottom: Fixed(bottom),
            describe: w.t("week-describe"),
            volume_unit: input.volume_unit,
            hour_width: Fixed(HOUR),
        };
        plate.draw_runs(input);
        plate.draw_starts(input);
        plate.draw_keys(input);
        plate
    }

    fn draw_runs(&mut self, input: &WeekPlateInput<'_>) {
        let extra = |letter, by| {
            input
                .findings
                .iter()
                .any(|f| f.letter == Some(letter) && matches!(f.problem, Problem::SecondStart { start } if start == by))
        };
        for pair in input.week.runs.windows(2) {
            let same = pair[0].letter == pair[1].letter && pair[0].date == pair[1].date && pair[0].by == pair[1].by;
            if same && pair[1].local_start - pair[0].local_stop() > TimeDelta::minutes(2) {
                for (y, from, to) in pieces(input.first, pair[0].local_stop(), pair[1].local_start) {
                    self.soaks.push(Soak { from: Fixed(from + 0.6), to: Fixed(to - 0.6), y: Fixed(y + 27.5) });
                }
            }
        }
        for run in &input.week.runs {
            for (y, from, to) in pieces(input.first, run.local_start, run.local_stop()) {
                self.runs.push(RunBar {
                    x: Fixed(from),
                    y: Fixed(y + 18.0),
                    width: Fixed((to - from - 0.6).max(1.4)),
                    letter: run.letter.get(),
                    bad: extra(run.letter, run.by),
                });
            }
        }
    }

    /// Labels, handles and the dashed box of the year's highest percent, a start at a time.
    fn draw_starts(&mut self, input: &WeekPlateInput<'_>) {
        let mut ends = [f64::MIN; 7];
        let mut seen: Vec<(ProgramLetter, u16)> = Vec::new();
        for start in &input.week.starts {
            let own = |e: &'_ Expansion| {
                let runs =
                    e.runs.iter().filter(|r| r.letter == start.letter && r.date == start.date && r.by == start.by);
                runs.map(|r| r.local_stop()).max()
            };
            let runs = || {
                input.week.runs.iter().filter(|r| r.letter == start.letter && r.date == start.date && r.by == start.by)
            };
            let Some(begins) = runs().map(|r| r.local_start).min() else { continue };
            let Some(ends_now) = own(input.week) else { continue };
            if let Some(ends_highest) = own(input.highest).filter(|h| *h - ends_now > TimeDelta::minutes(2)) {
                for (y, from, to) in pieces(input.first, ends_now, ends_highest) {
                    let (x, y, width) = (Fixed(from + 0.6), Fixed(y + 18.0), Fixed((to - from - 1.2).max(1.0)));
                    self.ghosts.push(RunBar { x, y, width, letter: start.letter.get(), bad: false });
                }
            }
            let Some(y) = row_of(input.first, begins.date()) else { continue };
            let x = x_of(begins);
            let row = ((y - TOP) / ROW).round() as usize;
            let bad = input.findings.iter().any(|f| {
                f.letter == Some(start.letter)
                    && matches!(f.problem, Problem::SecondStart { start: extra } if extra == start.by)
            });
            let text = format!("{} {}", start.letter.get(), panel_time(begins.time(), input.face));
            let is_own = |r: &&Run| (r.letter, r.by) == (start.letter, start.by);
            let others = input.week.runs.iter().filter(|r| r.date == start.date && !is_own(r));
            let others: Vec<f64> = others.map(|r| x_of(r.local_start)).collect();
            if let Some((at, down)) = week_label::place(x, x_of(ends_now), ends[row], &others) {
                ends[row] = week_label::end_of(at);
                self.labels.push(Label { x: Fixed(at), y: Fixed(y + down), text, anchor: "start", bad });
            }
            let id = (start.letter, start.by.minute_of_day());
            let first = !seen.contains(&id);
            seen.push(id);
            self.handles.push(StartHandle {
                x: Fixed(x),
                y: Fixed(row_of(input.first, begins.date()).unwrap_or(TOP) + 2.0),
                width: Fixed((x_of(ends_now) - x).clamp(44.0, RIGHT - LEFT)),
                letter: start.letter.get(),
                start: start.by.to_string(),
                shown: panel_start(start.by, input.face),
                minutes: start.by.minute_of_day(),
                day: day_short(start.date.weekday()),
                first,
                in_hand: input.in_hand == Some(start.letter),
            });
        }
    }

    fn draw_keys(&mut self, input: &WeekPlateInput<'_>) {
        for (number, finding) in (1..).zip(input.findings) {
            for mark in &finding.marks {
                let Some(y) = row_of(input.first, mark.at.date()) else { continue };
                let before = finding.severity == Severity::Fault;
                let x = x_of(mark.at) + if before { -16.0 } else { 14.0 };
                let x = x.clamp(LEFT + 11.0, RIGHT - 11.0);
                let y = y + 27.5;
                // Keys that would lie on one another are shown once; the list names them all.
                if self.keys.iter().any(|k| (k.x - x).abs() < 20.0 && (k.y - y).abs() < 1.0) {
                    continue;
                }
                self.keys.push(KeyMark { x, y, kind: severity_word(finding.severity), number });
            }
        }
    }
}

pub(crate) const fn severity_word(severity: Severity) -> &'static str {
    match severity {
        Severity::Fault => "fault",
        Severity::Rule => "rule",
        Severity::Note => "note",
    }
}

fn sun_mark(time: NaiveDateTime, key: &str, dx: f64) -> SunMark {
    let x = x_of(time);
    SunMark { x: Fixed(x), text_x: Fixed(x + dx), text: Words.t1(key, clock(time)) }
}

fn rows(input: &WeekPlateInput<'_>) -> Vec<DayRow> {
    (0..7u32)
        .map(|day| {
            let date = input.first + TimeDelta::days(i64::from(day));
            let y = TOP + f64::from(day) * ROW;
            let volume = input.day_volumes[day as usize];
            DayRow {
                y: Fixed(y),
                name_y: Fixed(y + 18.0),
                date_y: Fixed(y + 35.0),
                name: day_short(date.weekday()),
                date: date_short(date),
                water: if volume > 0.0 { (input.volume)(volume) } else { "·".to_owned() },
                today: date == input.now.date(),
            }
        })
        .collect()
}

fn closed(first: NaiveDate, rules: &Bound) -> Vec<Closed> {
    let w = Words;
    let mut out = Vec::new();
    let date = |day: i64| first + TimeDelta::days(day);
    let open = |day: i64| rules.allows_day(date(day));
    let mut hours: Vec<(u16, u16)> = (0..7).flat_map(|day| rules.closed_minutes(date(day))).collect();
    hours.sort_unstable();
    hours.dedup();
    for (from, to) in &hours {
        let shut = |day: i64| open(day) && rules.closed_minutes(date(day)).any(|hours| hours == (*from, *to));
        let (x, end) = (LEFT + f64::from(*from) / 60.0 * HOUR, LEFT + f64::from(*to) / 60.0 * HOUR);
        let mut day = 0;
        while day < 7 {
            let length = (day..7).take_while(|d| shut(*d)).count() as i64;
            if length > 0 {
                let y = TOP + day as f64 * ROW;
                let height = length as f64 * ROW;
                let words = w.t2("week-closed-hours", ("from", hour(*from)), ("to", hour(*to)));
                out.push(Closed {
                    x: Fixed(x),
                    y: Fixed(y),
                    width: Fixed(end - x),
                    height: Fixed(height),
                    text: if end - x > 175.0 && length >= 2 { words } else { String::new() },
                    text_x: Fixed(f64::midpoint(x, end)),
                    text_y: Fixed(y + ROW * (length as f64 / 2.0).floor() + 25.0),
                });
            }
            day += length.max(1);
        }
    }
    for day in (0..7).filter(|d| !open(*d)) {
        let y = TOP + day as f64 * ROW;
        out.push(Closed {
            x: Fixed(LEFT),
            y: Fixed(y),
            width: Fixed(RIGHT - LEFT),
            height: Fixed(ROW),
            text: w.t1("week-closed-day", crate::show::day_long((first + TimeDelta::days(day)).weekday())),
            text_x: Fixed(520.0),
            text_y: Fixed(y + 19.0),
        });
    }
    out
}

fn hour(minute: u16) -> String {
    format!("{:02}:{:02}", minute / 60, minute % 60)
}
