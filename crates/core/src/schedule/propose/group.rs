//! Which stations share a program.

use crate::controller::{Controller, ProgramLetter, Station};
use crate::landscape::{Plant, WaterNeed};
use crate::schedule::wish::Pinned;

/// The kind of stations under a roof, which keep a program of their own.
const ROOFED: u8 = 4;

/// What a station is grouped by: its roof, how it is watered and how long its plants can wait.
fn kind(station: &Station) -> u8 {
    let thrifty = matches!(station.planting.need, Some(WaterNeed::VeryLow | WaterNeed::Low));
    match station.plant {
        _ if station.roofed => ROOFED,
        plant if plant.is_turf() => 0,
        _ if station.sprinkler.kind.wets_the_surface() => 1,
        Plant::Trees | Plant::FruitTrees => 3,
        _ if thrifty => 3,
        _ => 2,
    }
}

/// Puts stations into programs by what they need. A pinned program keeps its stations, and gets no others.
pub(super) fn group(c: &mut Controller, pinned: Pinned) {
    let panel = usize::from(c.capability.programs.clamp(1, 4));
    let free: Vec<ProgramLetter> =
        ProgramLetter::ALL[..panel].iter().copied().filter(|letter| !pinned.holds(*letter)).collect();
    let moves = |station: &Station| !pinned.holds_station(station);
    let mut kinds: Vec<u8> = c.stations.iter().filter(|s| moves(s)).map(kind).collect();
    kinds.sort_unstable();
    kinds.dedup();
    let programs = free.len();
    if programs == 0 {
        return;
    }
    for station in c.stations.iter_mut().filter(|s| moves(s)) {
        let place = kinds.iter().position(|k| *k == kind(station)).unwrap_or(0);
        // What no longer has a program of its own joins the last one; a roof keeps its own.
        let last = programs - 1;
        let place = if kinds.len() > programs && station.roofed {
            last
        } else if kinds.len() > programs && kinds.contains(&ROOFED) {
            place.min(last.saturating_sub(1))
        } else {
            place.min(last)
        };
        station.program = free[place];
        station.also = None;
    }
    c.normalise_programs();
}
