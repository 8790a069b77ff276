//! Schedules side by side: what a card shows is what its button saves.

use upland_journeys::Server;

use crate::client::{Client, binary};

#[tokio::test(flavor = "multi_thread")]
async fn the_schedule_of_a_card_is_the_one_that_is_saved() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let week = format!("{controller}/week");
    let change = format!("{week}/change");
    assert!(client.get(&week).body.contains(&format!("{week}/proposals")), "the Week leads there");

    let address = format!("{week}/proposals?grouping=by_need");
    let page = client.get(&address);
    assert_eq!(page.status, 200);
    // Weekdays and every so many days, each in the morning and the evening; odd and even dates in the morning.
    let forms = page.forms(&change);
    assert_eq!(forms.len(), 6, "{}", page.brief());
    // The file has no weather by the day: the costs are those of the normals.
    assert!(page.body.contains("by the normals of the month"), "{}", page.brief());
    let of = |days: &str, time: &str| {
        let wanted = [("days", days), ("time", time)];
        let holds = |form: &&Vec<(String, String)>| {
            wanted.iter().all(|(k, v)| form.iter().any(|(name, value)| name == k && value == v))
        };
        forms.iter().find(holds).unwrap_or_else(|| panic!("{days}, {time}")).clone()
    };
    let evening = client.submit(&change, of("weekdays", "evening"), &[]);
    assert_eq!(evening.status, 303, "{}", evening.brief());
    let card = page.body.split("<li class=\"panel").find(|card| card.contains("Weekdays, evening")).unwrap();
    let starts: Vec<&str> = card.split("<td class=\"tl wrap\">").skip(1).filter_map(|c| c.split('<').next()).collect();
    assert!(!starts.is_empty());
    let saved = client.get(&week).body;
    for line in &starts {
        let time = line.rsplit(", ").next().unwrap();
        assert!(saved.contains(time), "{line} is in the week");
        let hour: u8 = time.split(':').next().unwrap().parse().unwrap();
        assert!((17..23).contains(&hour), "{line}");
    }
    // Made on the version before.
    assert_eq!(client.submit(&change, of("odd", "morning"), &[]).status, 409);
    client.undo(&week);
}

#[tokio::test(flavor = "multi_thread")]
async fn without_stations_there_is_nothing_to_compare() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let controller = client.make_controller(&place, "Cabinet");
    let page = client.get(&format!("{controller}/week/proposals"));
    assert_eq!(page.status, 200);
    assert!(page.body.contains("There are no stations to schedule yet."), "{}", page.brief());
}
