//! How little it takes from an empty company to a door card, with marked defaults accepted.

use upland_journeys::{Browser, DESK, Scheme, Server};

const README: &str = include_str!("../../../../README.md");

/// A place by its position, a controller by its preset, two stations by name, a file of weather
/// with its proposed units, the proposed schedule, the card. The README states how many fields and presses that takes.
#[tokio::test(flavor = "multi_thread")]
async fn from_nothing_to_a_card_in_few_fields_and_presses() {
    let server = Server::start(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    b.sign_in("oda@example.com").await;
    let [filled_before, pressed_before] = b.effort();
    // A place by its position, as a map copies it; the time zone follows.
    b.press_button("New place").await;
    b.fill("#name", "Orchard walk").await;
    b.fill("#latitude", "47.52, -122.25").await;
    b.fill("#elevation", "214").await;
    b.press_button("Save").await;
    // A controller by its preset.
    b.wait_for_text("h1", "New controller").await;
    b.press_button("Basic panel").await;
    b.wait_for_text(".goods [aria-current]", "Basic panel").await;
    b.fill("#name", "Pump house").await;
    b.press_button("Save").await;
    // Two stations, what is not said taken from the defaults.
    b.wait_for_text("h1", "Stations").await;
    b.fill("#s1_name", "Lawn").await;
    b.fill("#s2_name", "Bank").await;
    b.press_button("Save stations").await;
    // Weather: a file with its units accepted as proposed.
    b.wait_for_text(".nextstep", "Weather").await;
    b.click(".nextstep").await;
    let file = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/seattle-weather.csv");
    let file = std::fs::canonicalize(file).unwrap();
    b.find("#file").await.send_keys(file.to_str().unwrap()).await.unwrap();
    b.press_button("Preview").await;
    b.wait_for_text("h1", "Weather file").await;
    b.click("button[name=propose]").await;
    b.wait_for_text(".dialbox", "days are ready").await;
    b.press_button("Import 1461 days").await;
    // The schedule as proposed, and the card.
    b.wait_for_text(".nextstep", "Week").await;
    b.click(".nextstep").await;
    b.wait_for_text("h1", "Week").await;
    b.click(".acts0 .is-ink").await;
    b.wait_for_text(".nextstep", "Door card").await;
    b.click(".nextstep").await;
    b.wait_for_text("h1", "Pump house").await;
    assert!(b.text("main").await.contains("Minutes at 100 %"));
    let [filled, pressed] = b.effort();
    let stated = format!("{} fields, {} presses and a file", filled - filled_before, pressed - pressed_before);
    assert!(README.contains(&stated), "the README does not say \"{stated}\"");
    b.close().await;
}
