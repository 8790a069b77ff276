//! Whether a guess would change the answer.

use super::month::Dial;
use super::year::year_budget;
use crate::climate::normals::Normals;
use crate::controller::{Controller, ProgramLetter, Station};
use crate::landscape::{Plant, Provenance, Soil, Sprinkler};
use crate::quantity::{Coefficient, MonthOfYear, RateMmPerHour, RunTime, range};

/// Something about a station that nobody measured, with two values that it might have instead.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum StationGuess {
    /// The rate was taken from the type of sprinkler, mm/h.
    Rate([f64; 2]),
    /// The uniformity was taken as usual for the type.
    Uniformity([f64; 2]),
    /// The soil was told by hand.
    Soil([Soil; 2]),
    /// The depth of the roots is the usual one of the plant, m.
    Roots([f64; 2]),
    /// The plant's coefficient stands for a class.
    Plant([f64; 2]),
}

/// What a guess would change.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WhatIf {
    /// The guess.
    pub guess: StationGuess,
    /// The base run with each tried value.
    pub run: [RunTime; 2],
    /// Minutes a week with each, before the panel's step and longest run.
    pub week_minutes: [f64; 2],
}

impl WhatIf {
    /// How far apart its two answers lie, min a week.
    #[must_use]
    pub fn spread_minutes(&self) -> f64 {
        (self.week_minutes[1] - self.week_minutes[0]).abs()
    }
}

/// Between which minutes a week a station's base run lies, by what is guessed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Uncertainty {
    /// Fewest and most minutes a week that the guesses leave possible.
    pub minutes: [f64; 2],
    /// What to measure first: the guess whose answers lie farthest apart.
    pub widest: StationGuess,
}

/// Joins what the guesses of a station would change.
///
/// Each guess moves the minutes of a week down and up by what it tried; guesses do not hang together, so that their
/// shares add as squares on each side. A soil that only spreads the same water over more waterings moves nothing.
/// Ours. Nothing where nothing is guessed or no guess changes anything.
#[must_use]
pub fn uncertainty(week_minutes: f64, what_ifs: &[WhatIf]) -> Option<Uncertainty> {
    let widest = what_ifs.iter().max_by(|a, b| a.spread_minutes().total_cmp(&b.spread_minutes()))?;
    let side = |far: fn(f64, f64) -> f64| -> f64 {
        let square = |w: &WhatIf| {
            let [a, b] = w.week_minutes.map(|m| m - week_minutes);
            far(far(a, b), 0.0).powi(2)
        };
        what_ifs.iter().map(square).sum::<f64>().sqrt()
    };
    let (under, over) = (side(f64::min), side(f64::max));
    (under + over > 1e-9)
        .then(|| Uncertainty { minutes: [(week_minutes - under).max(0.0), week_minutes + over], widest: widest.guess })
}

/// Base run of a station under each of its guesses' other values.
///
/// Tried are: the lowest and highest rate of the type ([`SprinklerType::rate_range_mm_per_hour`]), the
/// uniformity 0.10 either way, the soils that a hand takes it for, roots a third shallower or deeper, and the ends
/// of the plant's class. A value that would leave its range is held at the range's end.
///
/// [`SprinklerType::rate_range_mm_per_hour`]: crate::landscape::SprinklerType::rate_range_mm_per_hour
#[must_use]
pub fn base_minutes_if(controller: &Controller, normals: &Normals, number: u8) -> Vec<WhatIf> {
    let Some(station) = controller.stations.iter().find(|s| s.number == number) else { return Vec::new() };
    let base_of = |changed: Station| -> Option<(RunTime, f64)> {
        let mut copy = controller.clone();
        *copy.stations.iter_mut().find(|s| s.number == number)? = changed;
        let budget = year_budget(&copy, normals).ok()?;
        let group = budget.group(station.program)?;
        group.stations.iter().find(|s| s.number == number).map(|s| (s.run, s.exact_minutes * s.waterings))
    };
    guesses(station)
        .into_iter()
        .filter_map(|guess| {
            let [a, b] = [0, 1].map(|side| base_of(with(station, guess, side)));
            let ((run_a, minutes_a), (run_b, minutes_b)) = (a?, b?);
            Some(WhatIf { guess, run: [run_a, run_b], week_minutes: [minutes_a, minutes_b] })
        })
        .collect()
}

