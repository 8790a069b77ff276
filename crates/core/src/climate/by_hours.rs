//! Reference ET of the days of a record, by their hours where those were measured.

use std::collections::{BTreeMap, BTreeSet};

use chrono::NaiveDate;

use super::daily::{DailyWeather, Site};
use super::day_of_hours::days_of_hours;
use super::element::Element;
use super::hourly::{HourlyMethod, HourlyWeather};
use super::method::Method;
use super::reference_et::Reference;
use super::review::{Decision, Verdict};

/// A day's reference ET, mm, and how it was reached; `None` where its temperatures are missing.
pub type DayFigure = Option<(f64, Method)>;

/// A day's reference ET by its hours and by the daily equation, both by \[ASCE-05\].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BothWays {
    /// The sum of its hours; `None` where any of them is missing.
    pub by_hours: DayFigure,
    /// The daily equation.
    pub by_day: DayFigure,
    /// Which of them counts, and why.
    pub counts: Counts,
}

/// Which of a day's two figures counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Counts {
    /// The sum of the hours: it knows when the wind blew and the sun shone.
    Hours,
    /// The daily equation, as hours are missing.
    DayAsHoursAreMissing,
    /// The daily equation, as a value was excluded or corrected that the hours hold as it was read.
    DayAsHoursAreDoubted,
    /// The daily equation, as more had to be guessed for the hours.
    DayAsHoursAreGuessed,
}

impl BothWays {
    fn new(by_hours: DayFigure, by_day: DayFigure, is_doubted: bool) -> Self {
        let guesses = |figure: DayFigure| figure.map(|(_, method)| method.guesses());
        let counts = match (guesses(by_hours), guesses(by_day)) {
            (None, _) => Counts::DayAsHoursAreMissing,
            _ if is_doubted => Counts::DayAsHoursAreDoubted,
            (Some(hours), Some(day)) if day < hours => Counts::DayAsHoursAreGuessed,
            _ => Counts::Hours,
        };
        Self { by_hours, by_day, counts }
    }

    /// The figure that counts.
    #[must_use]
    pub fn figure(&self) -> DayFigure {
        if self.counts == Counts::Hours { self.by_hours } else { self.by_day }
    }
}

/// Reference ET of each day both ways, in the order given. `hours` are those of any of the days, a day after another by
/// date and in order; `decisions` what was decided about values of them.
#[must_use]
pub fn both_ways<'a>(
    site: &Site,
    days: &[DailyWeather],
    hours: impl Iterator<Item = &'a [HourlyWeather]> + Clone,
    decisions: &[Decision],
    reference: Reference,
) -> Vec<BothWays> {
    let sums = sums(site, hours, reference);
    let doubted: BTreeSet<NaiveDate> = decisions.iter().filter(|d| is_doubt(d)).map(|d| d.date).collect();
    let both = |day: &DailyWeather| {
        let by_day = site.et0(day, reference).map(|et0| (et0.et0_mm, et0.method));
        BothWays::new(sums.get(&day.date).copied(), by_day, doubted.contains(&day.date))
    };
    days.iter().map(both).collect()
}

/// Reference ET of each day by [`both_ways`], as it counts.
#[must_use]
pub fn et0_of_days<'a>(
    site: &Site,
    days: &[DailyWeather],
    hours: impl Iterator<Item = &'a [HourlyWeather]> + Clone,
    decisions: &[Decision],
    reference: Reference,
) -> Vec<DayFigure> {
    both_ways(site, days, hours, decisions, reference).iter().map(BothWays::figure).collect()
}

/// Whether what was measured on the day counts otherwise than it was read, for its reference ET.
fn is_doubt(decision: &Decision) -> bool {
    decision.element != Element::Rain && decision.verdict != Verdict::Accepted
}

/// The reference ET of the days whose hours are whole.
fn sums<'a>(
    site: &Site,
    hours: impl Iterator<Item = &'a [HourlyWeather]> + Clone,
    reference: Reference,
) -> BTreeMap<NaiveDate, (f64, Method)> {
    let mut sums = BTreeMap::new();
    site.hourly_et0_by_day(hours, reference, |day, et0| {
        let guessed = |of: fn(&HourlyMethod) -> bool| et0.iter().flatten().any(|hour| of(&hour.method));
        let method = Method::SumOfHours {
            reference,
            humidity_guessed: guessed(|m| m.humidity_guessed),
            wind_guessed: guessed(|m| m.wind_guessed),
            sun_guessed: guessed(|m| m.sun_guessed),
        };
        for day in days_of_hours(day, et0) {
            if let Some(et0_mm) = day.et0_mm {
                sums.insert(day.weather.date, (et0_mm, method));
            }
        }
    });
    sums
}

#[cfg(test)]
mod tests {
    use std::iter::once;

    use chrono::{DateTime, TimeDelta};

    use super::super::daily::Guesses;
    use super::*;
    use crate::place::Position;

    fn site() -> Site {
        Site::new(&Position::new(47.6, 7.6, 260.0).unwrap(), 2.0, Guesses::default()).unwrap()
    }

