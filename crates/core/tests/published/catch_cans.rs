//! Two sets of catch cans worked by hand (tables/du_examples.csv); DU_lq and multiplier by [IA-LIS].

use upland_core::landscape::{CanTest, catch_mm, gross_minutes, minutes_for, run_multiplier};

use crate::table::{Row, rows};

fn set(name: &str) -> (Vec<Row>, CanTest) {
    let rows: Vec<Row> = rows("du_examples.csv").into_iter().filter(|r| r["set"] == name).collect();
    let given = |what: &str| value(&rows, "given", what);
    let catches = rows
        .iter()
        .filter(|r| r["kind"] == "can")
        .map(|r| r["value"].parse::<f64>().unwrap())
        .map(|v| Some(if name == "A" { catch_mm(v, given("can_throat_area")) } else { v }))
        .collect();
    let test = CanTest::new(catches, 4, given("test_run")).unwrap();
    (rows, test)
}

fn value(rows: &[Row], kind: &str, name: &str) -> f64 {
    let row = rows.iter().find(|r| r["kind"] == kind && r["name"] == name).unwrap_or_else(|| panic!("{name}"));
    row["value"].parse().unwrap()
}

fn agrees(rows: &[Row], name: &str, figure: f64, tolerance: f64) {
    let printed = value(rows, "result", name);
    assert!((figure - printed).abs() <= tolerance, "{name}: {figure}, printed {printed}");
}

#[test]
fn sixteen_cans_in_millilitres() {
    let (rows, test) = set("A");
    agrees(&rows, "mean_catch", test.mean_mm() * 10.0, 1e-9);
    agrees(&rows, "lowest_quarter_mean", test.lowest_quarter_mm() * 10.0, 1e-9);
    agrees(&rows, "du_lq", test.uniformity(), 5e-7);
    agrees(&rows, "mean_rate", test.rate_mm_per_hour(), 5e-5);
    let multiplier = run_multiplier(test.uniformity());
    agrees(&rows, "run_time_multiplier", multiplier, 5e-7);
    let net = value(&rows, "given", "net_depth_wanted");
    agrees(&rows, "net_minutes", minutes_for(net, test.rate_mm_per_hour()), 5e-5);
    agrees(&rows, "gross_minutes", gross_minutes(net, test.rate_mm_per_hour(), multiplier), 5e-5);
}

#[test]
fn twenty_two_cans_with_half_of_the_sixth() {
    let (rows, test) = set("B");
    agrees(&rows, "mean_catch", test.mean_mm(), 5e-7);
    agrees(&rows, "lowest_quarter_mean_fraction_5_5", test.lowest_quarter_mm(), 5e-7);
    agrees(&rows, "du_lq_fraction_5_5", test.uniformity(), 5e-7);
    let multiplier = run_multiplier(test.uniformity());
    agrees(&rows, "run_time_multiplier_fraction_5_5", multiplier, 5e-7);
    let net = value(&rows, "given", "net_depth_wanted");
    agrees(&rows, "gross_minutes_fraction_5_5", gross_minutes(net, test.rate_mm_per_hour(), multiplier), 5e-5);
}
