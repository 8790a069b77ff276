//! Views that answer the same question give the same answer.

use upland_journeys::Server;

use crate::client::{Client, binary};

/// What stands after "sunrise ", such as 05:12.
fn sunrise(page: &str) -> &str {
    let (_, after) = page.split_once(">sunrise ").expect("a page that tells the sunrise");
    after.split('<').next().unwrap()
}

#[tokio::test(flavor = "multi_thread")]
async fn today_the_week_and_the_head_of_a_page_tell_the_same_sunrise() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let today = client.get("/");
    // The first controller is at the place whose sun Today shows.
    let controller = today.link("/controllers/", "").split('?').next().unwrap().replace("/year", "");
    let week = client.get(&format!("{controller}/week"));
    let told = sunrise(&today.body);
    assert_eq!(sunrise(&week.body), told);
    assert!(week.body.contains(&format!("<span>{told}</span>")), "the head tells another sunrise than {told}");
}

/// A percent of 70 for a while, and after its end too, as long as nobody puts it back: everybody says 70. Then
/// Off, and everybody says Off.
#[tokio::test(flavor = "multi_thread")]
async fn today_dial_in_week_round_and_why_tell_the_same_state() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let temporary = format!("{controller}/temporary");
    let percent_of_a = |path: &str, form: &str| {
        let page = client.get(path);
        page.form(form).into_iter().find(|(name, _)| matches!(name.as_str(), "pctA" | "pct")).map(|(_, value)| value)
    };
    let round = format!("{controller}/round");
    let planned = percent_of_a(&round, &round).expect("a round shows the percent of A");
    assert_ne!(planned, "70");
    for until in ["2026-06-20", "2026-06-05"] {
        let form = client.get(&temporary).form(&temporary);
        let for_a_while = [
            ("kind", "percent"),
            ("percent", "70"),
            ("program", "A"),
            ("since", "2026-06-01"),
            ("until", until),
            ("reason", "storm"),
        ];
        let set = client.submit(&temporary, form, &for_a_while);
        assert_eq!(set.status, 303, "{}", set.brief());
        assert_eq!(percent_of_a(&round, &round).as_deref(), Some("70"), "round, until {until}");
        let dial = client.get(&format!("{controller}/dial-in"));
        assert!(dial.body.contains("70"), "dial in, until {until}: {}", dial.brief());
        let today = client.get("/");
        assert!(today.body.contains(">70<"), "today, until {until}: {}", today.brief());
        // It stands on the panel; what is over is to be set back to the month's percent.
        let figures = if until < "2026-06-11" { 1 } else { 2 };
        assert_eq!(today.body.matches(">70<").count(), figures, "today, until {until}");
        let week = client.get(&format!("{controller}/week"));
        assert!(week.body.contains("70\u{a0}%"), "week, until {until}: {}", week.brief());
        client.undo("/");
    }
    let form = client.get(&temporary).form(&temporary);
    let off = [("kind", "off"), ("since", "2026-06-01"), ("until", "2026-06-05"), ("reason", "new lawn")];
    assert_eq!(client.submit(&temporary, form, &off).status, 303);
    let today = client.get("/");
    assert!(today.body.contains("was to end 5 June: put it back"), "{}", today.brief());
    let why = client.get(&format!("{controller}/why?station=1&date=2026-06-11"));
    assert!(why.body.contains("The controller was Off since 1 June"), "{}", why.brief());
    assert!(client.get(&format!("{controller}/week")).body.contains("new lawn"));
}

/// What a past day is judged by: what was dialled, found or planned then, not what is planned now.
#[tokio::test(flavor = "multi_thread")]
async fn why_is_judged_by_what_stood_on_the_panel_on_that_day() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    // The upper gate was dialled in eight days ago and waters on Mondays and Thursdays.
    let list = client.get("/rounds?q=Upper%20gate");
    let gate = list.link("/controllers/", "").split('?').next().unwrap().replace("/round", "");
    let why = |date: &str, station: &str| client.get(&format!("{gate}/why?station={station}&date={date}"));
    let now = why("2026-06-11", "all");
    assert!(now.body.contains("Judged by what was dialled in on "), "{}", now.brief());
    // Its start is moved on the plan alone: the panel goes on as it was dialled.
    let change = format!("{gate}/week/change");
    let page = client.get(&format!("{gate}/week"));
    let (token, version) = (page.field("token"), client.get(&gate).field("version"));
    let fields = [("token", token.as_str()), ("version", &version), ("do", "move"), ("program", "A")];
    let moved = [&fields[..], &[("from", "05:00"), ("to", "1260")]].concat();
    assert_eq!(client.post(&change, &moved).status, 303);
    assert!(client.get(&format!("{gate}/week")).body.contains("21:00"));
    let after = why("2026-06-11", "1");
    assert!(after.body.contains("05:00 for") && !after.body.contains("21:00 for"), "{}", after.brief());
    assert!(why("2026-06-10", "1").body.contains("Not a day of A"));
    // Before anything is on record, the answer says so.
    let long_ago = why("2025-06-09", "1");
    assert!(long_ago.body.contains("Judged by the oldest plan on record"), "{}", long_ago.brief());
    assert_eq!(why("2026-06-11", "99").status, 200);
    assert!(client.get(&format!("{gate}/why")).body.contains("First cause"), "it answers at once for today");
}

/// The percent of this week is told from what is in force, not from the month's.
#[tokio::test(flavor = "multi_thread")]
async fn this_weeks_percent_starts_from_what_is_set_for_a_while() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let list = client.get("/rounds?q=Boiler");
    let controller = list.link("/controllers/", "").split('?').next().unwrap().replace("/round", "");
    let temporary = format!("{controller}/temporary");
    let page = client.get(&temporary);
    assert!(page.body.contains("<span class=\"fromto\">90"), "{}", page.brief());
    let typed =
        [("kind", "percent"), ("program", "A"), ("percent", "50"), ("until", "2026-06-15"), ("reason", "wet spring")];
    let set = client.submit(&temporary, page.form(&temporary), &typed);
    assert_eq!(set.status, 303, "{}", set.brief());
    assert!(client.get(&temporary).body.contains("<span class=\"fromto\">50"));
    // Its end lies within a week: Today says what is then to be dialled, and from when.
    let today = client.get("/?kind=soon");
    assert!(today.body.contains("Boiler-room cabinet: to set on 16 Jun"), "{}", today.brief());
    assert!(today.body.contains("Program A, June from 50\u{a0}% to 90\u{a0}%"), "{}", today.brief());
}
