//! The one next change in words.

use upland_core::controller::Controller;
use upland_core::sensor::{EtSheet, Mark};
use upland_core::tuning::{Advice, Because, Change, Judgement, Seen};
use upland_formats::site::ChangeDoc;

use crate::charts::{volume_text, volume_unit};
use crate::pages::stations::station_name;
use crate::pages::year::program_label;
use crate::show::{Measure, Units, date_short, day_list, minutes};
use crate::words::Words;

/// Names a change in a form: an answer to another change than the one on the page is refused.
pub(super) fn offer(change: Change) -> String {
    match change {
        Change::PutBack { letter, from, to } => format!("put-back.{}.{}.{}", letter.get(), from.get(), to.get()),
        Change::Percent { letter, from, to } => format!("percent.{}.{}.{}", letter.get(), from.get(), to.get()),
        Change::Day { letter, from, to } => format!("days.{}.{}.{}", letter.get(), from.bits(), to.bits()),
        Change::Trim { station, from_pct, to_pct, .. } => format!("trim.{station}.{from_pct}.{to_pct}"),
        Change::Offset { sensor, from, to, .. } => format!("offset.{sensor}.{from}.{to}"),
        Change::Climate { sensor, from, to, .. } => format!("climate.{sensor}.{from}.{to}"),
        Change::Minutes { station, from, to } => format!("minutes.{station}.{}.{}", from.seconds(), to.seconds()),
    }
}

/// A change in words.
#[derive(Debug, Clone, Default)]
pub(super) struct ChangeWords {
    pub(super) what: String,
    pub(super) from: String,
    pub(super) to: String,
    pub(super) unit: String,
    /// Whether from and to are words rather than figures.
    pub(super) wordy: bool,
}

pub(super) fn change_words(change: Change, c: &Controller) -> ChangeWords {
    let w = Words;
    match change {
        Change::PutBack { letter, from, to } | Change::Percent { letter, from, to } => ChangeWords {
            what: program_label(c.program(letter), letter),
            from: from.get().to_string(),
            to: to.get().to_string(),
            unit: w.t("round-unit-percent"),
            wordy: false,
        },
        Change::Day { letter, from, to } => ChangeWords {
            what: w.t1("round-days-of", program_label(c.program(letter), letter)),
            from: day_list(from),
            to: day_list(to),
            unit: String::new(),
            wordy: true,
        },
        Change::Trim { station, run: [from, to], .. } => ChangeWords {
            what: station_name(c, station),
            from: minutes(from),
            to: minutes(to),
            unit: w.t("round-unit-minutes"),
            wordy: false,
        },
        Change::Offset { sensor, letter, from, to } => ChangeWords {
            what: w.t1("round-offset-of", program_label(c.program(letter), letter)),
            unit: steps_of(from, to),
            ..between_marks(c, sensor, [from, to], |sheet, position| sheet.offset(position).copied())
        },
        Change::Climate { sensor, letter, from, to } => ChangeWords {
            what: w.t1("round-climate-of", program_label(c.program(letter), letter)),
            unit: steps_of(from, to),
            ..between_marks(c, sensor, [from, to], |sheet, position| sheet.climate(position).map(|step| step.mark))
        },
        Change::Minutes { station, from, to } => ChangeWords {
            what: station_name(c, station),
            from: minutes(from),
            to: minutes(to),
            unit: w.t("round-unit-minutes"),
            wordy: false,
        },
    }
}

/// `2 steps`.
fn steps_of(from: u8, to: u8) -> String {
    Words.count("round-dial-steps", usize::from(from.abs_diff(to)))
}

/// Two positions of a dial of an ET sensor, by the marks beside them; by their numbers where the sensor is gone.
fn between_marks(
    c: &Controller,
    sensor: u16,
    positions: [u8; 2],
    mark: impl Fn(&EtSheet, u8) -> Option<Mark>,
) -> ChangeWords {
    let sheet = c.et_setting(sensor).map(|setting| &setting.sheet);
    let [from, to] = positions.map(|position| {
        sheet.and_then(|sheet| mark(sheet, position)).map_or_else(|| position.to_string(), |m| m.to_string())
    });
    ChangeWords { from, to, ..ChangeWords::default() }
}

/// A recorded change in one line, with the names as they are now.
pub(crate) fn change_line(change: Option<&ChangeDoc>, c: &Controller) -> String {
    let w = Words;
    let Some(doc) = change else { return w.t("round-no-change") };
    if let ChangeDoc::Words(words) = doc {
        return words.clone();
    }
    let Some(ChangeWords { what, from, to, unit, .. }) = doc.change().map(|change| change_words(change, c)) else {
        return String::new();
    };
    let line = w.with("round-line", &[("what", &what), ("from", &from), ("to", &to), ("unit", &unit)]);
    line.trim_end().to_owned()
}

fn judged(j: Judgement) -> String {
    Words.t(match j {
        Judgement::Dry => "judged-dry",
        Judgement::Right => "judged-right",
        Judgement::Wet => "judged-wet",
    })
}

pub(super) fn because(c: &Controller, advice: &Advice, seen: &Seen) -> String {
    let w = Words;
    let first = match advice.because {
        Because::PanelDiffers => w.t("because-panel"),
        Because::PanelIsNearer(j) => w.t1("because-panel-nearer", judged(j)),
        Because::SensorOff { letter, seen, called } => {
            let key = if advice.change.is_some() { "because-sensor" } else { "because-sensor-end" };
            let (program, seen, called) =
                (program_label(c.program(letter), letter), seen.get().to_string(), called.get().to_string());
            w.with(key, &[("program", &program), ("seen", &seen), ("called", &called)])
        }
        Because::MonthOff(j) => {
            w.t1(if advice.change.is_some() { "because-month-on" } else { "because-month-off" }, judged(j))
        }
        Because::AllWrongPercentOff(j) => w.t1("because-percent-off", judged(j)),
        Because::AllWrongPercentRight(j) => w.t1("because-percent-right", judged(j)),
        Because::OneWrong(j) => {
            let others = seen.stations.iter().filter(|(_, o)| *o == Judgement::Right).count();
            w.t2("because-one", ("judged", judged(j)), ("others", others.to_string()))
        }
        Because::TooSoon { changed } => w.t1("because-soon", date_short(changed)),
        Because::AllRight => w.t("because-right"),
        Because::NothingSeen => w.t("because-nothing"),
        Because::AtTheLimit(j) => w.t1("because-limit", judged(j)),
    };
    if advice.waiting.is_empty() {
        return first;
    }
    let names = advice.waiting.iter().map(|n| station_name(c, *n)).collect::<Vec<_>>().join(", ");
    format!("{first} {}", w.t1("because-waits", names))
}

pub(super) fn expect(advice: &Advice, units: Units) -> String {
    let Some(e) = advice.expected else { return String::new() };
    let depth = |mm: f64| Measure::Depth.show(mm, units);
    let more = volume_text(units)(e.more_m3.abs());
    let unit = volume_unit(units);
    let key = if e.more_m3 < 0.0 { "expect-less" } else { "expect-more" };
    Words.with(key, &[("after", &depth(e.after_mm)), ("before", &depth(e.before_mm)), ("more", &more), ("unit", unit)])
}
