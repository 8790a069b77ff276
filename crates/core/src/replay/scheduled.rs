//! Days and starts at a percent, under rules and holds.

use std::borrow::Cow;

use chrono::{Datelike, NaiveDate};

use super::by_hand::ByHand;
use super::dose::{Dose, DoseBook, ProgramPercents};
use super::ground::Ground;
use super::hold::Hold;
use super::state::{Day, State};
use super::strategy::Strategy;
use crate::controller::{Controller, DayMode, Program, ProgramLetter, StartTime, TemporaryKind};
use crate::place::Bound;
use crate::quantity::{MonthOfYear, Percent};
use crate::schedule::{Level, Plan};
use crate::sensor::{ET_MEAN_DAYS, SensorKind};

/// Where the percent of a program comes from.
#[derive(Debug, Clone, PartialEq)]
pub enum PercentBy {
    /// From the twelve of the plan.
    Month,
    /// The same all year.
    Fixed(Percent),
    /// From an ET sensor: the running mean of reference ET over the last days, against a reference.
    EtSensor {
        /// Reference ET at which it sets 100 %, mm a day.
        reference_mm_per_day: f64,
        /// Its trim, as a factor.
        trim: f64,
        /// Days of the mean.
        days: usize,
        /// The programs that it sets; none for all of them. The others go by month.
        only: Option<Vec<ProgramLetter>>,
    },
}

impl PercentBy {
    /// Where the percents of a controller come from: an ET sensor for the programs that it sets, else the months.
    #[must_use]
    pub fn of(controller: &Controller) -> Self {
        let sensor = controller.sensors.iter().find_map(|s| match &s.kind {
            SensorKind::Et { setting, programs } if s.jumper_removed || !s.has_contact() => {
                Some((setting.reference_mm_per_day(), setting.share(), programs.clone()))
            }
            _ => None,
        });
        sensor.map_or(Self::Month, |(reference_mm_per_day, trim, programs)| Self::EtSensor {
            reference_mm_per_day,
            trim,
            days: ET_MEAN_DAYS,
            only: Some(programs),
        })
    }
}

/// A hold, and the sensor of the controller that it is, where it is one.
#[derive(Debug, Clone)]
struct Held {
    hold: Hold,
    sensor: Option<u16>,
}

/// A program that starts on a day.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct DueProgram {
    /// The program.
    pub letter: ProgramLetter,
    /// Its first start.
    pub first: StartTime,
    /// At which percent.
    pub percent: Percent,
    /// Whether a planting grows in, so that its starts are not the usual ones.
    pub grow_in: bool,
}

/// The days and starts of a controller at a percent, under rules and holds.
#[derive(Debug)]
pub struct Scheduled<'a> {
    controller: &'a Controller,
    plan: &'a Plan,
    book: DoseBook<'a>,
    days: Vec<(ProgramLetter, [DayMode; 12])>,
    percent: PercentBy,
    holds: Vec<Held>,
    /// Who waters the programs that are left to a person.
    hands: Option<ByHand<'a>>,
    /// The rules that it obeys; none for a panel that waters whatever they say.
    rules: Option<&'a Bound>,
    /// Whether what is set for a while holds on its dates, and counts of days begin at their next date.
    dated: bool,
    scratch: [Vec<Dose>; 2],
}

impl<'a> Scheduled<'a> {
    /// A schedule that nothing holds.
    #[must_use]
    pub fn new(controller: &'a Controller, plan: &'a Plan, ground: &'a Ground, percent: PercentBy) -> Self {
        let none = || vec![Dose::default(); ground.stations.len()];
        Self {
            controller,
            plan,
            book: DoseBook::of(controller, plan, ground),
            days: controller.programs.iter().map(|p| (p.letter, controller.days_of_year(p.letter))).collect(),
            percent,
            holds: Vec::new(),
            hands: None,
            rules: None,
            dated: false,
            scratch: [none(), none()],
        }
    }

    /// The same on allowed days only.
    #[must_use]
    pub fn under(mut self, rules: &'a Bound) -> Self {
        self.rules = Some(rules);
        self
    }

    /// The same, with a person who waters the programs that are watered by hand, as the week's card says.
    #[must_use]
    pub fn with_hands(mut self, ground: &'a Ground, rules: &'a Bound) -> Self {
        self.hands = ByHand::of(self.controller, self.plan, ground, rules);
        self
    }

    /// The same as it really ran: what was set for a while holds on its dates.
    #[must_use]
    pub const fn on_its_dates(mut self) -> Self {
        self.dated = true;
        self
    }

    /// The same with holds.
    #[must_use]
    pub fn held_by(mut self, holds: impl IntoIterator<Item = Hold>) -> Self {
        self.holds.extend(holds.into_iter().map(|hold| Held { hold, sensor: None }));
        self
    }

