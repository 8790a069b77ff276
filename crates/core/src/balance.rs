//! The daily balance of water in the root zone: the one account under every figure that asks how
//! wet a station is.
//!
//! Source: \[FAO-56\] ch. 8, eq. 82 to 88, by local day. Rain and water enter first, the stress
//! coefficient is that of the depletion after them, and what is beyond field capacity once the
//! plants have drunk percolates. Capillary rise is left out.

use crate::landscape::{readily_available_water, total_available_water};

/// The store that a station's plants draw on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RootZone {
    /// TAW, total available water between field capacity and wilting point, mm; over 0.
    pub taw_mm: f64,
    /// p, the share of it that plants use before they feel it; over 0 and under 1.
    pub p: f64,
}

impl RootZone {
    /// The store of a soil of available water (mm per m) and roots of a depth (m).
    #[must_use]
    pub fn new(available_water_mm_per_m: f64, root_depth_m: f64, p: f64) -> Self {
        Self { taw_mm: total_available_water(available_water_mm_per_m, root_depth_m), p }
    }

    /// RAW, readily available water, mm: the depletion at which stress begins.
    #[must_use]
    pub fn raw_mm(&self) -> f64 {
        readily_available_water(self.p, self.taw_mm)
    }

    /// K_s, the water stress coefficient at a depletion, 0 to 1.
    ///
    /// `K_s = (TAW - D_r) / ((1 - p) TAW)` beyond RAW, else 1. Source: \[FAO-56\] eq. 84.
    ///
    /// ```
    /// use upland_core::balance::RootZone;
    /// // FAO-56 example 37, inputs from memory: tomato, TAW 136 mm, p 0.40; 55 mm are gone on day 1.
    /// let tomato = RootZone { taw_mm: 136.0, p: 0.40 };
    /// assert_eq!(format!("{:.3}", tomato.stress(55.0)), "0.993");
    /// assert_eq!(tomato.stress(54.0), 1.0);
    /// ```
    #[must_use]
    #[inline]
    pub fn stress(&self, depletion_mm: f64) -> f64 {
        let raw = self.p * self.taw_mm;
        if depletion_mm <= raw { 1.0 } else { ((self.taw_mm - depletion_mm) / (self.taw_mm - raw)).max(0.0) }
    }
}

/// What enters a root zone on a day, and what its plants ask for.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Entering {
    /// Rain that reaches the surface, mm; 0 under a roof.
    pub rain_mm: f64,
    /// Water that the station puts on the surface, mm.
    pub applied_mm: f64,
    /// What of the two runs off, mm.
    pub runoff_mm: f64,
    /// ET_L, what the plants use while they have enough, mm; never below 0.
    pub et_l_mm: f64,
}

/// How a day ends.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DayEnd {
    /// K_s of the depletion after rain and water.
    pub ks: f64,
    /// What the plants really used, mm.
    pub et_mm: f64,
    /// Water that sank below the roots, mm.
    pub percolation_mm: f64,
    /// D_r, water missing to field capacity at the end of the day, mm: 0 to TAW.
    pub depletion_mm: f64,
}

/// A day's account with every term in it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DayTerms {
    /// Depletion at the end of the day before, mm.
    pub before_mm: f64,
    /// What entered.
    pub entering: Entering,
    /// Depletion after rain and water, mm; below 0 there is more than the soil holds.
    pub after_water_mm: f64,
    /// RAW, mm.
    pub raw_mm: f64,
    /// ET that the stress coefficient allows, before the store is empty, mm.
    pub et_allowed_mm: f64,
    /// How the day ends.
    pub end: DayEnd,
}

/// One day of the balance.
///
/// `D_i = D_(i-1) - (P - RO) - I + K_s ET_L + DP`, with `0 <= D_i <= TAW`, ET cut where the store is
/// empty, and `DP` what is beyond field capacity. Source: \[FAO-56\] eq. 85 to 88.
#[must_use]
#[inline]
pub fn day(zone: &RootZone, before_mm: f64, entering: &Entering) -> DayEnd {
    let after_water = before_mm - (entering.rain_mm + entering.applied_mm - entering.runoff_mm);
    let ks = zone.stress(after_water);
    let et_mm = (ks * entering.et_l_mm).min((zone.taw_mm - after_water).max(0.0));
    let balance = after_water + et_mm;
    let percolation_mm = (-balance).max(0.0);
    DayEnd { ks, et_mm, percolation_mm, depletion_mm: balance.max(0.0) }
}

