//! Values of a record that are in doubt.

use chrono::{Days, NaiveDate};

use super::daily::{DailyWeather, Site};
use super::element::Element;
use super::quality::{DayIssue, RunDay, SeriesIssue, check_day, check_series};
use super::review::{Decision, Verdict};

/// A doubtful value, or a run of them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Flag {
    /// First day.
    pub from: NaiveDate,
    /// Last day; the first one again for a single value.
    pub to: NaiveDate,
    /// The element in doubt.
    pub element: Element,
    /// What was read on the last day.
    pub value: f64,
    /// Why it is doubted.
    pub doubt: Doubt,
}

/// Why a value is doubted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Doubt {
    /// More sun than a clear sky gives, by more than 5 %.
    AboveClearSky {
        /// What a clear sky gives here on this day, MJ/m².
        clear_sky: f64,
    },
    /// A humidity over 100 %, taken as 100.
    OverSaturation,
    /// A dew point above the day's highest temperature.
    AboveTMax {
        /// That temperature, °C.
        t_max: f64,
    },
    /// The same value for days on end.
    Stuck {
        /// How many days.
        days: usize,
    },
    /// Far from both its neighbours, which agree with each other.
    UnlikeNeighbours {
        /// The day before.
        before: f64,
        /// The day after.
        after: f64,
    },
}

impl Doubt {
    /// The kind of doubt, as one word.
    #[must_use]
    pub const fn word(&self) -> &'static str {
        match self {
            Self::AboveClearSky { .. } => "clear-sky",
            Self::OverSaturation => "saturation",
            Self::AboveTMax { .. } => "dew-point",
            Self::Stuck { .. } => "stuck",
            Self::UnlikeNeighbours { .. } => "neighbours",
        }
    }
}

impl Flag {
    /// The days of the flag.
    pub fn days(&self) -> impl Iterator<Item = NaiveDate> + use<> {
        let to = self.to;
        self.from.iter_days().take_while(move |day| *day <= to)
    }

    /// What the evidence favours. Humidity a little over saturation is an instrument's tolerance; the other
    /// values cannot have been so.
    #[must_use]
    pub const fn favoured(&self) -> Verdict {
        match self.doubt {
            Doubt::OverSaturation => Verdict::Accepted,
            _ => Verdict::Excluded,
        }
    }

    /// The value that was perhaps meant: with the other sign, or the decimal point a place further on, where
    /// that lies between or near the neighbours.
    #[must_use]
    pub fn suggestion(&self) -> Option<f64> {
        let Doubt::UnlikeNeighbours { before, after } = self.doubt else { return None };
        let middle = f64::midpoint(before, after);
        let near = ((self.value - middle).abs() / 3.0).min(SUGGEST_WITHIN);
        [-self.value, self.value / 10.0, self.value * 10.0].into_iter().find(|meant| (meant - middle).abs() <= near)
    }

    /// Whether every day of the flag has a decision.
    #[must_use]
    pub fn is_decided(&self, decisions: &[Decision]) -> bool {
        self.days().all(|date| decisions.iter().any(|d| d.date == date && d.element == self.element))
    }
}

/// All values in doubt of a record as it was read, by date. `days` are in order of date.
///
/// Sources: ASCE-EWRI 2005 appendix D and FAO-56 annex 5 for the single checks; that a value is compared with
/// those before and after it is the time-consistency check of WMO-No. 8, its size here our own
/// ([`SPIKE_FACTOR`] times the record's usual step).
#[must_use]
pub fn flags(days: &[DailyWeather], site: &Site) -> Vec<Flag> {
    let mut flags: Vec<Flag> = days.iter().flat_map(|day| of_day(day, site)).collect();
    for issue in check_series(days.iter().map(RunDay::from)) {
        let SeriesIssue::Stuck { index, days: run } = issue else { continue };
        let Some((day, value)) = days.get(index).and_then(|day| Some((day, day.t_max?))) else { continue };
        // The run goes on for as long as the value stands.
        let more = days.iter().skip(index + 1).take_while(|d| d.t_max == Some(value)).count();
        let from = day.date - Days::new(run as u64 - 1);
        let to = days.get(index + more).map_or(day.date, |last| last.date);
        let doubt = Doubt::Stuck { days: run + more };
        flags.push(Flag { from, to, element: Element::TMax, value, doubt });
    }
    for element in [Element::TMax, Element::TMin] {
        flags.extend(spikes(days, element));
    }
    flags.sort_by_key(|flag| (flag.from, flag.element));
    flags
}

