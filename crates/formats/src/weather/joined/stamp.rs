//! The local day of a stamp.

use chrono::{DateTime, NaiveDate, NaiveDateTime, TimeZone, Utc};
use chrono_tz::Tz;

use super::super::column::Unit;

/// How the stamps of a file are read as days.
#[derive(Debug, Clone, Copy)]
pub(super) struct Stamps {
    zone: Tz,
    /// The header says that times are in UTC, so that the stamps do not.
    header_says_utc: bool,
}

/// The day of a stamp.
#[derive(Debug, PartialEq, Eq)]
pub(super) enum StampDay<'a> {
    /// As it is written, without the time after it.
    AsWritten(&'a str),
    /// Of the place, where the stamp tells its offset from UTC.
    OfPlace(NaiveDate),
}

impl Stamps {
    /// The stamps under a header.
    pub(super) fn of(title: &str, zone: Tz) -> Self {
        let title = title.to_lowercase();
        let words = title.split(|c: char| !c.is_ascii_alphabetic());
        Self { zone, header_says_utc: words.into_iter().any(|word| ["utc", "gmt", "zulu"].contains(&word)) }
    }

    /// The day of a cell; nothing where it is no date.
    pub(super) fn day<'a>(&self, cell: &'a str) -> Option<StampDay<'a>> {
        let cell = cell.trim();
        if let Some(at) = instant(cell).or_else(|| self.in_utc(cell)) {
            return Some(StampDay::OfPlace(at.with_timezone(&self.zone).date_naive()));
        }
        let date = cell.split(['T', ' ']).next()?;
        let orders = [Unit::YearMonthDay, Unit::DayMonthYear, Unit::MonthDayYear];
        orders.iter().any(|order| order.date(date).is_some()).then_some(StampDay::AsWritten(date))
    }

    fn in_utc(&self, cell: &str) -> Option<DateTime<Utc>> {
        if !self.header_says_utc {
            return None;
        }
        let formats = ["%Y-%m-%d %H:%M:%S", "%Y-%m-%d %H:%M", "%Y-%m-%dT%H:%M:%S", "%Y-%m-%dT%H:%M"];
        let at = formats.iter().find_map(|format| NaiveDateTime::parse_from_str(cell, format).ok())?;
        Some(Utc.from_utc_datetime(&at))
    }
}

/// A stamp with its offset: `2026-06-11T04:00:00Z`, `2026-06-11 04:00+02:00`.
fn instant(cell: &str) -> Option<DateTime<Utc>> {
    // Every row is asked, and most end in a figure of the time: nothing is parsed for those.
    let has_offset = cell.ends_with(['Z', 'z']) || cell.get(16..).is_some_and(|rest| rest.contains(['+', '-']));
    if !has_offset {
        return None;
    }
    let formats = ["%Y-%m-%d %H:%M:%S%.f%#z", "%Y-%m-%d %H:%M%#z", "%Y-%m-%dT%H:%M%#z"];
    let stated = DateTime::parse_from_rfc3339(cell).ok();
    let stated = stated.or_else(|| formats.iter().find_map(|format| DateTime::parse_from_str(cell, format).ok()))?;
    Some(stated.to_utc())
}

#[cfg(test)]
mod tests {
    use chrono_tz::America::Los_Angeles;

    use super::*;

    fn day(title: &str, cell: &str) -> Option<String> {
        Some(match Stamps::of(title, Los_Angeles).day(cell)? {
            StampDay::AsWritten(date) => format!("as written {date}"),
            StampDay::OfPlace(date) => date.to_string(),
        })
    }

    /// 04:00 UTC on 11 June is 21:00 of the day before where clocks stand seven hours behind; in January, eight.
    #[test]
    fn a_stamp_with_an_offset_belongs_to_the_day_of_the_place() {
        for cell in [
            "2026-06-11T04:00:00Z",
            "2026-06-11 04:00Z",
            "2026-06-11T06:00:00+02:00",
            "2026-06-11 06:00+02:00",
            "2026-06-10T21:00:00-07:00",
        ] {
            assert_eq!(day("time", cell).as_deref(), Some("2026-06-10"), "{cell}");
        }
        assert_eq!(day("time", "2026-06-11T07:00:00Z").as_deref(), Some("2026-06-11"));
        assert_eq!(day("time", "2026-01-11T07:59:59Z").as_deref(), Some("2026-01-10"));
        assert_eq!(day("time", "2026-01-11T08:00:00.000Z").as_deref(), Some("2026-01-11"));
    }

    #[test]
    fn a_header_that_says_utc_is_believed_and_any_other_stamp_is_as_written() {
        assert_eq!(day("Timestamp (UTC)", "2026-06-11 04:00").as_deref(), Some("2026-06-10"));
        assert_eq!(day("time_gmt", "2026-06-11T04:00:00").as_deref(), Some("2026-06-10"));
        assert_eq!(day("Timestamp", "2026-06-11 04:00").as_deref(), Some("as written 2026-06-11"));
        assert_eq!(day("Timestamp", "11.06.2026 24:00").as_deref(), Some("as written 11.06.2026"));
        assert_eq!(day("Output cutc", "2026-06-11").as_deref(), Some("as written 2026-06-11"));
        assert_eq!(day("time", "yesterday"), None);
        assert_eq!(day("time", "2026-06-11Tnoon+02:00").as_deref(), Some("as written 2026-06-11"));
    }
}
