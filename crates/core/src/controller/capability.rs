use thiserror::Error;

use crate::field::{FieldFault, Fields};
use crate::quantity::{Percent, RunTime};

/// Where a controller keeps its percent.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PercentStorage {
    /// Twelve percents, one a month, entered once.
    ByMonth,
    /// One percent, turned by hand when the month changes.
    Single,
}

/// What one percent governs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PercentScope {
    /// Every program at once.
    AllPrograms,
    /// Each program its own.
    EachProgram,
}

/// What a controller can be set to: data that the technician edits, not code.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Capability {
    /// Station terminals, 1 to 48.
    pub stations: u8,
    /// Lowest percent that can be dialled.
    pub percent_min: Percent,
    /// Highest percent that can be dialled.
    pub percent_max: Percent,
    /// Step of the percent, counted from 0.
    pub percent_step: Percent,
    /// Where the percent is kept.
    pub percent_storage: PercentStorage,
    /// What one percent governs.
    pub percent_scope: PercentScope,
    /// Step of the run time.
    pub run_step: RunTime,
    /// Longest run time of a station.
    pub run_max: RunTime,
    /// Days a week it may water as the keeper wants; [`Bound::limit`](crate::place::Bound::limit) comes on top.
    pub watering_days: u8,
    /// Programs, 1 to 4.
    pub programs: u8,
    /// Start times of each program.
    pub starts: u8,
    /// Step of a start time, minutes.
    pub start_step: u16,
    /// Day modes beside weekdays.
    pub day_modes: DayModes,
    /// Whether single weekdays can be closed to every mode.
    pub never_days: bool,
    /// Whether it cuts runs into cycles by itself.
    pub cycle_soak: bool,
    /// Longest pause between stations; none where there is no such setting.
    pub station_delay_max: RunTime,
    /// Water windows that it keeps; 0 where it has none.
    pub water_windows: u8,
    /// Sensor inputs.
    pub sensor_inputs: u8,
    /// What its sensor input takes for at rest.
    pub contact: Contact,
    /// Longest rain delay, days; 0 where there is none.
    pub rain_delay_max: u8,
    /// Whether a month can be off. Where it cannot, somebody switches off by hand and comes back.
    pub months_off: bool,
    /// Whether each station can be told to obey the sensors or not.
    pub sensor_by_station: bool,
    /// In what order the panel asks for its values.
    pub panel_order: PanelOrder,
    /// How a start that is not used is turned off.
    pub start_off: StartOff,
    /// How the panel shows the time.
    pub clock_face: ClockFace,
}

/// The order in which a panel asks for its values.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum PanelOrder {
    /// The minutes of every station, then each program's days and starts.
    #[default]
    MinutesFirst,
    /// Each program's days and starts, then the minutes of every station.
    ProgramsFirst,
}

/// How a panel turns a start off that is not used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum StartOff {
    /// By stepping past the last time of the day.
    #[default]
    PastMidnight,
    /// By a key of its own.
    Key,
    /// By clearing the slot, which then shows dashes.
    Cleared,
}

/// How a panel shows the time.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum ClockFace {
    /// 16:20.
    #[default]
    Hours24,
    /// 4:20 pm.
    Hours12,
}

/// Day modes that a controller has beside weekdays.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct DayModes {
    /// Odd and even dates.
    pub odd_even: bool,
    /// Most days from one watering to the next in "every N days"; 0 where there is no such mode.
    pub every_max: u8,
}

/// How a dry contact stands while its sensor has nothing to report.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Contact {
    /// Closed at rest, opens to hold watering: the usual one.
    #[default]
    NormallyClosed,
    /// Open at rest, closes to hold watering.
    NormallyOpen,
}

/// Why a capability is not valid.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum CapabilityError {
    /// A field holds what it may not.
    #[error(transparent)]
    Field(#[from] FieldFault),
    /// The lowest percent is not below the highest.
    #[error("the lowest percent {min} is not below the highest {max}")]
    PercentRangeEmpty {
        /// Lowest.
        min: u16,
        /// Highest.
        max: u16,
    },
    /// The percent range has to hold 100, at which base minutes run as set.
    #[error("the percent range {min} to {max} does not hold 100")]
    HundredOutside {
        /// Lowest.
        min: u16,
        /// Highest.
        max: u16,
    },
    /// The longest run is shorter than one step.
    #[error("the longest run is shorter than one step of the run time")]
    RunMaxUnderStep,
}

