//! The local day and the time of day of a stamp.

use chrono::{DateTime, FixedOffset, NaiveDate, NaiveDateTime, Offset, TimeZone, Timelike, Utc};
use chrono_tz::{OffsetComponents, Tz};

use super::super::column::Unit;
use super::super::table::Table;

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

/// Minutes of a day; a stamp of 24:00 has as many.
pub(super) const DAY_MINUTES: u32 = 1440;

impl Stamps {
    /// The stamps under a header.
    pub(super) fn of(title: &str, zone: Tz) -> Self {
        let title = title.to_lowercase();
        let words = title.split(|c: char| !c.is_ascii_alphabetic());
        Self { zone, header_says_utc: words.into_iter().any(|word| ["utc", "gmt", "zulu"].contains(&word)) }
    }

    /// The same for a file whose stamps all tell the offset of the zone's standard time while clocks of the zone stand
    /// otherwise: a logger that is never put forward. Its days are those of its own clock.
    pub(super) fn of_file(title: &str, zone: Tz, table: &Table, column: usize) -> Self {
        let (mut keeps_standard, mut differs) = (true, false);
        table.each_row(|_, record| {
            let Some(at) = record.get(column).and_then(|cell| stated(cell.trim())) else {
                keeps_standard = false;
                return;
            };
            let there = zone.offset_from_utc_datetime(&at.naive_utc());
            let seconds = i64::from(at.offset().local_minus_utc());
            keeps_standard &= seconds == there.base_utc_offset().num_seconds();
            differs |= seconds != i64::from(there.fix().local_minus_utc());
        });
        let offset = zone.offset_from_utc_datetime(&NaiveDateTime::default()).base_utc_offset().num_minutes();
        let own = (keeps_standard && differs).then(|| zone_at(offset as f64 / 60.0)).flatten();
        Self::of(title, own.unwrap_or(zone))
    }

