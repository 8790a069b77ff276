use chrono::NaiveDate;

use crate::budget::{Dial, YearBudget};
use crate::controller::{Controller, MonthDial, ProgramLetter};
use crate::in_force::percent_for_a_while;
use crate::landscape::{CycleSoak, run_multiplier};
use crate::quantity::{MonthOfYear, Percent, RunTime};

/// At which percent runs are worked out.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Level {
    /// At that of each date, what is set for a while counted in.
    Calendar,
    /// At the year's highest, to see whether everything fits then too.
    Highest,
}

/// A station on the panel.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PlanStation {
    /// Terminal number.
    pub number: u8,
    /// The program that runs it, and a second one where there is one.
    pub programs: [Option<ProgramLetter>; 2],
    /// Base minutes of a whole watering.
    pub base: RunTime,
    /// Minutes on the panel at 100 %: the base minutes, divided where starts stand in for cycles.
    pub panel: RunTime,
    /// Cycle and soak on the panel.
    pub cycle: Option<CycleSoak>,
    /// Longest run before runoff, min; nothing where the soil takes it as it comes.
    pub longest_minutes: Option<f64>,
    /// Application rate, mm/h.
    pub rate_mm_per_hour: f64,
    /// Run-time multiplier of uneven cover.
    pub multiplier: f64,
    /// Watered area, m², where it is known.
    pub area_m2: Option<f64>,
}

impl PlanStation {
    /// Net depth that a run gives where cover is thin, mm.
    #[must_use]
    pub fn net_mm(&self, run: RunTime) -> f64 {
        run.minutes() / 60.0 * self.rate_mm_per_hour / self.multiplier
    }

    /// Water that a run lets out, m³, where the area is known.
    #[must_use]
    pub fn volume_m3(&self, run: RunTime) -> Option<f64> {
        self.area_m2.map(|area| run.minutes() / 60.0 * self.rate_mm_per_hour * area / 1000.0)
    }
}

/// What stands on the panel, in figures: minutes of each station, percent of each month.
#[derive(Debug, Clone, PartialEq)]
pub struct Plan {
    /// The stations, by number.
    pub stations: Vec<PlanStation>,
    percents: Vec<(ProgramLetter, [Dial; 12])>,
}

impl Plan {
    /// The plan of a controller. Minutes and percents that the technician did not choose come from
    /// the budget; without one such minutes are 0, and such percents 100.
    #[must_use]
    pub fn of(controller: &Controller, budget: Option<&YearBudget>) -> Self {
        let stations = controller.stations.iter().map(|s| {
            let worked_out = budget
                .and_then(|b| b.group(s.program))
                .and_then(|g| g.stations.iter().find(|b| b.number == s.number))
                .map(|b| b.run);
            let base = s.minutes.or(worked_out).unwrap_or(RunTime::ZERO);
            let split = controller.program(s.program).map_or(1, |p| p.schedule.split.max(1));
            PlanStation {
                number: s.number,
                programs: [Some(s.program), s.also],
                base,
                panel: controller.capability.run(base.minutes() / f64::from(split)),
                cycle: s.cycle.filter(|_| controller.capability.cycle_soak),
                longest_minutes: s.runoff().longest_minutes,
                rate_mm_per_hour: s.sprinkler.rate_mm_per_hour().0,
                multiplier: run_multiplier(s.sprinkler.uniformity().0),
                area_m2: s.area_m2,
            }
        });
        let percents = controller.programs.iter().map(|p| {
            let dials = MonthOfYear::ALL.map(|month| {
                let worked_out = budget.and_then(|b| b.group(p.letter)).map(|g| g.month(month).dial);
                worked_out.unwrap_or(match p.months[month.index()].dial {
                    MonthDial::Computed => Dial::Percent(Percent::FULL),
                    MonthDial::Off => Dial::Off,
                    MonthDial::Set(percent) => Dial::Percent(percent),
                })
            });
            (p.letter, dials)
        });
        Self { stations: stations.collect(), percents: percents.collect() }
    }

    /// The station of a number.
    #[must_use]
    pub fn station(&self, number: u8) -> Option<&PlanStation> {
        self.stations.iter().find(|s| s.number == number)
    }

    /// The stations that a program runs, by number.
    pub fn of_program(&self, letter: ProgramLetter) -> impl Iterator<Item = &PlanStation> {
        self.stations.iter().filter(move |s| s.programs.contains(&Some(letter)))
    }

    /// What is dialled for a program in a month.
    #[must_use]
    pub fn dial(&self, letter: ProgramLetter, month: MonthOfYear) -> Dial {
        let found = self.percents.iter().find(|(l, _)| *l == letter);
        found.map_or(Dial::Percent(Percent::FULL), |(_, dials)| dials[month.index()])
    }

    /// The percent of a program in a month, nothing temporary counted; nothing when the month is off.
    #[must_use]
    pub fn percent_of_month(&self, letter: ProgramLetter, month: MonthOfYear) -> Option<Percent> {
        match self.dial(letter, month) {
            Dial::Off => None,
            Dial::Percent(percent) => Some(percent),
        }
    }

    /// The highest percent of a program in the year; nothing when it is off all year.
    #[must_use]
    pub fn highest(&self, letter: ProgramLetter) -> Option<(MonthOfYear, Percent)> {
        let (_, dials) = self.percents.iter().find(|(l, _)| *l == letter)?;
        let months = MonthOfYear::ALL.into_iter().rev().filter_map(|m| match dials[m.index()] {
            Dial::Off => None,
            Dial::Percent(p) => Some((m, p)),
        });
        months.max_by_key(|(_, p)| *p)
    }

    /// The percent at which a program runs on a date: what is set for a while, else the month's.
    /// Nothing in a month that is off.
    #[must_use]
    pub fn percent_on(
        &self,
        controller: &Controller,
        letter: ProgramLetter,
        date: NaiveDate,
        level: Level,
    ) -> Option<Percent> {
        if level == Level::Highest {
            return self.highest(letter).map(|(_, p)| p);
        }
        let for_a_while = percent_for_a_while(controller, self, letter, date).map(|(percent, _)| percent);
        let month = MonthOfYear::of(date);
        for_a_while.or_else(|| self.percent_of_month(letter, month))
    }
}
