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
    // Weekdays and every so many days, each in the morning, the evening and both, where both is another schedule;
    // odd and even dates in the morning.
    let forms = page.forms(&change);
    assert!((6..=8).contains(&forms.len()), "{}", page.brief());
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

/// A program that is pinned keeps its days and starts in every card and in what is saved.
#[tokio::test(flavor = "multi_thread")]
async fn what_is_left_as_it_is_stays_in_every_card_and_in_what_is_saved() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let week = format!("{controller}/week");
    let change = format!("{week}/change");
    let page = client.get(&format!("{week}/proposals?grouping=keep&pin_A=1"));
    assert!(page.body.contains("name=\"pin_A\" value=\"1\" checked"), "{}", page.brief());
    let rows = |card: &str| -> Vec<String> {
        card.split("<td class=\"tl wrap\">").skip(1).map(|row| row.split('<').next().unwrap().to_owned()).collect()
    };
    let cards: Vec<Vec<String>> = page.body.split("<li class=\"panel").skip(1).map(rows).collect();
    assert!(cards.len() > 2, "{}", page.brief());
    assert!(cards.iter().all(|rows| rows[0] == cards[0][0]), "{cards:?}");
    let form = page.forms(&change).remove(1);
    assert!(form.iter().any(|(name, value)| name == "pin_A" && value == "1"), "{form:?}");
    assert_eq!(client.submit(&change, form, &[]).status, 303);
    let again = client.get(&format!("{week}/proposals?grouping=keep&pin_A=1"));
    assert!(again.body.contains(&cards[0][0]), "{}", again.brief());
}

/// Where nothing fits, what would help is said, each with what it leaves.
#[tokio::test(flavor = "multi_thread")]
async fn what_would_help_is_said_where_nothing_fits() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    let proposals = format!("{controller}/week/proposals?grouping=keep");
    assert!(!client.get(&proposals).body.contains("What would help"), "it fits");
    let rules = format!("{place}/rules");
    let form = client.get(&rules).form(&rules);
    let saved =
        client.submit(&rules, form, &[("h0from", "00:00"), ("h0to", "04:00"), ("h1from", "05:00"), ("h1to", "23:00")]);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let page = client.get(&proposals);
    assert!(page.body.contains("What would help"), "{}", page.brief());
    assert!(page.body.contains("Watering until"), "{}", page.brief());
    assert!(page.body.contains("Ask the authority"), "{}", page.brief());
}