    /// The same under the sensors of a controller that can act. On its dates one that is bypassed for a while does not.
    #[must_use]
    pub fn held_by_sensors_of(mut self, controller: &Controller, sunrise_hours: [f64; 12]) -> Self {
        let own = controller.sensors.iter().filter_map(|s| {
            let hold = Hold::of(s, controller, sunrise_hours)?;
            Some(Held { hold, sensor: Some(s.id) })
        });
        self.holds.extend(own);
        self
    }

    /// The programs that start on a day, whatever holds them.
    pub fn due(&self, day: &Day<'_>) -> Vec<DueProgram> {
        let date = day.date();
        if self.rules.is_some_and(|r| !r.allows_day(date)) {
            return Vec::new();
        }
        let due = self.controller.programs.iter().filter(|p| self.waters_on(p, date)).filter_map(|program| {
            let percent = self.percent(program.letter, day)?;
            // What is set for a while is of its own year.
            let grow_in = self.dated && self.controller.grows_in(program, date);
            let own =
                if grow_in { self.controller.schedule_on(program, date) } else { Cow::Borrowed(&program.schedule) };
            let first = *own.starts.first()?;
            Some(DueProgram { letter: program.letter, first, percent, grow_in })
        });
        due.collect()
    }

    /// Whether a sensor is bypassed on a date.
    fn is_bypassed(&self, sensor: Option<u16>, date: NaiveDate) -> bool {
        let bypass = |sensor| TemporaryKind::Bypass { sensor };
        let own = &self.controller.temporaries;
        self.dated && sensor.is_some_and(|id| own.iter().any(|t| t.kind == bypass(id) && t.holds_on(date)))
    }

    /// Whether a program waters on a date: as it really did, or by its days whatever the year.
    fn waters_on(&self, program: &Program, date: NaiveDate) -> bool {
        if self.dated {
            let stopped = self.controller.temporaries.iter().any(|t| t.stops_watering() && t.holds_on(date));
            return !stopped && self.controller.waters_on(program, date);
        }
        let days = self.days.iter().find(|(letter, _)| *letter == program.letter);
        let mode = days.map(|(_, modes)| modes[MonthOfYear::of(date).index()]);
        mode.is_some_and(|m| m.falls_on(date)) && !program.schedule.never.holds(date.weekday())
    }

    fn percent(&self, letter: ProgramLetter, day: &Day<'_>) -> Option<Percent> {
        let by_month = || {
            if self.dated {
                self.plan.percent_on(self.controller, letter, day.date(), Level::Calendar)
            } else {
                self.plan.percent_of_month(letter, MonthOfYear::of(day.date()))
            }
        };
        match &self.percent {
            PercentBy::Month => by_month(),
            PercentBy::Fixed(percent) => Some(*percent),
            PercentBy::EtSensor { only: Some(only), .. } if !only.contains(&letter) => by_month(),
            PercentBy::EtSensor { reference_mm_per_day, trim, days, .. } => {
                let mean = day.season.et0_before(day.index, *days);
                let exact = 100.0 * trim * mean / reference_mm_per_day.max(0.1);
                // A sensor sets whole percents, up to what any controller takes.
                Percent::new(exact.round().clamp(0.0, 400.0) as u16).ok().filter(|p| p.get() > 0)
            }
        }
    }
}

impl Strategy for Scheduled<'_> {
    fn water(&mut self, day: &Day<'_>, state: &State<'_>, today: &mut [Dose], tomorrow: &mut [Dose]) {
        let date = day.date();
        let mut starts = ProgramPercents::default();
        let mut held: Vec<(ProgramLetter, usize)> = Vec::new();
        let due = self.due(day);
        for program in &due {
            starts.set(program.letter, program.percent);
            if program.grow_in {
                starts.grow_in(program.letter, date);
            }
            for (index, held_by) in self.holds.iter().enumerate() {
                let acts = !self.is_bypassed(held_by.sensor, date);
                if acts && held_by.hold.holds(day.season, day.index, program.first, state) {
                    held.push((program.letter, index));
                }
            }
        }
        let any = !due.is_empty();
        if any && held.is_empty() {
            self.book.add(starts, today, tomorrow);
        } else if any {
            // Held stations keep their place in the line; only their valves stay shut.
            for doses in &mut self.scratch {
                doses.fill(Dose::default());
            }
            let [own, after] = &mut self.scratch;
            self.book.add(starts, own, after);
            for (index, station) in self.plan.stations.iter().enumerate() {
                let shut = held.iter().any(|(letter, hold)| {
                    station.programs.contains(&Some(*letter)) && self.holds[*hold].hold.governs(station.number)
                });
                if !shut {
                    today[index].add(&own[index]);
                    tomorrow[index].add(&after[index]);
                }
            }
        }
        // What would still run into a closed day is left out by who obeys the rules.
        if self.rules.is_some_and(|r| date.succ_opt().is_some_and(|next| !r.allows_day(next))) {
            tomorrow.fill(Dose::default());
        }
        if let Some(hands) = &mut self.hands {
            hands.water(day, state, today, tomorrow);
        }
        for Held { hold, .. } in &mut self.holds {
            hold.end_day(day.season, day.index);
        }
    }
}
