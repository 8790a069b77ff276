//! A company with many places: lists are short, found in, and walked through.

use std::process::Command;

use upland_journeys::{PASSWORD, Server};

use crate::client::{Client, binary};

const EMAIL: &str = "una@wethering.example";

async fn large() -> (Server, Client) {
    let server = Server::start(binary()).await;
    let made = Command::new(binary())
        .args(["demo", "--large", "--places", "60", "--changes", "0", "--database-url", &server.database_url])
        .output()
        .unwrap();
    assert!(made.status.success(), "{}", String::from_utf8_lossy(&made.stderr));
    let client = Client::new(&server);
    assert_ne!(client.sign_in(EMAIL, PASSWORD).status, 303, "its password is that of the demo");
    assert_eq!(client.sign_in(EMAIL, "upland-demo").status, 303);
    (server, client)
}

#[tokio::test(flavor = "multi_thread")]
async fn three_hundred_controllers_stay_readable() {
    let (_server, client) = large().await;
    for path in ["/", "/places", "/rounds", "/replay", "/weather"] {
        let page = client.get(path);
        assert!(page.status == 200 && page.body.len() < 150_000, "{path}: {} bytes", page.body.len());
    }
    let places = client.get("/places");
    assert!(places.body.contains("1 to 50 of 60"), "{}", places.brief());
    let rest = client.get("/places?q=&page=2");
    assert!(rest.body.contains("51 to 60 of 60"), "{}", rest.brief());
    let found = client.get("/places?q=KESTLE");
    assert!(found.body.contains("Kestle Park") && !found.body.contains("Sandrow"), "{}", found.brief());
    let nothing = client.get("/places?q=%25%00%27%3B--");
    assert!(nothing.status == 200 && nothing.body.contains("Nothing is called that"), "{}", nothing.brief());
    // A page beyond the end leads back.
    let beyond = client.get("/rounds?page=99");
    assert!(beyond.body.contains("rel=\"prev\""), "{}", beyond.brief());
    let kind = client.get("/?kind=sensor");
    assert!(kind.body.contains("Sensor care") && !kind.body.contains("needs weather"), "{}", kind.brief());
}

/// What Today counts of a controller follows when it is changed, though it was worked out already.
#[tokio::test(flavor = "multi_thread")]
async fn todays_jobs_follow_a_change() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let controller = client.make_controller(&place, "Cabinet");
    assert!(client.get("/").body.contains("Cabinet needs stations"));
    let temporary = format!("{controller}/temporary");
    let off = [("kind", "off"), ("reason", "new lawn"), ("since", "2026-06-01"), ("until", "2026-06-10")];
    assert_eq!(client.submit(&temporary, client.get(&temporary).form(&temporary), &off).status, 303);
    assert!(client.get("/").body.contains("Ended 10 June (new lawn)"));
    client.undo("/");
    assert!(!client.get("/").body.contains("Ended 10 June"));
}