    /// The zone by whose clock the days are.
    pub(super) const fn zone(&self) -> Tz {
        self.zone
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

    /// The minutes since midnight of a cell with date and time, by the clock of the file; by that of the place where the
    /// stamp tells its offset from UTC.
    pub(super) fn minutes(&self, cell: &str) -> Option<u32> {
        let cell = cell.trim();
        if let Some(at) = instant(cell).or_else(|| self.in_utc(cell)) {
            return Some(at.with_timezone(&self.zone).num_seconds_from_midnight() / 60);
        }
        minutes_of(cell.split_once(['T', ' '])?.1)
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

/// The minutes since midnight of a time such as `4:05`, `16:05:30`, `4:05 PM`, `24:00` or, as an hour alone, `16`.
pub(super) fn minutes_of(time: &str) -> Option<u32> {
    let time = time.trim().to_ascii_uppercase();
    let half = ["AM", "PM"].iter().position(|half| time.ends_with(half));
    let figures = time.trim_end_matches(['A', 'P', 'M', ' ']);
    let mut parts = figures.split(':');
    let hour: u32 = parts.next()?.parse().ok().filter(|hour| *hour <= 24)?;
    let minute: u32 = parts.next().map_or(Some(0), |minute| minute.parse().ok())?;
    let hour = match half {
        Some(_) if !(1..=12).contains(&hour) => return None,
        Some(half) => hour % 12 + if half == 1 { 12 } else { 0 },
        None => hour,
    };
    let minutes = hour * 60 + minute;
    (minute < 60 && minutes <= DAY_MINUTES).then_some(minutes)
}

/// A stamp with its offset: `2026-06-11T04:00:00Z`, `2026-06-11 04:00+02:00`.
fn instant(cell: &str) -> Option<DateTime<Utc>> {
    stated(cell).map(|stated| stated.to_utc())
}

/// The time zone that is always so many hours from UTC; `None` where they are not whole.
pub(super) fn zone_at(hours: f64) -> Option<Tz> {
    if hours.fract() != 0.0 || !(-12.0..=14.0).contains(&hours) {
        return None;
    }
    // In these names the sign is that of UTC from the place.
    let name = if hours == 0.0 { "Etc/GMT".to_owned() } else { format!("Etc/GMT{:+}", -hours) };
    name.parse().ok()
}

/// A stamp with the offset that it states.
fn stated(cell: &str) -> Option<DateTime<FixedOffset>> {
    // Every row is asked, and most end in a figure of the time: nothing is parsed for those.
    let has_offset = cell.ends_with(['Z', 'z']) || cell.get(16..).is_some_and(|rest| rest.contains(['+', '-']));
    if !has_offset {
        return None;
    }
    let formats = ["%Y-%m-%d %H:%M:%S%.f%#z", "%Y-%m-%d %H:%M%#z", "%Y-%m-%dT%H:%M%#z"];
    let stated = DateTime::parse_from_rfc3339(cell).ok();
    stated.or_else(|| formats.iter().find_map(|format| DateTime::parse_from_str(cell, format).ok()))
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

    /// In summer clocks in Los Angeles stand seven hours behind UTC, and eight by standard time.
    #[test]
    fn a_logger_that_is_never_put_forward_has_days_of_its_own() {
        let day = |stamps: [&str; 2]| {
            let text = format!("time,temp_c\n{},10\n{},11\n", stamps[0], stamps[1]);
            let table = Table::parse_hours(text.as_bytes()).unwrap();
            let stamps_of = Stamps::of_file("time", Los_Angeles, &table, 0);
            match stamps_of.day(stamps[1]) {
                Some(StampDay::OfPlace(date)) => format!("{date} {}", stamps_of.zone().name()),
                other => panic!("{other:?}"),
            }
        };
        let standard = day(["2026-06-10T22:00:00-08:00", "2026-06-10T23:30:00-08:00"]);
        assert_eq!(standard, "2026-06-10 Etc/GMT+8");
        // The zone's own clock, in both its hours; UTC; a clock of elsewhere: the days of the place.
        let wall = day(["2026-01-10T12:00:00-08:00", "2026-06-10T23:30:00-07:00"]);
        assert_eq!(wall, "2026-06-10 America/Los_Angeles");
        for other in [["2026-06-11T05:00:00Z", "2026-06-11T07:30:00Z"], ["2026-06-11T05:00:00+02:00"; 2]] {
            assert!(day(other).ends_with("America/Los_Angeles"), "{other:?}");
        }
    }

    #[test]
    fn hours_from_utc_have_a_zone_where_they_are_whole() {
        let name = |hours: f64| zone_at(hours).map(|zone| zone.name());
        assert_eq!((name(-8.0), name(1.0), name(0.0)), (Some("Etc/GMT+8"), Some("Etc/GMT-1"), Some("Etc/GMT")));
        assert_eq!((name(5.5), name(99.0), name(f64::NAN)), (None, None, None));
        assert!((-12..=14).all(|hours| zone_at(f64::from(hours)).is_some()));
    }

    #[test]
    fn the_time_of_day_is_read_as_loggers_write_it() {
        let written = ["0:00", "04:05", "16:05:30", "4:05 PM", "12:10am", "12:10 PM", "24:00", "7", "7 PM"];
        let minutes = [0, 245, 965, 965, 10, 730, 1440, 420, 1140];
        assert_eq!(written.map(minutes_of), minutes.map(Some));
        for no_time in ["", "25:00", "12:60", "13:00 PM", "noon", "-1", "0:00 XM", "99999999999"] {
            assert_eq!(minutes_of(no_time), None, "{no_time}");
        }
        let of = |title: &str, cell: &str| Stamps::of(title, Los_Angeles).minutes(cell);
        assert_eq!(of("time", "2026-06-11T04:00:00Z"), Some(21 * 60));
        assert_eq!(of("time (UTC)", "2026-01-11 04:30"), Some(20 * 60 + 30));
        assert_eq!(of("time", "11.06.2026 24:00"), Some(DAY_MINUTES));
        assert_eq!(of("time", "2026-06-11"), None);
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
