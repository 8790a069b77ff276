//! The words of what is wrong with a panel.

use upland_core::controller::{ClockFace, Controller, DayMode, ProgramLetter, StartTime};
use upland_core::found::{Cause, PanelFinding, ProgramWater};

use crate::charts::{volume_text, volume_unit};
use crate::pages::findings::FindingWords;
use crate::pages::stations::station_name;
use crate::show::{
    Measure, Units, date_long, date_short, day_long, minutes, mode_words, month_long, number, panel_start, panel_time,
    percent,
};
use crate::words::Words;

/// A finding on a panel in words.
#[derive(Debug, Clone)]
pub(crate) struct FoundView {
    pub(crate) number: usize,
    pub(crate) kind: &'static str,
    pub(crate) title: String,
    pub(crate) fact: String,
}

pub(super) fn views(findings: &[PanelFinding], known: &Controller, units: Units) -> Vec<FoundView> {
    (1..)
        .zip(findings)
        .map(|(n, finding)| {
            let (title, fact) = words(finding, known, units);
            let kind = match finding {
                PanelFinding::InTwoPrograms { .. } | PanelFinding::UnknownStation { .. } => "note",
                PanelFinding::Overrun { .. } => "rule",
                _ => "fault",
            };
            FoundView { number: n, kind, title, fact }
        })
        .collect()
}

/// The findings on a panel in words, in metric units, for the command line.
#[must_use]
pub fn words_of_panel(known: &Controller, findings: &[PanelFinding]) -> Vec<FindingWords> {
    let views = views(findings, known, Units::Metric);
    views
        .into_iter()
        .zip(findings)
        .map(|(v, f)| FindingWords {
            code: f.code(),
            severity: v.kind,
            message: format!("{}. {}", v.title, v.fact),
            stake: String::new(),
            repair: String::new(),
        })
        .collect()
}

fn words(finding: &PanelFinding, known: &Controller, units: Units) -> (String, String) {
    let w = Words;
    let face = known.capability.clock_face;
    let l = |letter: ProgramLetter| letter.get().to_string();
    match *finding {
        PanelFinding::WrongYear { shows, believes } => (
            believes.map_or_else(|| w.t("af-wrong-year"), |y| w.t1("af-year-is", y.to_string())),
            w.t1("af-year-more", day_long(shows)),
        ),
        PanelFinding::WrongDate { shows } => (w.t1("af-date", date_long(shows)), w.t("af-date-more")),
        PanelFinding::HourOff { ahead } => {
            (w.t(if ahead > 0 { "af-hour-ahead" } else { "af-hour-behind" }), w.t("af-hour-more"))
        }
        PanelFinding::HalfDayOff => (w.t("af-half-day"), w.t("af-half-day-more")),
        PanelFinding::ClockOff { ahead } => {
            let key = if ahead > 0 { "af-clock-ahead" } else { "af-clock-behind" };
            (w.t1(key, duration(ahead)), w.t("af-clock-more"))
        }
        PanelFinding::LeftOff => (w.t("af-off"), w.t("af-off-more")),
        PanelFinding::SensorBypassed => (w.t("af-bypassed"), w.t("af-bypassed-more")),
        PanelFinding::FactoryState { minutes: each } => (w.t1("af-factory", minutes(each)), w.t("af-factory-more")),
        PanelFinding::Water(water) => water_words(&water, known, units),
        PanelFinding::UnknownStation { station, minutes: run } => {
            (w.t2("af-unknown", ("station", station.to_string()), ("minutes", minutes(run))), w.t("af-unknown-more"))
        }
        PanelFinding::LeftoverProgram { letter } => (w.t1("af-leftover", l(letter)), w.t("af-leftover-more")),
        PanelFinding::InTwoPrograms { station } => (w.t1("af-two", station_name(known, station)), w.t("af-two-more")),
        PanelFinding::OutsideWindow { letter, from } => {
            (w.t2("f-window", ("program", l(letter)), ("time", panel_time(from.time(), face))), w.t("af-window-more"))
        }
        PanelFinding::Overrun { letter, ends } => (
            w.t2("af-overrun", ("program", l(letter)), ("time", panel_time(ends.time(), face))),
            w.t1("af-overrun-more", date_short(ends.date())),
        ),
    }
}

/// A week that is too wet or too dry: how much, and what makes it so.
fn water_words(water: &ProgramWater, known: &Controller, units: Units) -> (String, String) {
    let w = Words;
    let letter = water.letter.get().to_string();
    let depth = |mm: f64| format!("{}\u{a0}{}", Measure::Depth.figure(mm, units), Measure::Depth.unit(units));
    let title = w.t1(if water.found_mm > water.need_mm { "af-too-much" } else { "af-too-little" }, letter);
    let fact = w.t2("af-week", ("found", depth(water.found_mm)), ("needed", depth(water.need_mm)));
    let cause = match water.cause {
        Cause::SecondStart { start, volume_m3 } => {
            let start = panel_start(start, known.capability.clock_face);
            let volume = format!("{}\u{a0}{}", volume_text(units)(volume_m3), volume_unit(units));
            if volume_m3 > 0.0 {
                w.t2("af-second-more", ("start", start), ("volume", volume))
            } else {
                w.t1("af-second-plain", start)
            }
        }
        Cause::Percent { found, right, fits } => {
            let (found, right) = (percent(found.get()), number(right, 0));
            match fits {
                Some(month) => {
                    w.with("af-percent-fits", &[("found", &found), ("called", &right), ("month", &month_long(month))])
                }
                None => w.t2("af-percent-more", ("found", found), ("called", right)),
            }
        }
        Cause::Days { found, planned } => w.t2("af-days", ("found", number(found, 1)), ("planned", number(planned, 1))),
        Cause::NotNeeded => w.t("af-not-needed"),
        Cause::Minutes { right } => w.t1("af-minutes", number(right, 0)),
    };
    (title, format!("{fact} {cause}"))
}

/// `2 h 5 min`.
fn duration(minutes: i64) -> String {
    let (hours, rest) = (minutes.abs() / 60, minutes.abs() % 60);
    if hours == 0 { format!("{rest}\u{a0}min") } else { format!("{hours}\u{a0}h {rest}\u{a0}min") }
}

/// Days, starts and percent of a program in a line.
pub(super) fn program_line(days: DayMode, starts: &[StartTime], face: ClockFace, percent_now: u16) -> String {
    if starts.is_empty() {
        return Words.t("found-no-start");
    }
    let starts = starts.iter().map(|s| panel_start(*s, face)).collect::<Vec<_>>().join(" ");
    let days = mode_words(days, upland_core::controller::Days::NONE);
    let days = if days.is_empty() { Words.t("found-no-days") } else { days };
    format!("{days}, {starts}, {}", percent(percent_now))
}
