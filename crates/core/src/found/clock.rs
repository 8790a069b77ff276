//! The clock of a panel against a good one.

use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta, Weekday};

use super::{Panel, PanelFinding};
use crate::controller::{Days, StartTime};

/// What the panel's clock shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PanelClock {
    /// Day, month and year.
    pub date: NaiveDate,
    /// The weekday that it shows, where it shows one.
    pub weekday: Option<Weekday>,
    /// The time.
    pub time: StartTime,
}

/// Minutes by which a panel's clock may differ (common practice).
const CLOCK_GRACE_MINUTES: i64 = 5;

const HOUR: i64 = 60;
const HALF_DAY: i64 = 720;
const DAY: i64 = 1440;

/// What is wrong with the clock. It is compared as a moment, so that a minute before midnight is near a minute
/// after it, and the right time on the wrong day is not.
pub(super) fn clock_findings(panel: &Panel, out: &mut Vec<PanelFinding>) {
    let (seen, clock) = (panel.seen_at, panel.clock);
    let today = seen.date();
    let same_day = clock.date.day() == today.day() && clock.date.month() == today.month();
    // A wrong year is said once; the time of the day is compared without it.
    let date = if same_day { today } else { clock.date };
    let ahead = minutes_between(seen, date.and_time(clock.time.time()));
    let is_now = ahead.abs() <= CLOCK_GRACE_MINUTES;
    if same_day || is_now {
        let shows = clock.weekday.unwrap_or(clock.date.weekday());
        let wrong_year = same_day && clock.date.year() != today.year();
        if shows != date.weekday() || wrong_year {
            let fits = |y: i32| NaiveDate::from_ymd_opt(y, date.month(), date.day()).filter(|d| d.weekday() == shows);
            let shown_year = Some(clock.date.year()).filter(|y| wrong_year && fits(*y).is_some());
            let back = (1..=14).find_map(|n| fits(date.year() - n)).map(|d| d.year());
            out.push(PanelFinding::WrongYear { shows, believes: shown_year.or(back) });
        }
    }
    if is_now {
        return;
    }
    let near = |minutes: i64, by: i64| (minutes.abs() - by).abs() <= CLOCK_GRACE_MINUTES;
    if near(ahead, HOUR) {
        out.push(PanelFinding::HourOff { ahead });
    } else if near(ahead, HALF_DAY) {
        out.push(PanelFinding::HalfDayOff);
    } else if same_day {
        out.push(PanelFinding::ClockOff { ahead });
    } else {
        out.push(PanelFinding::WrongDate { shows: clock.date });
        // The time of the day by itself, the short way round.
        let ahead = (ahead + HALF_DAY).rem_euclid(DAY) - HALF_DAY;
        if ahead.abs() > CLOCK_GRACE_MINUTES {
            out.push(PanelFinding::ClockOff { ahead });
        }
    }
}

fn minutes_between(truth: NaiveDateTime, shown: NaiveDateTime) -> i64 {
    // A minute is what a panel shows.
    let whole = |at: NaiveDateTime| at.and_utc().timestamp().div_euclid(60);
    whole(shown) - whole(truth)
}

