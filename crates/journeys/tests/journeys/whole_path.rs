//! From signing in to the door card, on real weather, at a desk.

use upland_journeys::{Browser, DESK, Scheme, Server};

const SEATTLE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/seattle-weather.csv");

#[tokio::test(flavor = "multi_thread")]
async fn from_an_empty_company_to_a_door_card() {
    let server = Server::start(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    b.sign_in("oda@example.com").await;
    assert!(b.text("main").await.contains("From nothing to a door card"));
    b.check_page().await;

    // Arrive: a place. An impossible latitude first: the message stands beside it, the rest stays.
    b.press_button("New place").await;
    b.fill("#name", "Averstane Library Terraces").await;
    b.fill("#latitude", "95").await;
    b.fill("#longitude", "-122.25").await;
    b.fill("#elevation", "214").await;
    b.fill("#time_zone", "America/Los_Angeles").await;
    b.press_button("Save").await;
    assert!(b.text("#latitude-error").await.contains("90"));
    b.check_page().await;
    b.fill("#latitude", "47.52").await;
    b.press_button("Save").await;

    // Describe the controller, from a preset.
    b.wait_for_text("h1", "New controller").await;
    b.check_page().await;
    b.press_button("Basic panel").await;
    b.wait_for_text(".goods [aria-current]", "Basic panel").await;
    b.fill("#name", "Boiler-room cabinet").await;
    b.press_button("Save").await;

    // Describe stations.
    b.wait_for_text("h1", "Stations").await;
    b.check_page().await;
    b.fill("#s1_name", "Reading lawn").await;
    b.fill("#s2_name", "Steps bank").await;
    b.choose("#s2_sprinkler", "spray").await;
    b.fill("#s2_rate_mm_h", "30").await;
    b.fill("#s2_uniformity", "0.62").await;
    b.press_button("Save stations").await;
    b.wait_for_text(".nextstep", "Weather").await;

    // Weather: a file by mapping.
    b.click(".nextstep").await;
    let file = std::fs::canonicalize(SEATTLE).unwrap();
    b.find("#file").await.send_keys(file.to_str().unwrap()).await.unwrap();
    b.press_button("Preview").await;
    b.wait_for_text("h1", "Weather file").await;
    assert!(b.text(".maptab").await.contains("needs a unit"));
    b.check_page().await;
    for (field, unit) in [("#unit_1", "mm"), ("#unit_2", "c"), ("#unit_3", "c"), ("#unit_4", "ms")] {
        // Each choice is previewed at once.
        b.choose(field, unit).await;
        b.wait_for(&format!("{field} option[value='{unit}'][selected]")).await;
    }
    b.wait_for_text(".dialbox", "days are ready").await;
    b.check_page().await;
    b.fill("#name", "Airfield record").await;
    b.press_button("Import 1461 days").await;
    b.wait_for_text(".placetab", "Airfield record").await;
    b.check_page().await;

    // The year: July is the peak; June is what stands today.
    b.press_button("Year of Boiler-room cabinet").await;
    b.wait_for_text("#dial-title", "Dial for June").await;
    assert!(b.text(".yearplate").await.contains("Percent of July"));
    b.check_page().await;
    let september = b.text("#slider-9").await;
    let before = b.script("return document.getElementById('slider-9').getAttribute('aria-valuenow')", vec![]).await;
    assert!(september.is_empty() && before != "0", "{before}");

    // Drag September up by some steps: it is saved, and Undo takes it back.
    b.drag("#slider-9 .hd", (0, -60)).await;
    b.wait_for_text("#dial-title", "Dial for September").await;
    b.wait_for(".yeartab .chosen").await;
    let dragged = b.script("return document.getElementById('slider-9').getAttribute('aria-valuenow')", vec![]).await;
    let percent = |v: &serde_json::Value| v.as_str().unwrap().parse::<u16>().unwrap();
    assert!(percent(&dragged) > percent(&before) && percent(&dragged) % 10 == 0, "{before} to {dragged}");
    b.click("#undo button").await;
    b.wait_for_text("#dial-title", "Dial for").await;
    let undone = b.script("return document.getElementById('slider-9').getAttribute('aria-valuenow')", vec![]).await;
    assert_eq!(undone, before);

    // Every figure opens: minutes of the second station in July.
    b.click(".yeartab tbody tr:last-of-type td:nth-of-type(7) a").await;
    b.wait_for_text("#why-title", "Steps bank in July").await;
    assert!(b.text("#live-side").await.contains("Measured"));
    b.check_page().await;

    // Days and starts, as proposed; then take it away.
    b.click(".nextstep").await;
    b.wait_for_text("h1", "Week").await;
    b.check_page().await;
    b.script("document.querySelector('.acts0 .is-ink').click()", vec![]).await;
    b.wait_for(".weekplate").await;
    b.check_page().await;
    b.wait_for_text(".nextstep", "Door card").await;
    b.click(".nextstep").await;
    b.wait_for_text("h1", "Boiler-room cabinet").await;
    let card = b.text("main").await;
    for said in ["Reading lawn", "Steps bank", "Minutes at 100 %", "set it on the first", "11 June 2026", "Oda"] {
        assert!(card.contains(said), "{said} in {card}");
    }
    b.check_page().await;
    b.close().await;
}
