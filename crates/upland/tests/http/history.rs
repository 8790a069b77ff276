//! The history of a controller as a logbook: old value, new value, who; and out as CSV.

use upland_journeys::Server;

use crate::client::{Client, binary};

#[tokio::test(flavor = "multi_thread")]
async fn old_and_new_values_are_told_on_the_page_and_in_the_file() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let stations = format!("{controller}/stations");
    let form = client.get(&stations).form(&stations);
    let saved = client.submit(&stations, form, &[("s1_rate_mm_h", "14.5"), ("s1_name", "Lawn, \"great\"")]);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let log = client.get(&format!("{controller}/log"));
    assert!(log.body.contains("Station 1, Rate: none → 14.5\u{a0}mm/h"), "{}", log.brief());
    let file = client.get(&format!("{controller}/log.csv"));
    assert_eq!(file.header("content-type"), "text/csv; charset=utf-8");
    let mut lines = file.body.lines();
    assert_eq!(lines.next(), Some("at,who,what,item,old,new"));
    // What needs quoting is quoted; times are those of the place.
    let named = lines.clone().find(|l| l.contains("great")).unwrap_or_else(|| panic!("{}", file.body));
    assert!(named.contains("\"Lawn, \"\"great\"\"\"") && named.contains(",Oda,"), "{named}");
    assert!(named.contains("-08:00,") || named.contains("-07:00,"), "{named}");
    assert!(lines.any(|l| l.contains("\"Station 1, Rate\",,14.5")), "{}", file.body);
}
