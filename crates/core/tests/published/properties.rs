//! Properties that hold for whatever is put in.

use chrono::NaiveDate;
use proptest::prelude::*;
use upland_core::budget::{Dial, year_budget};
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::quality::{RunDay, check_day, check_series};
use upland_core::climate::reference_et::Reference;
use upland_core::climate::sun::sun_day;
use upland_core::controller::Preset;
use upland_core::place::Position;
use upland_core::quantity::MonthOfYear;

use crate::series::{controller, lawn, normals};

/// Any number at all, the impossible ones included.
fn any_number() -> impl Strategy<Value = Option<f64>> {
    prop_oneof![Just(None), any::<f64>().prop_map(Some), (-100.0..150.0).prop_map(Some)]
}

fn any_day() -> impl Strategy<Value = DailyWeather> {
    (0i64..200_000, proptest::array::uniform9(any_number())).prop_map(|(n, v)| DailyWeather {
        date: NaiveDate::from_ymd_opt(1700, 1, 1).unwrap() + chrono::TimeDelta::days(n),
        t_max: v[0],
        t_min: v[1],
        rh_max: v[2],
        rh_min: v[3],
        rh_mean: v[4],
        dew_point: v[5],
        wind: v[6],
        solar: v[7],
        rain: v[8],
    })
}

proptest! {
    #[test]
    fn no_day_makes_the_core_panic(day in any_day(), lat in -90.0..=90.0f64, z in -450.0..6000.0f64) {
        let site = Site::new(&Position::new(lat, 0.0, z).unwrap(), 2.0, Guesses::default()).unwrap();
        let _ = check_day(&day, Some(&site));
        let _ = check_series([RunDay::from(&day); 2].into_iter());
        let _ = site.et0(&day, Reference::Short);
        let _ = site.et0(&day, Reference::Tall);
    }

    #[test]
    fn a_sound_day_has_a_finite_figure(max in -40.0..50.0f64, range in 0.0..30.0f64, lat in -90.0..=90.0f64, day in 1u32..=366, wind in proptest::option::of(0.0..20.0f64)) {
        let site = Site::new(&Position::new(lat, 0.0, 100.0).unwrap(), 2.0, Guesses::default()).unwrap();
        let date = NaiveDate::from_yo_opt(2016, day).unwrap();
        let weather = DailyWeather { t_max: Some(max), t_min: Some(max - range), wind, ..DailyWeather::empty(date) };
        for reference in [Reference::Short, Reference::Tall] {
            let et0 = site.et0_mm(&weather, reference).unwrap();
            prop_assert!(et0.is_finite() && (-5.0..60.0).contains(&et0), "{et0}");
        }
    }

    #[test]
    fn a_dialled_percent_can_be_dialled(exact in any::<f64>(), preset in 0usize..3) {
        let c = Preset::ALL[preset].capability();
        let dialled = c.dial(exact);
        prop_assert!(c.can_dial(dialled));
        prop_assert!(dialled >= c.percent_min && dialled <= c.percent_max);
    }

    #[test]
    fn dialling_is_never_more_than_half_a_step_off_inside_the_range(exact in 10.0..200.0f64) {
        let c = Preset::Plain.capability();
        prop_assert!((f64::from(c.dial(exact).get()) - exact).abs() <= 5.0 + 1e-6);
    }

    /// More reference ET in a month never lowers its percent.
    #[test]
    fn demand_and_percent_rise_together(month in 1u8..=12, more in 1.0..3.0f64) {
        let c = controller(Preset::Fine, vec![lawn(1)]);
        let month = MonthOfYear::new(month).unwrap();
        let plain = normals(None);
        let mut thirstier = plain;
        thirstier[month.index()].et0_mm_per_day *= more;
        let before = year_budget(&c, &plain).unwrap();
        let after = year_budget(&c, &thirstier).unwrap();
        let percent = |b: &upland_core::budget::YearBudget| match b.groups[0].month(month).called { Dial::Off => 0, Dial::Percent(p) => p.get() };
        prop_assert!(percent(&after) >= percent(&before) || after.groups[0].peak_month == month);
    }

    #[test]
    fn the_sun_rises_before_noon_and_sets_after(lat in -90.0..=90.0f64, lon in -180.0..=180.0f64, day in 1u32..=365, hours in -12i32..=14) {
        let date = NaiveDate::from_yo_opt(2025, day).unwrap();
        let sun = sun_day(lat, lon, date, hours * 3600);
        if let (Some(rise), Some(set)) = (sun.sunrise, sun.sunset) {
            prop_assert!(rise <= sun.noon && sun.noon <= set);
        }
    }
}
