//! A weather record: its chart, flags that are decided, rain read by hand, and out as CSV and in again.

use chrono::{NaiveDate, TimeDelta};
use upland_journeys::Server;

use crate::client::{Answer, Client, binary};

/// Two years and some up to 10 June 2026; the low of 22 April has lost its sign's neighbours.
fn days() -> String {
    let first = NaiveDate::from_ymd_opt(2024, 3, 1).unwrap();
    let mut text = String::from("date,tmax_c,tmin_c,rain_mm\n");
    for n in 0..832 {
        let date = first + TimeDelta::days(n);
        let wave = if n % 2 == 0 { 1.0 } else { -1.0 };
        let low = if date == NaiveDate::from_ymd_opt(2026, 4, 22).unwrap() { -9.8 } else { 8.0 + wave };
        let rain = if n % 5 == 0 { 6.0 } else { 0.0 };
        text.push_str(&format!("{date},{},{low},{rain}\n", 18.0 + wave));
    }
    text
}

/// A place with a record; gives the record's address.
fn with_record(client: &Client) -> (String, String) {
    let place = client.make_place("Library");
    let token = client.get(&format!("{place}/weather")).field("token");
    let sent = client.send_file(&format!("{place}/weather/files"), &token, "days.csv", days().as_bytes());
    let address = sent.location().to_owned();
    let form = client.get(&address).form(&address);
    let taken = client.submit(&format!("{address}/import"), form, &[]);
    assert_eq!(taken.status, 303, "{}", taken.brief());
    let list = client.get("/weather").body;
    let at = list.find("/weather/").unwrap();
    (place, list[at..at + "/weather/".len() + 36].to_owned())
}

/// The form of the one flag on the page.
fn flag(page: &Answer, record: &str) -> Vec<(String, String)> {
    page.forms(&format!("{record}/decide"))
        .into_iter()
        .find(|form| form.iter().any(|(field, _)| field == "element"))
        .unwrap_or_else(|| panic!("no flag: {}", page.brief()))
}

#[tokio::test(flavor = "multi_thread")]
async fn a_flag_is_excluded_corrected_taken_back_and_undone() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, record) = with_record(&client);
    let decide = format!("{record}/decide");
    let page = client.get(&record);
    assert!(page.body.contains("One flag") && page.body.contains("last frost 22 Apr"), "{}", page.brief());
    // What is impossible is refused at its field, and what was typed is still there.
    let wrong = client.submit(&decide, flag(&page, &record), &[("verdict", "correct"), ("value", "40")]);
    assert_eq!(wrong.status, 422);
    assert!(wrong.body.contains("The low would be above the high") && wrong.body.contains("value=\"40\""));
    let right = client.submit(
        &decide,
        flag(&page, &record),
        &[("verdict", "correct"), ("value", "9.8"), ("reason", "sign lost")],
    );
    assert_eq!(right.location(), record, "{}", right.brief());
    let page = client.get(&record);
    assert!(page.body.contains("No flags") && page.body.contains("sign lost") && !page.body.contains("last frost"));
    assert!(page.body.contains("−9.8\u{a0}°C") && page.body.contains("9.8\u{a0}°C"), "the original is kept");
    // Taken back, it is a flag again.
    let back = client.submit(&decide, flag(&page, &record), &[("verdict", "back")]);
    assert_eq!(back.status, 303, "{}", back.brief());
    let page = client.get(&record);
    assert!(page.body.contains("One flag"), "{}", page.brief());
    assert_eq!(client.submit(&decide, flag(&page, &record), &[("verdict", "exclude")]).status, 303);
    assert!(client.get(&record).body.contains("excluded"));
    // The same page cannot decide over what was decided since.
    let stale = client.submit(
        &decide,
        flag(&page, &record),
        &[("verdict", "accept"), ("action", &uuid::Uuid::new_v4().to_string())],
    );
    assert_eq!(stale.status, 409, "{}", stale.brief());
    client.undo(&record);
    assert!(client.get(&record).body.contains("One flag"), "undo points back");
}

