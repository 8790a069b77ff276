//! FAO-56 worked examples, from `published_examples.csv`.

use chrono::NaiveDate;
use upland_core::climate::atmosphere::*;
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::method::Method;
use upland_core::climate::radiation::*;
use upland_core::climate::reference_et::*;
use upland_core::landscape::{readily_available_water, total_available_water};
use upland_core::place::Position;

use crate::table::Example;

/// Degrees and minutes.
fn dm(degrees: f64, minutes: f64) -> f64 {
    degrees + minutes / 60.0
}

#[test]
fn example_2_pressure_at_1800_m() {
    let ex = Example::of("FAO-56", "ex 2");
    let p = pressure(1800.0);
    ex.agrees("P", p);
    ex.agrees("gamma", psychrometric_constant(p));
}

#[test]
fn example_3_saturation_vapour_pressure() {
    let ex = Example::of("FAO-56", "ex 3");
    let (max, min) = (saturation_vapour_pressure(24.5), saturation_vapour_pressure(15.0));
    ex.agrees("e0(Tmax)", max);
    ex.agrees("e0(Tmin)", min);
    ex.agrees("es", (max + min) / 2.0);
}

#[test]
fn example_5_actual_vapour_pressure_from_humidity() {
    let ex = Example::of("FAO-56", "ex 5");
    let (max, min) = (saturation_vapour_pressure(25.0), saturation_vapour_pressure(18.0));
    ex.agrees("e0(Tmax)", max);
    ex.agrees("e0(Tmin)", min);
    ex.agrees("ea", vapour_pressure_from_extremes(max, min, 82.0, 54.0));
    ex.agrees("ea (from RHmean)", (max + min) / 2.0 * 0.68);
}

#[test]
fn example_8_extraterrestrial_radiation() {
    let ex = Example::of("FAO-56", "ex 8");
    let date = NaiveDate::from_ymd_opt(2021, 9, 3).unwrap();
    ex.agrees("J", f64::from(chrono::Datelike::ordinal(&date)));
    let sky = Sky::at(ex.input("lat_deg"), 246);
    ex.agrees("phi", (-20f64).to_radians());
    ex.agrees("dr", sky.dr);
    ex.agrees("delta", sky.delta);
    ex.agrees("omega_s", sky.omega_s);
    ex.agrees("Ra", sky.ra);
    ex.agrees("Ra as evaporation", 0.408 * sky.ra);
}

#[test]
fn example_9_daylight_hours() {
    Example::of("FAO-56", "ex 9").agrees("N", Sky::at(-20.0, 246).daylight_hours());
}

#[test]
fn example_10_radiation_from_sunshine() {
    let ex = Example::of("FAO-56", "ex 10");
    let sky = Sky::at(-22.9, 135);
    ex.agrees("Ra", sky.ra);
    ex.agrees("N", sky.daylight_hours());
    ex.agrees("Rs", solar_from_sunshine(220.0 / 31.0, &sky));
}

#[test]
fn example_11_net_long_wave_radiation() {
    let ex = Example::of("FAO-56", "ex 11");
    ex.agrees("Rso", 0.75 * 25.1);
    ex.agrees("Rnl", net_longwave(25.1, 19.1, 2.1, 14.5, 18.8));
    ex.agrees("Rnl (Tmin 19.0)", net_longwave(25.1, 19.0, 2.1, 14.5, 18.8));
}

#[test]
fn example_12_net_radiation() {
    let ex = Example::of("FAO-56", "ex 12");
    // The example goes on with the unrounded 14.46 of example 10.
    let rns = net_shortwave(solar_from_sunshine(220.0 / 31.0, &Sky::at(-22.9, 135)));
    ex.agrees("Rns", rns);
    ex.agrees("Rn", rns - net_longwave(25.1, 19.1, 2.1, 14.5, 18.8));
}

#[test]
fn example_14_wind_at_two_metres() {
    Example::of("FAO-56", "ex 14").agrees("u2", wind_at_2m(3.2, 10.0));
}