impl Capability {
    /// Gives the capability back when it is valid.
    ///
    /// # Errors
    /// [`CapabilityError`] for the first thing that is not valid.
    pub fn checked(self) -> Result<Self, CapabilityError> {
        self.check_fields()?;
        let (min, max) = (self.percent_min.get(), self.percent_max.get());
        if min >= max {
            return Err(CapabilityError::PercentRangeEmpty { min, max });
        }
        if !(min..=max).contains(&100) {
            return Err(CapabilityError::HundredOutside { min, max });
        }
        if self.run_max < self.run_step {
            return Err(CapabilityError::RunMaxUnderStep);
        }
        Ok(self)
    }

    /// The nearest percent that can be dialled: steps count from 0, halves go up, and the ends
    /// of the range hold even where they are no multiple of the step.
    ///
    /// ```
    /// use upland_core::controller::Preset;
    /// let tens = Preset::Plain.capability();
    /// assert_eq!(tens.dial(87.4).get(), 90);
    /// assert_eq!(tens.dial(3.0).get(), 10);
    /// assert_eq!(tens.dial(300.0).get(), 200);
    /// ```
    #[must_use]
    pub fn dial(&self, exact: f64) -> Percent {
        dial_percent(exact, self.percent_step, self.percent_min, self.percent_max)
    }

    /// Whether exactly this percent can be dialled.
    #[must_use]
    pub fn can_dial(&self, percent: Percent) -> bool {
        let on_step = percent.get().is_multiple_of(self.percent_step.get().max(1));
        let at_an_end = percent == self.percent_min || percent == self.percent_max;
        (self.percent_min..=self.percent_max).contains(&percent) && (on_step || at_an_end)
    }

    /// A run time as this controller runs it: to its step, halves up, no longer than its longest.
    #[must_use]
    pub fn run(&self, minutes: f64) -> RunTime {
        let step = f64::from(self.run_step.seconds().max(1));
        let longest = f64::from(self.run_max.seconds());
        let seconds = ((minutes.max(0.0) * 60.0 / step + 0.5 + 1e-9).floor() * step).min(longest);
        RunTime::from_seconds(seconds as u32)
    }

    /// What a base run time becomes at a percent: the percent first, then the run-time step.
    ///
    /// ```
    /// use upland_core::{controller::Preset, quantity::{Percent, RunTime}};
    /// let plain = Preset::Plain.capability();
    /// let minutes = |m, p| plain.scaled(RunTime::from_minutes(m).unwrap(), Percent::new(p).unwrap()).minutes();
    /// // Common practice: 90 % of 10 min is 9, 200 % of 8 is 16; half of 15 is 7.5, run as 8.
    /// assert_eq!((minutes(10.0, 90), minutes(8.0, 200), minutes(15.0, 50)), (9.0, 16.0, 8.0));
    /// ```
    #[must_use]
    pub fn scaled(&self, base: RunTime, percent: Percent) -> RunTime {
        self.run(base.minutes() * f64::from(percent.get()) / 100.0)
    }
}

/// [`Capability::dial`] for a bare step and range.
#[must_use]
pub(crate) fn dial_percent(exact: f64, step: Percent, min: Percent, max: Percent) -> Percent {
    let step_size = f64::from(step.get().max(1));
    let stepped = (exact.max(0.0) / step_size + 0.5 + 1e-9).floor() * step_size;
    let held = stepped.clamp(f64::from(min.get()), f64::from(max.get()));
    // NaN casts to 0 and is then held at the lowest.
    Percent::new(held as u16).map_or(max, |p| p.clamp(min, max))
}

/// Neutral starting points for a new controller; every value can be edited afterwards.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Preset {
    /// A plain panel: one percent in tens for everything, whole minutes.
    Plain,
    /// A panel with a percent for each month and program, in fives.
    Monthly,
    /// A large panel that steps in single percents and half minutes.
    Fine,
    /// A small panel with a dial and a clock of twelve hours that asks program by program.
    Dial,
    /// A controller that runs on a battery in a valve box.
    Valve,
    /// Many stations on one pair of wires.
    TwoWire,
}

impl Preset {
    /// All of them, simplest first.
    pub const ALL: [Self; 6] = [Self::Valve, Self::Dial, Self::Plain, Self::Monthly, Self::Fine, Self::TwoWire];

