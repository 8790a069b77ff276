use std::fmt::Write;

use upland_core::climate::daily::DailyWeather;
use upland_core::climate::element::Element;

use super::column::Column;

/// Days as CSV in our own columns and units, those that no day has left out; [`super::read()`] gives the same
/// days back, to the last digit.
#[must_use]
pub fn write_days(days: &[DailyWeather]) -> String {
    let used: Vec<Element> = Element::ALL.into_iter().filter(|e| days.iter().any(|day| e.of(day).is_some())).collect();
    let mut text = String::from(Column::Date.name());
    for element in &used {
        text.push(',');
        text.push_str(element.word());
    }
    text.push('\n');
    for day in days {
        // Writing into a string cannot fail.
        let _ = write!(text, "{}", day.date);
        for element in &used {
            text.push(',');
            if let Some(value) = element.of(day) {
                let _ = write!(text, "{value}");
            }
        }
        text.push('\n');
    }
    text
}

#[cfg(test)]
mod tests {
    use chrono::NaiveDate;
    use proptest::prelude::*;

    use super::super::{Mapping, Table, read};
    use super::*;

    proptest! {
        #[test]
        fn what_is_written_reads_back_the_same(
            values in prop::collection::vec((-20.0..45.0_f64, prop::option::of(0.0..120.0_f64)), 1..40)
        ) {
            let first = NaiveDate::from_ymd_opt(2024, 2, 20).unwrap();
            let days: Vec<DailyWeather> = (0..)
                .zip(&values)
                .map(|(n, (t_max, rain))| DailyWeather {
                    t_max: Some(*t_max),
                    rain: *rain,
                    t_min: Some(-25.0),
                    ..DailyWeather::empty(first + chrono::Days::new(n))
                })
                .collect();
            let table = Table::parse(write_days(&days).as_bytes()).unwrap();
            let mapping = Mapping::by_name(table.headers(), &[]).unwrap();
            let back: Vec<DailyWeather> = read(&table, &mapping, None).rows.iter().map(|r| r.day).collect();
            prop_assert_eq!(back, days);
        }
    }
}
