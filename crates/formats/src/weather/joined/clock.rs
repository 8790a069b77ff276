//! The time of day of rows, and the hours that they are joined to.

use super::super::day_hours::{self, Values};
use super::super::table::Table;
use super::stamp::{DAY_MINUTES, Stamps, minutes_of};

/// How the rows of a file tell their time of day.
pub(super) struct Clock {
    stamps: Stamps,
    /// The column of dates, and that of times where those stand apart.
    dated: usize,
    timed: Option<usize>,
    /// Stamps go to 24:00: a row tells of the time that ends with its stamp.
    ends: bool,
}

impl Clock {
    pub(super) fn of(table: &Table, dated: usize, stamps: Stamps) -> Self {
        let has_time = |index: &usize| {
            let title = table.title(*index).to_lowercase();
            let named = ["time", "hour", "hr"].iter().any(|word| title.contains(word));
            named && table.first_value(*index).is_some_and(|value| minutes_of(value).is_some())
        };
        let timed = (0..table.headers().len()).filter(|index| *index != dated).find(has_time);
        let mut clock = Self { stamps, dated, timed, ends: false };
        let mut ends = false;
        table.each_row(|_, record| ends = ends || clock.stamped(record) == Some(DAY_MINUTES));
        clock.ends = ends;
        clock
    }

    fn stamped(&self, record: &csv::StringRecord) -> Option<u32> {
        match self.timed {
            Some(timed) => minutes_of(record.get(timed)?),
            None => self.stamps.minutes(record.get(self.dated)?),
        }
    }

    /// The minute of the day in which a row tells of the weather.
    pub(super) fn minute(&self, record: &csv::StringRecord) -> Option<u32> {
        let stamped = self.stamped(record)?;
        Some(if self.ends { stamped.saturating_sub(1) } else { stamped }.min(DAY_MINUTES - 1))
    }
}

/// The hours of a day that is being joined, in the order in which they come.
#[derive(Default)]
pub(super) struct Hours(Vec<Hour>);

/// An hour by the clock of the file.
pub(super) struct Hour {
    hour: u32,
    /// The minutes of which there are rows, a bit each.
    minutes: u64,
    rows: u32,
    sums: [(f64, u32); 5],
}

impl Hour {
    pub(super) fn add(&mut self, element: usize, value: f64) {
        if let Some((sum, count)) = self.sums.get_mut(element) {
            *sum += value;
            *count += 1;
        }
    }
}

impl Hours {
    /// The hour of a row. A stamp that comes twice is in the hour that is repeated where the clock goes back.
    pub(super) fn of_minute(&mut self, minute: u32) -> &mut Hour {
        let (hour, bit) = (minute / 60, 1_u64 << (minute % 60));
        let same: Vec<usize> = (0..self.0.len()).filter(|at| self.0[*at].hour == hour).collect();
        let free = same.iter().find(|at| self.0[**at].minutes & bit == 0).copied();
        let at = match (free, same.as_slice()) {
            (Some(at), _) | (None, &[_, at, ..]) => at,
            _ => {
                self.0.push(Hour { hour, minutes: 0, rows: 0, sums: [(0.0, 0); 5] });
                self.0.len() - 1
            }
        };
        let found = &mut self.0[at];
        found.minutes |= bit;
        found.rows += 1;
        found
    }

    /// The cell of a day: `of_hour` has the element of each source and whether its rows add up. An hour with less than half
    /// of the rows of the fullest is left out.
    pub(super) fn cell(&self, of_hour: &[Option<(usize, bool)>]) -> String {
        let most = self.0.iter().map(|hour| hour.rows).max().unwrap_or_default();
        let mut hours: Vec<&Hour> = self.0.iter().filter(|hour| hour.rows * 2 >= most).collect();
        hours.sort_by_key(|hour| hour.hour);
        let mut cell = String::new();
        for hour in hours {
            let mut values: Values = [None; 5];
            for (element, adds_up) in of_hour.iter().flatten() {
                let (sum, count) = hour.sums[*element];
                if count > 0 {
                    values[*element] = Some(if *adds_up { sum } else { sum / f64::from(count) });
                }
            }
            day_hours::push(&mut cell, hour.hour, &values);
        }
        cell
    }
}

#[cfg(test)]
mod tests {
    use chrono_tz::Tz;

    use super::*;

    fn clock(text: &str) -> (Clock, Table) {
        let table = Table::parse_hours(text.as_bytes()).unwrap();
        (Clock::of(&table, 0, Stamps::of(&table.title(0), Tz::UTC)), table)
    }

    fn minutes(text: &str) -> Vec<Option<u32>> {
        let (clock, table) = clock(text);
        let mut minutes = Vec::new();
        table.each_row(|_, record| minutes.push(clock.minute(record)));
        minutes
    }

    #[test]
    fn a_row_tells_of_the_time_from_its_stamp_or_to_it() {
        let from = "Time,Temp\n2026-06-01 00:00,10\n2026-06-01 23:00,12\n";
        assert_eq!(minutes(from), [Some(0), Some(1380)]);
        let to = "Time,Temp\n2026-06-01 01:00,10\n2026-06-01 24:00,12\n";
        assert_eq!(minutes(to), [Some(59), Some(1439)]);
    }

    #[test]
    fn times_may_stand_in_a_column_of_their_own_or_nowhere() {
        assert_eq!(minutes("Date,Temp,Time\n2026-06-01,10,4:30 PM\n2026-06-01,12,\n"), [Some(990), None]);
        assert_eq!(minutes("Date,Hour,Temp\n2026-06-01,1,10\n2026-06-01,24,12\n"), [Some(59), Some(1439)]);
        assert_eq!(minutes("Date,Temp\n2026-06-01,10\n"), [None]);
    }

    #[test]
    fn rows_of_ten_minutes_are_one_hour_and_a_repeated_hour_is_two() {
        let mut hours = Hours::default();
        let passes = [(0..6, 10.0), (6..12, 20.0), (12..18, 30.0), (12..18, 40.0), (18..24, 50.0)];
        for (tens, temperature) in passes {
            for ten in tens {
                let hour = hours.of_minute(ten * 10);
                hour.add(0, temperature);
                hour.add(4, 0.2);
            }
        }
        let cell = hours.cell(&[Some((0, false)), None, Some((4, true))]);
        assert_eq!(cell, "0:10////1.2 1:20////1.2 2:30////1.2 2:40////1.2 3:50////1.2");
        // Newest first, and with a gap.
        let mut back = Hours::default();
        for ten in (0..24).rev().filter(|ten| !(7..12).contains(ten)) {
            back.of_minute(ten * 10).add(0, 1.0);
        }
        assert_eq!(back.cell(&[Some((0, false))]), "0:1//// 2:1//// 3:1////");
    }
}
