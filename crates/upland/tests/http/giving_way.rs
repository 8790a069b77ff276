//! Entered normals that give way to the months measured since.

use chrono::{Days, NaiveDate};
use upland_journeys::Server;

use crate::client::{Answer, Client, binary};

/// Two whole months and half of a third, of a logger at the place: warmer than was entered.
fn logger() -> String {
    let first = NaiveDate::from_ymd_opt(2026, 6, 1).unwrap();
    let rows = (0..76).map(|day| format!("{},36,16,1.0\n", first + Days::new(day)));
    "date,tmax_c,tmin_c,rain_mm\n".to_owned() + &rows.collect::<String>()
}

/// The figures of a line of the table of normals.
fn months(page: &Answer, name: &str) -> Vec<f64> {
    let line = page.body.split(&format!("<th scope=\"row\">{name}</th>")).nth(1);
    let line = line.unwrap_or_else(|| panic!("no {name} in {}", page.brief()));
    let cells = line.split("</tr>").next().unwrap().split("<td").skip(1).take(12);
    cells.map(|cell| cell.split(['>', '<']).nth(1).unwrap().parse().unwrap_or(f64::NAN)).collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn entered_normals_give_way_to_the_months_of_a_logger() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Glasshouse");
    let normals = format!("{place}/weather/normals");
    let typed: Vec<(String, String)> = (1..=12).map(|m| (format!("et0_{m}"), "3.0".to_owned())).collect();
    let typed: Vec<(&str, &str)> = typed.iter().map(|(a, b)| (a.as_str(), b.as_str())).collect();
    assert_eq!(client.submit(&normals, client.get(&normals).form(&normals), &typed).status, 303);

    // The file measures months of the place's own normals: it is offered to them, and says what they then do.
    let (address, page) = client.look_at_weather(&place, "logger.csv", logger().as_bytes());
    assert!(page.body.contains("selected>measured months of Normals for Glasshouse"), "{}", page.brief());
    assert!(page.body.contains("each one counts 1/3, and after 3 years nothing else"), "{}", page.brief());
    let taken = client.submit(&format!("{address}/import"), page.form(&address), &[]);
    assert_eq!(taken.status, 303, "{}", taken.brief());

    let series = client.get("/weather").link("/weather/", "");
    let record = client.get(&series);
    let [counts, entered, measured] = ["ET₀", "ET₀ entered", "ET₀ measured"].map(|name| months(&record, name));
    for (month, days) in [(5, 30.0), (6, 31.0)] {
        assert!((entered[month] - 3.0 * days).abs() < 0.5, "{entered:?}");
        assert!(measured[month] > 150.0, "{measured:?}");
        let third = entered[month] + (measured[month] - entered[month]) / 3.0;
        assert!((counts[month] - third).abs() <= 1.0, "{counts:?} {third}");
    }
    // August was not measured to its end, January not at all.
    assert_eq!((counts[7], counts[0]), (entered[7], entered[0]));
    assert!(measured[7].is_nan() && measured[0].is_nan());
    // What was entered is there to be changed as it was, and giving way goes on from it.
    let form = client.get(&normals).form(&normals);
    assert_eq!(form.iter().find(|(name, _)| name == "et0_6").unwrap().1, "3");
    assert_eq!(client.submit(&normals, form, &[("et0_6", "4.5")]).status, 303);
    assert!(months(&client.get(&series), "ET₀")[5] > counts[5] + 20.0);

    client.undo(&series);
    client.undo(&series);
    let back = client.get(&series);
    assert!(!back.body.contains("ET₀ measured"), "{}", back.brief());
    assert_eq!(months(&back, "ET₀"), entered);
}

/// A guess from a climate in words gives way at once.
#[tokio::test(flavor = "multi_thread")]
async fn a_guess_gives_way_to_the_first_month_measured() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Orchard");
    let normals = format!("{place}/weather/normals");
    let page = client.get(&format!("{normals}?by=climate"));
    let words = [("air", "arid"), ("summer", "moderate"), ("winter", "cool")];
    let saved = client.submit(&normals, page.form(&normals), &words);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let (address, page) = client.look_at_weather(&place, "logger.csv", logger().as_bytes());
    assert!(page.body.contains("as soon as it is measured from end to end"), "{}", page.brief());
    assert_eq!(client.submit(&format!("{address}/import"), page.form(&address), &[]).status, 303);
    let record = client.get(&client.get("/weather").link("/weather/", ""));
    let (counts, measured) = (months(&record, "ET₀"), months(&record, "ET₀ measured"));
    assert_eq!((counts[5], counts[6]), (measured[5], measured[6]));
    assert!(counts[7] < measured[6], "August is the guess still");
}
