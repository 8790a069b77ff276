use std::borrow::Cow;
use std::collections::HashMap;

use chrono::{DateTime, NaiveDate, TimeDelta, Utc};

use super::ground::{Ground, Part, ReplayStation};
use crate::controller::{Controller, ProgramLetter};
use crate::landscape::{CycleSoak, cycles, runoff_mm};
use crate::quantity::{Percent, RunTime};
use crate::schedule::{Due, Opening, Plan, ValveLine};

/// Water of one station on one local date.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Dose {
    /// How long its valve is open, s.
    pub seconds: f64,
    /// Waterings that begin.
    pub waterings: f64,
    /// Depth that reaches the surface, mm, of the average and of the driest quarter.
    pub applied_mm: [f64; 2],
    /// What of it runs off, mm.
    pub runoff_mm: [f64; 2],
}

impl Dose {
    /// A run by itself, in the cycles of a setting.
    pub(super) fn of_run(station: &ReplayStation, run: RunTime, setting: Option<CycleSoak>, step: RunTime) -> Self {
        let (mut at, mut spans) = (0, Vec::new());
        for cycle in cycles(run, setting.map(|s| s.cycle), step) {
            let shuts = at + i64::from(cycle.seconds());
            spans.push((at, shuts));
            at = shuts + setting.map_or(0, |s| i64::from(s.soak.seconds()));
        }
        let mut dose = Self { seconds: f64::from(run.seconds()), waterings: 1.0, ..Self::default() };
        for part in Part::ALL {
            let rate = station.rate_mm_per_hour * station.share(part);
            dose.applied_mm[part.index()] = rate * dose.seconds / 3600.0;
            dose.runoff_mm[part.index()] = runoff_mm(&station.surface, rate, &spans).iter().sum();
        }
        dose
    }

    pub(super) fn add(&mut self, more: &Self) {
        self.seconds += more.seconds;
        self.waterings += more.waterings;
        for part in Part::ALL.map(Part::index) {
            self.applied_mm[part] += more.applied_mm[part];
            self.runoff_mm[part] += more.runoff_mm[part];
        }
    }
}

/// At which percent each program starts on a date, nothing where it does not, and which of them grow in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub struct ProgramPercents {
    percents: [Option<Percent>; ProgramLetter::ALL.len()],
    /// A date with the starts of a program that grows in; nothing for the usual ones.
    grow_in: [Option<NaiveDate>; ProgramLetter::ALL.len()],
}

impl ProgramPercents {
    /// Starts a program.
    pub fn set(&mut self, letter: ProgramLetter, percent: Percent) {
        self.percents[letter.index()] = Some(percent);
    }

    /// Gives a program the starts that it has on a date while a planting grows in.
    pub fn grow_in(&mut self, letter: ProgramLetter, date: NaiveDate) {
        self.grow_in[letter.index()] = Some(date);
    }

    /// The percent of a program.
    #[must_use]
    pub fn get(&self, letter: ProgramLetter) -> Option<Percent> {
        self.percents[letter.index()]
    }
}

/// Doses of a day of starts: on its own date, and what still runs after midnight.
#[derive(Debug, Clone, PartialEq)]
struct DayDoses {
    same_day: Vec<Dose>,
    after_midnight: Option<Vec<Dose>>,
}

/// The daily doses of what a panel holds, apart from the dates: a day of the same programs at the same
/// percents is worked out once.
///
/// Doses come from the same valve line as the dated runs. A change of the clocks, and a program of
/// yesterday that runs into today's starts, move runs and no water, so they are left out.
#[derive(Debug)]
pub struct DoseBook<'a> {
    controller: &'a Controller,
    plan: &'a Plan,
    ground: &'a Ground,
    known: HashMap<ProgramPercents, DayDoses>,
}

impl<'a> DoseBook<'a> {
    /// A book of a controller's plan.
    #[must_use]
    pub fn of(controller: &'a Controller, plan: &'a Plan, ground: &'a Ground) -> Self {
        Self { controller, plan, ground, known: HashMap::new() }
    }

