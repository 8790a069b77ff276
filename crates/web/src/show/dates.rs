use chrono::{DateTime, Datelike, NaiveDate, NaiveDateTime, NaiveTime, TimeDelta, Timelike, Utc, Weekday};
use chrono_tz::Tz;
use upland_core::controller::{ClockFace, DayMode, Days, StartTime};
use upland_core::quantity::MonthOfYear;

use crate::words::Words;

/// The key of a month's name.
const fn key(month: MonthOfYear, long: bool) -> &'static str {
    const LONG: [&str; 12] = [
        "month-1", "month-2", "month-3", "month-4", "month-5", "month-6", "month-7", "month-8", "month-9", "month-10",
        "month-11", "month-12",
    ];
    const SHORT: [&str; 12] =
        ["mon-1", "mon-2", "mon-3", "mon-4", "mon-5", "mon-6", "mon-7", "mon-8", "mon-9", "mon-10", "mon-11", "mon-12"];
    if long { LONG[month.index()] } else { SHORT[month.index()] }
}

/// January.
pub(crate) fn month_long(month: MonthOfYear) -> String {
    Words.t(key(month, true))
}

/// Jan.
pub(crate) fn month_short(month: MonthOfYear) -> String {
    Words.t(key(month, false))
}

/// The month that a date falls in.
pub(crate) fn month_of(date: NaiveDate) -> MonthOfYear {
    MonthOfYear::ALL[date.month0() as usize]
}

/// 11 June.
pub(crate) fn date_short(date: NaiveDate) -> String {
    Words.t2("date-short", ("day", date.day().to_string()), ("month", month_long(month_of(date))))
}

/// 11 Jun.
pub(crate) fn date_tiny(date: NaiveDate) -> String {
    Words.t2("date-short", ("day", date.day().to_string()), ("month", month_short(month_of(date))))
}

/// 11 June 2026.
pub(crate) fn date_long(date: NaiveDate) -> String {
    Words.t2("date-long", ("date", date_short(date)), ("year", date.year().to_string()))
}

/// Thursday.
pub(crate) fn weekday(date: NaiveDate) -> String {
    day_long(date.weekday())
}

/// Mon.
pub(crate) fn day_short(day: Weekday) -> String {
    const DAYS: [&str; 7] = ["wd-1", "wd-2", "wd-3", "wd-4", "wd-5", "wd-6", "wd-7"];
    Words.t(DAYS[day.num_days_from_monday() as usize])
}

/// M: the letter of a day's toggle.
pub(crate) fn day_letter(day: Weekday) -> String {
    day_short(day).chars().take(1).collect()
}

/// Monday.
pub(crate) fn day_long(day: Weekday) -> String {
    const DAYS: [&str; 7] = ["day-1", "day-2", "day-3", "day-4", "day-5", "day-6", "day-7"];
    Words.t(DAYS[day.num_days_from_monday() as usize])
}

/// Mon, Wed, Fri.
pub(crate) fn day_list(days: Days) -> String {
    days.iter().map(day_short).collect::<Vec<_>>().join(", ")
}

/// The days of a mode in words, never-water days counted in.
pub(crate) fn mode_words(mode: DayMode, never: Days) -> String {
    let w = Words;
    let days = match mode {
        DayMode::Weekdays(days) => day_list(days),
        DayMode::Odd => w.t("mode-odd"),
        DayMode::Even => w.t("mode-even"),
        DayMode::Every { days, next } => w.t2("mode-every", ("days", days.to_string()), ("date", date_short(next))),
    };
    if never.is_empty() {
        days
    } else {
        w.t2("mode-never", ("days", days), ("never", never.iter().map(day_short).collect::<Vec<_>>().join(", ")))
    }
}

/// A moment of the sun by the clock of a zone, to the nearest minute, as almanacs print it.
pub(crate) fn nearest_minute(at: DateTime<Utc>, zone: Tz) -> NaiveDateTime {
    let local = (at + TimeDelta::seconds(30)).with_timezone(&zone).naive_local();
    local.with_second(0).and_then(|t| t.with_nanosecond(0)).unwrap_or(local)
}

/// 07:49.
pub(crate) fn clock(time: NaiveDateTime) -> String {
    time.format("%H:%M").to_string()
}

/// A minute of the day as a clock shows it; the day's end is 24:00.
pub(crate) fn clock_time(minute: u32) -> String {
    format!("{:02}:{:02}", minute / 60, minute % 60)
}

/// A time of the day as a panel shows it: 16:20, or 4:20 pm.
pub(crate) fn panel_time(time: NaiveTime, face: ClockFace) -> String {
    time.format(match face {
        ClockFace::Hours24 => "%H:%M",
        ClockFace::Hours12 => "%-I:%M\u{a0}%P",
    })
    .to_string()
}

/// A start as its panel shows it.
pub(crate) fn panel_start(start: StartTime, face: ClockFace) -> String {
    panel_time(start.time(), face)
}

/// How long ago something was. A user has no time zone, so no clock time is shown.
pub(crate) fn ago(now: DateTime<Utc>, then: DateTime<Utc>) -> String {
    let w = Words;
    let since = now - then;
    match since.num_hours() {
        ..1 => w.t("ago-now"),
        hours @ 1..24 => w.count("ago-hours", usize::try_from(hours).unwrap_or(1)),
        _ => w.count("ago-days", usize::try_from(since.num_days()).unwrap_or(1)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn midnight_is_twelve_in_the_morning_and_noon_twelve_in_the_afternoon() {
        let told = |text: &str| panel_start(StartTime::read(text).unwrap(), ClockFace::Hours12);
        let both = ["00:00", "00:20", "04:05", "12:00", "16:20"].map(told);
        assert_eq!(
            both,
            ["12:00", "12:20", "4:05", "12:00", "4:20"]
                .map(String::from)
                .iter()
                .zip(["am", "am", "am", "pm", "pm"])
                .map(|(t, half)| format!("{t}\u{a0}{half}"))
                .collect::<Vec<_>>()[..]
        );
        for text in ["00:00", "11:59", "12:00", "23:59"] {
            assert_eq!(StartTime::read(&told(text)), StartTime::read(text), "what is shown can be typed");
        }
    }

    #[test]
    fn the_sun_is_told_to_the_nearest_minute() {
        let told = |utc: &str| clock(nearest_minute(utc.parse().unwrap(), chrono_tz::Europe::Rome));
        assert_eq!(told("2026-06-11T03:11:29Z"), "05:11");
        assert_eq!(told("2026-06-11T03:11:30Z"), "05:12");
        assert_eq!(told("2026-06-11T03:11:59.999Z"), "05:12");
        // Past midnight by that clock.
        assert_eq!(told("2026-06-10T21:59:45Z"), "00:00");
    }
}
