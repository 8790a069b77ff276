//! The words of findings and repairs.

use upland_core::controller::{Controller, DayMode, ProgramLetter};
use upland_core::schedule::{Code, Finding, Problem, Repair, Severity, Stake};

use crate::charts::{severity_word, volume_text, volume_unit};
use crate::show::{Measure, Units, date_short, day_list, day_long, month_long, number, panel_start, panel_time, times};
use crate::words::Words;

/// A finding in words.
#[derive(Debug, Clone)]
pub(crate) struct FindingView {
    pub(crate) number: usize,
    pub(crate) kind: &'static str,
    pub(crate) title: String,
    pub(crate) fact: String,
    pub(crate) stake_label: String,
    pub(crate) stake: String,
    pub(crate) repair: String,
    /// What names the finding in a form.
    pub(crate) key: String,
    pub(crate) why: String,
}

/// The key of a finding in a form: its code, program and station.
pub(crate) fn finding_key(finding: &Finding) -> String {
    let letter = finding.letter.map_or('-', ProgramLetter::get);
    let start = match finding.problem {
        Problem::SecondStart { start } => start.to_string(),
        _ => String::new(),
    };
    format!("{}.{letter}.{}.{start}", code_word(finding.code()), finding.station.unwrap_or(0))
}

/// The word of a code, as files and addresses write it.
pub(crate) const fn code_word(code: Code) -> &'static str {
    match code {
        Code::SecondStart => "second_start",
        Code::TwoWaysOfSoak => "two_ways_of_soak",
        Code::InTwoPrograms => "in_two_programs",
        Code::NotScheduled => "not_scheduled",
        Code::GhostProgram => "ghost_program",
        Code::NoMinutes => "no_minutes",
        Code::RunsOff => "runs_off",
        Code::TooFewStarts => "too_few_starts",
        Code::TooManyOpenings => "too_many_openings",
        Code::DaysAndMinutes => "days_and_minutes",
        Code::RainCountedTwice => "rain_counted_twice",
        Code::PercentHeld => "percent_held",
        Code::RunHeld => "run_held",
        Code::DeeperThanSoil => "deeper_than_soil",
        Code::DeeperThanReady => "deeper_than_ready",
        Code::FightsSensor => "fights_sensor",
        Code::ForbiddenDay => "forbidden_day",
        Code::ForbiddenHour => "forbidden_hour",
        Code::OutsideWindow => "outside_window",
        Code::SensorRequired => "sensor_required",
        Code::LateAtHighest => "late_at_highest",
        Code::NotDone => "not_done",
        Code::Waits => "waits",
        Code::OddNeighbours => "odd_neighbours",
        Code::NeighbouringDays => "neighbouring_days",
    }
}

/// The views of findings, in their order.
pub(crate) fn finding_views(c: &Controller, findings: &[Finding], authority: &str, units: Units) -> Vec<FindingView> {
    (1..).zip(findings).map(|(number, f)| view(number, c, f, authority, units)).collect()
}

/// What a finding is called.
pub(crate) fn finding_title(c: &Controller, finding: &Finding) -> String {
    // No title tells a figure with a unit.
    title_and_fact(c, finding, Units::Metric).0
}

/// How many of which kind, in a line.
pub(crate) fn counts(findings: &[Finding]) -> String {
    let w = Words;
    let count = |s| findings.iter().filter(|f| f.severity == s).count();
    [(Severity::Fault, "count-faults"), (Severity::Rule, "count-rules"), (Severity::Note, "count-notes")]
        .into_iter()
        .filter(|(s, _)| count(*s) > 0)
        .map(|(s, key)| w.count(key, count(s)))
        .collect::<Vec<_>>()
        .join(", ")
}

fn view(number: usize, c: &Controller, f: &Finding, authority: &str, units: Units) -> FindingView {
    let w = Words;
    let (title, fact) = title_and_fact(c, f, units);
    let (stake_label, stake) = match f.stake {
        Stake::VolumeM3(v) => {
            let key = if v < 0.0 { "stake-missing" } else { "stake-volume" };
            let volume = volume_text(units)(v.abs());
            (w.t("at-stake"), w.t2(key, ("volume", volume), ("unit", volume_unit(units))))
        }
        Stake::DepthMm(d) if f.code() == Code::RunsOff => {
            (w.t("at-stake"), w.t1("stake-runoff", Measure::Depth.show(d, units)))
        }
        Stake::DepthMm(d) => (w.t("at-stake"), w.t1("stake-depth", Measure::Depth.show(d.abs(), units))),
        Stake::Rule if authority.is_empty() => (w.t("rule"), w.t("rule-of-the-place")),
        Stake::Rule => (w.t("rule"), w.t1("rule-of", authority)),
        Stake::None => (w.t("note"), w.t(note_key(f.code()))),
    };
    FindingView {
        number,
        kind: severity_word(f.severity),
        title,
        fact,
        stake_label,
        stake,
        repair: f.repair.as_ref().map_or_else(String::new, |r| repair_words(c, r)),
        key: finding_key(f),
        why: w.t(why_key(f.code())),
    }
}

