pub(crate) mod change;
pub(crate) mod preview;
pub(crate) mod proposals;
pub(crate) mod show;

use upland_core::controller::{Controller, DayMode, ProgramLetter, StartTime};
use upland_core::schedule::{Level, Situation, check, propose_as, repair_all};

use crate::form::Form;
use crate::pages::findings::finding_key;
use crate::pages::proposals::wish_of;
use crate::pages::week::{read_program, read_stations, weekday_of};
use crate::words::Words;

/// The program that a form or an address names.
fn letter_of(form: &Form) -> Option<ProgramLetter> {
    form.get("program").chars().next().and_then(ProgramLetter::new)
}

fn level_of(form: &Form) -> Level {
    if form.is("at", "highest") { Level::Highest } else { Level::Calendar }
}

/// Makes the change that a form asks for; gives the word of what was done. Errors stand in the
/// form.
fn decide(
    form: &mut Form,
    controller: &mut Controller,
    situation: &Situation<'_, chrono_tz::Tz>,
    nearest: bool,
) -> &'static str {
    let letter = letter_of(form);
    match form.get("do") {
        "propose" => {
            let (wish, grouping) = wish_of(form);
            *controller = propose_as(situation, controller, grouping, wish).controller;
            return "why-proposal";
        }
        "repair-all" => {
            *controller = repair_all(situation, controller).0;
            return "why-repair-all";
        }
        "repair" => {
            let found = check(situation, controller).into_iter().find(|f| finding_key(f) == form.get("finding"));
            if let Some(mended) = found.and_then(|f| f.repair).and_then(|r| r.applied(controller)) {
                *controller = mended;
            }
            return "why-repair";
        }
        "day" => {
            if let (Some(letter), Some(day)) = (letter, weekday_of(form.get("day")))
                && let Some(program) = controller.program_mut(letter)
                && let DayMode::Weekdays(days) = program.schedule.days
            {
                let days = if days.holds(day) { days.without(day) } else { days.with(day) };
                program.schedule.days = DayMode::Weekdays(days);
            }
        }
        "by-hand" => {
            if let Some(program) = letter.and_then(|l| controller.program_mut(l)) {
                program.hand_over();
            }
            return "why-by-hand";
        }
        "move" => move_start(form, controller, letter, nearest),
        _ => {
            let Some(letter) = letter else { return "why-week" };
            let schedule = read_program(form, &controller.capability);
            read_stations(form, controller, letter);
            if let (Some(schedule), Some(program)) = (schedule, controller.program_mut(letter)) {
                program.take_schedule(schedule);
            }
        }
    }
    "why-week"
}

/// A start goes to where it was dragged, to the panel's step; past midnight it stays at its end.
fn move_start(form: &mut Form, controller: &mut Controller, letter: Option<ProgramLetter>, nearest: bool) {
    let step = controller.capability.start_step.max(1);
    let from = StartTime::read(form.get("from"));
    let asked = form.get("to").parse::<f64>().ok().filter(|m| m.is_finite());
    let to = asked.and_then(|minutes| {
        let steps = (minutes.clamp(0.0, 1439.0) / f64::from(step)).round();
        // In a day by the clamp; the last step of the day may round up to 24:00.
        let minute = ((steps * f64::from(step)) as u16).min(1439);
        StartTime::new(minute).ok().map(|t| t.down_to(step))
    });
    let (Some(letter), Some(from), Some(to)) = (letter, from, to) else {
        if !nearest {
            form.fail("start0", Words.t1("week-start-bad", step.to_string()));
        }
        return;
    };
    let Some(program) = controller.program_mut(letter) else { return };
    let starts = &mut program.schedule.starts;
    if starts.contains(&to) {
        return;
    }
    if let Some(start) = starts.iter_mut().find(|s| **s == from) {
        *start = to;
    }
    starts.sort_unstable();
}
