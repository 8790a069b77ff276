//! One start of one program, station by station, and what the week gives each.

use chrono::{NaiveDateTime, TimeDelta, Timelike};
use upland_core::controller::{Controller, ProgramLetter};
use upland_core::schedule::{Expansion, Plan};

use crate::show::{Fixed, number, panel_time};
use crate::words::Words;

const LEFT: f64 = 128.0;
const WIDTH: f64 = 764.0;
const ROW: f64 = 27.0;

/// A bar of the lens.
#[derive(Debug, Clone)]
pub(crate) struct LensBar {
    pub(crate) x: Fixed,
    pub(crate) width: Fixed,
    pub(crate) text: String,
    pub(crate) text_x: Fixed,
}

/// A station's line of the lens.
#[derive(Debug, Clone)]
pub(crate) struct StationLine {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) bar_y: Fixed,
    pub(crate) text_y: Fixed,
    pub(crate) end_y: Fixed,
    pub(crate) bars: Vec<LensBar>,
    /// Soaks: from, to, and words where there is room.
    pub(crate) soaks: Vec<(Fixed, Fixed, Fixed, String)>,
    pub(crate) soak_y: Fixed,
}

#[derive(Debug, Clone)]
pub(crate) struct Lens {
    pub(crate) title: String,
    pub(crate) sub: String,
    pub(crate) letter: char,
    pub(crate) height: Fixed,
    pub(crate) ticks: Vec<(Fixed, String)>,
    pub(crate) lines: Vec<StationLine>,
}

impl Lens {
    /// The first start of a program in the week; nothing when it does not run.
    pub(crate) fn of(c: &Controller, letter: ProgramLetter, plan: &Plan, week: &Expansion) -> Option<Self> {
        let w = Words;
        let start = week.starts.iter().find(|s| s.letter == letter)?;
        let runs: Vec<_> =
            week.runs.iter().filter(|r| r.letter == letter && r.date == start.date && r.by == start.by).collect();
        let (begin, end) = (runs.first()?.local_start, runs.iter().map(|r| r.local_stop()).max()?);
        let from = begin - TimeDelta::minutes(i64::from(begin.minute() % 30));
        let span = ((end - from).num_seconds() as f64).max(1800.0) * 1.02;
        let x = |t: NaiveDateTime| LEFT + (t - from).num_seconds() as f64 / span * WIDTH;
        let mut lines = Vec::new();
        for station in plan.of_program(letter) {
            let own: Vec<_> = runs.iter().filter(|r| r.station == station.number).collect();
            if own.is_empty() {
                continue;
            }
            let y = 20.0 + lines.len() as f64 * ROW;
            let bars = own
                .iter()
                .map(|r| {
                    let (a, b) = (x(r.local_start), x(r.local_stop()));
                    let minutes = number(r.length.minutes(), usize::from(r.length.seconds() % 60 != 0));
                    let text = if b - a > 110.0 {
                        w.t2(
                            "lens-bar",
                            ("minutes", &minutes),
                            ("time", panel_time(r.local_stop().time(), c.capability.clock_face)),
                        )
                    } else if b - a > 16.0 {
                        minutes
                    } else {
                        String::new()
                    };
                    LensBar { x: Fixed(a), width: Fixed((b - a).max(1.5)), text, text_x: Fixed(f64::midpoint(a, b)) }
                })
                .collect();
            let soaks = own
                .windows(2)
                .map(|pair| {
                    let (a, b) = (x(pair[0].local_stop()), x(pair[1].local_start));
                    let minutes = (pair[1].local_start - pair[0].local_stop()).num_minutes();
                    let words = if b - a > 70.0 { w.t1("lens-soak", minutes.to_string()) } else { String::new() };
                    (Fixed(a), Fixed(b), Fixed(f64::midpoint(a, b)), words)
                })
                .collect();
            lines.push(StationLine {
                number: station.number,
                name: c.station(station.number).map_or_else(String::new, |s| s.name.clone()),
                bar_y: Fixed(y + 4.0),
                text_y: Fixed(y + 18.0),
                end_y: Fixed(y + ROW),
                bars,
                soaks,
                soak_y: Fixed(y + 13.5),
            });
        }
        let step = if span > 6.0 * 3600.0 { 60 } else { 30 };
        let ticks = (0..)
            .map(|i| from + TimeDelta::minutes(i * step))
            .take_while(|t| x(*t) <= LEFT + WIDTH - 18.0)
            .take(40)
            .map(|t| (Fixed(x(t)), panel_time(t.time(), c.capability.clock_face)))
            .collect();
        Some(Self {
            title: w.t2("lens-title", ("day", super::day_name(start.date)), ("program", letter.get().to_string())),
            sub: longest_words(c, letter),
            letter: letter.get(),
            height: Fixed(20.0 + lines.len() as f64 * ROW + 2.0),
            ticks,
            lines,
        })
    }
}

/// How the first station that soaks comes to its cycle, with the numbers in it.
fn longest_words(c: &Controller, letter: ProgramLetter) -> String {
    let soaking = c.stations.iter().find(|s| s.runs_in(letter) && s.cycle.is_some());
    let Some(station) = soaking else { return String::new() };
    let found = station.runoff();
    let Some(longest) = found.longest_minutes else { return String::new() };
    Words.with(
        "lens-why",
        &[
            ("station", &station.name),
            ("asa", &number(found.accumulation_mm, 1)),
            ("rate", &number(found.rate_mm_per_hour, 1)),
            ("intake", &number(found.intake_mm_per_hour, 1)),
            ("longest", &number(longest, 1)),
            ("soak", &number(found.soak_minutes, 0)),
        ],
    )
}
