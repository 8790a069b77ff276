//! What was decided about values of a record. The original is kept.

use std::collections::BTreeMap;

use chrono::NaiveDate;

use super::daily::DailyWeather;
use super::element::Element;
use super::quality::{DayIssue, check_day};

/// What was decided about a value.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Verdict {
    /// It counts as it was read.
    Accepted,
    /// It counts as not measured.
    Excluded,
    /// This counts instead, or was read by hand where nothing was measured.
    Corrected(f64),
}

/// A decision about one element on one day.
#[derive(Debug, Clone, PartialEq)]
pub struct Decision {
    /// The day.
    pub date: NaiveDate,
    /// The element.
    pub element: Element,
    /// What was read; `None` where nothing was.
    pub original: Option<f64>,
    /// What counts.
    pub verdict: Verdict,
    /// Why, in the words of whoever decided.
    pub reason: String,
}

impl Decision {
    /// The value that counts.
    #[must_use]
    pub const fn counts(&self) -> Option<f64> {
        match self.verdict {
            Verdict::Accepted => self.original,
            Verdict::Excluded => None,
            Verdict::Corrected(value) => Some(value),
        }
    }
}

/// The days as they count, in order of date: the originals with every decision carried out.
///
/// A value corrected on a day that is not on record brings that day in.
#[must_use]
pub fn as_decided(originals: &[DailyWeather], decisions: &[Decision]) -> Vec<DailyWeather> {
    let mut days: BTreeMap<NaiveDate, DailyWeather> = originals.iter().map(|day| (day.date, *day)).collect();
    for decision in decisions {
        if decision.counts().is_some() || days.contains_key(&decision.date) {
            let day = days.entry(decision.date).or_insert_with(|| DailyWeather::empty(decision.date));
            decision.element.put(day, decision.counts());
        }
    }
    days.into_values().collect()
}

/// The days as they were read, from the days as they count: the other way of [`as_decided`].
///
/// A day of which nothing was read is not on record.
#[must_use]
pub fn as_read(days: &[DailyWeather], decisions: &[Decision]) -> Vec<DailyWeather> {
    let mut read: BTreeMap<NaiveDate, DailyWeather> = days.iter().map(|day| (day.date, *day)).collect();
    for decision in decisions {
        // An excluded value may have been the only one of its day.
        let day = read.entry(decision.date).or_insert_with(|| DailyWeather::empty(decision.date));
        decision.element.put(day, decision.original);
    }
    read.into_values().filter(|day| Element::ALL.iter().any(|e| e.of(day).is_some())).collect()
}

/// Adds decisions to those that stand; about the same element on the same day the new one counts.
///
/// `verdict` is `None` to take a decision back. What was read is looked up in `originals`.
///
/// # Errors
/// [`DayIssue`] when a day would hold an impossible value: outside its range, or a lowest temperature or
/// humidity above the highest.
pub fn decide(
    originals: &[DailyWeather],
    standing: &[Decision],
    days: impl IntoIterator<Item = NaiveDate>,
    element: Element,
    verdict: Option<Verdict>,
    reason: &str,
) -> Result<Vec<Decision>, DayIssue> {
    let mut all: BTreeMap<(NaiveDate, Element), Decision> =
        standing.iter().map(|d| ((d.date, d.element), d.clone())).collect();
    for date in days {
        let key = (date, element);
        match verdict {
            None => {
                all.remove(&key);
            }
            Some(verdict) => {
                let read = originals.iter().find(|day| day.date == date);
                let original = read.and_then(|day| element.of(day));
                all.insert(key, Decision { date, element, original, verdict, reason: reason.to_owned() });
            }
        }
        let on_the_day: Vec<Decision> = all.values().filter(|d| d.date == date).cloned().collect();
        let read: Vec<DailyWeather> = originals.iter().filter(|day| day.date == date).copied().collect();
        let fault = as_decided(&read, &on_the_day).iter().flat_map(|day| check_day(day, None)).find(DayIssue::is_fault);
        if let Some(fault) = fault {
            return Err(fault);
        }
    }
    Ok(all.into_values().collect())
}

#[cfg(test)]
mod tests {
    use chrono::Days;

    use super::*;

    fn date(day: u64) -> NaiveDate {
        NaiveDate::from_ymd_opt(2026, 3, 1).unwrap() + Days::new(day)
    }

    /// Days that go up and down by two degrees.
    fn record(length: u64) -> Vec<DailyWeather> {
        (0..length)
            .map(|n| DailyWeather {
                t_max: Some(15.0 + if n % 2 == 0 { 1.0 } else { -1.0 }),
                t_min: Some(5.0 + (n % 3) as f64),
                rain: Some(0.0),
                ..DailyWeather::empty(date(n))
            })
            .collect()
    }

    #[test]
    fn what_was_read_comes_back_from_any_decision() {
        let days = record(5);
        let mut decisions = Vec::new();
        for (day, element, verdict) in [
            (1, Element::TMin, Verdict::Excluded),
            (2, Element::Rain, Verdict::Corrected(12.7)),
            (3, Element::TMax, Verdict::Accepted),
            // Read by hand, on a day after the record's last.
            (9, Element::Rain, Verdict::Corrected(4.0)),
        ] {
            decisions = decide(&days, &decisions, [date(day)], element, Some(verdict), "gauge").unwrap();
        }
        let counting = as_decided(&days, &decisions);
        assert_eq!(counting.len(), 6);
        assert_eq!((counting[1].t_min, counting[2].rain, counting[3].t_max), (None, Some(12.7), days[3].t_max));
        assert_eq!((counting[5].date, counting[5].rain, counting[5].t_max), (date(9), Some(4.0), None));
        assert_eq!(as_read(&counting, &decisions), days);
        let back = decide(&days, &decisions, [date(2)], Element::Rain, None, "").unwrap();
        assert_eq!(as_decided(&days, &back)[2].rain, Some(0.0));
    }

    #[test]
    fn the_only_value_of_a_day_can_be_excluded_and_comes_back() {
        let only = [DailyWeather { rain: Some(30.0), ..DailyWeather::empty(date(0)) }];
        let decisions = decide(&only, &[], [date(0)], Element::Rain, Some(Verdict::Excluded), "hose").unwrap();
        let counting = as_decided(&only, &decisions);
        assert_eq!(counting[0].rain, None);
        assert_eq!(as_read(&counting, &decisions), only);
        // The empty day need not be kept for that.
        assert_eq!(as_read(&[], &decisions), only);
    }

    #[test]
    fn an_impossible_correction_is_refused() {
        let days = record(3);
        let low_above_high = decide(&days, &[], [date(1)], Element::TMin, Some(Verdict::Corrected(30.0)), "");
        assert!(matches!(low_above_high, Err(DayIssue::TminAboveTmax { .. })));
        let too_much = decide(&days, &[], [date(1)], Element::Rain, Some(Verdict::Corrected(5000.0)), "");
        assert!(matches!(too_much, Err(DayIssue::OutOfRange(_))));
    }
}