const fn note_key(code: Code) -> &'static str {
    match code {
        Code::Waits => "note-waits",
        Code::NotDone => "note-not-done",
        Code::OddNeighbours | Code::NeighbouringDays => "note-neighbours",
        Code::GhostProgram => "note-ghost",
        Code::NotScheduled => "note-not-scheduled",
        Code::NoMinutes => "note-no-minutes",
        Code::FightsSensor => "note-sensor",
        Code::RainCountedTwice => "note-rain-twice",
        Code::DeeperThanReady => "note-deeper-ready",
        Code::TwoWaysOfSoak => "note-two-ways",
        Code::TooManyOpenings => "note-openings",
        Code::OutsideWindow => "note-window",
        _ => "note-plain",
    }
}

/// How a finding is found, in a sentence: its working.
const fn why_key(code: Code) -> &'static str {
    match code {
        Code::SecondStart => "found-second-start",
        Code::TwoWaysOfSoak => "found-two-ways",
        Code::InTwoPrograms => "found-two-programs",
        Code::NotScheduled => "found-not-scheduled",
        Code::GhostProgram => "found-ghost",
        Code::NoMinutes => "found-no-minutes",
        Code::RunsOff => "found-runs-off",
        Code::TooFewStarts => "found-too-few",
        Code::TooManyOpenings => "found-too-many",
        Code::DaysAndMinutes => "found-days-minutes",
        Code::RainCountedTwice => "found-rain-twice",
        Code::PercentHeld => "found-percent-held",
        Code::RunHeld => "found-run-held",
        Code::DeeperThanSoil => "found-deeper-soil",
        Code::DeeperThanReady => "found-deeper-ready",
        Code::FightsSensor => "found-fights",
        Code::ForbiddenDay => "found-day",
        Code::ForbiddenHour => "found-hour",
        Code::OutsideWindow => "found-window",
        Code::SensorRequired => "found-sensor-required",
        Code::LateAtHighest => "found-late",
        Code::NotDone => "found-not-done",
        Code::Waits => "found-waits",
        Code::OddNeighbours => "found-odd",
        Code::NeighbouringDays => "found-neighbours",
    }
}

fn station_name(c: &Controller, number: Option<u8>) -> String {
    number.and_then(|n| c.station(n)).map_or_else(String::new, |s| s.name.clone())
}

