use crate::climate::normals::MonthNormal;
use crate::controller::{Capability, MonthDial, MonthPlan};
use crate::quantity::{MonthOfYear, Percent, RunTime};

use super::effective_rain::effective_rain;
use super::station::{LEAST_RUN_MINUTES, StationBase, StationNeed};

/// What stands on the controller for a month.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Dial {
    /// No watering in this month.
    Off,
    /// This percent.
    Percent(Percent),
}

impl Dial {
    /// The percent, 0 when off.
    #[must_use]
    pub const fn percent(self) -> u16 {
        match self {
            Self::Off => 0,
            Self::Percent(p) => p.get(),
        }
    }
}

/// A station's water in a month, mm over the month.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StationDemand {
    /// ET_L: reference ET times K_L.
    pub etl_mm: f64,
    /// Rain that counts, by \[TR-21\].
    pub effective_rain_mm: f64,
    /// Whether the rain of the month covers the demand, counted or not.
    pub rain_covers: bool,
    /// What is left to water.
    pub demand_mm: f64,
}

/// What rain does for a station's budget.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Rain {
    /// It is taken off the demand.
    Counts,
    /// It falls, and something else counts it: a sensor holds the program back.
    Falls,
    /// It never reaches the station.
    NeverFalls,
}

/// Demand of a month: `ET0 x K_L x days`, less effective rain where rain is counted and can fall.
pub(super) fn station_demand(
    need: &StationNeed,
    month: MonthOfYear,
    normal: &MonthNormal,
    rain: Rain,
) -> StationDemand {
    let etl_mm = (normal.et0_mm_per_day * need.kl[month.index()] * month.mean_days()).max(0.0);
    let usable_mm = match normal.rain_mm {
        Some(rain_mm) if rain != Rain::NeverFalls => effective_rain(rain_mm, etl_mm, need.raw_mm),
        _ => 0.0,
    };
    let effective_rain_mm = if rain == Rain::Counts { usable_mm } else { 0.0 };
    // Rain that covers the month leaves nothing, not the last bit of a float.
    let left = |rain_mm: f64| if etl_mm - rain_mm > 1e-9 { etl_mm - rain_mm } else { 0.0 };
    StationDemand { etl_mm, effective_rain_mm, rain_covers: left(usable_mm) == 0.0, demand_mm: left(effective_rain_mm) }
}

/// A station in a month: its demand, and what the dialled percent gives it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StationMonth {
    /// Terminal number.
    pub number: u8,
    /// Demand.
    pub demand: StationDemand,
    /// Waterings a week.
    pub waterings: f64,
    /// Minutes of a run after the controller's own rounding.
    pub run: RunTime,
    /// Net depth delivered in the month, mm.
    pub delivered_mm: f64,
}

/// Fewer waterings with longer runs, for a month whose runs would be too short.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct FewerDays {
    /// Waterings a week.
    pub waterings: u8,
    /// The percent to dial with them.
    pub percent: Percent,
}

/// A month of a group of programs that share a percent.
#[derive(Debug, Clone, PartialEq)]
pub struct MonthBudget {
    /// The month.
    pub month: MonthOfYear,
    /// Mean demand of the group's stations, mm over the month.
    pub demand_mm: f64,
    /// Percent that the weather calls for, waterings of this month counted.
    pub percent_exact: f64,
    /// What the tool would dial.
    pub called: Dial,
    /// What is dialled: the technician's choice, else what the tool would dial.
    pub dial: Dial,
    /// Whether the technician chose it.
    pub chosen: bool,
    /// Waterings a week where the technician set fewer for this month.
    pub waterings_set: Option<u8>,
    /// Mean net depth delivered, mm over the month.
    pub delivered_mm: f64,
    /// The stations, in the group's order.
    pub stations: Vec<StationMonth>,
    /// A repair, when a run is shorter than the least run and fewer days would mend it.
    pub fewer_days: Option<FewerDays>,
}

impl MonthBudget {
    /// Delivered less demand, mm: gained over 0, lost under it.
    #[must_use]
    pub fn difference_mm(&self) -> f64 {
        self.delivered_mm - self.demand_mm
    }

    /// Waterings a week of the program that waters most often.
    #[must_use]
    pub fn waterings(&self) -> f64 {
        self.stations.iter().map(|s| s.waterings).fold(0.0, f64::max)
    }

