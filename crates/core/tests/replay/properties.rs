//! What holds for any weather and any schedule.

use proptest::prelude::*;
use upland_core::controller::*;
use upland_core::place::Bound;
use upland_core::replay::{Ground, Keep, Kind, PercentBy, Scheduled, Season, replay};
use upland_core::schedule::Plan;

use crate::builders::*;

fn weather() -> impl Strategy<Value = Season> {
    proptest::collection::vec((0.0..9.0f64, 0.0..30.0f64, 0..4u8), 30..120).prop_map(|days| {
        let mut season = season(days.len() as i64, &[]);
        for (i, (et0, rain, wet)) in days.into_iter().enumerate() {
            season.et0_mm[i] = et0;
            season.rain_mm[i] = if wet == 0 { rain } else { 0.0 };
        }
        season
    })
}

fn uneven(minutes: u32, area: f64) -> Controller {
    let mut s = station(1, A, minutes);
    s.sprinkler.uniformity = Some(0.7);
    s.area_m2 = Some(area);
    let mut c = controller(vec![s]);
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    #[test]
    fn water_is_conserved_on_every_day_under_every_strategy(season in weather(), minutes in 5u32..200) {
        for kind in Kind::ALL {
            let replayed = run(&uneven(minutes, 100.0), &season, &Bound::open(), kind);
            for part in replayed.stations[0].daily.as_ref().unwrap() {
                let mut before = 0.0;
                for i in 0..season.len() {
                    let flows = part.rain_mm[i] + part.applied_mm[i]
                        - part.runoff_mm[i] - part.et_actual_mm[i] - part.percolation_mm[i];
                    prop_assert!((before - part.depletion_mm[i] - flows).abs() < 1e-6, "{kind:?} day {i}");
                    prop_assert!((0.0..=46.5 + 1e-9).contains(&part.depletion_mm[i]));
                    prop_assert!((0.0..=1.0).contains(&part.ks[i]));
                    before = part.depletion_mm[i];
                }
            }
        }
    }

    #[test]
    fn more_water_never_raises_stress(season in weather(), minutes in 5u32..150, more in 1u32..100) {
        let stress = |minutes| {
            let replayed = run(&uneven(minutes, 100.0), &season, &Bound::open(), Kind::ByMonth);
            replayed.stations[0].daily.clone().unwrap()
        };
        for (less, more) in stress(minutes).iter().zip(&stress(minutes + more)) {
            prop_assert!(less.ks.iter().zip(&more.ks).all(|(l, m)| m >= l));
        }
    }

    #[test]
    fn area_scales_volume_alone(season in weather(), share in 1.5..20.0f64) {
        let of = |area| run(&uneven(60, area), &season, &Bound::open(), Kind::RainSensor);
        let (small, large) = (of(100.0), of(100.0 * share));
        prop_assert_eq!(small.stations[0].totals, large.stations[0].totals);
        let [a, b] = [&small, &large].map(|r| r.totals(None).volume_m3.unwrap());
        prop_assert!((b - share * a).abs() < 1e-9 * (1.0 + b));
    }

    /// A season cut in two gives the same, where the second half begins as the first one ended.
    #[test]
    fn two_halves_are_the_whole(season in weather(), cut in 7usize..23) {
        let whole = run(&uneven(60, 100.0), &season, &Bound::open(), Kind::ByMonth);
        let last = *season.dates.last().unwrap();
        let first = season.part([season.dates[0], season.dates[cut - 1]]).unwrap();
        let second = season.part([season.dates[cut], last]).unwrap();
        let begun = run(&uneven(60, 100.0), &first, &Bound::open(), Kind::ByMonth);
        let mut c = uneven(60, 100.0);
        for part in 0..2 {
            let end = *begun.stations[0].daily.as_ref().unwrap()[part].depletion_mm.last().unwrap();
            c.stations[0].root_zone.depletion_start_mm = Some(end);
            let ended = run(&c, &second, &Bound::open(), Kind::ByMonth);
            let joined = &ended.stations[0].daily.as_ref().unwrap()[part].depletion_mm;
            prop_assert_eq!(&whole.stations[0].daily.as_ref().unwrap()[part].depletion_mm[cut..], &joined[..]);
        }
    }

    #[test]
    fn sums_are_those_of_the_days(season in weather()) {
        let replayed = run(&uneven(70, 100.0), &season, &Bound::open(), Kind::SoilSensor);
        let station = &replayed.stations[0];
        for (totals, daily) in station.totals.iter().zip(station.daily.as_ref().unwrap()) {
            prop_assert!((totals.applied_mm - daily.applied_mm.iter().sum::<f64>()).abs() < 1e-6);
            prop_assert!((totals.et_actual_mm - daily.et_actual_mm.iter().sum::<f64>()).abs() < 1e-6);
            prop_assert!((totals.percolation_mm - daily.percolation_mm.iter().sum::<f64>()).abs() < 1e-6);
        }
    }
}

/// Keeping days changes no sum.
#[test]
fn what_is_kept_changes_nothing() {
    let c = uneven(60, 100.0);
    let (plan, ground, open) = (Plan::of(&c, None), Ground::of(&c), Bound::open());
    let season = season(60, &[(5, 20.0)]);
    let of = |keep| {
        let mut strategy = Scheduled::new(&c, &plan, &ground, PercentBy::Month);
        replay(&ground, &season, &open, &mut strategy, keep).stations[0].totals
    };
    assert_eq!(of(Keep::Sums), of(Keep::Days));
    assert_eq!(of(Keep::Sums), of(Keep::Station(1)));
}
