//! Impossible values: a message at the right place, nothing stored, nothing typed lost.

use upland_journeys::Server;

use crate::client::{Client, binary};

#[tokio::test(flavor = "multi_thread")]
async fn an_impossible_place() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let form = client.get("/places/new").form("/places");
    let answer = client.submit(
        "/places",
        form,
        &[
            ("name", "Too far"),
            ("latitude", "95"),
            ("longitude", "eight"),
            ("elevation", "9000"),
            ("time_zone", "Moon/Base"),
        ],
    );
    assert_eq!(answer.status, 422);
    for said in [
        "latitude-error",
        "longitude-error",
        "elevation-error",
        "time_zone-error",
        "\u{2212}90 to 90",
        "“eight” is not a number",
    ] {
        assert!(answer.body.contains(said), "{said}: {}", answer.brief());
    }
    assert_eq!((answer.field("latitude").as_str(), answer.field("longitude").as_str()), ("95", "eight"));
    assert!(client.get("/places").body.contains("No place yet"));
}

#[tokio::test(flavor = "multi_thread")]
async fn an_impossible_controller() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let post_to = format!("{place}/controllers");
    let form = client.get(&format!("{place}/controllers/new")).form(&post_to);
    for (field, value, said) in [
        ("stations", "0", "Enter 1 to 48"),
        ("stations", "49", "Enter 1 to 48"),
        ("percent_max", "90", "must include 100"),
        ("percent_min", "250", "must be above the lowest"),
        ("percent_step", "0", "Enter 1 to 50"),
        ("watering_days", "8", "Enter 1 to 7"),
        ("run_max", "0", "Enter 1 to 1440"),
        ("storage", "in a drawer", "Choose from the list"),
    ] {
        let answer = client.submit(&post_to, form.clone(), &[("name", "Cabinet"), (field, value)]);
        assert_eq!(answer.status, 422, "{field}={value}");
        assert!(answer.body.contains(said), "{field}={value}: {}", answer.brief());
    }
    assert!(!client.get("/places").body.contains("Cabinet"));
}

#[tokio::test(flavor = "multi_thread")]
async fn an_impossible_cell_bars_the_worksheet_and_keeps_what_was_typed() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let controller = client.make_controller(&client.make_place("Library"), "Cabinet");
    let address = format!("{controller}/stations");
    let form = client.get(&address).form(&address);
    let answer = client.submit(
        &address,
        form,
        &[("s1_name", "Lawn"), ("s1_rate_mm_h", "0.84"), ("s2_name", "Bed"), ("s2_area_m2", "big")],
    );
    assert_eq!(answer.status, 422);
    assert!(answer.body.contains("Rate: Enter 1 to 150 mm/h"), "{}", answer.brief());
    assert!(answer.body.contains("Area: “big” is not a number"), "{}", answer.brief());
    assert_eq!((answer.field("s1_rate_mm_h").as_str(), answer.field("s2_name").as_str()), ("0.84", "Bed"));
    assert_eq!(client.get(&address).field("s1_name"), "", "nothing was saved");
}

#[tokio::test(flavor = "multi_thread")]
async fn three_hundred_percent_on_a_panel_that_ends_at_two_hundred() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let link = client.get("/").link("/controllers/", "");
    let year = link.split('?').next().unwrap().to_owned();
    let post_to = format!("{year}/month");
    let page = client.get(&year);
    let form = page.form(&post_to);
    for percent in ["300", "95.5", "-10", "many", ""] {
        let answer = client.submit(&post_to, form.clone(), &[("percent", percent), ("do", "set")]);
        assert_eq!(answer.status, 422, "{percent}");
        assert!(answer.body.contains("or 0 for off"), "{percent}");
        assert_eq!(answer.field("percent"), percent);
    }
    assert_eq!(client.submit(&post_to, form, &[("percent", "200"), ("do", "set")]).status, 303);
}

#[tokio::test(flavor = "multi_thread")]
async fn nonsense_addresses_and_bodies_give_a_designed_page() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    for path in
        ["/nowhere", "/places/nonsense", "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/year", "/weather/%00"]
    {
        let answer = client.get(path);
        assert!((400..500).contains(&answer.status), "{path}: {}", answer.status);
        assert!(answer.body.contains("Upland Almanac"), "{path}: {}", answer.brief());
    }
    let long = "x".repeat(300 * 1024);
    assert_eq!(client.post("/places", &[("name", &long)]).status, 413);
}

/// Two windows in the hours of the panel's clock; more than it keeps, half a one and a time that is none are refused.
#[tokio::test(flavor = "multi_thread")]
async fn water_windows_are_set_on_a_panel_that_has_them() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let address = controller.clone();
    let form = || client.get(&address).form(&address);
    let typed = [
        ("water_windows", "2"),
        ("window0from", "4:00 am"),
        ("window0to", "09:00"),
        ("window1from", "22:00"),
        ("window1to", "03:30"),
    ];
    for (field, value, at, said) in [
        ("water_windows", "0", "water_windows", "enter how many the panel keeps"),
        ("water_windows", "1", "window0from", "Enter one window, with two different times"),
        ("window1to", "", "window1to", "Enter a time"),
        ("window1to", "25:00", "window1to", "Enter a time"),
        ("window0to", "04:00", "window0from", "two different times"),
    ] {
        let refused = client.submit(&address, form(), &[&typed[..], &[(field, value)]].concat());
        assert_eq!(refused.status, 422, "{field}: {}", refused.brief());
        assert!(refused.body.contains(said), "{said}: {}", refused.brief());
        assert!(refused.body.contains(&format!("id=\"{at}-error\"")), "{at}: {}", refused.brief());
        assert_eq!(refused.field(field), value, "what was typed stays");
    }
    let saved = client.submit(&address, form(), &typed);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let page = client.get(&address);
    assert_eq!((page.field("window0from").as_str(), page.field("window1to").as_str()), ("04:00", "03:30"));
    // The week says when a start lies outside.
    let week = client.get(&format!("{controller}/week")).body;
    assert!(!week.contains("A runs outside"), "04:30 and 22:00 lie inside");
    let late = [("window0from", "05:00"), ("window1from", ""), ("window1to", "")];
    assert_eq!(client.submit(&address, form(), &late).status, 303);
    let week = client.get(&format!("{controller}/week")).body;
    assert!(week.contains("A runs outside of the panel’s water windows from 04:30"), "{week}");
    // It stands on the card; found otherwise on the panel it is a difference.
    let card = client.get(&format!("{controller}/door-card")).body;
    assert!(card.contains("The panel waters only from 05:00–09:00"), "{card}");
    let found = format!("{controller}/as-found");
    let form = client.get(&found).form(&found);
    let panel =
        [("clock_date", "2026-06-11"), ("clock_time", "07:12"), ("window0from", "10:00"), ("window0to", "11:00")];
    let half = client.submit(&found, form.clone(), &[&panel[..], &[("window0to", "")]].concat());
    assert_eq!((half.status, half.field("window0from").as_str()), (422, "10:00"));
    let kept = client.submit(&found, form, &panel);
    assert_eq!(kept.status, 303, "{}", kept.brief());
    let page = client.get(kept.location()).body;
    assert!(page.contains("10:00–11:00") && page.contains("05:00–09:00"), "{page}");
}
