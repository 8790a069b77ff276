use super::by_hand::ByHand;
use super::deficit::Deficit;
use super::ground::Ground;
use super::hold::Hold;
use super::scheduled::{PercentBy, Scheduled};
use super::strategy::{Nothing, Strategy};
use crate::climate::normals::Normals;
use crate::controller::Controller;
use crate::found::{Panel, SensorSwitch, Switch};
use crate::place::Bound;
use crate::quantity::Percent;
use crate::schedule::Plan;
use crate::sensor::ET_MEAN_DAYS;
use crate::sensor::{RainSetting, SensorKind};

/// One of the usual ways of watering.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// No water at all.
    Nothing,
    /// The panel as it was found; as it is planned where it never was.
    AsFound,
    /// The schedule at 100 % all year.
    Fixed,
    /// The schedule at the percents of the months.
    ByMonth,
    /// The schedule at the percents of an ET sensor.
    EtSensor,
    /// By month, held by a rain sensor.
    RainSensor,
    /// By month, held by a soil-moisture sensor.
    SoilSensor,
    /// A controller that keeps the balance of each station.
    Deficit,
    /// A person who comes once a week and starts each run.
    ByHand,
}

impl Kind {
    /// All of them, in the order in which they are shown.
    pub const ALL: [Self; 9] = [
        Self::Nothing,
        Self::AsFound,
        Self::Fixed,
        Self::ByMonth,
        Self::EtSensor,
        Self::RainSensor,
        Self::SoilSensor,
        Self::Deficit,
        Self::ByHand,
    ];

    /// Its word in files and addresses.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Nothing => "nothing",
            Self::AsFound => "as_found",
            Self::Fixed => "fixed",
            Self::ByMonth => "by_month",
            Self::EtSensor => "et_sensor",
            Self::RainSensor => "rain_sensor",
            Self::SoilSensor => "soil_sensor",
            Self::Deficit => "deficit",
            Self::ByHand => "by_hand",
        }
    }

    /// The one of a word.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|k| k.word() == word)
    }

    /// Whether it keeps to the watering days of the place.
    #[must_use]
    pub const fn obeys_rules(self) -> bool {
        !matches!(self, Self::AsFound)
    }
}

/// What the usual strategies of a controller are made from.
#[derive(Debug, Clone)]
pub struct Candidate<'a> {
    /// The controller as it is planned.
    pub controller: &'a Controller,
    /// Its figures.
    pub plan: &'a Plan,
    /// Its stations.
    pub ground: &'a Ground,
    /// Its panel as found, as a controller with its figures, and whether it was on and its sensors
    /// obeyed.
    pub found: Option<Found>,
    /// The rules of the place.
    pub rules: &'a Bound,
    /// Reference ET of the month with most, mm a day: where an ET sensor sets 100 %.
    pub peak_et0_mm_per_day: f64,
    /// Hour of sunrise by month, January first, by the clock of the place.
    pub sunrise_hours: [f64; 12],
    /// The share of RAW at which a deficit controller refills; usually [`REFILL_SHARE`].
    pub refill_share: f64,
}

/// A panel as it was found, ready to be run.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// The controller as the panel would run it, with the stations of the plan.
    pub controller: Controller,
    /// Its figures.
    pub plan: Plan,
    /// Whether it was on.
    pub on: bool,
    /// Whether it obeyed its sensors.
    pub sensors: bool,
}

impl Found {
    /// A panel as found. Stations that it does not run keep their place without minutes.
    #[must_use]
    pub fn of(panel: &Panel, known: &Controller) -> Self {
        let mut controller = panel.as_controller(known);
        for station in &known.stations {
            if controller.station(station.number).is_none() {
                let mut idle = station.clone();
                idle.minutes = Some(crate::quantity::RunTime::ZERO);
                idle.also = None;
                controller.stations.push(idle);
            }
        }
        controller.stations.sort_by_key(|s| s.number);
        let plan = Plan::of(&controller, None);
        Self { controller, plan, on: panel.switch == Switch::On, sensors: panel.sensor != SensorSwitch::Bypassed }
    }
}

/// The peak month's reference ET, mm a day.
#[must_use]
pub fn peak_et0(normals: &Normals) -> f64 {
    normals.iter().map(|n| n.et0_mm_per_day).fold(0.0, f64::max)
}

/// A soil sensor of a comparison lets water from this share of RAW on: it must not wait until the
/// plants feel it, since the next watering day may be some days off. Ours.
pub const SOIL_SHARE_OF_RAW: f64 = 0.5;