fn title_and_fact(c: &Controller, f: &Finding, units: Units) -> (String, String) {
    let w = Words;
    let face = c.capability.clock_face;
    let time = |at: chrono::NaiveDateTime| panel_time(at.time(), face);
    let depth = |mm: f64| Measure::Depth.show(mm, units);
    let letter = f.letter.map_or_else(String::new, |l| l.get().to_string());
    let station = station_name(c, f.station);
    match &f.problem {
        Problem::SecondStart { start } => {
            (w.t1("f-second-start", &letter), w.t1("f-second-start-more", panel_start(*start, face)))
        }
        Problem::TooManyOpenings { date } => (w.t("f-too-many"), w.t1("f-too-many-more", date_short(*date))),
        Problem::TwoWaysOfSoak => (w.t1("f-two-ways", &letter), w.t("f-two-ways-more")),
        Problem::InTwoPrograms { second } => (
            w.t1("f-two-programs", &station),
            w.t2("f-two-programs-more", ("program", &letter), ("second", second.get().to_string())),
        ),
        Problem::NotScheduled => (w.t1("f-not-scheduled", &letter), w.t("f-not-scheduled-more")),
        Problem::GhostProgram => (w.t1("f-ghost", &letter), w.t("f-ghost-more")),
        Problem::NoMinutes => (w.t1("f-no-minutes", &station), w.t1("f-no-minutes-more", &letter)),
        Problem::RunsOff { run, longest, .. } => (
            w.t1("f-runs-off", &station),
            w.t2("f-runs-off-more", ("run", number(run.minutes(), 0)), ("longest", number(*longest, 1))),
        ),
        Problem::TooFewStarts { there, needed } => (
            w.t1("f-too-few", &letter),
            w.t2("f-too-few-more", ("there", there.to_string()), ("needed", needed.to_string())),
        ),
        Problem::DaysAndMinutes { scheduled, meant } => {
            let tenths = usize::from(scheduled.fract() != 0.0);
            let title = if *scheduled == 1.0 {
                w.t1("f-days-minutes-once", &letter)
            } else {
                w.t2("f-days-minutes", ("program", &letter), ("times", number(*scheduled, tenths)))
            };
            (title, w.t1("f-days-minutes-more", times(*meant)))
        }
        Problem::RainCountedTwice => (w.t1("f-rain-twice", &letter), w.t("f-rain-twice-more")),
        Problem::PercentHeld { month, wanted, highest } => (
            w.t1("f-percent-held", month_long(*month)),
            w.t2("f-percent-held-more", ("called", number(*wanted, 0)), ("highest", highest.get().to_string())),
        ),
        Problem::RunHeld { wanted_minutes, longest } => (
            w.t1("f-run-held", &station),
            w.t2("f-run-held-more", ("needed", number(*wanted_minutes, 0)), ("longest", number(longest.minutes(), 0))),
        ),
        Problem::DeeperThanSoil { net_mm, taw_mm } => (
            w.t1("f-deeper-soil", &station),
            w.t2("f-deeper-soil-more", ("given", depth(*net_mm)), ("reached", depth(*taw_mm))),
        ),
        Problem::DeeperThanReady { net_mm, raw_mm } => (
            w.t1("f-deeper-ready", &station),
            w.t2("f-deeper-ready-more", ("given", depth(*net_mm)), ("ready", depth(*raw_mm))),
        ),
        Problem::FightsSensor => (w.t1("f-fights", &letter), w.t("f-fights-more")),
        Problem::ForbiddenWeekdays { days } => {
            (w.t2("f-day", ("program", &letter), ("days", day_list(*days))), w.count("f-day-more", days.count().into()))
        }
        Problem::ForbiddenDate { date } => {
            (w.t2("f-day", ("program", &letter), ("days", date_short(*date))), w.t("f-date-more"))
        }
        Problem::SensorRequired => (w.t("f-sensor-required"), w.t("f-sensor-required-more")),
        Problem::ForbiddenHour { from, ends } if from.time() == chrono::NaiveTime::MIN => (
            w.t2("f-past-midnight", ("program", &letter), ("date", date_short(from.date()))),
            w.t1("f-hour-more", time(*ends)),
        ),
        Problem::ForbiddenHour { from, ends } => {
            (w.t2("f-hour", ("program", &letter), ("time", time(*from))), w.t1("f-hour-more", time(*ends)))
        }
        Problem::OutsideWindow { from, ends, month } => (
            match month {
                Some(month) => w.with(
                    "f-window-late",
                    &[("month", &month_long(*month)), ("program", &letter), ("from", &time(*from))],
                ),
                None => w.t2("f-window", ("program", &letter), ("time", time(*from))),
            },
            w.t1("f-window-more", time(*ends)),
        ),
        Problem::LateAtHighest { from, ends, ends_now, month } => {
            let month = month.map_or_else(String::new, month_long);
            (
                w.with("f-late", &[("month", &month), ("program", &letter), ("end", &time(*ends))]),
                match ends_now {
                    Some(now) => {
                        w.with("f-late-more", &[("now", &time(*now)), ("from", &time(*from)), ("month", &month)])
                    }
                    None => w.with("f-late-more-off", &[("from", &time(*from)), ("month", &month)]),
                },
            )
        }
        Problem::NotDone { by, ends, month } => (
            match month {
                Some(month) => w.with(
                    "f-not-done-late",
                    &[("month", &month_long(*month)), ("program", &letter), ("ends", &time(*ends))],
                ),
                None => w.t2("f-not-done", ("program", &letter), ("time", time(*ends))),
            },
            w.t1("f-not-done-more", panel_start(*by, face)),
        ),
        Problem::Waits { other, minutes, planned, begins } => (
            w.t2("f-waits", ("program", &letter), ("other", other.get().to_string())),
            w.with(
                "f-waits-more",
                &[
                    ("begins", &time(*begins)),
                    ("planned", &panel_start(*planned, face)),
                    ("minutes", &minutes.to_string()),
                ],
            ),
        ),
        Problem::OddNeighbours => (w.t1("f-odd", &letter), w.t("f-odd-more")),
        Problem::NeighbouringDays { first, second } => (
            w.t1("f-neighbours", &letter),
            w.t2("f-neighbours-more", ("first", day_long(*first)), ("second", day_long(*second))),
        ),
    }
}

