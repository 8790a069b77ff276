use super::{Section, Slot, Value};
use crate::controller::Days;
use crate::found::{Panel, SensorSwitch, Switch};
use crate::quantity::RunTime;

/// What a slot showed when the panel was written down; nothing where that was not written down.
#[must_use]
pub fn shown(slot: &Slot, panel: &Panel) -> Option<Value> {
    let program = |letter| panel.programs.iter().find(|p| p.letter == letter);
    match (slot.section, slot.value) {
        (Section::Minutes, _) => {
            let minutes = panel.stations.iter().find(|s| s.number == slot.index).map(|s| s.minutes);
            Some(minutes.filter(|m| *m > RunTime::ZERO).map_or(Value::NoMinutes, Value::Minutes))
        }
        (Section::Program(letter), Value::Days(..)) => program(letter).map(|p| Value::Days(p.days, Days::NONE)),
        (Section::Program(letter), Value::Start(_) | Value::StartOff) => {
            let starts = program(letter).map(|p| p.starts.as_slice()).unwrap_or_default();
            let start = starts.get(usize::from(slot.index.saturating_sub(1)));
            Some(start.map_or(Value::StartOff, |s| Value::Start(*s)))
        }
        (Section::Program(letter), Value::Percent(_) | Value::PercentOff) if slot.month.is_none() => {
            program(letter).map(|p| Value::Percent(p.percent))
        }
        (Section::Percent, _) if slot.month.is_none() => panel.programs.first().map(|p| Value::Percent(p.percent)),
        (Section::Sensor, _) => match panel.sensor {
            SensorSwitch::Active => Some(Value::SensorActive),
            SensorSwitch::Bypassed => Some(Value::SensorBypassed),
            SensorSwitch::None => None,
        },
        (Section::Switch, _) => Some(match panel.switch {
            Switch::On => Value::SwitchOn,
            Switch::Off => Value::SwitchOff,
        }),
        _ => None,
    }
}
