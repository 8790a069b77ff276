//! The local days that hours add up to.

use std::collections::BTreeMap;

use chrono::{NaiveDate, NaiveTime, TimeDelta};

use super::daily::DailyWeather;
use super::hourly::{HourlyEt0, HourlyWeather};

/// A local day made of its hours.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DayOfHours {
    /// The day's weather: extremes of temperature and humidity, mean wind, sums of sun and rain. A value is there
    /// when every hour of the day has it.
    pub weather: DailyWeather,
    /// Sum of the hours' reference ET, mm; nothing for a day with an hour missing.
    pub et0_mm: Option<f64>,
}

/// The local days of a series, earliest first.
///
/// A day is whole when its hours follow each other without a gap from its midnight to the next: 24 of them, 23 or 25
/// where the clock changes.
#[must_use]
pub fn days_of_hours(hours: &[HourlyWeather], et0: &[Option<HourlyEt0>]) -> Vec<DayOfHours> {
    let mut days: BTreeMap<NaiveDate, Vec<(&HourlyWeather, Option<f64>)>> = BTreeMap::new();
    for (hour, et0) in hours.iter().zip(et0) {
        days.entry(hour.date()).or_default().push((hour, et0.map(|e| e.et0_mm)));
    }
    days.into_iter().map(|(date, hours)| day_of_hours(date, hours)).collect()
}

fn day_of_hours(date: NaiveDate, mut hours: Vec<(&HourlyWeather, Option<f64>)>) -> DayOfHours {
    hours.sort_by_key(|(h, _)| h.start);
    if !is_whole(date, &hours) {
        return DayOfHours { weather: DailyWeather::empty(date), et0_mm: None };
    }
    let all =
        |value: fn(&HourlyWeather) -> Option<f64>| hours.iter().map(|(h, _)| value(h)).collect::<Option<Vec<_>>>();
    let highest = |values: &Vec<f64>| values.iter().copied().fold(f64::MIN, f64::max);
    let lowest = |values: &Vec<f64>| values.iter().copied().fold(f64::MAX, f64::min);
    let (t, rh) = (all(|h| h.t), all(|h| h.rh));
    let weather = DailyWeather {
        date,
        t_max: t.as_ref().map(highest),
        t_min: t.as_ref().map(lowest),
        rh_max: rh.as_ref().map(highest),
        rh_min: rh.as_ref().map(lowest),
        rh_mean: rh.as_ref().map(|values| values.iter().sum::<f64>() / values.len() as f64),
        dew_point: None,
        wind: all(|h| h.wind).map(|values| values.iter().sum::<f64>() / values.len() as f64),
        solar: all(|h| h.solar.map(|s| s.max(0.0))).map(|values| values.iter().sum()),
        rain: all(|h| h.rain).map(|values| values.iter().sum()),
    };
    DayOfHours { weather, et0_mm: hours.iter().map(|(_, et0)| *et0).sum() }
}

/// Whether hours, in order, fill a local day.
fn is_whole(date: NaiveDate, hours: &[(&HourlyWeather, Option<f64>)]) -> bool {
    let hour = TimeDelta::hours(1);
    let (Some((first, _)), Some((last, _))) = (hours.first(), hours.last()) else { return false };
    let end = (last.start + hour).naive_local();
    first.start.naive_local() == date.and_time(NaiveTime::MIN)
        && date.succ_opt().is_some_and(|next| end == next.and_time(NaiveTime::MIN))
        && hours.windows(2).all(|pair| matches!(pair, [(a, _), (b, _)] if b.start - a.start == hour))
}

#[cfg(test)]
mod tests {
    use super::super::example_hours::{day, site};
    use super::super::reference_et::Reference;
    use super::*;
    use chrono::FixedOffset;
    use proptest::prelude::*;

    #[test]
    fn a_day_is_whole_with_23_24_or_25_hours_as_its_clock_goes() {
        let days = |rows: Vec<HourlyWeather>| days_of_hours(&rows, &site().hourly_et0(&rows, Reference::Short));
        let plain = day("2015-07-06", 0.7);
        let whole = days(plain.clone())[0];
        assert!(whole.et0_mm.is_some() && whole.weather.t_max == Some(23.0) && whole.weather.rain == Some(0.0));
        assert!(days(plain[..23].to_vec())[0].et0_mm.is_none());
        // Into daylight saving: 01:00+01:00 is followed by 03:00+02:00, and the day has 23 hours.
        let summer = FixedOffset::east_opt(7200).unwrap();
        let mut spring = day("2015-03-29", 0.7);
        spring.iter_mut().skip(2).for_each(|h| h.start = h.start.with_timezone(&summer));
        let found = days(spring.clone());
        assert_eq!((found.len(), found[0].et0_mm.is_some(), found[1].et0_mm.is_some()), (2, true, false));
        assert_eq!(spring.iter().filter(|h| h.date() == spring[0].date()).count(), 23);
    }

    proptest! {
        /// A day's reference ET from its hours stays near the daily figure from its aggregates.
        #[test]
        fn hours_and_day_agree(clearness in 0.4f64..1.0, month in 4u32..=9) {
            let hours = day(&format!("2015-{month:02}-15"), clearness);
            let sum = days_of_hours(&hours, &site().hourly_et0(&hours, Reference::Short))[0];
            let daily = site().et0_mm(&sum.weather, Reference::Short).unwrap();
            let hourly = sum.et0_mm.unwrap();
            prop_assert!((hourly - daily).abs() < 0.12 * daily + 0.1, "{hourly} against {daily}");
        }
    }
}
