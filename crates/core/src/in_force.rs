//! What is in force at a controller on a date: the one answer that runs, dialling in, the question why it did
//! not water, and every view go by (three states: planned, on the panel, as found).

use chrono::NaiveDate;

use crate::budget::Dial;
use crate::controller::{Controller, ProgramLetter, Temporary, TemporaryKind};
use crate::quantity::{MonthOfYear, Percent};
use crate::schedule::Plan;

/// What is in force on a date.
#[derive(Debug, Clone, PartialEq)]
pub struct InForce {
    /// The date.
    pub on: NaiveDate,
    /// What keeps the whole controller from watering, first cause first; empty when it is on.
    pub off: Vec<OffBy>,
    /// The programs, by letter.
    pub programs: Vec<ProgramInForce>,
    /// The sensors, in their order.
    pub sensors: Vec<SensorInForce>,
}

/// Why a controller does not water.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum OffBy {
    /// The panel was found off, and nothing says that it was put back.
    Found {
        /// When it was found so.
        on: NaiveDate,
    },
    /// It was switched off for a while.
    Set(Temporary),
    /// A rain delay is counted by the panel.
    RainDelay(Temporary),
}

/// A program on a date.
#[derive(Debug, Clone, PartialEq)]
pub struct ProgramInForce {
    /// Its letter.
    pub letter: ProgramLetter,
    /// Off, or the percent.
    pub dial: Dial,
    /// Who sets it.
    pub by: SetBy,
}

/// Who sets a percent.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum SetBy {
    /// The month's value.
    Month,
    /// Somebody, for a while.
    ForAWhile(Temporary),
    /// An ET sensor, every night: what the month says is what to expect, and nobody enters it.
    EtSensor,
    /// A person, who starts each run: the panel has no start for it.
    ByHand,
}

/// A sensor on a date.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SensorInForce {
    /// Its id.
    pub id: u16,
    /// The bypass that silences it.
    pub bypass: Option<Temporary>,
}

impl InForce {
    /// Whether the controller waters at all.
    #[must_use]
    pub const fn is_on(&self) -> bool {
        self.off.is_empty()
    }

    /// Off, or the percent of a program; off for one that the controller has not.
    #[must_use]
    pub fn dial(&self, letter: ProgramLetter) -> Dial {
        self.program(letter).map_or(Dial::Off, |p| p.dial)
    }

    /// A program.
    #[must_use]
    pub fn program(&self, letter: ProgramLetter) -> Option<&ProgramInForce> {
        self.programs.iter().find(|p| p.letter == letter)
    }

    /// The month of the date.
    #[must_use]
    pub fn month(&self) -> MonthOfYear {
        MonthOfYear::of(self.on)
    }
}

/// What is in force at a controller on a date.
///
/// What was set for a while holds to its last day and, where [`Controller::as_of`] told that nobody has put it
/// back, on from there. `found_off` is when the panel was last found off, with nothing dialled since.
#[must_use]
pub fn in_force(controller: &Controller, plan: &Plan, found_off: Option<NaiveDate>, date: NaiveDate) -> InForce {
    let holding: Vec<&Temporary> = controller.temporaries.iter().filter(|t| t.holds_on(date)).collect();
    let found = found_off.filter(|on| date >= *on).map(|on| OffBy::Found { on });
    let set = holding.iter().filter_map(|t| match t.kind {
        TemporaryKind::Off => Some(OffBy::Set((*t).clone())),
        TemporaryKind::RainDelay => Some(OffBy::RainDelay((*t).clone())),
        _ => None,
    });
    let program = |letter| {
        let for_a_while = percent_for_a_while(controller, plan, letter, date);
        let (dial, by) = match for_a_while {
            Some((percent, t)) => (Dial::Percent(percent), SetBy::ForAWhile(t.clone())),
            None => {
                let by = match () {
                    () if controller.is_by_hand(letter) => SetBy::ByHand,
                    () if controller.percent_by_sensor(letter) => SetBy::EtSensor,
                    () => SetBy::Month,
                };
                (plan.dial(letter, MonthOfYear::of(date)), by)
            }
        };
        ProgramInForce { letter, dial, by }
    };
    let sensor = |id| {
        let bypass = TemporaryKind::Bypass { sensor: id };
        SensorInForce { id, bypass: holding.iter().rev().find(|t| t.kind == bypass).map(|t| (*t).clone()) }
    };
    InForce {
        on: date,
        off: found.into_iter().chain(set).collect(),
        programs: controller.programs.iter().map(|p| program(p.letter)).collect(),
        sensors: controller.sensors.iter().map(|s| sensor(s.id)).collect(),
    }
}

/// The percent that is set for a while for a program on a date; of several the one that was set last.
pub(crate) fn percent_for_a_while<'a>(
    controller: &'a Controller,
    plan: &Plan,
    letter: ProgramLetter,
    date: NaiveDate,
) -> Option<(Percent, &'a Temporary)> {
    let month = plan.percent_of_month(letter, MonthOfYear::of(date));
    let governs = |t: &&Temporary| t.holds_on(date) && t.kind.sets_percent_of(letter);
    controller.temporaries.iter().rev().filter(governs).find_map(|t| {
        let percent = match t.kind {
            // Checked when it was set: it stands as it is.
            TemporaryKind::Percent { percent, .. } | TemporaryKind::GrowIn { percent, .. } => percent,
            _ => controller.capability.dial(t.percent_on(date, month)?),
        };
        Some((percent, t))
    })
}