/// The exact percent of a month and what the tool would dial under other normals, for a guess in
/// the weather.
#[must_use]
pub fn percent_if(
    controller: &Controller,
    normals: &Normals,
    letter: ProgramLetter,
    month: MonthOfYear,
) -> Option<(f64, Dial)> {
    let budget = year_budget(controller, normals).ok()?;
    budget.group(letter).map(|g| g.month(month)).map(|m| (m.percent_exact, m.called))
}

fn guesses(station: &Station) -> Vec<StationGuess> {
    let mut guesses = Vec::new();
    if station.sprinkler.rate_mm_per_hour().1 == Provenance::Guessed {
        guesses.push(StationGuess::Rate(station.sprinkler.kind.rate_range_mm_per_hour()));
    }
    let (du, du_known) = station.sprinkler.uniformity();
    if du_known == Provenance::Guessed {
        guesses.push(StationGuess::Uniformity([du - 0.1, du + 0.1].map(|du| range::UNIFORMITY.held(du))));
    }
    let [low, high] = station.plant.coefficient_range(&station.planting);
    if high > low && station.planting.by_month.is_none() {
        guesses.push(StationGuess::Plant([low, high].map(|k| range::COEFFICIENT.held(k))));
    }
    let (roots, roots_known) = station.root_depth_m();
    if roots_known == Provenance::Guessed && station.plant != Plant::Bare {
        guesses.push(StationGuess::Roots([roots / 1.5, roots * 1.5]));
    }
    if station.available_water_mm_per_m().1 != Provenance::Measured {
        guesses.push(StationGuess::Soil(station.soil.taken_for()));
    }
    guesses
}

/// The station with one of the two values of a guess.
fn with(station: &Station, guess: StationGuess, side: usize) -> Station {
    let mut changed = station.clone();
    match guess {
        StationGuess::Rate(tried) => {
            changed.sprinkler = Sprinkler { rate: RateMmPerHour::new(tried[side]).ok(), ..station.sprinkler };
        }
        StationGuess::Uniformity(tried) => {
            changed.sprinkler = Sprinkler { uniformity: Some(tried[side]), ..station.sprinkler };
        }
        StationGuess::Plant(tried) => {
            changed.plant = Coefficient::new(tried[side]).map_or(station.plant, Plant::Coefficient);
            // Another coefficient is no other plant: roots and allowed depletion stay.
            changed.root_zone.root_depth_m = Some(station.root_depth_m().0);
            changed.root_zone.p = Some(station.depletion_share().0);
        }
        StationGuess::Roots(tried) => changed.root_zone.root_depth_m = Some(tried[side]),
        StationGuess::Soil(tried) => changed.soil = tried[side],
    }
    changed
}

#[cfg(test)]
mod tests {
    use super::*;

    fn what_if(guess: StationGuess, week_minutes: [f64; 2]) -> WhatIf {
        WhatIf { guess, run: week_minutes.map(|m| RunTime::from_seconds((m * 60.0) as u32)), week_minutes }
    }

    #[test]
    fn shares_add_as_squares_on_each_side() {
        let rate = what_if(StationGuess::Rate([10.0, 20.0]), [44.0, 26.0]);
        let uniformity = what_if(StationGuess::Uniformity([0.6, 0.8]), [33.0, 27.0]);
        let joined = uncertainty(30.0, &[uniformity, rate]).unwrap();
        assert!((joined.minutes[0] - 25.0).abs() < 1e-9, "3 and 4 under 30 are 5: {joined:?}");
        assert!((joined.minutes[1] - (30.0 + (14.0_f64.powi(2) + 9.0).sqrt())).abs() < 1e-9);
        assert_eq!(joined.widest, rate.guess);
    }

    #[test]
    fn what_changes_nothing_is_no_uncertainty() {
        assert_eq!(uncertainty(30.0, &[what_if(StationGuess::Roots([0.2, 0.4]), [30.0, 30.0])]), None);
        assert_eq!(uncertainty(30.0, &[]), None);
    }
}
