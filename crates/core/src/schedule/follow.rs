use crate::controller::{Controller, Station};

/// Lets cycle and soak follow the soil where stations are changed: a new station gets what its soil asks for, and one
/// that had that goes on having it. What somebody set otherwise stays, and so does a program whose watering is
/// divided over its starts.
pub fn follow_soil(before: &Controller, after: &mut Controller) {
    if !after.capability.cycle_soak {
        return;
    }
    let divided: Vec<_> = after.programs.iter().filter(|p| p.schedule.split > 1).map(|p| p.letter).collect();
    let capability = after.capability;
    let follows = |station: &Station| {
        let was = before.station(station.number);
        was.is_none_or(|was| was.cycle == was.runoff().setting(&before.capability))
    };
    for station in after.stations.iter_mut().filter(|s| follows(s) && !divided.iter().any(|l| s.runs_in(*l))) {
        station.cycle = station.runoff().setting(&capability);
    }
}
