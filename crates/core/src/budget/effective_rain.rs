/// Effective rain of an average month, mm: the part of its rain that plants can use.
///
/// `Pe = SF (0.70917 P^0.82416 - 0.11556) 10^(0.02426 ET)` in inches, with the storage factor
/// `SF = 0.531747 + 0.295164 D - 0.057697 D² + 0.003804 D³` and D the usable storage of the soil
/// in inches; then held in 0 to the lesser of P and ET. Source: \[TR-21\], after \[NEH-623-2\]
/// eq. 2-84 and 2-85. It holds for the mean rain of a month over years, not for one month. The
/// original covers D of 19 to 190 mm; thinner stores are extrapolated, thicker ones held there.
///
/// Arguments in mm: rain and ET of the month, usable storage.
///
/// ```
/// use upland_core::budget::effective_rain;
/// // TR-21's check row: 50 mm of rain, 100 mm of ET, 75 mm of storage: 35.5 mm.
/// assert!((effective_rain(50.0, 100.0, 75.0) - 35.50).abs() < 0.005);
/// ```
#[must_use]
pub fn effective_rain(rain_mm: f64, et_mm: f64, storage_mm: f64) -> f64 {
    const INCH: f64 = 25.4;
    let (p, et, d) = (rain_mm / INCH, et_mm / INCH, (storage_mm / INCH).clamp(0.0, 7.5));
    let sf = 0.531_747 + 0.295_164 * d - 0.057_697 * d.powi(2) + 0.003_804 * d.powi(3);
    let pe = sf * (0.709_17 * p.max(0.0).powf(0.824_16) - 0.115_56) * 10f64.powf(0.024_26 * et);
    pe.min(p).min(et).max(0.0) * INCH
}
