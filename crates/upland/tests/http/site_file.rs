//! A whole place as a file, out and in.

use serde_json::{Value, json};
use upland_formats::site::{SITE_BYTES, read_site};
use upland_journeys::Server;

use crate::client::{Client, binary, site_example};

#[tokio::test(flavor = "multi_thread")]
async fn what_is_imported_is_exported_the_same() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    let out = client.get(&format!("{place}/site.json"));
    assert_eq!(out.header("content-type"), "application/json");
    let (sent, back) = (read_site(&site_example("library-terraces")), read_site(out.body.as_bytes()));
    assert_eq!(back.unwrap(), sent.unwrap());
    let runs = client.get(&format!("{controller}/runs.ics"));
    assert!(runs.header("content-type").starts_with("text/calendar"));
    assert!(runs.body.starts_with("BEGIN:VCALENDAR") && runs.body.contains("BEGIN:VEVENT"));
    // One action: undone as a whole.
    client.undo("/places");
    assert!(!client.get("/places").body.contains("Averstane Library Terraces"));
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_is_saved_before_the_import() {
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
            sound.replacen("\"version\": 4", "\"version\": 9", 1).into_bytes(),
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

/// Changes a site file.
type Change = fn(&mut Value);

/// A site with everything at the limit of what may be stored.
fn at_every_limit() -> Value {
    let mut site: Value = serde_json::from_slice(&site_example("library-terraces")).unwrap();
    let long = "Ü".repeat(60);
    site["place"]["name"] = json!(long);
    site["place"]["house_number"] = json!("14-123456789");
    site["place"]["rules"]["dated"] = json!("1900-01-01");
    site["place"]["rules"]["ban"] = json!({"from": "1900-01-01", "to": "2200-12-31"});
    let controller = &mut site["controllers"][0];
    controller["name"] = json!(long);
    controller["capability"]["stations"] = json!(48);
    controller["capability"]["sensor_inputs"] = json!(16);
    let station = controller["stations"][0].clone();
    let stations = (1..=48).map(|n| {
        let mut station = station.clone();
        station["number"] = json!(n);
        station["name"] = json!(long);
        station["program"] = json!(["A", "B", "C"][n % 3]);
        station["area_m2"] = json!(200_000);
        station
    });
    controller["stations"] = stations.collect();
    let sensor = controller["sensors"][0].clone();
    let sensors = (1..=16).map(|n| {
        let mut sensor = sensor.clone();
        sensor["id"] = json!(n);
        sensor["input"] = json!(n);
        sensor["place"] = json!(long);
        sensor["battery_on"] = json!("2200-12-31");
        sensor
    });
    controller["sensors"] = sensors.collect();
    let temporary = |n| {
        json!({"id": n, "kind": "bypass", "sensor": 1 + n % 16, "since": "2199-12-31",
               "until": "2200-12-31", "reason": "Ü".repeat(200), "by": "Oda"})
    };
    controller["temporaries"] = (1..=64).map(temporary).collect();
    site["as_found"][0]["controller"] = json!(long);
    site["as_found"][0]["panel"]["note"] = json!("two lines\n".repeat(50));
    site["as_found"][0]["panel"]["clock_date"] = json!("2200-12-31");
    site
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_valid_is_stored_and_shown_on_every_page() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let bytes = serde_json::to_vec(&at_every_limit()).unwrap();
    let token = client.get("/places/import").field("token");
    let sent = client.send_file("/places/import", &token, "limits.json", &bytes);
    assert_eq!(sent.status, 303, "{}", sent.brief());
    let preview = client.get(sent.location());
    let place = client.submit(sent.location(), preview.form(sent.location()), &[]);
    assert_eq!(place.status, 303, "{}", place.brief());
    let place = place.location().to_owned();
    let out = client.get(&format!("{place}/site.json"));
    assert_eq!(read_site(out.body.as_bytes()).unwrap(), read_site(&bytes).unwrap());
    let places = client.get("/places");
    let year = places.link("/controllers/", "/year");
    let controller = year.strip_suffix("/year").unwrap();
    let steps = [
        "",
        "/stations",
        "/year",
        "/week",
        "/as-found",
        "/sensors",
        "/temporary",
        "/dial-in",
        "/round",
        "/why",
        "/log",
        "/door-card",
        "/runs.ics",
    ];
    let pages = steps.map(|step| format!("{controller}{step}"));
    let others = ["/", "/places", "/rounds", "/weather"].map(str::to_owned);
    let of_place = ["", "/rules", "/weather"].map(|step| format!("{place}{step}"));
    for page in pages.iter().chain(&others).chain(&of_place) {
        let answer = client.get(page);
        assert_eq!(answer.status, 200, "{page}: {}", answer.brief());
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn one_more_than_a_limit_is_refused_before_anything_is_stored() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let token = client.get("/places/import").field("token");
    let over: [(&str, Change); 9] = [
        ("a name of 61 characters", |s| s["place"]["name"] = json!("x".repeat(61))),
        ("a name with NUL", |s| s["controllers"][0]["stations"][0]["name"] = json!("a\u{0}b")),
        ("17 sensors", |s| {
            let sensors = s["controllers"][0]["sensors"].as_array_mut().unwrap();
            let mut more = sensors[0].clone();
            more["id"] = json!(17);
            sensors.push(more);
        }),
        ("65 temporary settings", |s| {
            let settings = s["controllers"][0]["temporaries"].as_array_mut().unwrap();
            let mut more = settings[0].clone();
            more["id"] = json!(65);
            settings.push(more);
        }),
        ("two sensors of one id", |s| s["controllers"][0]["sensors"][1]["id"] = json!(1)),
        ("a battery of 2201", |s| s["controllers"][0]["sensors"][0]["battery_on"] = json!("2201-01-01")),
        ("a panel seen in the year 262142", |s| {
            s["as_found"][0]["panel"]["seen_at"] = json!("+262142-01-01T00:00:00");
        }),
        ("a ban from 1899", |s| s["place"]["rules"]["ban"]["from"] = json!("1899-12-31")),
        ("a house number of 13 characters", |s| s["place"]["house_number"] = json!("1234567890123")),
    ];
    for (what, change) in over {
        let mut site = at_every_limit();
        change(&mut site);
        let bytes = serde_json::to_vec(&site).unwrap();
        let answer = client.send_file("/places/import", &token, "over.json", &bytes);
        assert_eq!(answer.status, 422, "{what}: {}", answer.brief());
    }
    assert!(client.get("/places").body.contains("No place yet"));
}

#[tokio::test(flavor = "multi_thread")]
async fn the_address_of_a_form_leads_to_its_page() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    for (form, page) in [("/year/month", "/year"), ("/week/change", "/week"), ("/temporary/put-back", "/temporary")] {
        let answer = client.get(&format!("{controller}{form}"));
        assert_eq!((answer.status, answer.location()), (303, format!("{controller}{page}").as_str()), "{form}");
    }
    assert_eq!(client.get("/undo").location(), "/");
}
