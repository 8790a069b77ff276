use std::borrow::Cow;

use std::collections::HashMap;

use chrono::{Datelike, NaiveDate};

use super::dose::{Dose, DoseBook, ProgramPercents};
use super::ground::Ground;
use super::hold::Hold;
use super::state::{Day, State};
use crate::controller::{Controller, DayMode, Program, ProgramLetter, StartTime, TemporaryKind};
use crate::landscape::gross_minutes;
use crate::place::Bound;
use crate::quantity::{MonthOfYear, Percent};
use crate::schedule::{Level, Plan};
use crate::sensor::{ET_MEAN_DAYS, SensorKind};

/// A way of watering: what it gives on a day, from the weather so far and how the stations stand.
pub trait Strategy {
    /// Adds the doses of what starts on a day to those of its date, and to those of the next one what
    /// runs after midnight. Days come in their order, each once.
    fn water(&mut self, day: &Day<'_>, state: &State<'_>, today: &mut [Dose], tomorrow: &mut [Dose]);
}

/// No water at all.
#[derive(Debug, Clone, Copy, Default)]
pub struct Nothing;

impl Strategy for Nothing {
    fn water(&mut self, _: &Day<'_>, _: &State<'_>, _: &mut [Dose], _: &mut [Dose]) {}
}

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
        for Held { hold, .. } in &mut self.holds {
            hold.end_day(day.season, day.index);
        }
    }
}

/// Days that a deficit controller looks back on for what tomorrow will use.
const OUTLOOK_DAYS: usize = 7;

/// A deficit controller: it keeps the balance itself and fills a station up when its plants would feel
/// the lack before the next allowed day.
#[derive(Debug)]
pub struct Deficit<'a> {
    controller: &'a Controller,
    ground: &'a Ground,
    rules: &'a Bound,
    /// Refill point as a share of RAW.
    refill: f64,
    /// Doses already worked out, by station and seconds.
    known: HashMap<(usize, u32), Dose>,
}

impl<'a> Deficit<'a> {
    /// A deficit controller with a refill point, as a share of RAW.
    #[must_use]
    pub fn new(controller: &'a Controller, ground: &'a Ground, rules: &'a Bound, refill: f64) -> Self {
        Self { controller, ground, rules, refill, known: HashMap::new() }
    }

    /// Days until the next one on which it may water, 1 at least; a week where no day is allowed.
    fn days_to_next(&self, date: NaiveDate) -> u32 {
        (1..=7).find(|n| date.checked_add_days(chrono::Days::new(*n)).is_some_and(|d| self.rules.allows_day(d))).map_or(
            7,
            // 1 to 7.
            |n| n as u32,
        )
    }
}

impl Strategy for Deficit<'_> {
    fn water(&mut self, day: &Day<'_>, state: &State<'_>, today: &mut [Dose], _: &mut [Dose]) {
        if !self.rules.allows_day(day.date()) {
            return;
        }
        let month = MonthOfYear::of(day.date());
        let ahead = day.season.et0_before(day.index, OUTLOOK_DAYS) * f64::from(self.days_to_next(day.date()));
        for (index, station) in self.ground.stations.iter().enumerate() {
            let standing = state.at(index);
            let missing = standing.depletion_mm;
            if missing <= 0.0 || missing + station.kl_in(month) * ahead <= self.refill * station.zone.raw_mm() {
                continue;
            }
            let wanted = gross_minutes(missing, station.rate_mm_per_hour, station.multiplier);
            let run = self.controller.capability.run(wanted);
            if run.seconds() == 0 {
                continue;
            }
            let capability = &self.controller.capability;
            let dose = *self.known.entry((index, run.seconds())).or_insert_with(|| {
                let setting = station.surface.setting(capability).filter(|_| capability.cycle_soak);
                Dose::of_run(station, run, setting, capability.run_step)
            });
            today[index].add(&dose);
        }
    }
}