    /// A windy afternoon after a calm night.
    fn hours() -> Vec<HourlyWeather> {
        let midnight = DateTime::parse_from_rfc3339("2026-07-06T00:00:00+02:00").unwrap();
        (0..24)
            .map(|hour| {
                let start = midnight + TimeDelta::hours(hour);
                let is_afternoon = (12..20).contains(&hour);
                HourlyWeather {
                    t: Some(if is_afternoon { 29.0 } else { 17.0 }),
                    rh: Some(if is_afternoon { 30.0 } else { 75.0 }),
                    wind: Some(if is_afternoon { 5.0 } else { 0.5 }),
                    solar: Some(0.8 * site().clear_sky_hour(start.to_utc())),
                    rain: Some(0.0),
                    ..HourlyWeather::empty(start)
                }
            })
            .collect()
    }

    fn day() -> DailyWeather {
        days_of_hours(&hours(), &[None; 24])[0].weather
    }

    fn decided(element: Element, verdict: Verdict) -> Decision {
        Decision { date: day().date, element, original: element.of(&day()), verdict, reason: String::new() }
    }

    #[test]
    fn a_whole_day_of_hours_counts_by_their_sum() {
        let (hours, day) = (hours(), day());
        let sum: f64 = site().hourly_et0(&hours, Reference::Short).iter().map(|h| h.unwrap().et0_mm).sum();
        let found = et0_of_days(&site(), &[day], once(&hours[..]), &[], Reference::Short);
        let [Some((mm, method))] = found[..] else { panic!("{found:?}") };
        assert_eq!((mm, method.to_string().as_str()), (sum, "asce-pm-short-hourly-sum"));
        // The wind blew while the air was dry: the mean of the day does not tell.
        let daily = site().et0_mm(&day, Reference::Short).unwrap();
        assert!(mm > daily + 0.1, "{mm} against {daily}");
    }

    #[test]
    fn a_day_without_all_its_hours_counts_by_the_daily_equation() {
        let day = day();
        let daily = site().et0(&day, Reference::Short).map(|et0| (et0.et0_mm, et0.method));
        for hours in [&hours()[..23], &[][..]] {
            assert_eq!(et0_of_days(&site(), &[day], once(hours), &[], Reference::Short), [daily]);
        }
    }

    #[test]
    fn doubt_about_a_value_leaves_the_hours_out_and_doubt_about_rain_does_not() {
        let (hours, day) = (hours(), day());
        let method = |decision: Decision| {
            let [figure] = et0_of_days(&site(), &[day], once(&hours[..]), &[decision], Reference::Short)[..] else {
                panic!()
            };
            figure.unwrap().1.to_string()
        };
        assert_eq!(method(decided(Element::TMax, Verdict::Corrected(31.0))), "asce-pm-short");
        assert_eq!(method(decided(Element::Wind, Verdict::Excluded)), "asce-pm-short");
        assert_eq!(method(decided(Element::TMax, Verdict::Accepted)), "asce-pm-short-hourly-sum");
        assert_eq!(method(decided(Element::Rain, Verdict::Corrected(4.0))), "asce-pm-short-hourly-sum");
    }

    #[test]
    fn what_the_hours_lack_is_in_the_name_of_the_method() {
        let no_wind: Vec<_> = hours().into_iter().map(|h| HourlyWeather { wind: None, ..h }).collect();
        let day_without = DailyWeather { wind: None, ..day() };
        let found = et0_of_days(&site(), &[day_without], once(&no_wind[..]), &[], Reference::Short);
        let (_, method) = found[0].unwrap();
        assert_eq!(method.to_string(), "asce-pm-short-hourly-sum+wind-assumed");
        assert!(!method.is_measured());
        // One hour without wind: the mean of the others stands for the day, and nothing is guessed.
        let mut gap = hours();
        gap[3].wind = None;
        let found = et0_of_days(&site(), &[day()], once(&gap[..]), &[], Reference::Short);
        assert_eq!(found[0].unwrap().1.to_string(), "asce-pm-short");
    }

    /// Day after day gives what all hours at once give, the cloud of an evening carried into the next day.
    #[test]
    fn days_one_after_another_are_as_all_hours_at_once() {
        let second: Vec<HourlyWeather> = hours()
            .into_iter()
            .map(|h| HourlyWeather { start: h.start + TimeDelta::days(1), solar: h.solar.map(|s| s / 2.0), ..h })
            .collect();
        let both = [hours(), second];
        let all = both.concat();
        let at_once = days_of_hours(&all, &site().hourly_et0(&all, Reference::Short));
        let days: Vec<DailyWeather> = at_once.iter().map(|day| day.weather).collect();
        let found = et0_of_days(&site(), &days, both.iter().map(Vec::as_slice), &[], Reference::Short);
        let sums: Vec<Option<f64>> = found.iter().map(|figure| figure.map(|(mm, _)| mm)).collect();
        assert_eq!(sums, at_once.iter().map(|day| day.et0_mm).collect::<Vec<_>>());
        assert_ne!(sums[0], sums[1]);
    }
}
