//! The best setting: the least water that is enough, of what the panel can be set to.
//!
//! Searched are the percents of the twelve months, the watering days a week and the rain sensor's
//! setting together, by replay of the weather on record. See docs/decisions/0013.

use std::cell::Cell;
use std::sync::atomic::{AtomicBool, AtomicU32, Ordering};

use super::engine::{Keep, replay};
use super::ground::Ground;
use super::season::Season;
use super::set::{Candidate, REFILL_SHARE};
use super::what_if::{RainChange, WhatIf};
use crate::budget::{Dial, year_budget};
use crate::climate::normals::Normals;
use crate::controller::{Controller, DayMode, ProgramLetter};
use crate::place::Bound;
use crate::quantity::{MonthOfYear, Percent};
use crate::schedule::Plan;
use crate::sensor::RainSetting;

/// What a search is given.
#[derive(Debug, Clone, Copy)]
pub struct BestInput<'a> {
    /// The controller as it is planned.
    pub controller: &'a Controller,
    /// The programs whose setting is searched: those that share a percent.
    pub letters: &'a [ProgramLetter],
    /// The weather.
    pub season: &'a Season,
    /// The weather's normals, where there are any.
    pub normals: Option<&'a Normals>,
    /// The rules of the place.
    pub rules: &'a Bound,
    /// The rain sensor settings that can be chosen; empty where there is no rain sensor.
    pub rain: &'a [RainSetting],
    /// Share of the demand that has to be met.
    pub adequacy: f64,
    /// Hour of sunrise by month, for freeze sensors.
    pub sunrise_hours: [f64; 12],
    /// Where it tells how far it is, and is told to stop.
    pub progress: Option<&'a Progress>,
}

/// How far a search is; another thread reads it and can stop it.
#[derive(Debug, Default)]
pub struct Progress {
    tried: AtomicU32,
    stopped: AtomicBool,
}

impl Progress {
    /// Settings that were tried so far.
    #[must_use]
    pub fn tried(&self) -> u32 {
        self.tried.load(Ordering::Relaxed)
    }

    /// Stops the search: it finds nothing.
    pub fn stop(&self) {
        self.stopped.store(true, Ordering::Relaxed);
    }

    /// Whether it was stopped.
    #[must_use]
    pub fn is_stopped(&self) -> bool {
        self.stopped.load(Ordering::Relaxed)
    }
}

/// A setting that was found.
#[derive(Debug, Clone, PartialEq)]
pub struct Best {
    /// The setting.
    pub setting: WhatIf,
    /// Water applied, mm over the season, by area.
    pub applied_mm: f64,
    /// Share of the demand that is met.
    pub adequacy: f64,
    /// Whether it is enough; if not, it is the most that the panel can give.
    pub enough: bool,
}

/// A search, for tests and benchmarks: what it asks and how often.
#[derive(Debug)]
pub struct Search<'a> {
    input: BestInput<'a>,
    /// The controller with the searched programs and their stations alone: the others only move runs.
    own: Controller,
    ground: Ground,
    /// The months that the season has.
    months: Vec<MonthOfYear>,
    replays: Cell<u32>,
}

/// In a season of so many months everything is tried; a longer one is searched where it is likely.
const SHORT: usize = 4;
/// Of a longer season's coarse answers so many are lowered month by month.
const LOWERED: usize = 3;
/// For so many numbers of days every sensor setting is tried.
const LIKELY_DAYS: usize = 2;

/// Steps of a panel by which a month goes down at a time.
const STRIDES: [u16; 4] = [16, 8, 3, 1];

/// The best setting of a controller's programs; nothing where they have no station, or when it was stopped.
#[must_use]
pub fn best_setting(input: BestInput<'_>) -> Option<Best> {
    Search::of(input)?.best().filter(|_| input.progress.is_none_or(|p| !p.is_stopped()))
}

impl<'a> Search<'a> {
    /// A search; nothing where the programs have no station.
    #[must_use]
    pub fn of(input: BestInput<'a>) -> Option<Self> {
        let mut own = input.controller.clone();
        own.stations.retain(|s| input.letters.contains(&s.program));
        own.programs.retain(|p| own.stations.iter().any(|s| s.runs_in(p.letter)));
        let dates = input.season.counted();
        let months = MonthOfYear::ALL.into_iter().filter(|m| dates.iter().any(|d| MonthOfYear::of(*d) == *m)).collect();
        (!own.stations.is_empty()).then(|| Self { months, ground: Ground::of(&own), own, replays: Cell::new(0), input })
    }

    /// Replays that were made.
    #[must_use]
    pub fn replays(&self) -> u32 {
        self.replays.get()
    }

    /// The search: percents of the year are scaled until they are just enough, for numbers of days and
    /// sensor settings; the few that need least water are then lowered month by month.
    #[must_use]
    pub fn best(&self) -> Option<Best> {
        let short = self.months.len() <= SHORT;
        let mut coarse = if short { self.all_combinations() } else { self.likely_combinations() };
        coarse.sort_by(better);
        let many = if short { coarse.len() } else { LOWERED };
        let lowered = coarse.into_iter().take(many).map(|best| self.lowered(best));
        let exchanged = lowered.map(|best| if short { self.exchanged_all(best) } else { best });
        exchanged.map(|best| self.idle_lowered(best)).min_by(better)
    }

