//! Plantings that were used to too much water, and new ones that grow in.

use upland_journeys::Server;

use crate::client::{Client, binary};

#[tokio::test(flavor = "multi_thread")]
async fn a_planting_is_weaned_week_by_week_and_the_plan_ends_by_itself() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let temporary = format!("{controller}/temporary");
    let typed = [
        ("kind", "weaning"),
        ("program", "A"),
        ("extra", "50"),
        ("step", "20"),
        ("since", "2026-06-08"),
        ("reason", "was on the old clock"),
    ];
    let form = || client.get(&temporary).form(&temporary);
    let bad = client.submit(&temporary, form(), &[&typed[..], &[("step", "60")]].concat());
    assert_eq!(bad.status, 422);
    assert!(bad.body.contains("Enter a whole number from 1 to 50."), "{}", bad.brief());
    assert_eq!(bad.field("extra"), "50", "what was typed stays");
    let set = client.submit(&temporary, form(), &typed);
    assert_eq!(set.status, 303, "{}", set.brief());
    let page = client.get(&temporary);
    // Three weeks: 50, 30 and 10 % more than the month's percent.
    assert!(page.body.contains("+50\u{a0}%, +30\u{a0}%, +10\u{a0}%"), "{}", page.brief());
    assert!(page.body.contains("28 Jun") || page.body.contains("Jun 28"), "{}", page.brief());
}

/// A new planting waters every day at starts of its own; its week, its card and its end say so.
#[tokio::test(flavor = "multi_thread")]
async fn a_planting_grows_in_at_starts_of_its_own_and_is_to_be_put_back() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let temporary = format!("{controller}/temporary");
    let entered = [
        ("kind", "grow_in"),
        ("program", "A"),
        ("percent", "30"),
        ("starts", "3"),
        ("from", "06:00"),
        ("to", "8:00 am"),
        ("since", "2026-06-11"),
        ("until", "2026-06-24"),
        ("reason", "new turf on the reading lawn"),
    ];
    for (field, value, said) in [
        ("program", "", "Choose the program of the new planting"),
        ("starts", "99", "This panel has 1 to"),
        ("to", "05:00", "The last start comes before the first one"),
        ("from", "26:00", "Enter a time, such as 10:00"),
    ] {
        let mut wrong = entered.to_vec();
        wrong.push((field, value));
        let refused = client.submit(&temporary, client.get(&temporary).form(&temporary), &wrong);
        assert_eq!(refused.status, 422, "{field}: {}", refused.brief());
        assert!(refused.body.contains(said), "{said}: {}", refused.brief());
    }
    let saved = client.submit(&temporary, client.get(&temporary).form(&temporary), &entered);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let page = client.get(&temporary);
    assert!(page.body.contains("program A grows in: every day at 06:00, 07:00, 08:00, 30"), "{}", page.brief());
    let week = client.get(&format!("{controller}/week")).body;
    assert!(["A 06:00", "A 07:00", "A 08:00"].iter().all(|start| week.contains(start)), "{week}");
    // Its end is in the year ahead, with the usual start that comes back.
    let ahead = client.get("/ahead");
    assert!(ahead.body.contains("Thu 25"), "{}", ahead.brief());
}
