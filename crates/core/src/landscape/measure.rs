//! The application rate of a station, measured on the spot.

use crate::quantity::{OutOfRange, RateMmPerHour};

/// A way to measure an application rate.
#[derive(Debug, Clone, PartialEq)]
pub enum Measurement {
    /// Cans on the ground: rate and uniformity.
    Cans(CanTest),
    /// The water meter before and after a run, and the area.
    Meter {
        /// Water that ran, L.
        litres: f64,
        /// How long, min.
        minutes: f64,
        /// Watered area, m².
        area_m2: f64,
    },
    /// Flow and area.
    Flow {
        /// Flow, L/min.
        litres_per_minute: f64,
        /// Watered area, m².
        area_m2: f64,
    },
    /// Emitters in rows.
    Emitters {
        /// Flow of one emitter, L/h.
        litres_per_hour: f64,
        /// Distance along the row, m.
        spacing_m: f64,
        /// Distance between rows, m.
        rows_m: f64,
    },
}

impl Measurement {
    /// The mean rate: litres on a square metre are millimetres.
    ///
    /// - meter: `60 L / (min m²)`; flow: `60 L/min / m²`; emitters: `L/h / (spacing x rows)`. Source: arithmetic.
    ///
    /// # Errors
    /// [`OutOfRange`] when the rate is not one that sprinklers have.
    pub fn rate(&self) -> Result<RateMmPerHour, OutOfRange> {
        RateMmPerHour::new(match self {
            Self::Cans(test) => test.rate_mm_per_hour(),
            Self::Meter { litres, minutes, area_m2 } => 60.0 * litres / (minutes * area_m2),
            Self::Flow { litres_per_minute, area_m2 } => 60.0 * litres_per_minute / area_m2,
            Self::Emitters { litres_per_hour, spacing_m, rows_m } => litres_per_hour / (spacing_m * rows_m),
        })
    }

    /// Distribution uniformity of the lowest quarter, where it was measured.
    #[must_use]
    pub fn uniformity(&self) -> Option<f64> {
        match self {
            Self::Cans(test) => Some(test.uniformity()),
            _ => None,
        }
    }
}

/// Cans laid out over a station as a grid.
#[derive(Debug, Clone, PartialEq)]
pub struct CanTest {
    /// Catches row by row, mm; `None` where no can stood.
    catches: Vec<Option<f64>>,
    columns: usize,
    minutes: f64,
}

/// Why cans give no figure.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CanError {
    /// Fewer than [`CanTest::LEAST`] cans.
    TooFew {
        /// How many.
        cans: usize,
    },
    /// No can caught anything.
    AllDry,
    /// A catch below nothing, or no run time.
    NotPositive,
}

/// Something odd about a can test that does not spoil it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CanDoubt {
    /// Fewer cans than the [`CanTest::ENOUGH`] that a sound test has.
    FewCans,
    /// Nothing in this can: it was perhaps knocked over.
    Empty {
        /// Its place in the grid.
        at: usize,
    },
    /// More than three times the middle can: perhaps under a head.
    VeryFull {
        /// Its place in the grid.
        at: usize,
    },
    /// So little in the cans that a slip of the eye counts: under 2 mm on average.
    ShortRun,
}

impl CanTest {
    /// Cans without which nothing is worked out: with fewer there is no quarter.
    pub const LEAST: usize = 4;
    /// Cans of a sound test. Common practice: 16 to 24.
    pub const ENOUGH: usize = 16;

    /// A test with catches as depths, mm, row by row, and its run time, min.
    ///
    /// # Errors
    /// [`CanError`] when it gives no figure.
    pub fn new(catches: Vec<Option<f64>>, columns: usize, minutes: f64) -> Result<Self, CanError> {
        let cans = catches.iter().flatten().count();
        if minutes <= 0.0 || !minutes.is_finite() || catches.iter().flatten().any(|c| *c < 0.0 || !c.is_finite()) {
            return Err(CanError::NotPositive);
        }
        if cans < Self::LEAST {
            return Err(CanError::TooFew { cans });
        }
        if catches.iter().flatten().all(|c| *c == 0.0) {
            return Err(CanError::AllDry);
        }
        Ok(Self { catches, columns: columns.max(1), minutes })
    }

    /// The catches as they stand in the grid, mm.
    #[must_use]
    pub fn catches(&self) -> &[Option<f64>] {
        &self.catches
    }

    /// Cans beside each other.
    #[must_use]
    pub const fn columns(&self) -> usize {
        self.columns
    }

    /// How long it ran, min.
    #[must_use]
    pub const fn minutes(&self) -> f64 {
        self.minutes
    }

    /// How many cans caught.
    #[must_use]
    pub fn cans(&self) -> usize {
        self.catches.iter().flatten().count()
    }

    /// The mean of all cans, mm.
    #[must_use]
    pub fn mean_mm(&self) -> f64 {
        self.catches.iter().flatten().sum::<f64>() / self.cans() as f64
    }

    /// The mean rate, mm/h.
    #[must_use]
    pub fn rate_mm_per_hour(&self) -> f64 {
        60.0 * self.mean_mm() / self.minutes
    }

