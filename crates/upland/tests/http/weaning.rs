//! A planting that was used to too much water.

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
