//! An ET sensor that sets a controller's percent every night.

use crate::climate::normals::Normals;

/// Class of a climate, cool to hot. The table is ours: each class stands for the mean reference
/// ET of a peak month at which the sensor sets 100 %.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct EtClass(u8);

impl EtClass {
    /// The classes, coolest first.
    pub const ALL: [Self; 6] = [Self(1), Self(2), Self(3), Self(4), Self(5), Self(6)];

    /// The class of a number, 1 to 6.
    #[must_use]
    pub fn new(number: u8) -> Option<Self> {
        (1..=6).contains(&number).then_some(Self(number))
    }

    /// Its number.
    #[must_use]
    pub const fn number(self) -> u8 {
        self.0
    }

    /// Reference ET at which it sets 100 %, mm a day: 3 to 8.
    #[must_use]
    pub const fn reference_mm_per_day(self) -> f64 {
        self.0 as f64 + 2.0
    }
}

/// The class whose reference lies nearest to a peak month's mean ET0, mm a day; of two the cooler,
/// which waters more.
///
/// ```
/// use upland_core::sensor::class_for;
/// assert_eq!(class_for(5.1).number(), 3);
/// assert_eq!(class_for(4.5).number(), 2);
/// assert_eq!(class_for(12.0).number(), 6);
/// ```
#[must_use]
pub fn class_for(peak_et0_mm_per_day: f64) -> EtClass {
    let off = |c: &EtClass| (c.reference_mm_per_day() - peak_et0_mm_per_day).abs();
    EtClass::ALL.into_iter().min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(EtClass(3))
}

/// Share by which a sensor's offset, 1 to 5, scales its percent: a step is a tenth, 3 leaves it as it is. The
/// method is ours.
#[must_use]
pub fn offset_share(trim: u8) -> f64 {
    1.0 + 0.1 * (f64::from(trim) - 3.0)
}

/// The percent that the sensor sets: mean ET0 of the last days against the class's reference,
/// times the trim, of which a step is 10 %: `100 ET0 / reference (1 + 0.1 (trim - 3))`.
/// The method is ours.
#[must_use]
pub fn et_percent(mean_et0_mm_per_day: f64, class: EtClass, trim: u8) -> f64 {
    100.0 * mean_et0_mm_per_day.max(0.0) / class.reference_mm_per_day() * offset_share(trim)
}

/// The percent to expect in each month of an average year.
#[must_use]
pub fn expected_by_month(normals: &Normals, class: EtClass, trim: u8) -> [f64; 12] {
    normals.map(|n| et_percent(n.et0_mm_per_day, class, trim))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn more_trim_and_a_cooler_class_both_water_more() {
        let class = EtClass::new(3).unwrap();
        assert_eq!(et_percent(5.0, class, 3), 100.0);
        assert!(et_percent(5.0, class, 4) > et_percent(5.0, class, 3));
        assert!(et_percent(5.0, EtClass::new(2).unwrap(), 3) > et_percent(5.0, class, 3));
        assert_eq!(et_percent(-0.3, class, 3), 0.0);
        assert!(EtClass::new(7).is_none());
    }
}
