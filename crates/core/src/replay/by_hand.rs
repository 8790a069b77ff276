use super::dose::Dose;
use super::engine::{Keep, replay};
use super::ground::{Ground, Part, ReplayStation};
use super::season::Season;
use super::state::{Day, State};
use super::strategy::{Nothing, Strategy};
use crate::budget::Dial;
use crate::controller::{Capability, Controller, Station};
use crate::landscape::{CycleSoak, cycles, gross_minutes};
use crate::place::Bound;
use crate::quantity::{MonthOfYear, RunTime};
use crate::schedule::Plan;

/// A run that fills the root zone of a station up, as somebody starts it by hand.
#[derive(Debug, Clone, PartialEq)]
pub struct HandRun {
    /// Terminal number.
    pub station: u8,
    /// Net depth that it gives back, mm.
    pub missing_mm: f64,
    /// How long in all.
    pub run: RunTime,
    /// The cycles, longer ones first; one where the soil takes it all at once.
    pub cycles: Vec<RunTime>,
    /// The least rest between two cycles; nothing where there is only one.
    pub soak: Option<RunTime>,
}

impl HandRun {
    /// The run of a station that lacks a net depth, mm, in the steps of a panel and within its longest run.
    ///
    /// Whether the panel makes cycles itself does not matter: whoever starts a run by hand can start it again.
    #[must_use]
    pub fn of(capability: &Capability, station: &ReplayStation, missing_mm: f64) -> Self {
        let wanted = gross_minutes(missing_mm.max(0.0), station.rate_mm_per_hour, station.multiplier);
        let run = capability.run(wanted);
        let setting = station.surface.setting(capability);
        let cycles = cycles(run, setting.map(|s| s.cycle), capability.run_step);
        let soak = setting.map(|s| s.soak).filter(|_| cycles.len() > 1);
        Self { station: station.number, missing_mm, run, cycles, soak }
    }
}

/// What each station lacks at the end of some days that it began full and without any watering, mm by number: what its
/// plants used, less the rain that stayed.
#[must_use]
pub fn used_without_water(controller: &Controller, season: &Season) -> Vec<(u8, f64)> {
    let mut ground = Ground::of(controller);
    ground.stations.iter_mut().for_each(|s| s.depletion_start_mm = 0.0);
    let dry = replay(&ground, season, &Bound::open(), &mut Nothing, Keep::Days);
    let last = |s: &super::StationReplay| {
        let daily = s.daily.as_ref().map(|d| &d[Part::Average.index()]);
        (s.number, daily.and_then(|d| d.depletion_mm.last()).copied().unwrap_or(0.0))
    };
    dry.stations.iter().map(last).collect()
}

/// Somebody who comes once a week and gives each station what its plants used since, less what rain brought.
///
/// The day is the first of a calendar week, from Monday, on which watering is allowed.
#[derive(Debug, Clone)]
pub struct ByHand<'a> {
    capability: &'a Capability,
    ground: &'a Ground,
    rules: &'a Bound,
    /// The stations that are watered so, by number, and in which months, January first; nothing for all of them all year.
    only: Option<Vec<(u8, [bool; 12])>>,
    /// The calendar week in which somebody was last there.
    came: Option<chrono::IsoWeek>,
}

impl<'a> ByHand<'a> {
    /// The stations of a panel, watered by hand.
    #[must_use]
    pub const fn new(capability: &'a Capability, ground: &'a Ground, rules: &'a Bound) -> Self {
        Self { capability, ground, rules, only: None, came: None }
    }

    /// The stations of the programs that a controller leaves to a person, in the months that are not off; nothing where
    /// there are none.
    #[must_use]
    pub fn of(controller: &'a Controller, plan: &Plan, ground: &'a Ground, rules: &'a Bound) -> Option<Self> {
        let by_hand = |s: &&Station| controller.is_by_hand(s.program);
        let months = |s: &Station| MonthOfYear::ALL.map(|month| plan.dial(s.program, month) != Dial::Off);
        let only: Vec<(u8, [bool; 12])> =
            controller.stations.iter().filter(by_hand).map(|s| (s.number, months(s))).collect();
        let all = Self::new(&controller.capability, ground, rules);
        (!only.is_empty()).then_some(Self { only: Some(only), ..all })
    }
}

impl Strategy for ByHand<'_> {
    fn water(&mut self, day: &Day<'_>, state: &State<'_>, today: &mut [Dose], _: &mut [Dose]) {
        use chrono::Datelike;
        let week = day.date().iso_week();
        if self.came == Some(week) || !self.rules.allows_day(day.date()) {
            return;
        }
        self.came = Some(week);
        for (index, station) in self.ground.stations.iter().enumerate() {
            let month = MonthOfYear::of(day.date()).index();
            let is_own = |only: &Vec<(u8, [bool; 12])>| only.iter().any(|(n, on)| *n == station.number && on[month]);
            if !self.only.as_ref().is_none_or(is_own) {
                continue;
            }
            let hand = HandRun::of(self.capability, station, state.at(index).depletion_mm);
            if hand.run > RunTime::ZERO {
                let setting = hand.soak.map(|soak| CycleSoak { cycle: hand.cycles[0], soak });
                today[index].add(&Dose::of_run(station, hand.run, setting, self.capability.run_step));
            }
        }
    }
}
