//! The order in which places are visited from a yard and back, with distances and driving times.

use super::Position;

/// Roads are longer than the straight line by this factor. Source: mean circuity of road networks, about 1.3 to 1.4 in
/// most countries (Ballou, Rahardja and Sakai 2002, from memory).
pub const ROAD_FACTOR: f64 = 1.3;
/// Speed from place to place, km/h. Ours: a loaded van in and around a town.
pub const SPEED_KM_PER_HOUR: f64 = 40.0;
/// What parking and walking to the panel take at each place, min. Ours.
pub const ARRIVING_MINUTES: f64 = 3.0;

/// A way from one place to the next.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Leg {
    /// By road, km.
    pub km: f64,
    /// Driving, and at a place arriving, min.
    pub minutes: f64,
}

impl Leg {
    /// From one position to another, estimated from the straight line.
    #[must_use]
    pub fn between(from: &Position, to: &Position) -> Self {
        let km = from.distance_km(to) * ROAD_FACTOR;
        Self { km, minutes: km / SPEED_KM_PER_HOUR * 60.0 }
    }

    /// The same, with arriving at a place.
    #[must_use]
    pub fn to_place(from: &Position, to: &Position) -> Self {
        let way = Self::between(from, to);
        Self { minutes: way.minutes + ARRIVING_MINUTES, ..way }
    }
}

/// Places in the order of a round.
#[derive(Debug, Clone, PartialEq)]
pub struct Tour {
    /// Places in the list of stops, in the order of the visits.
    pub order: Vec<usize>,
    /// The way to each of them.
    pub legs: Vec<Leg>,
    /// The way back to the yard.
    pub back: Leg,
}

impl Tour {
    /// The whole way, km.
    #[must_use]
    pub fn km(&self) -> f64 {
        self.legs.iter().map(|l| l.km).sum::<f64>() + self.back.km
    }

    /// The whole way, min.
    #[must_use]
    pub fn minutes(&self) -> f64 {
        self.legs.iter().map(|l| l.minutes).sum::<f64>() + self.back.minutes
    }
}

/// A short round from a yard through all stops and back.
///
/// The nearest stop first, then stretches are turned around as long as that shortens the way: the known heuristics of
/// the nearest neighbour and of 2-opt. For a day's stops that is the shortest round, or within a few percent of it.
#[must_use]
pub fn tour(yard: &Position, stops: &[Position]) -> Tour {
    let mut order = nearest_next(yard, stops);
    let at = |order: &[usize], i: usize| if i == 0 || i > order.len() { yard } else { &stops[order[i - 1]] };
    let mut shorter = true;
    // Every turn shortens the way, so this ends; the bound guards against the last digit of a sum.
    for _ in 0..stops.len() * 4 {
        if !std::mem::take(&mut shorter) {
            break;
        }
        for i in 0..order.len() {
            for j in i + 1..order.len() {
                // The stops i to j the other way round: two ways are exchanged for two others.
                let (before, first) = (at(&order, i), at(&order, i + 1));
                let (last, after) = (at(&order, j + 1), at(&order, j + 2));
                let now = before.distance_km(first) + last.distance_km(after);
                let turned = before.distance_km(last) + first.distance_km(after);
                if turned < now - 1e-9 {
                    order[i..=j].reverse();
                    shorter = true;
                }
            }
        }
    }
    let legs = (0..order.len()).map(|i| Leg::to_place(at(&order, i), at(&order, i + 1))).collect();
    let back = order.last().map_or(Leg { km: 0.0, minutes: 0.0 }, |last| Leg::between(&stops[*last], yard));
    Tour { order, legs, back }
}

fn nearest_next(yard: &Position, stops: &[Position]) -> Vec<usize> {
    let mut left: Vec<usize> = (0..stops.len()).collect();
    let mut order = Vec::with_capacity(stops.len());
    let mut here = yard;
    while let Some(next) =
        (0..left.len()).min_by(|a, b| here.distance_km(&stops[left[*a]]).total_cmp(&here.distance_km(&stops[left[*b]])))
    {
        let stop = left.remove(next);
        order.push(stop);
        here = &stops[stop];
    }
    order
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn at(latitude: f64, longitude: f64) -> Position {
        Position::new(latitude, longitude, 0.0).unwrap()
    }

    /// Length of a round in an order, km.
    fn km(yard: &Position, stops: &[Position], order: &[usize]) -> f64 {
        let points: Vec<&Position> =
            std::iter::once(yard).chain(order.iter().map(|i| &stops[*i])).chain([yard]).collect();
        points.windows(2).map(|p| p[0].distance_km(p[1]) * ROAD_FACTOR).sum()
    }

    /// A degree of latitude is 111.19 km on the sphere: four stops on a meridian are driven up and down once.
    #[test]
    fn stops_on_a_line() {
        let stops = [at(47.3, 12.0), at(47.1, 12.0), at(46.9, 12.0), at(47.2, 12.0)];
        let found = tour(&at(47.0, 12.0), &stops);
        assert!((found.km() - 2.0 * 0.4 * 111.19 * ROAD_FACTOR).abs() < 0.1, "{found:?}");
        // 115.6 km at 40 km/h, and four times arriving.
        assert!((found.minutes() - (found.km() / 40.0 * 60.0 + 12.0)).abs() < 1e-9);
        let mut all = found.order.clone();
        all.sort_unstable();
        assert_eq!(all, [0, 1, 2, 3]);
    }

    #[test]
    fn nothing_to_visit_is_no_way() {
        let found = tour(&at(47.0, 12.0), &[]);
        assert_eq!((found.order.len(), found.km(), found.minutes()), (0, 0.0, 0.0));
        // At the yard itself nothing is driven.
        let here = tour(&at(47.0, 12.0), &[at(47.0, 12.0)]);
        assert_eq!((here.km(), here.minutes()), (0.0, ARRIVING_MINUTES));
    }

    fn every_order(left: &mut Vec<usize>, begun: &mut Vec<usize>, see: &mut impl FnMut(&[usize])) {
        if left.is_empty() {
            see(begun);
        }
        for i in 0..left.len() {
            let stop = left.remove(i);
            begun.push(stop);
            every_order(left, begun, see);
            begun.pop();
            left.insert(i, stop);
        }
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(48))]

        /// Against every order of up to six stops.
        #[test]
        fn a_round_is_nearly_the_shortest(places in proptest::collection::vec((46.8..47.2f64, 11.8..12.2f64), 1..7)) {
            let yard = at(47.0, 12.0);
            let stops: Vec<Position> = places.iter().map(|(lat, lon)| at(*lat, *lon)).collect();
            let found = tour(&yard, &stops);
            let mut best = f64::INFINITY;
            every_order(&mut (0..stops.len()).collect(), &mut Vec::new(), &mut |order| {
                best = best.min(km(&yard, &stops, order));
            });
            prop_assert!((found.km() - km(&yard, &stops, &found.order)).abs() < 1e-6);
            prop_assert!(found.km() <= best * 1.15 + 1e-9, "{} against {best}", found.km());
            prop_assert!(found.km() <= km(&yard, &stops, &nearest_next(&yard, &stops)) + 1e-6);
        }
    }
}