    /// Every number of days with every sensor setting.
    fn all_combinations(&self) -> Vec<Best> {
        let with = |days| self.rain_changes().into_iter().map(move |rain| (days, rain));
        let all = self.days_to_try().into_iter().flat_map(with);
        all.map(|(days, rain)| self.scaled(&WhatIf { days, rain, ..WhatIf::default() })).collect()
    }

    /// Every number of days with the sensor as it is; then, for the best of them, every sensor setting.
    fn likely_combinations(&self) -> Vec<Best> {
        let by_days = self.days_to_try().into_iter();
        let mut found: Vec<Best> = by_days.map(|days| self.scaled(&WhatIf { days, ..WhatIf::default() })).collect();
        found.sort_by(better);
        let likely: Vec<Option<u8>> = found.iter().take(LIKELY_DAYS).map(|b| b.setting.days).collect();
        for days in likely {
            let settings = self.rain_changes().into_iter().filter(|r| *r != RainChange::Keep);
            found.extend(settings.map(|rain| self.scaled(&WhatIf { days, rain, ..WhatIf::default() })));
        }
        found
    }

    fn days_to_try(&self) -> Vec<Option<u8>> {
        let by_weekday = self
            .own
            .programs
            .iter()
            .any(|p| self.input.letters.contains(&p.letter) && matches!(p.schedule.days, DayMode::Weekdays(_)));
        let most = self.input.rules.limit(self.own.capability).watering_days;
        let mut days: Vec<Option<u8>> = vec![None];
        if by_weekday {
            days.extend((1..=most).map(Some));
        }
        days
    }

    fn rain_changes(&self) -> Vec<RainChange> {
        let settings = self.input.rain.iter().map(|s| RainChange::Set(*s));
        std::iter::once(RainChange::Keep).chain(settings).collect()
    }

    fn plan(&self, controller: &Controller) -> Plan {
        let bound = Controller { capability: self.input.rules.limit(controller.capability), ..controller.clone() };
        let budget = self.input.normals.and_then(|n| year_budget(&bound, n).ok());
        Plan::of(controller, budget.as_ref())
    }

    /// What a setting gives.
    #[must_use]
    pub fn ask(&self, setting: &WhatIf) -> Best {
        self.replays.set(self.replays.get() + 1);
        let input = &self.input;
        if let Some(progress) = input.progress {
            progress.tried.fetch_add(1, Ordering::Relaxed);
            if progress.is_stopped() {
                // Of no use to anybody, so that every loop comes to its end.
                return Best { setting: setting.clone(), applied_mm: f64::INFINITY, adequacy: 0.0, enough: false };
            }
        }
        let planned = self.plan(&self.own);
        let controller = setting.applied(&self.own, &planned, input.rules, input.letters);
        let plan = self.plan(&controller);
        let candidate = Candidate {
            controller: &controller,
            plan: &plan,
            ground: &self.ground,
            found: None,
            rules: input.rules,
            // No strategy of a search asks for it.
            peak_et0_mm_per_day: 1.0,
            sunrise_hours: input.sunrise_hours,
            refill_share: REFILL_SHARE,
        };
        let replayed = replay(&self.ground, input.season, input.rules, &mut candidate.planned(), Keep::Average);
        let totals = replayed.totals(None);
        Best {
            setting: setting.clone(),
            applied_mm: totals.applied_mm,
            adequacy: totals.adequacy,
            enough: totals.adequacy >= input.adequacy,
        }
    }

    /// The twelve percents that are called for with this number of days, before any rounding.
    fn called(&self, start: &WhatIf) -> [f64; 12] {
        let input = &self.input;
        let planned = self.plan(&self.own);
        let controller =
            WhatIf { percents: None, ..start.clone() }.applied(&self.own, &planned, input.rules, input.letters);
        let budget = input.normals.and_then(|n| year_budget(&controller, n).ok());
        let group = budget.as_ref().and_then(|b| b.group(*input.letters.first()?));
        MonthOfYear::ALL.map(|m| group.map_or(100.0, |g| g.month(m).percent_exact))
    }

    /// Percents scaled together until they are just enough: the least of the scales tried that is.
    fn scaled(&self, start: &WhatIf) -> Best {
        let capability = &self.own.capability;
        let called = self.called(start);
        let dials = |scale: f64| {
            called.map(|exact| {
                let wanted = exact * scale;
                if wanted < f64::from(capability.percent_min.get()) / 2.0 {
                    Dial::Off
                } else {
                    Dial::Percent(capability.dial(wanted))
                }
            })
        };
        let at = |scale: f64| self.ask(&WhatIf { percents: Some(dials(scale)), ..start.clone() });
        let (mut low, mut high) = (0.1, 1.0);
        let mut best = at(high);
        while !best.enough && high < 4.0 {
            low = high;
            high *= 1.6;
            best = at(high);
        }
        for _ in 0..4 {
            let middle = f64::midpoint(low, high);
            let tried = at(middle);
            if tried.enough {
                (high, best) = (middle, tried);
            } else {
                low = middle;
            }
        }
        best
    }