fn of_day(day: &DailyWeather, site: &Site) -> Vec<Flag> {
    let single = |element: Element, doubt: Doubt| {
        let value = element.of(day)?;
        Some(Flag { from: day.date, to: day.date, element, value, doubt })
    };
    check_day(day, Some(site))
        .into_iter()
        .filter_map(|issue| match issue {
            DayIssue::SolarAboveClearSky { clear_sky, .. } => {
                single(Element::Solar, Doubt::AboveClearSky { clear_sky })
            }
            DayIssue::DewPointAboveTmax => single(Element::DewPoint, Doubt::AboveTMax { t_max: day.t_max? }),
            DayIssue::OverSaturation { rh } => {
                let of_it = [Element::RhMax, Element::RhMin, Element::RhMean];
                single(of_it.into_iter().find(|e| e.of(day) == Some(rh))?, Doubt::OverSaturation)
            }
            DayIssue::OutOfRange(_) | DayIssue::TminAboveTmax { .. } | DayIssue::RhMinAboveMax => None,
        })
        .collect()
}

/// How many times the usual step a value must stand from its neighbours to be in doubt.
pub const SPIKE_FACTOR: f64 = 8.0;
/// The least distance from the neighbours that is doubted, °C.
const SPIKE_LEAST: f64 = 8.0;
/// How near to the neighbours' mean a suggested value must be, °C.
const SUGGEST_WITHIN: f64 = 5.0;
/// Days that must be on record before anything is called usual.
const SPIKE_DAYS: usize = 30;

fn spikes(days: &[DailyWeather], element: Element) -> Vec<Flag> {
    let steps: Vec<(NaiveDate, [f64; 3])> = days
        .windows(3)
        .filter_map(|three| {
            let [a, b, c] = three else { return None };
            let adjacent = a.date.succ_opt() == Some(b.date) && b.date.succ_opt() == Some(c.date);
            adjacent.then_some((b.date, [element.of(a)?, element.of(b)?, element.of(c)?]))
        })
        .collect();
    let distance = |[before, value, after]: [f64; 3]| (value - f64::midpoint(before, after)).abs();
    let mut usual: Vec<f64> = steps.iter().map(|(_, three)| distance(*three)).collect();
    if usual.len() < SPIKE_DAYS {
        return Vec::new();
    }
    usual.sort_by(f64::total_cmp);
    let limit = (SPIKE_FACTOR * usual[usual.len() / 2]).max(SPIKE_LEAST);
    steps
        .into_iter()
        .filter(|(_, three)| distance(*three) > limit && (three[2] - three[0]).abs() < distance(*three) / 2.0)
        .map(|(date, [before, value, after])| Flag {
            from: date,
            to: date,
            element,
            value,
            doubt: Doubt::UnlikeNeighbours { before, after },
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::super::daily::Guesses;
    use super::*;
    use crate::place::Position;

    fn site() -> Site {
        Site::new(&Position::new(46.0, 8.0, 600.0).unwrap(), 2.0, Guesses::default()).unwrap()
    }

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
    fn a_sound_record_has_no_flag_and_a_low_far_from_both_its_neighbours_has_one() {
        let mut days = record(60);
        assert_eq!(flags(&days, &site()), []);
        days[20].t_min = Some(-9.8);
        let flags = flags(&days, &site());
        assert_eq!(flags.len(), 1, "{flags:?}");
        assert_eq!((flags[0].from, flags[0].element, flags[0].value), (date(20), Element::TMin, -9.8));
        assert_eq!(flags[0].favoured(), Verdict::Excluded);
        // The sign was perhaps lost.
        assert_eq!(flags[0].suggestion(), Some(9.8));
        let without = Flag { value: -23.0, ..flags[0] };
        assert_eq!(without.suggestion(), None);
    }

    #[test]
    fn a_front_that_stays_is_no_spike_and_a_gap_has_no_neighbours() {
        let mut days = record(60);
        for day in &mut days[30..] {
            day.t_max = day.t_max.map(|t| t + 15.0);
        }
        days[20].t_min = Some(-9.8);
        days.remove(21);
        assert_eq!(flags(&days, &site()), []);
    }

    #[test]
    fn a_stuck_sensor_is_one_flag_over_all_its_days() {
        let mut days = record(40);
        for day in &mut days[10..19] {
            day.t_max = Some(20.0);
        }
        let stuck: Vec<Flag> = flags(&days, &site());
        assert_eq!(stuck.len(), 1, "{stuck:?}");
        assert_eq!((stuck[0].from, stuck[0].to, stuck[0].doubt), (date(10), date(18), Doubt::Stuck { days: 9 }));
        assert_eq!(stuck[0].days().count(), 9);
    }

    #[test]
    fn sun_over_a_clear_sky_dew_point_over_the_high_and_over_saturation_are_flagged_with_their_element() {
        let mut days = record(3);
        days[0].solar = Some(45.0);
        days[1].dew_point = Some(18.0);
        days[2].rh_max = Some(102.0);
        let elements: Vec<(Element, Verdict)> =
            flags(&days, &site()).iter().map(|f| (f.element, f.favoured())).collect();
        assert_eq!(
            elements,
            [
                (Element::Solar, Verdict::Excluded),
                (Element::DewPoint, Verdict::Excluded),
                (Element::RhMax, Verdict::Accepted)
            ]
        );
    }
}
