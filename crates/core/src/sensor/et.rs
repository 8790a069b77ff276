//! An ET sensor that sets a controller's percent every night: its own sheet, and how it is set.
//!
//! Its two dials differ from make to make, so their marks are typed from its sheet. A coarse climate step,
//! ordered from cool to hot, says at which reference ET it sets 100 %; a fine offset moves what it sets.
//! The method is ours.

use arrayvec::ArrayString;
use chrono::NaiveDate;
use thiserror::Error;

use crate::climate::blend::WeatherDay;
use crate::climate::normals::Normals;
use crate::quantity::{OutOfRange, limit, range};

/// What stands beside a position of a dial. Its length in characters is [`limit::DIAL_MARK`].
pub type Mark = ArrayString<{ 4 * limit::DIAL_MARK }>;

/// A position of the climate dial.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ClimateStep {
    /// What stands beside it.
    pub mark: Mark,
    /// The mean reference ET of a peak month that it is for, mm a day: from and to; the same twice where the
    /// sheet has one figure.
    pub peak_mm_per_day: [f64; 2],
}

impl ClimateStep {
    /// Reference ET at which it sets 100 %: the middle of what it is for, mm a day.
    #[must_use]
    pub fn reference_mm_per_day(&self) -> f64 {
        f64::midpoint(self.peak_mm_per_day[0], self.peak_mm_per_day[1])
    }

    /// How far a peak month lies outside of what it is for, mm a day.
    fn misses(&self, peak_et0_mm_per_day: f64) -> f64 {
        let [from, to] = self.peak_mm_per_day;
        (from - peak_et0_mm_per_day).max(peak_et0_mm_per_day - to).max(0.0)
    }
}

/// What the sheet of an ET sensor says about its two dials. Positions count from 1.
#[derive(Debug, Clone, PartialEq)]
pub struct EtSheet {
    /// The climate steps, coolest first.
    pub climates: Vec<ClimateStep>,
    /// The marks of the offset dial, from the one that waters least.
    pub offsets: Vec<Mark>,
    /// The position of the offset that changes nothing.
    pub neutral: u8,
    /// What a step of the offset adds to what it sets, percent of it.
    pub offset_step_pct: f64,
}

/// Why a sheet is not valid.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum SheetError {
    /// No climate steps, too many, or not from cool to hot.
    #[error("1 to {} climate steps, from cool to hot", limit::SENSOR_SETTINGS)]
    Climates,
    /// No offsets, too many, or one of them twice.
    #[error("1 to {} offsets, each once", limit::ET_OFFSETS)]
    Offsets,
    /// A mark that is missing or too long.
    #[error("a mark has 1 to {} characters", limit::DIAL_MARK)]
    Mark,
    /// A position that the dial has not.
    #[error("the dial has no such position")]
    NoSuchPosition,
    /// A value out of range.
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
}

/// A mark as it was typed; nothing where it is empty or too long.
#[must_use]
pub fn mark(text: &str) -> Option<Mark> {
    let text = text.trim();
    let fits = (1..=limit::DIAL_MARK).contains(&text.chars().count()) && !text.chars().any(char::is_control);
    fits.then(|| Mark::from(text).ok()).flatten()
}

impl EtSheet {
    /// An example of our own for a sensor whose sheet is not at hand: six steps for peak months of 3 to 8 mm a
    /// day, and five offsets of a tenth each.
    #[must_use]
    pub fn example() -> Self {
        let number = |n: u8| mark(&n.to_string()).unwrap_or_default();
        let step = |n: u8| ClimateStep { mark: number(n), peak_mm_per_day: [f64::from(n) + 2.0; 2] };
        Self {
            climates: (1..=6).map(step).collect(),
            offsets: (1..=5).map(number).collect(),
            neutral: 3,
            offset_step_pct: 10.0,
        }
    }