#[tokio::test(flavor = "multi_thread")]
async fn rain_read_by_hand_counts_and_an_export_brings_nothing_new() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, record) = with_record(&client);
    let decide = format!("{record}/decide");
    let form = || {
        let page = client.get(&record);
        page.forms(&decide).into_iter().find(|f| f.iter().any(|(field, _)| field == "reading_date")).unwrap()
    };
    for (date, rain) in
        [("2026-06-20", "3"), ("2001-01-01", "3"), ("2026-06-11", ""), ("2026-06-11", "5000"), ("soon", "3")]
    {
        let refused = client.submit(&decide, form(), &[("reading_date", date), ("reading", rain)]);
        assert_eq!((refused.status, refused.field("reading").as_str()), (422, rain), "{date}: {}", refused.brief());
    }
    let saved = client.submit(&decide, form(), &[("reading_date", "2026-06-11"), ("reading", "7.5")]);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let page = client.get(&record);
    assert!(page.body.contains("Thu 11 Jun") && page.body.contains(">7.5</b>"), "{}", page.brief());
    let csv = client.get(&format!("{record}/days.csv")).body;
    assert!(csv.starts_with("date,tmax_c,tmin_c,rain_mm\n2024-03-01,19,9,6\n"), "{}", &csv[..80]);
    assert!(csv.ends_with("2026-06-11,,,7.5\n"));
}

#[tokio::test(flavor = "multi_thread")]
async fn any_period_is_shown_and_nonsense_shows_this_year() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, record) = with_record(&client);
    let shown = |query: &str| client.get(&format!("{record}{query}"));
    assert!(shown("").body.contains("1 January 2026 to 10 June 2026"));
    assert!(shown("?from=2025-02-01&to=2025-03-31").body.contains("1 February 2025 to 31 March 2025"));
    for nonsense in ["?from=x&to=y", "?from=2026-05-01", "?from=2026-05-01&to=2026-04-01", "?station=900"] {
        assert!(shown(nonsense).body.contains("1 January 2026 to 10 June 2026"), "{nonsense}");
    }
    assert!(shown("?from=0001-01-01&to=9999-12-31").body.contains("1 March 2024 to 10 June 2026"));
    assert_eq!(client.get(&format!("/weather/{}", uuid::Uuid::nil())).status, 404);
    assert_eq!(client.get(&format!("/weather/{}/days.csv", uuid::Uuid::nil())).status, 404);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_new_export_goes_on_with_its_record_and_the_same_one_brings_nothing() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, record) = with_record(&client);
    let id = record.trim_start_matches("/weather/");
    let exported = client.get(&format!("{record}/days.csv")).body;
    let (address, page) = client.look_at_weather(&place, "june.csv", exported.as_bytes());
    assert_eq!(page.form(&address).iter().find(|(f, _)| f == "into").unwrap().1, id, "{}", page.brief());
    assert!(page.body.contains("All days of this file are on record already"), "{}", page.brief());
    assert_eq!(client.submit(&format!("{address}/import"), page.form(&address), &[]).status, 422);
    // A day more, a day that reads otherwise, and the rest left out.
    let (address, page) = client.look_at_weather(
        &place,
        "june.csv",
        b"date,tmax_c,tmin_c,rain_mm\n2026-06-09,19,9,6\n2026-06-10,17,7,4.2\n2026-06-11,20,9,0\n",
    );
    assert!(page.body.contains("One day is new.") && page.body.contains("One value is replaced:"), "{}", page.brief());
    assert!(page.body.contains("4.2\u{a0}mm"), "{}", page.brief());
    let taken = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(taken.location(), format!("{place}/weather"), "{}", taken.brief());
    let after = client.get(&record);
    assert!(
        after.body.contains("1 January 2026 to 11 June 2026") && after.body.contains(">4.2</b>"),
        "{}",
        after.brief()
    );
    assert!(after.body.contains("days.csv, june.csv"));
    assert_eq!(
        client.get("/weather").body.matches("class=\"button\" href=\"/weather/").count().max(1),
        1,
        "one record"
    );
    client.undo(&record);
    assert!(client.get(&record).body.contains("1 January 2026 to 10 June 2026"), "undo points back");
}

