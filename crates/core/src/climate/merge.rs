//! A new export of a station joins what is on record of it.

use std::collections::BTreeMap;

use chrono::NaiveDate;

use super::daily::DailyWeather;
use super::element::Element;
use super::review::{Decision, Verdict};

/// A value that the new export gives otherwise than the record.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Difference {
    /// The day.
    pub date: NaiveDate,
    /// The element.
    pub element: Element,
    /// On record.
    pub was: f64,
    /// In the new export.
    pub is: f64,
}

/// A record and a new export together.
#[derive(Debug, Clone, PartialEq)]
pub struct Merged {
    /// The days as they were read, by date.
    pub read: Vec<DailyWeather>,
    /// The decisions that still stand.
    pub decisions: Vec<Decision>,
    /// Days that only the new export has.
    pub added: usize,
    /// Days on which nothing changes.
    pub same: usize,
    /// Values on days of both that are the same.
    pub agreeing: usize,
    /// Values that change.
    pub differences: Vec<Difference>,
    /// Values that were missing on days on record.
    pub filled: usize,
    /// Decisions that fall, because what was decided about is another value now.
    pub dropped: usize,
}

impl Merged {
    /// Whether both are of one station: four fifths of the values that can be compared agree. `None` where no
    /// day is in both.
    #[must_use]
    pub fn is_one_station(&self) -> Option<bool> {
        let compared = self.agreeing + self.differences.len();
        (compared > 0).then(|| self.differences.len() * 5 <= compared)
    }

    /// Whether the new export brings nothing.
    #[must_use]
    pub const fn changes_nothing(&self) -> bool {
        self.added == 0 && self.differences.is_empty() && self.filled == 0
    }
}

/// Joins a new export to a record. The export's values count where it has one, the record's where it has
/// none. What was read by hand goes on counting; a value that was accepted or excluded is asked about again
/// when it reads otherwise.
#[must_use]
pub fn merge(read: &[DailyWeather], decisions: &[Decision], export: &[DailyWeather]) -> Merged {
    let mut days: BTreeMap<NaiveDate, DailyWeather> = read.iter().map(|day| (day.date, *day)).collect();
    let (mut added, mut same, mut filled, mut agreeing) = (0, 0, 0, 0);
    let mut differences = Vec::new();
    for new in export {
        let Some(day) = days.get_mut(&new.date) else {
            days.insert(new.date, *new);
            added += 1;
            continue;
        };
        let before = *day;
        for element in Element::ALL {
            let Some(is) = element.of(new) else { continue };
            match element.of(&before) {
                // Units go to and fro in files.
                Some(was) if (was - is).abs() <= 1e-6 => {
                    agreeing += 1;
                    continue;
                }
                Some(was) => differences.push(Difference { date: new.date, element, was, is }),
                None => filled += 1,
            }
            element.put(day, Some(is));
        }
        same += usize::from(before == *day);
    }
    let mut kept = Vec::new();
    for decision in decisions {
        let original = days.get(&decision.date).and_then(|day| decision.element.of(day));
        let by_hand = matches!(decision.verdict, Verdict::Corrected(_));
        if by_hand || original == decision.original {
            kept.push(Decision { original, ..decision.clone() });
        }
    }
    let dropped = decisions.len() - kept.len();
    Merged { read: days.into_values().collect(), decisions: kept, added, same, agreeing, differences, filled, dropped }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(number: u32, rain: Option<f64>, t_max: Option<f64>) -> DailyWeather {
        let date = NaiveDate::from_ymd_opt(2026, 6, number).unwrap();
        DailyWeather { rain, t_max, ..DailyWeather::empty(date) }
    }

    fn decided(number: u32, original: Option<f64>, verdict: Verdict) -> Decision {
        let date = NaiveDate::from_ymd_opt(2026, 6, number).unwrap();
        Decision { date, element: Element::Rain, original, verdict, reason: String::new() }
    }

    #[test]
    fn the_same_export_again_brings_nothing() {
        let record = [day(1, Some(2.0), Some(20.0)), day(2, None, Some(21.0))];
        let again = merge(&record, &[], &record);
        assert!(again.changes_nothing());
        assert_eq!((again.read.as_slice(), again.same), (&record[..], 2));
        assert_eq!(again.is_one_station(), Some(true));
        // Back from inches.
        let by_inches = [day(1, Some(2.0 / 25.4 * 25.4), Some(20.0))];
        assert!(merge(&record, &[], &by_inches).changes_nothing());
    }

    #[test]
    fn later_days_are_added_gaps_filled_differences_told_and_nothing_known_is_lost() {
        let record = [day(1, Some(2.0), Some(20.0)), day(2, None, Some(21.0))];
        let export = [day(2, Some(4.0), None), day(1, Some(3.0), Some(20.0)), day(3, Some(0.0), Some(24.0))];
        let merged = merge(&record, &[], &export);
        assert_eq!((merged.added, merged.filled, merged.same), (1, 1, 0));
        let [difference] = merged.differences[..] else { panic!("{:?}", merged.differences) };
        assert_eq!((difference.was, difference.is), (2.0, 3.0));
        assert_eq!(merged.is_one_station(), Some(false));
        assert_eq!(merge(&record, &[], &export[2..]).is_one_station(), None);
        assert_eq!(
            merged.read,
            [day(1, Some(3.0), Some(20.0)), day(2, Some(4.0), Some(21.0)), day(3, Some(0.0), Some(24.0))]
        );
    }

    #[test]
    fn the_gauge_goes_on_counting_and_an_exclusion_falls_with_its_value() {
        let record = [day(1, Some(90.0), None), day(2, Some(80.0), None)];
        let decisions = [
            decided(1, Some(90.0), Verdict::Excluded),
            decided(2, Some(80.0), Verdict::Excluded),
            decided(3, None, Verdict::Corrected(6.0)),
        ];
        let export = [day(1, Some(9.0), None), day(2, Some(80.0), None), day(3, Some(1.7), None)];
        let merged = merge(&record, &decisions, &export);
        assert_eq!(merged.dropped, 1);
        assert_eq!(
            merged.decisions,
            [decided(2, Some(80.0), Verdict::Excluded), decided(3, Some(1.7), Verdict::Corrected(6.0)),]
        );
    }
}