    /// Whether it is valid.
    ///
    /// # Errors
    /// [`SheetError`] for the first thing that is not valid.
    pub fn check(&self) -> Result<(), SheetError> {
        for step in &self.climates {
            for figure in step.peak_mm_per_day {
                range::ET_STEP.check(figure)?;
            }
        }
        let rising = |pair: &[ClimateStep]| pair[0].reference_mm_per_day() < pair[1].reference_mm_per_day();
        if !(1..=limit::SENSOR_SETTINGS).contains(&self.climates.len())
            || !self.climates.iter().all(|s| s.peak_mm_per_day[0] <= s.peak_mm_per_day[1])
            || !self.climates.windows(2).all(rising)
        {
            return Err(SheetError::Climates);
        }
        let once = |(i, own): (usize, &Mark)| !self.offsets[..i].contains(own);
        if !(1..=limit::ET_OFFSETS).contains(&self.offsets.len()) || !self.offsets.iter().enumerate().all(once) {
            return Err(SheetError::Offsets);
        }
        if self.climates.iter().map(|s| &s.mark).chain(&self.offsets).any(|m| mark(m) != Some(*m)) {
            return Err(SheetError::Mark);
        }
        range::ET_OFFSET_STEP.check(self.offset_step_pct)?;
        if self.offset(self.neutral).is_none() {
            return Err(SheetError::NoSuchPosition);
        }
        // The lowest offset still waters.
        range::ET_LOWEST_SHARE.check(100.0 * self.share(1))?;
        Ok(())
    }

    /// A climate step.
    #[must_use]
    pub fn climate(&self, position: u8) -> Option<&ClimateStep> {
        self.climates.get(usize::from(position).checked_sub(1)?)
    }

    /// The mark of an offset.
    #[must_use]
    pub fn offset(&self, position: u8) -> Option<&Mark> {
        self.offsets.get(usize::from(position).checked_sub(1)?)
    }

    /// The positions of a dial of so many marks.
    fn positions(count: usize) -> impl Iterator<Item = u8> + Clone {
        // A dial has a few dozen marks at most.
        1..=u8::try_from(count).unwrap_or(u8::MAX)
    }

    /// The positions of the climate dial.
    pub fn climate_positions(&self) -> impl Iterator<Item = u8> + Clone + use<> {
        Self::positions(self.climates.len())
    }

    /// The positions of the offset dial.
    pub fn offset_positions(&self) -> impl Iterator<Item = u8> + Clone + use<> {
        Self::positions(self.offsets.len())
    }

    /// Share by which an offset scales what is set: `1 + step (offset - neutral)`.
    #[must_use]
    pub fn share(&self, offset: u8) -> f64 {
        1.0 + self.offset_step_pct / 100.0 * (f64::from(offset) - f64::from(self.neutral))
    }

    /// The position of the climate step for a peak month's mean ET0, mm a day: the one that is for it, else the
    /// nearest; of two the cooler, which waters more.
    ///
    /// ```
    /// use upland_core::sensor::EtSheet;
    /// let sheet = EtSheet::example();
    /// assert_eq!(sheet.climate_for(5.1), 3);
    /// assert_eq!(sheet.climate_for(4.5), 2);
    /// assert_eq!(sheet.climate_for(12.0), 6);
    /// ```
    #[must_use]
    pub fn climate_for(&self, peak_et0_mm_per_day: f64) -> u8 {
        let misses = |p: &u8| self.climate(*p).map_or(f64::INFINITY, |s| s.misses(peak_et0_mm_per_day));
        self.climate_positions().min_by(|a, b| misses(a).total_cmp(&misses(b))).unwrap_or(1)
    }
}

/// How an ET sensor is set.
#[derive(Debug, Clone, PartialEq)]
pub struct EtSetting {
    /// Its own sheet.
    pub sheet: EtSheet,
    /// Position of its climate step, from 1 for the coolest.
    pub climate: u8,
    /// The climate step whose reference ET the base minutes are worked out for; none for the step that is
    /// set. It stays where a round moves the step because the percent was off: else the minutes would move
    /// back what the step moved.
    pub minutes_for: Option<u8>,
    /// Position of its offset, from 1 for the one that waters least.
    pub offset: u8,
}

/// Days of an ET sensor's running mean. Ours.
pub const ET_MEAN_DAYS: usize = 7;