#[tokio::test(flavor = "multi_thread")]
async fn units_are_proposed_with_their_evidence_and_taken_by_one_press() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let seattle = include_str!("../../../../docs/examples/seattle-weather.csv");
    let (address, page) = client.look_at_weather(&place, "june.csv", seattle.as_bytes());
    assert!(page.body.contains("−1.6 to 35.6: °C. As °F the warmest would be 2 °C."), "{}", page.brief());
    let ready = client.submit(&address, page.form(&address), &[("propose", "all")]);
    assert!(ready.body.contains("days are ready"), "{}", ready.brief());
    // By the day first, with semicolons, decimal commas and lines of the logger above; no proposal for the dates.
    let mut text = String::from("Hut above the orchard\nDate;Tmax;Tmin;Rain\n;°C;°C;mm\n");
    for n in 0..366 {
        let date = NaiveDate::from_ymd_opt(2024, 1, 1).unwrap() + TimeDelta::days(n);
        text.push_str(&format!("{};20,5;8,5;{}\n", date.format("%d/%m/%Y"), if n == 3 { "-999" } else { "0,2" }));
    }
    let (address, page) = client.look_at_weather(&place, "june.csv", text.as_bytes());
    assert!(page.body.contains("semicolon, decimal comma, UTF-8, one line above the header"), "{}", page.brief());
    assert!(
        page.body.contains("366 lines from 1 January 2024") || page.body.contains("days are ready"),
        "{}",
        page.brief()
    );
    let taken = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(taken.status, 303, "{}", taken.brief());
    // Dates that fit both ways are asked about.
    let (_, page) = client.look_at_weather(&place, "june.csv", b"date,tmax_c,tmin_c\n1/2/2026,20,8\n3/4/2026,21,9\n");
    assert!(page.body.contains("can be read day first or month first"), "{}", page.brief());
}

/// Twelve typed normals, and rain that somebody read at the gauge: this week's percent needs no file.
#[tokio::test(flavor = "multi_thread")]
async fn a_gauge_beside_typed_normals_answers_for_a_wet_week() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    let normals = format!("{place}/weather/normals");
    let names: Vec<String> = (1..=12).map(|m| format!("et0_{m}")).collect();
    let typed: Vec<(&str, &str)> = names.iter().map(|n| (n.as_str(), "4.0")).collect();
    let form = client.get(&normals).form(&normals);
    assert_eq!(client.submit(&normals, form, &typed).status, 303);
    let temporary = format!("{controller}/temporary");
    let page = client.get(&temporary);
    assert!(page.body.contains("No rain on record for the last two days"), "{}", page.brief());
    let gauge = page.link("/weather/", "#reading-h");
    let record = gauge.split('#').next().unwrap();
    let decide = format!("{record}/decide");
    for (date, rain) in [("2026-06-07", "30"), ("2026-06-10", "25")] {
        let form = client.get(record).form(&decide);
        let saved = client.submit(&decide, form, &[("reading_date", date), ("reading", rain)]);
        assert_eq!(saved.status, 303, "{}", saved.brief());
    }
    let page = client.get(&temporary);
    assert!(page.body.contains("It rained 55.0\u{a0}mm"), "{}", page.brief());
    // The normals are the typed ones still, and can be typed anew without losing the readings.
    let form = client.get(&normals).form(&normals);
    assert_eq!(form.iter().find(|(n, _)| n == "et0_6").unwrap().1, "4");
    assert_eq!(client.submit(&normals, form, &[("et0_6", "4.4")]).status, 303);
    assert!(client.get(&temporary).body.contains("It rained 55.0\u{a0}mm"), "the readings stay");
}

/// A place of which nothing is known but its climate in words: a guess that carries a year, marked as one.
#[tokio::test(flavor = "multi_thread")]
async fn a_climate_in_words_carries_a_place_without_figures() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    let normals = format!("{place}/weather/normals");
    let page = client.get(&format!("{normals}?by=climate"));
    let words = [("air", "arid"), ("summer", "moderate"), ("winter", "cool")];
    let refused =
        client.submit(&normals, page.form(&normals), &[("air", "arid"), ("summer", "cool"), ("winter", "warm")]);
    assert_eq!((refused.status, refused.field("by").as_str()), (422, "climate"), "{}", refused.brief());
    assert!(refused.body.contains("not warmer than the warmest"), "{}", refused.brief());
    let saved = client.submit(&normals, page.form(&normals), &words);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let weather = client.get(&format!("{place}/weather"));
    assert!(weather.body.contains("from a climate in words (dry; warmest months moderate"), "{}", weather.brief());
    // Asked again it stands as it was said, and the year is there.
    let again = client.get(&normals);
    assert!(again.body.contains("<option value=\"arid\" selected"), "{}", again.brief());
    assert!(again.body.contains("5.5 (4.0"), "{}", again.brief());
    let year = client.get(&format!("{controller}/year?month=6"));
    assert!(year.body.contains("from a climate in words"), "{}", year.brief());
}