    /// Months go down while the whole is enough, those first that save most for what they take; by many
    /// steps of the panel at first, then by fewer, at last by one.
    fn lowered(&self, mut best: Best) -> Best {
        for steps in STRIDES {
            while best.enough {
                let Some(next) = self.lowered_once(&best, steps) else { break };
                best = next;
            }
        }
        best
    }

    /// As many months as can go down together by so many steps; nothing where none can.
    fn lowered_once(&self, best: &Best, steps: u16) -> Option<Best> {
        let saves = |b: &Best| (best.applied_mm - b.applied_mm) / (best.adequacy - b.adequacy).max(1e-9);
        let mut lower: Vec<Best> = self.neighbours(best, false, steps);
        lower.retain(|b| b.enough && b.applied_mm < best.applied_mm - 1e-9);
        lower.sort_by(|a, b| saves(b).total_cmp(&saves(a)));
        let first = lower.first()?.clone();
        // What each takes by itself tells about how many fit together; the replay of all has the word.
        let mut left = best.adequacy - self.input.adequacy;
        let mut together = best.setting.percents?;
        for one in &lower {
            left -= best.adequacy - one.adequacy;
            if left < 0.0 {
                break;
            }
            for (all, own) in
                together.iter_mut().zip(one.setting.percents?).filter(|(all, own)| own.percent() < all.percent())
            {
                *all = own;
            }
        }
        let all = self.ask(&WhatIf { percents: Some(together), ..best.setting.clone() });
        Some(if all.enough && all.applied_mm < first.applied_mm { all } else { first })
    }

    /// One month a step up where another can go down for it, as long as that saves.
    fn exchanged_all(&self, mut best: Best) -> Best {
        while let Some(next) = self.exchanged(&best) {
            best = self.lowered(next);
        }
        best
    }

    /// A month whose water never comes, because the sensor holds it, stands no higher than it must.
    fn idle_lowered(&self, mut best: Best) -> Best {
        loop {
            let Some(percents) = best.setting.percents else { return best };
            let mut off = percents;
            let asked: Vec<Best> = self.neighbours(&best, false, u16::MAX / 64);
            for (month, one) in self.months.iter().filter(|m| percents[m.index()] != Dial::Off).zip(&asked) {
                if one.enough && (one.applied_mm - best.applied_mm).abs() < 1e-9 {
                    off[month.index()] = Dial::Off;
                }
            }
            let all = self.ask(&WhatIf { percents: Some(off), ..best.setting.clone() });
            if off == percents || !all.enough {
                return best;
            }
            best = all;
        }
    }

    /// A month up and another down by a step, where that saves water and is enough.
    fn exchanged(&self, best: &Best) -> Option<Best> {
        let mut found: Option<Best> = None;
        for raised in self.neighbours(best, true, 1) {
            for lowered in self.neighbours(&raised, false, 1) {
                let saves = lowered.enough && lowered.applied_mm < best.applied_mm - 1e-9;
                if saves && found.as_ref().is_none_or(|f| lowered.applied_mm < f.applied_mm) {
                    found = Some(lowered);
                }
            }
        }
        found
    }

    /// The settings with one month so many steps higher or lower.
    fn neighbours(&self, best: &Best, up: bool, steps: u16) -> Vec<Best> {
        let Some(percents) = best.setting.percents else { return Vec::new() };
        let months = self.months.iter().filter_map(|month| {
            let mut changed = percents;
            changed[month.index()] = self.step(percents[month.index()], up, steps)?;
            Some(WhatIf { percents: Some(changed), ..best.setting.clone() })
        });
        months.map(|setting| self.ask(&setting)).collect()
    }

    /// The next value that a panel can be set to; under the lowest percent stands off.
    fn step(&self, dial: Dial, up: bool, steps: u16) -> Option<Dial> {
        let c = &self.own.capability;
        let step = f64::from(c.percent_step.get()) * f64::from(steps);
        match (dial, up) {
            (Dial::Off, true) => Some(Dial::Percent(c.percent_min)),
            (Dial::Off, false) => None,
            (Dial::Percent(p), true) => {
                let next = c.dial(f64::from(p.get()) + step);
                (next > p).then_some(Dial::Percent(next))
            }
            (Dial::Percent(p), false) if p <= c.percent_min => Some(Dial::Off),
            (Dial::Percent(p), false) => {
                let next: Percent = c.dial((f64::from(p.get()) - step).max(0.0));
                Some(if next < p { Dial::Percent(next) } else { Dial::Off })
            }
        }
    }
}

/// Enough before not enough; then less water; of what is not enough, what meets more.
fn better(a: &Best, b: &Best) -> std::cmp::Ordering {
    b.enough
        .cmp(&a.enough)
        .then_with(|| if a.enough { a.applied_mm.total_cmp(&b.applied_mm) } else { b.adequacy.total_cmp(&a.adequacy) })
}