/// What a repair does, as its button says it.
pub(crate) fn repair_words(c: &Controller, repair: &Repair) -> String {
    let w = Words;
    let face = c.capability.clock_face;
    let name = |n: u8| station_name(c, Some(n));
    match repair {
        Repair::RemoveStart(_, start) => w.t1("r-remove-start", panel_start(*start, face)),
        Repair::MoveStart { letter, to, .. } => {
            w.t2("r-move-start", ("program", letter.get().to_string()), ("start", panel_start(*to, face)))
        }
        Repair::SetDays(letter, DayMode::Weekdays(to)) => {
            let from = match c.program(*letter).map(|p| p.schedule.days) {
                Some(DayMode::Weekdays(from)) => from,
                _ => upland_core::controller::Days::NONE,
            };
            let gone = from.and(to.complement());
            let added = to.and(from.complement());
            if added.is_empty() && !gone.is_empty() {
                w.t2("r-take-off", ("days", day_list(gone)), ("program", letter.get().to_string()))
            } else {
                w.t2("r-set-days", ("program", letter.get().to_string()), ("days", day_list(*to)))
            }
        }
        Repair::SetDays(letter, DayMode::Odd) => w.t1("r-odd", letter.get().to_string()),
        Repair::SetDays(letter, DayMode::Even) => w.t1("r-even", letter.get().to_string()),
        Repair::SetDays(letter, DayMode::Every { days, .. }) => {
            w.t2("r-every", ("program", letter.get().to_string()), ("days", days.to_string()))
        }
        Repair::NeverOn(letter, days) => {
            w.t2("r-never", ("program", letter.get().to_string()), ("days", day_list(*days)))
        }
        Repair::SetCycle(station, cycle) => w.with(
            "r-cycle",
            &[
                ("station", &name(*station)),
                ("cycle", &number(cycle.cycle.minutes(), 0)),
                ("soak", &number(cycle.soak.minutes(), 0)),
            ],
        ),
        Repair::Divide(letter, starts) => {
            w.t2("r-divide", ("program", letter.get().to_string()), ("starts", starts.len().to_string()))
        }
        Repair::WholeStart(letter, start) => {
            w.t2("r-whole", ("program", letter.get().to_string()), ("start", panel_start(*start, face)))
        }
        Repair::ClearSchedule(letter) => w.t1("r-clear", letter.get().to_string()),
        Repair::TakeProposal(letter, _) => w.t1("r-proposal", letter.get().to_string()),
        Repair::WorkOutMinutes(station, run) => {
            w.t2("r-minutes", ("station", name(*station)), ("minutes", number(run.minutes(), 0)))
        }
        Repair::LeaveProgram(station, letter) => {
            w.t2("r-leave", ("station", name(*station)), ("program", letter.get().to_string()))
        }
        Repair::MinutesFor(letter, waterings) => {
            w.t2("r-minutes-for", ("program", letter.get().to_string()), ("waterings", waterings.to_string()))
        }
        Repair::WaterMoreOften(letter, days) => {
            w.t2("r-more-often", ("program", letter.get().to_string()), ("days", day_list(*days)))
        }
        Repair::LeaveRainToSensor(letter) => w.t1("r-rain-to-sensor", letter.get().to_string()),
        Repair::FreePercent(letter) => w.t1("r-free", letter.get().to_string()),
    }
}

/// A finding for a file: code, severity, message and repair, in words.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FindingWords {
    /// Code.
    pub code: &'static str,
    /// `fault`, `rule` or `note`.
    pub severity: &'static str,
    /// What is wrong.
    pub message: String,
    /// What is at stake.
    pub stake: String,
    /// The repair; empty where there is none.
    pub repair: String,
}

/// The findings of a controller in words, in metric units, for the command line.
#[must_use]
pub fn words_of_findings(c: &Controller, findings: &[Finding], authority: &str) -> Vec<FindingWords> {
    let views = finding_views(c, findings, authority, Units::Metric);
    views
        .into_iter()
        .zip(findings)
        .map(|(v, f)| FindingWords {
            code: code_word(f.code()),
            severity: v.kind,
            message: format!("{}. {}", v.title, v.fact),
            stake: format!("{}: {}", v.stake_label, v.stake),
            repair: v.repair,
        })
        .collect()
}
