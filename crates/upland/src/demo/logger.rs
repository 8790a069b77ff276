//! The demo's logger: the hours of a small station on the hill, made from the days of the airfield.

use chrono::{DateTime, Days, FixedOffset, NaiveDate, TimeZone, Timelike};
use chrono_tz::America::Los_Angeles;
use std::f64::consts::PI;
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::day_of_hours::days_of_hours;
use upland_core::climate::hourly::HourlyWeather;
use upland_core::place::Position;
use upland_store::{DayHours, HoursOnRecord};

/// Height of its wind sensor, m.
pub(super) const MAST_M: f64 = 3.0;
/// For how many days the logger has been there.
const DAYS: u64 = 40;

/// The hours of the last days, on a hill where it is two degrees cooler and windier than at the airfield.
pub(super) fn hours(airfield: &[DailyWeather], site: &Site, today: NaiveDate) -> HoursOnRecord {
    let first = today - Days::new(DAYS);
    let recent = airfield.iter().filter(|day| day.date >= first);
    let of_day = |day: &DailyWeather| {
        let hours: Vec<HourlyWeather> =
            (0..24).filter_map(|hour| local(day.date, hour)).map(|start| hour(day, site, start)).collect();
        (day.date, DayHours { brought_by: None, hours })
    };
    recent.map(of_day).collect()
}

/// The days that those hours make.
pub(super) fn days(hours: &HoursOnRecord) -> Vec<DailyWeather> {
    let all: Vec<HourlyWeather> = hours.values().flat_map(|day| day.hours.iter().copied()).collect();
    let et0 = vec![None; all.len()];
    days_of_hours(&all, &et0).into_iter().map(|day| day.weather).collect()
}

/// An hour of a day; none where the clock leaves it out.
fn local(date: NaiveDate, hour: u32) -> Option<DateTime<FixedOffset>> {
    let start = Los_Angeles.from_local_datetime(&date.and_hms_opt(hour, 0, 0)?).earliest()?;
    Some(start.fixed_offset())
}

/// Coldest at five, warmest at four; wind in the afternoon, rain before dawn, less sun on a wet day.
fn hour(day: &DailyWeather, site: &Site, start: DateTime<FixedOffset>) -> HourlyWeather {
    let at = f64::from(start.hour());
    let (high, low) = (day.t_max.unwrap_or(15.0) - 2.0, day.t_min.unwrap_or(8.0) - 2.0);
    let warmth = f64::midpoint(1.0, ((at - 16.0) / 24.0 * 2.0 * PI).cos());
    let (rain, wind) = (day.rain.unwrap_or(0.0), day.wind.unwrap_or(2.0));
    let breeze = ((at - 8.0) / 12.0 * PI).sin().max(0.0);
    let tenths = |value: f64| (value * 10.0).round() / 10.0;
    let is_rainy_hour = (3..7).contains(&start.hour());
    let clear = site.clear_sky_hour(start.to_utc());
    HourlyWeather {
        t: Some(tenths(low + (high - low) * warmth)),
        rh: Some((94.0 - 48.0 * warmth).round()),
        wind: Some(tenths(wind * (0.5 + 1.3 * breeze))),
        solar: Some(clear * if rain > 1.0 { 0.4 } else { 0.8 }),
        rain: Some(if is_rainy_hour { (rain * 1.2 / 4.0 / 0.2).round() * 0.2 } else { 0.0 }),
        ..HourlyWeather::empty(start)
    }
}

/// Where the logger stands.
pub(super) fn site() -> anyhow::Result<Site> {
    Ok(Site::new(&Position::new(47.4907, -122.2012, 318.0)?, MAST_M, Guesses::default())?)
}

#[cfg(test)]
mod tests {
    use super::super::weather::played_again;
    use super::*;
    use upland_core::climate::by_hours::{Counts, both_ways};
    use upland_core::climate::reference_et::Reference;

    #[test]
    fn its_days_are_whole_and_near_those_of_the_daily_equation() {
        let today = "2026-06-11".parse().unwrap();
        let site = site().unwrap();
        let hours = hours(&played_again(today).unwrap(), &site, today);
        let days = days(&hours);
        assert_eq!(days.len(), 40);
        for both in both_ways(&site, &days, hours.values().map(|day| day.hours.as_slice()), &[], Reference::Short) {
            assert_eq!(both.counts, Counts::Hours);
            let (Some((sum, _)), Some((daily, _))) = (both.by_hours, both.by_day) else { panic!("{both:?}") };
            assert!((sum - daily).abs() < 0.15 * daily + 0.2, "{sum} against {daily}");
        }
    }
}
