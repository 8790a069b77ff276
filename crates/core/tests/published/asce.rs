//! ASCE-EWRI (2005) daily values, and a daily series carried by an R package.

use chrono::{DateTime, Datelike, NaiveDate};
use upland_core::climate::atmosphere::saturation_vapour_pressure;
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::hourly::HourlyWeather;
use upland_core::climate::reference_et::Reference;
use upland_core::place::Position;

use crate::table::{Example, rows};

/// Fallon, Nevada, 1 July 2015: the values of the refet package's tests.
#[test]
fn fallon_daily_short_and_tall() {
    let ex = Example::of("ASCE-EWRI 2005", "Fallon NV daily");
    let position = Position::new(39.4575, -118.77388, 1208.5).unwrap();
    let site = Site::new(&position, 3.0, Guesses::default()).unwrap();
    // The dew point that was measured, 49.84 °F.
    let day = DailyWeather {
        t_max: Some((102.80 - 32.0) / 1.8),
        t_min: Some((66.65 - 32.0) / 1.8),
        dew_point: Some((49.84 - 32.0) / 1.8),
        solar: Some(674.07 * 0.041_868),
        wind: Some(4.80 * 0.44704),
        ..DailyWeather::empty(NaiveDate::from_ymd_opt(2015, 7, 1).unwrap())
    };
    let short = site.et0(&day, Reference::Short).unwrap();
    let terms = short.terms.unwrap();
    let within = |what: &str, figure: f64, printed: f64, tolerance: f64| {
        assert!((figure - printed).abs() < tolerance, "{what}: {figure} against {printed}");
    };
    ex.agrees("ea", terms.input.ea);
    ex.agrees("es", terms.input.es);
    ex.agrees("Delta", terms.input.delta);
    ex.agrees("Ra", short.ra);
    ex.agrees("u2", terms.input.u2);
    ex.agrees("Rso (simple)", terms.rso);
    // Compared to 0.001 mm: the sixth digit hangs on the last digit of unit conversions.
    within("Rn", terms.input.rn, 15.36824, 1e-4);
    within("ETos", short.et0_mm, 7.99797, 1e-3);
    within("ETrs", site.et0(&day, Reference::Tall).unwrap().et0_mm, 10.62609, 1e-3);
}

/// Greeley, Colorado, appendix C: printed from unrounded inputs, so within 0.03 mm.
#[test]
fn greeley_daily() {
    let position = Position::new(40.41, -104.78, 1462.4).unwrap();
    let site = Site::new(&position, 3.0, Guesses::default()).unwrap();
    // Vapour pressure to dew point, the inverse of FAO-56 eq. 11.
    let dew = |ea: f64| {
        let l = (ea / 0.6108f64).ln();
        237.3 * l / (17.27 - l)
    };
    for (j, max, min, ea, rs, wind, short, tall) in
        [(183, 32.4, 10.9, 1.27, 22.4, 1.94, 5.71, 7.34), (184, 33.5, 12.2, 1.19, 26.8, 2.14, 6.71, 8.68)]
    {
        let day = DailyWeather {
            t_max: Some(max),
            t_min: Some(min),
            dew_point: Some(dew(ea)),
            solar: Some(rs),
            wind: Some(wind),
            ..DailyWeather::empty(NaiveDate::from_yo_opt(2000, j).unwrap())
        };
        assert!((site.et0_mm(&day, Reference::Short).unwrap() - short).abs() <= 0.03);
        assert!((site.et0_mm(&day, Reference::Tall).unwrap() - tall).abs() <= 0.03);
    }
}

