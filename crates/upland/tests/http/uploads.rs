//! Uploaded files that are left before their import, and found again.

use upland_journeys::Server;

use crate::client::{Client, binary, site_example};

const SEATTLE: &[u8] = include_bytes!("../../../../docs/examples/seattle-weather.csv");

/// Columns, units, what was mended and the station stand as they were left, for everybody of the company.
#[tokio::test(flavor = "multi_thread")]
async fn a_weather_file_that_was_left_is_found_again_as_it_was() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let weather = format!("{place}/weather");
    let text = String::from_utf8_lossy(SEATTLE).replace("2012-01-02,10.9,10.6", "2012-01-02,10.9,x");
    let (address, page) = client.look_at_weather(&place, "seattle-weather.csv", text.as_bytes());
    let units = [("unit_1", "mm"), ("unit_2", "c"), ("unit_3", "c"), ("unit_4", "ms")];
    let page = client.submit(&address, page.form(&address), &units);
    assert!(page.body.contains("One line with an error"), "{}", page.brief());
    let changes = [("mend_3_2", "10.6"), ("name", "Lake & sound")];
    let looked = client.submit(&address, page.form(&address), &changes);
    assert!(looked.body.contains("One line mended"), "{}", looked.brief());

    let left = client.get(&weather);
    assert!(left.body.contains("Not imported yet") && left.body.contains("seattle-weather.csv"), "{}", left.brief());
    assert!(left.body.contains(&format!("href=\"{address}\"")));
    let again = client.get(&address);
    assert!(again.body.contains("One line mended"), "{}", again.brief());
    assert_eq!((again.field("mend_3_2"), again.field("name")), ("10.6".into(), "Lake & sound".into()));
    assert!(again.body.contains("<option value=\"mm\" selected>"), "the unit of the rain");
    // What an import could not take is kept too.
    let form = again.form(&address);
    let refused = client.submit(&format!("{address}/import"), form, &[("name", "")]);
    assert_eq!(refused.status, 422, "{}", refused.brief());
    assert_eq!(client.get(&address).field("name"), "");

    let form = client.get(&address).form(&address);
    let taken = client.submit(&format!("{address}/import"), form, &[("name", "Sound")]);
    assert_eq!(taken.status, 303, "{}", taken.brief());
    assert!(!client.get(&weather).body.contains("Not imported yet"));
}

#[tokio::test(flavor = "multi_thread")]
async fn a_file_that_nobody_wants_is_discarded_and_nothing_stored() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let weather = format!("{place}/weather");
    let (address, page) = client.look_at_weather(&place, "rain.csv", SEATTLE);
    // From the preview, with all its fields, or from the list.
    let gone = client.submit(&format!("{address}/discard"), page.form(&address), &[]);
    assert_eq!(gone.location(), weather, "{}", gone.brief());
    assert_eq!(client.get(&address).status, 404);
    assert!(client.get("/weather").body.contains("No weather yet"));

    let token = page.field("token");
    let sent = client.send_file("/places/import", &token, "cemetery.json", &site_example("hill-cemetery"));
    let listed = client.get("/places/import");
    let discard = format!("{}/discard", sent.location());
    assert!(listed.body.contains("cemetery.json"), "{}", listed.brief());
    assert_eq!(client.submit(&discard, listed.form(&discard), &[]).location(), "/places/import");
    assert!(!client.get("/places/import").body.contains("cemetery.json"));
}

/// A script that shows the progress of an upload asks for the address alone, and gets the page of an error whole.
#[tokio::test(flavor = "multi_thread")]
async fn an_upload_tells_a_script_where_its_preview_is() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let (files, token) = (format!("{place}/weather/files"), client.get(&format!("{place}/weather")).field("token"));
    let least = [("prefer", "return=minimal")];
    let sent = client.send_file_with(&files, &least, &token, "seattle.csv", SEATTLE);
    assert_eq!((sent.status, sent.body.as_str()), (201, ""));
    assert_eq!(client.get(sent.location()).status, 200);
    let refused = client.send_file_with(&files, &least, &token, "empty.csv", b"");
    assert_eq!(refused.status, 422);
    assert!(refused.body.contains("id=\"file-error\"") && refused.body.contains("The file is empty."));
}
