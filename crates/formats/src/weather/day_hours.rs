//! The hours of a day in one cell of a table of days: how an hourly file keeps them through its preview.
//!
//! `0:12.1/80/1.5/0/0 1:11.8/82/1.4/0/0.2` has, for each hour of the day by the clock of the file, mean temperature, mean
//! humidity, mean wind, sun and rain, in the units of the columns of the day. An hour that comes twice is the one that
//! is repeated where the clock goes back.

use std::fmt::Write;

use super::column::Column;

/// The header of the cells.
pub(super) const HEADER: &str = "hours";

/// Hours of the longest day.
const MOST: usize = 25;

/// Values of an hour, in the order of [`ELEMENTS`].
pub(super) type Values = [Option<f64>; 5];

/// What an hour holds, each in the unit of a column of the day.
pub(super) const ELEMENTS: [Column; 5] = [Column::TMax, Column::RhMax, Column::Wind, Column::Solar, Column::Rain];

/// Adds an hour to a cell.
pub(super) fn push(cell: &mut String, hour: u32, values: &Values) {
    let gap = if cell.is_empty() { "" } else { " " };
    // Writing into a string cannot fail.
    let _ = write!(cell, "{gap}{hour}:");
    for (n, value) in values.iter().enumerate() {
        if n > 0 {
            cell.push('/');
        }
        if let Some(value) = value {
            push_number(cell, *value);
        }
    }
}

/// A number as it stands in a cell: at most seven decimals, so that units may go to and fro.
pub(super) fn push_number(text: &mut String, value: f64) {
    // The zero makes no minus of what is rounded away.
    let rounded = (value * 1e7).round() / 1e7 + 0.0;
    // Writing into a string cannot fail.
    let _ = write!(text, "{rounded}");
}

/// The hours of a cell, by the clock of the file; what is no hour is passed over.
pub(super) fn parse(cell: &str) -> impl Iterator<Item = (u32, Values)> + '_ {
    cell.split(' ').take(MOST).filter_map(|word| {
        let (hour, values) = word.split_once(':')?;
        let hour = hour.parse().ok().filter(|hour| *hour < 24)?;
        let mut numbers = values.split('/').map(|v| v.parse::<f64>().ok().filter(|v| v.is_finite()));
        Some((hour, std::array::from_fn(|_| numbers.next().flatten())))
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_cell_is_written_and_read_back() {
        let mut text = String::new();
        for hour in [0, 23] {
            push(&mut text, hour, &[Some(10.5), Some(80.0), Some(1.0 / 3.0), None, Some(0.0)]);
        }
        let mut small = String::new();
        push_number(&mut small, -1e-9);
        push_number(&mut small, -0.000_000_25);
        assert_eq!(small, "0-0.0000003");
        assert_eq!(text, "0:10.5/80/0.3333333//0 23:10.5/80/0.3333333//0");
        let hours: Vec<_> = parse(&text).collect();
        assert_eq!(hours[1], (23, [Some(10.5), Some(80.0), Some(0.333_333_3), None, Some(0.0)]));
        assert_eq!(parse("24:1 x:2 3 :").count(), 0);
    }
}
