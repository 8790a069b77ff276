//! The form of one program: days, starts, minutes, cycles.

use upland_core::budget::YearBudget;
use upland_core::controller::{Capability, Controller, DayMode, Days, ProgramLetter, Schedule, StartTime};
use upland_core::landscape::{CycleSoak, cycles};
use upland_core::quantity::RunTime;
use upland_core::schedule::{Expansion, Plan, week_work};

use super::worked_out;
use crate::charts::volume_text;
use crate::form::{Form, parse_number};
use crate::pages::Choice;
use crate::pages::days_form::{day_fields, read_every, tick_days, ticked_days};
use crate::pages::year::program_label;
use crate::show::{Measure, Units, minutes, number, panel_start};
use crate::words::Words;

/// A station's line of the form.
#[derive(Debug, Clone)]
pub(crate) struct StationFields {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) minutes_field: String,
    pub(crate) cycle_field: String,
    pub(crate) soak_field: String,
    pub(crate) worked: String,
    pub(crate) run: String,
    pub(crate) cycles: String,
    pub(crate) week: String,
    pub(crate) water: String,
}

#[derive(Debug, Clone)]
pub(crate) struct ProgramForm {
    pub(crate) letter: String,
    pub(crate) title: String,
    pub(crate) form: Form,
    pub(crate) modes: Vec<Choice>,
    pub(crate) days: Vec<(String, String)>,
    /// A person starts each of its runs.
    pub(crate) by_hand: bool,
    pub(crate) has_never: bool,
    pub(crate) has_every: bool,
    pub(crate) has_split: bool,
    pub(crate) starts: Vec<(String, String)>,
    pub(crate) stations: Vec<StationFields>,
    pub(crate) stations_head: String,
    pub(crate) depth_unit: &'static str,
    pub(crate) volume_unit: &'static str,
    pub(crate) has_cycles: bool,
}

/// The form of a saved program.
pub(crate) fn filled(c: &Controller, letter: ProgramLetter) -> Form {
    let mut form = Form::default();
    let Some(program) = c.program(letter) else { return form };
    let s = &program.schedule;
    form.set(
        "mode",
        match s.days {
            DayMode::Weekdays(_) => "weekdays",
            DayMode::Odd => "odd",
            DayMode::Even => "even",
            DayMode::Every { .. } => "every",
        },
    );
    if let DayMode::Weekdays(days) = s.days {
        tick_days(&mut form, "on", days);
    }
    tick_days(&mut form, "never", s.never);
    if let DayMode::Every { days, next } = s.days {
        form.set("every", days.to_string());
        form.set("next", next.to_string());
    }
    for (index, start) in s.starts.iter().enumerate() {
        form.set(&format!("start{index}"), panel_start(*start, c.capability.clock_face));
    }
    form.set("split", s.split.to_string());
    for station in c.stations.iter().filter(|s| s.runs_in(letter)) {
        let n = station.number;
        let minutes = |r: RunTime| Measure::Plain.typed(r.minutes(), Units::Metric);
        form.set(&format!("m{n}"), station.minutes.map_or_else(String::new, minutes));
        form.set(&format!("c{n}"), station.cycle.map_or_else(String::new, |c| minutes(c.cycle)));
        form.set(&format!("k{n}"), station.cycle.map_or_else(String::new, |c| minutes(c.soak)));
    }
    form
}

/// Reads a program's days and starts; errors stand beside their fields.
pub(crate) fn read_program(form: &mut Form, capability: &Capability) -> Option<Schedule> {
    let w = Words;
    let mode = match form.get("mode") {
        "weekdays" => Some(DayMode::Weekdays(ticked_days(form, "on"))),
        "odd" if capability.day_modes.odd_even => Some(DayMode::Odd),
        "even" if capability.day_modes.odd_even => Some(DayMode::Even),
        "every" if capability.day_modes.every_max > 0 => {
            read_every(form, ["every", "next"], capability.day_modes.every_max)
        }
        _ => {
            form.fail("mode", w.t("week-mode-bad"));
            None
        }
    };
    let mut starts = Vec::new();
    for slot in 0..capability.starts {
        let field = format!("start{slot}");
        let typed = form.get(&field).to_owned();
        if typed.is_empty() || typed.eq_ignore_ascii_case(&w.t("off")) {
            continue;
        }
        match StartTime::read(&typed).filter(|s| s.is_on(capability.start_step)) {
            Some(start) if !starts.contains(&start) => starts.push(start),
            _ => form.fail(&field, w.t1("week-start-bad", capability.start_step.to_string())),
        }
    }
    starts.sort_unstable();
    let split = match form.get("split") {
        "" => Some(1),
        typed => typed.parse::<u8>().ok().filter(|n| (1..=capability.starts).contains(n)),
    };
    if split.is_none() {
        form.fail("split", w.t1("week-every-bad", capability.starts.to_string()));
    }
    let never = if capability.never_days { ticked_days(form, "never") } else { Days::NONE };
    let schedule = Schedule { days: mode?, never, starts, split: split? };
    form.is_sound().then_some(schedule)
}

