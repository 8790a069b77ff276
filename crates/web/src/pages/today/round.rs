//! The visits of a morning in the order of a round from the yard and back.

use chrono::{NaiveTime, TimeDelta, Timelike};
use upland_core::place::{ARRIVING_MINUTES, Position, ROAD_FACTOR, SPEED_KM_PER_HOUR, tour};

use crate::charts::{RoundLine, Visit};
use crate::pages::job_list::{Job, PlaceJobs};
use crate::show::{Measure, Units, number};
use crate::words::Words;

/// A round through the places of a list.
#[derive(Debug, Clone)]
pub(crate) struct RoundPlan {
    /// How many stops, how far, how long.
    pub(crate) words: String,
    pub(crate) note: String,
    pub(crate) line: RoundLine,
}

/// Puts jobs in the order of their distance from the yard, those that are due everywhere first.
pub(crate) fn nearest_first(jobs: &mut [Job<'_>], yard: [f64; 2]) {
    let Some(yard) = position(yard) else { return };
    // In metres, so that equal distances keep the order of the names.
    let distance = |job: &Job<'_>| {
        let km = job.head.and_then(|head| position(head.position_deg)).map_or(0.0, |at| yard.distance_km(&at));
        (km * 1000.0).round() as u64
    };
    jobs.sort_by_cached_key(distance);
}

/// Puts the places of a list in the order of a round, what is done from the desk last, and tells of the round. Nothing
/// where no place has to be visited.
pub(crate) fn round(groups: &mut Vec<PlaceJobs>, yard: [f64; 2], now: NaiveTime, units: Units) -> Option<RoundPlan> {
    let yard = position(yard)?;
    let (visits, mut desk): (Vec<PlaceJobs>, Vec<PlaceJobs>) =
        groups.drain(..).partition(|group| group.minutes > 0 && group.position_deg.and_then(position).is_some());
    let stops: Vec<Position> = visits.iter().filter_map(|v| v.position_deg.and_then(position)).collect();
    let found = tour(&yard, &stops);
    let w = Words;
    let mut visits: Vec<Option<PlaceJobs>> = visits.into_iter().map(Some).collect();
    for (number, (stop, leg)) in found.order.iter().zip(&found.legs).enumerate() {
        let Some(mut visit) = visits[*stop].take() else { continue };
        visit.stop = Some(number + 1);
        visit.way = w.with(
            "jobs-way",
            &[
                ("km", &Measure::Distance.show(leg.km, units)),
                ("drive", &whole(leg.minutes)),
                ("work", &visit.minutes.to_string()),
            ],
        );
        groups.push(visit);
    }
    let work: u32 = groups.iter().map(|g| g.minutes).sum();
    let driven =
        groups.iter().zip(&found.legs).map(|(g, leg)| Visit { drive: leg.minutes, work: f64::from(g.minutes) });
    let line = RoundLine::draw(&driven.collect::<Vec<_>>(), found.back.minutes, departure(now));
    let count = groups.len();
    groups.append(&mut desk);
    (count > 0).then(|| RoundPlan {
        words: w.with(
            "jobs-round",
            &[
                ("stops", &w.count("jobs-stops", count)),
                ("km", &Measure::Distance.show(found.km(), units)),
                ("time", &hours(found.minutes() + f64::from(work))),
                ("work", &work.to_string()),
            ],
        ),
        note: w.with(
            "jobs-round-note",
            &[
                ("factor", &number(ROAD_FACTOR, 1)),
                ("speed", &Measure::Distance.show(SPEED_KM_PER_HOUR, units)),
                ("arriving", &number(ARRIVING_MINUTES, 0)),
            ],
        ),
        line,
    })
}

/// A height does not matter for a distance.
fn position([latitude, longitude]: [f64; 2]) -> Option<Position> {
    Position::new(latitude, longitude, 0.0).ok()
}

/// The next five minutes.
fn departure(now: NaiveTime) -> NaiveTime {
    let minutes = i64::from(now.minute());
    let ahead = TimeDelta::minutes((5 - minutes % 5) % 5) - TimeDelta::seconds(i64::from(now.second()));
    now.overflowing_add_signed(ahead).0
}

fn whole(minutes: f64) -> String {
    number(minutes, 0)
}

fn hours(minutes: f64) -> String {
    // A round lasts hours, never years.
    let minutes = minutes.round() as u32;
    let rest = (minutes % 60).to_string();
    match minutes / 60 {
        0 => Words.t1("jobs-minutes", rest),
        hours => Words.t2("jobs-hours", ("hours", hours.to_string()), ("minutes", rest)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn group(place: &str, latitude: f64, minutes: u32) -> PlaceJobs {
        PlaceJobs {
            place: place.into(),
            href: format!("/places/{place}"),
            jobs: Vec::new(),
            position_deg: Some([latitude, 12.0]),
            minutes,
            stop: None,
            way: String::new(),
        }
    }

    #[test]
    fn visits_come_in_the_order_of_the_round_and_the_desk_last() {
        let mut groups = vec![group("far", 47.2, 5), group("desk", 47.05, 0), group("near", 47.1, 20)];
        let nine = NaiveTime::from_hms_opt(9, 1, 30).unwrap();
        let plan = round(&mut groups, [47.0, 12.0], nine, Units::Metric).unwrap();
        let order: Vec<(&str, Option<usize>)> = groups.iter().map(|g| (g.place.as_str(), g.stop)).collect();
        assert_eq!(order.iter().map(|o| o.0).collect::<Vec<_>>().last(), Some(&"desk"));
        assert_eq!(groups.iter().filter_map(|g| g.stop).collect::<Vec<_>>(), [1, 2]);
        // 0.4 degrees of latitude, 44.5 km, by road 57.8; 86.7 min at 40 km/h, twice 3 and 25 of work.
        assert_eq!(plan.words, "2 stops, 58\u{a0}km, 1 h 58 min, of which 25 min at work");
        assert!(groups[0].way.contains("km") && groups[2].way.is_empty());
        let mut nothing = vec![group("desk", 47.05, 0)];
        assert!(round(&mut nothing, [47.0, 12.0], nine, Units::Metric).is_none());
        assert_eq!(nothing.len(), 1);
    }

    #[test]
    fn a_round_leaves_at_the_next_five_minutes() {
        let at = |h, m, s| NaiveTime::from_hms_opt(h, m, s).unwrap();
        for (now, wanted) in [(at(9, 1, 0), at(9, 5, 0)), (at(9, 5, 0), at(9, 5, 0)), (at(23, 58, 59), at(0, 0, 0))] {
            assert_eq!(departure(now), wanted);
        }
    }
}
