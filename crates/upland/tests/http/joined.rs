//! Weather files that are no table of days: a logger's hours, a typical year.

use std::io::Write as _;
use std::process::{Command, Stdio};

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

/// A year of a logger's hours.
fn logger() -> String {
    let mut text = String::from("Logger,00123\nDate,Time,Air temp (°F),RH (%),Rain (in),Wind speed (mph)\n");
    for day in 0..365 {
        let date = chrono::NaiveDate::from_ymd_opt(2025, 1, 1).unwrap() + chrono::TimeDelta::days(day);
        for hour in 1..=24 {
            let rain = if hour == 6 { "0.1" } else { "0" };
            let wind = if hour > 12 { 8 } else { 2 };
            text.push_str(&format!("{},{hour:02}:00,{},60,{rain},{wind}\n", date.format("%m/%d/%Y"), 49 + hour));
        }
    }
    text
}

/// The address of the record that a logger's year was imported to.
fn import_logger(client: &Client, place: &str) -> String {
    let (address, page) = client.look_at_weather(place, "logger.csv", logger().as_bytes());
    let ready = client.submit(&address, page.form(&address), &[("unit_0", "mdy")]);
    let taken = client.submit(&format!("{address}/import"), ready.form(&address), &[]);
    assert_eq!(taken.location(), format!("{place}/weather"), "{}", taken.brief());
    client.get("/weather").link("/weather/", "")
}

/// Reference ET of a day by the command line, from an hourly file: the sum of its hours.
fn by_command_line(hours: &str, date: &str) -> f64 {
    let place = ["--latitude", "47.5", "--longitude", "-122.2", "--elevation", "210"];
    let mut child = Command::new(binary())
        .args(["et0", "--timestep", "hourly"])
        .args(place)
        .arg("-")
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .unwrap();
    // Written beside the reading: a year is longer than a pipe.
    let mut input = child.stdin.take().unwrap();
    let bytes = hours.as_bytes().to_vec();
    let writing = std::thread::spawn(move || input.write_all(&bytes).unwrap());
    let text = String::from_utf8(child.wait_with_output().unwrap().stdout).unwrap();
    writing.join().unwrap();
    let of_day = text.lines().filter(|line| line.starts_with(date));
    let mm: Vec<f64> = of_day.map(|line| line.split(',').nth(1).unwrap().parse().unwrap()).collect();
    assert_eq!(mm.len(), 24, "{text}");
    mm.iter().sum()
}

#[tokio::test(flavor = "multi_thread")]
async fn hours_are_kept_and_their_sum_is_the_reference_et_of_the_day() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let record = import_logger(&client, &place);
    let day = client.get(&format!("{record}/hours?day=2025-07-15"));
    assert!(day.body.contains("The sum of the hours counts") && day.body.contains("23:00"), "{}", day.brief());
    let hours = client.get(&format!("{record}/hours.csv"));
    let figure = |page: &crate::client::Answer| -> f64 {
        let (_, after) = page.body.split_once("<b class=\"demand-t\">").unwrap();
        after.split('<').next().unwrap().parse().unwrap()
    };
    assert!((figure(&day) - by_command_line(&hours.body, "2025-07-15")).abs() < 0.006, "{}", figure(&day));
    // The same hours again bring nothing.
    let (_, again) = client.look_at_weather(&place, "again.csv", hours.body.as_bytes());
    assert!(again.body.contains("All days of this file are on record already"), "{}", again.brief());
    // A high that was wrong is in the hours too: the day counts by itself until that is undone.
    let form = client.get(&record).form(&format!("{record}/station"));
    let version = form.iter().find(|(name, _)| name == "version").unwrap().1.clone();
    let decide = [
        ("version", version.as_str()),
        ("element", "tmax_c"),
        ("from", "2025-07-15"),
        ("to", "2025-07-15"),
        ("verdict", "correct"),
        ("value", "30"),
        ("reason", "shaded since noon"),
    ];
    let decided = client.submit(&format!("{record}/decide"), form, &decide);
    assert_eq!(decided.location(), record, "{}", decided.brief());
    let by_day = client.get(&format!("{record}/hours?day=2025-07-15"));
    assert!(by_day.body.contains("a value of this day was excluded or corrected"), "{}", by_day.brief());
    assert!((figure(&by_day) - figure(&day)).abs() > 0.05, "{} and {}", figure(&by_day), figure(&day));
    let other = client.get(&format!("{record}/hours?day=2025-07-16"));
    assert!(other.body.contains("The sum of the hours counts"), "{}", other.brief());
}

/// A logger that writes UTC and does not say so: here its noon is at five in the morning.
#[tokio::test(flavor = "multi_thread")]
async fn hours_of_another_clock_are_doubted() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let file = |shift: u32| {
        let mut text = String::from("Time,Temp (C),RH (%),Wind (m/s),Solar (W/m2)\n");
        for day in 1..=28 {
            for hour in 0..24 {
                let sun = if (7..=18).contains(&((hour + 24 - shift) % 24)) { 300 } else { 0 };
                text.push_str(&format!("2026-06-{day:02} {hour:02}:00,20,50,2,{sun}\n"));
            }
        }
        text
    };
    let (_, own) = client.look_at_weather(&place, "own.csv", file(0).as_bytes());
    assert!(own.body.contains("Hours") && !own.body.contains("shines at night"), "{}", own.brief());
    let (_, utc) = client.look_at_weather(&place, "utc.csv", file(7).as_bytes());
    assert!(utc.body.contains("the sun shines at night on 28 days"), "{}", utc.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_record_without_hours_has_no_page_of_them() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let mut days = String::from("date,tmax_c,tmin_c\n");
    for day in 0..365 {
        let date = chrono::NaiveDate::from_ymd_opt(2025, 1, 1).unwrap() + chrono::TimeDelta::days(day);
        days.push_str(&format!("{date},20,10\n"));
    }
    let (address, page) = client.look_at_weather(&place, "days.csv", days.as_bytes());
    client.submit(&format!("{address}/import"), page.form(&address), &[]);
    let record = client.get("/weather").link("/weather/", "");
    for address in ["hours", "hours.csv"] {
        assert_eq!(client.get(&format!("{record}/{address}")).status, 404);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_loggers_hours_become_days_in_its_own_units() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let (address, page) = client.look_at_weather(&place, "logger.csv", logger().as_bytes());
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