    /// Adds the doses of a day's starts to those of its date, and to those of the next one what runs
    /// after midnight.
    pub fn add(&mut self, starts: ProgramPercents, today: &mut [Dose], tomorrow: &mut [Dose]) {
        let (controller, plan, ground) = (self.controller, self.plan, self.ground);
        let doses = self.known.entry(starts).or_insert_with(|| day_doses(controller, plan, ground, starts));
        for (sum, dose) in today.iter_mut().zip(&doses.same_day) {
            sum.add(dose);
        }
        for (sum, dose) in tomorrow.iter_mut().zip(doses.after_midnight.iter().flatten()) {
            sum.add(dose);
        }
    }
}

fn day_doses(controller: &Controller, plan: &Plan, ground: &Ground, starts: ProgramPercents) -> DayDoses {
    let midnight = DateTime::<Utc>::UNIX_EPOCH;
    let mut due: Vec<Due> = Vec::new();
    for program in &controller.programs {
        let Some(percent) = starts.get(program.letter) else { continue };
        let schedule = match starts.grow_in[program.letter.index()] {
            Some(date) => controller.schedule_on(program, date),
            None => Cow::Borrowed(&program.schedule),
        };
        for by in &schedule.starts {
            let at = midnight + TimeDelta::minutes(i64::from(by.minute_of_day()));
            due.push(Due { at, letter: program.letter, percent });
        }
    }
    due.sort_by_key(|d| (d.at, d.letter));
    let mut line = ValveLine::of(controller, plan);
    let mut openings: Vec<Opening> = Vec::new();
    for turn in due.into_iter().filter_map(|d| line.take(d)) {
        let began = turn.began - midnight;
        let from_midnight = |o: &Opening| Opening { opens: began + o.opens, ..*o };
        openings.extend(turn.openings.iter().map(from_midnight));
    }
    let over = openings.last().is_some_and(|o| seconds(o.shuts()) > DAY);
    let pairs = ground.stations.iter().map(|station| {
        let mut own: Vec<&Opening> = openings.iter().filter(|o| o.station == station.number).collect();
        own.sort_by_key(|o| o.opens);
        // Cut at midnight, so that each date has its own water.
        let spans: Vec<(i64, i64)> = own
            .iter()
            .flat_map(|o| {
                let (opens, shuts) = (seconds(o.opens), seconds(o.shuts()));
                let cut = if (opens + 1..shuts).contains(&DAY) { DAY } else { shuts };
                [(opens, cut), (cut, shuts)]
            })
            .filter(|(opens, shuts)| shuts > opens)
            .collect();
        let mut pair = [Dose::default(); 2];
        for (opens, shuts) in &spans {
            let dose = &mut pair[usize::from(*opens >= DAY)];
            dose.seconds += (shuts - opens) as f64;
        }
        for first in own.iter().filter(|o| o.cycle == 1) {
            pair[usize::from(seconds(first.opens) >= DAY)].waterings += 1.0;
        }
        for part in Part::ALL {
            let rate = station.rate_mm_per_hour * station.share(part);
            for dose in &mut pair {
                dose.applied_mm[part.index()] = rate * dose.seconds / 3600.0;
            }
            for ((opens, _), lost) in spans.iter().zip(runoff_mm(&station.surface, rate, &spans)) {
                pair[usize::from(*opens >= DAY)].runoff_mm[part.index()] += lost;
            }
        }
        pair
    });
    let pairs: Vec<[Dose; 2]> = pairs.collect();
    DayDoses {
        same_day: pairs.iter().map(|p| p[0]).collect(),
        after_midnight: over.then(|| pairs.iter().map(|p| p[1]).collect()),
    }
}

/// Seconds of a day.
const DAY: i64 = 86_400;

const fn seconds(from_midnight: TimeDelta) -> i64 {
    from_midnight.num_seconds()
}
