//! A whole place as a file, out and in.

use upland_formats::site::SITE_BYTES;
use upland_journeys::Server;

use crate::client::{Client, binary, site_example};

#[tokio::test(flavor = "multi_thread")]
async fn what_is_taken_in_is_given_out_the_same() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    let out = client.get(&format!("{place}/site.json"));
    assert_eq!(out.header("content-type"), "application/json");
    assert_eq!(out.body, String::from_utf8(site_example("library-terraces")).unwrap());
    let runs = client.get(&format!("{controller}/runs.ics"));
    assert!(runs.header("content-type").starts_with("text/calendar"));
    assert!(runs.body.starts_with("BEGIN:VCALENDAR") && runs.body.contains("BEGIN:VEVENT"));
    // One action: taken back as a whole.
    let page = client.get("/places");
    client.post("/undo", &[("token", &page.field("token")), ("action", &page.field("action")), ("back", "/places")]);
    assert!(!client.get("/places").body.contains("Averstane Library Terraces"));
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_counts_before_it_is_taken_in() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let token = client.get("/places/import").field("token");
    let sent = client.send_file("/places/import", &token, "cemetery.json", &site_example("hill-cemetery"));
    let preview = client.get(sent.location());
    for what in ["Grevane Hill Cemetery", "Upper gate", "Chapel wall", "cemetery.json", "no watering 10:00 to 18:00"] {
        assert!(preview.body.contains(what), "{what}: {}", preview.brief());
    }
    assert!(!client.get("/places").body.contains("Grevane"));
    // Another company does not see the file.
    server.add_user("Pellor Gardens", "Una", "una@example.com");
    assert_eq!(Client::signed_in(&server, "una@example.com").get(sent.location()).status, 404);
}

#[tokio::test(flavor = "multi_thread")]
async fn files_that_are_no_site_are_refused_with_their_reason_and_store_nothing() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let token = client.get("/places/import").field("token");
    let sound = String::from_utf8(site_example("glasshouse")).unwrap();
    let million = vec![b' '; SITE_BYTES + 10];
    let cases: [(&str, Vec<u8>, &str); 6] = [
        (
            "another version",
            sound.replacen("\"version\": 2", "\"version\": 9", 1).into_bytes(),
            "version 9 is not known",
        ),
        ("truncated", sound.as_bytes()[..sound.len() / 2].to_vec(), "line "),
        ("unknown field", sound.replacen("\"house_number\"", "\"street\"", 1).into_bytes(), "street"),
        ("a million stations", million, "more than 4 MB"),
        ("no text", vec![0xff, 0xfe, 0x00], "line 1"),
        ("a bad start", sound.replacen("\"06:52\"", "\"25:00\"", 1).into_bytes(), "controllers[0]"),
    ];
    for (what, bytes, says) in cases {
        let answer = client.send_file("/places/import", &token, "x.json", &bytes);
        assert_eq!(answer.status, 422, "{what}");
        assert!(answer.body.contains(says), "{what}: {}", answer.brief());
    }
    assert!(client.get("/places").body.contains("No place yet") || !client.get("/places").body.contains("Minna"));
}
