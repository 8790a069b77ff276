//! USDA-SCS TR-21 effective rain: the 12 check rows and the grid of 210.

use upland_core::budget::effective_rain;

use crate::table::rows;

#[test]
fn check_rows_and_grid() {
    let mut compared = 0;
    for row in rows("effective_rain_tr21.csv") {
        let Ok(expected) = row["pe_limited_mm"].parse::<f64>() else { continue };
        let get = |key: &str| row[key].parse::<f64>().unwrap();
        let figure = effective_rain(get("rain_mm_month"), get("et_mm_month"), get("storage_mm"));
        assert!((figure - expected).abs() <= 0.005 + 1e-9, "{row:?}: {figure}");
        compared += 1;
    }
    assert!(compared >= 222, "only {compared} rows");
}
