//! What is drawn of any controller stays on its sheet: no figure that is no number, nothing outside its drawing, no
//! bar of less than nothing, no name given to two elements of a page.

use chrono::{NaiveDate, NaiveDateTime, TimeDelta};
use proptest::prelude::*;
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::Controller;
use upland_core::place::Rules;
use upland_core::quantity::MonthOfYear;
use upland_core::testing::{any_controller, any_rules};

use crate::charts::DayArc;
use crate::context::{ControllerContext, PlaceContext, WeatherDay};
use crate::form::Form;
use crate::golden::fixture::{self, Half};
use crate::golden::html::check;
use crate::golden::{CASES, replay_page, week_page, worksheet_page, year_page};
use crate::pages::door_card;
use crate::pages::ways::{WaysInput, WaysView};

/// The days at which a drawing is most easily wrong, and any other.
fn moments() -> impl Strategy<Value = NaiveDateTime> {
    let edge = [
        (2026, 1, 1),
        (2026, 12, 31),
        (2028, 2, 29),
        // The clocks go forward and back.
        (2026, 3, 29),
        (2026, 10, 25),
    ];
    let day = |(y, m, d)| NaiveDate::from_ymd_opt(y, m, d).unwrap();
    let any_day = (0i64..1500).prop_map(move |n| day((2025, 1, 1)) + TimeDelta::days(n));
    let days = prop_oneof![prop::sample::select(edge.map(day).to_vec()), any_day];
    let minutes = prop_oneof![Just(0), Just(1439), 0i64..1440];
    (days, minutes).prop_map(|(day, minutes)| day.and_hms_opt(0, 0, 0).unwrap() + TimeDelta::minutes(minutes))
}

/// From a desert to a polar winter; months may lack their rain.
fn any_normals() -> impl Strategy<Value = Normals> {
    let et0 = prop_oneof![Just(0.0), 0.0f64..15.0];
    let rain = proptest::option::of(prop_oneof![Just(0.0), 0.0f64..900.0]);
    proptest::array::uniform12((et0, rain))
        .prop_map(|months| months.map(|(et0_mm_per_day, rain_mm)| MonthNormal { et0_mm_per_day, rain_mm }))
}

/// The controller at the place of a half, under rules and in a climate of its own, or without weather.
fn at(half: Half, controller: &Controller, rules: &Rules, normals: Option<&Normals>) -> ControllerContext {
    let fixed = fixture::context(half).at;
    let (mut place, mut weather) = (fixed.place.clone(), fixed.weather.clone());
    place.value.rules = rules.clone();
    match (normals, &mut weather) {
        (Some(normals), Some(weather)) => weather.variants.iter_mut().for_each(|v| v.normals = *normals),
        _ => weather = None,
    }
    fixture::with_controller(controller.clone(), PlaceContext::new(place, weather))
}

/// Some months of weather, of which anything may be missing.
fn any_days() -> impl Strategy<Value = Vec<WeatherDay>> {
    let some = |most: f64| proptest::option::weighted(0.9, prop_oneof![Just(0.0), 0.0..most]);
    let temperatures = proptest::option::weighted(0.9, (-30.0f64..30.0, 0.0f64..25.0));
    let day = (some(14.0), some(200.0), temperatures);
    proptest::collection::vec(day, 1..140).prop_map(|days| {
        let first = NaiveDate::from_ymd_opt(2026, 2, 20).unwrap();
        let dated = first.iter_days().zip(days);
        dated
            .map(|(date, (et0_mm, rain_mm, air))| {
                let [tmin_c, tmax_c] = [air.map(|(low, _)| low), air.map(|(low, range)| low + range)];
                WeatherDay { date, et0_mm, rain_mm, tmin_c, tmax_c }
            })
            .collect()
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn the_year_the_week_and_the_worksheet_of_any_controller(
        controller in any_controller("Gate"), rules in any_rules(), now in moments(),
        normals in proptest::option::weighted(0.9, any_normals())
    ) {
        for (_, half, units) in CASES {
            let context = at(half, &controller, &rules, normals.as_ref());
            let years = controller.programs.iter().map(|p| year_page(&context, p.letter, now.date(), units));
            prop_assert!(years.clone().all(|year| year.is_some() == context.normals().is_ok()));
            for html in years.flatten() {
                prop_assert!(check(&html) > 20, "the plate of the year is on no sheet");
            }
            check(&week_page(&context, now, false, units));
            controller.stations.iter().for_each(|s| _ = check(&worksheet_page(&context, s.number, units)));
        }
    }

    /// A season in any climate, under any schedule, on its page and beside other ways to water.
    #[test]
    fn the_replay_and_the_ways_of_any_controller(
        controller in any_controller("Gate"), rules in any_rules(), normals in any_normals(), weather in any_days()
    ) {
        for (_, half, units) in CASES {
            let context = at(half, &controller, &rules, Some(&normals));
            if let Some(html) = replay_page(&context, &weather, Form::default(), units) {
                prop_assert!(check(&html) > 20, "the season is on no sheet");
            }
            let input = WaysInput { context: &context, days: &weather, letter: None, today: half.today(), units };
            let ways = format!("{:?}", WaysView::of(&input));
            prop_assert!(!ways.contains("NaN") && !ways.contains("inf"), "{}", ways);
        }
    }

    /// Every station stands on the card at the door, with figures that are numbers.
    #[test]
    fn the_door_card_of_any_controller(
        controller in any_controller("Gate"), rules in any_rules(), normals in any_normals(), now in moments()
    ) {
        let context = at(Half::South, &controller, &rules, Some(&normals));
        let Ok(budget) = context.budget() else { return Ok(()) };
        let plan = context.week_of(now.date()).plan(&controller);
        let stations = door_card::card_stations(&controller, budget, &plan);
        prop_assert_eq!(stations.len(), controller.stations.len());
        let programs = door_card::card_programs(&controller, budget, MonthOfYear::of(now.date()));
        let card = format!("{stations:?} {programs:?}");
        prop_assert!(!card.contains("NaN") && !card.contains("inf"), "{}", card);
    }

    /// From pole to pole, in the polar night as in the polar day.
    #[test]
    fn the_sun_of_any_place(latitude in -90.0f64..=90.0, longitude in -180.0f64..=180.0, rules in any_rules(),
        zone in prop::sample::select(&chrono_tz::TZ_VARIANTS[..]), now in moments()) {
        let arc = format!("{:?}", DayArc::draw([latitude, longitude], zone, &rules.bind("14"), now));
        prop_assert!(!arc.contains("NaN") && !arc.contains("inf"), "{}", arc);
    }
}