    /// What such a controller can be set to. Ranges of our own, common among many panels.
    #[must_use]
    pub const fn capability(self) -> Capability {
        let plain = Capability {
            stations: 8,
            percent_min: Percent::literal(10),
            percent_max: Percent::literal(200),
            percent_step: Percent::literal(10),
            percent_storage: PercentStorage::Single,
            percent_scope: PercentScope::AllPrograms,
            run_step: RunTime::from_seconds(60),
            run_max: RunTime::from_seconds(240 * 60),
            watering_days: 7,
            programs: 3,
            starts: 4,
            start_step: 15,
            day_modes: DayModes { odd_even: true, every_max: 0 },
            never_days: false,
            cycle_soak: false,
            station_delay_max: RunTime::ZERO,
            water_windows: 0,
            sensor_inputs: 1,
            contact: Contact::NormallyClosed,
            rain_delay_max: 3,
            months_off: false,
            sensor_by_station: false,
            panel_order: PanelOrder::MinutesFirst,
            start_off: StartOff::PastMidnight,
            clock_face: ClockFace::Hours24,
        };
        match self {
            Self::Plain => plain,
            Self::Dial => Capability {
                stations: 6,
                percent_max: Percent::literal(150),
                day_modes: DayModes { odd_even: true, every_max: 14 },
                panel_order: PanelOrder::ProgramsFirst,
                start_off: StartOff::Cleared,
                clock_face: ClockFace::Hours12,
                ..plain
            },
            Self::Valve => Capability {
                stations: 4,
                starts: 3,
                start_step: 5,
                day_modes: DayModes { odd_even: false, every_max: 30 },
                rain_delay_max: 7,
                start_off: StartOff::Key,
                ..plain
            },
            Self::Monthly => Capability {
                stations: 12,
                percent_step: Percent::literal(5),
                percent_min: Percent::literal(5),
                percent_storage: PercentStorage::ByMonth,
                percent_scope: PercentScope::EachProgram,
                day_modes: DayModes { odd_even: true, every_max: 7 },
                never_days: true,
                cycle_soak: true,
                station_delay_max: RunTime::from_seconds(600),
                rain_delay_max: 7,
                months_off: true,
                sensor_by_station: true,
                ..plain
            },
            Self::Fine => Capability {
                stations: 24,
                percent_step: Percent::literal(1),
                percent_min: Percent::literal(5),
                percent_storage: PercentStorage::ByMonth,
                percent_scope: PercentScope::EachProgram,
                run_step: RunTime::from_seconds(30),
                run_max: RunTime::from_seconds(600 * 60),
                programs: 4,
                starts: 8,
                start_step: 1,
                day_modes: DayModes { odd_even: true, every_max: 31 },
                never_days: true,
                cycle_soak: true,
                station_delay_max: RunTime::from_seconds(3600),
                water_windows: 2,
                sensor_inputs: 3,
                rain_delay_max: 14,
                months_off: true,
                sensor_by_station: true,
                ..plain
            },
            Self::TwoWire => Capability {
                stations: 48,
                percent_max: Percent::literal(300),
                sensor_inputs: 4,
                contact: Contact::NormallyOpen,
                run_step: RunTime::from_seconds(10),
                rain_delay_max: 30,
                start_off: StartOff::Key,
                ..Self::Fine.capability()
            },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_ends_of_the_range_hold_off_the_step() {
        let odd = Capability { percent_min: Percent::literal(5), ..Preset::Plain.capability() };
        assert_eq!(odd.dial(2.0).get(), 5);
        assert_eq!(odd.dial(14.9).get(), 10);
        assert_eq!(odd.dial(15.0).get(), 20);
        assert!(odd.can_dial(Percent::literal(5)) && !odd.can_dial(Percent::literal(15)));
    }

    #[test]
    fn runs_go_to_the_step_half_up_and_stop_at_the_longest() {
        let fine = Preset::Fine.capability();
        assert_eq!(fine.run(7.24).minutes(), 7.0);
        assert_eq!(fine.run(7.25).minutes(), 7.5);
        assert_eq!(fine.run(9999.0).minutes(), 600.0);
        assert_eq!(fine.run(f64::NAN).minutes(), 0.0);
    }

    #[test]
    fn presets_can_be_and_broken_ones_cannot() {
        for preset in Preset::ALL {
            assert!(preset.capability().checked().is_ok());
        }
        let base = Preset::Plain.capability();
        assert!(
            matches!(Capability { stations: 0, ..base }.checked(), Err(CapabilityError::Field(f)) if f.field == "stations")
        );
        assert!(matches!(
            Capability { percent_max: Percent::literal(90), ..base }.checked(),
            Err(CapabilityError::HundredOutside { .. })
        ));
        assert!(matches!(
            Capability { percent_min: base.percent_max, ..base }.checked(),
            Err(CapabilityError::PercentRangeEmpty { .. })
        ));
        assert!(matches!(
            Capability { run_max: RunTime::from_seconds(60), run_step: RunTime::from_seconds(120), ..base }.checked(),
            Err(CapabilityError::RunMaxUnderStep)
        ));
    }
}