/// A deficit controller of a comparison usually refills at this share of RAW.
pub const REFILL_SHARE: f64 = 1.0;

impl<'a> Candidate<'a> {
    fn scheduled(&'a self, percent: PercentBy) -> Scheduled<'a> {
        let on_days = Scheduled::new(self.controller, self.plan, self.ground, percent).under(self.rules);
        on_days.with_hands(self.ground, self.rules)
    }

    /// The controller as it is planned, sensors that can act included, on the days that the rules allow.
    #[must_use]
    pub fn planned(&'a self) -> Scheduled<'a> {
        self.held_by_its_sensors(self.scheduled(PercentBy::of(self.controller)))
    }

    /// A strategy, ready for the first day of a season.
    #[must_use]
    pub fn strategy(&'a self, kind: Kind) -> Box<dyn Strategy + 'a> {
        match kind {
            Kind::Nothing => Box::new(Nothing),
            Kind::AsFound => self.as_found(),
            Kind::Fixed => Box::new(self.scheduled(PercentBy::Fixed(Percent::FULL))),
            Kind::ByMonth => Box::new(self.scheduled(PercentBy::Month)),
            Kind::EtSensor => Box::new(self.scheduled(PercentBy::EtSensor {
                reference_mm_per_day: self.peak_et0_mm_per_day,
                trim: 1.0,
                days: ET_MEAN_DAYS,
                only: None,
            })),
            Kind::RainSensor => {
                let own = self.controller.sensors.iter().find_map(|s| match s.kind {
                    SensorKind::Rain { setting, .. } => Some((setting, s.exempt.clone())),
                    _ => None,
                });
                let roofed = || self.controller.stations.iter().filter(|s| s.roofed).map(|s| s.number).collect();
                let (setting, exempt) = own.unwrap_or_else(|| (RainSetting::USUAL, roofed()));
                Box::new(self.scheduled(PercentBy::Month).held_by([Hold::rain(setting, exempt)]))
            }
            Kind::SoilSensor => {
                // One sensor a program, in the station that dries first.
                let holds = self.controller.programs.iter().filter_map(|p| {
                    let own = self.ground.stations.iter().filter(|s| self.program_of(s.number) == Some(p.letter));
                    let days = |s: &&super::ReplayStation| s.zone.raw_mm() / s.highest_kl().max(0.01);
                    let first = own.min_by(|a, b| days(a).total_cmp(&days(b)))?;
                    Some(Hold::Soil {
                        depletion_share: SOIL_SHARE_OF_RAW * first.zone.p,
                        station: first.number,
                        exempt: self
                            .controller
                            .stations
                            .iter()
                            .filter(|s| s.program != p.letter)
                            .map(|s| s.number)
                            .collect(),
                    })
                });
                Box::new(self.scheduled(PercentBy::Month).held_by(holds))
            }
            Kind::Deficit => Box::new(Deficit::new(self.controller, self.ground, self.rules, self.refill_share)),
            Kind::ByHand => Box::new(ByHand::new(&self.controller.capability, self.ground, self.rules)),
        }
    }

    fn program_of(&self, number: u8) -> Option<crate::controller::ProgramLetter> {
        self.controller.station(number).map(|s| s.program)
    }

    fn as_found(&'a self) -> Box<dyn Strategy + 'a> {
        match &self.found {
            Some(found) if !found.on => Box::new(Nothing),
            Some(found) => {
                let percent = PercentBy::Month;
                let ran = Scheduled::new(&found.controller, &found.plan, self.ground, percent);
                let ran = ran.with_hands(self.ground, self.rules);
                Box::new(if found.sensors { self.held_by_its_sensors(ran) } else { ran })
            }
            None => {
                let percent = PercentBy::of(self.controller);
                let ran = Scheduled::new(self.controller, self.plan, self.ground, percent);
                Box::new(self.held_by_its_sensors(ran.with_hands(self.ground, self.rules)))
            }
        }
    }

    fn held_by_its_sensors(&self, ran: Scheduled<'a>) -> Scheduled<'a> {
        ran.held_by_sensors_of(self.controller, self.sunrise_hours)
    }
}

/// All the usual strategies, ready for the first day of a season, in the order of [`Kind::ALL`].
pub fn strategies<'a>(candidate: &'a Candidate<'a>) -> impl Iterator<Item = (Kind, Box<dyn Strategy + 'a>)> {
    Kind::ALL.into_iter().map(|kind| (kind, candidate.strategy(kind)))
}
