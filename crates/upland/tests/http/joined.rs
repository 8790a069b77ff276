//! Weather files that are no table of days: a logger's hours, a typical year.

use upland_journeys::Server;

use crate::client::{Client, binary};

const EPW: &[u8] = include_bytes!("../../../formats/tests/weather/files/pvgis-excerpt.epw");

#[tokio::test(flavor = "multi_thread")]
async fn a_typical_year_brings_its_station_and_its_normals() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let (address, page) = client.look_at_weather(&place, "typical.epw", EPW);
    assert!(page.body.contains("864 rows joined to 36 days"), "{}", page.brief());
    assert_eq!((page.field("latitude"), page.field("elevation"), page.field("wind_height")), {
        ("45".to_owned(), "250".to_owned(), "10".to_owned())
    });
    let taken = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(taken.location(), format!("{place}/weather"), "{}", taken.brief());
    assert!(client.get(&format!("{place}/weather")).body.contains("36 days"));
}

#[tokio::test(flavor = "multi_thread")]
async fn a_loggers_hours_become_days_in_its_own_units() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let mut text = String::from("Logger,00123\nDate,Time,Air temp (°F),RH (%),Rain (in),Wind speed (mph)\n");
    for day in 0..365 {
        let date = chrono::NaiveDate::from_ymd_opt(2025, 1, 1).unwrap() + chrono::TimeDelta::days(day);
        for hour in 1..=24 {
            let rain = if hour == 6 { "0.1" } else { "0" };
            text.push_str(&format!("{},{hour:02}:00,{},60,{rain},4\n", date.format("%m/%d/%Y"), 49 + hour));
        }
    }
    let (address, page) = client.look_at_weather(&place, "logger.csv", text.as_bytes());
    assert!(page.body.contains("8760 rows joined to 365 days"), "{}", page.brief());
    let ready = client.submit(&address, page.form(&address), &[("unit_0", "mdy")]);
    assert!(ready.body.contains("days are ready"), "{}", ready.brief());
    let taken = client.submit(&format!("{address}/import"), ready.form(&address), &[]);
    assert_eq!(taken.location(), format!("{place}/weather"), "{}", taken.brief());
    // 50 to 73 °F are 10.0 to 22.8 °C; a tenth of an inch a day is 927 mm a year.
    let record = client.get(&client.get("/weather").link("/weather/", ""));
    assert!(record.body.contains("927"), "{}", record.brief());
    // A file that is neither is said as before.
    let token = client.get(&format!("{place}/weather")).field("token");
    let refused = client.send_file(&format!("{place}/weather/files"), &token, "x.epw", b"LOCATION,x\n");
    assert_eq!(refused.status, 422, "{}", refused.brief());
}
