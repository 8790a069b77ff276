use std::fmt;

use super::{Section, Slot, Value};
use crate::quantity::MonthOfYear;

/// Which setting of its section a slot is, where a section has several.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
enum Part {
    Date,
    Cycle,
    Days,
    Start,
    WindowTo,
    Vent,
    DaysAfterRain,
    EtOffset,
    /// The setting that the section is named after.
    Main,
}

impl Part {
    const fn of(value: &Value) -> Self {
        match value {
            Value::Date => Self::Date,
            Value::Cycle(_) => Self::Cycle,
            Value::Days(..) => Self::Days,
            Value::Start(_) | Value::StartOff => Self::Start,
            Value::WindowTo(_) => Self::WindowTo,
            Value::Vent(_) => Self::Vent,
            Value::DaysAfterRain(_) => Self::DaysAfterRain,
            Value::EtOffset(_) => Self::EtOffset,
            _ => Self::Main,
        }
    }
}

/// Names a slot, whatever it reads: the same slot of the same panel always has the same one.
///
/// Shown, it is the key under which records keep the slot.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct SlotId {
    section: Section,
    part: Part,
    index: u8,
    month: Option<MonthOfYear>,
}

impl Slot {
    /// Names the slot.
    #[must_use]
    pub const fn id(&self) -> SlotId {
        SlotId { section: self.section, part: Part::of(&self.value), index: self.index, month: self.month }
    }
}

impl fmt::Display for SlotId {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let index = self.index;
        let percent = |f: &mut fmt::Formatter<'_>| match self.month {
            Some(month) => write!(f, "percent.{}", month.number()),
            None => f.write_str("percent"),
        };
        match (self.section, self.part) {
            (Section::Clock, Part::Date) => f.write_str("clock.date"),
            (Section::Clock, _) => f.write_str("clock.time"),
            (Section::Minutes, _) => write!(f, "minutes.{index}"),
            (Section::Soak, Part::Cycle) => write!(f, "cycle.{index}"),
            (Section::Soak, _) => write!(f, "soak.{index}"),
            (Section::Program(l), Part::Days) => write!(f, "{}.days", l.get()),
            (Section::Program(l), Part::Start) => write!(f, "{}.start.{index}", l.get()),
            (Section::Program(l), _) => {
                write!(f, "{}.", l.get())?;
                percent(f)
            }
            (Section::Percent, _) => percent(f),
            (Section::StationDelay, _) => f.write_str("station_delay"),
            (Section::WaterWindows, Part::WindowTo) => write!(f, "window.{index}.to"),
            (Section::WaterWindows, _) => write!(f, "window.{index}.from"),
            (Section::RainDelay, _) => f.write_str("rain_delay"),
            (Section::Sensor, _) => f.write_str("sensor"),
            (Section::Obeys, _) => write!(f, "obeys.{index}"),
            (Section::SensorSetting(id), Part::Vent) => write!(f, "sensor.{id}.vent"),
            (Section::SensorSetting(id), Part::DaysAfterRain) => write!(f, "sensor.{id}.days"),
            (Section::SensorSetting(id), Part::EtOffset) => write!(f, "sensor.{id}.offset"),
            (Section::SensorSetting(id), _) => write!(f, "sensor.{id}"),
            (Section::Switch, _) => f.write_str("switch"),
        }
    }
}