/// Monthly mean data with a soil heat flux of 0.14, which a day does not have: put together from
/// the parts.
#[test]
fn example_17_penman_monteith_from_monthly_data() {
    let ex = Example::of("FAO-56", "ex 17");
    let sky = Sky::at(dm(13.0, 44.0), 105);
    let rs = solar_from_sunshine(8.5, &sky);
    let rso = clear_sky(2.0, sky.ra);
    let (max, min) = (saturation_vapour_pressure(34.8), saturation_vapour_pressure(25.6));
    let rnl = net_longwave(34.8, 25.6, 2.85, rs, rso);
    let g = 0.14 * (30.2 - 29.2);
    let input = PenmanMonteithInput {
        t: 30.2,
        delta: vapour_pressure_slope(30.2),
        // The example goes on with the pressure as printed.
        gamma: psychrometric_constant(101.3),
        rn: net_shortwave(rs) - rnl,
        g,
        u2: 2.0,
        es: (max + min) / 2.0,
        ea: 2.85,
    };
    for (quantity, figure) in [
        ("P", pressure(2.0)),
        ("Delta", input.delta),
        ("gamma", input.gamma),
        ("es", input.es),
        ("es-ea", input.es - input.ea),
        ("Ra", sky.ra),
        ("N", sky.daylight_hours()),
        ("Rs", rs),
        ("Rso", rso),
        ("Rns", net_shortwave(rs)),
        ("Rnl", rnl),
        ("G", g),
        ("ET0", penman_monteith(&input, Reference::Short)),
    ] {
        ex.agrees(quantity, figure);
    }
}

#[test]
fn example_18_penman_monteith_from_a_day() {
    let ex = Example::of("FAO-56", "ex 18");
    let position = Position::new(dm(50.0, 48.0), 4.35, 100.0).unwrap();
    let site = Site::new(&position, 10.0, Guesses::default()).unwrap();
    let sky = Sky::at(dm(50.0, 48.0), 187);
    let day = DailyWeather {
        t_max: Some(21.5),
        t_min: Some(12.3),
        rh_max: Some(84.0),
        rh_min: Some(63.0),
        wind: Some(10.0 / 3.6),
        solar: Some(solar_from_sunshine(9.25, &sky)),
        ..DailyWeather::empty(NaiveDate::from_ymd_opt(2015, 7, 6).unwrap())
    };
    let et0 = site.et0(&day, Reference::Short).unwrap();
    let terms = et0.terms.unwrap();
    for (quantity, figure) in [
        ("u2", terms.input.u2),
        ("Delta", terms.input.delta),
        ("gamma", terms.input.gamma),
        ("es", terms.input.es),
        ("ea", terms.input.ea),
        ("Ra", et0.ra),
        ("Rs", terms.rs),
        ("Rso", terms.rso),
        ("Rns", terms.rns),
        ("Rnl", terms.rnl),
        ("Rn", terms.input.rn),
        ("ET0", et0.et0_mm),
    ] {
        ex.agrees(quantity, figure);
    }
    assert!(et0.method.is_measured());
}

#[test]
fn example_20_temperatures_alone() {
    let ex = Example::of("FAO-56", "ex 20");
    let site = Site::new(&Position::new(45.72, 4.0, 200.0).unwrap(), 2.0, Guesses::default()).unwrap();
    let bare = DailyWeather {
        t_max: Some(26.6),
        t_min: Some(14.8),
        ..DailyWeather::empty(NaiveDate::from_ymd_opt(2015, 7, 15).unwrap())
    };
    let hargreaves = site.et0(&bare, Reference::Short).unwrap();
    assert_eq!(hargreaves.method, Method::Hargreaves);
    ex.agrees("ET0 (Hargreaves)", hargreaves.et0_mm);
    // The same day by Penman-Monteith with wind 2 m/s stated, humidity and sun stood in for.
    let estimated = site.et0(&DailyWeather { wind: Some(2.0), ..bare }, Reference::Short).unwrap();
    let terms = estimated.terms.unwrap();
    for (quantity, figure) in [
        ("Ra", estimated.ra),
        ("Rs", terms.rs),
        ("Rso", terms.rso),
        ("Rns", terms.rns),
        ("Rnl", terms.rnl),
        ("ET0 (Penman-Monteith, estimated inputs)", estimated.et0_mm),
    ] {
        ex.agrees(quantity, figure);
    }
}

#[test]
fn example_36_water_that_may_be_used() {
    for plant in ["onion", "tomato", "maize"] {
        for soil in ["loamy sand", "silt", "silty clay"] {
            let ex = Example::of("FAO-56", &format!("ex 36 {plant} on {soil}"));
            let taw = total_available_water(1000.0 * (ex.input("theta_fc") - ex.input("theta_wp")), ex.input("Zr_m"));
            ex.agrees("TAW", taw);
            ex.agrees("RAW", readily_available_water(ex.input("p"), taw));
        }
    }
}
