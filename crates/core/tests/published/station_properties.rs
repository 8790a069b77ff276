//! Properties of a station's figures, whatever grows, stands and falls there.

use proptest::prelude::*;
use proptest::sample::select;
use upland_core::budget::{base_minutes_if, uncertainty, year_budget};
use upland_core::controller::{Controller, Preset, Station};
use upland_core::landscape::{Density, Exposure, Maturity, Plant, Planting, Slope, Soil, SprinklerType, WaterNeed};
use upland_core::quantity::{Coefficient, MonthOfYear, RateMmPerHour};

use crate::series::{controller, normals};

fn any_station() -> impl Strategy<Value = Station> {
    let planting = (
        proptest::option::of(select(WaterNeed::ALL.to_vec())),
        select(Density::ALL.to_vec()),
        select(Maturity::ALL.to_vec()),
        proptest::option::of(select(Plant::KINDS[..11].to_vec())),
        proptest::option::of(proptest::array::uniform12(0.05..1.5f64)),
    );
    let ground = (select(Soil::ALL.to_vec()), select(Slope::ALL.to_vec()), select(Exposure::ALL.to_vec()));
    let water =
        (select(SprinklerType::ALL.to_vec()), proptest::option::of(1.0..150.0f64), proptest::option::of(0.2..1.0f64));
    (select(Plant::KINDS.to_vec()), planting, ground, water, -30.0..30.0f64).prop_map(
        |(plant, (need, density, maturity, beside, months), (soil, slope, exposure), (kind, rate, du), trim_pct)| {
            let by_month = months.map(|months| months.map(|k| Coefficient::new(k).unwrap()));
            let mut station = Station {
                planting: Planting { need, density, maturity, beside, by_month },
                soil,
                slope,
                exposure,
                trim_pct,
                ..Station::plain(1, "Bed", plant, kind)
            };
            station.sprinkler.rate = rate.and_then(|r| RateMmPerHour::new(r).ok());
            station.sprinkler.uniformity = du;
            station
        },
    )
}

/// Exact minutes of a week at 100 %, of three waterings.
fn week_minutes(station: &Station) -> f64 {
    let c = alone(station);
    let budget = year_budget(&c, &normals(Some(30.0))).unwrap();
    let base = &budget.groups[0].stations[0];
    assert!(base.exact_minutes.is_finite() && base.exact_minutes >= 0.0, "{station:?}");
    base.exact_minutes * base.waterings
}

fn alone(station: &Station) -> Controller {
    let mut c = controller(Preset::Fine, vec![station.clone()]);
    c.programs[0].waterings_per_week = Some(3);
    c
}

proptest! {
    #[test]
    fn more_slope_never_lengthens_a_run(station in any_station()) {
        let longest = |slope| Station { slope, ..station.clone() }.runoff().longest_minutes.unwrap_or(f64::INFINITY);
        let by_slope = Slope::ALL.map(longest);
        prop_assert!(by_slope.is_sorted_by(|flat, steep| steep <= flat), "{by_slope:?}");
    }

    #[test]
    fn less_uniformity_and_less_shade_never_shorten_a_run(station in any_station(), worse in 0.2..1.0f64) {
        let now = week_minutes(&station);
        let du = station.sprinkler.uniformity().0;
        let mut uneven = station.clone();
        uneven.sprinkler.uniformity = Some((du * worse).max(0.2));
        prop_assert!(week_minutes(&uneven) >= now - 1e-9);
        let by_exposure = Exposure::ALL.map(|exposure| week_minutes(&Station { exposure, ..station.clone() }));
        prop_assert!(by_exposure.is_sorted_by(|cool, hot| cool <= hot), "{by_exposure:?}");
    }

    #[test]
    fn a_thirstier_or_second_plant_never_takes_water_away(station in any_station(), second in select(Plant::KINDS[..11].to_vec())) {
        let with = |planting| week_minutes(&Station { planting, ..station.clone() });
        let by_need = WaterNeed::ALL.map(|need| with(Planting { need: Some(need), ..station.planting }));
        prop_assert!(by_need.is_sorted_by(|less, more| less <= more), "{by_need:?}");
        let single = with(Planting { beside: None, ..station.planting });
        let shared = with(Planting { beside: Some(second), ..station.planting });
        prop_assert!(shared >= single - 1e-9, "{shared} {single}");
    }

    #[test]
    fn the_minutes_lie_between_what_the_guesses_leave(station in any_station()) {
        let what_ifs = base_minutes_if(&alone(&station), &normals(Some(30.0)), 1);
        let now = week_minutes(&station);
        if let Some(found) = uncertainty(now, &what_ifs) {
            prop_assert!(found.minutes[0] <= now + 1e-9 && now <= found.minutes[1] + 1e-9, "{found:?} {now}");
            prop_assert!(found.minutes.iter().all(|m| m.is_finite() && *m >= 0.0));
        }
    }

    #[test]
    fn every_month_has_a_coefficient_and_a_store(station in any_station()) {
        let zone = station.zone();
        prop_assert!(zone.taw_mm > 0.0 && zone.raw_mm() > 0.0 && zone.raw_mm() < zone.taw_mm, "{zone:?}");
        for month in MonthOfYear::ALL {
            let k = station.landscape_coefficient(month);
            prop_assert!(k.is_finite() && (0.0..4.0).contains(&k), "{k}");
        }
    }
}
