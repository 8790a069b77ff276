//! A place that takes its reference ET from one station and its rain from another, gaps filled from a third.

use std::fmt::Write;

use chrono::{NaiveDate, TimeDelta};
use upland_journeys::Server;

use crate::client::{Client, binary};

/// Two whole years up to 10 June 2026: 20 and 8 °C, a millimetre of rain a day; nothing on the days left out.
fn airfield(leave_out: impl Fn(NaiveDate) -> bool) -> String {
    let first: NaiveDate = "2024-06-11".parse().unwrap();
    let mut text = String::from("date,tmax_c,tmin_c,rain_mm\n");
    for date in (0..730).map(|d| first + TimeDelta::days(d)).filter(|d| !leave_out(*d)) {
        writeln!(text, "{date},20,8,1").unwrap();
    }
    text
}

/// Imports a file of a named station a little north of the place; gives the page it leads to.
fn import(client: &Client, place: &str, name: &str, text: &str) -> String {
    let (address, page) = client.look_at_weather(place, &format!("{name}.csv"), text.as_bytes());
    let form = page.form(&address);
    let station = [("name", name), ("latitude", "47.6"), ("longitude", "-122.2"), ("into", "")];
    let ready = client.submit(&address, form, &station);
    assert!(!ready.body.contains("class=\"errm\""), "{}", ready.brief());
    let taken = client.submit(&format!("{address}/import"), ready.form(&address), &[]);
    assert_eq!(taken.status, 303, "{}", taken.brief());
    client.get(taken.location()).body
}

#[tokio::test(flavor = "multi_thread")]
async fn rain_from_the_gauge_and_gaps_from_the_next_station() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let silent = |d: NaiveDate| d >= "2026-05-01".parse().unwrap() && d <= "2026-05-10".parse().unwrap();
    import(&client, &place, "Airfield", &airfield(silent));

    // Rain alone, of three days: no normals, so it stands beside the airfield.
    let gauge = "date,rain_mm\n2026-06-08,7\n2026-06-09,0\n2026-06-10,12\n";
    let page = import(&client, &place, "Roof gauge", gauge);
    assert!(page.contains("Roof gauge: rain of 3 days."), "{page}");
    assert!(page.contains("Airfield: reference ET of 720 days, rain of 717 days."), "{page}");

    // May of another station, too short for a first one: it fills the ten days.
    let may = airfield(|d| d < "2026-05-01".parse().unwrap() || d > "2026-05-31".parse().unwrap());
    let page = import(&client, &place, "Valley", &may);
    assert!(page.contains("Valley: reference ET of 10 days, rain of 10 days."), "{page}");
    // A tenth of a degree to the north of the place.
    assert!(page.contains("11\u{a0}km N"), "{page}");

    // Turned off again: the airfield alone, ten days of May missing.
    let weather = format!("{place}/weather");
    let form = client.get(&weather).form(&weather);
    let rain = form.iter().find(|(name, _)| name == "series").unwrap().1.clone();
    let gaps: Vec<(String, String)> = form.iter().filter(|(n, _)| n.starts_with("gaps_")).cloned().collect();
    assert_eq!(gaps.iter().filter(|(_, rank)| rank == "1").count(), 1, "{gaps:?}");
    let mut alone = vec![("rain", rain.as_str())];
    alone.extend(gaps.iter().map(|(name, _)| (name.as_str(), "")));
    assert_eq!(client.submit(&weather, form, &alone).status, 303);
    assert!(!client.get(&weather).body.contains("rain of 3 days"));
    client.undo(&weather);
    assert!(client.get(&weather).body.contains("rain of 3 days"), "undone");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_gauge_cannot_come_first_and_what_follows_from_it_is_worked_out_again() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let gauge = "date,rain_mm\n2026-06-08,7\n2026-06-09,0\n2026-06-10,12\n";
    let (address, page) = client.look_at_weather(&place, "gauge.csv", gauge.as_bytes());
    let refused = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(refused.status, 422, "the place has no station yet");

    import(&client, &place, "Airfield", &airfield(|_| false));
    import(&client, &place, "Roof gauge", gauge);
    let controller = client.make_controller(&place, "Cabinet");
    let stations = format!("{controller}/stations");
    client.submit(&stations, client.get(&stations).form(&stations), &[("s1_name", "Lawn")]);
    // The year's strip hangs 12 mm on 10 June, and the sensors' replay asks the same days.
    let year = client.get(&format!("{controller}/year"));
    assert_eq!(year.status, 200);
    let weather = format!("{place}/weather");
    let page = client.get(&weather);
    let id = page.body.split("name=\"gaps_").nth(2).unwrap().split('"').next().unwrap().to_owned();
    // Rain read on the spot goes into the gauge.
    let temporary = client.get(&format!("{controller}/temporary"));
    assert!(temporary.body.contains(&format!("href=\"/weather/{id}#reading-h\"")), "{}", temporary.brief());
    let form = page.form(&weather);
    let before = client.get(&weather).field("version");
    client.submit(&weather, form, &[("series", &id)]);
    assert_eq!(client.get(&weather).field("version"), before, "a gauge gives no percents");
}