/// Mean reference ET of the days of a sensor's running mean before a date, mm a day; nothing where none of them
/// is on record.
#[must_use]
pub fn recent_et0(days: &[WeatherDay], date: NaiveDate) -> Option<f64> {
    let last = |d: &&WeatherDay| d.date < date && (date - d.date).num_days() <= ET_MEAN_DAYS as i64;
    let recent: Vec<f64> = days.iter().filter(last).filter_map(|d| d.et0_mm).collect();
    (!recent.is_empty()).then(|| recent.iter().sum::<f64>() / recent.len() as f64)
}

/// What to do about a percent that an ET sensor set.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Correction {
    /// It is right, within half a step of the offset.
    Right,
    /// Another offset, by its position.
    Offset(u8),
    /// The offset is at its end: another climate step, by its position.
    Climate(u8),
    /// Both dials are at their ends.
    AtTheEnd,
}

impl EtSetting {
    /// A sensor by its sheet, at the step for a peak month's mean ET0, mm a day, and at the offset that changes
    /// nothing.
    #[must_use]
    pub fn for_peak(sheet: EtSheet, peak_et0_mm_per_day: f64) -> Self {
        Self { climate: sheet.climate_for(peak_et0_mm_per_day), minutes_for: None, offset: sheet.neutral, sheet }
    }

    /// Whether it is valid.
    ///
    /// # Errors
    /// [`SheetError`] for the first thing that is not valid.
    pub fn check(&self) -> Result<(), SheetError> {
        self.sheet.check()?;
        let climates = [Some(self.climate), self.minutes_for];
        let there = climates.into_iter().flatten().all(|p| self.sheet.climate(p).is_some());
        if there && self.sheet.offset(self.offset).is_some() { Ok(()) } else { Err(SheetError::NoSuchPosition) }
    }

    /// The marks that its dials stand at: the climate step and the offset.
    #[must_use]
    pub fn marks(&self) -> [Option<Mark>; 2] {
        [self.sheet.climate(self.climate).map(|step| step.mark), self.sheet.offset(self.offset).copied()]
    }

    fn reference_of(&self, climate: u8) -> f64 {
        self.sheet.climate(climate).map_or(f64::INFINITY, ClimateStep::reference_mm_per_day)
    }

    /// Reference ET at which it sets 100 % at the neutral offset, mm a day.
    #[must_use]
    pub fn reference_mm_per_day(&self) -> f64 {
        self.reference_of(self.climate)
    }

    /// Reference ET that 100 % of the base minutes are for, mm a day.
    #[must_use]
    pub fn minutes_reference_mm_per_day(&self) -> f64 {
        self.reference_of(self.minutes_for.unwrap_or(self.climate))
    }

    /// Share by which its offset scales what it sets.
    #[must_use]
    pub fn share(&self) -> f64 {
        self.sheet.share(self.offset)
    }

    /// The percent that it sets: mean ET0 of the last days against the step's reference, times the offset's
    /// share: `100 ET0 / reference (1 + step (offset - neutral))`.
    #[must_use]
    pub fn percent(&self, mean_et0_mm_per_day: f64) -> f64 {
        100.0 * mean_et0_mm_per_day.max(0.0) / self.reference_mm_per_day() * self.share()
    }

    /// The percent to expect in each month of an average year.
    #[must_use]
    pub fn expected_by_month(&self, normals: &Normals) -> [f64; 12] {
        normals.map(|n| self.percent(n.et0_mm_per_day))
    }

