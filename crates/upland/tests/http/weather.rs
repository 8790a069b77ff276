//! From a weather file to the twelve percents, over HTTP; and the same from typed normals.

use upland_journeys::Server;

use crate::client::{Client, binary};

const SEATTLE: &[u8] = include_bytes!("../../../../docs/examples/seattle-weather.csv");

#[tokio::test(flavor = "multi_thread")]
async fn the_seattle_record_imports_by_mapping() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let controller = client.make_controller(&place, "Cabinet");
    let (address, page) = client.look_at_weather(&place, "seattle-weather.csv", SEATTLE);
    assert!(page.body.contains("needs a unit"), "units are never guessed");
    let units = [("unit_1", "mm"), ("unit_2", "c"), ("unit_3", "c"), ("unit_4", "ms"), ("wind_height", "10")];
    let ready = client.submit(&address, page.form(&address), &units);
    assert!(ready.body.contains("days are ready"), "{}", ready.brief());
    let taken = client.submit(&format!("{address}/import"), ready.form(&address), &[]);
    assert_eq!(taken.location(), format!("{place}/weather"), "{}", taken.brief());
    assert!(client.get(&format!("{place}/weather")).body.contains("1461 days"));
    // One lawn, and the year stands.
    let stations = format!("{controller}/stations");
    let form = client.get(&stations).form(&stations);
    client.submit(&stations, form, &[("s1_name", "Lawn")]);
    let year = client.get(&format!("{controller}/year"));
    assert!(year.body.contains("Percent of July"), "{}", year.brief());
    assert!(year.body.contains("aria-valuenow=\"100\""));
    // The file is not kept once it is imported.
    assert_eq!(client.get(&address).status, 404);
}

#[tokio::test(flavor = "multi_thread")]
async fn bad_rows_bar_the_whole_file() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let mut text = String::from("date,tmax_c,tmin_c\n");
    for day in 0..400 {
        let date = chrono::NaiveDate::from_ymd_opt(2015, 1, 1).unwrap() + chrono::TimeDelta::days(day);
        let (max, min) = if day == 57 { (1, 9) } else { (19, 8) };
        text.push_str(&format!("{date},{max},{min}\n"));
    }
    let (address, page) = client.look_at_weather(&place, "days.csv", text.as_bytes());
    assert!(page.body.contains("One line with an error"), "{}", page.brief());
    assert!(page.body.contains("<b>59</b>") && page.body.contains("Lowest 9.0 is above highest 1.0"));
    // Even when it is pressed all the same, nothing goes in.
    let refused = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(refused.status, 422);
    assert!(client.get("/weather").body.contains("No weather yet"));
}

/// A line with an error is mended on the page; what was typed counts, the file stays as it was sent.
#[tokio::test(flavor = "multi_thread")]
async fn bad_lines_are_mended_or_left_out_before_the_import() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let mut text = String::from("date,tmax_c,tmin_c\n");
    for day in 0..400 {
        let date = chrono::NaiveDate::from_ymd_opt(2015, 1, 1).unwrap() + chrono::TimeDelta::days(day);
        let max = if day == 57 { "1" } else { "19" };
        text.push_str(&format!("{date},{max},8\n"));
    }
    text.push_str("2016-02-05,19x,8\n");
    let (address, page) = client.look_at_weather(&place, "days.csv", text.as_bytes());
    assert!(page.body.contains("2 lines with errors"), "{}", page.brief());
    assert_eq!((page.field("mend_59_0"), page.field("mend_59_1")), ("2015-02-27".into(), "1".into()));
    // A highest of 6 is still below the lowest; what was typed stays.
    let still = client.submit(&address, page.form(&address), &[("mend_59_1", "6"), ("out_402", "1")]);
    assert!(still.body.contains("Lowest 8.0 is above highest 6.0"), "{}", still.brief());
    assert!(still.body.contains("One line with an error") && still.body.contains("One line mended"));
    assert_eq!(still.field("mend_59_1"), "6");
    let good = client.submit(&address, still.form(&address), &[("mend_59_1", "16.5")]);
    assert!(good.body.contains("2 lines mended"), "{}", good.brief());
    let taken = client.submit(&format!("{address}/import"), good.form(&address), &[]);
    assert_eq!(taken.status, 303, "{}", taken.brief());
    let page = client.get(&client.get("/weather").link("/weather/", ""));
    assert!(page.body.contains("days.csv (2 lines mended)"), "{}", page.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_gap_of_years_and_a_short_series_are_said() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let (_, page) = client.look_at_weather(&place, "gap.csv", b"date,tmax_c,tmin_c\n2012-01-01,9,1\n2015-01-01,8,1\n");
    assert!(page.body.contains("1095 days are missing before this line"), "{}", page.brief());
    assert!(page.body.contains("No days in February, March"), "{}", page.brief());
    assert!(page.body.contains(" disabled"));
}

