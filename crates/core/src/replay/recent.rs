use chrono::NaiveDate;

use super::engine::{Keep, replay};
use super::ground::{Ground, Part, ReplayStation};
use super::results::Daily;
use super::scheduled::{PercentBy, Scheduled};
use super::season::Season;
use crate::balance::RootZone;
use crate::controller::Controller;
use crate::place::Bound;
use crate::schedule::Plan;

/// The last weeks of a controller as its panel ran them: what was set for a while holds on its dates, and so do
/// its sensors and their bypasses.
#[derive(Debug, Clone)]
pub struct Recent<'a> {
    /// The controller, with what is set for a while.
    pub controller: &'a Controller,
    /// Its figures.
    pub plan: &'a Plan,
    /// The rules of the place.
    pub rules: &'a Bound,
    /// The weather up to the morning that is asked about. Root zones are taken as full on its first day, so it
    /// begins some weeks before.
    pub season: &'a Season,
    /// Hour of sunrise by month, January first, by the clock of the place.
    pub sunrise_hours: [f64; 12],
    /// Since when rain, use and watering are summed up.
    pub since: NaiveDate,
}

/// How the root zone of a station stands on the morning after the last day, on average over the station, and how
/// it came there.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SoilNow {
    /// Terminal number.
    pub station: u8,
    /// Under a roof, where rain never reaches.
    pub covered: bool,
    /// Its store.
    pub zone: RootZone,
    /// D_r, water missing to field capacity, mm.
    pub depletion_mm: f64,
    /// Rain that reached the surface, mm.
    pub rain_mm: f64,
    /// What was watered and did not run off, mm.
    pub watered_mm: f64,
    /// What the plants used, mm.
    pub used_mm: f64,
    /// What they would have used with enough water, mm.
    pub wanted_mm: f64,
    /// What sank below the roots, mm.
    pub lost_mm: f64,
    /// Days with water from the station.
    pub watering_days: usize,
    /// The last of them.
    pub last_watered: Option<NaiveDate>,
    /// Since when the plants feel the lack, day after day up to the last one.
    pub dry_since: Option<NaiveDate>,
}

/// What the balance says of a station that looks dry.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SoilVerdict {
    /// Its root zone holds enough: what looks dry has a cause of its own on the spot.
    Enough,
    /// It holds enough, and was given much more than it could hold: so much drained, mm.
    TooMuch(f64),
    /// It was not watered at all, and rain was not enough.
    NotWatered,
    /// Rain and water together, less what drained, were so much short of what its plants wanted, mm.
    Short(f64),
    /// Its plants got what they wanted since, and its root zone was dry before.
    DryBefore,
}

impl SoilNow {
    /// From this share of the watering on, what drains is too much. Ours: uneven cover asks for a tenth or two more.
    pub const MUCH_LOST: f64 = 0.25;

    /// What the balance says of the station.
    #[must_use]
    pub fn verdict(&self) -> SoilVerdict {
        let short = self.wanted_mm - (self.rain_mm + self.watered_mm - self.lost_mm);
        match () {
            () if self.before_stress_mm() >= 0.0 && self.lost_mm > Self::MUCH_LOST * self.watered_mm.max(1.0) => {
                SoilVerdict::TooMuch(self.lost_mm)
            }
            () if self.before_stress_mm() >= 0.0 => SoilVerdict::Enough,
            () if short <= 0.0 => SoilVerdict::DryBefore,
            () if self.watering_days == 0 => SoilVerdict::NotWatered,
            () => SoilVerdict::Short(short),
        }
    }

    /// What is left before the plants feel the lack, mm; below 0 they do.
    #[must_use]
    pub fn before_stress_mm(&self) -> f64 {
        self.zone.raw_mm() - self.depletion_mm
    }

    /// Share of the available water that is left, 0 to 1.
    #[must_use]
    pub fn share_left(&self) -> f64 {
        1.0 - self.depletion_mm / self.zone.taw_mm
    }

    /// Share of the available water at which the plants begin to feel the lack, 0 to 1.
    #[must_use]
    pub fn refill_share(&self) -> f64 {
        1.0 - self.zone.p
    }

    fn of(station: &ReplayStation, daily: &Daily, dates: &[NaiveDate], since: NaiveDate) -> Self {
        let from = dates.iter().position(|d| *d >= since).unwrap_or(dates.len());
        let sum = |values: &[f64]| values.iter().skip(from).sum::<f64>();
        let watered = |index: &usize| daily.applied_mm[*index] > 0.0;
        let dry_days = daily.ks.iter().rev().take_while(|ks| **ks < 1.0).count();
        Self {
            station: station.number,
            covered: station.covered,
            zone: station.zone,
            depletion_mm: daily.depletion_mm.last().copied().unwrap_or(station.depletion_start_mm),
            rain_mm: sum(&daily.rain_mm),
            watered_mm: sum(&daily.applied_mm) - sum(&daily.runoff_mm),
            used_mm: sum(&daily.et_actual_mm),
            wanted_mm: sum(&daily.et_l_mm),
            lost_mm: sum(&daily.percolation_mm),
            watering_days: (from..dates.len()).filter(watered).count(),
            last_watered: (0..dates.len()).rev().find(watered).map(|index| dates[index]),
            dry_since: (dry_days > 0).then(|| dates[dates.len() - dry_days]),
        }
    }
}

impl Recent<'_> {
    /// How all stations stand, by number.
    #[must_use]
    pub fn soil(&self) -> Vec<SoilNow> {
        self.stand(Keep::Days)
    }

    /// How one station stands; nothing for one that the controller has not.
    #[must_use]
    pub fn soil_of(&self, station: u8) -> Option<SoilNow> {
        self.stand(Keep::Station(station)).pop()
    }

    fn stand(&self, keep: Keep) -> Vec<SoilNow> {
        let ground = Ground::of(self.controller);
        let mut ran = Scheduled::new(self.controller, self.plan, &ground, PercentBy::of(self.controller))
            .on_its_dates()
            .with_hands(&ground, self.rules)
            .held_by_sensors_of(self.controller, self.sunrise_hours);
        let replayed = replay(&ground, self.season, self.rules, &mut ran, keep);
        let dates = self.season.counted();
        let pairs = ground.stations.iter().zip(&replayed.stations);
        let kept = pairs.filter_map(|(station, own)| Some((station, &own.daily.as_ref()?[Part::Average.index()])));
        kept.map(|(station, daily)| SoilNow::of(station, daily, dates, self.since)).collect()
    }
}
