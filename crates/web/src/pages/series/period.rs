//! The period of a record that is shown, and the steps from it to others.

use chrono::{Datelike, Days, Months, NaiveDate};

use crate::form::Form;
use crate::words::Words;

/// A period within a record, both days included.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Period {
    pub(crate) from: NaiveDate,
    pub(crate) to: NaiveDate,
}

/// Days of the shortest period that is shown.
const LEAST_DAYS: u64 = 14;

impl Period {
    const fn new(from: NaiveDate, to: NaiveDate) -> Self {
        Self { from, to }
    }

    fn days(self) -> u64 {
        (self.to - self.from).num_days().unsigned_abs() + 1
    }

    /// Within a record: not beyond its ends, not shorter than two weeks where it has them.
    fn within(self, record: Self) -> Self {
        let days = self.days().clamp(LEAST_DAYS.min(record.days()), record.days());
        let to = self.to.clamp(record.from, record.to);
        let from = (to - Days::new(days - 1)).max(record.from);
        // Near the start of the record the period moves to the right.
        Self::new(from, (from + Days::new(days - 1)).min(record.to))
    }

    /// The last thirty days on record.
    pub(crate) fn last_days(record: Self) -> Self {
        Self::new(record.to - Days::new(29), record.to).within(record)
    }

    fn this_year(record: Self) -> Self {
        let start = NaiveDate::from_ymd_opt(record.to.year(), 1, 1).unwrap_or(record.from);
        Self::new(start, record.to).within(record)
    }

    fn twelve_months(record: Self) -> Self {
        Self::new(record.to - Months::new(12) + Days::new(1), record.to).within(record)
    }

    /// What the address asks for; else this year, or twelve months while the year is young.
    pub(crate) fn asked(form: &Form, record: Self) -> Self {
        let date = |field| form.get(field).parse::<NaiveDate>().ok();
        match (date("from"), date("to")) {
            (Some(from), Some(to)) if from <= to => {
                let to = to.clamp(record.from, record.to);
                Self::new(from.clamp(record.from, to), to).within(record)
            }
            _ if record.to.ordinal() < 60 => Self::twelve_months(record),
            _ => Self::this_year(record),
        }
    }

    fn href(self, base: &str) -> String {
        format!("{base}?from={}&to={}", self.from, self.to)
    }
}

/// A period that can be chosen.
#[derive(Debug, Clone)]
pub(crate) struct PeriodLink {
    pub(crate) label: String,
    pub(crate) href: String,
    pub(crate) current: bool,
}

/// The usual periods.
pub(crate) fn usual(base: &str, record: Period, shown: Period) -> Vec<PeriodLink> {
    let w = Words;
    let mut found = false;
    [
        (w.t("record-30-days"), Period::last_days(record)),
        (w.t("record-this-year"), Period::this_year(record)),
        (w.t("record-12-months"), Period::twelve_months(record)),
        (w.t("record-all"), record),
    ]
    .into_iter()
    .map(|(label, period)| {
        // Two of them can be the same days: the first one stands out.
        let current = period == shown && !found;
        found |= current;
        PeriodLink { label, href: period.href(base), current }
    })
    .collect()
}

/// Steps from the period shown; those that lead nowhere have no address.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub(crate) struct Steps {
    pub(crate) earlier: String,
    pub(crate) later: String,
    pub(crate) closer: String,
    pub(crate) wider: String,
}

impl Steps {
    pub(crate) fn of(base: &str, record: Period, shown: Period) -> Self {
        let half = Days::new((shown.days() / 2).max(1));
        let address = |period: Period| {
            let period = period.within(record);
            if period == shown { String::new() } else { period.href(base) }
        };
        Self {
            earlier: address(Period::new(shown.from - half, shown.to - half)),
            later: address(Period::new(shown.from + half, shown.to + half)),
            // The end stays: it is the newest of what is looked at.
            closer: address(Period::new(shown.from + half, shown.to)),
            wider: address(Period::new(shown.from - Days::new(shown.days()), shown.to)),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn period(from: &str, to: &str) -> Period {
        Period::new(from.parse().unwrap(), to.parse().unwrap())
    }

    fn asked(pairs: &[(&str, &str)], record: Period) -> Period {
        let mut form = Form::default();
        for (field, value) in pairs {
            form.set(field, *value);
        }
        Period::asked(&form, record)
    }

    #[test]
    fn this_year_is_shown_first_and_twelve_months_while_it_is_young() {
        assert_eq!(asked(&[], period("2020-03-05", "2026-06-10")), period("2026-01-01", "2026-06-10"));
        assert_eq!(asked(&[], period("2020-03-05", "2026-01-20")), period("2025-01-21", "2026-01-20"));
        // A record of three days is shown whole.
        assert_eq!(asked(&[], period("2026-01-03", "2026-01-05")), period("2026-01-03", "2026-01-05"));
    }

    #[test]
    fn what_is_asked_for_stays_within_the_record() {
        let record = period("2020-03-05", "2026-06-10");
        let beyond = [("from", "2026-06-01"), ("to", "2031-01-01")];
        assert_eq!(asked(&beyond, record), period("2026-05-28", "2026-06-10"));
        assert_eq!(asked(&[("from", "1900-01-01"), ("to", "1900-02-01")], record), period("2020-03-05", "2020-03-18"));
        assert_eq!(asked(&[("from", "2021-05-01"), ("to", "2021-05-01")], record), period("2021-04-18", "2021-05-01"));
        assert_eq!(asked(&[("from", "x"), ("to", "2021-05-01")], record), period("2026-01-01", "2026-06-10"));
    }

    #[test]
    fn steps_end_at_the_ends_of_the_record() {
        let record = period("2026-01-01", "2026-06-10");
        let all = Steps::of("/weather/x", record, record);
        assert_eq!((all.earlier.as_str(), all.later.as_str(), all.wider.as_str()), ("", "", ""));
        assert_eq!(all.closer, "/weather/x?from=2026-03-22&to=2026-06-10");
        let last = Steps::of("/weather/x", record, period("2026-05-12", "2026-06-10"));
        assert_eq!(last.later, "");
        assert_eq!(last.earlier, "/weather/x?from=2026-04-27&to=2026-05-26");
        assert_eq!(last.wider, "/weather/x?from=2026-04-12&to=2026-06-10");
    }
}
