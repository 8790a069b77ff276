use chrono::{Datelike, NaiveDate, TimeDelta};
use thiserror::Error;

use crate::climate::blend::WeatherDay;
use crate::quantity::MonthOfYear;

/// A day of weather as it is on record.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeasonDay {
    /// The local day.
    pub date: NaiveDate,
    /// Reference ET, mm; nothing where it could not be worked out.
    pub et0_mm: Option<f64>,
    /// Rain, mm; nothing where it was not measured.
    pub rain_mm: Option<f64>,
    /// Lowest and highest air temperature, °C, where both were measured.
    pub air_c: Option<(f64, f64)>,
}

impl From<&WeatherDay> for SeasonDay {
    fn from(day: &WeatherDay) -> Self {
        let WeatherDay { date, et0_mm, rain_mm, tmin_c, tmax_c } = *day;
        Self { date, et0_mm, rain_mm, air_c: tmin_c.zip(tmax_c) }
    }
}

/// Why days make no season.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum SeasonError {
    /// No day at all.
    #[error("there are no days")]
    NoDays,
    /// No day with a reference ET.
    #[error("no day has a reference ET")]
    NoEt0,
    /// More days than are replayed at once.
    #[error("the days span {0}; up to {max} are replayed at once", max = Season::MOST_DAYS)]
    TooLong(i64),
}

/// The weather of a replay: every day from the first to the last, as arrays.
///
/// Days that are missing, or have no reference ET, take the mean of their month over the days that
/// have one; rain that was not measured counts as none. Both are counted, never silent.
#[derive(Debug, Clone, PartialEq)]
pub struct Season {
    /// The local days, one after another.
    pub dates: Vec<NaiveDate>,
    /// Reference ET, mm; never below 0.
    pub et0_mm: Vec<f64>,
    /// Rain, mm.
    pub rain_mm: Vec<f64>,
    /// Lowest and highest air temperature, °C, where they are known.
    pub air_c: Vec<Option<(f64, f64)>>,
    /// Days whose reference ET is the mean of their month.
    pub et0_filled: Vec<NaiveDate>,
    /// Days without a measurement of rain.
    pub rain_missing: Vec<NaiveDate>,
    /// Days at the beginning that only bring the root zones to where they stand: they are replayed, and
    /// not counted.
    pub lead: usize,
}

impl Season {
    /// Most days that are replayed at once: a hundred years.
    pub const MOST_DAYS: i64 = 36_525;

    /// Makes a season of days, in any order; of two of one date the later counts.
    ///
    /// # Errors
    /// [`SeasonError`] when there is nothing to replay, or too much.
    pub fn of(days: &[SeasonDay]) -> Result<Self, SeasonError> {
        let dates = days.iter().map(|d| d.date);
        let (Some(first), Some(last)) = (dates.clone().min(), dates.max()) else { return Err(SeasonError::NoDays) };
        let count = (last - first).num_days() + 1;
        if count > Self::MOST_DAYS {
            return Err(SeasonError::TooLong(count));
        }
        let mut known: Vec<Option<SeasonDay>> = vec![None; usize::try_from(count).unwrap_or(0)];
        for day in days {
            let at = usize::try_from((day.date - first).num_days()).unwrap_or(0);
            known[at] = Some(*day);
        }
        let means = monthly_means(days).ok_or(SeasonError::NoEt0)?;
        let mut season = Self {
            dates: Vec::with_capacity(known.len()),
            et0_mm: Vec::with_capacity(known.len()),
            rain_mm: Vec::with_capacity(known.len()),
            air_c: Vec::with_capacity(known.len()),
            et0_filled: Vec::new(),
            rain_missing: Vec::new(),
            lead: 0,
        };
        for (offset, day) in (0..).zip(known) {
            let date = first + TimeDelta::days(offset);
            let et0 = day.and_then(|d| d.et0_mm);
            let rain = day.and_then(|d| d.rain_mm);
            if et0.is_none() {
                season.et0_filled.push(date);
            }
            if rain.is_none() {
                season.rain_missing.push(date);
            }
            season.dates.push(date);
            season.et0_mm.push(et0.unwrap_or(means[date.month0() as usize]).max(0.0));
            season.rain_mm.push(rain.unwrap_or(0.0).max(0.0));
            season.air_c.push(day.and_then(|d| d.air_c));
        }
        Ok(season)
    }

    /// Days of the season.
    #[must_use]
    pub fn len(&self) -> usize {
        self.dates.len()
    }

