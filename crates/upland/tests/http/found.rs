//! A panel as it was found against the plan: what is kept becomes the plan, what is not is to dial.

use upland_journeys::Server;

use crate::client::{Client, binary};

/// The library with its panel written down as it stands, Reading lawn at 50 min and A at 70 %.
async fn found() -> (Server, Client, String, String) {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let address = format!("{controller}/as-found");
    let form = client.get(&address).form(&address);
    let panel = [
        ("clock_date", "2026-06-11"),
        ("clock_time", "07:12"),
        ("m1", "50"),
        ("startA0", "04:30"),
        ("onA0", "1"),
        ("onA2", "1"),
        ("onA4", "1"),
        ("pctA", "70"),
    ];
    let kept = client.submit(&address, form, &panel);
    assert_eq!(kept.status, 303, "{}", kept.brief());
    let page = kept.location().to_owned();
    (server, client, controller, page)
}

#[tokio::test(flavor = "multi_thread")]
async fn what_the_panel_has_right_becomes_the_plan_and_the_rest_is_to_dial() {
    let (_server, client, controller, page) = found().await;
    let adopt = format!("{controller}/as-found/adopt");
    let form = client.get(&page).form(&adopt);
    let none = client.submit(&adopt, form.clone(), &[]);
    assert_eq!(none.status, 422, "{}", none.brief());
    assert!(none.body.contains("Tick at least one value to keep."), "{}", none.brief());

    let kept = client.submit(&adopt, form.clone(), &[("take", "minutes.1")]);
    assert_eq!((kept.status, kept.location()), (303, format!("{controller}/dial-in?only=changed").as_str()));
    let page_now = client.get(&page);
    assert!(!page_now.body.contains("value=\"minutes.1\""), "it is as planned now");
    assert!(page_now.body.contains("value=\"A.percent.6\""), "{}", page_now.brief());
    // To dial are date and time, and the station that the panel has at nothing; not the one that was kept.
    let dial = client.get(&format!("{controller}/dial-in?only=changed"));
    assert!(dial.body.contains("marks=d.k."), "{}", dial.brief());
    // Made on the version before: somebody was faster, and both sides are shown.
    let stale = client.submit(&adopt, form, &[("take", "A.percent.6"), ("action", "")]);
    assert_eq!(stale.status, 409, "{}", stale.brief());

    client.undo(&page);
    assert!(client.get(&page).body.contains("value=\"minutes.1\""), "undone");
}

#[tokio::test(flavor = "multi_thread")]
async fn what_was_dialled_since_is_not_taken_back_by_an_old_page() {
    let (_server, client, controller, page) = found().await;
    let adopt = format!("{controller}/as-found/adopt");
    let form = client.get(&page).form(&adopt);
    let dial = format!("{controller}/dial-in");
    // The read-back form comes at the end of the slots: every one of them set.
    let marks = "d".repeat(400);
    let last = client.get(&format!("{dial}?marks={marks}"));
    let dialled = client.submit(&dial, last.form(&dial), &[("agrees", "same")]);
    assert_eq!(dialled.status, 303, "{}", dialled.brief());
    assert_eq!(client.submit(&adopt, form, &[("take", "minutes.1")]).status, 404);
    assert!(!client.get(&page).body.contains(&adopt), "the record is only shown");
}

#[tokio::test(flavor = "multi_thread")]
async fn numbered_days_cycles_and_twelve_percents_are_written_down_and_come_back() {
    let (_server, client, controller, _) = found().await;
    let address = format!("{controller}/as-found");
    let form = client.get(&address).form(&address);
    // 11 June 2026 is a Thursday, shown as day 4: day 1 is Monday, day 5 Friday.
    let panel = [
        ("clock_date", "2026-06-11"),
        ("clock_time", "07:12"),
        ("modeA", "numbers"),
        ("numbersA", "1 5"),
        ("startA0", "04:30"),
        ("m1", "50"),
        ("cycle1", "8"),
        ("soak1", "30"),
        ("switch", "held"),
    ];
    let refused = client.submit(&address, form.clone(), &panel);
    assert_eq!(refused.status, 422, "which day is today");
    assert!(refused.body.contains("id=\"clock_number-error\""), "{}", refused.brief());
    let months: Vec<(String, String)> =
        (1..=12).map(|m| (format!("pctA_{m}"), if m < 4 { "off".to_owned() } else { (m * 5).to_string() })).collect();
    let mut all = [&panel[..], &[("clock_number", "4")]].concat();
    all.extend(months.iter().map(|(k, v)| (k.as_str(), v.as_str())));
    let kept = client.submit(&address, form, &all);
    assert_eq!(kept.status, 303, "{}", kept.brief());
    let page = client.get(kept.location());
    for words in ["Mon, Fri", "says off, a sensor holds", "8 min, then 30 min of rest", "value=\"A.percent.5\""] {
        assert!(page.body.contains(words), "{words}: {}", page.brief());
    }
    assert!(!page.body.contains("The controller is off"), "a sensor holds it");
}
