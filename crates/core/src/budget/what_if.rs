//! Whether a guess would change the answer.

use super::month::Dial;
use super::year::year_budget;
use crate::climate::normals::Normals;
use crate::controller::{Controller, ProgramLetter, Station};
use crate::landscape::{Plant, Provenance, Soil, Sprinkler};
use crate::quantity::{Coefficient, MonthOfYear, RateMmPerHour, RunTime};

/// Something about a station that nobody measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StationGuess {
    /// The rate was taken from the type of sprinkler.
    Rate,
    /// The uniformity was taken as usual for the type.
    Uniformity,
    /// The soil was told by hand.
    Soil,
    /// The plant's class is a default.
    Plant,
}

/// A guess and the two values that it might have been instead.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Guess {
    /// What is guessed.
    pub what: StationGuess,
    /// The values tried, in the guess's own unit.
    pub tried: [f64; 2],
}

/// What a guess would change.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WhatIf {
    /// The guess.
    pub guess: Guess,
    /// The base run with each tried value.
    pub run: [RunTime; 2],
}

/// Base run of a station under each of its guesses' other values.
///
/// Tried are: the rate 20 % either way (the spread of the defaults by type, common practice), the
/// uniformity 0.10 either way, the other two soils, and a coefficient 0.10 either way. A value
/// that would leave its range is held at the range's end.
#[must_use]
pub fn base_minutes_if(controller: &Controller, normals: &Normals, number: u8) -> Vec<WhatIf> {
    let Some(station) = controller.stations.iter().find(|s| s.number == number) else { return Vec::new() };
    let base_run = |changed: Station| -> Option<RunTime> {
        let mut copy = controller.clone();
        *copy.stations.iter_mut().find(|s| s.number == number)? = changed;
        let budget = year_budget(&copy, normals).ok()?;
        let group = budget.group(station.program)?;
        group.stations.iter().find(|s| s.number == number).map(|s| s.run)
    };
    guesses(station)
        .into_iter()
        .filter_map(|guess| {
            let [a, b] = guess.tried.map(|value| base_run(with(station, guess.what, value)));
            Some(WhatIf { guess, run: [a?, b?] })
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

fn guesses(station: &Station) -> Vec<Guess> {
    let mut guesses = Vec::new();
    let (rate, rate_known) = station.sprinkler.rate_mm_per_hour();
    if rate_known == Provenance::Guessed {
        guesses.push(Guess { what: StationGuess::Rate, tried: [rate * 0.8, rate * 1.2] });
    }
    let (du, du_known) = station.sprinkler.uniformity();
    if du_known == Provenance::Guessed {
        guesses.push(Guess { what: StationGuess::Uniformity, tried: [(du - 0.1).max(0.2), (du + 0.1).min(1.0)] });
    }
    let (k, k_known) = station.plant.coefficient();
    if k_known == Provenance::Guessed {
        guesses.push(Guess { what: StationGuess::Plant, tried: [k - 0.1, k + 0.1] });
    }
    if station.available_water_mm_per_m().1 == Provenance::Measured {
        return guesses;
    }
    let others: Vec<f64> =
        Soil::ALL.into_iter().filter(|s| *s != station.soil).map(Soil::available_water_mm_per_m).collect();
    if let [a, b] = others[..] {
        guesses.push(Guess { what: StationGuess::Soil, tried: [a, b] });
    }
    guesses
}

fn with(station: &Station, what: StationGuess, value: f64) -> Station {
    let mut changed = station.clone();
    match what {
        StationGuess::Rate => {
            changed.sprinkler = Sprinkler { rate: RateMmPerHour::new(value).ok(), ..station.sprinkler };
        }
        StationGuess::Uniformity => changed.sprinkler = Sprinkler { uniformity: Some(value), ..station.sprinkler },
        StationGuess::Plant => {
            changed.plant = Coefficient::new(value).map_or(station.plant, Plant::Coefficient);
            // Another coefficient is no other plant: roots and allowed depletion stay.
            changed.root_zone.root_depth_m = Some(station.root_depth_m().0);
            changed.root_zone.p = Some(station.depletion_share().0);
        }
        StationGuess::Soil => {
            if let Some(soil) = Soil::ALL.into_iter().find(|s| s.available_water_mm_per_m() == value) {
                changed.soil = soil;
            }
        }
    }
    changed
}
