//! Water windows: the times of the day in which a panel itself lets its programs run.

use super::days::StartTime;

/// A water window of a panel, every day the same. Outside of its windows a panel makes no start and ends what runs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct WaterWindow {
    /// It opens.
    pub from: StartTime,
    /// It closes; earlier than it opens where it goes over midnight.
    pub to: StartTime,
}

/// Minutes of a day.
const DAY: u16 = 1440;

impl WaterWindow {
    /// Its minutes of the day; two stretches where it goes over midnight.
    fn stretches(self) -> impl Iterator<Item = (u16, u16)> {
        let (from, to) = (self.from.minute_of_day(), self.to.minute_of_day());
        let parts = if from < to { [(from, to), (0, 0)] } else { [(from, DAY), (0, to)] };
        parts.into_iter().filter(|(from, to)| from < to)
    }
}

/// The minutes of a day that lie in none of the windows; none where there is no window, as then all of the day is open.
#[must_use]
pub fn closed_by(windows: &[WaterWindow]) -> Vec<(u16, u16)> {
    if windows.is_empty() {
        return Vec::new();
    }
    let mut open: Vec<(u16, u16)> = windows.iter().flat_map(|w| w.stretches()).collect();
    open.sort_unstable();
    let (mut closed, mut at) = (Vec::new(), 0);
    for (from, to) in open {
        if from > at {
            closed.push((at, from));
        }
        at = at.max(to);
    }
    if at < DAY {
        closed.push((at, DAY));
    }
    closed
}

#[cfg(test)]
mod tests {
    use super::*;

    fn window(from: &str, to: &str) -> WaterWindow {
        let [from, to] = [from, to].map(|t| StartTime::read(t).unwrap());
        WaterWindow { from, to }
    }

    #[test]
    fn what_lies_in_no_window_is_closed() {
        assert_eq!(closed_by(&[]), []);
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