#[tokio::test(flavor = "multi_thread")]
async fn files_that_are_no_weather_say_why_at_the_file() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let token = client.get(&format!("{place}/weather")).field("token");
    let send = |name: &str, bytes: &[u8]| client.send_file(&format!("{place}/weather/files"), &token, name, bytes);
    for (name, bytes, said) in [
        ("picture.csv", &b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR"[..], "This is not a text file"),
        ("empty.csv", b"", "The file is empty"),
        ("head.csv", b"date,tmax_c,tmin_c\n", "a header but no data"),
    ] {
        let answer = send(name, bytes);
        assert_eq!(answer.status, 422, "{name}");
        assert!(answer.body.contains(said), "{name}: {}", answer.brief());
    }
    // 200 MB, read and thrown away; the answer comes all the same.
    let large = send("large.csv", &vec![b'1'; 200 * 1024 * 1024]);
    assert_eq!(large.status, 422);
    assert!(large.body.contains("larger than 32 MB"), "{}", large.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn twelve_typed_normals_carry_a_place_in_the_south() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("South");
    let controller = client.make_controller(&place, "Cabinet");
    let address = format!("{place}/weather/normals");
    let form = client.get(&address).form(&address);
    let et0 = ["6.1", "5.4", "4.0", "2.6", "1.5", "1.0", "1.1", "1.7", "2.7", "4.0", "5.0", "5.8"];
    let fields: Vec<(String, &str)> = et0.iter().enumerate().map(|(i, v)| (format!("et0_{}", i + 1), *v)).collect();
    let mut changes: Vec<(&str, &str)> = fields.iter().map(|(n, v)| (n.as_str(), *v)).collect();
    // Rain in one month alone is a slip: the others are not 0.
    changes.push(("rain_3", "40"));
    let slip = client.submit(&address, form.clone(), &changes);
    assert_eq!(slip.status, 422);
    assert!(slip.body.contains("A blank is not 0") && slip.field("et0_1") == "6.1");
    changes.pop();
    assert_eq!(client.submit(&address, form, &changes).status, 303);
    let stations = format!("{controller}/stations");
    let form = client.get(&stations).form(&stations);
    client.submit(&stations, form, &[("s1_name", "Lawn")]);
    assert!(client.get(&format!("{controller}/year")).body.contains("Percent of January"));
}

#[tokio::test(flavor = "multi_thread")]
async fn highs_lows_and_rain_carry_a_place_and_are_marked_as_a_guess() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let controller = client.make_controller(&place, "Cabinet");
    let address = format!("{place}/weather/normals");
    let form = client.get(&format!("{address}?by=temperatures")).form(&address);
    let names: Vec<String> = (1..=12).flat_map(|m| ["high", "low", "rain"].map(|what| format!("{what}_{m}"))).collect();
    let values = ["22", "10", "40"].into_iter().cycle();
    let typed: Vec<(&str, &str)> = names.iter().map(String::as_str).zip(values).collect();
    let crossed = client.submit(&address, form.clone(), &[&typed[..], &[("low_4", "30")]].concat());
    assert_eq!(crossed.status, 422);
    assert!(crossed.body.contains("The low is above the high."), "{}", crossed.brief());
    assert_eq!(crossed.field("high_7"), "22", "what was typed stays");
    let saved = client.submit(&address, form, &typed);
    assert_eq!(saved.location(), format!("{place}/weather"), "{}", saved.brief());
    // Typed again, it stands as it was typed, with what follows from it.
    let again = client.get(&address);
    assert_eq!((again.field("high_1"), again.field("low_12")), ("22".into(), "10".into()));
    assert!(client.get(&format!("{place}/weather")).body.contains("from entered highs and lows"));
    let stations = format!("{controller}/stations");
    let form = client.get(&stations).form(&stations);
    client.submit(&stations, form, &[("s1_name", "Lawn")]);
    let year = client.get(&format!("{controller}/year"));
    assert!(year.body.contains("from entered highs and lows"), "{}", year.brief());
    client.undo(&address);
    client.undo(&address);
    assert!(!client.get(&format!("{place}/weather")).body.contains("from entered highs and lows"));
}
