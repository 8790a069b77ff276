//! The daily balance against FAO-56's worked examples and a season of another implementation.

use upland_core::balance::{Entering, RootZone, day};

use crate::table::rows;

/// FAO-56 example 37, ten days without water; inputs from memory, and the package's rows were recomputed
/// with independent formulas. K_s is that of the depletion at the start of the day, and no water comes.
#[test]
fn example_37_ten_days_of_stress() {
    let tomato = RootZone { taw_mm: 136.0, p: 0.40 };
    assert!((tomato.raw_mm() - 54.0).abs() <= 0.5, "printed 54");
    let of = |n: usize, quantity: &str| -> f64 {
        let example = format!("ex 37 day {n}");
        let row = rows("published_examples.csv")
            .into_iter()
            .find(|r| r["publication"] == "FAO-56" && r["example"] == example && r["quantity"] == quantity)
            .unwrap();
        row["computed"].parse().unwrap()
    };
    let mut depletion = 55.0;
    for n in 1..=10 {
        let end = day(&tomato, depletion, &Entering { et_l_mm: 1.2 * 5.0, ..Entering::default() });
        assert!((end.ks - of(n, "Ks")).abs() < 5e-6, "day {n}: {}", end.ks);
        assert!((end.et_mm - of(n, "ETc adj")).abs() < 5e-5, "day {n}: {}", end.et_mm);
        assert!((end.depletion_mm - of(n, "Dr end")).abs() < 5e-4, "day {n}: {}", end.depletion_mm);
        depletion = end.depletion_mm;
    }
}

/// FAO-56 example 38: RAW of 0.30 m of roots, printed 23 mm; and of 1 m of roots, printed 78 mm.
#[test]
fn example_38_readily_available_water() {
    let sandy_loam = |roots| RootZone::new(1000.0 * (0.23 - 0.10), roots, 0.6).raw_mm();
    assert!((sandy_loam(0.30) - 23.0).abs() <= 0.5);
    assert!((sandy_loam(1.0) - 78.0).abs() <= 0.5);
    assert!((sandy_loam(0.35) - 27.3).abs() < 1e-9);
}

/// A season by the package pyfao56 1.4.3: rain, three waterings a week until August, then none. How it was
/// made stands beside the table.
#[test]
fn a_season_by_pyfao56() {
    let season = same_season("pyfao56_season.csv", 0.95, &RootZone::new(1000.0 * (0.300 - 0.145), 0.30, 0.40));
    assert!(season.stressed > 40 && season.percolated_mm > 200.0, "the season shows both ends: {season:?}");
}

/// Seven months in the sample weather of the package aquacrop 3.1.0, whose reference ET is its own, on a heavier soil
/// and deeper roots. How it was made stands beside the table.
#[test]
fn a_season_in_the_weather_of_aquacrop() {
    let zone = RootZone::new(1000.0 * (0.350 - 0.200), 0.60, 0.50);
    let season = same_season("aquacrop_weather_season.csv", 1.05, &zone);
    assert!(season.stressed > 30 && season.percolated_mm > 200.0, "the season shows both ends: {season:?}");
}

/// What a season shows of dry and wet.
#[derive(Debug)]
struct Season {
    stressed: u32,
    percolated_mm: f64,
}

/// Follows the balance through a table, and holds every day's figures equal.
fn same_season(table: &str, coefficient: f64, zone: &RootZone) -> Season {
    let mut season = Season { stressed: 0, percolated_mm: 0.0 };
    let mut depletion = 0.0;
    for row in rows(table) {
        let of = |column: &str| row[column].parse::<f64>().unwrap();
        let entering = Entering {
            rain_mm: of("rain_mm"),
            applied_mm: of("applied_mm"),
            et_l_mm: coefficient * of("et0_mm"),
            ..Entering::default()
        };
        let end = day(zone, depletion, &entering);
        for (column, figure) in [
            ("ks", end.ks),
            ("et_actual_mm", end.et_mm),
            ("percolation_mm", end.percolation_mm),
            ("depletion_mm", end.depletion_mm),
        ] {
            assert!((figure - of(column)).abs() < 1e-5, "{table}, {} {column}: {figure}", row["date"]);
        }
        season.stressed += u32::from(end.ks < 0.9);
        season.percolated_mm += end.percolation_mm;
        depletion = end.depletion_mm;
    }
    season
}
