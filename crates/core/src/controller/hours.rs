//! Hours of the day: those that rules close, and those in which a panel itself lets its programs run.

use super::days::StartTime;

/// Hours of the day; over midnight when they end before they begin.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Hours {
    /// Their first minute.
    pub from: StartTime,
    /// The first minute after them; the same as `from` means the whole day.
    pub to: StartTime,
}

impl Hours {
    /// Their minutes of the day, from midnight: one stretch, or two over midnight.
    #[must_use]
    pub fn stretches(self) -> [Option<(u16, u16)>; 2] {
        let (from, to) = (self.from.minute_of_day(), self.to.minute_of_day());
        if from < to { [Some((from, to)), None] } else { [Some((from, 1440)), (to > 0).then_some((0, to))] }
    }
}

/// Minutes of the day that spans of hours hold, as stretches.
pub(crate) fn stretches(hours: &[Hours]) -> Vec<(u16, u16)> {
    hours.iter().flat_map(|h| h.stretches()).flatten().collect()
}

/// Minutes of the day outside of some stretches, as stretches, earliest first.
pub(crate) fn outside(stretches: &[(u16, u16)]) -> Vec<(u16, u16)> {
    let mut stretches = stretches.to_vec();
    stretches.sort_unstable();
    let (mut outside, mut at) = (Vec::new(), 0);
    for (from, to) in stretches {
        if from > at {
            outside.push((at, from));
        }
        at = at.max(to);
    }
    if at < 1440 {
        outside.push((at, 1440));
    }
    outside
}

/// Whether a panel that keeps so many water windows can be set to these, each with two different times.
pub(crate) fn windows_fit(windows: &[Hours], most: u8) -> bool {
    windows.len() <= usize::from(most) && windows.iter().all(|w| w.from != w.to)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn window(from: &str, to: &str) -> Hours {
        let [from, to] = [from, to].map(|t| StartTime::read(t).unwrap());
        Hours { from, to }
    }

    fn closed_by(windows: &[Hours]) -> Vec<(u16, u16)> {
        outside(&stretches(windows))
    }

    #[test]
    fn what_lies_in_no_window_is_closed() {
        assert_eq!(closed_by(&[window("04:00", "08:00")]), [(0, 240), (480, 1440)]);
        assert_eq!(
            closed_by(&[window("20:00", "23:00"), window("04:00", "08:00")]),
            [(0, 240), (480, 1200), (1380, 1440)]
        );
        // One that goes over midnight, and one that overlaps it.
        assert_eq!(closed_by(&[window("22:00", "06:00"), window("05:00", "07:00")]), [(420, 1320)]);
        assert_eq!(closed_by(&[window("22:00", "00:00")]), [(0, 1320)]);
    }
}