/// The weekdays that a panel means which numbers its days, 1 to 7: counted from the number that it shows today.
/// Nothing when a number is not one of seven.
#[must_use]
pub fn days_by_number(numbers: &[u8], today_is: u8, today: NaiveDate) -> Option<Days> {
    let is_day = |n: u8| (1..=7).contains(&n);
    (is_day(today_is) && numbers.iter().all(|n| is_day(*n))).then(|| {
        let ahead = |n: u8| TimeDelta::days(i64::from(n) - i64::from(today_is));
        Days::of(numbers.iter().map(|n| (today + ahead(*n)).weekday()))
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::found::{SensorSwitch, Switch};

    fn panel(seen: &str, date: &str, weekday: Option<Weekday>, time: &str) -> Panel {
        Panel {
            seen_at: NaiveDateTime::parse_from_str(seen, "%Y-%m-%d %H:%M").unwrap(),
            clock: PanelClock { date: date.parse().unwrap(), weekday, time: StartTime::read(time).unwrap() },
            switch: Switch::On,
            sensor: SensorSwitch::None,
            stations: Vec::new(),
            windows: Vec::new(),
            programs: Vec::new(),
            note: String::new(),
        }
    }

    fn clock(panel: &Panel) -> Vec<PanelFinding> {
        let mut out = Vec::new();
        clock_findings(panel, &mut out);
        out
    }

    /// 10 June 2026 is a Wednesday; in 2025 it was a Tuesday.
    #[test]
    fn a_weekday_that_does_not_fit_means_a_wrong_year() {
        let wrong = panel("2026-06-10 09:12", "2026-06-10", Some(Weekday::Tue), "09:12");
        assert_eq!(clock(&wrong), [PanelFinding::WrongYear { shows: Weekday::Tue, believes: Some(2025) }]);
        let shown = panel("2026-06-10 09:12", "2014-06-10", None, "09:12");
        assert_eq!(clock(&shown), [PanelFinding::WrongYear { shows: Weekday::Tue, believes: Some(2014) }]);
        assert_eq!(clock(&panel("2026-06-10 09:12", "2026-06-10", Some(Weekday::Wed), "09:15")), []);
        let other = panel("2026-06-10 09:12", "2026-06-09", None, "09:12");
        assert!(matches!(clock(&other)[..], [PanelFinding::WrongDate { .. }]));
    }

    #[test]
    fn an_hour_is_daylight_saving_and_twelve_are_am_for_pm() {
        let at = |time| clock(&panel("2026-06-10 09:12", "2026-06-10", None, time));
        assert_eq!(at("08:10"), [PanelFinding::HourOff { ahead: -62 }]);
        assert_eq!(at("10:12"), [PanelFinding::HourOff { ahead: 60 }]);
        assert_eq!(at("21:10"), [PanelFinding::HalfDayOff]);
        assert_eq!(at("09:40"), [PanelFinding::ClockOff { ahead: 28 }]);
    }

    #[test]
    fn midnight_is_no_day_and_a_day_is_no_minute() {
        assert_eq!(clock(&panel("2026-06-10 00:02", "2026-06-09", Some(Weekday::Tue), "23:59")), []);
        assert_eq!(clock(&panel("2026-12-31 23:58", "2027-01-01", Some(Weekday::Fri), "00:01")), []);
        let a_day_fast = panel("2026-06-10 09:12", "2026-06-11", Some(Weekday::Thu), "09:12");
        assert!(matches!(clock(&a_day_fast)[..], [PanelFinding::WrongDate { .. }]));
        let almost_a_day_fast = panel("2026-06-10 00:02", "2026-06-10", None, "23:59");
        assert_eq!(clock(&almost_a_day_fast), [PanelFinding::ClockOff { ahead: 1437 }]);
        // Daylight saving across midnight is an hour, not a wrong date.
        let summer = panel("2026-06-10 23:30", "2026-06-11", Some(Weekday::Thu), "00:30");
        assert_eq!(clock(&summer), [PanelFinding::HourOff { ahead: 60 }]);
    }

    /// Tuesday, 9 June 2026, shown as day 4: day 1 is the Saturday before it, day 7 the Friday after.
    #[test]
    fn numbered_days_count_from_the_number_of_today() {
        let tuesday = "2026-06-09".parse().unwrap();
        use Weekday::{Fri, Mon, Sat};
        assert_eq!(days_by_number(&[1, 3, 7], 4, tuesday), Some(Days::of([Sat, Mon, Fri])));
        assert_eq!(days_by_number(&[8], 4, tuesday), None);
        assert_eq!(days_by_number(&[1], 0, tuesday), None);
    }
}
