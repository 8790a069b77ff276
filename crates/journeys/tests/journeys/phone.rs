//! The whole path once on a phone, with typed normals.

use upland_journeys::{Browser, PHONE, Scheme, Server};

#[tokio::test(flavor = "multi_thread")]
async fn from_an_empty_company_to_a_door_card_on_a_phone() {
    let server = Server::start(&Server::built_binary()).await;
    let b = Browser::open(&server, PHONE, Scheme::Light).await;
    b.sign_in("oda@example.com").await;
    b.check_page().await;
    b.press_button("New place").await;
    for (field, value) in [
        ("#name", "Minna Glasshouse"),
        ("#latitude", "-36.1"),
        ("#longitude", "146.9"),
        ("#elevation", "165"),
        ("#time_zone", "Australia/Sydney"),
    ] {
        b.fill(field, value).await;
    }
    b.check_page().await;
    b.press_button("Save").await;
    b.wait_for_text("h1", "New controller").await;
    b.fill("#name", "Potting shed").await;
    b.check_page().await;
    b.press_button("Save").await;
    b.wait_for_text("h1", "Stations").await;
    b.fill("#s1_name", "North bench").await;
    b.check_page().await;
    b.press_button("Save stations").await;
    b.wait_for_text(".nextstep", "Weather").await;
    b.click(".nextstep").await;
    b.press_button("Enter twelve normals").await;
    for (month, et0) in
        ["6.1", "5.4", "4.0", "2.6", "1.5", "1.0", "1.1", "1.7", "2.7", "4.0", "5.0", "5.8"].iter().enumerate()
    {
        b.fill(&format!("#et0_{}", month + 1), et0).await;
    }
    b.check_page().await;
    b.press_button("Save").await;
    b.press_button("Year of Potting shed").await;
    // The figure to dial comes first, and the southern peak is in January.
    b.wait_for_text("#dial-title", "Dial for June").await;
    b.wait_for_text(".yearplate", "Percent of January").await;
    let first = b.script("return document.getElementById('dial-title').getBoundingClientRect().top < document.getElementById('live-year').getBoundingClientRect().top", vec![]).await;
    assert_eq!(first, true);
    b.check_page().await;
    b.click(".nextstep").await;
    b.wait_for_text("h1", "Week").await;
    b.check_page().await;
    b.script("document.querySelector('.acts0 .is-ink').click()", vec![]).await;
    b.wait_for(".weekplate").await;
    b.check_page().await;
    b.wait_for_text(".nextstep", "Door card").await;
    b.click(".nextstep").await;
    b.wait_for_text("h1", "Potting shed").await;
    // The way back to the controller stands in sight in the list of places, and what uses a record in that of weather.
    for path in ["/places", "/weather"] {
        b.go(path).await;
        let widths = "const e = document.querySelector('main .scroll'); return [e.scrollWidth, e.clientWidth];";
        let widths = b.script(widths, vec![]).await;
        assert!(widths[0].as_i64() <= widths[1].as_i64(), "the list of {path} is wider than a phone: {widths}");
        b.check_page().await;
    }
    b.close().await;
}