/// The sample series of the R package Evapotranspiration, ten days of March 2001, south.
#[test]
fn ten_days_in_the_south() {
    let series: Vec<_> =
        rows("published_examples.csv").into_iter().filter(|r| r["publication"].starts_with("R package")).collect();
    assert_eq!(series.len(), 10);
    let position = Position::new((-0.6095f64).to_degrees(), 138.6, 48.0).unwrap();
    let site = Site::new(&position, 10.0, Guesses::default()).unwrap();
    for row in series {
        let get = |key: &str| {
            row["inputs"].split(';').find_map(|p| p.strip_prefix(&format!("{key}="))).unwrap().parse::<f64>().unwrap()
        };
        let date: NaiveDate = row["example"].parse().unwrap();
        assert_eq!(f64::from(date.ordinal()), get("J"));
        let day = DailyWeather {
            t_max: Some(get("tmax_c")),
            t_min: Some(get("tmin_c")),
            rh_max: Some(get("rhmax_pct")),
            rh_min: Some(get("rhmin_pct")),
            wind: Some(get("wind_10m")),
            solar: Some(get("Rs")),
            ..DailyWeather::empty(date)
        };
        let et0 = site.et0_mm(&day, Reference::Short).unwrap();
        let (printed, tolerance): (f64, f64) = (row["printed"].parse().unwrap(), row["tolerance"].parse().unwrap());
        assert!((et0 - printed).abs() <= tolerance + 1e-9, "{date}: {et0} against {printed}");
    }
}

/// Fallon, Nevada, 1 July 2015, 18:00 to 19:00 UTC: the values of the refet package's tests.
#[test]
fn fallon_hourly_short_and_tall() {
    let ex = Example::of("ASCE-EWRI 2005", "Fallon NV hourly");
    let position = Position::new(39.4575, -118.77388, 1208.5).unwrap();
    let site = Site::new(&position, 3.0, Guesses::default()).unwrap();
    let t = (91.80 - 32.0) / 1.8;
    let dew_point: f64 = (49.36 - 32.0) / 1.8;
    let hour = HourlyWeather {
        t: Some(t),
        rh: Some(100.0 * saturation_vapour_pressure(dew_point) / saturation_vapour_pressure(t)),
        solar: Some(61.16 * 0.041_868),
        wind: Some(3.33 * 0.44704),
        ..HourlyWeather::empty(DateTime::parse_from_rfc3339("2015-07-01T18:00:00Z").unwrap())
    };
    let short = site.hourly_et0(&[hour], Reference::Short)[0].unwrap();
    ex.agrees("ea", short.terms.input.ea);
    ex.agrees("es", short.terms.input.es);
    ex.agrees("Delta", short.terms.input.delta);
    ex.agrees("Ra", short.sky.ra);
    ex.agrees("u2", short.terms.input.u2);
    ex.agrees("Rn", short.terms.input.rn);
    ex.agrees("ETos short", short.et0_mm);
    ex.agrees("ETrs tall", site.hourly_et0(&[hour], Reference::Tall)[0].unwrap().et0_mm);
}

/// Greeley, Colorado, appendix C, three hours of an afternoon, by the hour's end; from memory, as the table says.
#[test]
fn greeley_hourly() {
    let position = Position::new(40.41, -104.78, 1462.4).unwrap();
    let site = Site::new(&position, 3.0, Guesses::default()).unwrap();
    let hours = [(16, 30.9, 1.09, 2.24, 4.07), (17, 31.2, 1.15, 1.65, 3.58), (18, 29.1, 1.21, 0.34, 1.15)];
    let series: Vec<HourlyWeather> = hours
        .iter()
        .map(|(end, t, ea, rs, wind)| HourlyWeather {
            t: Some(*t),
            rh: Some(100.0 * ea / saturation_vapour_pressure(*t)),
            solar: Some(*rs),
            wind: Some(*wind),
            ..HourlyWeather::empty(
                DateTime::parse_from_rfc3339(&format!("2000-07-01T{:02}:00:00-07:00", end - 1)).unwrap(),
            )
        })
        .collect();
    let figures = |reference| site.hourly_et0(&series, reference).into_iter().map(|e| e.unwrap().et0_mm);
    for (et0, printed) in figures(Reference::Short).zip([0.61, 0.48, 0.14]) {
        assert!((et0 - printed).abs() < 0.005, "{et0} against {printed}");
    }
    for (et0, printed) in figures(Reference::Tall).zip([0.82, 0.66]) {
        assert!((et0 - printed).abs() < 0.005, "{et0} against {printed}");
    }
}