/// In a dry week a gauge agrees with the airfield to the millimetre, and is another station all the same; its own next
/// export goes on with it.
#[tokio::test(flavor = "multi_thread")]
async fn a_gauge_in_dry_weather_is_not_taken_for_the_airfield() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    import(&client, &place, "Airfield", &airfield(|_| false));
    let same_rain = "date,rain_mm\n2026-06-07,1\n2026-06-08,1\n2026-06-09,1\n";
    let into = |page: &crate::client::Answer, address: &str| {
        page.form(address).into_iter().find(|(name, _)| name == "into").unwrap().1
    };
    let (address, page) = client.look_at_weather(&place, "gauge.csv", same_rain.as_bytes());
    assert_eq!(into(&page, &address), "", "a station of its own");
    import(&client, &place, "Roof gauge", same_rain);

    let next = "date,rain_mm\n2026-06-10,4\n2026-06-11,0\n";
    let (address, page) = client.look_at_weather(&place, "gauge-june.csv", next.as_bytes());
    assert_ne!(into(&page, &address), "", "{}", page.brief());
    let taken = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(taken.status, 303, "{}", taken.brief());
    let page = client.get(&format!("{place}/weather")).body;
    assert!(page.contains("Roof gauge: rain of 5 days."), "{page}");
}

#[tokio::test(flavor = "multi_thread")]
async fn moving_a_station_works_its_reference_et_out_again_and_can_be_undone() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    import(&client, &place, "Airfield", &airfield(|_| false));
    let series = client.get("/weather").link("/weather/", "");
    let csv = |client: &Client| client.get(&format!("{series}/days.csv")).body;
    let before = (csv(&client), client.get(&series).body);
    let station = format!("{series}/station");
    let form = client.get(&series).form(&station);
    let bad = client.submit(&station, form.clone(), &[("latitude", "95"), ("name", "")]);
    assert_eq!((bad.status, bad.field("latitude").as_str()), (422, "95"), "{}", bad.brief());

    let renamed = client.submit(&station, form.clone(), &[("name", "Valley airfield")]);
    assert_eq!(renamed.status, 303, "{}", renamed.brief());
    assert!(client.get(&series).body.contains("Valley airfield"));
    // Twelve degrees to the south the sun stands higher: the same temperatures ask for more in winter.
    let form = client.get(&series).form(&station);
    assert_eq!(client.submit(&station, form, &[("latitude", "35.6")]).status, 303);
    let et0 = |page: &str| page.split("mm a month").nth(1).map(|rest| rest.chars().take(1500).collect::<String>());
    let after = client.get(&series).body;
    assert_ne!(et0(&before.1), et0(&after), "January's reference ET is another");
    assert_eq!(before.0, csv(&client), "what was measured stays");
    client.undo(&series);
    assert_eq!(et0(&before.1), et0(&client.get(&series).body));
}

/// Sixty days without a reading, and a station is history; a day less, and it may only wait for its next visit.
#[tokio::test(flavor = "multi_thread")]
async fn a_record_that_ended_is_good_for_normals_only() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let until = |last: &str| {
        let last: NaiveDate = last.parse().unwrap();
        airfield(move |date| date > last)
    };
    let page = import(&client, &place, "Read in spring", &until("2026-04-12"));
    assert!(!page.contains("the record ended"), "{page}");
    let page = import(&client, &place, "Given up", &until("2026-04-11"));
    assert!(page.contains("normals only: the record ended on 11 April 2026"), "{page}");
}
