use super::{Section, Slot, Value};
use crate::controller::MonthDial;
use crate::found::{FoundProgram, Panel, SensorSwitch, Switch};
use crate::quantity::{MonthOfYear, RunTime};

/// What a slot showed when the panel was written down; nothing where that was not written down.
#[must_use]
pub fn shown(slot: &Slot, panel: &Panel) -> Option<Value> {
    let program = |letter| panel.programs.iter().find(|p| p.letter == letter);
    match (slot.section, slot.value) {
        (Section::Minutes, _) => {
            let minutes = panel.stations.iter().find(|s| s.number == slot.index).map(|s| s.minutes);
            Some(minutes.filter(|m| *m > RunTime::ZERO).map_or(Value::NoMinutes, Value::Minutes))
        }
        (Section::Program(letter), Value::Days(..)) => program(letter).map(|p| Value::Days(p.days, p.never)),
        (Section::Program(letter), Value::Start(_) | Value::StartOff) => {
            let starts = program(letter).map(|p| p.starts.as_slice()).unwrap_or_default();
            let start = starts.get(usize::from(slot.index.saturating_sub(1)));
            Some(start.map_or(Value::StartOff, |s| Value::Start(*s)))
        }
        (Section::Program(letter), Value::Percent(_) | Value::PercentOff) => {
            program(letter).and_then(|p| percent_in(p, slot.month, panel))
        }
        (Section::Percent, _) => panel.programs.first().and_then(|p| percent_in(p, slot.month, panel)),
        (Section::Soak, value) => {
            let cycle = panel.stations.iter().find(|s| s.number == slot.index)?.cycle?;
            Some(if matches!(value, Value::Cycle(_)) { Value::Cycle(cycle.cycle) } else { Value::Soak(cycle.soak) })
        }
        (Section::Sensor, _) => match panel.sensor {
            SensorSwitch::Active => Some(Value::SensorActive),
            SensorSwitch::Bypassed => Some(Value::SensorBypassed),
            SensorSwitch::None => None,
        },
        (Section::Switch, _) => Some(match panel.switch {
            Switch::On | Switch::Held => Value::SwitchOn,
            Switch::Off => Value::SwitchOff,
        }),
        _ => None,
    }
}

/// The percent of a month as far as it was written down: all twelve, or the one of the day.
fn percent_in(program: &FoundProgram, month: Option<MonthOfYear>, panel: &Panel) -> Option<Value> {
    let today = MonthOfYear::of(panel.seen_at.date());
    let month = month.unwrap_or(today);
    (month == today || program.months.is_some()).then(|| match program.dial(month) {
        MonthDial::Set(percent) => Value::Percent(percent),
        _ => Value::PercentOff,
    })
}
