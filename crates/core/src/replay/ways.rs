use super::set::{Candidate, Kind};
use super::strategy::Strategy;
use super::what_if::WhatIf;
use crate::budget::YearBudget;
use crate::controller::{Controller, ProgramLetter, Station};
use crate::place::Bound;
use crate::quantity::MonthOfYear;
use crate::schedule::Plan;

/// A school of thought about how a program waters.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Way {
    /// One dose a week.
    OnceAWeek,
    /// When the root zone has lost its allowed depth, up to the brim.
    Refill,
    /// On every day that is allowed, with a soil-moisture sensor that holds back what is not needed.
    EveryAllowedDay,
    /// On the days that are set, with a percent by month or by sensor.
    SetDays,
    /// By a person who starts each run.
    ByHand,
}

/// What a way gives in a mean week of a month: means over the stations of the program.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WayWeek {
    /// Waterings a week.
    pub waterings: f64,
    /// Net depth of a watering, mm.
    pub depth_mm: f64,
    /// Net depth a week, mm.
    pub week_mm: f64,
    /// What the plants need in that week, mm.
    pub need_mm: f64,
}

impl Way {
    /// All of them, from the seldomest to the one that needs a person.
    pub const ALL: [Self; 5] = [Self::OnceAWeek, Self::Refill, Self::EveryAllowedDay, Self::SetDays, Self::ByHand];

    /// Days a week that it sets on a panel; nothing where the days stay, or where no panel counts them.
    #[must_use]
    pub fn days(self, controller: &Controller, rules: &Bound) -> Option<u8> {
        match self {
            Self::OnceAWeek => Some(1),
            Self::EveryAllowedDay => {
                Some(rules.days_all_year().count().min(controller.capability.watering_days).max(1))
            }
            Self::Refill | Self::SetDays | Self::ByHand => None,
        }
    }

    /// The controller with programs of these letters on the days of the way. Minutes that nobody set and percents
    /// that nobody chose follow.
    #[must_use]
    pub fn applied(self, controller: &Controller, plan: &Plan, rules: &Bound, letters: &[ProgramLetter]) -> Controller {
        let days = self.days(controller, rules);
        WhatIf { days, ..WhatIf::default() }.applied(controller, plan, rules, letters)
    }

    /// The way at work; `candidate` holds the controller as [`applied`](Self::applied) made it.
    #[must_use]
    pub fn strategy<'a>(self, candidate: &'a Candidate<'a>) -> Box<dyn Strategy + 'a> {
        match self {
            Self::OnceAWeek | Self::SetDays => Box::new(candidate.planned()),
            Self::Refill => candidate.strategy(Kind::Deficit),
            Self::EveryAllowedDay => candidate.strategy(Kind::SoilSensor),
            Self::ByHand => candidate.strategy(Kind::ByHand),
        }
    }

    /// What it gives a program in a mean week of a month; `budget` is that of the controller as
    /// [`applied`](Self::applied) made it. Nothing for a program without stations.
    ///
    /// A refill gives RAW of the station that dries first, as often as the need asks for; a person gives the need of
    /// the week at once.
    #[must_use]
    pub fn week(
        self,
        controller: &Controller,
        budget: &YearBudget,
        letter: ProgramLetter,
        month: MonthOfYear,
    ) -> Option<WayWeek> {
        let stations: Vec<&Station> = controller.stations.iter().filter(|s| s.program == letter).collect();
        let known = budget.group(letter)?.month(month);
        let own: Vec<_> = known.stations.iter().filter(|m| stations.iter().any(|s| s.number == m.number)).collect();
        if own.is_empty() {
            return None;
        }
        let weeks = month.mean_days() / 7.0;
        let mean = |sum: f64| sum / own.len() as f64 / weeks;
        let need_mm = mean(own.iter().map(|m| m.demand.demand_mm).sum());
        let given = |waterings: f64, week_mm: f64| WayWeek {
            waterings,
            depth_mm: if waterings > 0.0 { week_mm / waterings } else { 0.0 },
            week_mm,
            need_mm,
        };
        Some(match self {
            Self::OnceAWeek | Self::EveryAllowedDay | Self::SetDays => {
                let waterings = own.iter().map(|m| m.waterings).fold(0.0, f64::max);
                given(waterings, mean(own.iter().map(|m| m.delivered_mm).sum()))
            }
            Self::Refill => {
                let days = |s: &Station| s.zone().raw_mm() / s.landscape_coefficients()[month.index()].max(0.01);
                let raw_mm = stations.iter().min_by(|a, b| days(a).total_cmp(&days(b)))?.zone().raw_mm();
                given(if raw_mm > 0.0 { need_mm / raw_mm } else { 0.0 }, need_mm)
            }
            Self::ByHand => given(1.0, need_mm),
        })
    }
}