    /// The mean of the lowest quarter of the cans, mm. Where the number is not divisible by four, the can at
    /// the edge counts by its share: of 22 cans the lowest five and half of the sixth.
    #[must_use]
    pub fn lowest_quarter_mm(&self) -> f64 {
        let mut sorted: Vec<f64> = self.catches.iter().flatten().copied().collect();
        sorted.sort_by(f64::total_cmp);
        let quarter = sorted.len() as f64 / 4.0;
        let whole = quarter.floor() as usize;
        let share = quarter - quarter.floor();
        let edge = sorted.get(whole).map_or(0.0, |catch| catch * share);
        (sorted[..whole].iter().sum::<f64>() + edge) / quarter
    }

    /// Distribution uniformity of the lowest quarter: its mean over the mean of all. Source: \[IA-LIS\].
    #[must_use]
    pub fn uniformity(&self) -> f64 {
        self.lowest_quarter_mm() / self.mean_mm()
    }

    /// Whether a can is of the lowest quarter, in the order of the grid; of equal cans the first ones.
    #[must_use]
    pub fn is_dry(&self) -> Vec<bool> {
        let mut order: Vec<usize> = (0..self.catches.len()).filter(|i| self.catches[*i].is_some()).collect();
        order.sort_by(|a, b| self.catches[*a].unwrap_or(0.0).total_cmp(&self.catches[*b].unwrap_or(0.0)));
        let mut dry = vec![false; self.catches.len()];
        for at in order.iter().take(self.cans().div_ceil(4)) {
            dry[*at] = true;
        }
        dry
    }

    /// What is odd about it.
    #[must_use]
    pub fn doubts(&self) -> Vec<CanDoubt> {
        let mut doubts = Vec::new();
        if self.cans() < Self::ENOUGH {
            doubts.push(CanDoubt::FewCans);
        }
        if self.mean_mm() < 2.0 {
            doubts.push(CanDoubt::ShortRun);
        }
        let mut sorted: Vec<f64> = self.catches.iter().flatten().copied().collect();
        sorted.sort_by(f64::total_cmp);
        let middle = sorted[sorted.len() / 2];
        for (at, catch) in self.catches.iter().enumerate() {
            match catch {
                Some(mm) if *mm == 0.0 => doubts.push(CanDoubt::Empty { at }),
                Some(mm) if *mm > 3.0 * middle => doubts.push(CanDoubt::VeryFull { at }),
                _ => {}
            }
        }
        doubts
    }
}

/// A catch as a depth, mm: `10 mL / cm²`.
#[must_use]
pub fn catch_mm(millilitres: f64, opening_cm2: f64) -> f64 {
    10.0 * millilitres / opening_cm2
}

/// The opening of a round can, cm², by its diameter, cm.
#[must_use]
pub fn round_opening_cm2(diameter_cm: f64) -> f64 {
    std::f64::consts::PI * diameter_cm * diameter_cm / 4.0
}

#[cfg(test)]
mod tests {
    use super::*;

    fn test_of(catches: &[f64]) -> CanTest {
        CanTest::new(catches.iter().copied().map(Some).collect(), 4, 10.0).unwrap()
    }

    #[test]
    fn a_litre_on_a_square_metre_is_a_millimetre() {
        let rate = |m: Measurement| m.rate().unwrap().get();
        // 600 L in 20 min on 90 m²: 6.67 mm in a third of an hour.
        assert!((rate(Measurement::Meter { litres: 600.0, minutes: 20.0, area_m2: 90.0 }) - 20.0).abs() < 1e-12);
        assert!((rate(Measurement::Flow { litres_per_minute: 30.0, area_m2: 90.0 }) - 20.0).abs() < 1e-12);
        // 2.3 L/h every 0.3 m in rows 0.5 m apart.
        let drip = Measurement::Emitters { litres_per_hour: 2.3, spacing_m: 0.3, rows_m: 0.5 };
        assert!((rate(drip) - 2.3 / 0.15).abs() < 1e-12);
        assert!(Measurement::Flow { litres_per_minute: 900.0, area_m2: 10.0 }.rate().is_err());
    }

    #[test]
    fn even_cans_are_uniform_and_the_dry_quarter_is_marked() {
        assert_eq!(test_of(&[5.0; 16]).uniformity(), 1.0);
        let test = test_of(&[9.0, 2.0, 8.0, 7.0, 1.0, 6.0, 5.0, 4.0]);
        let dry: Vec<usize> = (0..8).filter(|i| test.is_dry()[*i]).collect();
        assert_eq!(dry, [1, 4]);
        assert!((test.lowest_quarter_mm() - 1.5).abs() < 1e-12);
    }

    #[test]
    fn cans_that_give_no_figure_and_odd_ones_are_told() {
        let new = |catches: &[f64]| CanTest::new(catches.iter().copied().map(Some).collect(), 4, 10.0);
        assert_eq!(new(&[5.0; 3]), Err(CanError::TooFew { cans: 3 }));
        assert_eq!(new(&[0.0; 8]), Err(CanError::AllDry));
        assert_eq!(new(&[-1.0; 8]), Err(CanError::NotPositive));
        assert_eq!(CanTest::new(vec![Some(1.0); 8], 4, 0.0), Err(CanError::NotPositive));
        let mut catches = [5.0; 16];
        assert_eq!(test_of(&catches).doubts(), []);
        (catches[3], catches[9]) = (0.0, 17.0);
        assert_eq!(test_of(&catches).doubts(), [CanDoubt::Empty { at: 3 }, CanDoubt::VeryFull { at: 9 }]);
        assert_eq!(test_of(&[1.0; 8]).doubts(), [CanDoubt::FewCans, CanDoubt::ShortRun]);
    }
}
