//! A round on one line to time: blocks are work, dots are driving, squares the yard.

use chrono::{NaiveTime, TimeDelta, Timelike};

use super::path::PathData;
use crate::show::{Fixed, clock_time};

/// A stop: the minutes to it and at it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Visit {
    pub(crate) drive: f64,
    pub(crate) work: f64,
}

/// The work at a stop.
#[derive(Debug, Clone)]
pub(crate) struct RoundBlock {
    pub(crate) x: Fixed,
    pub(crate) width: Fixed,
    pub(crate) middle: Fixed,
    pub(crate) number: usize,
}

#[derive(Debug, Clone)]
pub(crate) struct RoundLine {
    pub(crate) drives: String,
    pub(crate) blocks: Vec<RoundBlock>,
    /// Where the yard stands at the end.
    pub(crate) back: Fixed,
    /// Full and half hours: place and time.
    pub(crate) ticks: Vec<(Fixed, String)>,
    pub(crate) leaves: String,
    pub(crate) returns: String,
}

/// Where the line begins and ends on a plate of 464.
const LEFT: f64 = 44.0;
const RIGHT: f64 = 414.0;
const MIDDLE: f64 = 18.0;

impl RoundLine {
    pub(crate) fn draw(visits: &[Visit], back: f64, leaves: NaiveTime) -> Self {
        let total = visits.iter().map(|v| v.drive + v.work).sum::<f64>() + back;
        let x = |minutes: f64| LEFT + minutes / total.max(1.0) * (RIGHT - LEFT);
        let (mut drives, mut blocks, mut at) = (PathData::default(), Vec::new(), 0.0);
        for (index, visit) in visits.iter().enumerate() {
            drives.across(x(at), x(at + visit.drive), MIDDLE);
            at += visit.drive;
            let width = x(at + visit.work) - x(at);
            blocks.push(RoundBlock {
                x: Fixed(x(at)),
                width: Fixed(width),
                middle: Fixed(x(at) + width / 2.0),
                number: index + 1,
            });
            at += visit.work;
        }
        drives.across(x(at), x(total), MIDDLE);
        // Half hours while there is room for their times.
        let step = if total <= 200.0 { 30 } else { 60 * (total / 400.0).ceil() as u32 };
        let begin = leaves.num_seconds_from_midnight() / 60;
        let first = begin.div_ceil(step) * step;
        let ticks = (0..)
            .map(|i| first + i * step)
            .take_while(|minute| f64::from(minute - begin) <= total)
            .map(|minute| (Fixed(x(f64::from(minute - begin))), clock_time(minute % 1440)))
            .collect();
        let end = leaves.overflowing_add_signed(TimeDelta::minutes(total.round() as i64)).0;
        Self {
            drives: drives.into_string(),
            blocks,
            back: Fixed(x(total)),
            ticks,
            leaves: clock_time(begin),
            returns: clock_time(end.num_seconds_from_midnight() / 60),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn work_and_ways_follow_one_another_to_scale() {
        let seven = NaiveTime::from_hms_opt(7, 10, 0).unwrap();
        let visits = [Visit { drive: 10.0, work: 20.0 }, Visit { drive: 30.0, work: 30.0 }];
        let line = RoundLine::draw(&visits, 10.0, seven);
        // 100 minutes over 370 of the plate.
        let xs: Vec<f64> = line.blocks.iter().map(|b| b.x.0).collect();
        assert_eq!(xs, [LEFT + 37.0, LEFT + 222.0]);
        assert_eq!((line.blocks[1].width.0, line.back.0), (111.0, RIGHT));
        assert_eq!((line.leaves.as_str(), line.returns.as_str()), ("07:10", "08:50"));
        assert_eq!(line.ticks.iter().map(|t| t.1.as_str()).collect::<Vec<_>>(), ["07:30", "08:00", "08:30"]);
    }

    #[test]
    fn a_round_past_midnight_and_one_of_nothing_are_drawn() {
        let late = NaiveTime::from_hms_opt(23, 50, 0).unwrap();
        let line = RoundLine::draw(&[Visit { drive: 20.0, work: 20.0 }], 20.0, late);
        assert_eq!((line.returns.as_str(), line.ticks[0].1.as_str()), ("00:50", "00:00"));
        assert!(RoundLine::draw(&[], 0.0, late).blocks.is_empty());
    }
}
