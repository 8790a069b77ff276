//! 4. Sensors: every setting replayed beside the choice; what keeps a sensor from acting is said.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::open;

#[tokio::test(flavor = "multi_thread")]
async fn a_setting_is_chosen_from_its_replay_and_other_kinds_are_added() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/sensors").await;
    b.wait_for_text("#live-replay h2", "Set to 13").await;
    b.wait_for_text("#live-replay", "rains would have tripped it").await;
    b.check_page().await;
    // A press on a cell sets both fields and the replay follows.
    b.click("[data-fill='threshold=6&delay=2']").await;
    b.wait_for_text("#live-replay h2", "Set to 6").await;
    assert_eq!(b.script("return document.getElementById('delay').value", vec![]).await, "2");
    b.press_button("Save").await;
    b.wait_for_text(".sensorlist", "6 mm, 2 days of delay").await;

    // The roofed court is proposed as exempt; a jumper that is in is said at once.
    b.press_button("Rain sensor").await;
    b.wait_for("[name=exempt7]:checked").await;
    b.press_button("Freeze sensor").await;
    b.wait_for_text("#live-replay h2", "Nights it would block").await;
    b.fill("#place", "Pump shed").await;
    b.press_button("Add").await;
    b.wait_for_text(".sensorlist", "The jumper is still in place: the sensor never acts").await;
    b.check_page().await;

    b.press_button("ET sensor").await;
    b.wait_for_text("#live-replay", "Use climate step 2: the peak month").await;
    // Another mark of its dial, then a sheet of its own: what it would set follows.
    b.fill("#offset", "4").await;
    b.wait_for_text("#live-replay", "Today about 110 %").await;
    b.click("details.workd summary").await;
    b.fill("#offset_step", "5").await;
    b.wait_for_text("#live-replay", "Today about 100 %").await;
    b.check_page().await;
    b.press_button("Soil-moisture sensor").await;
    b.wait_for_text("#live-replay h2", "Decision window").await;
    for (i, (at, reading)) in
        [("2026-06-09 08:00", "42"), ("2026-06-09 14:00", "37"), ("2026-06-10 08:30", "33")].iter().enumerate()
    {
        b.fill(&format!("#r{i}at"), at).await;
        b.fill(&format!("#r{i}pct"), reading).await;
    }
    b.wait_for_text("#live-replay", "33.0 % at 24 h").await;
    b.fill("#r1pct", "47").await;
    b.wait_for_text("#live-replay", "The reading rose at 14:00").await;
    b.check_page().await;
    b.close().await;
}