    /// Whether any station's run is shorter than [`LEAST_RUN_MINUTES`].
    #[must_use]
    pub fn has_short_run(&self) -> bool {
        self.dial != Dial::Off
            && self.stations.iter().any(|s| s.demand.demand_mm > 0.0 && s.run.minutes() < LEAST_RUN_MINUTES)
    }
}

/// One month of a group.
pub(super) struct MonthInput<'a> {
    pub(super) month: MonthOfYear,
    pub(super) plan: &'a MonthPlan,
    pub(super) capability: &'a Capability,
    pub(super) bases: &'a [StationBase],
    pub(super) demands: &'a [StationDemand],
}

impl MonthInput<'_> {
    pub(super) fn budget(&self) -> MonthBudget {
        let percent_exact = self.percent_exact(self.plan.waterings);
        let called = self.called(percent_exact);
        let dial = match self.plan.dial {
            MonthDial::Computed => called,
            MonthDial::Off => Dial::Off,
            MonthDial::Set(percent) => Dial::Percent(percent),
        };
        let stations: Vec<StationMonth> =
            self.bases.iter().zip(self.demands).map(|(b, d)| self.station(b, d, dial)).collect();
        let count = stations.len().max(1) as f64;
        let mut month = MonthBudget {
            month: self.month,
            demand_mm: stations.iter().map(|s| s.demand.demand_mm).sum::<f64>() / count,
            percent_exact,
            called,
            dial,
            chosen: self.plan.dial != MonthDial::Computed,
            waterings_set: self.plan.waterings,
            delivered_mm: stations.iter().map(|s| s.delivered_mm).sum::<f64>() / count,
            stations,
            fewer_days: None,
        };
        if month.has_short_run() {
            month.fewer_days = self.fewer_days(&month);
        }
        month
    }

    /// `percent = Σ demand(m) w(base)/w(m) / Σ ET_L(base) x 100`: each station weighs by its
    /// base depth, and a month of fewer waterings carries the difference. Source: own method.
    fn percent_exact(&self, waterings: Option<u8>) -> f64 {
        let days = self.month.mean_days();
        let (mut asked, mut base) = (0.0, 0.0);
        for (b, d) in self.bases.iter().zip(self.demands) {
            let fewer = b.waterings / waterings_of(b, waterings);
            asked += d.demand_mm / days * fewer;
            base += b.base_mm_per_day;
        }
        if base > 0.0 { asked / base * 100.0 } else { 0.0 }
    }

    /// Under half of the lowest percent, off is nearer than the lowest percent; so it is where rain
    /// covers every station, counted or not.
    fn called(&self, percent_exact: f64) -> Dial {
        let rain_covers = self.demands.iter().all(|d| d.rain_covers);
        if rain_covers || percent_exact < f64::from(self.capability.percent_min.get()) / 2.0 || percent_exact <= 0.0 {
            Dial::Off
        } else {
            Dial::Percent(self.capability.dial(percent_exact))
        }
    }

    fn station(&self, base: &StationBase, demand: &StationDemand, dial: Dial) -> StationMonth {
        let run = match dial {
            Dial::Off => RunTime::ZERO,
            Dial::Percent(percent) => self.capability.scaled(base.run, percent),
        };
        let waterings = waterings_of(base, self.plan.waterings);
        let weeks = self.month.mean_days() / 7.0;
        StationMonth {
            number: base.number,
            demand: *demand,
            waterings,
            run,
            delivered_mm: base.net_mm(run) * waterings * weeks,
        }
    }

    /// The most waterings below the present ones at which no run is too short, or one a week.
    fn fewer_days(&self, month: &MonthBudget) -> Option<FewerDays> {
        // Waterings are up to one a day.
        let now = month.waterings().ceil() as u8;
        let fit = |waterings: u8| {
            let Dial::Percent(percent) = self.called(self.percent_exact(Some(waterings))) else { return None };
            let long_enough = self.bases.iter().zip(self.demands).all(|(b, d)| {
                d.demand_mm <= 0.0 || self.capability.scaled(b.run, percent).minutes() >= LEAST_RUN_MINUTES
            });
            long_enough.then_some(FewerDays { waterings, percent })
        };
        (1..now).rev().find_map(fit)
    }
}

fn waterings_of(base: &StationBase, set: Option<u8>) -> f64 {
    set.map_or(base.waterings, |w| f64::from(w).min(base.waterings))
}
