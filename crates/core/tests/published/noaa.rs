//! Sunrise, noon and sunset against `noaa_solar.csv`.

use chrono::{DateTime, NaiveDate, NaiveTime, TimeDelta, Utc};
use upland_core::climate::sun::{sun_day, sun_position, sun_terms};

use crate::table::{Row, rows};

fn number(row: &Row, key: &str) -> f64 {
    row[key].parse().unwrap_or_else(|_| panic!("{key} of {row:?}"))
}

/// NOAA's spreadsheet terms, at the tolerance of the test that carries them.
#[test]
fn spreadsheet_terms() {
    for row in rows("noaa_solar.csv").iter().filter(|r| r["kind"] == "spreadsheet_term") {
        let t: f64 = row["date_or_time"].strip_prefix("julian_century=").unwrap().parse().unwrap();
        let terms = sun_terms(t);
        let figure = match row["quantity"].as_str() {
            "declination" => terms.declination_deg,
            "equation of time" => terms.equation_of_time_min,
            _ => terms.apparent_longitude_deg,
        };
        assert!((figure - number(row, "computed_noaa")).abs() < 1e-5, "{row:?}: {figure}");
    }
}

#[test]
fn positions() {
    for row in rows("noaa_solar.csv").iter().filter(|r| r["kind"] == "position") {
        let at: DateTime<Utc> = row["date_or_time"].parse().unwrap();
        let position = sun_position(number(row, "lat_deg"), number(row, "lon_deg"), at);
        match row["quantity"].as_str() {
            // The refracted row is half a degree of altitude from the true one.
            "elevation (refracted)" => assert!((position.elevation_deg - number(row, "computed_noaa")).abs() < 0.15),
            "azimuth" => {
                assert!((position.azimuth_deg - number(row, "computed_noaa")).abs() < 0.001, "{row:?} {position:?}")
            }
            _ => assert!((position.elevation_deg - number(row, "computed_noaa")).abs() < 0.001, "{row:?} {position:?}"),
        }
    }
}

/// Both hemispheres, high latitude included, to three seconds.
#[test]
fn rise_noon_and_set() {
    let mut compared = 0;
    for row in rows("noaa_solar.csv").iter().filter(|r| r["kind"] == "computed") {
        let quantity = row["quantity"].as_str();
        if !["sunrise", "noon", "sunset"].contains(&quantity) {
            continue;
        }
        let date: NaiveDate = row["date_or_time"].parse().unwrap();
        let offset_s = (number(row, "utc_offset_h") * 3600.0) as i32;
        let day = sun_day(number(row, "lat_deg"), number(row, "lon_deg"), date, offset_s);
        let figure = match quantity {
            "sunrise" => day.sunrise,
            "sunset" => day.sunset,
            _ => Some(day.noon),
        };
        let printed = &row["computed_noaa"];
        if printed == "none" {
            assert_eq!(figure, None, "{row:?}");
        } else {
            let local =
                figure.unwrap_or_else(|| panic!("{row:?}")).naive_utc() + TimeDelta::seconds(i64::from(offset_s));
            let expected = date.and_time(printed.parse::<NaiveTime>().unwrap());
            assert!((local - expected).num_milliseconds().abs() <= 3000, "{row:?}: {local}");
        }
        compared += 1;
    }
    assert!(compared > 60, "only {compared} rows");
}