    /// Whether it has no day; never so after [`Season::of`].
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.dates.is_empty()
    }

    /// Mean reference ET of up to `days` days before a day, mm; of the day itself on the first one.
    #[must_use]
    pub fn et0_before(&self, index: usize, days: usize) -> f64 {
        let from = index.saturating_sub(days);
        let past = if index == 0 { &self.et0_mm[..1] } else { &self.et0_mm[from..index] };
        past.iter().sum::<f64>() / past.len() as f64
    }

    /// The days that count.
    #[must_use]
    pub fn counted(&self) -> &[NaiveDate] {
        &self.dates[self.lead.min(self.dates.len())..]
    }

    /// As [`Season::part`], with up to `days` days before it that are replayed and not counted.
    #[must_use]
    pub fn part_with_lead(&self, [from, to]: [NaiveDate; 2], days: i64) -> Option<Self> {
        let mut part = self.part([from - TimeDelta::days(days), to])?;
        part.lead = part.dates.iter().position(|d| *d >= from)?;
        Some(part)
    }

    /// The part of a season from one date to another, both included, as far as it goes.
    #[must_use]
    pub fn part(&self, [from, to]: [NaiveDate; 2]) -> Option<Self> {
        let first = self.dates.iter().position(|d| (from..=to).contains(d))?;
        let last = self.dates.iter().rposition(|d| (from..=to).contains(d))?;
        let inside = |d: &&NaiveDate| (from..=to).contains(*d);
        Some(Self {
            dates: self.dates[first..=last].to_vec(),
            et0_mm: self.et0_mm[first..=last].to_vec(),
            rain_mm: self.rain_mm[first..=last].to_vec(),
            air_c: self.air_c[first..=last].to_vec(),
            et0_filled: self.et0_filled.iter().filter(inside).copied().collect(),
            rain_missing: self.rain_missing.iter().filter(inside).copied().collect(),
            lead: 0,
        })
    }
}

/// Mean reference ET of each month; of all days where a month has none.
fn monthly_means(days: &[SeasonDay]) -> Option<[f64; 12]> {
    let (mut sums, mut counts) = ([0.0; 12], [0_u32; 12]);
    for day in days {
        let Some(et0) = day.et0_mm else { continue };
        sums[day.date.month0() as usize] += et0;
        counts[day.date.month0() as usize] += 1;
    }
    let all = counts.iter().sum::<u32>();
    if all == 0 {
        return None;
    }
    let mean = sums.iter().sum::<f64>() / f64::from(all);
    Some(MonthOfYear::ALL.map(|m| match counts[m.index()] {
        0 => mean,
        n => sums[m.index()] / f64::from(n),
    }))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(d: u32, et0_mm: Option<f64>, rain_mm: Option<f64>) -> SeasonDay {
        SeasonDay { date: NaiveDate::from_ymd_opt(2026, 6, d).unwrap(), et0_mm, rain_mm, air_c: None }
    }

    #[test]
    fn missing_days_take_the_mean_of_their_month_and_are_named() {
        let season = Season::of(&[day(1, Some(4.0), Some(2.0)), day(4, None, None), day(3, Some(6.0), None)]).unwrap();
        assert_eq!(season.et0_mm, [4.0, 5.0, 6.0, 5.0]);
        assert_eq!(season.rain_mm, [2.0, 0.0, 0.0, 0.0]);
        assert_eq!((season.et0_filled.len(), season.rain_missing.len()), (2, 3));
    }

    #[test]
    fn nothing_to_replay_is_said() {
        assert_eq!(Season::of(&[]), Err(SeasonError::NoDays));
        assert_eq!(Season::of(&[day(1, None, Some(3.0))]), Err(SeasonError::NoEt0));
        let far = SeasonDay { date: NaiveDate::from_ymd_opt(2199, 1, 1).unwrap(), ..day(1, Some(1.0), None) };
        assert!(matches!(Season::of(&[day(1, Some(1.0), None), far]), Err(SeasonError::TooLong(_))));
    }

    #[test]
    fn a_running_mean_looks_back_and_never_ahead() {
        let days: Vec<SeasonDay> = (1..=10).map(|d| day(d, Some(f64::from(d)), Some(0.0))).collect();
        let season = Season::of(&days).unwrap();
        assert_eq!((season.et0_before(0, 7), season.et0_before(2, 7), season.et0_before(9, 7)), (1.0, 1.5, 6.0));
    }
}