    /// What brings a percent that was seen to the one that it should be: the offset first, by as many steps as
    /// bring it nearest; from an end of it the climate step, a cooler one for more water. Common practice.
    #[must_use]
    pub fn correction(&self, seen_pct: f64, called_pct: f64) -> Correction {
        // Where nothing is seen or called for, as in winter, nothing follows.
        if seen_pct <= 0.0 || called_pct <= 0.0 {
            return Correction::Right;
        }
        let wanted = called_pct / seen_pct;
        let half_step = self.sheet.offset_step_pct / 100.0 / 2.0 / self.share();
        if (wanted - 1.0).abs() <= half_step {
            return Correction::Right;
        }
        let nearest = |positions: &mut dyn Iterator<Item = u8>, factor: &dyn Fn(u8) -> f64| {
            let miss = |p: &u8| (factor(*p) - wanted).abs();
            positions.min_by(|a, b| miss(a).total_cmp(&miss(b)))
        };
        let offset = nearest(&mut self.sheet.offset_positions(), &|p| self.sheet.share(p) / self.share());
        if let Some(to) = offset.filter(|p| *p != self.offset) {
            return Correction::Offset(to);
        }
        let reference = self.reference_mm_per_day();
        let climate = nearest(&mut self.sheet.climate_positions(), &|p| reference / self.reference_of(p));
        climate.filter(|p| *p != self.climate).map_or(Correction::AtTheEnd, Correction::Climate)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(climate: u8, offset: u8) -> EtSetting {
        EtSetting { sheet: EtSheet::example(), climate, minutes_for: None, offset }
    }

    #[test]
    fn a_higher_offset_and_a_cooler_step_both_water_more() {
        assert_eq!(at(3, 3).percent(5.0), 100.0);
        assert!(at(3, 4).percent(5.0) > at(3, 3).percent(5.0));
        assert!(at(2, 3).percent(5.0) > at(3, 3).percent(5.0));
        assert_eq!(at(3, 3).percent(-0.3), 0.0);
    }

    #[test]
    fn a_step_with_a_range_is_taken_for_all_of_it() {
        let step = |name: &str, peak_mm_per_day| ClimateStep { mark: mark(name).unwrap(), peak_mm_per_day };
        let climates = vec![step("cool", [2.0, 4.0]), step("warm", [4.0, 5.5]), step("hot", [7.0, 9.0])];
        let sheet = EtSheet { climates, ..EtSheet::example() };
        sheet.check().unwrap();
        let name = |peak| sheet.climate(sheet.climate_for(peak)).unwrap().mark.to_string();
        assert_eq!(["cool", "cool", "warm", "hot"], [0.5, 4.0, 6.0, 6.5].map(name).each_ref().map(String::as_str));
        assert_eq!(sheet.climates[1].reference_mm_per_day(), 4.75);
    }

    #[test]
    fn the_offset_goes_first_then_the_step_and_at_last_nothing() {
        // 80 where 100 is called for: a quarter more, of which two steps of a tenth come nearest.
        assert_eq!(at(3, 3).correction(80.0, 100.0), Correction::Offset(5));
        assert_eq!(at(3, 3).correction(100.0, 88.0), Correction::Offset(2));
        assert_eq!(at(3, 3).correction(97.0, 100.0), Correction::Right);
        // At its end: the next cooler step gives 5/4 of it.
        assert_eq!(at(3, 5).correction(80.0, 100.0), Correction::Climate(2));
        assert_eq!(at(1, 5).correction(80.0, 100.0), Correction::AtTheEnd);
        assert_eq!(at(6, 1).correction(100.0, 50.0), Correction::AtTheEnd);
        assert_eq!(at(5, 1).correction(100.0, 88.0), Correction::Climate(6));
        assert_eq!(at(3, 3).correction(0.0, 100.0), Correction::Right);
    }

    #[test]
    fn what_no_sheet_says_is_refused() {
        let good = EtSheet::example();
        assert_eq!(good.check(), Ok(()));
        let falling = EtSheet { climates: good.climates.iter().rev().copied().collect(), ..good.clone() };
        assert_eq!(falling.check(), Err(SheetError::Climates));
        let twice = EtSheet { offsets: vec![mark("1").unwrap(); 2], neutral: 1, ..good.clone() };
        assert_eq!(twice.check(), Err(SheetError::Offsets));
        assert_eq!(EtSheet { neutral: 6, ..good.clone() }.check(), Err(SheetError::NoSuchPosition));
        // Ten steps of a tenth below the neutral one would water nothing.
        let offsets = (0..12).map(|n| mark(&n.to_string()).unwrap()).collect();
        assert!(matches!(EtSheet { offsets, neutral: 12, ..good }.check(), Err(SheetError::OutOfRange(_))));
        assert_eq!(at(7, 3).check(), Err(SheetError::NoSuchPosition));
        assert_eq!(mark("a mark that is far too long"), None);
        assert_eq!(mark("  "), None);
    }
}