/// Puts typed minutes, cycles and soaks into the stations of a program.
pub(crate) fn read_stations(form: &mut Form, c: &mut Controller, letter: ProgramLetter) {
    let capability = c.capability;
    let step = Measure::Plain.typed(capability.run_step.minutes(), Units::Metric);
    let bad = Words.t2("week-minutes-bad", ("step", &step), ("longest", number(capability.run_max.minutes(), 0)));
    for station in c.stations.iter_mut().filter(|s| s.runs_in(letter)) {
        let n = station.number;
        let mut read = |field: String, on_step: bool| -> Option<Option<RunTime>> {
            let typed = form.get(&field).to_owned();
            if typed.is_empty() {
                return Some(None);
            }
            let run = parse_number(&typed).and_then(|m| RunTime::from_minutes(m).ok()).filter(|r| {
                *r <= capability.run_max
                    && (!on_step || r.seconds().is_multiple_of(capability.run_step.seconds().max(1)))
            });
            if run.is_none() {
                form.fail(&field, bad.clone());
            }
            run.map(Some)
        };
        if let Some(minutes) = read(format!("m{n}"), true) {
            station.minutes = minutes;
        }
        let cycle = read(format!("c{n}"), true);
        let soak = read(format!("k{n}"), false);
        if let (Some(cycle), Some(soak)) = (cycle, soak)
            && capability.cycle_soak
        {
            station.cycle = cycle
                .filter(|c| *c > RunTime::ZERO)
                .map(|cycle| CycleSoak { cycle, soak: soak.unwrap_or(RunTime::ZERO) });
        }
    }
}

impl ProgramForm {
    pub(crate) fn of(
        c: &Controller,
        letter: ProgramLetter,
        plan: &Plan,
        budget: Option<&YearBudget>,
        week: &Expansion,
        typed: Form,
        units: Units,
    ) -> Self {
        let w = Words;
        let k = &c.capability;
        let form = if typed.has("mode") { typed } else { filled(c, letter) };
        let mut modes = vec![Choice::new("weekdays", w.t("mode-weekdays"))];
        if k.day_modes.odd_even {
            modes.push(Choice::new("odd", w.t("mode-odd-days")));
            modes.push(Choice::new("even", w.t("mode-even-days")));
        }
        if k.day_modes.every_max > 0 {
            modes.push(Choice::new("every", w.t("mode-every-days")));
        }
        let work = week_work(plan, week);
        let by_hand = c.is_by_hand(letter);
        let stations = plan
            .of_program(letter)
            .map(|s| {
                let n = s.number;
                let ran = week.runs.iter().filter(|r| r.station == n && r.letter == letter);
                let mut first: Vec<RunTime> = Vec::new();
                let mut date = None;
                for run in ran {
                    if date.is_none_or(|d| d == (run.date, run.by)) {
                        date = Some((run.date, run.by));
                        first.push(run.length);
                    }
                }
                let total = RunTime::from_seconds(first.iter().map(|r| r.seconds()).sum());
                let own = work.stations.iter().find(|x| x.number == n);
                StationFields {
                    number: n,
                    name: c.station(n).map_or_else(String::new, |s| s.name.clone()),
                    minutes_field: format!("m{n}"),
                    cycle_field: format!("c{n}"),
                    soak_field: format!("k{n}"),
                    worked: worked_out(c, budget, n)
                        .map_or_else(String::new, |m| w.t1("week-as-worked", number(m, usize::from(m.fract() != 0.0)))),
                    run: if by_hand { "·".to_owned() } else { minutes(total) },
                    cycles: match first.len() {
                        0 => "·".to_owned(),
                        1 => w.t("week-in-one"),
                        _ => cycles_text(&cycles(total, s.cycle.map(|c| c.cycle), k.run_step)),
                    },
                    week: match own {
                        _ if by_hand => "·".to_owned(),
                        Some(o) => Measure::Depth.figure(o.net_mm, units),
                        None => String::new(),
                    },
                    water: own
                        .filter(|_| !by_hand)
                        .and_then(|o| o.volume_m3)
                        .map_or_else(|| "·".to_owned(), volume_text(units)),
                }
            })
            .collect();
        Self {
            letter: letter.get().to_string(),
            title: w.t1("week-program-head", program_label(c.program(letter), letter)),
            modes,
            days: day_fields(),
            by_hand,
            has_never: k.never_days,
            has_every: k.day_modes.every_max > 0,
            has_split: !k.cycle_soak || c.program(letter).is_some_and(|p| p.schedule.split > 1),
            starts: (0..k.starts).map(|i| (format!("start{i}"), w.t1("week-start-n", (i + 1).to_string()))).collect(),
            stations,
            stations_head: w.t1("week-stations", w.t("at-hundred-short")),
            depth_unit: Measure::Depth.unit(units),
            volume_unit: crate::charts::volume_unit(units),
            has_cycles: k.cycle_soak,
            form,
        }
    }
}

/// `3 × 8` where all are alike, else `8 + 7 + 7`.
fn cycles_text(parts: &[RunTime]) -> String {
    match parts {
        [first, ..] if parts.iter().all(|p| p == first) => format!("{} × {}", parts.len(), minutes(*first)),
        _ => parts.iter().map(|p| minutes(*p)).collect::<Vec<_>>().join(" + "),
    }
}