/// [`day`] with every term, for a page that shows the working.
#[must_use]
pub fn explain(zone: &RootZone, before_mm: f64, entering: &Entering) -> DayTerms {
    let after_water_mm = before_mm - (entering.rain_mm + entering.applied_mm - entering.runoff_mm);
    let end = day(zone, before_mm, entering);
    DayTerms {
        before_mm,
        entering: *entering,
        after_water_mm,
        raw_mm: zone.raw_mm(),
        et_allowed_mm: end.ks * entering.et_l_mm,
        end,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const LOAM: RootZone = RootZone { taw_mm: 46.5, p: 0.4 };

    fn dry(et_l_mm: f64) -> Entering {
        Entering { et_l_mm, ..Entering::default() }
    }

    /// By hand: 40 mm gone of 46.5; 10 mm of rain leave 30, RAW is 18.6, K_s = 16.5 / 27.9.
    #[test]
    fn rain_enters_before_the_plants_drink() {
        let end = day(&LOAM, 40.0, &Entering { rain_mm: 10.0, ..dry(5.0) });
        let ks = 16.5 / 27.9;
        assert!((end.ks - ks).abs() < 1e-12 && (end.et_mm - 5.0 * ks).abs() < 1e-12);
        assert!((end.depletion_mm - (30.0 + 5.0 * ks)).abs() < 1e-12);
        assert_eq!(end.percolation_mm, 0.0);
    }

    /// By hand: 3 mm gone, 12 mm come, 4 mm are used: 5 mm are left over.
    #[test]
    fn what_the_soil_cannot_hold_percolates_after_the_plants_drank() {
        let end = day(&LOAM, 3.0, &Entering { applied_mm: 12.0, ..dry(4.0) });
        assert_eq!((end.depletion_mm, end.percolation_mm, end.et_mm), (0.0, 5.0, 4.0));
        let lost = day(&LOAM, 3.0, &Entering { applied_mm: 12.0, runoff_mm: 2.0, ..dry(4.0) });
        assert_eq!(lost.percolation_mm, 3.0);
    }

    #[test]
    fn an_empty_store_gives_no_more() {
        let end = day(&LOAM, 46.5, &dry(6.0));
        assert_eq!((end.ks, end.et_mm, end.depletion_mm), (0.0, 0.0, 46.5));
        // Without stress before the last millimetre the store would be overdrawn.
        let thin = RootZone { taw_mm: 10.0, p: 0.9 };
        let end = day(&thin, 8.5, &dry(6.0));
        assert_eq!((end.et_mm, end.depletion_mm), (1.5, 10.0));
    }

    proptest! {
        #[test]
        fn no_water_is_made_or_lost(
            taw in 5.0..200.0, p in 0.1..0.9, share in 0.0..1.0, rain in 0.0..80.0, applied in 0.0..60.0,
            off in 0.0..1.0, et_l in 0.0..12.0,
        ) {
            let zone = RootZone { taw_mm: taw, p };
            let before = share * taw;
            let entering = Entering { rain_mm: rain, applied_mm: applied, runoff_mm: off * applied, et_l_mm: et_l };
            let end = day(&zone, before, &entering);
            let gained = before - end.depletion_mm;
            let flows = rain + applied - entering.runoff_mm - end.et_mm - end.percolation_mm;
            prop_assert!((gained - flows).abs() < 1e-9);
            prop_assert!((0.0..=taw + 1e-9).contains(&end.depletion_mm) && end.et_mm <= et_l + 1e-12);
            prop_assert_eq!(explain(&zone, before, &entering).end, end);
            let wetter = day(&zone, before, &Entering { applied_mm: applied + 5.0, ..entering });
            prop_assert!(wetter.ks >= end.ks && wetter.depletion_mm <= end.depletion_mm + 1e-9);
        }
    }
}
